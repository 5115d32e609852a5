package poll_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/id"
	"alpenglow/core/oneof"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

func question() poll.Question {
	return poll.Question{Text: "How long is it from one new moon to the next?", Objectives: []string{"phases"},
		Body: poll.Offer(
			poll.Option{ID: "week", Text: "7 days"},
			poll.Option{ID: "month", Text: "29.53 days", Right: true},
			poll.Option{ID: "year", Text: "a year", Picture: "p1"},
		)}
}

func TestCheck(t *testing.T) {
	many := func(n int) func(*poll.Question) {
		return func(q *poll.Question) {
			q.Choice.Options = nil
			for i := range n {
				q.Choice.Options = append(q.Choice.Options, poll.Option{ID: fmt.Sprint(i)})
			}
		}
	}
	for name, c := range map[string]struct {
		change func(*poll.Question)
		want   refusal.Code
	}{
		"as it is": {func(*poll.Question) {}, ""},
		"no kind":  {func(q *poll.Question) { q.Kind = "" }, refusal.Malformed},
		"no body":  {func(q *poll.Question) { q.Choice = nil }, refusal.Malformed},
		"a picture's name that is a way": {func(q *poll.Question) { q.Choice.Options[2].Picture = "../x" },
			refusal.NoSuchPicture},
		"two answers":       {many(2), ""},
		"twelve answers":    {many(poll.MaxOptions), ""},
		"one answer":        {many(1), refusal.BoardIncorrect},
		"thirteen answers":  {many(poll.MaxOptions + 1), refusal.BoardIncorrect},
		"the same id twice": {func(q *poll.Question) { q.Choice.Options[2].ID = "week" }, refusal.BoardIncorrect},
		"no id":             {func(q *poll.Question) { q.Choice.Options[0].ID = "" }, refusal.BoardIncorrect},
		"no right answer":   {func(q *poll.Question) { q.Choice.Options[1].Right = false }, ""},
		"a long question":   {func(q *poll.Question) { q.Text = strings.Repeat("é", poll.MaxQuestion) }, ""},
		"a question too long": {func(q *poll.Question) { q.Text = strings.Repeat("é", poll.MaxQuestion+1) },
			refusal.TextTooLong},
		"an answer too long": {func(q *poll.Question) {
			q.Choice.Options[1].Text = strings.Repeat("é",
				poll.MaxOption+1)
		},
			refusal.TextTooLong},
		"an answer just enough": {func(q *poll.Question) {
			q.Choice.Options[1].Text = strings.Repeat("é",
				poll.MaxOption)
		},
			""},
	} {
		q := question()
		c.change(&q)
		switch err := q.Check(); {
		case c.want == "" && err != nil:
			t.Errorf("%s: %v", name, err)
		case c.want != "" && !errors.Is(err, refusal.New(c.want)):
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

// Every way from one phase to another: once the right answer was shown, the
// poll takes no more answers in that round.
func TestPhases(t *testing.T) {
	may := map[poll.Phase]string{poll.Open: "open closed revealed", poll.Closed: "open closed revealed",
		poll.Revealed: "revealed"}
	for from, to := range may {
		now := poll.State{Phase: from, Round: 2, OpenedAt: 5}
		for _, next := range []poll.Phase{poll.Open, poll.Closed, poll.Revealed} {
			got, err := now.To(next, 9)
			if (err == nil) != strings.Contains(to, string(next)) {
				t.Errorf("%s to %s: %v", from, next, err)
			}
			want := poll.State{Phase: next, Round: 2, OpenedAt: 5}
			if from == poll.Open && next != poll.Open {
				want.ClosedAt = 9
			}
			if err == nil && got != want {
				t.Errorf("%s to %s: %+v", from, next, got)
			}
		}
		if _, err := now.To("ajar", 9); !errors.Is(err, refusal.New(refusal.Malformed)) {
			t.Errorf("%s to a phase that is not there: %v", from, err)
		}
	}
}

// A question is asked again when it does not take answers any more, so often.
func TestAskAgain(t *testing.T) {
	now := poll.State{Phase: poll.Open, Round: 1, OpenedAt: 5}
	if _, err := now.Ask(9, 0); !errors.Is(err, refusal.New(refusal.PollOpen)) {
		t.Errorf("while it is open: %v", err)
	}
	ids := map[string]bool{poll.AnswerID("asked", 1): true}
	for round := 2; round <= poll.MaxRounds; round++ {
		now.Phase = []poll.Phase{poll.Closed, poll.Revealed}[round%2]
		next, err := now.Ask(9, 0)
		if err != nil || next != (poll.State{Phase: poll.Open, Round: round, OpenedAt: 9}) {
			t.Fatalf("round %d: %+v, %v", round, next, err)
		}
		at := poll.AnswerID("asked", round)
		if now = next; ids[at] || id.IsPlain(at) {
			t.Errorf("round %d: answers lie at %q", round, at)
		}
		ids[at] = true
	}
	now.Phase = poll.Closed
	if _, err := now.Ask(9, 0); !errors.Is(err, refusal.New(refusal.TooManyRounds)) {
		t.Errorf("too often: %v", err)
	}
}

// Each kind of question has all that it must have, and takes answers of its own
// kind alone.
func TestKinds(t *testing.T) {
	questions, bodies := oneof.Cases(reflect.TypeFor[poll.Body]())
	values, _ := oneof.Cases(reflect.TypeFor[poll.Value]())
	if !slices.Equal(questions, values) || len(bodies) == 0 {
		t.Errorf("questions %v, answers %v", questions, values)
	}
	for i, body := range bodies {
		if !poll.IsKind(body) {
			t.Errorf("%s is not all that a question is", questions[i])
		}
	}
	q := question()
	for name, v := range map[string]poll.Value{"none": {}, "no body": {Kind: poll.KindChoice},
		"another kind": {Kind: "number", Choice: &poll.Chosen{Option: "week"}}} {
		if err := q.Takes(v); !errors.Is(err, refusal.New(refusal.Malformed)) {
			t.Errorf("%s: %v", name, err)
		}
		if q.Judge(v) != (poll.Judgement{}) || q.Says(v) != "" {
			t.Errorf("%s is judged", name)
		}
	}
}

// Which answer is right, and what the question is for, leaves only once it is
// revealed, or never; the question itself stays whole.
func TestForClass(t *testing.T) {
	for phase, right := range map[poll.Phase]bool{"": false, poll.Open: false, poll.Closed: false,
		poll.Revealed: true} {
		q := question()
		text, err := json.Marshal(q.ForClass(phase))
		if err != nil || strings.Contains(string(text), "right") != right || strings.Contains(string(text), "phases") {
			t.Errorf("%q: %s, %v", phase, text, err)
		}
		for _, seen := range []string{q.Text, "7 days", "29.53 days", "p1"} {
			if !strings.Contains(string(text), seen) {
				t.Errorf("%q: %q is missing", phase, seen)
			}
		}
		if !q.HasRight() || q.Objectives == nil {
			t.Errorf("%q changed the question", phase)
		}
	}
}

// A question with a time limit is closed when that is over, whoever looks; opened again
// it has none.
func TestTimeLimit(t *testing.T) {
	now, err := poll.State{}.Ask(1000, 30)
	if err != nil || now.ClosesAt != 31_000 || now.At(30_999).Phase != poll.Open {
		t.Fatalf("%+v, %v", now, err)
	}
	if late := now.At(31_000); late.Phase != poll.Closed || late.ClosedAt != 31_000 {
		t.Errorf("at its end: %+v", late)
	}
	if next, err := now.Ask(40_000, 30); err != nil || next.Round != 2 || next.ClosesAt != 70_000 {
		t.Errorf("asked again: %+v, %v", next, err)
	}
	again, err := now.At(31_000).To(poll.Open, 50_000)
	if err != nil || again.ClosesAt != 0 || again.ClosedAt != 0 || again.At(90_000).Phase != poll.Open {
		t.Errorf("opened again: %+v, %v", again, err)
	}
	if early, err := now.To(poll.Closed, 9_000); err != nil || early.ClosedAt != 9_000 {
		t.Errorf("closed before: %+v, %v", early, err)
	}
}

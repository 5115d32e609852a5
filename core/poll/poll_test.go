package poll_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/agreed"
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
		"an answer too long": {func(q *poll.Question) { q.Choice.Options[1].Text = strings.Repeat("é", poll.MaxOption+1) },
			refusal.TextTooLong},
		"an answer just enough": {func(q *poll.Question) { q.Choice.Options[1].Text = strings.Repeat("é", poll.MaxOption) },
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
			got, err := now.To(next)
			if (err == nil) != strings.Contains(to, string(next)) {
				t.Errorf("%s to %s: %v", from, next, err)
			}
			if want := (poll.State{Phase: next, Round: 2, OpenedAt: 5}); err == nil && got != want {
				t.Errorf("%s to %s: %+v", from, next, got)
			}
		}
		if _, err := now.To("ajar"); !errors.Is(err, refusal.New(refusal.Malformed)) {
			t.Errorf("%s to a phase that is not there: %v", from, err)
		}
	}
}

// A question is asked again when it does not take answers any more, so often.
func TestAskAgain(t *testing.T) {
	now := poll.State{Phase: poll.Open, Round: 1, OpenedAt: 5}
	if _, err := now.Ask(9); !errors.Is(err, refusal.New(refusal.PollOpen)) {
		t.Errorf("while it is open: %v", err)
	}
	ids := map[string]bool{poll.AnswerID("asked", 1): true}
	for round := 2; round <= poll.MaxRounds; round++ {
		now.Phase = []poll.Phase{poll.Closed, poll.Revealed}[round%2]
		next, err := now.Ask(9)
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
	if _, err := now.Ask(9); !errors.Is(err, refusal.New(refusal.TooManyRounds)) {
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
		if q.Judge(v) != poll.NoVerdict || q.Says(v) != "" {
			t.Errorf("%s is judged", name)
		}
	}
}

// Several answers may be right; a question of opinion judges nobody.
func TestChoice(t *testing.T) {
	q := question()
	q.Choice.Options[2].Right = true
	for option, want := range map[string]poll.Verdict{"week": poll.Wrong, "month": poll.Right, "year": poll.Right,
		"day": poll.NoVerdict} {
		if got := q.Judge(poll.Choose(option)); got != want {
			t.Errorf("%s: %q", option, got)
		}
	}
	if got := q.Says(poll.Choose("month")); got != "29.53 days" {
		t.Errorf("says %q", got)
	}
	tally := q.Tally(
		[]poll.Value{poll.Choose("year"), poll.Choose("week"), poll.Choose("year"), poll.Choose("day"), {}},
	)
	if tally.Answered != 3 || !slices.Equal(tally.Counts, []int{1, 0, 2}) {
		t.Errorf("%+v", tally)
	}
	opinion := question()
	opinion.Choice.Options[1].Right = false
	if opinion.HasRight() || opinion.Judge(poll.Choose("month")) != poll.NoVerdict {
		t.Error("an opinion is judged")
	}
	other := q.WithPictures(func(p string) string { return p + "x" })
	if !slices.Equal(other.Pictures(), []string{"p1x"}) || !slices.Equal(q.Pictures(), []string{"p1"}) {
		t.Errorf("pictures %v, before %v", other.Pictures(), q.Pictures())
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

// What is right and how answers stand, a device works out for itself while they
// come in: this file of cases is what its own code is held against.
func TestVerdictsAgreed(t *testing.T) {
	type given struct {
		Value  poll.Value `json:"value"`
		Right  bool       `json:"right"`
		Counts []int      `json:"counts"` // of this answer and all before it
	}
	type asked struct {
		Question poll.Question `json:"question"`
		HasRight bool          `json:"hasRight"`
		Given    []given       `json:"given"`
	}
	some, none := question(), question()
	several := poll.Question{Text: "Which of these turn?", Body: poll.Offer(poll.Option{ID: "moon", Right: true},
		poll.Option{ID: "sun", Right: true}, poll.Option{ID: "lamp"})}
	none.Choice.Options[1].Right = false
	var cases []asked
	for _, q := range []poll.Question{some, none, several} {
		c := asked{Question: q, HasRight: q.HasRight()}
		var values []poll.Value
		for i := range 7 {
			v := poll.Choose(q.Choice.Options[(i*i+i/3)%3].ID)
			values = append(values, v)
			c.Given = append(c.Given, given{v, q.Judge(v) == poll.Right, q.Tally(values).Counts})
		}
		cases = append(cases, c)
	}
	agreed.Holds(t, "testdata/verdicts.json", cases)
}

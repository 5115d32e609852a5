package poll_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"testing"

	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

func question() poll.Question {
	return poll.Question{Text: "How long is it from one new moon to the next?", Objectives: []string{"phases"},
		Choices: []poll.Choice{
			{ID: "week", Text: "7 days"}, {ID: "month", Text: "29.53 days", Right: true},
			{ID: "year", Text: "a year", Picture: "p1"}}}
}

func TestCheck(t *testing.T) {
	many := func(n int) func(*poll.Question) {
		return func(q *poll.Question) {
			q.Choices = nil
			for i := range n {
				q.Choices = append(q.Choices, poll.Choice{ID: fmt.Sprint(i)})
			}
		}
	}
	for name, c := range map[string]struct {
		change func(*poll.Question)
		want   refusal.Code
	}{
		"as it is":          {func(*poll.Question) {}, ""},
		"two answers":       {many(2), ""},
		"twelve answers":    {many(poll.MaxChoices), ""},
		"one answer":        {many(1), refusal.BoardIncorrect},
		"thirteen answers":  {many(poll.MaxChoices + 1), refusal.BoardIncorrect},
		"the same id twice": {func(q *poll.Question) { q.Choices[2].ID = "week" }, refusal.BoardIncorrect},
		"no id":             {func(q *poll.Question) { q.Choices[0].ID = "" }, refusal.BoardIncorrect},
		"no right answer":   {func(q *poll.Question) { q.Choices[1].Right = false }, ""},
		"a long question":   {func(q *poll.Question) { q.Text = strings.Repeat("é", poll.MaxQuestion) }, ""},
		"a question too long": {func(q *poll.Question) { q.Text = strings.Repeat("é", poll.MaxQuestion+1) },
			refusal.TextTooLong},
		"an answer too long": {func(q *poll.Question) { q.Choices[1].Text = strings.Repeat("é", poll.MaxChoice+1) },
			refusal.TextTooLong},
		"an answer just enough": {func(q *poll.Question) { q.Choices[1].Text = strings.Repeat("é", poll.MaxChoice) },
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
// poll takes no more answers.
func TestPhases(t *testing.T) {
	may := map[poll.Phase]string{poll.Open: "open closed revealed", poll.Closed: "open closed revealed",
		poll.Revealed: "revealed"}
	for from, to := range may {
		for _, next := range []poll.Phase{poll.Open, poll.Closed, poll.Revealed} {
			if err := from.Next(next); (err == nil) != strings.Contains(to, string(next)) {
				t.Errorf("%s to %s: %v", from, next, err)
			}
		}
		if err := from.Next("ajar"); !errors.Is(err, refusal.New(refusal.Malformed)) {
			t.Errorf("%s to a phase that is not there: %v", from, err)
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

package poll

import (
	"encoding/json"
	"slices"

	"alpenglow/core/refusal"
)

// Was is a question as it was asked up to and with a round, before it was written anew while
// the lesson ran.
type Was struct {
	Through int      `json:"through"`
	Asked   Question `json:"asked"`
}

// In gives the question as it was asked in a round.
func (q Question) In(round int) Question {
	for _, w := range q.Was {
		if round <= w.Through {
			return w.Asked
		}
	}
	q.Was = nil
	return q
}

// Rewritten gives the question as it is from now on written, with how it was through the rounds up
// to one that has answers; of 0 rounds nothing needs to be kept.
func (q Question) Rewritten(now Question, through int) Question {
	was := q.Was
	old := q
	old.Was = nil
	now.Was = slices.Clone(was)
	if through > 0 && (len(was) == 0 || was[len(was)-1].Through < through) {
		now.Was = append(now.Was, Was{through, old})
	}
	return now
}

// Same reports whether who answers is asked the same by another question: whatever is
// said to be right, and in whatever order things are offered.
func (q Question) Same(o Question) bool {
	seen := func(q Question) string {
		q = q.ForClass(Open)
		q.Shuffle, q.Seconds = false, 0
		text, err := json.Marshal(q)
		if err != nil {
			return ""
		}
		return string(text)
	}
	return seen(q) == seen(o)
}

func (q Question) checkWas() error {
	if len(q.Was) > MaxRounds {
		return refusal.About(refusal.Malformed, "a question was written anew too often")
	}
	through := 0
	for _, w := range q.Was {
		if w.Through <= through || len(w.Asked.Was) > 0 {
			return refusal.About(refusal.Malformed, "how a question was before")
		}
		through = w.Through
		if err := w.Asked.Check(); err != nil {
			return err
		}
	}
	return nil
}

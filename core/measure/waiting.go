package measure

import (
	"cmp"
	"slices"
)

// Wait is how long somebody was seen without an answer, in milliseconds, and whether
// they then answered; else they left, or the question was closed.
type Wait struct {
	For      int64
	Answered bool
}

// Step is what part of a class has no answer yet from a time on.
type Step struct {
	At   int64   `json:"at"` // milliseconds
	Left float64 `json:"left"`
}

// Waiting gives the Kaplan-Meier estimate of how many have no answer yet, by time, with
// those counted who never gave one (Kaplan & Meier 1958, J Am Stat Assoc 53:457-481).
func Waiting(waits []Wait) []Step {
	sorted := slices.SortedFunc(slices.Values(waits), func(a, b Wait) int { return cmp.Compare(a.For, b.For) })
	var steps []Step
	left := 1.
	for from := 0; from < len(sorted); {
		at, answered, to := sorted[from].For, 0, from
		for ; to < len(sorted) && sorted[to].For == at; to++ {
			if sorted[to].Answered {
				answered++
			}
		}
		if answered > 0 {
			here := len(sorted) - from
			left *= float64(here-answered) / float64(here)
			steps = append(steps, Step{at, left})
		}
		from = to
	}
	return steps
}

// Reached gives the first time by which a part of all had answered, from 0 to 1; false
// where so many never did. On the very edge it takes that time.
func Reached(steps []Step, part float64) (int64, bool) {
	for _, s := range steps {
		if s.Left <= 1-part+1e-9 {
			return s.At, true
		}
	}
	return 0, false
}

package lesson

import (
	"slices"
	"strconv"

	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// Feedback says when a student learns what is thought of an answer to a question of a set.
type Feedback string

// Not before the teacher shows it; at the end, once the student has handed in or the set is
// closed; at once, after each answer.
const (
	FeedbackNever  Feedback = ""
	FeedbackAtEnd  Feedback = "end"
	FeedbackAtOnce Feedback = "once"
)

// Feedbacks lists them.
var Feedbacks = []Feedback{FeedbackNever, FeedbackAtEnd, FeedbackAtOnce}

// MaxTries is how often a question of a set may be answered at most.
const MaxTries = 5

// Set says that the questions of a frame are asked in a row, and how.
type Set struct {
	// OwnPace lets each student go from one to the next; without, the class is led.
	OwnPace  bool     `json:"ownPace,omitempty"`
	Feedback Feedback `json:"feedback,omitempty"`
	// Tries is how often a question may be answered where feedback comes at once; 0 is once.
	Tries int `json:"tries,omitempty"`
	// Seconds is how long the whole set takes answers at own pace; 0 until it is closed.
	Seconds int `json:"seconds,omitempty"`
	// Race shows on the front how far the class has come, by groups where there are any.
	Race bool `json:"race,omitempty"`
}

func (s *Set) check() error {
	switch {
	case s == nil:
		return nil
	case !slices.Contains(Feedbacks, s.Feedback), s.Tries < 0, s.Tries > MaxTries, s.Seconds < 0,
		s.Seconds > poll.MaxSeconds:
		return refusal.About(refusal.BoardIncorrect, "how questions are asked in a row")
	}
	return nil
}

// Most is how often each question may be answered.
func (s *Set) Most() int {
	if s == nil || s.Feedback != FeedbackAtOnce {
		return 1
	}
	return max(1, s.Tries)
}

// HandsIn reports whether a student hands in the set and learns then what is right.
func (s *Set) HandsIn() bool { return s != nil && s.OwnPace && s.Feedback == FeedbackAtEnd }

// Final reports whether an answer cannot be changed any more because its student knows what
// is thought of it: it is right, or the last of the tries.
func (s *Set) Final(q poll.Question, a Answer) bool {
	if s == nil || s.Feedback != FeedbackAtOnce || a.Late {
		return false
	}
	v := q.Judge(a.Value).Verdict
	return v == poll.Right || v != poll.NoVerdict && len(a.Before)+1 >= s.Most()
}

// Tells says what a student may learn of an answer of their own to a question that stands so:
// what is thought of it, and what would be right. Without an answer a is nil; one that came too
// late waits until what is right is shown.
func (s *Set) Tells(q poll.Question, state poll.State, a *Answer, handedIn bool) (verdict, right bool) {
	switch {
	case state.Phase == poll.Revealed, s.HandsIn() && handedIn:
		return true, true
	case s == nil || s.Feedback != FeedbackAtOnce || a == nil || a.Late:
		return false, false
	}
	return true, s.Final(q, *a)
}

// KindHanded is that a student has handed in a set.
const KindHanded Kind = "handed"

// Handed is that a student has handed in the set of a frame, the Round-th time that it was
// asked.
type Handed struct {
	Round int `json:"round"`
}

// HandedID is the id of the mark that says so; no device may give it to anything.
func HandedID(frame string, round int) string { return frame + "~in~" + strconv.Itoa(round) }

func (h *Handed) check() error                    { return nil }
func (h *Handed) with(p, before *Properties) Body { return Body{Kind: KindHanded, Handed: h} }
func (h *Handed) words() string                   { return "" }
func (h *Handed) says() string                    { return "" }
func (h *Handed) manner() manner                  { return manner{answer: true} }

// RoundOf is which time a frame's questions are asked as a set, from 1; 0 before the first.
func (f Frame) RoundOf(polls map[string]poll.State) int {
	round := 0
	for _, p := range f.Polls() {
		round = max(round, polls[p.ID].Round)
	}
	return round
}

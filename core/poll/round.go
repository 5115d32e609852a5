package poll

import (
	"strconv"

	"alpenglow/core/refusal"
)

// Phase says what may happen to a poll now.
type Phase string

// A poll takes answers while open; closed it stands still; revealed it shows
// its right answer to the class, and cannot be opened again in this round.
const (
	Open     Phase = "open"
	Closed   Phase = "closed"
	Revealed Phase = "revealed"
)

// MaxRounds is how often one question may be asked in a lesson.
const MaxRounds = 9

// State is how a poll stands that the class has reached: its phase, and which
// asking of the question this is, from 1, since when.
type State struct {
	Phase    Phase `json:"phase"`
	Round    int   `json:"round"`
	OpenedAt int64 `json:"openedAt,omitempty"` // milliseconds since 1970
	// ClosesAt is when it takes no more answers by itself, ClosedAt when it was closed.
	ClosesAt int64 `json:"closesAt,omitempty"`
	ClosedAt int64 `json:"closedAt,omitempty"`
}

// At gives the state as it is at a time: a question whose time is over is closed.
func (s State) At(now int64) State {
	if s.Phase == Open && s.ClosesAt > 0 && now >= s.ClosesAt {
		s.Phase, s.ClosedAt = Closed, s.ClosesAt
	}
	return s
}

// Ask gives the state of a question that is asked the first time, or once more, with as
// many seconds as it has.
func (s State) Ask(now int64, seconds int) (State, error) {
	s = s.At(now)
	switch {
	case s.Phase == Open:
		return s, refusal.New(refusal.PollOpen)
	case s.Round >= MaxRounds:
		return s, refusal.About(refusal.TooManyRounds, "at most %d", MaxRounds)
	}
	next := State{Phase: Open, Round: s.Round + 1, OpenedAt: now}
	if seconds > 0 {
		next.ClosesAt = now + int64(seconds)*1000
	}
	return next, nil
}

// Anew gives the state of a question that was written anew: its next round, open where it
// was open.
func (s State) Anew(now int64) (State, error) {
	open := s.At(now).Phase == Open
	s.Phase = Closed
	next, err := s.Ask(now, 0)
	if !open {
		next.Phase, next.ClosedAt = Closed, now
	}
	return next, err
}

// To gives the state in another phase of the same round. What is opened again has no
// limit any more.
func (s State) To(next Phase, now int64) (State, error) {
	s = s.At(now)
	switch {
	case next != Open && next != Closed && next != Revealed:
		return s, refusal.About(refusal.Malformed, "poll phase")
	case s.Phase == Revealed && next != Revealed:
		return s, refusal.New(refusal.PollRevealed)
	}
	switch {
	case next == Open && s.Phase != Open:
		s.ClosesAt, s.ClosedAt = 0, 0
	case next != Open && s.Phase == Open:
		s.ClosedAt = now
	}
	s.Phase = next
	return s, nil
}

// AnswerID is the id of the mark that holds a student's answer in a round. In
// the first it is the poll's own; in later ones it is none that a device may
// give to anything, so that nothing else is ever in its place.
func AnswerID(poll string, round int) string {
	if round <= 1 {
		return poll
	}
	return poll + "~" + strconv.Itoa(round)
}

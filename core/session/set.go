package session

import (
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// KindSet goes on with the questions of a frame that are asked in a row.
const KindSet CommandKind = "set"

// SetStep is how a teacher goes on with a set.
type SetStep string

// To the next question, where the class is led; close all that are open; show what is right;
// ask all of them once more.
const (
	SetNext  SetStep = "next"
	SetClose SetStep = "close"
	SetShow  SetStep = "show"
	SetAgain SetStep = "again"
)

// SetSteps lists them.
var SetSteps = []SetStep{SetNext, SetClose, SetShow, SetAgain}

// TellSet goes on with the set of a frame that the class has reached.
type TellSet struct {
	Frame string  `json:"frame"`
	Step  SetStep `json:"step"`
}

func (c *TellSet) do(s *State, board lesson.Board, with With) error {
	frame, _, err := board.Frame(c.Frame)
	if err != nil || !s.IsOpen(c.Frame) || frame.Set == nil {
		return refusal.New(refusal.NoSuchSet)
	}
	row := row{s, frame, with, frame.RoundOf(s.Polls)}
	switch c.Step {
	case SetNext:
		return row.next()
	case SetClose:
		row.close()
		return nil
	case SetShow:
		return row.to(poll.Revealed)
	case SetAgain:
		return row.again()
	}
	return refusal.About(refusal.Malformed, "how a set goes on")
}

// row is a set that is asked in a state for the round-th time.
type row struct {
	*State
	frame lesson.Frame
	with  With
	round int
}

// leads reports whether the class is led from question to question of a frame.
func (s State) leads(f lesson.Frame) bool { return f.Set != nil && !f.Set.OwnPace && s.Pace == Led }

// openPolls asks the questions of a frame that the class has not been asked: in a set along which
// it is led the first alone. Those that stand in for others wait until they are asked.
func (s *State) openPolls(frame lesson.Frame, with With) {
	if s.leads(frame) && frame.RoundOf(s.Polls) > 0 {
		return
	}
	for _, p := range frame.Polls() {
		if _, known := s.Polls[p.ID]; known || p.Poll.InsteadOf != "" {
			continue
		}
		s.ask(frame, p, max(1, frame.RoundOf(s.Polls)), with)
		if s.leads(frame) {
			return
		}
	}
}

// ask opens a question for a round.
func (s *State) ask(f lesson.Frame, p lesson.Element, round int, with With) {
	s.Polls[p.ID], _ = poll.State{Phase: poll.Closed, Round: round - 1}.Ask(with.Now, s.seconds(f, p))
}

// seconds gives how long a question takes answers: as long as it or its set says while the
// class is led; at own pace everybody comes to it at another time.
func (s State) seconds(f lesson.Frame, p lesson.Element) int {
	switch {
	case s.Pace != Led:
		return 0
	case f.Set != nil && f.Set.OwnPace:
		return f.Set.Seconds
	}
	return p.Poll.Seconds
}

// next closes what is open and asks the next question; after the last the set is closed.
func (r row) next() error {
	if !r.leads(r.frame) {
		return refusal.New(refusal.NotLed)
	}
	for _, p := range r.frame.Polls() {
		if r.Polls[p.ID].Round >= r.round || p.Poll.InsteadOf != "" {
			continue
		}
		after := poll.Closed
		if r.frame.Set.Feedback == lesson.FeedbackAtOnce {
			after = poll.Revealed
		}
		r.finish(after)
		r.ask(r.frame, p, r.round, r.with)
		return nil
	}
	r.close()
	return nil
}

// close ends the set: what is right is shown unless the teacher keeps that for later.
func (r row) close() {
	if r.frame.Set.Feedback != lesson.FeedbackNever {
		_ = r.to(poll.Revealed)
		return
	}
	r.finish(poll.Closed)
}

// finish puts what is open into another phase.
func (r row) finish(phase poll.Phase) {
	for _, p := range r.frame.Polls() {
		if now := r.Polls[p.ID].At(r.with.Now); now.Phase == poll.Open {
			r.Polls[p.ID], _ = now.To(phase, r.with.Now)
		}
	}
}

// to puts all questions that were asked into a phase.
func (r row) to(phase poll.Phase) error {
	for _, p := range r.frame.Polls() {
		now, asked := r.Polls[p.ID]
		if !asked {
			continue
		}
		next, err := now.To(phase, r.with.Now)
		if err != nil {
			return err
		}
		r.Polls[p.ID] = next
	}
	return nil
}

// again asks the set once more.
func (r row) again() error {
	for _, p := range r.frame.Polls() {
		if r.Polls[p.ID].At(r.with.Now).Phase == poll.Open {
			return refusal.New(refusal.PollOpen)
		}
	}
	if r.round >= poll.MaxRounds {
		return refusal.About(refusal.TooManyRounds, "at most %d", poll.MaxRounds)
	}
	for _, p := range r.frame.Polls() {
		if p.Poll.InsteadOf != "" {
			continue
		}
		r.ask(r.frame, p, r.round+1, r.with)
		if r.leads(r.frame) {
			return nil
		}
	}
	return nil
}

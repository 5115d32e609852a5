package session

import (
	"slices"

	"alpenglow/core/homework"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// KindHome leaves the lesson open as homework, until another date, or no longer.
const KindHome CommandKind = "home"

// SetHome leaves the lesson open until a date, in milliseconds since 1970; 0 makes a lesson of it
// again. With a Student it gives that one another date, or with 0 everybody's again.
type SetHome struct {
	Until   int64  `json:"until"`
	Closes  bool   `json:"closes,omitempty"`
	Student string `json:"student,omitempty"`
}

func (h *SetHome) do(s *State, board lesson.Board, with With) error {
	if h.Until != 0 {
		if err := homework.Check(h.Until, with.Now); err != nil {
			return err
		}
	}
	switch {
	case h.Student != "" && (s.Home == nil || !slices.Contains(with.Students, h.Student)):
		return refusal.About(refusal.Malformed, "no such student with homework")
	case h.Student != "":
		s.Home = s.Home.For(h.Student, h.Until)
		return nil
	case h.Until == 0:
		s.Home = nil
		return nil
	}
	next := homework.Homework{Since: with.Now}
	if s.Home != nil {
		next = *s.Home
	}
	next.Until, next.Closes = h.Until, h.Closes
	s.Home = &next
	return s.goHome(board, with)
}

// goHome lets everybody work at their own pace, with the questions open that the lesson has closed
// without showing what is right; what goes on in a room ends.
func (s *State) goHome(board lesson.Board, with With) error {
	s.Timer, s.Paused, s.AtBoard, s.Walk, s.Talk = nil, false, nil, nil, nil
	if err := s.setPace(board, SetPace{Pace: Own, Through: s.Through}, with); err != nil {
		return err
	}
	for id, now := range s.Polls {
		if now.Phase == poll.Closed {
			if open, err := now.To(poll.Open, with.Now); err == nil {
				s.Polls[id] = open
			}
		}
	}
	return nil
}

// Day is a part of a lesson: from when to when it ran, in milliseconds since 1970; Until is 0 while
// it runs.
type Day struct {
	From  int64 `json:"from"`
	Until int64 `json:"until,omitempty"`
}

// MaxDays is how often a lesson is taken up at most.
const MaxDays = 60

// Resume takes a lesson up again that has ended at a time: it goes on where it stood, and this is
// another day of it. Began is when its first day did, code a new join code; empty for the one it has.
func (s State) Resume(code string, began, ended, now int64) (State, error) {
	if !s.Ended {
		return s, refusal.New(refusal.LessonRuns)
	}
	if len(s.Days) >= MaxDays {
		return s, refusal.About(refusal.TooMany, "at most %d days", MaxDays)
	}
	next := s.clone()
	next.Ended = false
	if code != "" {
		next.Code = code
	}
	next.Days = slices.Clone(s.Days)
	if len(next.Days) == 0 {
		next.Days = []Day{{From: began}}
	}
	next.Days[len(next.Days)-1].Until = ended
	next.Days = append(next.Days, Day{From: now})
	next.Timer, next.Paused, next.AtBoard, next.Walk, next.Front = nil, false, nil, nil, Front{Kind: FrontGathering}
	next.Home = nil // its date is over; another one is given anew
	return next.after(s), nil
}

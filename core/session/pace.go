package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// Pace says who decides which frame a student is on.
type Pace string

// Led by the teacher, who has everybody on one frame; or own: each student
// moves along the frames that are open.
const (
	Led Pace = "led"
	Own Pace = "own"
)

// SetPace changes the pace. At own pace the frames are open as far as Through,
// or all of them when it is empty.
type SetPace struct {
	Pace    Pace   `json:"pace"`
	Through string `json:"through,omitempty"`
}

// KindPace changes the pace.
const KindPace CommandKind = "pace"

func (p *SetPace) do(s *State, board lesson.Board, with With) error {
	return s.setPace(board, *p, with)
}

func (s *State) setPace(board lesson.Board, p SetPace, with With) error {
	switch p.Pace {
	case Led:
		s.Pace, s.From, s.Through = Led, "", ""
		frame, _, err := board.Frame(s.Frame)
		if err == nil {
			s.reach(frame, with)
		}
		return err
	case Own:
		if p.Through != "" {
			if _, _, err := board.Frame(p.Through); err != nil {
				return err
			}
		}
		if s.Pace != Own {
			s.From = s.Frame
		}
		s.Pace, s.Through = Own, p.Through
		for _, frame := range s.open(board) {
			s.reach(frame, with)
		}
		return nil
	}
	return refusal.About(refusal.Malformed, "pace")
}

// open lists the frames that students may move to.
func (s State) open(board lesson.Board) []lesson.Frame {
	if s.Pace != Own {
		return nil
	}
	if _, at, err := board.Frame(s.Through); err == nil {
		return board.Frames[:at+1]
	}
	return board.Frames
}

// Student is a student, and the frame that they chose last at own pace.
type Student struct {
	ID string
	At string
}

// Place gives the id of the frame that a student is on.
func (s State) Place(board lesson.Board, student Student) string {
	open := s.open(board)
	is := func(id string) bool {
		return slices.ContainsFunc(open, func(f lesson.Frame) bool { return f.ID == id })
	}
	switch {
	case len(open) == 0:
		return s.Frame
	case is(student.At):
		return student.At
	case is(s.From):
		return s.From
	}
	return open[0].ID
}

// MayMove says whether students may move to a frame by themselves.
func (s State) MayMove(board lesson.Board, frame string) bool {
	return slices.ContainsFunc(s.open(board), func(f lesson.Frame) bool { return f.ID == frame })
}

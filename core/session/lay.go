package session

import (
	"alpenglow/core/lesson"
)

// KindLay changes how notes lie on a frame.
const KindLay CommandKind = "lay"

// Lay lets the notes of a frame lie free or in columns from now on. No note is
// changed: free again, each lies where it lay.
type Lay struct {
	Frame  string        `json:"frame"`
	Layout lesson.Layout `json:"layout"`
}

func (l *Lay) do(s *State, board lesson.Board, _ With) error {
	frame, _, err := board.Frame(l.Frame)
	if err != nil {
		return err
	}
	frame.Layout = l.Layout
	if err := frame.Check(); err != nil {
		return err
	}
	s.Laid[frame.ID] = l.Layout
	return nil
}

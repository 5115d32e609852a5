package session

import (
	"slices"

	"alpenglow/core/lesson"
)

// KindUse changes how a frame is used.
const KindUse CommandKind = "use"

// Use changes how a frame is used from now on. All work is kept.
type Use struct {
	Frame string `json:"frame"`
	Setting
}

func (u *Use) do(s *State, board lesson.Board, with With) error {
	frame, _, err := board.Frame(u.Frame)
	if err != nil {
		return err
	}
	frame.Arrangement, frame.Permission, frame.Replies = u.Arrangement, u.Permission, u.Replies
	if err := frame.Check(); err != nil {
		return err
	}
	s.Set[frame.ID] = u.Setting
	if slices.Contains(s.Reached, frame.ID) {
		s.group(frame, with)
	}
	return nil
}

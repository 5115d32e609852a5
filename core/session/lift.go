package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindLift lifts a cover.
const KindLift CommandKind = "lift"

// Lift lifts a cover of the current frame, or with Down lays it back.
type Lift struct {
	Cover string `json:"cover"`
	Down  bool   `json:"down,omitempty"`
}

func (l *Lift) do(s *State, board lesson.Board, _ With) error {
	frame, _, err := board.Frame(s.Frame)
	if err != nil {
		return err
	}
	if !slices.ContainsFunc(frame.Prepared, func(e lesson.Element) bool {
		return e.ID == l.Cover &&
			e.Kind == lesson.KindCover
	}) {
		return refusal.New(refusal.NoSuchCover)
	}
	s.Lifted = slices.DeleteFunc(s.Lifted, func(id string) bool { return id == l.Cover })
	if !l.Down {
		s.Lifted = append(s.Lifted, l.Cover)
	}
	return nil
}

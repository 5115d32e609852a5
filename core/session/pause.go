package session

import "alpenglow/core/lesson"

// KindPause lets every student's screen rest, or go on.
const KindPause CommandKind = "pause"

// Pause lets every student's screen rest, for attention, or go on. What they had
// begun arrives all the same; nothing is refused.
type Pause struct {
	On bool `json:"on"`
}

func (p *Pause) do(s *State, _ lesson.Board, _ With) error {
	s.Paused = p.On
	return nil
}

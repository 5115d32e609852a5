package session

import "alpenglow/core/lesson"

// KindGo takes the teacher to a frame.
const KindGo CommandKind = "go"

// Go takes the teacher to a frame, and where the teacher leads, everybody.
type Go struct {
	Frame string `json:"frame"`
}

func (g *Go) do(s *State, board lesson.Board, with With) error {
	frame, _, err := board.Frame(g.Frame)
	if err != nil {
		return err
	}
	if s.Frame != frame.ID {
		s.Front.From = nil
		s.Since = with.Now
	}
	s.Frame = frame.ID
	if s.Pace == Led {
		s.reach(frame, with)
	}
	return nil
}

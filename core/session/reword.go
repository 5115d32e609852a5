package session

import "alpenglow/core/lesson"

// KindReword changes the words of a frame while the lesson runs.
const KindReword CommandKind = "reword"

// Wording is what a frame is called and what it asks for.
type Wording struct {
	Title  string `json:"title"`
	Prompt string `json:"prompt"`
}

// Reword gives a frame another title and task, for this lesson. All work is kept.
type Reword struct {
	Frame string `json:"frame"`
	Wording
}

func (r *Reword) do(s *State, board lesson.Board, _ With) error {
	frame, err := s.On(board, r.Frame)
	if err != nil {
		return err
	}
	frame.Title, frame.Prompt = r.Title, r.Prompt
	if err := frame.Check(); err != nil {
		return err
	}
	s.Words[frame.ID] = r.Wording
	return nil
}

package session

import (
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindAsk asks a question once more.
const KindAsk CommandKind = "ask"

// Ask asks the question of a poll that the class has reached once more: the next
// round begins, and the answers of those before it stay. One that stands in for another
// is asked the first time, once that has been.
type Ask struct {
	Poll string `json:"poll"`
}

func (a *Ask) do(s *State, board lesson.Board, with With) error {
	f, p, err := pollOf(board, a.Poll)
	if err != nil {
		return err
	}
	now, reached := s.Polls[a.Poll]
	if _, first := s.Polls[p.Poll.InsteadOf]; !reached && !(first && s.IsOpen(f.ID)) {
		return refusal.New(refusal.NoSuchPoll)
	}
	next, err := now.Ask(with.Now, s.seconds(f, p))
	if err != nil {
		return err
	}
	s.Polls[a.Poll] = next
	return nil
}

// pollOf finds a poll and the frame that it is on.
func pollOf(board lesson.Board, id string) (lesson.Frame, lesson.Element, error) {
	for _, f := range board.Frames {
		if p, err := f.Poll(id); err == nil {
			return f, p, nil
		}
	}
	return lesson.Frame{}, lesson.Element{}, refusal.New(refusal.NoSuchPoll)
}

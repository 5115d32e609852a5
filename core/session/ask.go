package session

import (
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindAsk asks a question once more.
const KindAsk CommandKind = "ask"

// Ask asks the question of a poll that the class has reached once more: the next
// round begins, and the answers of those before it stay.
type Ask struct {
	Poll string `json:"poll"`
}

func (a *Ask) do(s *State, board lesson.Board, with With) error {
	now, reached := s.Polls[a.Poll]
	if !reached {
		return refusal.New(refusal.NoSuchPoll)
	}
	next, err := now.Ask(with.Now, s.seconds(board, a.Poll))
	if err != nil {
		return err
	}
	s.Polls[a.Poll] = next
	return nil
}

// seconds gives how long a question takes answers: as long as it says while the class is
// led; at own pace everybody comes to it at another time.
func (s State) seconds(board lesson.Board, asked string) int {
	for _, f := range board.Frames {
		for _, p := range f.Polls() {
			if p.ID == asked && s.Pace == Led {
				return p.Poll.Seconds
			}
		}
	}
	return 0
}

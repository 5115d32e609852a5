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

func (a *Ask) do(s *State, _ lesson.Board, with With) error {
	now, reached := s.Polls[a.Poll]
	if !reached {
		return refusal.New(refusal.NoSuchPoll)
	}
	next, err := now.Ask(with.Now)
	if err != nil {
		return err
	}
	s.Polls[a.Poll] = next
	return nil
}

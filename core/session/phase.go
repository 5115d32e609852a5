package session

import (
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// KindPoll puts a poll into a phase.
const KindPoll CommandKind = "poll"

// SetPoll puts a poll that the class has reached into a phase.
type SetPoll struct {
	Poll  string     `json:"poll"`
	Phase poll.Phase `json:"phase"`
}

func (p *SetPoll) do(s *State, _ lesson.Board, with With) error {
	now, reached := s.Polls[p.Poll]
	if !reached {
		return refusal.New(refusal.NoSuchPoll)
	}
	next, err := now.To(p.Phase, with.Now)
	if err != nil {
		return err
	}
	s.Polls[p.Poll] = next
	return nil
}

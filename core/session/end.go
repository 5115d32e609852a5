package session

import (
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
)

// KindEnd ends the session.
const KindEnd CommandKind = "end"

// End ends the session for good.
type End struct{}

func (*End) do(s *State, _ lesson.Board, _ With) error {
	s.Ended = true
	for id, phase := range s.Polls {
		if phase == poll.Open {
			s.Polls[id] = poll.Closed
		}
	}
	return nil
}

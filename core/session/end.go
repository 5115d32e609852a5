package session

import (
	"slices"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
)

// leftOpenAfter is longer than any lesson lasts, and shorter than until the next
// morning.
const leftOpenAfter = 10 * time.Hour

// LeftOpen reports whether a session that has not ended was probably forgotten.
func LeftOpen(started, now time.Time) bool { return now.Sub(started) >= leftOpenAfter }

// KindEnd ends the session.
const KindEnd CommandKind = "end"

// End ends the session for good.
type End struct{}

func (*End) do(s *State, _ lesson.Board, with With) error {
	s.Ended = true
	if n := len(s.Days); n > 0 {
		s.Days = slices.Clone(s.Days)
		s.Days[n-1].Until = with.Now
	}
	for id, now := range s.Polls {
		if now.Phase == poll.Open {
			s.Polls[id], _ = now.To(poll.Closed, with.Now)
		}
	}
	return nil
}

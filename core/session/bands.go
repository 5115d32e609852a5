package session

import (
	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/refusal"
)

// KindBands says from where to where discussing helps.
const KindBands CommandKind = "bands"

// SetBands says from how many percent of right answers to how many it is proposed that
// neighbours discuss.
type SetBands struct {
	outcome.Bands
}

func (b *SetBands) do(s *State, _ lesson.Board, _ With) error {
	if b.Bands.Or() != b.Bands {
		return refusal.About(refusal.Malformed, "bands from 0 to 100, one below the other")
	}
	s.Bands = &b.Bands
	return nil
}

package lesson

import (
	"slices"

	"alpenglow/core/refusal"
)

// KindStamp is a small sign.
const KindStamp Kind = "stamp"

// Sign is what a stamp shows.
type Sign string

// Signs are the stamps for quick answers.
var Signs = []Sign{"right", "unsure", "question", "idea", "star", "heart", "pin", "alert"}

// Stamp is a small picture for a quick answer.
type Stamp struct {
	Sign Sign `json:"sign"`
}

func (s *Stamp) check() error {
	if !slices.Contains(Signs, s.Sign) {
		return refusal.About(refusal.BadStyle, "stamp")
	}
	return nil
}

func (s *Stamp) with(p, before *Properties) Body { return Body{Kind: KindStamp, Stamp: s} }
func (s *Stamp) words() string                   { return "" }
func (s *Stamp) says() string                    { return string(s.Sign) }
func (s *Stamp) manner() manner {
	return manner{inClass: true, piece: true, least: minSide}
}

package lesson

import (
	"alpenglow/core/letters"
	"alpenglow/core/refusal"
)

// KindNote is a sticky note.
const KindNote Kind = "note"

// Note is a sticky note: a card that grows with its text. Size is the height of
// its letters in frame units, 0 for the usual one.
type Note struct {
	Text string  `json:"text"`
	Tint Tint    `json:"tint"`
	Size float64 `json:"size,omitempty"`
}

func (n *Note) check() error {
	if !n.Tint.known() || n.Size != 0 && !letterSize(n.Size) {
		return refusal.About(refusal.BadStyle, "tint or size")
	}
	return checkText(n.Text, MaxNote)
}

func (n *Note) with(p, before *Properties) Body {
	c := *n
	take(&c.Text, &p.Text, &before.Text)
	take(&c.Tint, &p.Tint, &before.Tint)
	take(&c.Size, &p.Size, &before.Size)
	return Body{Kind: KindNote, Note: &c}
}

// tall: the card has a rim around its words.
func (n *Note) tall(width float64, count lines) float64 {
	size := n.Size
	if size == 0 {
		size = noteSize
	}
	return count.height(n.Text, width-2*noteRim, letters.Style{Size: size, Weight: letters.Regular}) + 2*noteRim
}

func (n *Note) words() string { return n.Text }
func (n *Note) says() string  { return n.Text }
func (n *Note) manner() manner {
	return manner{inClass: true, piece: true, least: minSide}
}

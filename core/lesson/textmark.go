package lesson

import (
	"slices"
	"strings"

	"alpenglow/core/letters"
	"alpenglow/core/refusal"
)

// KindText is words without a card.
const KindText Kind = "text"

// Text is words without a card. Size is the height of its letters in frame units.
type Text struct {
	Text  string  `json:"text"`
	Size  float64 `json:"size"`
	Ink   Ink     `json:"ink"`
	Bold  bool    `json:"bold,omitempty"`
	Align Align   `json:"align,omitempty"`
	List  List    `json:"list,omitempty"`
}

// Align is where the lines of a text stand; empty for at the start.
type Align string

// The other alignments.
const (
	AlignStart  Align = ""
	AlignCentre Align = "centre"
	AlignEnd    Align = "end"
)

// List says how the lines of a text are counted off; empty for not at all.
type List string

// The kinds of lists.
const (
	ListNone    List = ""
	ListBullets List = "bullets"
	ListNumbers List = "numbers"
)

func (t *Text) check() error {
	if !t.Ink.known() || !letterSize(t.Size) || !slices.Contains([]Align{AlignStart, AlignCentre, AlignEnd}, t.Align) ||
		!slices.Contains([]List{ListNone, ListBullets, ListNumbers}, t.List) {
		return refusal.About(refusal.BadStyle, "ink, size, alignment or list")
	}
	return checkText(t.Text, MaxText)
}

func (t *Text) with(p, before *Properties) Body {
	c := *t
	take(&c.Text, &p.Text, &before.Text)
	take(&c.Ink, &p.Ink, &before.Ink)
	take(&c.Size, &p.Size, &before.Size)
	take(&c.Bold, &p.Bold, &before.Bold)
	take(&c.Align, &p.Align, &before.Align)
	take(&c.List, &p.List, &before.List)
	return Body{Kind: KindText, Text: &c}
}

// tall: each line of a list is a paragraph beside its sign.
func (t *Text) tall(width float64, count lines) float64 {
	s := letters.Style{Size: t.Size, Weight: letters.Regular}
	if t.Bold {
		s.Weight = letters.Bold
	}
	if t.List == ListNone {
		return count.height(t.Text, width, s)
	}
	total := 0.0
	for line := range strings.SplitSeq(t.Text, "\n") {
		total += count.height(line, width-listIndent*t.Size, s)
	}
	return total
}

func (t *Text) words() string { return t.Text }
func (t *Text) says() string  { return t.Text }
func (t *Text) manner() manner {
	return manner{inClass: true, piece: true, least: minSide}
}

package lesson

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/letters"
	"alpenglow/core/refusal"
)

// KindNote is a sticky note.
const KindNote Kind = "note"

// Note is a sticky note: a card that grows with its text. Size is the height of
// its letters in frame units, 0 for the usual one. Margin says that it lies beside
// the frame, because there was no room on it. Where notes lie in columns, Column
// is the id of its column and Rank its place there by hand, the least first. Stack
// is the name of the stack that it lies in (see Beneath).
type Note struct {
	Text   string  `json:"text"`
	Tint   Tint    `json:"tint"`
	Size   float64 `json:"size,omitempty"`
	Margin bool    `json:"margin,omitempty"`
	Column string  `json:"column,omitempty"`
	Rank   float64 `json:"rank,omitempty"`
	Stack  string  `json:"stack,omitempty"`
}

// NoteSize is a size of notes: of their letters, their width, and the height of a
// card with up to two lines, in frame units.
type NoteSize struct{ Letters, Width, Height float64 }

// NoteSizes are the sizes that notes take by themselves while a frame fills, the
// largest first. Letters of 25 units are a fortieth of the frame's height, which
// is read from the back row of a class room; the two below need a frame that is
// looked at large.
var NoteSizes = []NoteSize{{noteSize, 300, 120}, {25, 260, 105}, {21, 215, 90}, {17, 180, 75}}

// Room is what an empty card of the size takes with its name above, and what is
// kept free around it, in square units.
func (s NoteSize) Room() float64 { return (s.Width + noteGap) * (s.Height + tab + noteGap) }

// SizeOf says which of NoteSizes a note has, -1 for another size.
func (e Element) SizeOf() int {
	return slices.IndexFunc(NoteSizes, func(s NoteSize) bool {
		return e.Note != nil && e.W == s.Width &&
			(e.Note.Size == s.Letters || e.Note.Size == 0 && s.Letters == noteSize)
	})
}

// AtSize gives a note a size.
func (e Element) AtSize(s NoteSize) Element {
	n := *e.Note
	if n.Size = s.Letters; n.Size == noteSize {
		n.Size = 0
	}
	e.W, e.H, e.Note = s.Width, s.Height, &n
	return e
}

// InMargin says that a note lies beside the frame.
func (e Element) InMargin() bool { return e.Note != nil && e.Note.Margin }

func (n *Note) check() error {
	if !n.Tint.known() || n.Size != 0 && !letterSize(n.Size) {
		return refusal.About(refusal.BadStyle, "tint or size")
	}
	if n.Column != "" && !id.IsPlain(n.Column) || n.Stack != "" && !id.IsPlain(n.Stack) ||
		!(n.Rank >= -maxRank && n.Rank <= maxRank) {
		return refusal.About(refusal.Malformed, "column or rank")
	}
	return checkText(n.Text, MaxNote)
}

const maxRank = 1e15

func (n *Note) with(p, before *Properties) Body {
	c := *n
	take(&c.Text, &p.Text, &before.Text)
	take(&c.Tint, &p.Tint, &before.Tint)
	take(&c.Size, &p.Size, &before.Size)
	take(&c.Margin, &p.Margin, &before.Margin)
	take(&c.Column, &p.Column, &before.Column)
	take(&c.Rank, &p.Rank, &before.Rank)
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

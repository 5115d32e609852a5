package lesson

import (
	"math"

	"alpenglow/core/letters"
	"alpenglow/core/place"
)

// How the interface sets letters, in frame units.
const (
	noteSize   = 28   // the usual letters of a note
	cellSize   = 28   // letters in a table
	shapeSize  = 28   // letters inside a shape
	lineHeight = 1.35 // of a letter's size
	cellHeight = 1.4  // a line in a table, of a letter's size
	noteRim    = 19   // between a note's edge and its words
	cellRim    = 15   // between the middle of a table's rule and the words beside it
	cellRule   = 2    // how thick a table's rule is
	listIndent = 1.2  // of a letter's size; where a list's lines begin
	tab        = 30   // that the name stands out above a note
	pill       = 20   // that the count of those who agree hangs out below a note
	noteGap    = 10   // kept free beside a note
)

// Tall is how high a mark stands on its frame: its height, or what its words
// take where they take more.
func (e Element) Tall() float64 { return e.tall(letters.Count) }

func (e *Element) tall(count lines) float64 {
	if g, ok := e.kindOf().(grown); ok {
		return max(e.H, g.tall(e.W, count))
	}
	return e.H
}

// grown is a kind of mark that grows with its words.
type grown interface {
	// tall is how high its words and what is around them stand in a width.
	tall(width float64, count lines) float64
}

// lines says how many lines words take in a width: letters.Count or letters.About.
type lines func(text string, width float64, s letters.Style) int

// height is how high lines of text stand.
func (l lines) height(text string, width float64, s letters.Style) float64 {
	return float64(l(text, width, s)) * s.Size * lineHeight
}

func (e *Element) kindOf() kind {
	k, _ := e.Body.kind()
	return k
}

// Covers is what a mark covers on its frame: the upright box around it, with
// the height that its words take.
func (e Element) Covers() place.Box { return e.box(letters.Count) }

// LiesAbout is about what a mark covers, for where hundreds are looked at; it
// costs some nanoseconds for each letter.
func (e Element) LiesAbout() place.Box { return e.box(letters.About) }

func (e *Element) box(count lines) place.Box {
	b := place.Box{X: e.X, Y: e.Y, W: e.W, H: max(e.tall(count), 16)}
	if e.Kind == KindNote {
		b.Y, b.H = b.Y-tab, b.H+tab
		if len(e.Agreed) > 0 {
			b.H += pill
		}
	}
	return upright(b, e.Turn)
}

// Bounds is the upright box around a mark without what stands out of it, such as a
// name above it: what connectors hold on to.
func (e Element) Bounds() place.Box {
	return upright(place.Box{X: e.X, Y: e.Y, W: e.W, H: e.Tall()}, e.Turn)
}

// upright is the upright box around one that is turned about its middle.
func upright(b place.Box, turn float64) place.Box {
	if turn == 0 {
		return b
	}
	sin, cos := math.Sincos(turn * math.Pi / 180)
	w, h := b.W*math.Abs(cos)+b.H*math.Abs(sin), b.W*math.Abs(sin)+b.H*math.Abs(cos)
	return place.Box{X: b.X + (b.W-w)/2, Y: b.Y + (b.H-h)/2, W: w, H: h}
}

package lesson

import (
	"math"
	"strings"
	"unicode/utf8"

	"alpenglow/core/place"
)

// What the interface's letters measure, about, in letter sizes.
const (
	noteSize   = 28   // units; the usual letters of a note
	lineHeight = 1.35 // of a letter's size
	letterWide = 0.52
	noteRim    = 18 // units between a note's edge and its words
	tab        = 30 // units that the name stands out above a note
)

// Covers is about what a mark covers on its frame: the upright box around it,
// with the height that its words take.
func (e Element) Covers() place.Box {
	b := place.Box{X: e.X, Y: e.Y, W: e.W, H: max(e.H, 16)}
	switch e.Kind {
	case KindNote:
		size := e.Note.Size
		if size == 0 {
			size = noteSize
		}
		b.H = max(b.H, tall(e.Note.Text, e.W-2*noteRim, size)+2*noteRim)
		b.Y, b.H = b.Y-tab, b.H+tab
	case KindText:
		b.H = max(b.H, tall(e.Text.Text, e.W, e.Text.Size))
	}
	if e.Turn != 0 {
		sin, cos := math.Sincos(e.Turn * math.Pi / 180)
		w, h := b.W*math.Abs(cos)+b.H*math.Abs(sin), b.W*math.Abs(sin)+b.H*math.Abs(cos)
		b = place.Box{X: b.X + (b.W-w)/2, Y: b.Y + (b.H-h)/2, W: w, H: h}
	}
	return b
}

// tall is about the height of words of a letter size in a column.
func tall(words string, width, size float64) float64 {
	perLine := max(1, math.Floor(width/(size*letterWide)))
	lines := 0.0
	for line := range strings.SplitSeq(words, "\n") {
		lines += max(1, math.Ceil(float64(utf8.RuneCountInString(line))/perLine))
	}
	return lines * size * lineHeight
}

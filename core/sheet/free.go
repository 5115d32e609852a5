package sheet

import (
	"math"
	"strings"
	"unicode/utf8"

	"alpenglow/core/lesson"
	"alpenglow/core/place"
)

// What the interface's letters measure, about, in letter sizes.
const (
	noteSize   = 28   // units; the usual letters of a note
	lineHeight = 1.35 // of a letter's size
	letterWide = 0.52
	noteRim    = 18 // units between a note's edge and its words
	tab        = 30 // units that the name stands out above a note
	promptTall = 140
	// packed is from how many marks on a sheet no place is looked for: there is
	// none, and looking would hold up others.
	packed = 400
)

// free moves a new mark to the nearest free place to where it was wished. On a
// packed sheet it stays where it was wished.
func (s *Sheet) free(f lesson.Frame, m *lesson.Element) {
	if s.there > packed {
		return
	}
	taken := []place.Box{}
	if f.Prompt != "" {
		taken = append(taken, place.Box{W: lesson.FrameWidth, H: promptTall})
	}
	for _, fixed := range f.Fixed {
		taken = append(taken, covers(fixed))
	}
	for _, other := range s.marks {
		if other.OnFrame() && other.Kind != lesson.KindAnswer {
			taken = append(taken, covers(other))
		}
	}
	own := covers(*m)
	room := place.Box{X: 10, Y: 10, W: lesson.FrameWidth - 20, H: lesson.FrameHeight - 20}
	x, y := place.Free(room, taken, own.W, own.H, own.X+own.W/2, own.Y+own.H/2)
	m.X, m.Y = x+m.X-own.X, y+m.Y-own.Y
}

// covers is about what a mark covers on the frame.
func covers(m lesson.Element) place.Box {
	b := place.Box{X: m.X, Y: m.Y, W: m.W, H: max(m.H, 16)}
	if m.Kind == lesson.KindNote {
		size := m.Note.Size
		if size == 0 {
			size = noteSize
		}
		perLine := max(1, math.Floor((m.W-2*noteRim)/(size*letterWide)))
		lines := 0.0
		for line := range strings.SplitSeq(m.Note.Text, "\n") {
			lines += max(1, math.Ceil(float64(utf8.RuneCountInString(line))/perLine))
		}
		b.H = max(b.H, lines*size*lineHeight+2*noteRim)
		b.Y, b.H = b.Y-tab, b.H+tab
	}
	if m.Turn != 0 {
		sin, cos := math.Sincos(m.Turn * math.Pi / 180)
		w, h := b.W*math.Abs(cos)+b.H*math.Abs(sin), b.W*math.Abs(sin)+b.H*math.Abs(cos)
		b = place.Box{X: b.X + (b.W-w)/2, Y: b.Y + (b.H-h)/2, W: w, H: h}
	}
	return b
}

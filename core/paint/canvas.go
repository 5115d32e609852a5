package paint

import (
	"alpenglow/core/letters"
)

// Canvas is a sheet on which words and boxes are set one by one: captions, and the pages of reports. Its units are
// what they are painted as; a page of a PDF has points.
type Canvas struct{ p *painter }

// NewCanvas gives an empty sheet of a size.
func NewCanvas(w, h float64) *Canvas {
	return &Canvas{&painter{out: Painting{W: w, H: h}}}
}

// Align says where words stand in a width: at their start, in the middle, or at their end.
type Align = align

// The places of words in a width.
const (
	AtStart  = start
	InMiddle = middle
	AtEnd    = end
)

// leading is how high lines of running text are, in letter sizes.
const leading = 1.3

// Words sets words from a place downwards in lines no wider than a width, in a colour of the interface, and says how
// high they stand. Of most lines that are given, what is left over is cut; 0 is for all.
func (c *Canvas) Words(text string, x, y, width float64, s letters.Style, colour string, at Align, most int) float64 {
	lines := letters.Lines(text, width, s)
	if most > 0 && len(lines) > most {
		lines = lines[:most]
		lines[most-1], _ = cut(lines[most-1]+"…", width, s)
	}
	return c.p.lines(lines, text, x, y, width, leading, s, c.p.of(colour), at)
}

// Tall says how high words would stand.
func Tall(text string, width float64, s letters.Style) float64 {
	return float64(len(letters.Lines(text, width, s))) * leading * s.Size
}

// Box fills a box with round corners.
func (c *Canvas) Box(x, y, w, h, round float64, colour string) {
	c.p.fill(box(x, y, w, h, even(round)), c.p.of(colour))
}

// Painting gives what was set.
func (c *Canvas) Painting() Painting { return c.p.out }

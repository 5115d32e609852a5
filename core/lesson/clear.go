package lesson

import (
	"math"

	"alpenglow/core/letters"
	"alpenglow/core/place"
)

// From this size on a shape is meant to hold notes: circles of a comparison, boxes
// of an organiser.
const (
	holdsWide = 340
	holdsTall = 240
)

// holed is a kind of mark that does not take all of its box.
type holed interface {
	// taken lists the boxes that it takes of its own.
	taken(e *Element, box place.Box, count lines) []place.Box
}

// Taken lists the boxes that something new is laid clear of: where there are words,
// pictures or ink. The inside of a large outline, an empty cell and what lies
// between the turns of a line are free. About is for where much is looked at.
func (e Element) Taken(about bool) []place.Box {
	count := lines(letters.Count)
	if about {
		count = letters.About
	}
	box := e.box(count)
	if k, ok := e.kindOf().(holed); ok && e.Turn == 0 {
		return k.taken(&e, box, count)
	}
	return []place.Box{box}
}

// taken: a large shape takes what its words take, a small one all.
func (s *Shape) taken(e *Element, box place.Box, _ lines) []place.Box {
	switch {
	case s.Form == FormLine:
		return nil
	case e.W < holdsWide || e.H < holdsTall:
		return []place.Box{box}
	case s.Text == "":
		return nil
	}
	in, tall := s.Inside(e.W, e.H)
	return []place.Box{{X: box.X + in.X, Y: box.Y + in.Y + (in.H-tall)/2, W: in.W, H: tall}}
}

// cellFree is how much of a cell must be left below its words to hold a note.
const cellFree = 100

// taken: of each cell with words all, or in a high one the words at its top.
func (t *Table) taken(e *Element, box place.Box, count lines) []place.Box {
	var all []place.Box
	wide, high := t.columns(e.W), t.rows(e.W, e.H, count)
	y := box.Y
	for r, row := range t.Rows {
		x := box.X
		for c, cell := range row {
			if cell != "" {
				s := letters.Style{Size: cellSize, Weight: letters.Regular}
				tall := float64(count(cell, wide[c]-2*cellRim, s))*cellSize*cellHeight + 2*cellRule
				if high[r]-tall < cellFree {
					tall = high[r]
				}
				all = append(all, place.Box{X: x, Y: y, W: wide[c], H: tall})
			}
			x += wide[c]
		}
		y += high[r]
	}
	return all
}

// strokeParts is in how many parts a stroke's way is looked at.
const strokeParts = 12

// taken: the boxes around parts of the line.
func (s *Stroke) taken(e *Element, _ place.Box, _ lines) []place.Box {
	drawn := e.Drawn()
	n := len(drawn) / 3
	each := max(1, (n+strokeParts-1)/strokeParts)
	var all []place.Box
	for from := 0; from < n; from += each {
		low, high := [2]float64{math.Inf(1), math.Inf(1)}, [2]float64{math.Inf(-1), math.Inf(-1)}
		for i := from; i <= min(from+each, n-1); i++ { // to where the next part begins
			for k := range 2 {
				low[k], high[k] = min(low[k], drawn[3*i+k]), max(high[k], drawn[3*i+k])
			}
		}
		half := s.Width / 2
		all = append(all, place.Box{X: low[0] - half, Y: low[1] - half, W: high[0] - low[0] + s.Width,
			H: high[1] - low[1] + s.Width})
	}
	return all
}

// taken: an arrow keeps nothing clear; it runs where it must.
func (c *Connector) taken(*Element, place.Box, lines) []place.Box { return nil }

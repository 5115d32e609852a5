package paint

import (
	"alpenglow/core/lesson"
	"alpenglow/core/letters"
)

// How a table stands, in units: its letters and lines, its rules, and what is between a rule and the words.
const (
	cellSize = 28
	cellLine = 1.4 // letter sizes
	cellRule = 2
	cellRim  = 15
)

// table paints words in rows and columns, the first row as their heading.
func (p *painter) table(e lesson.Element) {
	wide, high := e.Table.Cells(e.W, e.H)
	tall := 0.0
	for _, h := range high {
		tall += h
	}
	tall = max(tall, e.H)
	p.fill(box(0, 0, e.W+cellRule, tall, even(0)), p.of("paper"))
	p.fill(box(0, 0, e.W+cellRule, high[0], even(0)), p.of("mist"))
	rule := func(x, y, w, h float64) { p.fill(box(x, y, w, h, even(0)), p.of("edge")) }
	// Rules stand on the edges of columns, so that the outer ones are half beside them.
	rule(0, 0, e.W+cellRule, cellRule)
	rule(0, 0, cellRule, tall)
	y := 0.0
	for i, row := range e.Table.Rows {
		s := reading(cellSize)
		if i == 0 {
			s = strong(cellSize)
		}
		x := cellRule / 2.0
		for j, text := range row {
			s.Tabular = i > 0 && j > 0
			width := wide[j] - 2*cellRim
			lines := letters.Lines(text, width, s)
			top := y + (high[i]-float64(len(lines))*cellLine*cellSize)/2
			p.lines(lines, text, x+cellRim, top, width, cellLine, s, p.of("night"), start)
			x += wide[j]
			if i == 0 {
				rule(x-cellRule/2, 0, cellRule, tall)
			}
		}
		y += high[i]
		rule(0, min(y, tall)-cellRule, e.W+cellRule, cellRule)
	}
}

package lesson

import (
	"slices"
	"strings"
	"unicode/utf16"

	"alpenglow/core/letters"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// KindTable is a prepared table.
const KindTable Kind = "table"

// Table is prepared text in rows; its first row is the heading.
type Table struct {
	Rows [][]string `json:"rows"`
}

// How many rows and columns a table may have.
const (
	MaxRows    = 30
	MaxColumns = 12
)

// check wants rows of one length; a cell may be empty.
func (t *Table) check() error {
	if len(t.Rows) == 0 || len(t.Rows) > MaxRows || len(t.Rows[0]) == 0 || len(t.Rows[0]) > MaxColumns {
		return refusal.About(refusal.BadSize, "a table has 1 to %d rows and 1 to %d columns", MaxRows, MaxColumns)
	}
	for _, row := range t.Rows {
		if len(row) != len(t.Rows[0]) {
			return refusal.About(refusal.BadSize, "the rows of a table are of one length")
		}
		for _, cell := range row {
			if err := prose.Check(cell, MaxNote); err != nil {
				return err
			}
		}
	}
	return nil
}

func (t *Table) with(p, before *Properties) Body {
	c := *t
	take(&c.Rows, &p.Rows, &before.Rows)
	return Body{Kind: KindTable, Table: &c}
}

// tall: the columns are as wide as their longest words want, the rows as high
// as their highest cell.
func (t *Table) tall(width float64, count lines) float64 {
	total := 0.0
	for _, high := range t.rows(width, 0, count) {
		total += high
	}
	return total
}

// rows gives how high the rows are that share a width and at least a height:
// where there is more than their words take, each gets more alike.
func (t *Table) rows(width, least float64, count lines) []float64 {
	wide := t.columns(width)
	high, total := make([]float64, len(t.Rows)), float64(cellRule)
	for y, row := range t.Rows {
		s := letters.Style{Size: cellSize, Weight: letters.Regular}
		if y == 0 {
			s.Weight = letters.SemiBold
		}
		most := 1
		for x, cell := range row {
			s.Tabular = x > 0 && y > 0
			most = max(most, count(cell, wide[x]-2*cellRim, s))
		}
		high[y] = float64(most)*cellSize*cellHeight + cellRule
		total += high[y]
	}
	high[0] += cellRule
	if total < least {
		// What is left goes to the rows below the heading, as CSS 2.1 (17.5.3) lets browsers and Chromium does.
		first := 1
		if len(high) == 1 {
			first = 0
		}
		body := 0.0
		for _, h := range high[first:] {
			body += h
		}
		for y := range high[first:] {
			high[first+y] *= (body + least - total) / body
		}
	}
	return high
}

// Cells gives how wide the columns and how high the rows of a table stand in a box.
func (t *Table) Cells(w, h float64) (wide, high []float64) {
	return t.columns(w), t.rows(w, h, letters.Count)
}

// columns gives the widths of the columns: each by the length of its longest cell.
func (t *Table) columns(width float64) []float64 {
	wide, all := make([]float64, len(t.Rows[0])), 0.0
	for x := range wide {
		for _, row := range t.Rows {
			wide[x] = max(wide[x], float64(len(utf16.Encode([]rune(row[x])))+3))
		}
		all += wide[x]
	}
	for x := range wide {
		wide[x] *= width / all
	}
	return wide
}

func (t *Table) words() string  { return strings.Join(slices.Concat(t.Rows...), " ") }
func (t *Table) says() string   { return t.words() }
func (t *Table) manner() manner { return manner{least: minSide} }

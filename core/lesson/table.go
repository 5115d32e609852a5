package lesson

import (
	"slices"
	"strings"

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
			if err := checkWords(cell, MaxNote); err != nil {
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

func (t *Table) words() string  { return strings.Join(slices.Concat(t.Rows...), " ") }
func (t *Table) says() string   { return t.words() }
func (t *Table) manner() manner { return manner{least: minSide} }

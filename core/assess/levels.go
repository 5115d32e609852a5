package assess

import (
	"fmt"
	"slices"
	"strconv"

	"alpenglow/core/record"

	"github.com/xuri/excelize/v2"
)

// Levels gives students by what was judged of them by one teacher: the level and the words for the
// whole lesson and for each frame of which something was said. Below stands, for each level that was
// given, how often it was: live in a spreadsheet.
func Levels(kept record.Record, all []Judged, by string) record.Table {
	said := map[Piece]Judged{}
	var names []string
	for _, j := range all {
		if j.By != by || j.Mark != "" {
			continue
		}
		said[j.Piece] = j
		if j.Level == nil {
			continue
		}
		for _, l := range j.Level.Scale[j.Level.At:][:1] {
			if !slices.Contains(names, l.Name) {
				names = append(names, l.Name)
			}
		}
	}
	slices.Sort(names)
	head, frames := []any{"student", "whole lesson", "words"}, []string{""}
	for i, f := range kept.Board.Frames {
		if slices.ContainsFunc(all, func(j Judged) bool { return j.By == by && j.Frame == f.ID && j.Mark == "" }) {
			n := strconv.Itoa(i + 1)
			head, frames = append(head, n+". "+f.Title, n+" words"), append(frames, f.ID)
		}
	}
	t := record.Table{Name: "levels", Rows: [][]any{head}}
	for _, s := range kept.Students {
		row := []any{s.Name}
		for _, frame := range frames {
			j := said[Piece{Student: s.ID, Frame: frame}]
			level := ""
			if j.Level != nil {
				level = j.Level.Name()
			}
			row = append(row, level, j.Comment)
		}
		t.Rows = append(t.Rows, row)
	}
	last := len(t.Rows)
	for i, name := range names {
		row := []any{name}
		for k := range frames {
			column, _ := excelize.ColumnNumberToName(2 + 2*k)
			row = append(
				row,
				record.Formula(fmt.Sprintf("COUNTIF(%s2:%s%d,$A%d)", column, column, last, last+1+i)),
				nil,
			)
		}
		t.Foot = append(t.Foot, row)
	}
	return t
}

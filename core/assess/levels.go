package assess

import (
	"fmt"
	"slices"
	"strconv"

	"alpenglow/core/lesson"
	"alpenglow/core/record"

	"github.com/xuri/excelize/v2"
)

// Levels gives students by what was judged of them by one teacher: the level and the words for the whole lesson
// and for each frame of which something was said, and the level by each criterion of the grid. Below stands, for
// each level that was given, how often it was: live in a spreadsheet.
func Levels(kept record.Record, all []Judged, by string) record.Table {
	said := map[Piece]Judged{}
	frames := map[string]bool{"": true}
	var names []string
	for _, j := range all {
		if j.By != by || j.Mark != "" {
			continue
		}
		said[j.Piece] = j
		frames[j.Frame] = true
		if j.Level != nil && !slices.Contains(names, j.Level.Name()) {
			names = append(names, j.Level.Name())
		}
	}
	slices.Sort(names)
	head, columns := []any{"student"}, []Piece{}
	add := func(title, words, frame string, by []lesson.Criterion) {
		head, columns = append(head, title, words), append(columns, Piece{Frame: frame})
		for _, c := range by {
			head, columns = append(head, title+": "+c.Name), append(columns, Piece{Frame: frame, Criterion: c.ID})
		}
	}
	add("whole lesson", "words", "", kept.Board.Criteria)
	for i, f := range kept.Board.Frames {
		if n := strconv.Itoa(i + 1); frames[f.ID] {
			add(n+". "+f.Title, n+" words", f.ID, f.Criteria)
		}
	}
	t := record.Table{Name: "levels", Rows: [][]any{head}}
	for _, s := range kept.Students {
		row := []any{s.Name}
		for _, of := range columns {
			of.Student = s.ID
			j := said[of]
			level := ""
			if j.Level != nil {
				level = j.Level.Name()
			}
			row = append(row, level)
			if of.Criterion == "" {
				row = append(row, j.Comment)
			}
		}
		t.Rows = append(t.Rows, row)
	}
	last := len(t.Rows)
	for i, name := range names {
		row := []any{name}
		for _, of := range columns {
			column, _ := excelize.ColumnNumberToName(1 + len(row))
			row = append(row, record.Formula(fmt.Sprintf("COUNTIF(%s2:%s%d,$A%d)", column, column, last, last+1+i)))
			if of.Criterion == "" {
				row = append(row, nil)
			}
		}
		t.Foot = append(t.Foot, row)
	}
	return t
}

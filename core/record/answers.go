package record

import (
	"math"
	"strconv"
)

// Answers gives students by questions: for each question what was answered last in time, and how much of
// it is right, from 0 to 1, where the question has something right.
func (r Record) Answers() Table {
	head := []any{"student"}
	type column struct {
		frame  int
		poll   string
		judged bool
	}
	var columns []column
	for i, f := range r.Board.Frames {
		for _, p := range f.Polls() {
			c := column{i, p.ID, p.Poll.HasRight()}
			columns = append(columns, c)
			head = append(head, strconv.Itoa(len(columns))+". "+p.Poll.Text)
			if c.judged {
				head = append(head, strconv.Itoa(len(columns))+" right")
			}
		}
	}
	table := [][]any{head}
	for _, s := range r.Students {
		row := []any{s.Name}
		for _, c := range columns {
			var last *Answered
			for i, a := range s.Frames[c.frame].Answers {
				if a.Poll == c.poll && !a.Late && (last == nil || a.Round > last.Round) {
					last = &s.Frames[c.frame].Answers[i]
				}
			}
			switch {
			case last == nil && c.judged:
				row = append(row, "", nil)
			case last == nil:
				row = append(row, "")
			case c.judged:
				row = append(row, last.Text, math.Round(last.Share*1e4)/1e4)
			default:
				row = append(row, last.Text)
			}
		}
		table = append(table, row)
	}
	return Table{Name: "answers", Rows: table}
}

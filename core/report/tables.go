package report

import (
	"fmt"
	"io"
	"math"

	"alpenglow/core/record"

	"github.com/xuri/excelize/v2"
)

// Tables gives a report as tables, by question, by frame and by student; docs/formats/report.md says what stands in
// which column. Below stand sums that a spreadsheet computes.
func (r Report) Tables() []record.Table {
	questions := record.Table{
		Name: "questions",
		Rows: [][]any{{"question", "frame", "right", "answered", "share", "low", "high",
			"advice", "instead"}},
	}
	for _, q := range r.Questions {
		row := []any{q.Text, float64(q.N)}
		if a := q.Advice; a != nil {
			row = append(row, float64(a.Right), float64(a.Of), rounded(float64(a.Right)/float64(a.Of)),
				rounded(a.Span.Low), rounded(a.Span.High), string(a.Is))
		} else {
			row = append(row, nil, 0.0, nil, nil, nil, "")
		}
		instead := ""
		if len(q.Wrong) > 0 {
			instead = q.Wrong[0].Text
		}
		questions.Rows = append(questions.Rows, append(row, instead))
	}
	frames := record.Table{Name: "frames", Rows: [][]any{{"frame", "title", "worked", "here"}}}
	for _, f := range r.Frames {
		frames.Rows = append(frames.Rows, []any{float64(f.N), f.Title, float64(f.Worked), float64(r.Here)})
	}
	students := record.Table{
		Name: "students",
		Rows: [][]any{{"student", "frames", "answered", "right", "share", "low", "high"}},
	}
	for _, s := range r.Students {
		row := []any{s.Name, float64(s.Frames), float64(s.Answered), float64(s.Right), nil, nil, nil}
		if s.Answered > 0 {
			row[4], row[5], row[6] = rounded(s.Share), rounded(s.Span.Low), rounded(s.Span.High)
		}
		students.Rows = append(students.Rows, row)
	}
	questions.Foot = sums(len(questions.Rows), "all", map[int]string{3: "SUM", 4: "SUM"})
	students.Foot = sums(len(students.Rows), "mean",
		map[int]string{2: "AVERAGE", 3: "AVERAGE", 4: "AVERAGE", 5: "AVERAGE"})
	return []record.Table{questions, frames, students}
}

// sums is a row of formulas over the rows below a heading, by column from 1; none where there are no rows.
func sums(rows int, name string, by map[int]string) [][]any {
	if rows < 2 {
		return nil
	}
	most := 0
	for column := range by {
		most = max(most, column)
	}
	row := make([]any, most)
	row[0] = name
	for column, what := range by {
		letter, _ := excelize.ColumnNumberToName(column) // columns are few
		row[column-1] = record.Formula(fmt.Sprintf("IFERROR(%s(%s2:%s%d),0)", what, letter, letter, rows))
	}
	return [][]any{row}
}

func rounded(v float64) float64 { return math.Round(v*1e4) / 1e4 }

// XLSX writes a report as a spreadsheet of three sheets.
func (r Report) XLSX(to io.Writer) error { return record.Workbook(to, r.Tables()...) }

package record

import (
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"

	"github.com/xuri/excelize/v2"
)

// answers gives students by questions: for each question what was answered last in time, and how much of
// it is right, from 0 to 1, where the question has something right. Cells are texts and numbers.
func (r Record) answers() [][]any {
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
	return table
}

// AnswersCSV writes students by questions as comma-separated values (RFC 4180, UTF-8).
func (r Record) AnswersCSV(w io.Writer) error {
	if _, err := io.WriteString(w, byteOrderMark); err != nil {
		return fmt.Errorf("write answers: %w", err)
	}
	out := quoted{w}
	for _, row := range r.answers() {
		cells := make([]string, len(row))
		for i, cell := range row {
			switch cell := cell.(type) {
			case string:
				cells[i] = harmless(cell)
			case float64:
				cells[i] = strconv.FormatFloat(cell, 'f', -1, 64)
			}
		}
		if err := out.line(cells); err != nil {
			return fmt.Errorf("write answers: %w", err)
		}
	}
	return nil
}

// AnswersXLSX writes the same as a spreadsheet: texts are texts, whatever they begin with, and
// shares are numbers.
func (r Record) AnswersXLSX(w io.Writer) error {
	const sheet = "answers"
	f := excelize.NewFile()
	defer f.Close()
	err := f.SetSheetName(f.GetSheetName(0), sheet)
	for n, row := range r.answers() {
		for i, cell := range row {
			at, wrong := excelize.CoordinatesToCellName(i+1, n+1)
			err = errors.Join(err, wrong)
			switch cell := cell.(type) {
			case string:
				err = errors.Join(err, f.SetCellStr(sheet, at, cell))
			case float64:
				err = errors.Join(err, f.SetCellFloat(sheet, at, cell, -1, 64))
			}
		}
	}
	err = errors.Join(err, f.SetPanes(sheet, &excelize.Panes{Freeze: true, XSplit: 1, YSplit: 1, TopLeftCell: "B2",
		ActivePane: "bottomRight"}), f.Write(w))
	if err != nil {
		return fmt.Errorf("write answers: %w", err)
	}
	return nil
}

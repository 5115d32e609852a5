package record

import (
	"errors"
	"fmt"
	"io"
	"strconv"

	"github.com/xuri/excelize/v2"
)

// Formula is a cell that a spreadsheet computes; a CSV file does not have it.
type Formula string

// Table is what is written as CSV or as a spreadsheet: a head, rows of texts, numbers and
// nothing, and rows of formulas below, which only a spreadsheet has.
type Table struct {
	Name string
	Rows [][]any
	Foot [][]any
}

// CSV writes the table as comma-separated values (RFC 4180, UTF-8). No cell begins as a formula does.
func (t Table) CSV(w io.Writer) error {
	if _, err := io.WriteString(w, byteOrderMark); err != nil {
		return fmt.Errorf("write %s: %w", t.Name, err)
	}
	out := quoted{w}
	for _, row := range t.Rows {
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
			return fmt.Errorf("write %s: %w", t.Name, err)
		}
	}
	return nil
}

// XLSX writes it as a spreadsheet: texts are texts, whatever they begin with, numbers are
// numbers, and formulas are live.
func (t Table) XLSX(w io.Writer) error { return Workbook(w, t) }

// Workbook writes tables as the sheets of one spreadsheet.
func Workbook(w io.Writer, tables ...Table) error {
	f := excelize.NewFile()
	defer f.Close()
	err := f.SetSheetName(f.GetSheetName(0), tables[0].Name)
	for i, t := range tables {
		if i > 0 {
			_, wrong := f.NewSheet(t.Name)
			err = errors.Join(err, wrong)
		}
		err = errors.Join(err, t.fill(f))
	}
	if err = errors.Join(err, f.Write(w)); err != nil {
		return fmt.Errorf("write %s: %w", tables[0].Name, err)
	}
	return nil
}

// fill puts the table on its sheet.
func (t Table) fill(f *excelize.File) error {
	var err error
	n := 0
	for _, rows := range [][][]any{t.Rows, t.Foot} {
		for _, row := range rows {
			n++
			for i, cell := range row {
				at, wrong := excelize.CoordinatesToCellName(i+1, n)
				err = errors.Join(err, wrong)
				switch cell := cell.(type) {
				case string:
					err = errors.Join(err, f.SetCellStr(t.Name, at, cell))
				case float64:
					err = errors.Join(err, f.SetCellFloat(t.Name, at, cell, -1, 64))
				case Formula:
					err = errors.Join(err, f.SetCellFormula(t.Name, at, string(cell)))
				}
			}
		}
	}
	return errors.Join(err, f.SetPanes(t.Name, &excelize.Panes{Freeze: true, XSplit: 1, YSplit: 1, TopLeftCell: "B2",
		ActivePane: "bottomRight"}))
}

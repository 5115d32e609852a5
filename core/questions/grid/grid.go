// Package grid reads and writes questions as a table: the kind, the question, and what stands
// below it, each question a row. Its cells are written as lines of package script.
package grid

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"

	"alpenglow/core/questions"
	"alpenglow/core/questions/script"
	"alpenglow/core/refusal"

	"github.com/xuri/excelize/v2"
)

// Header names the columns.
var Header = []string{"kind", "question", "answers"}

const (
	byteOrderMark = "\uFEFF"
	sheetName     = "questions"
	maxUnpacked   = 24 << 20
)

// rows gives the table of a sheet, and its questions with what the table does not hold.
func rows(s questions.Sheet) ([][]string, []questions.Item) {
	table := [][]string{Header}
	told, _ := script.Write(io.Discard, s)
	for _, i := range told {
		if word := script.Word(i.Asked.Kind); word != "" {
			table = append(table, []string{word, i.Asked.Text, strings.TrimSuffix(script.Below(i.Asked), "\n")})
		}
	}
	return table, told
}

// WriteCSV writes a table as comma-separated values (RFC 4180, UTF-8); before a cell that a
// spreadsheet would compute stands an apostrophe.
func WriteCSV(to io.Writer, s questions.Sheet) ([]questions.Item, error) {
	table, told := rows(s)
	if _, err := io.WriteString(to, byteOrderMark); err != nil {
		return nil, fmt.Errorf("write questions: %w", err)
	}
	out := csv.NewWriter(to)
	for _, row := range table {
		cells := make([]string, len(row))
		for i, cell := range row {
			cells[i] = harmless(cell)
		}
		if err := out.Write(cells); err != nil {
			return nil, fmt.Errorf("write questions: %w", err)
		}
	}
	out.Flush()
	return told, out.Error()
}

const computed = "=+-@\t\r"

func harmless(cell string) string {
	if cell != "" && strings.ContainsRune(computed+"'", rune(cell[0])) {
		return "'" + cell
	}
	return cell
}

func unharmed(cell string) string {
	if len(cell) > 1 && cell[0] == '\'' && strings.ContainsRune(computed+"'", rune(cell[1])) {
		return cell[1:]
	}
	return cell
}

// WriteXLSX writes a table as a spreadsheet; all cells are texts.
func WriteXLSX(to io.Writer, s questions.Sheet) ([]questions.Item, error) {
	table, told := rows(s)
	f := excelize.NewFile()
	defer f.Close()
	if err := f.SetSheetName(f.GetSheetName(0), sheetName); err != nil {
		return nil, fmt.Errorf("write questions: %w", err)
	}
	for n, row := range table {
		for i, cell := range row {
			at, err := excelize.CoordinatesToCellName(i+1, n+1)
			if err == nil {
				err = f.SetCellStr(sheetName, at, cell)
			}
			if err != nil {
				return nil, fmt.Errorf("write questions: %w", err)
			}
		}
	}
	err := errors.Join(f.SetColWidth(sheetName, "A", "A", 14), f.SetColWidth(sheetName, "B", "C", 60), f.Write(to))
	if err != nil {
		return nil, fmt.Errorf("write questions: %w", err)
	}
	return told, nil
}

// Is reports whether a text is a table of questions: by its first line.
func Is(text string) bool {
	first, _, _ := strings.Cut(strings.TrimPrefix(text, byteOrderMark), "\n")
	return separator(first) != 0
}

// separator gives what stands between the columns of a first line; 0 where it names others.
func separator(first string) rune {
	plain := strings.ToLower(strings.NewReplacer(`"`, "", " ", "", "\r", "").Replace(first))
	for _, s := range []rune{',', ';', '\t'} {
		if plain == strings.Join(Header, string(s)) {
			return s
		}
	}
	return 0
}

// ReadCSV reads a table from text, with commas, semicolons or tabs between the columns.
func ReadCSV(text, language string, id func() string) (questions.Sheet, error) {
	text = strings.TrimPrefix(text, byteOrderMark)
	first, _, _ := strings.Cut(text, "\n")
	in := csv.NewReader(strings.NewReader(text))
	in.Comma, in.FieldsPerRecord = separator(first), -1
	if in.Comma == 0 || len(text) > questions.MaxFile {
		return questions.Sheet{}, refusal.New(refusal.FileUnreadable)
	}
	table, err := in.ReadAll()
	if err != nil {
		return questions.Sheet{}, refusal.New(refusal.FileUnreadable)
	}
	for _, row := range table {
		for i := range row {
			row[i] = unharmed(row[i])
		}
	}
	return read(table, language, id)
}

// ReadXLSX reads the first sheet of a spreadsheet; false where it is none of questions.
func ReadXLSX(data []byte, language string, id func() string) (questions.Sheet, bool, error) {
	f, err := excelize.OpenReader(bytes.NewReader(data), excelize.Options{UnzipSizeLimit: maxUnpacked,
		UnzipXMLSizeLimit: maxUnpacked, RawCellValue: true})
	if err != nil {
		return questions.Sheet{}, false, refusal.New(refusal.FileUnreadable)
	}
	defer f.Close()
	sheets := f.GetSheetList()
	if len(sheets) == 0 {
		return questions.Sheet{}, false, nil
	}
	in, err := f.Rows(sheets[0])
	if err != nil {
		return questions.Sheet{}, false, refusal.New(refusal.FileUnreadable)
	}
	defer in.Close()
	var table [][]string
	for in.Next() {
		row, err := in.Columns()
		if err != nil || len(table) > questions.MaxItems+1 {
			return questions.Sheet{}, false, refusal.New(refusal.FileUnreadable)
		}
		table = append(table, row)
		if len(table) == 1 && separator(strings.Join(row, ",")) == 0 {
			return questions.Sheet{}, false, nil
		}
	}
	s, err := read(table, language, id)
	return s, len(table) > 0, err
}

// read reads the rows below the header.
func read(table [][]string, language string, id func() string) (questions.Sheet, error) {
	var s questions.Sheet
	for n, row := range table {
		if n == 0 || strings.TrimSpace(strings.Join(row, "")) == "" {
			continue
		}
		if len(s.Items) >= questions.MaxItems {
			return s, refusal.About(refusal.FileHuge, "at most %d questions", questions.MaxItems)
		}
		row = append(row, "", "", "")
		var below []string
		for line := range strings.Lines(strings.ReplaceAll(row[2], "\r\n", "\n")) {
			if line = strings.TrimSpace(line); line != "" {
				below = append(below, line)
			}
		}
		word := strings.ToLower(strings.TrimSpace(row[0]))
		item := questions.Item{At: n + 1}
		item.Asked, item.Failed = script.Question(word, strings.TrimSpace(row[1]), below, language, id)
		s.Items = append(s.Items, item)
	}
	return s, nil
}

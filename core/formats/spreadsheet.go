package formats

import (
	"bytes"
	"errors"
	"slices"
	"strings"

	"alpenglow/core/refusal"

	"github.com/xuri/excelize/v2"
)

// Bounds of a spreadsheet that is read for a list of names.
const (
	MaxSpreadsheet    = 2 << 20  // bytes as it comes
	maxUnpackedSheet  = 24 << 20 // bytes of all in it, and of each part
	maxSpreadsheetRow = 6_000
	maxSpreadsheetCol = 40
	maxCell           = 400 // bytes of one cell
)

// ReadSpreadsheet gives the first sheet of an XLSX file, or a CSV or text file, as
// lines with tabs between the cells. Text is UTF-8, UTF-16 with its mark, or else
// Windows-1252, as older programs save it.
func ReadSpreadsheet(data []byte) (string, error) {
	switch {
	case len(data) == 0:
		return "", refusal.New(refusal.FileEmpty)
	case len(data) > MaxSpreadsheet:
		return "", refusal.About(refusal.FileHuge, "at most %d bytes", MaxSpreadsheet)
	case bytes.HasPrefix(data, []byte("PK\x03\x04")):
		return readXLSX(data)
	case bytes.HasPrefix(data, []byte("\xd0\xcf\x11\xe0")): // an older Excel file, or one with a password
		return "", refusal.New(refusal.FileLocked)
	}
	return decoded(data)
}

// readXLSX reads the first sheet row by row.
func readXLSX(data []byte) (string, error) {
	f, err := excelize.OpenReader(bytes.NewReader(data), excelize.Options{
		UnzipSizeLimit: maxUnpackedSheet, UnzipXMLSizeLimit: maxUnpackedSheet, RawCellValue: true})
	if errors.Is(err, excelize.ErrWorkbookPassword) || errors.Is(err, excelize.ErrUnsupportedEncryptMechanism) {
		return "", refusal.New(refusal.FileLocked)
	}
	if err != nil {
		return "", refusal.New(refusal.FileUnreadable)
	}
	defer f.Close()
	sheets := f.GetSheetList()
	if len(sheets) == 0 {
		return "", refusal.New(refusal.FileEmpty)
	}
	rows, err := f.Rows(sheets[0])
	if err != nil {
		return "", refusal.New(refusal.FileUnreadable)
	}
	defer rows.Close()
	var table [][]string
	width := 0
	for rows.Next() {
		cells, err := rows.Columns()
		if err != nil {
			return "", refusal.New(refusal.FileUnreadable)
		}
		if len(table) >= maxSpreadsheetRow {
			return "", refusal.About(refusal.FileHuge, "at most %d rows", maxSpreadsheetRow)
		}
		cells = slices.Clone(cells[:min(len(cells), maxSpreadsheetCol)])
		for i := range cells {
			cells[i] = oneLine(cells[i])
		}
		table, width = append(table, cells), max(width, len(cells))
	}
	if rows.Error() != nil {
		return "", refusal.New(refusal.FileUnreadable)
	}
	var lines strings.Builder
	for _, cells := range table {
		lines.WriteString(strings.Join(cells, "\t"))
		for range width - max(1, len(cells)) { // every row has every column
			lines.WriteByte('\t')
		}
		lines.WriteByte('\n')
	}
	return lines.String(), nil
}

// oneLine gives a cell without what would part it from itself.
func oneLine(cell string) string {
	cell = strings.ToValidUTF8(cell[:min(len(cell), maxCell)], "")
	return strings.Map(func(r rune) rune {
		if r == '\t' || r == '\n' || r == '\r' {
			return ' '
		}
		return r
	}, cell)
}

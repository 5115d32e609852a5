package record

import (
	"encoding/csv"
	"fmt"
	"io"
	"strconv"
	"strings"
	"time"

	"alpenglow/core/lesson"
)

// byteOrderMark makes spreadsheets read the file as UTF-8.
const byteOrderMark = "\uFEFF"

// header names the columns; docs/formats/record-csv.md explains them.
var header = []string{"student", "frame", "title", "kind", "content", "verdict", "hidden", "time"}

// CSV writes the record as comma-separated values (RFC 4180, UTF-8): one line
// for each note, text and answer, one for all that a student drew on a frame,
// and one with kind "nothing" where a student left nothing.
func (r Record) CSV(w io.Writer) error {
	if _, err := io.WriteString(w, byteOrderMark); err != nil {
		return fmt.Errorf("write record: %w", err)
	}
	out := csv.NewWriter(w)
	out.UseCRLF = true
	if err := out.Write(header); err != nil {
		return fmt.Errorf("write record: %w", err)
	}
	for _, s := range r.Students {
		for i, f := range s.Frames {
			for _, line := range f.lines() {
				row := append([]string{s.Name, strconv.Itoa(i + 1), r.Board.Frames[i].Title}, line...)
				for j := range row {
					row[j] = harmless(row[j])
				}
				if err := out.Write(row); err != nil {
					return fmt.Errorf("write record: %w", err)
				}
			}
		}
	}
	out.Flush()
	if err := out.Error(); err != nil {
		return fmt.Errorf("write record: %w", err)
	}
	return nil
}

// lines gives kind, content, verdict, hidden and time of each thing on a frame.
func (f OnFrame) lines() [][]string {
	var lines [][]string
	strokes, lastStroke := 0, int64(0)
	for _, m := range f.Marks {
		hidden := ""
		if m.Hidden {
			hidden = "hidden"
		}
		switch m.Kind {
		case lesson.KindNote:
			lines = append(lines, []string{"note", m.Note.Text, "", hidden, clock(m.At)})
		case lesson.KindText:
			lines = append(lines, []string{"text", m.Text.Text, "", hidden, clock(m.At)})
		case lesson.KindStroke:
			strokes, lastStroke = strokes+1, max(lastStroke, m.At)
		}
	}
	if strokes > 0 {
		lines = append(lines, []string{"drawing", strconv.Itoa(strokes) + " strokes", "", "", clock(lastStroke)})
	}
	for _, a := range f.Answers {
		lines = append(lines, []string{"answer", a.Text, string(a.Right), "", clock(a.At)})
	}
	if len(lines) == 0 {
		lines = append(lines, []string{"nothing", "", "", "", ""})
	}
	return lines
}

func clock(ms int64) string { return time.UnixMilli(ms).UTC().Format(time.RFC3339) }

// harmless keeps a spreadsheet from taking a cell for a formula: a cell that
// begins with one of the signs that start one gets an apostrophe in front
// (common practice against formula injection).
func harmless(cell string) string {
	if start := strings.TrimLeft(cell, " \u00A0\u200B\uFEFF"); start != "" && strings.ContainsAny(start[:1], "=+-@\t\r\n") || strings.HasPrefix(start, "\uFF1D") || strings.HasPrefix(start, "\uFF0B") || strings.HasPrefix(start, "\uFF0D") || strings.HasPrefix(start, "\uFF20") {
		return "'" + cell
	}
	return cell
}

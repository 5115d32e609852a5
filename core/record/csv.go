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
var header = []string{"student", "frame", "title", "kind", "content", "verdict", "hidden", "time", "agreed"}

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
			for _, line := range f.lines(piecesOf(r.Board.Frames[i])) {
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

// piecesOf says in words what the pieces of a frame are, by their ids.
func piecesOf(f lesson.Frame) map[string]string {
	words := map[string]string{}
	for _, e := range f.Prepared {
		if e.Layer != lesson.Fixed {
			words[e.ID] = strings.TrimSpace(string(e.Kind) + " " + e.Words())
		}
	}
	return words
}

// lines gives kind, content, verdict, hidden, time and agreement of each thing
// on a frame; lines and arrows are counted.
func (f OnFrame) lines(pieces map[string]string) [][]string {
	var lines [][]string
	strokes, lastStroke := 0, int64(0)
	arrows, lastArrow := 0, int64(0)
	for _, m := range f.Marks {
		hidden := ""
		if m.Hidden {
			hidden = "hidden"
		}
		agreed := ""
		if len(m.Agreed) > 0 {
			agreed = strconv.Itoa(len(m.Agreed))
		}
		content := m.Words()
		switch m.Kind {
		case lesson.KindStroke:
			strokes, lastStroke = strokes+1, max(lastStroke, m.At)
			continue
		case lesson.KindConnector:
			arrows, lastArrow = arrows+1, max(lastArrow, m.At)
			continue
		case lesson.KindShape:
			content = strings.TrimSpace(string(m.Shape.Form) + " " + content)
		case lesson.KindStamp:
			content = string(m.Stamp.Sign)
		case lesson.KindPlaced:
			content = fmt.Sprintf("%s at %.0f, %.0f", pieces[m.Placed.Piece], m.X, m.Y)
		}
		lines = append(lines, []string{string(m.Kind), content, "", hidden, clock(m.At), agreed})
	}
	if strokes > 0 {
		lines = append(lines, []string{"drawing", strconv.Itoa(strokes) + " strokes", "", "", clock(lastStroke), ""})
	}
	if arrows > 0 {
		lines = append(lines, []string{"arrows", strconv.Itoa(arrows) + " arrows", "", "", clock(lastArrow), ""})
	}
	for _, a := range f.Answers {
		lines = append(lines, []string{"answer", a.Text, string(a.Right), "", clock(a.At), ""})
	}
	if len(lines) == 0 {
		lines = append(lines, []string{"nothing", "", "", "", "", ""})
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

package record

import (
	"fmt"
	"io"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"alpenglow/core/lesson"
)

// byteOrderMark makes spreadsheets read the file as UTF-8.
const byteOrderMark = "\uFEFF"

// header names the columns; docs/formats/record-csv.md explains them.
var header = []string{"student", "frame", "title", "kind", "content", "verdict", "hidden", "time", "agreed", "round",
	"column", "to", "mistake", "sure", "tries", "first"}

// CSV writes the record as comma-separated values (RFC 4180, UTF-8): one line
// for each note, text and answer, one for all that a student drew on a frame,
// and one with kind "nothing" where a student left nothing.
func (r Record) CSV(w io.Writer) error {
	if _, err := io.WriteString(w, byteOrderMark); err != nil {
		return fmt.Errorf("write record: %w", err)
	}
	out := quoted{w}
	if err := out.line(header); err != nil {
		return fmt.Errorf("write record: %w", err)
	}
	notes := r.notes()
	for _, s := range r.Students {
		for i, f := range s.Frames {
			for _, line := range f.lines(r.Board.Frames[i], notes) {
				row := append([]string{s.Name, strconv.Itoa(i + 1), r.Board.Frames[i].Title}, line...)
				row = append(row, make([]string, len(header)-len(row))...)
				for j := range row {
					row[j] = harmless(row[j])
				}
				if err := out.line(row); err != nil {
					return fmt.Errorf("write record: %w", err)
				}
			}
		}
	}
	return nil
}

// quoted writes lines in which every cell stands in quotes, so that programs
// that take semicolons or tabs for separators see the same cells.
type quoted struct{ io.Writer }

var quotes = strings.NewReplacer(`"`, `""`, "\r\n", "\r\n", "\n", "\r\n")

func (q quoted) line(cells []string) error {
	var line strings.Builder
	for i, cell := range cells {
		if i > 0 {
			line.WriteByte(',')
		}
		line.WriteString(`"` + quotes.Replace(cell) + `"`)
	}
	line.WriteString("\r\n")
	_, err := io.WriteString(q, line.String())
	return err
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

// notes gives the words of all notes in the record, by their ids.
func (r Record) notes() map[string]string {
	words := map[string]string{}
	for _, s := range r.Students {
		for _, f := range s.Frames {
			for _, m := range f.Marks {
				if m.Note != nil {
					words[m.ID] = m.Note.Text
				}
			}
		}
	}
	return words
}

// lines gives kind, content, verdict, standing, time, agreement, round, column,
// what is replied to, and of an answer its known mistake, whether it was sure, in how many
// tries, and what the first was, of each
// thing on a frame; lines and arrows are counted.
func (f OnFrame) lines(frame lesson.Frame, notes map[string]string) [][]string {
	var lines [][]string
	pieces := piecesOf(frame)
	counted := map[string]int{}
	last := map[string]int64{}
	for _, m := range f.Marks {
		if name := m.Counted(); name != "" {
			counted[name], last[name] = counted[name]+1, max(last[name], m.At)
			continue
		}
		stands, agreed, content := "", "", m.Says()
		if m.Stands() != lesson.Shown {
			stands = string(m.Stands())
		}
		if len(m.Agreed) > 0 {
			agreed = strconv.Itoa(len(m.Agreed))
		}
		if m.Placed != nil {
			content = fmt.Sprintf("%s at %.0f, %.0f", pieces[m.Placed.Piece], m.X, m.Y)
		}
		lines = append(lines, []string{string(m.Kind), content, "", stands, clock(m.At), agreed, "",
			columnOf(frame, m), repliedTo(m, notes)})
	}
	for _, name := range slices.Backward(slices.Sorted(maps.Keys(counted))) {
		unit := " strokes"
		if name == "arrows" {
			unit = " arrows"
		}
		lines = append(
			lines,
			[]string{name, strconv.Itoa(counted[name]) + unit, "", "", clock(last[name]), "", "", "", ""},
		)
	}
	for _, a := range f.Answers {
		stands := ""
		if a.Late {
			stands = "late"
		}
		line := []string{"answer", a.Text, string(a.Verdict), stands, clock(a.At), "", strconv.Itoa(a.Round), "", "",
			a.Mistake, string(a.Sure)}
		if a.First != nil {
			line = append(line, strconv.Itoa(a.Tries), a.First.Text)
		}
		lines = append(lines, line)
	}
	if len(lines) == 0 {
		lines = append(lines, []string{"nothing", "", "", "", "", "", "", "", ""})
	}
	return lines
}

// repliedTo is the note under which a reply stands; what the teacher wrote is not
// in the record.
func repliedTo(m lesson.Element, notes map[string]string) string {
	if m.Reply == nil {
		return ""
	}
	if text, ok := notes[m.Reply.To]; ok {
		return text
	}
	return "the teacher's note"
}

// columnOf is the heading under which a note stands, or the number of its column.
func columnOf(f lesson.Frame, m lesson.Element) string {
	if m.Note == nil || !f.Layout.InColumns() {
		return ""
	}
	at := f.Layout.Of(m)
	if title := f.Layout.Columns[at].Title; title != "" {
		return title
	}
	return strconv.Itoa(at + 1)
}

func clock(ms int64) string { return time.UnixMilli(ms).UTC().Format(time.RFC3339) }

// formula finds where a spreadsheet may take a cell, or what follows something
// that it may take for a separator, for a formula.
var formula = regexp.MustCompile(`(^|[;,\t\r\n"])` +
	`([\s\x{00A0}\x{200B}\x{FEFF}]*)([=+\-@\x{FF1D}\x{FF0B}\x{FF0D}\x{FF20}]|\t|\r)`)

// harmless keeps a spreadsheet from taking a cell, or a part of one, for a
// formula: the signs that start one get an apostrophe in front (common practice
// against formula injection).
func harmless(cell string) string { return formula.ReplaceAllString(cell, "$1'$2$3") }

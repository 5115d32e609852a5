package output

import (
	"encoding/xml"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/record"
)

// Said is one thing that somebody wrote, or answered, on a frame.
type Said struct {
	N     int // the frame's place on the board, from 1
	Frame lesson.Frame
	Who   string // empty without names, and of the teacher
	Kind  lesson.Kind
	Text  string
	At    int64 // milliseconds since 1970
}

// List lists all that was written, frame by frame, in the order in which it came; and answers, but for what is for
// the class, which does not see those of others.
func (w Wish) List(s Source) []Said {
	var all []Said
	for i, f := range s.Board.Frames {
		if !w.takes(f.ID) {
			continue
		}
		var here []Said
		for _, on := range s.On {
			for _, e := range on.Marks {
				if on.Frame != f.ID || !e.OnFrame() || w.AsClass && !audience.Class().Mark(e) ||
					len(w.Students) > 0 && !slices.Contains(w.Students, e.Author) {
					continue
				}
				said := Said{i + 1, f, "", e.Kind, strings.TrimSpace(e.Words()), e.At}
				if e.Answer != nil {
					said.Text = answered(f, e)
				}
				if w.Names {
					said.Who = s.name(e.Author)
				}
				if said.Text != "" {
					here = append(here, said)
				}
			}
		}
		slices.SortStableFunc(here, func(a, b Said) int { return int(max(-1, min(1, a.At-b.At))) })
		all = append(all, here...)
	}
	return all
}

func answered(f lesson.Frame, e lesson.Element) string {
	asked, err := f.Poll(e.Answer.Poll)
	if err != nil {
		return ""
	}
	return asked.Poll.In(e.Answer.Round).Says(e.Answer.Value)
}

// WriteList writes a list, headings and all.
func (w Wish) WriteList(to io.Writer, board lesson.Board, list []Said) error {
	switch w.Form {
	case Markdown:
		return markdown(to, board, list)
	case OPML:
		return opml(to, board, list)
	}
	t := record.Table{Name: "notes", Rows: [][]any{{"frame", "title", "student", "kind", "text", "time"}}}
	for _, s := range list {
		at := time.UnixMilli(s.At).UTC().Format(time.RFC3339)
		t.Rows = append(t.Rows, []any{float64(s.N), s.Frame.Title, s.Who, string(s.Kind), s.Text, at})
	}
	return t.CSV(to)
}

// byFrame gives the frames of a board with what is said on each.
func byFrame(board lesson.Board, list []Said, each func(n int, f lesson.Frame, said []Said)) {
	for i, f := range board.Frames {
		var here []Said
		for _, s := range list {
			if s.N == i+1 {
				here = append(here, s)
			}
		}
		if len(here) > 0 {
			each(i+1, f, here)
		}
	}
}

// markdown writes headings and lists (CommonMark 0.31); what would be a sign of it stands behind a backslash.
func markdown(to io.Writer, board lesson.Board, list []Said) error {
	var b strings.Builder
	fmt.Fprintf(&b, "# %s\n", plainText(board.Title))
	byFrame(board, list, func(n int, f lesson.Frame, said []Said) {
		fmt.Fprintf(&b, "\n## %d\\. %s\n\n", n, plainText(f.Title))
		if f.Prompt != "" {
			fmt.Fprintf(&b, "%s\n\n", plainText(f.Prompt))
		}
		for _, s := range said {
			b.WriteString("- ")
			if s.Who != "" {
				fmt.Fprintf(&b, "**%s:** ", plainText(s.Who))
			}
			b.WriteString(strings.ReplaceAll(plainText(s.Text), "\n", "\\\n  ") + "\n")
		}
	})
	_, err := io.WriteString(to, b.String())
	return err
}

// plainText writes a text so that Markdown takes no sign in it for its own.
func plainText(text string) string {
	var b strings.Builder
	for i, r := range text {
		begins := i == 0 || text[i-1] == '\n'
		if strings.ContainsRune("\\`*_[]<>#&|~", r) || begins && strings.ContainsRune("-+=", r) {
			b.WriteByte('\\')
		}
		if (r == '.' || r == ')') && numbered(text[:i]) {
			b.WriteByte('\\')
		}
		b.WriteRune(r)
	}
	return b.String()
}

// numbered reports that a line has begun with digits alone, which would make a list of it.
func numbered(before string) bool {
	line := before[strings.LastIndexByte(before, '\n')+1:]
	return line != "" && strings.Trim(line, "0123456789") == ""
}

// outlineFile is an outline (OPML 2.0).
type outlineFile struct {
	XMLName  xml.Name  `xml:"opml"`
	Version  string    `xml:"version,attr"`
	Title    string    `xml:"head>title"`
	Outlines []outline `xml:"body>outline"`
}

type outline struct {
	Text     string    `xml:"text,attr"`
	Note     string    `xml:"_note,attr,omitempty"`
	Outlines []outline `xml:"outline"`
}

func opml(to io.Writer, board lesson.Board, list []Said) error {
	file := outlineFile{Version: "2.0", Title: board.Title}
	byFrame(board, list, func(n int, f lesson.Frame, said []Said) {
		frame := outline{Text: fmt.Sprintf("%d. %s", n, f.Title), Note: f.Prompt}
		for _, s := range said {
			text := s.Text
			if s.Who != "" {
				text = s.Who + ": " + text
			}
			frame.Outlines = append(frame.Outlines, outline{Text: text})
		}
		file.Outlines = append(file.Outlines, frame)
	})
	if len(file.Outlines) == 0 {
		file.Outlines = []outline{{Text: board.Title}}
	}
	if _, err := io.WriteString(to, xml.Header); err != nil {
		return err
	}
	return xml.NewEncoder(to).Encode(file)
}

package record_test

import (
	"bytes"
	"encoding/csv"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/record"
)

func note(frame, author, text string, z int64) record.Mark {
	return record.Mark{Frame: frame, Element: lesson.Element{ID: author + text, Author: author, Z: z,
		At:   1_000_000_000_000,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "moss"}}}}
}

func stroke(frame, author string, z int64) record.Mark {
	return record.Mark{Frame: frame, Element: lesson.Element{ID: author + "stroke", Author: author, Z: z,
		Body: lesson.Body{Kind: lesson.KindStroke,
			Stroke: &lesson.Stroke{Points: []float64{0, 0, 1}, Ink: "night", Width: 4}}}}
}

func other(author string, b lesson.Body) record.Mark {
	return record.Mark{Frame: "one", Element: lesson.Element{ID: author + string(b.Kind), Author: author, Body: b}}
}

func answer(author string, round int, choice string) record.Mark {
	return record.Mark{Frame: "two", Element: lesson.Element{ID: poll.AnswerID("asked", round), Author: author,
		Body: lesson.Body{Kind: lesson.KindAnswer,
			Answer: &lesson.Answer{Poll: "asked", Round: round, Value: poll.Choose(choice)}}}}
}

func example() record.Record {
	board := lesson.Board{Title: "Moon and tides", Frames: []lesson.Frame{
		{ID: "one", Title: "What do you notice?"},
		{ID: "two", Title: "How long?", Prepared: []lesson.Element{{ID: "asked",
			Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{
				Body: poll.Offer(
					poll.Option{ID: "a", Text: "7 days"},
					poll.Option{ID: "b", Text: "29.53 days", Right: true},
				)}}}}},
	}}
	hidden := note("one", "2", "hidden, but kept", 2)
	hidden.Standing = &lesson.Standing{Is: lesson.Hidden, By: lesson.Staff}
	hidden.Agreed = []string{"1", "3"}
	removed := note("one", "2", "removed", 3)
	removed.Remove("2", 1, "")
	return record.Build(board, []record.Student{{ID: "2", Name: "Tomás"}, {ID: "1", Name: "=Noor()"},
		{ID: "3", Name: "Vera"}}, []record.Mark{
		hidden, removed, stroke("one", "2", 9), stroke("one", "2", 10), answer("2", 1, "b"), answer("1", 1, "a"),
		answer("3", 1, "gone"), answer("1", 2, "b"),
		other("3", lesson.Body{Kind: lesson.KindShape, Shape: &lesson.Shape{Form: lesson.FormStar, Text: "North"}}),
		other("3", lesson.Body{Kind: lesson.KindStamp, Stamp: &lesson.Stamp{Sign: "idea"}}),
		other("3", lesson.Body{Kind: lesson.KindLink,
			Link: &lesson.Link{URL: "https://tides.example/", Title: "Tide tables"}}),
		other("3", lesson.Body{Kind: lesson.KindPicture, Picture: &lesson.Picture{Picture: "p", Alt: "the Moon"}}),
		other("3", lesson.Body{Kind: lesson.KindConnector, Connector: &lesson.Connector{}}),
		note("one", "1", "@SUM(A1)", 5), note("one", "1", "-2 °C, \"cold\"\nand windy", 4), note("one", "1", " +1", 6),
		note("one", lesson.Staff, "not a student's", 7),
	})
}

func counts(t record.Tally) []int {
	var all []int
	for _, bar := range t.Chart.Bars.Bars {
		all = append(all, bar.Count)
	}
	return all
}

func TestBuild(t *testing.T) {
	r := example()
	if names := []string{r.Students[0].Name, r.Students[1].Name, r.Students[2].Name}; !slices.Equal(names,
		[]string{"=Noor()", "Tomás", "Vera"}) {
		t.Errorf("students %v", names)
	}
	if got := r.Students[0].Frames[1].Answers; len(got) != 2 || got[0].Verdict != poll.Wrong || got[1].Round != 2 ||
		got[1].Verdict != poll.Right {
		t.Errorf("a wrong answer, and a right one in the second round: %+v", got)
	}
	if got := r.Students[1].Frames[1].Answers; len(got) != 1 || got[0].Verdict != poll.Right ||
		got[0].Text != "29.53 days" {
		t.Errorf("a right answer: %+v", got)
	}
	if got := r.Tallies[0]; got.Round != 1 || got.Answered != 2 || !slices.Equal(counts(got), []int{1, 1}) {
		t.Errorf("tally %+v", got)
	}
	if got := r.Tallies[1]; len(r.Tallies) != 2 || got.Round != 2 || !slices.Equal(counts(got), []int{0, 1}) {
		t.Errorf("tally of the second round %+v", got)
	}
}

// RFC 4180, section 2: lines end in CRLF, cells with commas, quotes or line
// breaks are quoted, quotes doubled. The cells that would start a formula
// carry an apostrophe (common practice).
func TestCSV(t *testing.T) {
	var out bytes.Buffer
	if err := example().CSV(&out); err != nil {
		t.Fatal(err)
	}
	text, found := strings.CutPrefix(out.String(), "\uFEFF")
	if !found {
		t.Error("no byte order mark")
	}
	if strings.Count(text, "\n") != strings.Count(text, "\r\n") ||
		!strings.Contains(text, "'-2 °C, \"\"cold\"\"\r\nand windy") {
		t.Errorf("line ends or quotes:\n%s", text)
	}
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	var got []string
	for _, row := range rows[1:] {
		for _, cell := range row {
			if start := strings.TrimSpace(cell); start != "" && strings.ContainsAny(start[:1], "=+-@") {
				t.Errorf("a formula: %q", cell)
			}
		}
		got = append(got, strings.Join(append([]string{row[0], row[1]}, row[3:7]...), "|"))
	}
	want := []string{
		"'=Noor()|1|note|'-2 °C, \"cold\"\nand windy||", "'=Noor()|1|note|'@SUM(A1)||", "'=Noor()|1|note|' +1||",
		"'=Noor()|2|answer|7 days|wrong|", "'=Noor()|2|answer|29.53 days|right|",
		"Tomás|1|note|hidden, but kept||hidden", "Tomás|1|drawing|2 strokes||", "Tomás|2|answer|29.53 days|right|",
		"Vera|1|shape|star North||", "Vera|1|stamp|idea||", "Vera|1|link|Tide tables https://tides.example/||",
		"Vera|1|picture|the Moon||",
		"Vera|1|arrows|1 arrows||", "Vera|2|nothing|||",
	}
	if !slices.Equal(got, want) {
		t.Errorf("got\n%s\nwant\n%s", strings.Join(got, "\n"), strings.Join(want, "\n"))
	}
	if rows[6][8] != "2" || rows[1][8] != "" {
		t.Errorf("agreed: %q and %q", rows[6][8], rows[1][8])
	}
	if rows[1][7] != "2001-09-09T01:46:40Z" {
		t.Errorf("time %q", rows[1][7])
	}
}

// A piece that a student has moved is named by what is on it, with its place.
func TestMovedPieces(t *testing.T) {
	card := lesson.Element{ID: "card", Layer: lesson.Piece,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "ebb", Tint: "moss"}}}
	b := lesson.Board{Frames: []lesson.Frame{{ID: "one", Title: "Sort", Prepared: []lesson.Element{card}}}}
	moved := record.Mark{Frame: "one", Element: lesson.Element{ID: "card", Author: "noor", At: 1000, X: 120, Y: 340.4,
		Body: lesson.Body{Kind: lesson.KindPlaced, Placed: &lesson.Placed{Piece: "card"}}}}
	var out bytes.Buffer
	if err := record.Build(b, []record.Student{{ID: "noor", Name: "Noor"}},
		[]record.Mark{moved}).CSV(&out); err != nil {
		t.Fatal(err)
	}
	if want := `"Noor","1","Sort","placed","note ebb at 120, 340","","","1970-01-01T00:00:01Z","",""`; !strings.Contains(
		out.String(),
		want,
	) {
		t.Errorf("%s, want %s in it", out.String(), want)
	}
}

// Where notes stood in columns, each line says under which heading.
func TestNotesInColumns(t *testing.T) {
	layout := lesson.Layout{Columns: []lesson.Column{{ID: "a", Title: "I see"}, {ID: "b"}}}
	b := lesson.Board{Frames: []lesson.Frame{{ID: "one", Title: "T", Layout: layout}}}
	var marks []record.Mark
	for _, column := range []string{"a", "b", "removed since"} {
		marks = append(marks, record.Mark{Frame: "one", Element: lesson.Element{ID: column, Author: "noor",
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: column, Tint: "moss", Column: column}}}})
	}
	var out bytes.Buffer
	if err := record.Build(b, []record.Student{{ID: "noor", Name: "Noor"}}, marks).CSV(&out); err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{`"note","a","","","1970-01-01T00:00:00Z","","","I see"`,
		`"note","b","","","1970-01-01T00:00:00Z","","","2"`,
		`"removed since","","","1970-01-01T00:00:00Z","","","I see"`} {
		if !strings.Contains(out.String(), want) {
			t.Errorf("%s\nwant %s in it", out.String(), want)
		}
	}
}

// A reply says which words it answers.
func TestReplies(t *testing.T) {
	b := lesson.Board{Frames: []lesson.Frame{{ID: "one", Title: "T", Replies: true}}}
	mark := func(id, author string, body lesson.Body) record.Mark {
		return record.Mark{Frame: "one", Element: lesson.Element{ID: id, Author: author, Body: body}}
	}
	reply := func(to string) lesson.Body {
		return lesson.Body{Kind: lesson.KindReply, Reply: &lesson.Reply{To: to, Text: "to " + to}}
	}
	var out bytes.Buffer
	if err := record.Build(b, []record.Student{{ID: "noor", Name: "Noor"}, {ID: "kenji", Name: "Kenji"}},
		[]record.Mark{mark("n", "noor", lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "=tide",
			Tint: "moss"}}),
			mark("r", "kenji", reply("n")), mark("s", "kenji", reply("teacher"))}).CSV(&out); err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{`"reply","to n","","","1970-01-01T00:00:00Z","","","","'=tide"`,
		`"reply","to teacher","","","1970-01-01T00:00:00Z","","","","the teacher's note"`} {
		if !strings.Contains(out.String(), want) {
			t.Errorf("%s\nwant %s in it", out.String(), want)
		}
	}
}

// Programs that take semicolons or tabs for separators see no formula either:
// every cell stands in quotes, and what follows such a sign is made harmless.
func TestCSVReadWithOtherSeparators(t *testing.T) {
	b := lesson.Board{Frames: []lesson.Frame{{ID: "one", Title: "T"}}}
	for typed, want := range map[string]string{
		"x;=1+1":         "x;'=1+1",
		"x;\"=1+1":       "x;\"'=1+1",
		"a\t@SUM(A1)":    "a\t'@SUM(A1)",
		"high\n-2 °C":    "high\n'-2 °C",
		"\uFF1D1":        "'\uFF1D1",
		"5 - 3, not = 3": "5 - 3, not = 3",
	} {
		mark := record.Mark{Frame: "one", Element: lesson.Element{ID: "m", Author: "noor",
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: typed, Tint: "moss"}}}}
		var out bytes.Buffer
		if err := record.Build(b, []record.Student{{ID: "noor", Name: "Noor"}},
			[]record.Mark{mark}).CSV(&out); err != nil {
			t.Fatal(err)
		}
		rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(out.String(), "\uFEFF"))).ReadAll()
		if err != nil || rows[1][4] != want {
			t.Errorf("%q became %q, want %q, %v", typed, rows[1][4], want, err)
		}
		for _, line := range strings.Split(out.String(), "\r\n") {
			if strings.ContainsAny(line[:min(1, len(line))], "=+-@") {
				t.Errorf("a line begins like a formula: %q", line)
			}
		}
	}
}

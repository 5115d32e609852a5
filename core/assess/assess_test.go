package assess_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/measure"
	"alpenglow/core/poll"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/settings"

	"github.com/xuri/excelize/v2"
)

func level(n int) *int { return &n }

// What a teacher says is kept with the scale as it is then; a level that stays keeps its own.
func TestJudge(t *testing.T) {
	now := settings.Usually().Scale
	old := append([]settings.Level{}, now[:3]...)
	old[0].Name = "Not yet"
	before := assess.Judged{By: "ines", Level: &assess.Level{At: 0, Scale: old}}
	for name, c := range map[string]struct {
		said   assess.Said
		before *assess.Judged
		level  string
		no     refusal.Code
	}{
		"a level":              {assess.Said{Level: level(3)}, nil, "Going further", ""},
		"a comment alone":      {assess.Said{Comment: "Well seen."}, nil, "", ""},
		"nothing":              {assess.Said{}, &before, "", ""},
		"the level stays":      {assess.Said{Keeps: true, Comment: "and a word"}, &before, "Not yet", ""},
		"none stays":           {assess.Said{Keeps: true, Comment: "a word"}, nil, "", ""},
		"the same level again": {assess.Said{Level: level(0), Comment: "and a word"}, &before, "Beginning", ""},
		"another one":          {assess.Said{Level: level(1)}, &before, "On the way", ""},
		"below the scale":      {assess.Said{Level: level(-1)}, nil, "", refusal.NoSuchLevel},
		"above the scale":      {assess.Said{Level: level(4)}, nil, "", refusal.NoSuchLevel},
		"a comment without end": {assess.Said{Comment: strings.Repeat("x", assess.MaxComment+1)}, nil, "",
			refusal.TextTooLong},
		"a comment that turns":    {assess.Said{Comment: "a\u202eb"}, nil, "", refusal.TextControl},
		"blanks and no level":     {assess.Said{Comment: " \n"}, nil, "", ""},
		"above, beside a comment": {assess.Said{Level: level(9), Comment: "x"}, &before, "", refusal.NoSuchLevel},
	} {
		got, err := assess.Judge(c.said, lesson.Board{}, now, c.before, "ines", 5)
		if c.no != "" {
			if !errors.Is(err, refusal.New(c.no)) {
				t.Errorf("%s: %v, want %s", name, err, c.no)
			}
			continue
		}
		is := ""
		if got.Level != nil {
			is = got.Level.Name()
		}
		if err != nil || is != c.level || got.Comment != c.said.Comment || got.By != "ines" || got.At != 5 ||
			got.Empty() != (c.level == "" && strings.TrimSpace(c.said.Comment) == "") {
			t.Errorf("%s: %+v, %v", name, got, err)
		}
	}
}

// Blind, nobody learns what another thinks of a piece before they have given a level to it.
func TestSeen(t *testing.T) {
	r := rand.New(rand.NewPCG(41, 42))
	for range 3000 {
		var all []assess.Judged
		mine := map[assess.Piece]bool{}
		for n := range r.IntN(30) {
			j := assess.Judged{Piece: assess.Piece{Student: fmt.Sprint(r.IntN(3)), Frame: fmt.Sprint(r.IntN(2))},
				By: fmt.Sprint(r.IntN(3)), At: int64(n)}
			if r.IntN(2) == 0 {
				j.Level = &assess.Level{At: 1, Scale: settings.Usually().Scale}
			}
			all = append(all, j)
			if j.By == "0" && j.Level != nil {
				mine[j.Piece] = true
			}
		}
		if open := assess.Seen(all, "0", false); len(open) != len(all) {
			t.Fatalf("%d of %d", len(open), len(all))
		}
		own := 0
		for _, j := range assess.Seen(all, "0", true) {
			if j.By == "0" {
				own++
			} else if !mine[j.Piece] {
				t.Fatalf("%+v was seen", j)
			}
		}
		for _, j := range all {
			if j.By == "0" {
				own--
			}
		}
		if own != 0 {
			t.Fatal("one's own are always seen")
		}
	}
}

// A lesson with a question and a note of Ada's and of Bo's on each of two frames.
func lessonOfTwo() (record.Record, session.State) {
	month := poll.Question{Text: "How long?", Why: "The Earth has gone on.", Body: poll.Offer(
		poll.Option{
			ID:      "a",
			Text:    "7 days",
			Mistake: "SECRET mistake",
		},
		poll.Option{ID: "b", Text: "29.53 days", Right: true},
	)}
	unasked := poll.Question{Text: "SECRET question", Body: poll.Body{Kind: poll.KindOpen, Open: &poll.Free{}}}
	mark := func(id string, b lesson.Body) lesson.Element {
		return lesson.Element{ID: id, W: 100, H: 100, Body: b}
	}
	board := lesson.Board{Title: "Tides", Frames: []lesson.Frame{
		{ID: "f1", Title: "The month", Notes: "SECRET notes", Prepared: []lesson.Element{
			mark("q1", lesson.Body{Kind: lesson.KindPoll, Poll: &month}),
			mark("q2", lesson.Body{Kind: lesson.KindPoll, Poll: &unasked})}},
		{ID: "f2", Title: "Notes"}, {ID: "f3", Title: "Nobody was here"}}}
	note := func(author, id, text string, is lesson.Stand) record.Mark {
		e := mark(id, lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text}})
		e.Author, e.Agreed, e.By = author, []string{"bo", "cem"}, "staff"
		if is != "" {
			e.Standing = &lesson.Standing{Is: is, By: lesson.Staff, At: 1}
		}
		return record.Mark{Frame: "f2", Element: e}
	}
	answer := func(author, option string) record.Mark {
		e := mark(
			"q1",
			lesson.Body{
				Kind:   lesson.KindAnswer,
				Answer: &lesson.Answer{Poll: "q1", Round: 1, Value: poll.Choose(option)},
			},
		)
		e.Author = author
		return record.Mark{Frame: "f1", Element: e}
	}
	kept := record.Build(
		board,
		[]record.Student{{ID: "ada", Name: "Ada"}, {ID: "bo", Name: "SECRET Bo"}},
		[]record.Mark{
			answer(
				"ada",
				"a",
			), answer("bo", "b"), note("ada", "n1", "Ada's note", ""), note("ada", "n2", "SECRET hidden",
				lesson.Hidden),
			note("bo", "n3", "SECRET note of Bo's", "")},
	)
	return kept, session.State{Polls: map[string]poll.State{"q1": {Phase: poll.Closed, Round: 1}}}
}

// What goes back holds a student's own work, what was right and why, and the words of the lesson's
// teacher: nothing of others, nothing of a second marker, nothing that a class may not see.
func TestBackTo(t *testing.T) {
	kept, state := lessonOfTwo()
	scale := settings.Usually().Scale
	all := []assess.Judged{
		{
			Piece: assess.Piece{Student: "ada", Frame: "f1", Mark: "q1"},
			By:    "ines",
			Word:  assess.Word{Comment: "Think of the Earth."},
		},
		{Piece: assess.Piece{Student: "ada"}, By: "ines", Word: assess.Word{Comment: "A good lesson."}},
		{Piece: assess.Piece{Student: "ada", Frame: "f2"}, By: "ines", Level: &assess.Level{At: 2, Scale: scale}},
		{
			Piece: assess.Piece{Student: "ada", Frame: "f2"},
			By:    "other",
			Word:  assess.Word{Comment: "SECRET second marker"},
		},
		{Piece: assess.Piece{Student: "bo", Frame: "f2"}, By: "ines", Word: assess.Word{Comment: "SECRET for Bo"}},
	}
	b, ok := assess.BackTo(kept, state, all, "ada", "ines")
	text, err := json.Marshal(b)
	if !ok || err != nil {
		t.Fatal(ok, err)
	}
	for _, secret := range []string{"SECRET", `"bo"`, `"cem"`, "staff", "agreed"} {
		if strings.Contains(string(text), secret) {
			t.Errorf("%s went back: %s", secret, text)
		}
	}
	if len(b.Frames) != 2 || b.Frames[1].Judged.Level.Name() != "Secure" || b.Whole.Comment != "A good lesson." ||
		b.Frames[0].Marked["q1"].Comment != "Think of the Earth." || b.Frames[1].N != 2 {
		t.Errorf("%s", text)
	}
	a := b.Frames[0].Answers[0]
	if a.Verdict != poll.Wrong || a.Right != "29.53 days" || a.Why != "The Earth has gone on." || a.Text != "7 days" {
		t.Errorf("%+v", a)
	}
	if kept.Board.Frames[0].Prepared[0].Poll.Choice.Options[0].Mistake == "" {
		t.Error("the record was changed")
	}
	if _, ok := assess.BackTo(kept, state, all, "nobody", "ines"); ok {
		t.Error("nobody gets nothing")
	}
}

// Only what a lesson has can be judged.
func TestIn(t *testing.T) {
	kept, _ := lessonOfTwo()
	for p, no := range map[assess.Piece]refusal.Code{
		{Student: "ada"}: "", {Student: "ada", Frame: "f1", Mark: "q1"}: "", {Student: "ada", Frame: "f3"}: "",
		{Student: "ada", Frame: "f2", Mark: "n1"}: "", {Student: "ada", Frame: "f2", Mark: "n3"}: refusal.NoSuchMark,
		{Student: "cem"}: refusal.NoSuchWork, {Student: "ada", Frame: "f9"}: refusal.NoSuchFrame,
		{Student: "ada", Mark: "n1"}: refusal.NoSuchFrame, {Student: "ada", Frame: "f1",
			Mark: "q1~2"}: refusal.NoSuchMark,
	} {
		if err := p.In(kept); no == "" && err != nil || no != "" && !errors.Is(err, refusal.New(no)) {
			t.Errorf("%+v: %v, want %s", p, err, no)
		}
	}
}

// Twelve scripts and two markers: figures computed by other libraries (core/measure/testdata,
// "rubric of 12 scripts"). What was judged by another scale is not compared.
func TestAgree(t *testing.T) {
	scale := settings.Usually().Scale
	other := append([]settings.Level{}, scale...)
	other[0].Name = "Not yet"
	var all []assess.Judged
	put := func(by string, piece, at int, scale []settings.Level) {
		all = append(all, assess.Judged{Piece: assess.Piece{Student: fmt.Sprint(piece)}, By: by,
			Level: &assess.Level{At: at - 1, Scale: scale}})
	}
	for i, p := range [][2]int{{3, 3}, {2, 3}, {4, 4}, {1, 2}, {3, 3}, {2, 2}, {4, 3}, {1, 1}, {3, 4}, {2, 2}, {4, 4},
		{3, 2}} {
		put("one", i, p[0], scale)
		put("two", i, p[1], scale)
	}
	put("one", 50, 1, scale)
	put("two", 50, 4, other)
	put("one", 51, 1, other)
	put("two", 51, 4, other)
	a := assess.Agree(all, "one", "two")
	if a.Of != 12 || a.Same != 7 || len(a.Apart) != 5 || math.Abs(a.Plain.Kappa-0.4285714285714286) > 1e-9 ||
		math.Abs(a.Weighted.Kappa-0.782608695652174) > 1e-9 || a.Words != measure.Substantial || a.Table[1][2] != 1 {
		t.Errorf("%+v", a)
	}
	if none := assess.Agree(all, "one", "three"); none.Of != 0 || none.Weighted != nil {
		t.Errorf("%+v", none)
	}
}

// Levels as a spreadsheet, read back by another reader: names and words as they are, whatever they
// begin with, and how often each level was given, computed.
func TestLevels(t *testing.T) {
	kept, _ := lessonOfTwo()
	scale := settings.Usually().Scale
	all := []assess.Judged{
		{Piece: assess.Piece{Student: "ada"}, By: "ines", Word: assess.Word{Comment: "=1+1"}},
		{Piece: assess.Piece{Student: "ada", Frame: "f2"}, By: "ines", Level: &assess.Level{At: 2, Scale: scale}},
		{
			Piece: assess.Piece{Student: "bo", Frame: "f2"},
			By:    "ines",
			Level: &assess.Level{At: 2, Scale: scale},
			Word:  assess.Word{Comment: "Good."},
		},
		{Piece: assess.Piece{Student: "bo", Frame: "f2"}, By: "other", Level: &assess.Level{At: 0, Scale: scale}},
	}
	table := assess.Levels(kept, all, "ines")
	var sheet, text bytes.Buffer
	if err := errors.Join(table.XLSX(&sheet), table.CSV(&text)); err != nil {
		t.Fatal(err)
	}
	f, err := excelize.OpenReader(&sheet)
	if err != nil {
		t.Fatal(err)
	}
	for at, want := range map[string]string{"A1": "student", "D1": "2. Notes", "A2": "Ada", "C2": "=1+1",
		"D2": "Secure",
		"D3": "Secure", "E3": "Good.", "A4": "Secure"} {
		if got, err := f.GetCellValue("levels", at); err != nil || got != want {
			t.Errorf("%s: %q, want %q, %v", at, got, want, err)
		}
	}
	if n, err := f.CalcCellValue("levels", "D4"); err != nil || n != "2" {
		t.Errorf("counted %q, %v", n, err)
	}
	if strings.Contains(text.String(), "COUNTIF") || strings.Contains(text.String(), `"=1+1"`) ||
		strings.Count(text.String(), "\n") != 3 {
		t.Errorf("%s", text.String())
	}
}

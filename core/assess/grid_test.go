package assess_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"strings"
	"testing"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
)

func line(id string, x, y float64, points ...float64) lesson.Element {
	return lesson.Element{ID: id, X: x, Y: y, Body: lesson.Body{Kind: lesson.KindStroke,
		Stroke: &lesson.Stroke{Points: points, Ink: "ember", Width: 4}}}
}

func gridOfTwo() lesson.Board {
	return lesson.Board{
		Criteria: []lesson.Criterion{{ID: "whole", Name: "Takes part"}},
		Frames: []lesson.Frame{{ID: "f1"}, {ID: "f2", Criteria: []lesson.Criterion{
			{ID: "c1", Name: "Says why", Words: map[string]string{"Secure": "Gives a reason that holds."}},
			{ID: "c2", Name: "Uses the words"}}}}}
}

// A level by a criterion keeps what the criterion said when it was given; a criterion that is gone can be taken
// back, and given no more.
func TestJudgeByCriteria(t *testing.T) {
	board, scale := gridOfTwo(), settings.Usually().Scale
	piece := func(frame, criterion string) assess.Piece {
		return assess.Piece{Student: "ada", Frame: frame, Criterion: criterion}
	}
	got, err := assess.Judge(assess.Said{Piece: piece("f2", "c1"), Level: level(2)}, board, scale, nil, "ines", 1)
	if err != nil || got.Level.By.Name != "Says why" || got.Level.Describes() != "Gives a reason that holds." {
		t.Fatalf("%+v, %v", got, err)
	}
	for name, c := range map[string]struct {
		said assess.Said
		no   refusal.Code
	}{
		"of the whole lesson":            {assess.Said{Piece: piece("", "whole"), Level: level(0)}, ""},
		"of another frame":               {assess.Said{Piece: piece("f1", "c1"), Level: level(0)}, refusal.NoSuchCriterion},
		"of a frame, asked of the whole": {assess.Said{Piece: piece("", "c1"), Level: level(0)}, refusal.NoSuchCriterion},
		"gone":                           {assess.Said{Piece: piece("f2", "c9"), Level: level(0)}, refusal.NoSuchCriterion},
		"gone, and taken back":           {assess.Said{Piece: piece("f2", "c9")}, ""},
		"gone, and kept":                 {assess.Said{Piece: piece("f2", "c9"), Keeps: true}, ""},
		"with words":                     {assess.Said{Piece: piece("f2", "c1"), Comment: "x"}, refusal.Malformed},
		"above the scale":                {assess.Said{Piece: piece("f2", "c1"), Level: level(4)}, refusal.NoSuchLevel},
	} {
		if _, err := assess.Judge(c.said, board, scale, &got, "ines", 2); c.no == "" && err != nil ||
			c.no != "" && !errors.Is(err, refusal.New(c.no)) {
			t.Errorf("%s: %v, want %q", name, err, c.no)
		}
	}
	kept, _ := lessonOfTwo()
	for p, no := range map[assess.Piece]refusal.Code{
		{Student: "ada", Criterion: "whole"}: "", {Student: "ada", Frame: "f2", Criterion: "c1"}: "",
		{Student: "ada", Frame: "f9", Criterion: "c1"}:            refusal.NoSuchFrame,
		{Student: "ada", Frame: "f1", Mark: "q1", Criterion: "c"}: refusal.NoSuchMark,
		{Student: "cem", Criterion: "whole"}:                      refusal.NoSuchWork,
	} {
		if err := p.In(kept); no == "" && err != nil || no != "" && !errors.Is(err, refusal.New(no)) {
			t.Errorf("%+v: %v, want %q", p, err, no)
		}
	}
}

// What is drawn and spoken stays while words and levels change, and goes when it is taken away; what no pen
// draws is refused.
func TestWords(t *testing.T) {
	board, scale := gridOfTwo(), settings.Usually().Scale
	frame, voice, none := assess.Piece{Student: "ada", Frame: "f2"}, "01936f2e-0000-7000-8000-00000000000a", ""
	ink := []lesson.Element{line("a", 10, 20, 0, 0, 0.5, 30.04, 40, 0.333)}
	ink[0].Author, ink[0].Z, ink[0].Agreed = "somebody", 9, []string{"bo"}
	first, err := assess.Judge(assess.Said{Piece: frame, Ink: &ink, Voice: &voice}, board, scale, nil, "ines", 1)
	if err != nil || first.Empty() || first.Voice != voice || len(first.Ink) != 1 {
		t.Fatalf("%+v, %v", first, err)
	}
	if e := first.Ink[0]; e.Author != "" || e.Z != 0 || e.Agreed != nil || e.W != 30 || e.X != 10 ||
		e.Stroke.Points[5] != 0.33 {
		t.Errorf("kept as %+v %v", e, e.Stroke)
	}
	next, err := assess.Judge(assess.Said{Piece: frame, Level: level(1), Comment: "x"}, board, scale, &first, "ines", 2)
	if err != nil || next.Voice != voice || len(next.Ink) != 1 || next.Level.At != 1 {
		t.Errorf("%+v, %v", next, err)
	}
	away, err := assess.Judge(assess.Said{Piece: frame, Ink: &[]lesson.Element{}, Voice: &none}, board, scale, &next,
		"ines", 3)
	if err != nil || !away.Empty() {
		t.Errorf("%+v, %v", away, err)
	}
	note := lesson.Element{ID: "n", W: 100, H: 100, Body: lesson.Body{Kind: lesson.KindNote,
		Note: &lesson.Note{Text: "no ink"}}}
	far, long := line("a", 1599, 0, 0, 0, 0.5, 30, 0, 0.5), make([]float64, 3*(assess.MaxPoints/4))
	for i := range long {
		long[i] = float64(i % 3 / 2)
	}
	many := make([]lesson.Element, assess.MaxLines+1)
	for i := range many {
		many[i] = line(fmt.Sprint(i), 0, 0, 0, 0, 0.5)
	}
	whole := assess.Piece{Student: "ada"}
	for name, c := range map[string]struct {
		of  assess.Piece
		ink []lesson.Element
		no  refusal.Code
	}{
		"a note":           {frame, []lesson.Element{note}, refusal.Malformed},
		"beyond the frame": {frame, []lesson.Element{far}, refusal.OutOfFrame},
		"without end":      {frame, []lesson.Element{line("a", 0, 0, 0, 0, math.Inf(1))}, refusal.StrokeInvalid},
		"no points":        {frame, []lesson.Element{line("a", 0, 0)}, refusal.StrokeInvalid},
		"no kind":          {frame, []lesson.Element{{ID: "a"}}, refusal.Malformed},
		"an id of fillers": {frame, []lesson.Element{line("a\x00", 0, 0, 0, 0, 0.5)}, refusal.Malformed},
		"too many":         {frame, many, refusal.SheetFull},
		"too long": {frame, []lesson.Element{line("a", 0, 0, long...), line("b", 0, 0, long...), line("c", 0, 0, long...),
			line("d", 0, 0, long...), line("e", 0, 0, long...)}, refusal.SheetFull},
		"on the whole lesson": {whole, ink, refusal.Malformed},
		"on a mark":           {assess.Piece{Student: "ada", Frame: "f2", Mark: "n1"}, ink, refusal.Malformed},
	} {
		_, err := assess.Judge(assess.Said{Piece: c.of, Ink: &c.ink}, board, scale, nil, "ines", 1)
		if !errors.Is(err, refusal.New(c.no)) {
			t.Errorf("%s: %v, want %s", name, err, c.no)
		}
	}
	path := "../../etc/passwd"
	if _, err := assess.Judge(assess.Said{Piece: frame, Voice: &path}, board, scale, nil, "ines", 1); err == nil {
		t.Error("a voice that is a path")
	}
}

// What goes back holds the grid in the order of the criteria, with what they said; of a second marker nothing.
func TestGridGoesBack(t *testing.T) {
	kept, state := lessonOfTwo()
	kept.Board.Criteria, kept.Board.Frames[1].Criteria = gridOfTwo().Criteria, gridOfTwo().Frames[1].Criteria
	var all []assess.Judged
	say := func(frame, criterion, by string, at int, words string) {
		s := assess.Said{Piece: assess.Piece{Student: "ada", Frame: frame, Criterion: criterion}, Comment: words}
		if words == "" {
			s.Level = level(at)
		}
		j, err := assess.Judge(s, kept.Board, settings.Usually().Scale, nil, by, 1)
		if err != nil {
			t.Fatal(err)
		}
		all = append(all, j)
	}
	say("f2", "c2", "ines", 3, "")
	say("f2", "c1", "ines", 2, "")
	say("f2", "c1", "other", 0, "")
	say("f2", "", "ines", 0, "Well said.")
	say("", "whole", "ines", 1, "")
	b, _ := assess.BackTo(kept, state, all, "ada", "ines")
	var f assess.BackFrame
	for _, on := range b.Frames {
		if on.Frame.ID == "f2" {
			f = on
		}
	}
	if f.Judged == nil || f.Judged.Comment != "Well said." || len(f.Judged.Grid) != 2 ||
		f.Judged.Grid[0].Describes() != "Gives a reason that holds." || f.Judged.Grid[1].By.Name != "Uses the words" ||
		b.Whole == nil || b.Whole.Grid[0].Name() != "On the way" {
		text, _ := json.Marshal(b)
		t.Fatalf("%s", text)
	}
	table := assess.Levels(kept, all, "ines")
	head := fmt.Sprint(table.Rows[0])
	if !strings.Contains(head, "whole lesson: Takes part") || !strings.Contains(head, "2. Notes: Says why") {
		t.Errorf("%s", head)
	}
	if row := fmt.Sprint(table.Rows[1]); !strings.Contains(row, "On the way") || !strings.Contains(row, "Secure") ||
		!strings.Contains(row, "Going further") || strings.Contains(row, "Beginning") {
		t.Errorf("%s", row)
	}
	if a := assess.Agree(all, "ines", "other"); a.Of != 1 || a.Apart[0].Criterion != "c1" {
		t.Errorf("%+v", a)
	}
}

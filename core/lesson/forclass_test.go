package lesson_test

import (
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

func cover(id string, x, y, w, h float64) lesson.Element {
	return lesson.Element{ID: id, X: x, Y: y, W: w, H: h,
		Body: lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "lilac"}}}
}

func at(e lesson.Element, id string, x, y, w, h float64) lesson.Element {
	e.ID, e.X, e.Y, e.W, e.H = id, x, y, w, h
	return e
}

func picture(id string, turn float64) lesson.Element {
	return lesson.Element{ID: id, X: 400, Y: 300, W: 400, H: 200, Turn: turn,
		Body: lesson.Body{Kind: lesson.KindPicture, Picture: &lesson.Picture{Picture: "p1", Alt: "the answer"}}}
}

func prepared(marks ...lesson.Element) lesson.Frame {
	f := lesson.Frame{ID: "f", Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.WholeClass,
		Permission: lesson.Add, Notes: "only for me", Objectives: []string{"o"},
		Criteria: []lesson.Criterion{{ID: "c", Name: "Says why"}}, Prepared: marks}
	return f.Settled()
}

func ids(f lesson.Frame) string {
	var list []string
	for _, e := range f.Prepared {
		list = append(list, e.ID)
	}
	return strings.Join(list, " ")
}

// What a class gets of a frame while a cover of 200 by 200 lies at 100, 100.
func TestWhatLiesUnderACover(t *testing.T) {
	lid := cover("lid", 100, 100, 200, 200)
	asked := lesson.Element{ID: "q", X: 280, Y: 280, W: 300, H: 200,
		Body: lesson.Body{
			Kind: lesson.KindPoll,
			Poll: &poll.Question{Body: poll.Offer(poll.Option{ID: "a"}, poll.Option{ID: "b"})},
		}}
	tray := at(note(0, 0, 0, 0), "tray", 120, 120, 100, 60)
	tray.Layer, tray.Tray = lesson.Piece, true
	shape := lesson.Element{Body: lesson.Body{Kind: lesson.KindShape,
		Shape: &lesson.Shape{Form: lesson.FormRect, Ink: "night", Width: 3}}}
	for _, c := range []struct {
		name   string
		marks  []lesson.Element
		lifted []string
		want   string
	}{
		{"a note beside it", []lesson.Element{at(note(0, 0, 0, 0), "n", 400, 400, 100, 60), lid}, nil, "n lid"},
		{"a note under it", []lesson.Element{at(note(0, 0, 0, 0), "n", 120, 150, 100, 60), lid}, nil, "lid"},
		{"a note whose corner it touches", []lesson.Element{at(note(0, 0, 0, 0), "n", 280, 280, 100, 60), lid}, nil,
			"lid"},
		{"a note on top of it", []lesson.Element{lid, at(note(0, 0, 0, 0), "n", 120, 150, 100, 60)}, nil, "lid n"},
		{"a note that only meets its edge", []lesson.Element{at(note(0, 0, 0, 0), "n", 300, 150, 100, 60), lid}, nil,
			"n lid"},
		{"lifted, everything is there", []lesson.Element{at(note(0, 0, 0, 0), "n", 120, 150, 100, 60), lid},
			[]string{"lid"}, "n"},
		{"another one lifted", []lesson.Element{at(note(0, 0, 0, 0), "n", 120, 150, 100, 60), lid}, []string{"other"},
			"lid"},
		{"a poll that sticks out", []lesson.Element{asked, lid}, nil, "lid"},
		{"a drawn box that sticks out by more than half", []lesson.Element{at(shape, "s", 200, 100, 400, 200), lid},
			nil, "s lid"},
		{"a drawn box that is mostly under it", []lesson.Element{at(shape, "s", 120, 120, 200, 170), lid}, nil, "lid"},
		{"a piece in the tray is not on the frame", []lesson.Element{tray, lid}, nil, "tray lid"},
		{"two covers, one of them lifted", []lesson.Element{at(note(0, 0, 0, 0), "n", 120, 150, 100, 60), lid,
			cover("two", 110, 110, 300, 300)}, []string{"lid"}, "two"},
	} {
		f := prepared(c.marks...)
		seen := f.ForClass(c.lifted)
		if got := ids(seen); got != c.want {
			t.Errorf("%s: %q, want %q", c.name, got, c.want)
		}
		if seen.Notes != "" || seen.Objectives != nil || seen.Criteria != nil {
			t.Errorf("%s: the class gets what is for the teacher", c.name)
		}
	}
}

func TestCoveredCellsAndPictures(t *testing.T) {
	table := lesson.Element{ID: "t", X: 0, Y: 0, W: 400, H: 200,
		Body: lesson.Body{Kind: lesson.KindTable, Table: &lesson.Table{Rows: [][]string{{"aa", "bb"}, {"cc", "dd"}}}}}
	f := prepared(table, picture("pic", 0), cover("cell", 220, 110, 100, 50), cover("part", 400, 300, 100, 200))
	seen := f.ForClass(nil)
	if got := seen.Prepared[0].Table.Rows; !reflect.DeepEqual(got, [][]string{{"aa", "bb"}, {"cc", ""}}) {
		t.Errorf("cells %v", got)
	}
	if f.Prepared[0].Table.Rows[1][1] != "dd" {
		t.Error("the teacher's table has changed, too")
	}
	p := seen.Prepared[1].Picture
	if p.Picture != "p1.f.part" || p.Alt != "" {
		t.Errorf("%+v", p)
	}
	if got := seen.Pictures(); !slices.Equal(got, []string{"p1.f.part"}) {
		t.Errorf("%v", got)
	}
	if got := f.BlankIn("p1", []string{"part"}, 800, 400); !reflect.DeepEqual(got,
		[]lesson.Blank{{X: 0, Y: 0, W: 0.25, H: 1}}) {
		t.Errorf("blank %v", got)
	}
	whole := prepared(picture("pic", 0), cover("all", 390, 290, 420, 220))
	if got := ids(whole.ForClass(nil)); got != "all" {
		t.Errorf("a picture that is covered whole: %q", got)
	}
	ground := prepared(cover("lid", 0, 0, 800, 1000))
	ground.Paper = paper.Paper{Kind: paper.Picture, Picture: "ground", Alt: "worksheet"}
	if got := ground.ForClass(nil).Paper.Picture; got != "ground.f.lid" {
		t.Errorf("a picture as paper: %q", got)
	}
	// A square picture stands in the middle of the frame, 1000 units wide from 300 on.
	if got := ground.BlankIn("ground", []string{"lid"}, 500, 500); len(got) != 1 || got[0].X != 0 ||
		math.Abs(got[0].W-0.5) > 1e-9 || got[0].H != 1 {
		t.Errorf("blank in the ground: %v", got)
	}
}

// Of a picture turned by a quarter, a cover over its upper half as it lies
// hides its left half as it is, or its right one.
func TestBlankInATurnedPicture(t *testing.T) {
	// 400 x 200 about its middle at 600, 400: turned, it lies at 500..700, 200..600.
	f := prepared(picture("pic", 90), cover("lid", 500, 200, 200, 200))
	got := f.BlankIn("p1", []string{"lid"}, 800, 400)
	if len(got) != 1 || math.Abs(got[0].X) > 1e-9 || math.Abs(got[0].W-0.5) > 1e-9 || math.Abs(got[0].H-1) > 1e-9 {
		t.Errorf("%v", got)
	}
}

// A copy has what is prepared and nothing else, and shares no id with what it
// was copied from.
func TestCopy(t *testing.T) {
	n := 0
	id := func() string { n++; return "new" + strconv.Itoa(n) }
	gone := at(note(0, 0, 0, 0), "gone", 10, 10, 100, 60)
	gone.Remove(lesson.Staff, 1, "")
	made := at(note(0, 0, 0, 0), "a", 10, 10, 100, 60)
	made.Author, made.At, made.Group = lesson.Staff, 5, "g"
	arrow := lesson.Element{ID: "c", Body: lesson.Body{Kind: lesson.KindConnector,
		Connector: &lesson.Connector{From: lesson.Anchor{Mark: "a"}, To: lesson.Anchor{X: 100}, Ink: "night",
			Width: 3}}}
	board := lesson.Board{Title: "Tides", Objectives: []lesson.Objective{{ID: "o", Text: "say when"}},
		Frames: []lesson.Frame{prepared(made, arrow)}}
	board.Frames[0].Prepared = append(board.Frames[0].Prepared, gone)
	copied := board.Copy(id)
	if err := copied.Check(); err != nil {
		t.Fatal(err)
	}
	f := copied.Frames[0]
	if len(f.Prepared) != 2 || f.Prepared[0].Author != "" || f.Prepared[0].At != 0 || f.Notes != "only for me" {
		t.Errorf("%+v", f)
	}
	if f.Prepared[1].Connector.From.Mark != f.Prepared[0].ID || f.Prepared[0].ID == "a" || f.Prepared[0].Group == "g" {
		t.Error("the arrow does not hold on to the copy")
	}
	if len(f.Criteria) != 1 {
		t.Errorf("criteria %v", f.Criteria)
	}
	if len(f.Objectives) != 1 || f.Objectives[0] != copied.Objectives[0].ID {
		t.Errorf("objectives %v of %v", f.Objectives, copied.Objectives)
	}
	both := lesson.Board{Title: "both", Frames: append(slices.Clone(copied.Frames), board.Copy(id).Frames...)}
	if err := both.Check(); err != nil {
		t.Error(err)
	}
}

func TestPreparedIsChecked(t *testing.T) {
	piece := at(note(0, 0, 0, 0), "n", 10, 10, 100, 60)
	piece.Layer = "floating"
	answer := lesson.Element{ID: "x", Body: lesson.Body{Kind: lesson.KindAnswer,
		Answer: &lesson.Answer{Poll: "p", Round: 1, Value: poll.Choose("a")}}}
	trayed := at(note(0, 0, 0, 0), "n", 10, 10, 100, 60)
	trayed.Tray = true
	heavy := cover("lid", 0, 0, 100, 100)
	heavy.Layer = lesson.Piece
	turned := cover("lid", 0, 0, 100, 100)
	turned.Turn = 10
	ragged := lesson.Element{ID: "t", W: 100, H: 100,
		Body: lesson.Body{Kind: lesson.KindTable, Table: &lesson.Table{Rows: [][]string{{"a"}, {"b", "c"}}}}}
	for name, marks := range map[string][]lesson.Element{
		"a layer that is none":        {piece},
		"an answer":                   {answer},
		"something fixed in the tray": {trayed},
		"a cover as a piece":          {heavy},
		"a cover that is turned":      {turned},
		"a table with a row too long": {ragged},
		"an id with a path in it":     {cover("../lid", 0, 0, 100, 100)},
		"an id that splits a name":    {cover("a.b", 0, 0, 100, 100)},
	} {
		if err := prepared(marks...).Check(); refusal.Of(err) == nil {
			t.Errorf("%s is taken", name)
		}
	}
}

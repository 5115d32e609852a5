package sheet_test

import (
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

func mark(t *testing.T, s *sheet.Sheet, id string) lesson.Element {
	t.Helper()
	for _, m := range s.Marks() {
		if m.ID == id {
			return m
		}
	}
	t.Fatalf("no mark %s", id)
	return lesson.Element{}
}

// Anybody moves a piece, again and again; the sheet holds its place alone, and
// taking the first move back puts it where it was prepared.
func TestPieceIsMovedAndPutBack(t *testing.T) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	first, err := apply(s, r, noor, moveTo("card", 100, 200))
	if err != nil {
		t.Fatal(err)
	}
	if m := mark(t, s, "card"); m.X != 100 || m.Y != 200 || m.W != 60 || m.Kind != lesson.KindPlaced || m.Note != nil ||
		m.Author != noor.ID {
		t.Errorf("%+v", m)
	}
	if _, err := apply(s, r, kenji, moveTo("card", 300, 400)); err != nil {
		t.Error(err)
	}
	// Noor's undo would undo Kenji's move, too.
	if _, err := apply(s, r, noor, taken(first.Undo)); refusal.Of(err) == nil ||
		refusal.Of(err).Code != refusal.ChangedSince {
		t.Errorf("undo over somebody else's move: %v", err)
	}
	if _, err := apply(s, r, noor, target(sheet.KindRemove, "card")); err != nil {
		t.Errorf("putting it back: %v", err)
	}
	if mark(t, s, "card").OnFrame() {
		t.Error("put back, it still lies on the sheet")
	}
	if _, err := apply(s, r, kenji, moveTo("card", 500, 500)); err != nil || mark(t, s, "card").Author != kenji.ID {
		t.Errorf("moved anew: %v", err)
	}
	// Clearing work leaves pieces where they are.
	if _, err := apply(s, r, staff, clear("")); refusal.Of(err) == nil || !mark(t, s, "card").OnFrame() {
		t.Errorf("clear took the piece: %v", err)
	}
}

func TestWhatPiecesRefuse(t *testing.T) {
	text, w, layer := "other", 90.0, lesson.Piece
	for name, c := range map[string]struct {
		by   sheet.Actor
		op   sheet.Op
		want refusal.Code
	}{
		"moving one under a cover":     {noor, moveTo("secret", 10, 10), refusal.NoSuchMark},
		"moving the supply itself":     {noor, moveTo("pin", 10, 10), refusal.NoSuchMark},
		"moving what is fixed":         {noor, moveTo("asked", 10, 10), refusal.NoSuchMark},
		"moving a cover":               {noor, moveTo("lid", 10, 10), refusal.NoSuchMark},
		"off the frame":                {noor, moveTo("card", 1590, 10), refusal.OutOfFrame},
		"writing on one":               {noor, set("card", func(s *sheet.Set) { s.Text = &text }), refusal.BadStyle},
		"stretching one":               {noor, set("card", func(s *sheet.Set) { s.W = &w }), refusal.BadStyle},
		"removing one that lies there": {noor, target(sheet.KindRemove, "card"), refusal.NoSuchMark},
		"hiding one":                   {staff, target(sheet.KindHide, "card"), refusal.NoSuchMark},
		"a copy of one without supply": {noor,
			add(sheet.Add{Mark: v7(), Body: lesson.Body{Kind: lesson.KindPlaced,
				Placed: &lesson.Placed{Piece: "card"}}}), refusal.NoSuchPiece},
		"a copy of nothing": {noor,
			add(sheet.Add{Mark: v7(), Body: lesson.Body{Kind: lesson.KindPlaced, Placed: &lesson.Placed{Piece: "x"}}}),
			refusal.NoSuchPiece},
		"a piece of one's own": {noor,
			add(sheet.Add{Mark: v7(), W: 90, H: 90, Layer: layer,
				Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "x", Tint: "moss"}}}),
			refusal.Malformed},
		"a cover of one's own": {staff,
			add(sheet.Add{Mark: v7(), W: 90, H: 90,
				Body: lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "moss"}}}), refusal.Malformed},
		"answering a poll under a cover": {noor, answer("a"), refusal.NoSuchPoll},
	} {
		s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
		if c.op.Kind == sheet.KindAnswer {
			s = sheet.New("noor")
			r.Frame.Prepared = append(r.Frame.Prepared,
				lesson.Element{ID: "over", X: 100, Y: 100, W: 400, H: 300,
					Body: lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "moss"}}})
		}
		if _, err := apply(s, r, c.by, c.op); refusal.Of(err) == nil || refusal.Of(err).Code != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
		if len(s.Marks()) != 0 || s.Seq != 0 {
			t.Errorf("%s: refused, it changed the sheet", name)
		}
	}
}

// A lifted cover gives what lies under it; copies of an endless supply are
// their taker's.
func TestLiftedAndEndless(t *testing.T) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	r.Lifted = []string{"lid"}
	if _, err := apply(s, r, noor, moveTo("secret", 10, 10)); err != nil {
		t.Error(err)
	}
	one, two := v7(), v7()
	for _, id := range []string{one, two} {
		if _, err := apply(s, r, noor, pinned(id)); err != nil {
			t.Fatal(err)
		}
	}
	if m := mark(t, s, one); m.W != 30 || m.H != 30 || m.Author != noor.ID {
		t.Errorf("%+v", m)
	}
	if _, err := apply(s, r, kenji, target(sheet.KindRemove, one)); refusal.Of(err) == nil ||
		refusal.Of(err).Code != refusal.NotYours {
		t.Errorf("Kenji takes Noor's pin away: %v", err)
	}
	if _, err := apply(s, r, noor, target(sheet.KindRemove, two)); err != nil {
		t.Error(err)
	}
}

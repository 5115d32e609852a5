package sheet_test

import (
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
)

func reply(mark, to, text string) sheet.Op {
	return add(
		sheet.Add{Mark: mark, Body: lesson.Body{Kind: lesson.KindReply, Reply: &lesson.Reply{To: to, Text: text}}},
	)
}

// A reply belongs to its author as a note does: agreed with, changed, hidden, shown,
// removed and taken back; it takes no room on the frame.
func TestReplies(t *testing.T) {
	terms := rules(lesson.WholeClass, lesson.Add)
	terms.Frame.Replies = true
	s, n, r := sheet.New("class"), v7(), v7()
	undo := sheet.Op{}
	for i, step := range []struct {
		by     sheet.Actor
		op     sheet.Op
		text   string
		agreed int
		stands lesson.Stand
	}{
		{noor, addNote(n, "two high tides"), "", 0, ""},
		{kenji, reply(r, n, "why?"), "why?", 0, lesson.Shown},
		{noor, agree(r, true), "why?", 1, lesson.Shown},
		{kenji, setText(r, "how?"), "how?", 1, lesson.Shown},
		{staff, target(sheet.KindHide, r), "how?", 1, lesson.Hidden},
		{staff, target(sheet.KindShow, r), "how?", 1, lesson.Shown},
		{staff, target(sheet.KindHold, r), "how?", 1, lesson.Held},
		{staff, target(sheet.KindShow, r), "how?", 1, lesson.Shown},
		{kenji, target(sheet.KindRemove, r), "how?", 1, lesson.Removed},
		{kenji, sheet.Op{}, "how?", 1, lesson.Shown}, // taken back
	} {
		op := step.op
		if op.ID == "" {
			op = undo
			op.ID = v7()
		}
		result, err := apply(s, terms, step.by, op)
		if err != nil {
			t.Fatalf("step %d: %v", i, err)
		}
		undo = result.Undo
		m, ok := s.Mark(r)
		if i == 0 {
			continue
		}
		if !ok || m.Reply.Text != step.text || len(m.Agreed) != step.agreed || m.Stands() != step.stands {
			t.Errorf("step %d: %+v", i, m)
		}
	}
	// Put away with its note, and shown again with it when that is taken back.
	result, err := apply(s, terms, staff, target(sheet.KindHide, n))
	if m, _ := s.Mark(r); err != nil || m.Stands() != lesson.Hidden {
		t.Errorf("%v: with its note it stands as %s", err, m.Stands())
	}
	result.Undo.ID = v7()
	if _, err := apply(s, terms, staff, result.Undo); err != nil {
		t.Fatal(err)
	}
	if m, _ := s.Mark(r); m.Stands() != lesson.Shown {
		t.Errorf("taken back, it stands as %s", m.Stands())
	}
	// Notes lie as if there were no replies.
	bare := sheet.New("class")
	if _, err := apply(bare, terms, noor, addNote(n, "two high tides")); err != nil {
		t.Fatal(err)
	}
	for i := range 40 {
		if _, err := apply(s, terms, kenji, reply(v7(), n, "more")); err != nil {
			t.Fatal(err)
		}
		note := addNote(v7(), "x")
		note.Add.Free = true
		for _, on := range []*sheet.Sheet{s, bare} {
			if _, err := apply(on, terms, noor, note); err != nil {
				t.Fatal(err)
			}
		}
		a, _ := s.Mark(note.Add.Mark)
		b, _ := bare.Mark(note.Add.Mark)
		if a.X != b.X || a.Y != b.Y || a.W != b.W {
			t.Fatalf("note %d lies elsewhere: %v, %v and %v, %v", i, a.X, a.Y, b.X, b.Y)
		}
	}
}

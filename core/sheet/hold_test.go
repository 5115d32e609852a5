package sheet_test

import (
	"math/rand/v2"
	"testing"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/core/words"
)

// What a student writes waits, where it is to, and how it is let through.
func TestHold(t *testing.T) {
	held := func(change func(*sheet.Terms)) sheet.Terms {
		terms := rules(lesson.WholeClass, lesson.Add)
		change(&terms)
		return terms
	}
	all := held(func(t *sheet.Terms) { t.Hold = true })
	ofNoor := held(func(t *sheet.Terms) { t.HeldOf = []string{"noor"} })
	atBoard := held(func(t *sheet.Terms) { t.Hold, t.AtBoard = true, "noor" })
	listed := held(func(t *sheet.Terms) { t.Watch = words.Watch{Own: []string{"blobfish"}} })
	for _, c := range []struct {
		name  string
		terms sheet.Terms
		by    sheet.Actor
		owner string
		op    sheet.Op
		want  lesson.Stand
	}{
		{"a note", all, noor, sheet.ClassOwner, addNote("", "mine"), lesson.Held},
		{"a note on a group's frame", all, sheet.Actor{ID: "noor", Group: 1}, sheet.GroupOwner(1), addNote("", "mine"),
			lesson.Held},
		{"on a frame of one's own nobody else sees it", all, noor, "noor", addNote("", "mine"), lesson.Shown},
		{"a line has no words", all, noor, sheet.ClassOwner, addStroke("", 0, 0, .5, 9, 9, .5), lesson.Shown},
		{"the teacher's", all, staff, sheet.ClassOwner, addNote("", "mine"), lesson.Shown},
		{"at the board", atBoard, noor, sheet.ClassOwner, addNote("", "mine"), lesson.Shown},
		{"one student's", ofNoor, noor, sheet.ClassOwner, addNote("", "mine"), lesson.Held},
		{"another's", ofNoor, kenji, sheet.ClassOwner, addNote("", "mine"), lesson.Shown},
		{"a word of the list", listed, noor, sheet.ClassOwner, addNote("", "a BLOB\u00adfish"), lesson.Held},
		{"on one's own frame too: it may be shown", listed, noor, "noor", addNote("", "blobfish"), lesson.Held},
		{"at the board too", held(func(t *sheet.Terms) { t.AtBoard, t.Watch = "noor", listed.Watch }), noor,
			sheet.ClassOwner, addNote("", "blobfish"), lesson.Held},
		{"another word", listed, noor, sheet.ClassOwner, addNote("", "a fish"), lesson.Shown},
	} {
		s := sheet.New(c.owner)
		mark := v7()
		c.op.Add.Mark = mark
		if _, err := apply(s, c.terms, c.by, c.op); err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		if m, _ := s.Mark(mark); m.Stands() != c.want {
			t.Errorf("%s: %s", c.name, m.Stands())
		}
	}

	// What was shown waits again when its words change, not when it moves; the teacher's
	// yes is to the words that were read; its author can take it back meanwhile.
	s, mark := sheet.New(sheet.ClassOwner), v7()
	must := func(terms sheet.Terms, by sheet.Actor, op sheet.Op, want refusal.Code, stands lesson.Stand) {
		t.Helper()
		_, err := apply(s, terms, by, op)
		got := refusal.Code("")
		if r := refusal.Of(err); r != nil {
			got = r.Code
		}
		if got != want {
			t.Errorf("%s: %q, want %q", op.Kind, got, want)
		}
		if m, _ := s.Mark(mark); m.Stands() != stands {
			t.Errorf("after %s: %s, want %s", op.Kind, m.Stands(), stands)
		}
	}
	yes := func(read string) sheet.Op {
		return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindShow, Show: &sheet.Show{Mark: mark, Read: &read}}}
	}
	open := rules(lesson.WholeClass, lesson.Add)
	must(open, noor, addNote(mark, "first"), "", lesson.Shown)
	must(all, noor, moveTo(mark, 300, 300), "", lesson.Shown)
	must(all, noor, setText(mark, "second"), "", lesson.Held)
	must(all, kenji, setText(mark, "not mine"), refusal.NoSuchMark, lesson.Held)
	must(all, noor, target(sheet.KindShow, mark), refusal.NotYours, lesson.Held)
	must(all, noor, setText(mark, "third"), "", lesson.Held)
	must(all, staff, yes("second"), refusal.ChangedSince, lesson.Held)
	must(all, staff, yes("third"), "", lesson.Shown)
	must(open, noor, setText(mark, "fourth"), "", lesson.Shown)
	must(all, noor, target(sheet.KindRemove, mark), "", lesson.Removed)
	must(all, noor, target(sheet.KindRestore, mark), "", lesson.Shown)
	must(all, noor, setText(mark, "fifth"), "", lesson.Held)
	must(all, noor, target(sheet.KindRemove, mark), "", lesson.Removed)
	must(open, noor, target(sheet.KindRestore, mark), "", lesson.Held)
}

// Whatever students do while all of it waits, in steps, twice, taken back, removed and
// restored: the class reads nothing that the teacher has not let through.
func TestNothingPassesUnread(t *testing.T) {
	for seed := range uint64(60) {
		rnd := rand.New(rand.NewPCG(seed, 5))
		s := sheet.New(sheet.ClassOwner)
		terms := rules(lesson.WholeClass, lesson.BuildTogether)
		terms.Frame.Replies, terms.Hold = true, true
		read := map[string]bool{}
		var marks []string
		var undo []sheet.Op
		for range 150 {
			terms.Now++
			by := []sheet.Actor{noor, kenji, amara}[rnd.IntN(3)]
			op := randomOp(rnd, marks)
			switch rnd.IntN(12) {
			case 0:
				if len(undo) > 0 {
					op = taken(undo[rnd.IntN(len(undo))])
				}
			case 1: // the teacher lets one through
				held := s.Marks()
				if len(held) == 0 {
					continue
				}
				m := held[rnd.IntN(len(held))]
				by, op = staff, target(sheet.KindShow, m.ID)
				read[m.Words()] = true
			}
			result, err := apply(s, terms, by, op)
			if err != nil {
				continue
			}
			for _, e := range result.Change.Put {
				marks = append(marks, e.ID)
			}
			if by != staff {
				result.Undo.ID = ""
				undo = append(undo, result.Undo)
			}
			for _, m := range audience.Class().Marks(s) {
				if m.Author != "staff" && m.Words() != "" && !read[m.Words()] {
					t.Fatalf("seed %d: after %s by %s the class reads %q", seed, op.Kind, by.ID, m.Words())
				}
			}
		}
		if len(read) == 0 {
			t.Fatalf("seed %d: nothing was let through", seed)
		}
	}
}

package sheet_test

import (
	"encoding/json"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

func stack(name string, marks ...string) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindStack, Stack: &sheet.Stack{Stack: name, Marks: marks}}}
}

// Notes that say the same become one stack and come apart again; authors and words
// stay, what is laid meanwhile does not keep clear of those beneath, none of those
// taken off covers another, and each step is taken back whole.
func TestStack(t *testing.T) {
	terms := rules(lesson.WholeClass, lesson.Add)
	s := sheet.New("class")
	var ids []string
	for i := range 12 {
		op := addNote(v7(), "two a day")
		op.Add.Free, op.Add.X, op.Add.Y = true, float64(100+i*90), 300
		by := noor
		if i%2 == 1 {
			by = kenji
		}
		if _, err := apply(s, terms, by, op); err != nil {
			t.Fatal(err)
		}
		ids = append(ids, op.Add.Mark)
	}
	look := func() map[string]lesson.Element {
		all := map[string]lesson.Element{}
		for _, m := range s.Marks() {
			m.At, m.By = 0, ""
			all[m.ID] = m
		}
		return all
	}
	same := func(a, b map[string]lesson.Element) bool {
		for id, m := range a {
			o := b[id]
			if m.X != o.X || m.Y != o.Y || *m.Note != *o.Note || m.Author != o.Author {
				return false
			}
		}
		return len(a) == len(b)
	}
	before := look()
	name := v7()
	stacked, err := apply(s, terms, staff, stack(name, ids[:8]...))
	if err != nil {
		t.Fatal(err)
	}
	if n := len(lesson.Beneath(s.Marks())); n != 7 {
		t.Errorf("%d lie beneath, want 7", n)
	}
	for _, id := range ids[:8] {
		m, _ := s.Mark(id)
		if m.Note.Stack != name || m.Author != before[id].Author || m.X != before[ids[0]].X {
			t.Errorf("in the stack: %+v", m)
		}
	}
	// The teacher hides the one on top, or its author removes it: another is on top.
	for _, step := range []struct {
		by sheet.Actor
		op sheet.Op
	}{{staff, target(sheet.KindHide, ids[0])}, {staff, target(sheet.KindShow, ids[0])}, {noor,
		target(sheet.KindRemove, ids[0])}} {
		if _, err := apply(s, terms, step.by, step.op); err != nil {
			t.Fatal(err)
		}
		want := map[bool]int{true: 6, false: 7}[step.op.Remove != nil]
		if n := len(lesson.Beneath(s.Marks())); n != want {
			t.Errorf("after %s %d lie beneath, want %d", step.op.Kind, n, want)
		}
	}
	if _, err := apply(s, terms, noor, target(sheet.KindRestore, ids[0])); err != nil {
		t.Fatal(err)
	}
	whole := look()
	apart, err := apply(s, terms, staff, stack("", ids[:8]...))
	if err != nil {
		t.Fatal(err)
	}
	if len(lesson.Beneath(s.Marks())) != 0 {
		t.Error("some still lie beneath")
	}
	marks := s.Marks()
	for i, a := range marks {
		for _, b := range marks[:i] {
			one, other := a.Covers(), b.Covers()
			if !a.Note.Margin && !b.Note.Margin && one.X < other.X+other.W && other.X < one.X+one.W &&
				one.Y < other.Y+other.H && other.Y < one.Y+one.H {
				t.Errorf("%v covers %v", one, other)
			}
		}
	}
	for i, back := range []struct {
		undo sheet.Op
		want map[string]lesson.Element
	}{{apart.Undo, whole}, {stacked.Undo, before}} {
		back.undo.ID = v7()
		if _, err := apply(s, terms, staff, back.undo); err != nil {
			t.Fatal(err)
		}
		if !same(look(), back.want) {
			t.Errorf("step %d is not taken back whole", i)
		}
	}
	for name, c := range map[string]struct {
		by   sheet.Actor
		op   sheet.Op
		want refusal.Code
	}{
		"by a student":     {noor, stack(v7(), ids...), refusal.NotYours},
		"of nothing":       {staff, stack(v7()), refusal.TooMany},
		"of what is gone":  {staff, stack(v7(), ids[0], v7()), refusal.NoSuchMark},
		"another spelling": {staff, stack("{"+v7()+"}", ids...), refusal.BadID},
		"a note that makes itself part of one": {noor, add(sheet.Add{Mark: v7(), W: 300, H: 120, Body: lesson.Body{
			Kind: lesson.KindNote, Note: &lesson.Note{Text: "x", Tint: "moss", Stack: v7()}}}), refusal.Malformed},
	} {
		op := c.op
		op.Sheet = v7()
		text, _ := json.Marshal(op)
		op, err := sheet.ReadOp(text) // as it comes over the wire
		if err == nil {
			_, err = apply(s, terms, c.by, op)
		}
		if err == nil || refusal.Of(err).Code != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

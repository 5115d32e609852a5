package sheet_test

import (
	"fmt"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

func said(text string) sheet.Op { return add(sheet.Add{Mark: v7(), Body: remark(text)}) }

// A walk lets others say something, and nothing else; and whose sheet it is keeps to what
// holds for it: who may only look may not remove anything because others look at it.
func TestRemarks(t *testing.T) {
	code := func(err error) refusal.Code {
		if r := refusal.Of(err); r != nil {
			return r.Code
		}
		return ""
	}
	for name, c := range map[string]struct {
		change       func(*sheet.Terms)
		owner, other refusal.Code
	}{
		"walked along":        {func(*sheet.Terms) {}, "", ""},
		"no walk":             {func(r *sheet.Terms) { r.Visited = nil }, "", refusal.NoSuchSheet},
		"another's walk":      {func(r *sheet.Terms) { r.Visited = []string{"amara"} }, "", refusal.NoSuchSheet},
		"all only look":       {func(r *sheet.Terms) { r.Locked = true }, refusal.Locked, ""},
		"a frame for looking": {func(r *sheet.Terms) { r.Frame.Permission = lesson.Look }, refusal.LookOnly, ""},
		"both only look": {func(r *sheet.Terms) { r.LockedOut = []string{"noor", "kenji"} }, refusal.Locked,
			refusal.Locked},
		"not open": {func(r *sheet.Terms) { r.Open = false }, refusal.NoSuchSheet, refusal.NoSuchSheet},
		"ended":    {func(r *sheet.Terms) { r.Ended = true }, refusal.Ended, refusal.Ended},
	} {
		s, r := sheet.New("noor"), rules(lesson.Individual, lesson.Add)
		own := addNote(v7(), "mine")
		if _, err := apply(s, r, noor, own); err != nil {
			t.Fatal(err)
		}
		r.Visited = []string{"noor"}
		c.change(&r)
		if _, err := apply(s, r, kenji, said("well drawn")); code(err) != c.other {
			t.Errorf("%s: another says something: %v, want %q", name, err, c.other)
		}
		for _, op := range []sheet.Op{target(sheet.KindRemove, own.Add.Mark), addNote(v7(), "on yours")} {
			if _, err := apply(s, r, kenji, op); err == nil {
				t.Errorf("%s: another may %s", name, op.Kind)
			}
		}
		if _, err := apply(s, r, noor, target(sheet.KindRemove, own.Add.Mark)); code(err) != c.owner {
			t.Errorf("%s: whose it is removes a note: %v, want %q", name, err, c.owner)
		}
	}
}

// A whole school that says something leaves room for whose sheet it is.
func TestRemarksLeaveRoom(t *testing.T) {
	if testing.Short() {
		t.Skip("takes seconds")
	}
	s, r := sheet.New("noor"), rules(lesson.Individual, lesson.Add)
	r.Visited = []string{"noor"}
	taken := 0
	for i := range 300 {
		by := sheet.Actor{ID: fmt.Sprint("student ", i)}
		for n := range 12 {
			_, err := apply(s, r, by, said("hm"))
			if err == nil {
				taken++
			}
			if n >= sheet.MaxRemarks && err == nil {
				t.Fatal("more than one student may say")
			}
		}
	}
	if taken != sheet.MaxMarks/4 {
		t.Errorf("%d remarks are taken", taken)
	}
	if _, err := apply(s, r, noor, addNote(v7(), "mine")); err != nil {
		t.Error("no room for whose sheet it is:", err)
	}
}

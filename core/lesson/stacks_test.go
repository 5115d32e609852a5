package lesson_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"testing"

	"alpenglow/core/agreed"
	"alpenglow/core/lesson"
)

// Of each stack one note lies on top, whatever order the marks come in; the
// interface finds the same.
func TestStacks(t *testing.T) {
	type stacks struct {
		Marks   []lesson.Element `json:"marks"`
		Beneath []string         `json:"beneath"`
	}
	chance := rand.New(rand.NewPCG(1, 2))
	var cases []stacks
	for range 40 {
		var marks []lesson.Element
		for i := range chance.IntN(12) {
			m := lesson.Element{ID: fmt.Sprint("m", i), At: int64(chance.IntN(5)), Author: "noor", W: 300, H: 120,
				Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "x", Tint: "moss",
					Stack: []string{"", "s", "t"}[chance.IntN(3)]}}}
			if is := lesson.Stands[chance.IntN(len(lesson.Stands))]; is != lesson.Shown && chance.IntN(2) == 0 {
				m.Standing = &lesson.Standing{Is: is, By: lesson.Staff, At: 1}
			}
			marks = append(marks, m)
		}
		beneath := lesson.Beneath(marks)
		turned := slices.Clone(marks)
		chance.Shuffle(len(turned), func(i, j int) { turned[i], turned[j] = turned[j], turned[i] })
		if !maps.Equal(beneath, lesson.Beneath(turned)) {
			t.Fatal("another order, another top")
		}
		tops := map[string]int{}
		for _, m := range marks {
			if m.Note.Stack != "" && m.OnFrame() && !beneath[m.ID] {
				tops[m.Note.Stack]++
			}
			if beneath[m.ID] && (m.Note.Stack == "" || !m.OnFrame()) {
				t.Fatalf("%+v lies beneath nothing", m)
			}
		}
		for stack, n := range tops {
			if n != 1 {
				t.Fatalf("%d tops of %s", n, stack)
			}
		}
		cases = append(cases, stacks{append([]lesson.Element{}, marks...),
			append([]string{}, slices.Sorted(maps.Keys(beneath))...)})
	}
	agreed.Holds(t, "testdata/stacks.json", cases)
}

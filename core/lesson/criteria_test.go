package lesson_test

import (
	"fmt"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

func TestCriteria(t *testing.T) {
	grid := func(n int) []lesson.Criterion {
		all := make([]lesson.Criterion, n)
		for i := range all {
			all[i] = lesson.Criterion{ID: fmt.Sprint("c", i), Name: "Says why",
				Words: map[string]string{"Secure": "Gives a reason."}}
		}
		return all
	}
	if err := lesson.CheckCriteria(grid(lesson.MaxCriteria)); err != nil {
		t.Fatal(err)
	}
	for name, spoil := range map[string]func(c *lesson.Criterion){
		"no id":             func(c *lesson.Criterion) { c.ID = "" },
		"an id of a NUL":    func(c *lesson.Criterion) { c.ID = "a\x00" },
		"another's id":      func(c *lesson.Criterion) { c.ID = "c0" },
		"no name":           func(c *lesson.Criterion) { c.Name = "" },
		"blanks around":     func(c *lesson.Criterion) { c.Name = " Says why " },
		"a name that turns": func(c *lesson.Criterion) { c.Name = "a\u202eb" },
		"a name of 81":      func(c *lesson.Criterion) { c.Name = strings.Repeat("x", lesson.MaxCriterion+1) },
		"words of 301":      func(c *lesson.Criterion) { c.Words["Secure"] = strings.Repeat("x", lesson.MaxCriterionWords+1) },
		"words of nothing":  func(c *lesson.Criterion) { c.Words["Not yet"] = "" },
		"words that turn":   func(c *lesson.Criterion) { c.Words["Secure"] = "a\u202eb" },
		"levels without end": func(c *lesson.Criterion) {
			for i := range 40 {
				c.Words[fmt.Sprint(i)] = "x"
			}
		},
	} {
		all := grid(2)
		spoil(&all[1])
		if err := lesson.CheckCriteria(all); refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
	if err := lesson.CheckCriteria(grid(lesson.MaxCriteria + 1)); refusal.Of(err) == nil {
		t.Error("a grid without end")
	}
	b := lesson.Board{Criteria: grid(1), Frames: []lesson.Frame{{ID: "f", Criteria: grid(2)}}}
	if len(b.CriteriaOf("")) != 1 || len(b.CriteriaOf("f")) != 2 || b.CriteriaOf("g") != nil {
		t.Error("the criteria of a board or a frame")
	}
	if c, ok := lesson.CriterionAmong(b.CriteriaOf("f"), "c1"); !ok || c.ID != "c1" {
		t.Error("one of them")
	}
}

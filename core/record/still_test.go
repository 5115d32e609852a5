package record_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/record"
)

func stillNote(id, text string) lesson.Element {
	return lesson.Element{
		ID:   id,
		W:    100,
		H:    100,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text}},
	}
}

func TestBetween(t *testing.T) {
	before := []lesson.Element{
		stillNote("a", "stays"),
		stillNote("b", "goes"),
		stillNote("c", "was written"),
		stillNote("d", "lies"),
	}
	moved, above := stillNote("d", "lies"), stillNote("a", "stays")
	moved.X, above.Z, above.Agreed = 40, 99, []string{"noor"}
	after := []lesson.Element{moved, above, stillNote("c", "was rewritten"), stillNote("e", "new")}
	b := record.Compare(before, after)
	if !slices.Equal(b.New, []string{"e"}) || !slices.Equal(b.Gone, []string{"b"}) ||
		!slices.Equal(b.Changed, []string{"d", "c"}) {
		t.Errorf("%+v", b)
	}
}

// Whatever was done: nothing changes between a moment and itself, what is new one way is gone the
// other, and every mark that is there in both is changed either way or neither.
func TestBetweenAny(t *testing.T) {
	r := rand.New(rand.NewPCG(51, 52))
	some := func() []lesson.Element {
		var all []lesson.Element
		for n := range 12 {
			if r.IntN(3) > 0 {
				e := stillNote(fmt.Sprint(n), fmt.Sprint(r.IntN(2)))
				e.X = float64(r.IntN(2))
				all = append(all, e)
			}
		}
		r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
		return all
	}
	sorted := func(ids []string) []string { slices.Sort(ids); return ids }
	for range 2000 {
		one, other := some(), some()
		if record.Compare(one, one).Any() {
			t.Fatal("a moment differs from itself")
		}
		on, back := record.Compare(one, other), record.Compare(other, one)
		if !slices.Equal(sorted(on.New), sorted(back.Gone)) || !slices.Equal(sorted(on.Gone), sorted(back.New)) ||
			!slices.Equal(sorted(on.Changed), sorted(back.Changed)) {
			t.Fatalf("%+v, and back %+v", on, back)
		}
	}
}

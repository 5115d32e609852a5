package sheet_test

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

// covering lists pairs of notes on the frame of which one covers the other.
func covering(marks []lesson.Element) (pairs []string) {
	for i, a := range marks {
		for _, b := range marks[:i] {
			p, q := a.Covers(), b.Covers()
			if a.Note != nil && b.Note != nil && !a.InMargin() && !b.InMargin() && a.OnFrame() && b.OnFrame() &&
				p.X < q.X+q.W && q.X < p.X+p.W && p.Y < q.Y+q.H && q.Y < p.Y+p.H {
				pairs = append(pairs, fmt.Sprintf("%v %v", p, q))
			}
		}
	}
	return pairs
}

// A class fills a frame: notes cover neither each other nor what was prepared;
// the more are here, the smaller they begin; what finds no room lies in the
// margin, and is all there.
func TestAClassFillsAFrame(t *testing.T) {
	if testing.Short() {
		t.Skip("takes seconds")
	}
	for _, class := range []int{1, 10, 28, 300} {
		rnd := rand.New(rand.NewPCG(uint64(class), 1))
		s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
		r.Sharing, r.Frame.Prompt = class, "What do you notice?"
		r.Frame.Prepared = append(r.Frame.Prepared, lesson.Element{ID: "tides", X: 100, Y: 200, W: 500, H: 300,
			Body: lesson.Body{
				Kind:  lesson.KindTable,
				Table: &lesson.Table{Rows: [][]string{{"high", "low"}, {"3:10", "9:20"}}},
			}})
		first := 0.0
		for i := range 3 * class {
			op := addNote(v7(), strings.Repeat("tide ", 1+rnd.IntN(6)))
			op.Add.X, op.Add.Y, op.Add.Free = 400+200*rnd.Float64(), 300+200*rnd.Float64(), true
			if _, err := apply(s, r, sheet.Actor{ID: fmt.Sprint("student", i%class)}, op); err != nil {
				t.Fatal(err)
			}
			if m, _ := s.Mark(op.Add.Mark); i == 0 {
				first = m.W
			}
		}
		beside, covered := 0, 0.0
		for _, m := range s.Marks() {
			if b := m.Covers(); m.InMargin() {
				beside++
			} else {
				covered += (b.W + 10) * (b.H + 10)
			}
		}
		if pairs := covering(s.Marks()); len(pairs) > 0 {
			t.Errorf("%d students: %d pairs cover each other, as %s", class, len(pairs), pairs[0])
		}
		want := map[int]float64{1: 300, 10: 300, 28: 215, 300: 180}[class]
		if first != want || beside > 0 && covered < .55*1.6e6 {
			t.Errorf(
				"%d students: the first note is %g wide, want %g; %d notes lie in the margin while others cover %g units",
				class,
				first,
				want,
				beside,
				covered,
			)
		}
		t.Logf(
			"%d students: %d of %d notes in the margin, %.0f %% of the frame covered by the others",
			class,
			beside,
			3*class,
			100*covered/1.6e6,
		)
	}
}

// However much is drawn on a frame, prepared or in class, a note is never
// refused for want of a place.
func TestNotesAmongMuchInk(t *testing.T) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	r.Sharing = 28
	scribble := func(n int) []float64 {
		points := make([]float64, 3*n)
		for i := range n {
			points[3*i], points[3*i+1], points[3*i+2] = float64(i*7%900), float64(i*13%700), .5
		}
		return points
	}
	long := lesson.Body{Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Points: scribble(4000), Ink: "night", Width: 4}}
	for i := range 300 {
		m := lesson.Element{ID: fmt.Sprint("prepared", i), Body: long}
		if err := m.Fit(); err != nil {
			t.Fatal(err)
		}
		r.Frame.Prepared = append(r.Frame.Prepared, m)
	}
	for i := range 380 {
		if _, err := apply(s, r, staff, addStroke(v7(), scribble(200+600*(i%2))...)); err != nil {
			t.Fatal(err)
		}
	}
	op := addNote(v7(), "room for me?")
	op.Add.Free = true
	result, err := s.Draft().Decide(r, noor, op)
	if err != nil {
		t.Fatal(err)
	}
	if result.Work > 200_000 {
		t.Errorf("%d units of work", result.Work)
	}
}

// Notes on a heap are spread without covering each other, which one step takes
// back, also when some have been changed or are gone since.
func TestSpread(t *testing.T) {
	for _, n := range []int{2, 12, 45, 150} {
		s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
		r.Frame.Prepared = nil
		ids := make([]string, n)
		for i := range ids {
			op := addNote(v7(), strings.Repeat("noticed ", 1+i%7))
			op.Add.X, op.Add.Y, ids[i] = 600+float64(i%9), 400+float64(i%5), op.Add.Mark
			if _, err := apply(s, r, noor, op); err != nil {
				t.Fatal(err)
			}
		}
		before := byID(s.Marks())
		if _, err := apply(s, r, noor, sheet.Op{Step: sheet.Step{Kind: sheet.KindSpread,
			Spread: &sheet.Spread{}}}); !errors.Is(
			err,
			refusal.New(refusal.NotYours),
		) {
			t.Fatalf("a student spread notes: %v", err)
		}
		spread, err := apply(
			s,
			r,
			staff,
			sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindSpread, Spread: &sheet.Spread{}}},
		)
		if err != nil {
			t.Fatal(err)
		}
		if pairs := covering(s.Marks()); len(pairs) > 0 {
			t.Errorf("%d notes: %d pairs cover each other", n, len(pairs))
		}
		beside := 0
		for _, m := range s.Marks() {
			if m.InMargin() {
				beside++
			}
			if m.LastBy() != "noor" {
				t.Error("whoever spreads notes becomes their author")
			}
		}
		if want := map[int]int{150: 94}[n]; beside > want {
			t.Errorf("%d of %d lie in the margin, %d before", beside, n, want)
		}
		// One is removed, another rewritten: the rest goes back.
		if _, err := apply(s, r, noor, target(sheet.KindRemove, ids[0])); err != nil {
			t.Fatal(err)
		}
		if _, err := apply(s, r, noor, setText(ids[1], "rewritten")); err != nil {
			t.Fatal(err)
		}
		if _, err := apply(s, r, staff, taken(spread.Undo)); err != nil {
			t.Fatal(err)
		}
		for id, m := range byID(s.Marks()) {
			was := before[id]
			if id == ids[0] {
				continue
			}
			if m.X != was.X || m.Y != was.Y || m.W != was.W || m.H != was.H || m.InMargin() ||
				id != ids[1] && !reflect.DeepEqual(m.Note, was.Note) {
				t.Fatalf("not back: %+v, was %+v", m, was)
			}
		}
	}
}

func BenchmarkSpread(b *testing.B) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	r.Frame.Prepared = nil
	for i := range 150 {
		op := addNote(v7(), strings.Repeat("noticed ", 1+i%7))
		op.Add.X, op.Add.Y = 600+float64(i%9), 400+float64(i%5)
		if _, err := apply(s, r, staff, op); err != nil {
			b.Fatal(err)
		}
	}
	for b.Loop() {
		op := sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindSpread, Spread: &sheet.Spread{}}}
		if _, err := s.Draft().Decide(r, staff, op); err != nil {
			b.Fatal(err)
		}
	}
}

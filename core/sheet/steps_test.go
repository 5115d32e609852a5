package sheet_test

import (
	"encoding/json"
	"errors"
	"reflect"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

// The steps that many-sided operations must take exactly.
func TestErasingAgreeingClearing(t *testing.T) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	do := func(a sheet.Actor, op sheet.Op) sheet.Result {
		t.Helper()
		result, err := apply(s, r, a, op)
		if err != nil {
			t.Fatal(err)
		}
		return result
	}
	find := func(id string) lesson.Element {
		t.Helper()
		m, ok := s.Mark(id)
		if !ok {
			t.Fatal("no mark", id)
		}
		return m
	}
	line, foreign, n := v7(), v7(), v7()
	do(noor, addStroke(line, 0, 0, .5, 100, 0, .5))
	do(kenji, addStroke(foreign, 0, 0, .5, 100, 0, .5))
	// An eraser of radius 10 and a line of width 4: 24 units go, in the middle.
	cut := do(noor, erase(true, 60, -100, 60, 200))
	var pieces []lesson.Element
	for _, m := range cut.Change.Put {
		if m.OnFrame() {
			pieces = append(pieces, m)
		}
	}
	if len(pieces) != 2 || pieces[0].X != 10 || pieces[0].W != 38 || pieces[1].X != 72 || pieces[1].W != 38 ||
		pieces[0].Author != "noor" {
		t.Errorf("the pieces: %+v", pieces)
	}
	if find(foreign).W != 100 {
		t.Error("another's line was cut")
	}
	do(noor, taken(cut.Undo))
	if find(line).W != 100 || s.Amount("noor") != 1 {
		t.Errorf("after undo: %d marks of Noor's", s.Amount("noor"))
	}
	// A stroke that was stretched and turned is cut where it lies.
	w, turn := 200.0, 90.0
	do(noor, set(line, func(p *sheet.Set) { p.W, p.Turn = &w, &turn }))
	drawn := find(line).Drawn()
	if drawn[0] != 110 || drawn[1] != -80 || drawn[3] != 110 || drawn[4] != 120 {
		t.Errorf("stretched and turned it lies at %v", drawn)
	}

	do(kenji, addNote(n, "mine"))
	do(noor, agree(n, true))
	do(noor, agree(n, true))
	do(staff, agree(n, true))
	if got := find(n).Agreed; !reflect.DeepEqual(got, []string{"noor", "staff"}) {
		t.Errorf("agreed: %v", got)
	}
	do(kenji, taken(sheet.Op{Step: setText(n, "still mine to change").Step}))
	cleared := do(staff, clear("kenji"))
	if s.Amount("kenji") != 0 || s.Amount("noor") != 1 || len(cleared.Change.Gone) != 2 {
		t.Errorf("cleared: %d of Kenji's and %d of Noor's left, %d gone", s.Amount("kenji"), s.Amount("noor"),
			len(cleared.Change.Gone))
	}
	text, _ := json.Marshal(cleared.Undo)
	if len(text) > 200 {
		t.Errorf("the undo of a clear is long: %s", text)
	}
	do(staff, taken(cleared.Undo))
	if s.Amount("kenji") != 2 {
		t.Error("the clear was not taken back")
	}
}

// A class that begins notes at the same place gets them side by side.
func TestFreePlaces(t *testing.T) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	for range 12 {
		op := addNote(v7(), "a note of some words")
		op.Add.X, op.Add.Y, op.Add.Free = 600, 400, true
		if _, err := apply(s, r, noor, op); err != nil {
			t.Fatal(err)
		}
	}
	marks := s.Marks()
	for i, a := range marks {
		for _, b := range marks[:i] {
			if a.X < b.X+b.W && b.X < a.X+a.W && a.Y < b.Y+b.H && b.Y < a.Y+a.H {
				t.Errorf("notes at %v,%v and %v,%v cover each other", a.X, a.Y, b.X, b.Y)
			}
		}
	}
}

// Among more words than can be looked at in a moment, a note stays where it was
// wished.
func TestNoPlaceAmongTooManyWords(t *testing.T) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	wished := func() bool {
		op := addNote(v7(), "here")
		op.Add.X, op.Add.Y, op.Add.Free = 600, 400, true
		if _, err := apply(s, r, noor, op); err != nil {
			t.Fatal(err)
		}
		mark, _ := s.Mark(op.Add.Mark)
		return mark.X == 600 && mark.Y == 400
	}
	long := strings.Repeat("श्रृं", lesson.MaxText/5)
	for n := 0; n*len(long) < 200_000; n++ {
		op := addNote(v7(), "")
		op.Add.Body = lesson.Body{Kind: lesson.KindText, Text: &lesson.Text{Text: long, Size: 16, Ink: "night"}}
		if wished() && n > 0 {
			t.Fatalf("no place was looked for among %d bytes", n*len(long))
		}
		if _, err := apply(s, r, noor, op); err != nil {
			t.Fatal(err)
		}
	}
	if !wished() {
		t.Error("a place was looked for")
	}
}

// A pasted flood is refused as a whole; a student's ink stays bounded.
func TestManySteps(t *testing.T) {
	steps := make([]sheet.Op, sheet.MaxSteps+1)
	for i := range steps {
		steps[i] = addNote(v7(), "pasted")
	}
	long := many(steps...)
	long.Sheet = v7()
	text, _ := json.Marshal(long)
	if _, err := sheet.ReadOp(text); !errors.Is(err, refusal.New(refusal.TooMany)) {
		t.Errorf("%d steps: %v", len(steps), err)
	}
	op := many(steps[:sheet.MaxSteps]...)
	op.Sheet = v7()
	text, _ = json.Marshal(op)
	if _, err := sheet.ReadOp(text); err != nil {
		t.Errorf("%d steps: %v", sheet.MaxSteps, err)
	}
	if got, err := apply(sheet.New("noor"), rules(lesson.Individual, lesson.Add), noor, op); err != nil ||
		got.Charge(30) < 30 {
		t.Errorf("%d steps are charged %d, %v", sheet.MaxSteps, got.Charge(30), err)
	}
	inside := many(steps[0])
	inside.Sheet = v7()
	inside.Many.Steps = append(inside.Many.Steps, many(steps[1]).Step)
	text, _ = json.Marshal(inside)
	if _, err := sheet.ReadOp(text); !errors.Is(err, refusal.New(refusal.Malformed)) {
		t.Errorf("many in many: %v", err)
	}
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	points := make([]float64, 3*4000)
	for i := range points {
		points[i] = 0.5
	}
	var err error
	for range 300 {
		if _, err = apply(s, r, noor, addStroke(v7(), points...)); err != nil {
			break
		}
	}
	if !errors.Is(err, refusal.New(refusal.ShareFull)) {
		t.Errorf("endless ink: %v", err)
	}
}

// An eraser moved 40 steps over 2,000 lines of 80 points.
func BenchmarkErase(b *testing.B) {
	r := rules(lesson.WholeClass, lesson.Add)
	var changes []sheet.Change
	full := sheet.New("class")
	for i := range sheet.MaxMarks {
		points := make([]float64, 0, 240)
		for k := range 80 {
			points = append(points, float64(k*2), float64(k*k%37), .5)
		}
		op := addStroke(v7(), points...)
		op.Add.X, op.Add.Y = float64(i%50*28), float64(i/50*24)
		result, err := apply(full, r, staff, op)
		if err != nil {
			b.Fatal(err)
		}
		changes = append(changes, result.Change)
	}
	var path []float64
	for k := range 40 {
		path = append(path, 300+float64(k*3), 480)
	}
	for b.Loop() {
		b.StopTimer()
		s := sheet.New("class")
		for _, c := range changes {
			s.Take(c)
		}
		b.StartTimer()
		if _, err := apply(s, r, staff, erase(false, path...)); err != nil {
			b.Fatal(err)
		}
	}
}

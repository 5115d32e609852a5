package prepare_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"reflect"
	"slices"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"

	"github.com/google/uuid"
)

func v7() string { return uuid.Must(uuid.NewV7()).String() }

func frame(id string) lesson.Frame {
	return lesson.Frame{ID: id, Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.WholeClass,
		Permission: lesson.Add, Prepared: []lesson.Element{}}
}

func board() prepare.Draft {
	return prepare.New(lesson.Board{Title: "Tides",
		Frames: []lesson.Frame{frame("a"), frame("b"), frame("c"), frame("d")}})
}

func edit(s prepare.Step) prepare.Edit { return prepare.Edit{ID: v7(), Step: s} }

func drop(ids ...string) prepare.Step {
	return prepare.Step{Kind: prepare.KindDrop, Drop: &prepare.Frames{Frames: ids}}
}

func bring(ids ...string) prepare.Step {
	return prepare.Step{Kind: prepare.KindBring, Bring: &prepare.Frames{Frames: ids}}
}

func order(ids ...string) prepare.Step {
	return prepare.Step{Kind: prepare.KindOrder, Order: &prepare.Frames{Frames: ids}}
}

func marks(id string, s sheet.Step) prepare.Step {
	return prepare.Step{Kind: prepare.KindMarks, Marks: &prepare.MarksStep{Frame: id, Step: s}}
}

func note(mark, text string) sheet.Step {
	return sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: mark, X: 10, Y: 10, W: 200, H: 100,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "moss"}}}}
}

func remove(mark string) sheet.Step {
	return sheet.Step{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: mark}}
}

// clone makes sure that nothing is shared between a draft before and after.
func clone(d prepare.Draft) prepare.Draft {
	text, _ := json.Marshal(d)
	var c prepare.Draft
	json.Unmarshal(text, &c)
	return c
}

// seen is what a teacher sees of a draft: what could be brought back is not in it.
func seen(d prepare.Draft) any {
	text, _ := json.Marshal(d.Board())
	return string(text)
}

func randomStep(rnd *rand.Rand, d prepare.Draft, known []string) prepare.Step {
	frames := append(slices.Clone(d.Outline.Frames), "z")
	for _, o := range d.Outline.Dropped {
		frames = append(frames, o.Frame)
	}
	any := func() string { return frames[rnd.IntN(len(frames))] }
	mark := func() string {
		if len(known) == 0 || rnd.IntN(8) == 0 {
			return v7()
		}
		return known[rnd.IntN(len(known))]
	}
	title, notes, dark := fmt.Sprint("title ", rnd.IntN(50)), "notes",
		paper.Paper{Kind: paper.Kinds[rnd.IntN(4)], Dark: rnd.IntN(2) == 0}
	serves := []string{"o"}[:rnd.IntN(2)]
	criteria := []lesson.Criterion{{ID: "c", Name: title}, {ID: "d", Name: "Says why"}}[:rnd.IntN(3)]
	switch rnd.IntN(9) {
	case 0:
		return drop(any())
	case 1:
		return drop(any(), any())
	case 2:
		return bring(any())
	case 3:
		rnd.Shuffle(len(frames), func(i, j int) { frames[i], frames[j] = frames[j], frames[i] })
		return order(frames[:rnd.IntN(len(frames)+1)]...)
	case 4:
		individual := lesson.Individual
		return prepare.Step{Kind: prepare.KindFrame,
			Frame: &prepare.SetFrame{
				Frame:       any(),
				Title:       &title,
				Notes:       &notes,
				Paper:       &dark,
				Criteria:    &criteria,
				Objectives:  &serves,
				Arrangement: &individual,
			}}
	case 5:
		objectives := []lesson.Objective{{ID: "o", Text: title}}
		return prepare.Step{Kind: prepare.KindBoard, Board: &prepare.SetBoard{Title: &title, Objectives: &objectives,
			Criteria: &criteria}}
	case 6:
		return marks(any(), note(v7(), title))
	case 7:
		return marks(any(), remove(mark()))
	default:
		layer := lesson.Layers[rnd.IntN(3)]
		return marks(any(), sheet.Step{Kind: sheet.KindSet,
			Set: &sheet.Set{Mark: mark(), Properties: lesson.Properties{Layer: &layer}}})
	}
}

// Whatever is done to a board: a refused edit changes nothing; what takes an
// edit back restores what is seen exactly; and a device that takes the changes
// one after the other has the same board.
func TestProperties(t *testing.T) {
	for seed := range uint64(200) {
		rnd := rand.New(rand.NewPCG(seed, 3))
		d := board()
		device := clone(d)
		var known []string
		take := func(c prepare.Changed) {
			text, _ := json.Marshal(c)
			var got prepare.Changed
			if err := json.Unmarshal(text, &got); err != nil {
				t.Fatal(err)
			}
			if got.Outline != nil {
				device.Outline = *got.Outline
			}
			for _, f := range got.Whole {
				device.Frames[f.ID] = f
			}
			if s := got.Setting; s != nil {
				s.Prepared = device.Frames[s.ID].Prepared
				device.Frames[s.ID] = *s
			}
			if m := got.Marks; m != nil {
				f := device.Frames[m.Frame]
				all := map[string]lesson.Element{}
				for _, e := range f.Prepared {
					all[e.ID] = e
				}
				for _, e := range m.Put {
					all[e.ID] = e
				}
				f.Prepared = slices.SortedFunc(maps.Values(all),
					func(a, b lesson.Element) int { return int(a.Z - b.Z) })
				device.Frames[m.Frame] = f
			}
		}
		for range 60 {
			step := randomStep(rnd, d, known)
			before := clone(d)
			changed, back, err := d.Apply(edit(step), 1)
			if err != nil {
				if refusal.Of(err) == nil {
					t.Fatalf("seed %d: %s: %v", seed, step.Kind, err)
				}
				if !reflect.DeepEqual(clone(d), before) {
					t.Fatalf("seed %d: refused %s changed the board", seed, step.Kind)
				}
				continue
			}
			if step.Marks != nil && step.Marks.Step.Add != nil {
				known = append(known, step.Marks.Step.Add.Mark)
			}
			take(changed)
			if err := d.Board().Check(); err != nil {
				t.Fatalf("seed %d: after %s: %v", seed, step.Kind, err)
			}
			if rnd.IntN(2) == 0 {
				var sent prepare.Step // as it comes back from a device
				if text, err := json.Marshal(back); err != nil || json.Unmarshal(text, &sent) != nil {
					t.Fatal(err)
				}
				undo := edit(sent)
				undo.Back = true
				undone, _, err := d.Apply(undo, 1)
				if err != nil {
					t.Fatalf("seed %d: undo of %s: %v", seed, step.Kind, err)
				}
				if seen(d) != seen(before) {
					t.Fatalf("seed %d: undo of %s left a difference:\n%s\n%s", seed, step.Kind, seen(before), seen(d))
				}
				take(undone)
			}
		}
		if seen(device) != seen(d) {
			t.Fatalf("seed %d: the device differs:\n%s\n%s", seed, seen(device), seen(d))
		}
	}
}

func TestRefused(t *testing.T) {
	long, empty, wrong := string(make([]rune, 121)), "", lesson.Arrangement("nobody")
	mark := v7()
	for name, c := range map[string]struct {
		steps []prepare.Step
		want  refusal.Code
	}{
		"deleting the last frames":    {[]prepare.Step{drop("a", "b", "c", "d")}, refusal.LastFrame},
		"deleting one twice":          {[]prepare.Step{drop("a"), drop("a")}, refusal.FrameDropped},
		"deleting one that never was": {[]prepare.Step{drop("x")}, refusal.NoSuchFrame},
		"bringing back what is there": {[]prepare.Step{bring("a")}, refusal.NoSuchFrame},
		"writing on one that is deleted": {[]prepare.Step{drop("a"), marks("a", note(mark, "x"))},
			refusal.FrameDropped},
		"naming one that is deleted": {[]prepare.Step{drop("a"),
			{Kind: prepare.KindFrame, Frame: &prepare.SetFrame{Frame: "a", Title: &empty}}}, refusal.FrameDropped},
		"a title too long": {[]prepare.Step{{Kind: prepare.KindFrame,
			Frame: &prepare.SetFrame{Frame: "a", Title: &long}}}, refusal.TextControl},
		"an arrangement that is none": {[]prepare.Step{{Kind: prepare.KindFrame,
			Frame: &prepare.SetFrame{Frame: "a", Arrangement: &wrong}}}, refusal.BoardIncorrect},
		"a board without a name": {[]prepare.Step{{Kind: prepare.KindBoard,
			Board: &prepare.SetBoard{Title: &empty}}}, refusal.NameEmpty},
		"the same mark twice": {[]prepare.Step{marks("a", note(mark, "x")), marks("a", note(mark, "y"))},
			refusal.MarkExists},
		"hiding, which is for class": {[]prepare.Step{marks("a", note(mark, "x")),
			marks("a", sheet.Step{Kind: sheet.KindHide, Hide: &sheet.Hide{Mark: mark}})}, refusal.UnknownOp},
		"a moved piece": {[]prepare.Step{marks("a",
			sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: mark,
				Body: lesson.Body{Kind: lesson.KindPlaced, Placed: &lesson.Placed{Piece: "x"}}}})},
			refusal.NoSuchPiece},
	} {
		d := board()
		var err error
		for i, s := range c.steps {
			if _, _, err = d.Apply(edit(s), 1); err != nil && i < len(c.steps)-1 {
				t.Fatalf("%s: step %d: %v", name, i, err)
			}
		}
		if r := refusal.Of(err); r == nil || r.Code != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

// A tab that orders frames keeps what another has just added or deleted.
func TestOrderMerges(t *testing.T) {
	d := board()
	if _, _, err := d.Add(1, frame("new")); err != nil {
		t.Fatal(err)
	}
	if _, _, err := d.Apply(edit(drop("c")), 1); err != nil {
		t.Fatal(err)
	}
	if _, _, err := d.Apply(edit(order("d", "c", "b", "a")), 1); err != nil {
		t.Fatal(err)
	}
	if got := d.Outline.Frames; !slices.Equal(got, []string{"d", "b", "a", "new"}) {
		t.Errorf("%v", got)
	}
	full := make([]lesson.Frame, lesson.MaxFrames-3)
	for i := range full {
		full[i] = frame(fmt.Sprint("f", i))
	}
	if _, _, err := d.Add(0, full...); refusal.Of(err) == nil || refusal.Of(err).Code != refusal.BoardFull {
		t.Errorf("61 frames: %v", err)
	}
}

// Removed marks can be brought back, but not without end.
func TestRemovedMarksAreForgottenInTheEnd(t *testing.T) {
	d := board()
	for range 600 {
		id := v7()
		for _, s := range []sheet.Step{note(id, "x"), remove(id)} {
			if _, _, err := d.Apply(edit(marks("a", s)), 1); err != nil {
				t.Fatal(err)
			}
		}
	}
	if n := len(d.Frames["a"].Prepared); n != 500 {
		t.Errorf("%d removed marks are kept", n)
	}
}

// Whatever bytes arrive, they are read or refused.
func FuzzReadEdit(f *testing.F) {
	for _, s := range []prepare.Step{drop("a"), order("a", "b"), marks("a", note(v7(), "x"))} {
		text, _ := json.Marshal(edit(s))
		f.Add(text)
	}
	f.Add([]byte(`{"id":"x","kind":"drop"}`))
	f.Add([]byte(`{"id":"0192aaaa-0000-7000-8000-000000000000","kind":"drop","drop":{"frames":[]},"bring":{}}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		e, err := prepare.ReadEdit(data)
		if err != nil {
			if refusal.Of(err) == nil {
				t.Fatal(err)
			}
			return
		}
		d := board()
		if _, _, err := d.Apply(e, 1); err != nil && refusal.Of(err) == nil {
			t.Fatal(err)
		}
	})
}

func BenchmarkMarkOnFullFrame(b *testing.B) {
	d := board()
	for range 1000 {
		if _, _, err := d.Apply(edit(marks("a", note(v7(), "tide"))), 1); err != nil {
			b.Fatal(err)
		}
	}
	x := 50.0
	id := d.Frames["a"].Prepared[500].ID
	for b.Loop() {
		if _, _, err := d.Apply(edit(marks("a",
			sheet.Step{Kind: sheet.KindSet, Set: &sheet.Set{Mark: id, Properties: lesson.Properties{X: &x}}})),
			1); err != nil {
			b.Fatal(err)
		}
	}
}

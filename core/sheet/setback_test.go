package sheet_test

import (
	"math/rand/v2"
	"reflect"
	"slices"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

func setBack(to int64) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindSetBack, SetBack: &sheet.SetBack{To: to}}}
}

// onFrameOf lists what is on the frame, but for answers, by who changed it last.
func onFrameOf(s *sheet.Sheet) []lesson.Element {
	all := slices.DeleteFunc(s.Marks(), func(m lesson.Element) bool { return !m.OnFrame() || m.IsAnswer() })
	for i := range all {
		all[i].By = ""
	}
	return all
}

// Over random lessons: set back to any moment the frame is as it was then, but that what
// is hidden or held by now stays so; and set back and taken back, it is as it was before.
// Played from its changes alone, every moment is the same.
func TestSetBack(t *testing.T) {
	for seed := range uint64(80) {
		rnd := rand.New(rand.NewPCG(seed, 8))
		s := sheet.New(sheet.ClassOwner)
		terms := rules(lesson.WholeClass, lesson.BuildTogether)
		terms.Frame.Replies = true
		moments := [][]lesson.Element{nil}
		var changes []sheet.Change
		var marks []string
		for range 120 {
			terms.Now++
			by := []sheet.Actor{noor, kenji, staff}[rnd.IntN(3)]
			result, err := apply(s, terms, by, randomOp(rnd, marks))
			if err != nil {
				continue
			}
			for _, e := range result.Change.Put {
				marks = append(marks, e.ID)
			}
			changes = append(changes, result.Change)
			moments = append(moments, s.Marks())
		}
		played := sheet.New(sheet.ClassOwner)
		for i, c := range changes {
			played.Take(c)
			if !reflect.DeepEqual(played.Marks(), moments[i+1]) {
				t.Fatalf("seed %d: played to %d it is another frame", seed, i+1)
			}
		}
		to := 1 + rnd.IntN(len(moments)-1)
		before := onFrameOf(s)
		away := map[string]lesson.Stand{}
		for _, m := range s.Marks() {
			for st := m.Standing; st != nil; st = st.Was {
				if st.Is == lesson.Hidden || st.Is == lesson.Held {
					away[m.ID] = st.Is
					break
				}
			}
		}
		op := setBack(int64(to))
		op.SetBack.Given(moments[to], nil)
		if _, err := apply(s, terms, noor, op); refusal.Of(err) == nil || refusal.Of(err).Code != refusal.NotYours {
			t.Fatalf("seed %d: a student sets back: %v", seed, err)
		}
		result, err := apply(s, terms, staff, op)
		then := sheet.New(sheet.ClassOwner)
		for _, m := range moments[to] {
			then.Load(m, 1)
		}
		want := onFrameOf(then)
		if err != nil {
			if refusal.Of(err).Code != refusal.NoSuchMark {
				t.Fatalf("seed %d: %v", seed, err)
			}
			continue // it is as it was then
		}
		got := onFrameOf(s)
		if len(got) != len(want) {
			t.Fatalf("seed %d: set back to %d there are %d marks, then were %d", seed, to, len(got), len(want))
		}
		for i := range want {
			if is, stays := away[want[i].ID]; stays {
				if got[i].Stands() != is {
					t.Fatalf("seed %d: %s was %s and stands as %s", seed, want[i].ID, is, got[i].Stands())
				}
				got[i].Standing, want[i].Standing = nil, nil
			}
			if !reflect.DeepEqual(got[i], want[i]) {
				t.Fatalf("seed %d: set back to %d\n%+v\nthen\n%+v", seed, to, got[i], want[i])
			}
		}
		// Taken back: given how it was before the operation, and what the operation changed.
		undo := taken(result.Undo)
		var only []string
		for _, m := range result.Change.Put {
			only = append(only, m.ID)
		}
		undo.SetBack.Given(moments[len(moments)-1], only)
		if _, err := apply(s, terms, staff, undo); err != nil {
			t.Fatalf("seed %d: taking back: %v", seed, err)
		}
		if after := onFrameOf(s); !reflect.DeepEqual(after, before) {
			t.Fatalf("seed %d: set back and taken back\n%+v\nbefore\n%+v", seed, after, before)
		}
	}
	// Nobody has said how it was; neither a number nor an operation; both.
	s := sheet.New(sheet.ClassOwner)
	for _, b := range []sheet.SetBack{{To: 1}, {}, {To: 1, Of: v7()}, {To: -1}, {Of: "x"}} {
		op := sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindSetBack, SetBack: &b}}
		if _, err := apply(s, rules(lesson.WholeClass, lesson.Add), staff, op); refusal.Of(err) == nil {
			t.Errorf("%+v: %v", b, err)
		}
	}
}

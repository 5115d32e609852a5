package prepare_test

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
)

// However a lesson's board and the one that it began with were changed meanwhile:
// each difference can be taken alone, in any order, takes itself away and no other's
// kind for its frame, and after all of them nothing differs but titles of the board.
func TestTake(t *testing.T) {
	kinds := map[prepare.What]int{}
	for seed := range uint64(300) {
		rnd := rand.New(rand.NewPCG(seed, 4))
		drafts := [2]prepare.Draft{board(), board()}
		var known []string
		for i := range drafts {
			for range 12 * (i + 1) {
				step := randomStep(rnd, drafts[i], known)
				if _, _, err := drafts[i].Apply(edit(step), 1); err == nil && step.Marks != nil &&
					step.Marks.Step.Add != nil {
					known = append(known, step.Marks.Step.Add.Mark)
				}
			}
		}
		if seed%3 == 0 {
			if _, _, err := drafts[1].Add(1, frame(fmt.Sprint("new", seed))); err != nil {
				t.Fatal(err)
			}
		}
		d, run := clone(drafts[0]), drafts[1].Board()
		left := prepare.Differences(d.Board(), run)
		for len(left) > 0 {
			take := left[rnd.IntN(len(left))]
			kinds[take.What]++
			before := clone(d)
			changed, back, err := d.Take(take, run, prepare.Edit{ID: v7()}, 5)
			if refusal.Of(err) != nil && refusal.Of(err).Code == refusal.LastFrame {
				break // the boards have no frame in common yet
			}
			if err != nil {
				t.Fatalf("seed %d: %+v: %v", seed, take, err)
			}
			if changed.Op == "" {
				t.Fatalf("seed %d: %+v is told without its id", seed, take)
			}
			now := prepare.Differences(d.Board(), run)
			for _, o := range now {
				if o == take {
					t.Fatalf("seed %d: %+v was taken and still differs", seed, take)
				}
			}
			if back.Kind != "" && take.What != prepare.WhatNew {
				undone := clone(d)
				if _, _, err := undone.Apply(edit(back), 6); err != nil ||
					!reflect.DeepEqual(seen(undone), seen(before)) {
					t.Fatalf("seed %d: %+v cannot be taken back: %v", seed, take, err)
				}
			}
			left = now
		}
		if len(left) == 0 && !reflect.DeepEqual(d.Board().Frames, run.Frames) {
			t.Fatalf("seed %d: %+v\nis not\n%+v", seed, d.Board().Frames, run.Frames)
		}
	}
	for _, what := range prepare.Whats {
		if what != prepare.WhatLayout && kinds[what] == 0 {
			t.Errorf("%s was never taken", what)
		}
	}
	d, run := board(), board().Board()
	run.Frames[0].Layout = lesson.Layout{Order: lesson.OrderAgreed}
	if _, _, err := d.Take(prepare.Difference{What: prepare.WhatLayout, Frame: "a"}, run, edit(prepare.Step{}),
		1); err != nil ||
		d.Frames["a"].Layout.Order != lesson.OrderAgreed {
		t.Errorf("the layout: %v", err)
	}
	for name, c := range map[string]struct {
		take prepare.Difference
		want refusal.Code
	}{
		"no such frame":             {prepare.Difference{What: prepare.WhatWords, Frame: "z"}, refusal.NoSuchFrame},
		"it is not gone":            {prepare.Difference{What: prepare.WhatGone, Frame: "a"}, refusal.NoSuchFrame},
		"it is there":               {prepare.Difference{What: prepare.WhatNew, Frame: "a"}, refusal.FrameThere},
		"something that no one has": {prepare.Difference{What: "everything", Frame: "a"}, refusal.Malformed},
	} {
		before := clone(d)
		if _, _, err := d.Take(c.take, run, edit(prepare.Step{}), 1); refusal.Of(err) == nil ||
			refusal.Of(err).Code != c.want || !reflect.DeepEqual(seen(d), seen(before)) {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

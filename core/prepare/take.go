package prepare

import (
	"bytes"
	"encoding/json"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// What tells apart in what a lesson's board may differ from the one that the
// lesson began with.
type What string

// A frame that is new; that is gone; its words; how it is used; how its notes lie;
// its paper, notes, timer, objectives and criteria; what was prepared on it; the order of the
// frames.
const (
	WhatNew      What = "new"
	WhatGone     What = "gone"
	WhatWords    What = "words"
	WhatUse      What = "use"
	WhatLayout   What = "layout"
	WhatSettings What = "settings"
	WhatMarks    What = "marks"
	WhatOrder    What = "order"
)

// Whats lists them.
var Whats = []What{WhatNew, WhatGone, WhatWords, WhatUse, WhatLayout, WhatSettings, WhatMarks, WhatOrder}

// Difference is one thing in which a lesson's board differs. Title is the frame's;
// the order concerns no one frame.
type Difference struct {
	What  What   `json:"what"`
	Frame string `json:"frame,omitempty"`
	Title string `json:"title,omitempty"`
}

// parts are what can differ about a frame that both boards have.
var parts = []struct {
	what What
	of   func(f lesson.Frame) any
}{
	{WhatWords, func(f lesson.Frame) any { return []string{f.Title, f.Prompt} }},
	{WhatUse, func(f lesson.Frame) any { return []any{f.Arrangement, f.Permission, f.Replies, f.Set} }},
	{WhatLayout, func(f lesson.Frame) any { return f.Layout }},
	{WhatSettings, func(f lesson.Frame) any {
		return []any{f.Paper, f.Notes, f.Seconds, append([]string{}, f.Objectives...),
			append([]lesson.Criterion{}, f.Criteria...)}
	}},
	{WhatMarks, func(f lesson.Frame) any { return append([]lesson.Element{}, f.Prepared...) }},
}

// Differences lists in what the board of a lesson differs from a board, in the
// order of the lesson.
func Differences(board, run lesson.Board) []Difference {
	differ := []Difference{}
	both := func(b, other lesson.Board) (ids []string) {
		for _, f := range b.Frames {
			if _, _, err := other.Frame(f.ID); err == nil {
				ids = append(ids, f.ID)
			}
		}
		return ids
	}
	for _, f := range run.Frames {
		was, _, err := board.Frame(f.ID)
		if err != nil {
			differ = append(differ, Difference{WhatNew, f.ID, f.Title})
			continue
		}
		for _, p := range parts {
			if !same(p.of(was), p.of(f)) {
				differ = append(differ, Difference{p.what, f.ID, f.Title})
			}
		}
	}
	for _, f := range board.Frames {
		if _, _, err := run.Frame(f.ID); err != nil {
			differ = append(differ, Difference{WhatGone, f.ID, f.Title})
		}
	}
	if !slices.Equal(both(board, run), both(run, board)) {
		differ = append(differ, Difference{What: WhatOrder})
	}
	return differ
}

// same compares two values as they would be stored.
func same(a, b any) bool {
	one, err := json.Marshal(a)
	other, failed := json.Marshal(b)
	return err == nil && failed == nil && bytes.Equal(one, other)
}

// Take takes one thing in which a lesson's board differs into the draft, which must
// hold the frame where it has it, and says what takes that back; nothing does for
// what was prepared, of which what went is kept with what was removed.
func (d *Draft) Take(t Difference, run lesson.Board, e Edit, now int64) (Changed, Step, error) {
	f, at, err := run.Frame(t.Frame)
	if err != nil && t.What != WhatGone && t.What != WhatOrder {
		return Changed{}, Step{}, err
	}
	set := SetFrame{Frame: f.ID}
	switch t.What {
	case WhatNew:
		place := 0
		for _, before := range slices.Backward(run.Frames[:at]) {
			if i := slices.Index(d.Outline.Frames, before.ID); i >= 0 {
				place = i + 1
				break
			}
		}
		d.Outline = d.Outline.clone()
		d.Outline.Dropped = slices.DeleteFunc(d.Outline.Dropped, func(o Dropped) bool { return o.Frame == f.ID })
		changed, back, err := d.Add(place, f)
		changed.Op = e.ID
		return changed, back, err
	case WhatGone:
		if err == nil {
			return Changed{}, Step{}, refusal.New(refusal.NoSuchFrame) // it is on the lesson's board
		}
		e.Step = Step{Kind: KindDrop, Drop: &Frames{[]string{t.Frame}}}
		return d.Apply(e, now)
	case WhatOrder:
		order := Frames{}
		for _, f := range run.Frames {
			order.Frames = append(order.Frames, f.ID)
		}
		e.Step = Step{Kind: KindOrder, Order: &order}
		return d.Apply(e, now)
	case WhatMarks:
		return d.takeMarks(f, e, now)
	case WhatWords:
		set.Title, set.Prompt = &f.Title, &f.Prompt
	case WhatUse:
		set.Arrangement, set.Permission, set.Replies = &f.Arrangement, &f.Permission, &f.Replies
		set.Set = &AsSet{f.Set}
	case WhatLayout:
		set.Layout = &f.Layout
	case WhatSettings:
		set.Paper, set.Notes, set.Seconds, set.Objectives = &f.Paper, &f.Notes, &f.Seconds, &f.Objectives
		set.Criteria = &f.Criteria
	default:
		return Changed{}, Step{}, refusal.New(refusal.Malformed)
	}
	e.Step = Step{Kind: KindFrame, Frame: &set}
	return d.Apply(e, now)
}

// takeMarks lets a frame of the draft have what is prepared on another; what only
// it has had is removed, and can be restored.
func (d *Draft) takeMarks(from lesson.Frame, e Edit, now int64) (Changed, Step, error) {
	f, err := d.frame(from.ID)
	if err != nil {
		return Changed{}, Step{}, err
	}
	marks := slices.Clone(from.Prepared)
	for _, m := range f.Prepared {
		if slices.ContainsFunc(marks, func(o lesson.Element) bool { return o.ID == m.ID }) {
			continue
		}
		if m.OnFrame() {
			m.Remove(lesson.Staff, now, e.ID)
		}
		marks = append(marks, m)
	}
	f.Prepared = kept(marks)
	if err := f.Settled().Check(); err != nil {
		return Changed{}, Step{}, err
	}
	d.Frames[f.ID] = f
	return Changed{Op: e.ID, Whole: []lesson.Frame{f}}, Step{}, nil
}

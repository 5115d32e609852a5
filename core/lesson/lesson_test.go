package lesson_test

import (
	"errors"
	"math"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

func note(x, y, w, h float64) lesson.Element {
	return lesson.Element{ID: "n", X: x, Y: y, W: w, H: h,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "tide", Tint: "moss"}}}
}

func line(x, y, w, h float64) lesson.Element {
	return lesson.Element{ID: "l", X: x, Y: y, W: w, H: h,
		Body: lesson.Body{Kind: lesson.KindShape, Shape: &lesson.Shape{Form: lesson.FormLine, Ink: "lake", Width: 4}}}
}

func stroke(x, y float64, points ...float64) lesson.Element {
	return lesson.Element{ID: "s", X: x, Y: y,
		Body: lesson.Body{Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Points: points, Ink: "night", Width: 4}}}
}

func TestElementCheck(t *testing.T) {
	styled := func(e lesson.Element, change func(*lesson.Element)) lesson.Element { change(&e); return e }
	for _, c := range []struct {
		name string
		mark lesson.Element
		want refusal.Code
	}{
		{"a note", note(0, 0, 300, 120), ""},
		{"a note in the last corner", note(1300.3, 880.1, 299.7, 119.9), ""},
		{"a note over the edge", note(1300.4, 880, 299.7, 119.9), refusal.OutOfFrame},
		{"a note above the frame", note(0, -1, 300, 120), refusal.OutOfFrame},
		{"a note of no width", note(0, 0, 0, 120), refusal.BadSize},
		{"a note of negative height", note(0, 0, 300, -120), refusal.BadSize},
		{"a note that is not a number wide", note(0, 0, math.NaN(), 120), refusal.BadSize},
		{"a note that is nowhere", note(math.NaN(), 0, 300, 120), refusal.OutOfFrame},
		{"a note wider than the frame", note(0, 0, 1601, 120), refusal.BadSize},
		{"a level line", line(0, 0, 100, 0), ""},
		{"a tint that is none", styled(note(0, 0, 300, 120), func(e *lesson.Element) { e.Note.Tint = "neon" }),
			refusal.BadStyle},
		{"an ink that is none", styled(line(0, 0, 100, 0), func(e *lesson.Element) { e.Shape.Ink = "#ff0000" }),
			refusal.BadStyle},
		{"a width of nothing", styled(stroke(0, 0, 0, 0, 1), func(e *lesson.Element) { e.Stroke.Width = 0 }),
			refusal.BadStyle},
		{"a dot", stroke(5, 5, 0, 0, 0.5), ""},
		{"a stroke with infinite points", stroke(5, 5, 0, math.Inf(1), 0.5), refusal.StrokeInvalid},
		{"a stroke with NaN", stroke(5, 5, math.NaN(), 0, 0.5), refusal.StrokeInvalid},
		{"a stroke pressed too hard", stroke(5, 5, 0, 0, 1.5), refusal.StrokeInvalid},
		{"a stroke left of itself", stroke(5, 5, -1, 0, 0.5), refusal.StrokeInvalid},
		{"a body of another kind", styled(note(0, 0, 300, 120), func(e *lesson.Element) { e.Kind = lesson.KindText }),
			refusal.Malformed},
		{"two bodies", styled(note(0, 0, 300, 120),
			func(e *lesson.Element) { e.Text = &lesson.Text{Text: "x", Size: 30, Ink: "night"} }), refusal.Malformed},
		{"no body", lesson.Element{ID: "x", Body: lesson.Body{Kind: lesson.KindNote}}, refusal.Malformed},
	} {
		err := c.mark.Check()
		if c.want == "" && err != nil || c.want != "" && !errors.Is(err, refusal.New(c.want)) {
			t.Errorf("%s: %v, want %q", c.name, err, c.want)
		}
	}
	s := stroke(10, 20, 0, 3, .5, 7, 0, .5)
	if err := s.Fit(); err != nil || s.W != 7 || s.H != 3 {
		t.Errorf("the box of a stroke: %v x %v, %v", s.W, s.H, err)
	}
}

func TestBoardCheck(t *testing.T) {
	asked := func(id string, options ...poll.Option) lesson.Element {
		return lesson.Element{ID: id, W: 100, H: 100,
			Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{Body: poll.Offer(options...)}}}
	}
	frame := func(id string, fixed ...lesson.Element) lesson.Frame {
		return lesson.Frame{ID: id, Paper: paper.Paper{Kind: paper.Ruled}, Arrangement: lesson.Individual,
			Permission: lesson.Look, Prepared: fixed}
	}
	a, b := poll.Option{ID: "a"}, poll.Option{ID: "b"}
	odd := frame("f")
	odd.Arrangement = "nobody"
	groups := frame("g")
	groups.Arrangement = lesson.Groups
	for name, c := range map[string]struct {
		frames []lesson.Frame
		right  bool
	}{
		"two frames":             {[]lesson.Frame{frame("f", asked("p", a, b)), frame("g")}, true},
		"none":                   {nil, false},
		"sixty-one":              {make([]lesson.Frame, lesson.MaxFrames+1), false},
		"the same id twice":      {[]lesson.Frame{frame("f"), frame("f")}, false},
		"a mark with a frame's":  {[]lesson.Frame{frame("f", asked("f", a, b))}, false},
		"an unknown arrangement": {[]lesson.Frame{odd}, false},
		"a poll that turns text around": {[]lesson.Frame{frame("f",
			asked("p", a, poll.Option{ID: "b", Text: "\u202Eb"}))}, false},
		"a frame of groups":        {[]lesson.Frame{groups}, true},
		"a poll with one answer":   {[]lesson.Frame{frame("f", asked("p", a))}, false},
		"a poll with twin answers": {[]lesson.Frame{frame("f", asked("p", a, a))}, false},
	} {
		err := lesson.Board{Frames: c.frames}.Check()
		if (err == nil) != c.right || err != nil && refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

// KindWalk leads the class along the work of students or groups.
const KindWalk CommandKind = "walk"

// Bounds of a walk: how many stops it has, and for how many seconds one stays at each.
const (
	MaxStops = MaxParticipants
	MinEach  = 15
	MaxEach  = 60 * 60
)

// Walk is a walk of the class along the work of students or groups on a Frame, on the
// students' own devices. Stops are the owners of that work, in order. All are at the stop
// At, or with Own each walks by themselves, with a sign to move on every Each seconds if
// that is not 0. With Replies, others say something about it. Since is when they came
// to the stop, or began to walk, in milliseconds since 1970.
type Walk struct {
	Frame   string   `json:"frame"`
	Stops   []string `json:"stops"`
	At      int      `json:"at"`
	Own     bool     `json:"own,omitempty"`
	Each    int      `json:"each,omitempty"`
	Replies bool     `json:"replies,omitempty"`
	Since   int64    `json:"since"`
}

// SetWalk begins a walk, or changes the one that is going on; with no stops it ends it.
// While the class is led, the front screen shows the stop that it is at.
type SetWalk struct {
	Frame   string   `json:"frame,omitempty"`
	Stops   []string `json:"stops"`
	At      int      `json:"at,omitempty"`
	Own     bool     `json:"own,omitempty"`
	Each    int      `json:"each,omitempty"`
	Replies bool     `json:"replies,omitempty"`
}

func (c *SetWalk) do(s *State, board lesson.Board, with With) error {
	if len(c.Stops) == 0 {
		if s.Walk != nil && !s.Walk.Own {
			s.Front = Front{Kind: FrontFrame}
		}
		s.Walk = nil
		return nil
	}
	frame, _, err := board.Frame(c.Frame)
	switch {
	case err != nil:
		return err
	case !s.IsOpen(c.Frame):
		return refusal.New(refusal.NoSuchFrame)
	case frame.Arrangement == lesson.WholeClass:
		return refusal.About(refusal.Malformed, "all work on the same there")
	case len(c.Stops) > MaxStops || c.At < 0 || c.At >= len(c.Stops):
		return refusal.About(refusal.Malformed, "1 to %d stops", MaxStops)
	case c.Each != 0 && (!c.Own || c.Each < MinEach || c.Each > MaxEach):
		return refusal.About(refusal.Malformed, "%d to %d seconds", MinEach, MaxEach)
	}
	known := map[string]bool{}
	for _, o := range c.Stops {
		if known[o] || o == sheet.ClassOwner || !s.mayOwn(o, with.Students) {
			return refusal.New(refusal.NoSuchSheet)
		}
		known[o] = true
	}
	next := Walk{c.Frame, slices.Clone(c.Stops), c.At, c.Own, c.Each, c.Replies, with.Now}
	if was := s.Walk; was != nil && was.where() == next.where() && was.Each == next.Each {
		next.Since = was.Since // only who may say something has changed
	}
	s.Walk = &next
	if !c.Own {
		s.Front = Front{Kind: FrontSheets, Frame: c.Frame, Owners: []string{c.Stops[c.At]}}
	}
	return nil
}

// where is where the class is on its walk.
func (w *Walk) where() string {
	if w.Own {
		return w.Frame
	}
	return w.Frame + " " + w.Stops[w.At]
}

// shown lists whose work every student may look at.
func (w *Walk) shown() []string {
	if w.Own {
		return w.Stops
	}
	return w.Stops[w.At : w.At+1]
}

// Walked lists whose work on a frame every student may look at now.
func (s State) Walked(frame string) []string {
	if s.Walk == nil || s.Walk.Frame != frame || s.Ended || !s.IsOpen(frame) {
		return nil
	}
	return s.Walk.shown()
}

// Visited lists whose work on a frame every student may say something about now.
func (s State) Visited(frame string) []string {
	if s.Walk == nil || !s.Walk.Replies {
		return nil
	}
	return s.Walked(frame)
}

// Begins gives the stop, from 0, at which a student begins to walk by themselves: the
// one after their own, and who has none begins where their place among all leads, so
// that the class is spread over the stops.
func (s State) Begins(student string, students []string) int {
	stops := s.Walk.Stops
	own := slices.IndexFunc(
		stops,
		func(o string) bool { return o == student || o == sheet.GroupOwner(s.GroupOf(student)) },
	)
	if own < 0 {
		own = slices.Index(students, student)
	}
	return (own + 1) % len(stops)
}

// Walking is a walk as a student may know it: the stops that they may be at; where all
// are led, the number of that stop, from 1, of how many.
type Walking struct {
	Frame   string   `json:"frame"`
	Stops   []string `json:"stops"`
	Number  int      `json:"number,omitempty"`
	Of      int      `json:"of"`
	Own     bool     `json:"own,omitempty"`
	Each    int      `json:"each,omitempty"`
	Replies bool     `json:"replies,omitempty"`
	Since   int64    `json:"since"`
}

func (s State) walking() *Walking {
	w := s.Walk
	if w == nil || s.Walked(w.Frame) == nil {
		return nil
	}
	of := Walking{w.Frame, w.shown(), w.At + 1, len(w.Stops), w.Own, w.Each, w.Replies, w.Since}
	if w.Own {
		of.Number = 0
	}
	return &of
}

func (w *Walk) same(o *Walk) bool {
	return w == o || w != nil && o != nil && w.where() == o.where() && w.Own == o.Own && w.Replies == o.Replies &&
		slices.Equal(w.Stops, o.Stops)
}

package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// The commands that keep the door.
const (
	KindDoor CommandKind = "door"
	KindSeat CommandKind = "seat"
)

// Door closes the lesson to those who have no seat in it yet, or opens it again,
// also to those who wait at it.
type Door struct {
	Closed bool `json:"closed"`
}

func (d *Door) do(s *State, _ lesson.Board, _ With) error {
	if s.Closed = d.Closed; !s.Closed {
		s.admit(s.Waiting)
		s.Waiting = nil
	}
	return nil
}

// SetSeat takes somebody's seat away, or gives it back. Their work stays.
type SetSeat struct {
	Student string `json:"student"`
	Remove  bool   `json:"remove"`
}

func (c *SetSeat) do(s *State, _ lesson.Board, with With) error {
	if !slices.Contains(with.Students, c.Student) {
		return refusal.About(refusal.Malformed, "no such student")
	}
	s.Removed = slices.DeleteFunc(s.Removed, func(id string) bool { return id == c.Student })
	if !c.Remove {
		return nil
	}
	s.Removed = append(s.Removed, c.Student)
	for i, g := range s.Groups {
		s.Groups[i] = slices.DeleteFunc(slices.Clone(g), func(id string) bool { return id == c.Student })
	}
	return nil
}

// Seated reports whether a student has their seat: it was not taken away.
func (s State) Seated(student string) bool { return !slices.Contains(s.Removed, student) }

// seated lists those of the students who have their seats.
func (s State) seated(students []string) []string {
	return slices.DeleteFunc(slices.Clone(students), func(id string) bool { return !s.Seated(id) })
}

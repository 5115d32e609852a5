package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
)

// The commands that keep the door.
const (
	KindDoor CommandKind = "door"
	KindSeat CommandKind = "seat"
)

// Entry says by which names people come in.
type Entry string

// Any name; those of the class list alone; any, but one for which there is a doubt
// (see roster.Doubtful) waits until it is let in.
const (
	EntryAny   Entry = ""
	EntryList  Entry = "list"
	EntryKnown Entry = "known"
)

// Entries lists them.
var Entries = []Entry{EntryAny, EntryList, EntryKnown}

// Door closes the lesson to those who have no seat in it yet: they knock, and are let
// in one by one, or with Shut not even that. Entry says by which names people come in.
// Who waits comes in when there is nothing any more for which they wait.
type Door struct {
	Closed bool  `json:"closed"`
	Shut   bool  `json:"shut,omitempty"`
	Entry  Entry `json:"entry,omitempty"`
}

func (d *Door) do(s *State, _ lesson.Board, with With) error {
	switch {
	case d.Shut && !d.Closed, !slices.Contains(Entries, d.Entry):
		return refusal.New(refusal.Malformed)
	case d.Entry == EntryList && !with.Listed:
		return refusal.About(refusal.Malformed, "there is no list")
	}
	s.Closed, s.Shut, s.Entry = d.Closed, d.Shut, d.Entry
	waiting := s.Waiting
	s.Waiting = nil
	for _, k := range waiting {
		if s.waits(k) {
			s.Waiting = append(s.Waiting, k)
		} else {
			s.admit([]Knock{k})
		}
	}
	return nil
}

// waits reports whether somebody who knocks has to wait for the teacher.
func (s *State) waits(k Knock) bool { return s.Closed || s.Entry == EntryKnown && k.Doubt != "" }

// Entrant is somebody who wants a seat, or to knock: whether the class list has them,
// what speaks against their name, whether they come with a card, were let through a
// closed door, or had a seat, on this device or under a name of the list, that was taken away.
type Entrant struct {
	Listed  bool
	Doubt   roster.Doubt
	Card    bool
	Through bool
	Out     bool
}

// MayKnock refuses those who may not even wait at the door.
func (s State) MayKnock(e Entrant) error {
	switch {
	case s.Ended:
		return refusal.New(refusal.Ended)
	case e.Out:
		return refusal.New(refusal.SentOut)
	case e.Through:
		return nil
	case s.Entry == EntryList && !e.Listed && !e.Card:
		return refusal.New(refusal.NameNotListed)
	case s.Shut:
		return refusal.New(refusal.DoorShut)
	}
	return nil
}

// MayEnter refuses those who do not get a seat without being let in.
func (s State) MayEnter(e Entrant) error {
	if err := s.MayKnock(e); err != nil || e.Through {
		return err
	}
	switch {
	case s.Closed:
		return refusal.New(refusal.DoorClosed)
	case s.Entry == EntryKnown && e.Doubt != "" && !e.Card:
		return refusal.New(refusal.NameWaits)
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

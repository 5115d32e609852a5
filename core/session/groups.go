package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
)

// The commands about groups.
const (
	KindGroups CommandKind = "groups"
	KindAssign CommandKind = "assign"
)

// SetGroups makes new groups by chance, of at most Size students.
type SetGroups struct {
	Size int `json:"size"`
}

// Assign moves a student into a group, counted from 1; one more than there are
// makes a new group.
type Assign struct {
	Student string `json:"student"`
	Group   int    `json:"group"`
}

// GroupOf gives the number, from 1, of a student's group; 0 for none.
func (s State) GroupOf(student string) int {
	for i, g := range s.Groups {
		if slices.Contains(g, student) {
			return i + 1
		}
	}
	return 0
}

// size is how many students a group has at most.
func (s State) size() int {
	if s.GroupSize == 0 {
		return roster.DefaultGroup
	}
	return s.GroupSize
}

// group makes groups when a frame that needs them is first used.
func (s *State) group(f lesson.Frame, with With) {
	if f.Arrangement == lesson.Groups && len(s.Groups) == 0 {
		s.Groups = roster.Divide(s.seated(with.Students), s.size(), with.Random)
	}
}

// do makes new groups. The old ones' sheets are kept, by their numbers.
func (c *SetGroups) do(s *State, _ lesson.Board, with With) error {
	if c.Size < roster.MinGroup || c.Size > roster.MaxGroup {
		return refusal.About(refusal.Malformed, "a group has %d to %d students", roster.MinGroup, roster.MaxGroup)
	}
	s.GroupSize = c.Size
	s.Groups = roster.Divide(s.seated(with.Students), c.Size, with.Random)
	return nil
}

// do moves a student into a group.
func (c *Assign) do(s *State, _ lesson.Board, with With) error {
	if !slices.Contains(s.seated(with.Students), c.Student) || c.Group < 1 || c.Group > len(s.Groups)+1 {
		return refusal.About(refusal.Malformed, "no such student or group")
	}
	s.put(c.Student, c.Group-1)
	return nil
}

// Admit gives a student who has no group a place in one, and reports whether
// that changed anything.
func (s State) Admit(student string) (State, bool) {
	if s.Ended || s.GroupOf(student) != 0 || !s.Seated(student) {
		return s, false
	}
	next := s.clone()
	next.put(student, roster.Place(next.Groups, next.size()))
	return next.after(s), true
}

// put takes a student out of the group they are in and into another, from 0.
// Numbers stay: a group that loses its last student is kept, empty.
func (s *State) put(student string, at int) {
	for i, g := range s.Groups {
		s.Groups[i] = slices.DeleteFunc(slices.Clone(g), func(id string) bool { return id == student })
	}
	if at == len(s.Groups) {
		s.Groups = append(s.Groups, nil)
	}
	s.Groups[at] = append(s.Groups[at], student)
}

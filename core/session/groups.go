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

// SetGroups makes new groups of at most Size students: by chance, of neighbours by
// their seats, those that are kept for the class as the set with an id, of
// whatever size, or by their answers to a question: like ones together, or mixed. Who has
// no seat, or no group in the set, is divided by chance. Those
// who should not be together are kept apart, but in a set.
type SetGroups struct {
	Size int     `json:"size"`
	By   GroupBy `json:"by,omitempty"`
	Set  string  `json:"set,omitempty"`
	// Poll is the question by whose answers groups are made.
	Poll string `json:"poll,omitempty"`
}

// GroupBy is by what groups are made; empty for chance.
type GroupBy string

// The ways to make groups besides chance.
const (
	BySeats GroupBy = "seats"
	BySet   GroupBy = "set"
	ByLike  GroupBy = "like"
	ByMixed GroupBy = "mixed"
)

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
		roster.KeepApart(s.Groups, with.Plan.Apart)
	}
}

// do makes new groups. The old ones' sheets are kept, by their numbers.
func (c *SetGroups) do(s *State, _ lesson.Board, with With) error {
	if c.Size < roster.MinGroup || c.Size > roster.MaxGroup {
		return refusal.About(refusal.Malformed, "a group has %d to %d students", roster.MinGroup, roster.MaxGroup)
	}
	students := s.seated(with.Students)
	var groups [][]string
	switch c.By {
	case "":
		groups = roster.Divide(students, c.Size, with.Random)
		roster.KeepApart(groups, with.Plan.Apart)
	case BySeats:
		seated := with.Plan.Seats.Seated()
		line := slices.DeleteFunc(seated, func(id string) bool { return !slices.Contains(students, id) })
		line = append(line, without(students, line)...)
		groups = roster.Neighbours(line, c.Size)
		roster.KeepApart(groups, with.Plan.Apart)
	case BySet:
		at := slices.IndexFunc(with.Plan.Sets, func(set roster.Set) bool { return set.ID == c.Set })
		if at < 0 {
			return refusal.About(refusal.Malformed, "no such groups")
		}
		groups = fill(with.Plan.Sets[at].Groups, students, c.Size)
	case ByLike, ByMixed:
		if _, reached := s.Polls[c.Poll]; !reached {
			return refusal.New(refusal.NoSuchPoll)
		}
		groups = byAnswers(students, with.Said, c.By == ByLike, c.Size, with.Random)
		roster.KeepApart(groups, with.Plan.Apart)
	default:
		return refusal.About(refusal.Malformed, "groups")
	}
	s.GroupSize, s.Groups = c.Size, groups
	return nil
}

// fill gives the groups with those who are here, and the others in the smallest ones.
func fill(kept [][]string, students []string, size int) [][]string {
	groups, in := [][]string{}, []string{}
	for _, g := range kept {
		here := slices.DeleteFunc(slices.Clone(g), func(id string) bool { return !slices.Contains(students, id) })
		if len(here) > 0 {
			groups, in = append(groups, here), append(in, here...)
		}
	}
	for _, id := range without(students, in) {
		at := roster.Place(groups, size)
		if at == len(groups) {
			groups = append(groups, nil)
		}
		groups[at] = append(groups[at], id)
	}
	return groups
}

// without gives those who are not among others.
func without(students, others []string) []string {
	return slices.DeleteFunc(slices.Clone(students), func(id string) bool { return slices.Contains(others, id) })
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

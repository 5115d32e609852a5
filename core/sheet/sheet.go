// Package sheet answers: what may be changed on a sheet, by whom, what changes,
// how is it undone, and who sees it?
//
// A sheet is one copy of a frame that somebody works on: the class's, a
// group's or one student's. Its history is a list of changes numbered without holes; taking
// them one after the other from empty gives the sheet.
package sheet

import (
	"cmp"
	"maps"
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/ink"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// MaxMarks is how many marks may be on one sheet.
const MaxMarks = 2000

// So that a sheet stays within a server's memory: how many marks it keeps with
// the removed ones, and how many points of ink.
const (
	maxKept   = 10 * MaxMarks
	maxPoints = 1_000_000
)

// ClassOwner owns the sheet that the whole class shares. Other owners are a
// group (see GroupOwner) or the id of the participant whose sheet it is.
const ClassOwner = "class"

const groupOwner = "group-"

// GroupOwner is the owner of a group's sheet; groups are numbered from 1. It is
// empty for 0, no group.
func GroupOwner(group int) string {
	if group == 0 {
		return ""
	}
	return groupOwner + strconv.Itoa(group)
}

// GroupNumber gives the number of the group that an owner is, or 0.
func GroupNumber(owner string) int {
	n, err := strconv.Atoi(strings.TrimPrefix(owner, groupOwner))
	if err != nil || GroupOwner(n) != owner {
		return 0
	}
	return n
}

// Actor is who does or reads something: staff, or the participant with the ID
// in the group with that number, if it is not 0.
type Actor struct {
	Staff bool
	ID    string
	Group int
}

// Owner gives whose sheet a student works on where a frame is shared like
// this; empty for a student without a group where groups share it.
func (a Actor) Owner(shared lesson.Arrangement) string {
	switch shared {
	case lesson.WholeClass:
		return ClassOwner
	case lesson.Groups:
		return GroupOwner(a.Group)
	}
	return a.ID
}

// author is how an actor is written on marks and changes.
func (a Actor) author() string {
	if a.Staff {
		return lesson.Staff
	}
	return a.ID
}

// MayRead says whether the actor may read the sheet of an owner at all.
func (a Actor) MayRead(owner string) bool {
	return a.Staff || owner == ClassOwner || owner != "" && (owner == a.ID || owner == GroupOwner(a.Group))
}

// Sheet is the state of one sheet. It is not safe for concurrent use.
type Sheet struct {
	Owner  string
	Seq    int64
	marks  map[string]lesson.Element
	done   map[string]done
	top    int64
	bottom int64
	// there counts the marks that are not removed, by author and in all: what
	// was removed makes room.
	there   int
	points  int // of ink, with the removed strokes
	amounts map[string]int
}

// done remembers an operation that was taken, so that the same one does nothing twice.
type done struct {
	seq int64
	by  string
}

// New gives an empty sheet of an owner.
func New(owner string) *Sheet {
	return &Sheet{Owner: owner, marks: map[string]lesson.Element{}, done: map[string]done{}, amounts: map[string]int{}}
}

// Change is what an operation changed: the new state of each mark it touched.
type Change struct {
	Seq int64 `json:"seq"`
	// Op is the id of the operation, By its author, At its time in
	// milliseconds since 1970. All three are empty in a change that the
	// reader may not see.
	Op string `json:"op,omitempty"`
	By string `json:"by,omitempty"`
	At int64  `json:"at,omitempty"`
	// Put gives marks as they are now, Gone the ids of marks that have left
	// the class's sight.
	Put  []lesson.Element `json:"put,omitempty"`
	Gone []string         `json:"gone,omitempty"`
}

// Take brings a change into the sheet. It must be the next in order.
func (s *Sheet) Take(c Change) {
	s.Seq = c.Seq
	s.done[c.Op] = done{c.Seq, c.By}
	for _, e := range c.Put {
		s.Load(e)
	}
}

// Load puts a stored mark on a sheet that is read back.
func (s *Sheet) Load(e lesson.Element) {
	old, was := s.marks[e.ID]
	if was {
		s.points -= pointsOf(old)
	}
	if was && old.OnFrame() {
		s.there--
		s.amounts[old.Author]--
	}
	s.points += pointsOf(e)
	if e.OnFrame() {
		s.there++
		s.amounts[e.Author]++
	}
	s.marks[e.ID] = e
	s.top, s.bottom = max(s.top, e.Z), min(s.bottom, e.Z)
}

// LoadDone marks an operation as taken on a sheet that is read back.
func (s *Sheet) LoadDone(op string, seq int64, by string) { s.done[op] = done{seq, by} }

// Marks lists all marks from the lowest to the highest, with the hidden and
// the removed ones.
func (s *Sheet) Marks() []lesson.Element {
	return slices.SortedFunc(maps.Values(s.marks), func(a, b lesson.Element) int {
		return cmp.Or(cmp.Compare(a.Z, b.Z), cmp.Compare(a.ID, b.ID))
	})
}

// MarksFor lists the marks that the actor may see, from the lowest to the highest.
func (s *Sheet) MarksFor(a Actor) []lesson.Element {
	all := s.Marks()
	if a.Staff {
		return all
	}
	return slices.DeleteFunc(all, func(e lesson.Element) bool { return !e.ClassSees() })
}

// MarkFor gives a mark that is there, if the actor may see it.
func (s *Sheet) MarkFor(a Actor, id string) (lesson.Element, error) {
	e, ok := s.marks[id]
	if !ok || !e.OnFrame() || e.Hidden && !a.Staff {
		return lesson.Element{}, refusal.New(refusal.NoSuchMark)
	}
	return e, nil
}

// Amount counts what an author has on the sheet.
func (s *Sheet) Amount(author string) int { return s.amounts[author] }

// View gives a change as the actor may see it. What they may not see is left
// out; the number stays, so that nobody's stream has holes.
func View(c Change, a Actor) Change {
	if a.Staff {
		c.Gone = nil
		return c
	}
	seen := Change{Seq: c.Seq, Op: c.Op, By: c.By, At: c.At, Gone: c.Gone}
	for _, e := range c.Put {
		if e.ClassSees() {
			seen.Put = append(seen.Put, e)
		}
	}
	if len(seen.Put) == 0 && len(seen.Gone) == 0 && c.By != a.ID {
		return Change{Seq: c.Seq}
	}
	return seen
}

// History gives past changes as the actor may see them now. What has been
// hidden or removed since is left out of the changes before that, too.
func (s *Sheet) History(past []Change, a Actor) []Change {
	seen := make([]Change, len(past))
	for i, c := range past {
		if !a.Staff {
			c.Put = slices.DeleteFunc(slices.Clone(c.Put), func(e lesson.Element) bool { return !s.marks[e.ID].ClassSees() })
		}
		seen[i] = View(c, a)
	}
	return seen
}

// pointsOf counts the points of ink of a mark.
func pointsOf(e lesson.Element) int {
	if e.Stroke == nil {
		return 0
	}
	return len(e.Stroke.Points) / ink.Per
}

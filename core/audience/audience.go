// Package audience knows who may see what. Its table is docs/audiences.md. Every
// path out of the house asks it: news, filling up, opening, passing things,
// pictures, what a front screen shows, what is exported for a class.
package audience

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
)

// Audience is a group of people who see the same.
type Audience struct {
	staff bool
	id    string
	group int
	front *[]string // whose sheets the front screen shows
	walk  []string  // whose sheets every student may look at besides their own
}

// Staff sees everything.
func Staff() Audience { return Audience{staff: true} }

// Class is every student alike, as far as all of them see the same.
func Class() Audience { return Audience{} }

// Group is the students of a group alike; groups are numbered from 1.
func Group(number int) Audience { return Audience{group: number} }

// Student is one student, in the group with that number if it is not 0.
func Student(id string, group int) Audience { return Audience{id: id, group: group} }

// Front is the front screen while it shows the sheets of some owners. Of them, and
// of all else, it sees what every student may see of a sheet of theirs.
func Front(owners []string) Audience { return Audience{front: &owners} }

// Of gives the audience that an actor is by themselves.
func Of(a sheet.Actor) Audience { return Audience{staff: a.Staff, id: a.ID, group: a.Group} }

// Walking gives the audience while the class walks along the sheets of some owners on a
// frame. Of these every student sees what all who share them see.
func (a Audience) Walking(owners []string) Audience {
	a.walk = owners
	return a
}

// Sharing gives the audience of all those who share the sheet of an owner.
func Sharing(owner string) Audience {
	if n := sheet.GroupNumber(owner); n > 0 {
		return Group(n)
	}
	if owner == sheet.ClassOwner {
		return Class()
	}
	return Student(owner, 0)
}

// Sheet reports whether the audience may see the sheet of an owner at all, on a
// frame that is open to students or not.
func (a Audience) Sheet(owner string, open bool) bool {
	if a.front != nil {
		return open && slices.Contains(*a.front, owner)
	}
	if open && slices.Contains(a.walk, owner) {
		return true
	}
	return a.staff || open && sheet.Actor{ID: a.id, Group: a.group}.Shares(owner)
}

// Frame gives a frame as the audience may see it while some covers are lifted:
// not at all when it is not open, and without lesson notes, objectives and what
// lies under covers.
func (a Audience) Frame(f lesson.Frame, open bool, lifted []string) (lesson.Frame, bool) {
	switch {
	case a.staff:
		return f, true
	case !open:
		return lesson.Frame{}, false
	}
	return f.ForClass(lifted), true
}

// Mark reports whether the audience may see a mark of a sheet that it may see. An answer
// is for who gave it, and for the staff.
func (a Audience) Mark(e lesson.Element) bool {
	if e.IsAnswer() && !a.staff && (a.id == "" || a.id != e.Author) {
		return false
	}
	switch e.Stands() {
	case lesson.Shown:
		return true
	case lesson.Held:
		return a.staff || a.id != "" && a.id == e.Author
	}
	return a.staff
}

// Marks lists the marks of a sheet that the audience may see, from the lowest
// to the highest.
func (a Audience) Marks(s *sheet.Sheet) []lesson.Element {
	return slices.DeleteFunc(s.Marks(), func(e lesson.Element) bool { return !a.Mark(e) })
}

// Past gives the marks of a sheet as they were at a time, as far as the audience may see
// them: what the class saw then, and what has been put away since is put away there, too.
func (a Audience) Past(then []lesson.Element, now *sheet.Sheet) []lesson.Element {
	seen := []lesson.Element{}
	for _, e := range then {
		m, there := now.Mark(e.ID)
		away := there && (m.Stands() == lesson.Hidden || m.Stands() == lesson.Held ||
			m.Stands() == lesson.Removed && m.Standing.By != m.Author)
		if e.OnFrame() && (a.staff || a.Mark(e) && !away) {
			seen = append(seen, e)
		}
	}
	return seen
}

// Change gives a change, which the sheet has taken, as the audience may see it.
// What they may not see is left out; the number stays, so that nobody's stream
// has holes. A mark that comes into their sight comes whole.
func (a Audience) Change(s *sheet.Sheet, c sheet.Change) sheet.Change {
	gone, dropped, come := c.Gone, c.Dropped, c.Come
	c.Gone, c.Dropped, c.Come = nil, nil, nil
	if a.staff {
		return c
	}
	seen := sheet.Change{Seq: c.Seq, Op: c.Op, By: c.By, At: c.At}
	for _, e := range c.Put {
		switch {
		case !a.Mark(e):
			if slices.Contains(gone, e.ID) || a.id == e.Author && slices.Contains(dropped, e.ID) {
				seen.Gone = append(seen.Gone, e.ID)
			}
		case slices.Contains(come, e.ID):
			if now, ok := s.Mark(e.ID); ok && now.Stroke != nil && e.Stroke != nil {
				stroke := *e.Stroke
				stroke.Points = now.Stroke.Points
				e.Stroke = &stroke
			}
			seen.Put = append(seen.Put, e)
		default:
			seen.Put = append(seen.Put, e)
		}
	}
	if len(seen.Put) == 0 && len(seen.Gone) == 0 && (a.id == "" || c.By != a.id) {
		return sheet.Change{Seq: c.Seq}
	}
	return seen
}

// Held lists the authors of those marks of a change that wait for the staff's yes, or
// waited and were refused. They see more of it than the others who share the sheet.
func Held(c sheet.Change) []string {
	var authors []string
	for _, e := range c.Put {
		if (e.Stands() == lesson.Held || slices.Contains(c.Dropped, e.ID)) && !slices.Contains(authors, e.Author) {
			authors = append(authors, e.Author)
		}
	}
	return authors
}

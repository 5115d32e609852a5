// Package sheet knows what may be changed on a sheet, by whom, what changes,
// and how it is undone.
//
// A sheet is one copy of a frame that somebody works on: the class's, a
// group's or one student's. Its history is a list of changes numbered without
// holes; taking them one after the other from empty gives the sheet. A Draft
// decides what an operation would change, and leaves the sheet as it is.
package sheet

import (
	"cmp"
	"maps"
	"slices"

	"alpenglow/core/ink"
	"alpenglow/core/lesson"
)

// MaxMarks is how many marks may be on one sheet, MaxPoints how many points of
// ink they may have.
const (
	MaxMarks  = 2000
	MaxPoints = 400_000
)

// MaxRemoved is how many removed marks a sheet keeps. They can be restored as long as they are among the last that were
// removed: all of a full sheet, and as many again. Older ones are in the log alone.
const (
	MaxRemoved       = 2 * MaxMarks
	maxRemovedPoints = MaxPoints
)

// MaxDone is how many operations a sheet remembers, so that the same one does
// nothing twice; MaxLoaded how many it remembers when it was just read. Older ones
// are in the log, which never takes one twice.
const (
	MaxDone   = 20_000
	MaxLoaded = 1000
)

// Sheet is the state of one sheet. It is not safe for concurrent use.
type Sheet struct {
	Owner string
	Seq   int64
	marks map[string]held
	there tally            // of what is on the frame; what was removed makes room
	by    map[string]tally // the same, by author
	top   int64
	under int64 // the lowest height
	lost  int64 // up to where removed marks are forgotten
	done  map[string]done
	order []string // the operations in done, the oldest first

	removed   []removal           // the oldest first; some have been restored since
	removedIn map[string][]string // marks by the operation that removed them
	gone      tally               // of what is removed
}

// held is a mark and the number of the change that changed it last.
type held struct {
	lesson.Element
	seq int64
}

// removal says that a mark was removed in a change.
type removal struct {
	mark string
	seq  int64
}

// done remembers an operation that was taken.
type done struct {
	seq int64
	by  string
}

// tally counts marks and their points of ink.
type tally struct{ marks, points int }

func (t tally) plus(o tally) tally  { return tally{t.marks + o.marks, t.points + o.points} }
func (t tally) minus(o tally) tally { return tally{t.marks - o.marks, t.points - o.points} }

// of counts one mark.
func of(e lesson.Element) tally { return tally{1, pointsOf(e)} }

// onFrame counts a mark if it is on the frame.
func onFrame(e lesson.Element) tally {
	if e.OnFrame() {
		return of(e)
	}
	return tally{}
}

// New gives an empty sheet of an owner.
func New(owner string) *Sheet {
	return &Sheet{Owner: owner, marks: map[string]held{}, by: map[string]tally{}, done: map[string]done{},
		removedIn: map[string][]string{}}
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
	// Put gives marks as they are now. A stroke whose points did not change
	// comes without them.
	Put []lesson.Element `json:"put,omitempty"`
	// Gone lists the marks that have left the class's sight; Dropped those that
	// were held and that their authors see no more either; Come those that are
	// seen again by some who did not see them.
	Gone    []string `json:"gone,omitempty"`
	Dropped []string `json:"dropped,omitempty"`
	Come    []string `json:"come,omitempty"`
}

// Take brings a change into the sheet. One that it has taken before does nothing.
func (s *Sheet) Take(c Change) {
	if c.Seq <= s.Seq {
		return
	}
	s.Seq = c.Seq
	s.LoadDone(c.Op, c.Seq, c.By)
	for _, e := range c.Put {
		s.Load(e, c.Seq)
	}
	s.forget()
}

// Load puts a stored mark on a sheet that is read back, with the number of the
// change that changed it last. Marks are loaded in the order of these numbers.
func (s *Sheet) Load(e lesson.Element, seq int64) {
	old, was := s.marks[e.ID]
	if was {
		e = whole(e, old.Element)
		s.uncount(old.Element)
	}
	s.marks[e.ID] = held{e, seq}
	if e.OnFrame() {
		s.there, s.by[e.Author] = s.there.plus(of(e)), s.by[e.Author].plus(of(e))
	} else {
		s.gone = s.gone.plus(of(e))
		s.removed = append(s.removed, removal{e.ID, seq})
		s.removedIn[e.Standing.In] = append(s.removedIn[e.Standing.In], e.ID)
	}
	s.top, s.under = max(s.top, e.Z), min(s.under, e.Z)
}

func (s *Sheet) uncount(e lesson.Element) {
	if e.OnFrame() {
		s.there, s.by[e.Author] = s.there.minus(of(e)), s.by[e.Author].minus(of(e))
		return
	}
	s.gone = s.gone.minus(of(e))
	in := slices.DeleteFunc(s.removedIn[e.Standing.In], func(id string) bool { return id == e.ID })
	if s.removedIn[e.Standing.In] = in; len(in) == 0 {
		delete(s.removedIn, e.Standing.In)
	}
}

// LoadDone marks an operation as taken on a sheet that is read back, the oldest first.
func (s *Sheet) LoadDone(op string, seq int64, by string) {
	s.done[op] = done{seq, by}
	s.order = append(s.order, op)
	for len(s.order) > MaxDone {
		delete(s.done, s.order[0])
		s.order = s.order[1:]
	}
}

// Lose notes that marks which were removed up to a number are not known any more.
func (s *Sheet) Lose(seq int64) { s.lost = max(s.lost, seq) }

// forget drops those marks that were removed long ago.
func (s *Sheet) forget() {
	for len(s.removed) > 0 && (s.gone.marks > MaxRemoved || s.gone.points > maxRemovedPoints ||
		len(s.removed) > 4*MaxRemoved) {
		oldest := s.removed[0]
		s.removed = s.removed[1:]
		if m, ok := s.marks[oldest.mark]; ok && !m.OnFrame() && m.seq == oldest.seq {
			s.Lose(oldest.seq)
			s.uncount(m.Element)
			delete(s.marks, oldest.mark)
		}
	}
}

// whole gives a mark from a change with the points that it had before.
func whole(e, before lesson.Element) lesson.Element {
	if e.Stroke != nil && len(e.Stroke.Points) == 0 && before.Stroke != nil {
		stroke := *e.Stroke
		stroke.Points = before.Stroke.Points
		e.Stroke = &stroke
	}
	return e
}

// Marks lists all marks from the lowest to the highest, with the hidden and
// the removed ones.
func (s *Sheet) Marks() []lesson.Element {
	all := make([]lesson.Element, 0, len(s.marks))
	for m := range maps.Values(s.marks) {
		all = append(all, m.Element)
	}
	slices.SortFunc(all, lowest)
	return all
}

func lowest(a, b lesson.Element) int { return cmp.Or(cmp.Compare(a.Z, b.Z), cmp.Compare(a.ID, b.ID)) }

// Mark gives a mark by its id, also a hidden or removed one.
func (s *Sheet) Mark(id string) (lesson.Element, bool) {
	m, ok := s.marks[id]
	return m.Element, ok
}

// Amount counts what an author has on the sheet.
func (s *Sheet) Amount(author string) int { return s.by[author].marks }

// Points counts the points of ink that the sheet holds in memory.
func (s *Sheet) Points() int { return s.there.points + s.gone.points }

// pointsOf counts the points of ink of a mark.
func pointsOf(e lesson.Element) int {
	if e.Stroke == nil {
		return 0
	}
	return len(e.Stroke.Points) / ink.Per
}

package sheet

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// How much of a sheet that others share one student may take, and how much ink
// on one of their own.
const (
	shareMarks  = MaxMarks / 4
	sharePoints = MaxPoints / 4
	ownPoints   = MaxPoints / 2
)

// mayWork checks what holds for the sheet as a whole. A sheet need not be the
// one that is in use: what somebody did without network before the arrangement
// was changed is kept, and still theirs alone to change.
func (d *Draft) mayWork(t Terms, a Actor, r right) error {
	switch {
	case t.Preparing && r.inClass:
		return refusal.New(refusal.UnknownOp)
	case t.Ended:
		return refusal.New(refusal.Ended)
	case a.Staff && r.students:
		return refusal.New(refusal.NotYours)
	case a.Staff:
		return nil
	case t.Home.Over(a.ID, t.Now):
		return refusal.New(refusal.HomeworkOver)
	case !t.Open || !a.Shares(d.sheet.Owner) && !d.visited(t):
		return refusal.New(refusal.NoSuchSheet)
	case !a.Shares(d.sheet.Owner) && !r.visiting:
		return refusal.New(refusal.NotYours)
	case !a.Shares(d.sheet.Owner) && slices.Contains(t.LockedOut, a.ID):
		return refusal.New(refusal.Locked)
	case !a.Shares(d.sheet.Owner):
		return nil // what they may do there is theirs alone; whose sheet it is keeps to what holds for it
	case r.staff:
		return refusal.New(refusal.NotYours)
	case r.looking:
		return nil
	case d.atBoard(t, a):
		return nil
	case t.Locked || slices.Contains(t.LockedOut, a.ID):
		return refusal.New(refusal.Locked)
	case t.Frame.Permission == lesson.Look:
		return refusal.New(refusal.LookOnly)
	}
	return nil
}

// visited reports whether every student may say something about what is on the sheet.
func (d *Draft) visited(t Terms) bool { return slices.Contains(t.Visited, d.sheet.Owner) }

// find gives a mark that the actor may know of.
func (e *edit) find(id string) (lesson.Element, error) {
	m, ok := e.mark(id)
	switch stands := m.Stands(); {
	case !ok:
		return m, refusal.New(refusal.NoSuchMark)
	case !e.actor.Staff && stands == lesson.Hidden && m.Author == e.actor.ID:
		return m, refusal.New(refusal.PutAway)
	case !e.actor.Staff && (stands == lesson.Hidden || stands == lesson.Held && m.Author != e.actor.ID):
		return m, refusal.New(refusal.NoSuchMark)
	case e.op.Back && e.op.Kind != KindAgree && m.LastBy() != e.actor.author():
		return m, refusal.New(refusal.ChangedSince)
	}
	return m, nil
}

// mayChange gives a mark that is there and that the actor may change.
func (e *edit) mayChange(id string) (lesson.Element, error) {
	m, err := e.find(id)
	switch {
	case err != nil:
		return m, err
	case !m.OnFrame():
		return m, refusal.New(refusal.NoSuchMark)
	case m.IsAnswer(), !e.actor.Staff && m.Author != e.actor.ID && (m.Remark != nil || !e.actor.Shares(e.sheet.Owner)):
		return m, refusal.New(refusal.NotYours)
	case original(m):
		// A piece that lies under a cover is not there for students, wherever it was put.
		if _, ok := e.piece(m.ID); !ok {
			return m, refusal.New(refusal.NoSuchMark)
		}
		return m, nil
	case e.owns(m):
		return m, nil
	}
	return m, refusal.New(refusal.NotYours)
}

// owns says whether the actor may change a mark that they may know of.
func (e *edit) owns(m lesson.Element) bool {
	return e.actor.Staff || m.Author == e.actor.ID || e.terms.Frame.Permission == lesson.BuildTogether ||
		e.atBoard(e.terms, e.actor)
}

// atBoard says whether the actor is at the board, and this is it.
func (d *Draft) atBoard(t Terms, a Actor) bool {
	return t.AtBoard != "" && t.AtBoard == a.ID && d.sheet.Owner == ClassOwner
}

// vacant refuses an id that something has: on the sheet, also removed; on the
// frame as it was prepared; anywhere on the board.
func (e *edit) vacant(id string) error {
	_, there := e.mark(id)
	if there || e.terms.Taken[id] || e.prepared(id) {
		return refusal.New(refusal.MarkExists)
	}
	return nil
}

func (e *edit) prepared(id string) bool {
	for _, m := range e.terms.Frame.Prepared {
		if m.ID == id {
			return true
		}
	}
	return false
}

// room refuses what would make the sheet fuller than it may be, or give its
// author more than a share of it.
func (e *edit) room(m lesson.Element, more tally) error {
	if more.marks > 0 && e.count.marks+more.marks > MaxMarks {
		return refusal.About(refusal.SheetFull, "%d marks", MaxMarks)
	}
	if more.points > 0 && e.count.points+more.points > MaxPoints {
		return refusal.About(refusal.SheetFull, "%d points of ink", MaxPoints)
	}
	if e.actor.Staff {
		return nil
	}
	share := tally{shareMarks, sharePoints}
	if e.sheet.Owner == m.Author {
		share = tally{MaxMarks, ownPoints}
	}
	has := e.amount(m.Author).plus(e.added[m.Author])
	if more.marks > 0 && has.marks+more.marks > share.marks || more.points > 0 &&
		has.points+more.points > share.points {
		return refusal.New(refusal.ShareFull)
	}
	return nil
}

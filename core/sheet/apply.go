package sheet

import (
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// Rules are what holds on a sheet's frame at the moment of an operation.
type Rules struct {
	Frame lesson.Frame
	// Reached says that the class has been on this frame.
	Reached bool
	Ended   bool
	Polls   map[string]poll.Phase
	// Now is the time in milliseconds since 1970.
	Now int64
}

// Result is what became of an operation.
type Result struct {
	Change Change
	// Undo is the operation that takes this one back, without an id.
	Undo Op
	// Again says that the operation had been taken before: nothing changed,
	// and Change carries no more than its number.
	Again bool
}

// Apply lets the actor do an operation on the sheet. It checks permission and
// limits; a refused operation changes nothing.
func (s *Sheet) Apply(r Rules, a Actor, op Op) (Result, error) {
	if d, ok := s.done[op.ID]; ok {
		if d.by != a.author() {
			return Result{}, refusal.New(refusal.NotYours)
		}
		return Result{Change: Change{Seq: d.seq}, Again: true}, nil
	}
	if err := s.mayWork(r, a, op.Kind); err != nil {
		return Result{}, err
	}
	put, undo, err := s.decide(r, a, op)
	if err != nil {
		return Result{}, err
	}
	before, existed := s.marks[put.ID]
	change := Change{Seq: s.Seq + 1, Op: op.ID, By: a.author(), At: r.Now, Put: []lesson.Element{put}}
	if existed && before.ClassSees() && !put.ClassSees() {
		change.Gone = []string{put.ID}
	}
	undo.Sheet = op.Sheet
	s.Take(change)
	return Result{Change: change, Undo: undo}, nil
}

// mayWork checks what holds for the sheet as a whole.
func (s *Sheet) mayWork(r Rules, a Actor, kind Kind) error {
	switch {
	case r.Ended:
		return refusal.New(refusal.Ended)
	case a.Staff && kind == KindAnswer:
		return refusal.New(refusal.NotYours)
	case a.Staff:
		return nil
	case !a.MayRead(s.Owner) || !r.Reached:
		return refusal.New(refusal.NoSuchSheet)
	case kind == KindHide || kind == KindShow:
		return refusal.New(refusal.NotYours)
	case kind == KindAnswer:
		// Answers lie on the student's own sheet, whoever shares the frame.
		if s.Owner != a.ID {
			return refusal.New(refusal.NoSuchSheet)
		}
		return nil
	case (s.Owner == ClassOwner) != (r.Frame.Arrangement == lesson.WholeClass):
		return refusal.New(refusal.NoSuchSheet)
	case r.Frame.Permission == lesson.Look:
		return refusal.New(refusal.LookOnly)
	}
	return nil
}

// decide returns the new state of the mark that the operation touches, and
// the operation that would take it back.
func (s *Sheet) decide(r Rules, a Actor, op Op) (lesson.Element, Op, error) {
	switch op.Kind {
	case KindAdd:
		return s.add(r, a, *op.Add)
	case KindSet:
		return s.set(r, a, *op.Set)
	case KindRemove:
		e, err := s.mayChange(r, a, op.Remove.Mark)
		e.RemovedBy = a.author()
		return e, Op{Kind: KindRestore, Restore: op.Remove}, err
	case KindRestore:
		return s.restore(r, a, op.Restore)
	case KindHide, KindShow:
		target := op.Hide
		if op.Kind == KindShow {
			target = op.Show
		}
		e, err := s.find(target.Mark, a)
		if err == nil && (!e.OnFrame() || e.Kind == lesson.KindAnswer) {
			err = refusal.New(refusal.NoSuchMark)
		}
		undo := Op{Kind: KindShow, Show: target}
		if e.Hidden {
			undo = Op{Kind: KindHide, Hide: target}
		}
		e.Hidden = op.Kind == KindHide
		return e, undo, err
	case KindAnswer:
		return s.answer(r, a, *op.Answer)
	}
	return lesson.Element{}, Op{}, refusal.New(refusal.UnknownOp)
}

func (s *Sheet) add(r Rules, a Actor, add Add) (lesson.Element, Op, error) {
	switch add.Kind {
	case lesson.KindNote, lesson.KindText, lesson.KindStroke:
	default:
		return lesson.Element{}, Op{}, refusal.About(refusal.Malformed, "this kind of mark cannot be added in class")
	}
	if _, ok := s.marks[add.Mark]; ok {
		return lesson.Element{}, Op{}, refusal.New(refusal.MarkExists)
	}
	if s.there >= MaxMarks {
		return lesson.Element{}, Op{}, refusal.About(refusal.SheetFull, "%d marks", MaxMarks)
	}
	e := lesson.Element{ID: add.Mark, Author: a.author(), Z: s.top + 1, At: r.Now, X: add.X, Y: add.Y, W: add.W, H: add.H, Body: add.Body}
	if err := e.Check(); err != nil {
		return lesson.Element{}, Op{}, err
	}
	return e, Op{Kind: KindRemove, Remove: &Target{Mark: e.ID}}, nil
}

func (s *Sheet) set(r Rules, a Actor, set Set) (lesson.Element, Op, error) {
	e, err := s.mayChange(r, a, set.Mark)
	if err != nil {
		return e, Op{}, err
	}
	back, err := set.onto(&e)
	if err != nil {
		return e, Op{}, err
	}
	return e, Op{Kind: KindSet, Set: &back}, e.Check()
}

func (s *Sheet) restore(r Rules, a Actor, t *Target) (lesson.Element, Op, error) {
	e, err := s.find(t.Mark, a)
	switch {
	case err != nil:
	case e.OnFrame():
		err = refusal.New(refusal.MarkExists)
	case !a.Staff && e.RemovedBy != a.ID:
		err = refusal.New(refusal.NoSuchMark)
	case s.there >= MaxMarks:
		err = refusal.About(refusal.SheetFull, "%d marks", MaxMarks)
	}
	e.RemovedBy = ""
	return e, Op{Kind: KindRemove, Remove: t}, err
}

// mayChange gives a mark that is there and that the actor may change.
func (s *Sheet) mayChange(r Rules, a Actor, id string) (lesson.Element, error) {
	e, err := s.find(id, a)
	switch {
	case err != nil:
		return e, err
	case !e.OnFrame():
		return e, refusal.New(refusal.NoSuchMark)
	case e.Kind == lesson.KindAnswer:
		return e, refusal.New(refusal.NotYours)
	case a.Staff || e.Author == a.ID || r.Frame.Permission == lesson.BuildTogether:
		return e, nil
	}
	return e, refusal.New(refusal.NotYours)
}

// answer keeps one mark for each poll on the student's own sheet, with the
// poll's id as its own.
func (s *Sheet) answer(r Rules, a Actor, set SetAnswer) (lesson.Element, Op, error) {
	question, err := r.Frame.Poll(set.Poll)
	if err != nil {
		return lesson.Element{}, Op{}, err
	}
	if r.Polls[set.Poll] != poll.Open {
		return lesson.Element{}, Op{}, refusal.New(refusal.PollClosed)
	}
	e, answered := s.marks[set.Poll]
	back := SetAnswer{Poll: set.Poll}
	if answered && e.OnFrame() {
		back.Choice = e.Answer.Choice
	}
	undo := Op{Kind: KindAnswer, Answer: &back}
	if set.Choice == "" {
		if !answered {
			return e, Op{}, refusal.New(refusal.NoSuchMark)
		}
		e.RemovedBy = a.author()
		return e, undo, nil
	}
	if _, err := question.Poll.Choice(set.Choice); err != nil {
		return e, Op{}, err
	}
	if !answered {
		e = lesson.Element{ID: set.Poll, Author: a.author(), Z: s.top + 1, At: r.Now}
	}
	e.RemovedBy = ""
	e.Body = lesson.Body{Kind: lesson.KindAnswer, Answer: &lesson.Answer{Poll: set.Poll, Choice: set.Choice}}
	return e, undo, nil
}

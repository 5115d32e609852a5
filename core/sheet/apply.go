package sheet

import (
	"slices"

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
	// Lifted lists the covers that are lifted; what lies under the others is
	// not there for students.
	Lifted []string
	// Preparing says that the marks of the frame itself are the sheet's: a
	// board is prepared.
	Preparing bool
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
	e := edit{sheet: s, rules: r, actor: a, op: op, there: s.there, points: s.points, top: s.top}
	if err := e.do(op.Step); err != nil {
		return Result{}, err
	}
	change := Change{Seq: s.Seq + 1, Op: op.ID, By: a.author(), At: r.Now}
	for _, put := range e.marks() {
		change.Put = append(change.Put, put)
		if before, was := s.marks[put.ID]; was && before.ClassSees() && !put.ClassSees() {
			change.Gone = append(change.Gone, put.ID)
		}
	}
	s.Take(change)
	return Result{Change: change, Undo: Op{Sheet: op.Sheet, Back: true, Step: e.undo()}}, nil
}

// mayWork checks what holds for the sheet as a whole. A sheet need not be the
// one that is in use: what somebody did without network before the arrangement
// was changed is kept, and still theirs alone to change.
func (s *Sheet) mayWork(r Rules, a Actor, kind Kind) error {
	switch {
	case r.Preparing && (kind == KindAgree || kind == KindHide || kind == KindShow || kind == KindAnswer):
		return refusal.New(refusal.UnknownOp)
	case r.Ended:
		return refusal.New(refusal.Ended)
	case a.Staff && kind == KindAnswer:
		return refusal.New(refusal.NotYours)
	case a.Staff:
		return nil
	case !a.MayRead(s.Owner) || !r.Reached:
		return refusal.New(refusal.NoSuchSheet)
	case kind == KindHide || kind == KindShow || kind == KindClear:
		return refusal.New(refusal.NotYours)
	case kind == KindAnswer:
		// Answers lie on the student's own sheet, whoever shares the frame.
		if s.Owner != a.ID {
			return refusal.New(refusal.NoSuchSheet)
		}
		return nil
	case r.Frame.Permission == lesson.Look:
		return refusal.New(refusal.LookOnly)
	}
	return nil
}

// edit is an operation in the making. The marks that it has touched so far lie
// over those of the sheet, which stays untouched until all is decided.
type edit struct {
	sheet  *Sheet
	rules  Rules
	actor  Actor
	op     Op
	over   map[string]lesson.Element
	order  []string // the marks in over, as they were first touched
	back   []Step   // what takes each step back, in the order of the steps
	there  int      // marks on the frame after the steps so far
	points int      // points of ink that the sheet then has
	top    int64
}

// marks lists the marks that were touched, as they are now.
func (e *edit) marks() []lesson.Element {
	marks := make([]lesson.Element, len(e.order))
	for i, id := range e.order {
		marks[i] = e.over[id]
	}
	return marks
}

// undo is the step that takes all of them back.
func (e *edit) undo() Step {
	if len(e.back) == 1 {
		return e.back[0]
	}
	slices.Reverse(e.back)
	return Step{Kind: KindMany, Many: &Many{Steps: e.back}}
}

// mark gives a mark as it is after the steps so far.
func (e *edit) mark(id string) (lesson.Element, bool) {
	if m, ok := e.over[id]; ok {
		return m, true
	}
	m, ok := e.sheet.marks[id]
	return m, ok
}

// put lays down a mark and notes what takes this back.
func (e *edit) put(m lesson.Element, back Step) {
	e.lay(m)
	e.back = append(e.back, back)
}

func (e *edit) lay(m lesson.Element) {
	if e.over == nil {
		e.over = map[string]lesson.Element{}
	}
	if before, was := e.mark(m.ID); was {
		e.there -= one(before.OnFrame())
	} else {
		e.points += pointsOf(m)
	}
	e.there += one(m.OnFrame())
	if _, touched := e.over[m.ID]; !touched {
		e.order = append(e.order, m.ID)
	}
	e.over[m.ID] = m
	e.top = max(e.top, m.Z)
}

func one(yes bool) int {
	if yes {
		return 1
	}
	return 0
}

// do does one step, or the many steps of one.
func (e *edit) do(s Step) error {
	switch s.Kind {
	case KindAdd:
		return e.add(*s.Add)
	case KindSet:
		return e.set(*s.Set)
	case KindRemove:
		m, err := e.mayChange(s.Remove.Mark)
		if err == nil {
			e.remove(m)
		}
		return err
	case KindRestore:
		return e.restore(*s.Restore)
	case KindErase:
		return e.erase(*s.Erase)
	case KindAgree:
		return e.agree(*s.Agree)
	case KindMany:
		for _, step := range s.Many.Steps {
			if err := e.do(step); err != nil {
				return err
			}
		}
		return nil
	case KindHide:
		return e.hide(*s.Hide, true)
	case KindShow:
		return e.hide(*s.Show, false)
	case KindClear:
		return e.clear(*s.Clear)
	case KindAnswer:
		return e.answer(*s.Answer)
	}
	return refusal.New(refusal.UnknownOp)
}

// room refuses what would make the sheet fuller than it may be.
func (e *edit) room(marks, points int) error {
	switch {
	case e.there+marks > MaxMarks:
		return refusal.About(refusal.SheetFull, "%d marks", MaxMarks)
	case points > 0 && e.points+points > maxPoints:
		return refusal.About(refusal.SheetFull, "%d points of ink", maxPoints)
	case marks > 0 && len(e.sheet.marks)+len(e.over) >= maxKept:
		return refusal.About(refusal.SheetFull, "%d marks with those removed", maxKept)
	}
	return nil
}

func (e *edit) add(add Add) error {
	if err := e.mayAdd(&add); err != nil {
		return err
	}
	if _, ok := e.mark(add.Mark); ok {
		return refusal.New(refusal.MarkExists)
	}
	m := lesson.Element{ID: add.Mark, Author: e.actor.author(), Z: e.top + 1, At: e.rules.Now,
		X: add.X, Y: add.Y, W: add.W, H: add.H, Turn: add.Turn, Group: add.Group, Layer: add.Layer, Tray: add.Tray, Body: add.Body}
	if err := m.Fit(); err != nil {
		return err
	}
	if err := m.Check(); err != nil {
		return err
	}
	if err := e.room(1, pointsOf(m)); err != nil {
		return err
	}
	if add.Free {
		e.sheet.free(e.rules.Frame, &m)
	}
	e.put(m, Step{Kind: KindRemove, Remove: &Target{Mark: m.ID}})
	return nil
}

// mayAdd refuses kinds of marks that cannot be added here, and gives copies of
// pieces the size that these have.
func (e *edit) mayAdd(add *Add) error {
	switch add.Kind {
	case lesson.KindNote, lesson.KindText, lesson.KindStroke, lesson.KindShape, lesson.KindConnector, lesson.KindStamp,
		lesson.KindPicture, lesson.KindLink:
	case lesson.KindTable, lesson.KindPoll, lesson.KindCover:
		if !e.rules.Preparing {
			return refusal.About(refusal.Malformed, "this kind of mark cannot be added in class")
		}
	case lesson.KindPlaced:
		return e.copyOf(add)
	default:
		return refusal.About(refusal.Malformed, "this kind of mark cannot be added")
	}
	if !e.rules.Preparing && (add.Layer != lesson.Fixed || add.Tray) {
		return refusal.About(refusal.Malformed, "pieces are laid out when a board is prepared")
	}
	return nil
}

func (e *edit) set(set Set) error {
	if piece, ok := e.unmoved(set.Mark); ok {
		return e.move(piece, set)
	}
	m, err := e.mayChange(set.Mark)
	if err != nil {
		return err
	}
	if err := e.maySet(m, set); err != nil {
		return err
	}
	// Just above or below what is there, so that nobody can take the last height.
	if z := set.Z; z != nil && (*z > e.top+MaxSteps+1 || *z < e.sheet.bottom-MaxSteps-1) {
		return refusal.About(refusal.BadSize, "place in the stack")
	}
	before := pointsOf(m)
	back, err := set.onto(&m)
	if err == nil {
		err = m.Check()
	}
	if err == nil {
		err = e.room(0, pointsOf(m)-before)
	}
	if err != nil {
		return err
	}
	e.changed(&m)
	e.put(m, Step{Kind: KindSet, Set: &back})
	return nil
}

// changed notes who changed a mark last.
func (e *edit) changed(m *lesson.Element) {
	m.By = ""
	if by := e.actor.author(); by != m.Author {
		m.By = by
	}
}

// remove takes a mark off the frame. Connectors keep hold of it: until it is
// restored they lie where they were drawn.
func (e *edit) remove(m lesson.Element) {
	m.RemovedBy, m.RemovedIn = e.actor.author(), e.op.ID
	e.changed(&m)
	e.put(m, Step{Kind: KindRestore, Restore: &Restore{Mark: m.ID}})
}

func (e *edit) restore(r Restore) error {
	ids := []string{r.Mark}
	if r.In != "" {
		ids = nil
		for _, m := range e.sheet.Marks() {
			if m.RemovedIn == r.In && !m.OnFrame() {
				ids = append(ids, m.ID)
			}
		}
		if len(ids) == 0 {
			return refusal.New(refusal.NoSuchMark)
		}
	}
	for _, id := range ids {
		m, err := e.find(id)
		switch {
		case err != nil:
		case m.Kind == lesson.KindAnswer:
			err = refusal.New(refusal.NotYours)
		case m.OnFrame():
			err = refusal.New(refusal.MarkExists)
		case !e.actor.Staff && m.RemovedBy != e.actor.ID:
			err = refusal.New(refusal.NoSuchMark)
		default:
			err = e.room(1, 0)
		}
		if err != nil {
			return err
		}
		m.RemovedBy, m.RemovedIn = "", ""
		e.changed(&m)
		e.put(m, Step{Kind: KindRemove, Remove: &Target{Mark: m.ID}})
	}
	return nil
}

// find gives a mark that the actor may know of.
func (e *edit) find(id string) (lesson.Element, error) {
	m, ok := e.mark(id)
	switch {
	case !ok:
		return m, refusal.New(refusal.NoSuchMark)
	case !e.actor.Staff && m.Hidden && m.Author == e.actor.ID:
		return m, refusal.New(refusal.PutAway)
	case !e.actor.Staff && m.Hidden:
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
	case m.Kind == lesson.KindAnswer:
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
	return e.actor.Staff || m.Author == e.actor.ID || e.rules.Frame.Permission == lesson.BuildTogether
}

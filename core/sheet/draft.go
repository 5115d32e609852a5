package sheet

import (
	"slices"

	"alpenglow/core/homework"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/words"
)

// Terms are what holds on a sheet's frame at the moment of an operation.
type Terms struct {
	Frame lesson.Frame
	// Open says that the frame is open to students.
	Open  bool
	Ended bool
	// Locked says that students may only look now, whatever the frame allows;
	// LockedOut lists those who alone may.
	Locked    bool
	LockedOut []string
	// Hold says that what students write waits for the teacher's yes before others
	// see it, HeldOf of whom alone; Watch of which words it waits wherever it is.
	Hold   bool
	HeldOf []string
	Watch  words.Watch
	// Visited lists whose sheets of the frame every student may say something about.
	Visited []string
	// AtBoard is the student who may do everything on the class's sheet, in spite of that.
	AtBoard string
	Polls   map[string]poll.State
	// Lifted lists the covers that are lifted; what lies under the others is
	// not there for students.
	Lifted []string
	// Taken has the ids of everything on the board, so that nothing new takes
	// one of them.
	Taken map[string]bool
	// Preparing says that the marks of the frame itself are the sheet's: a
	// board is prepared.
	Preparing bool
	// Sharing is how many people here share the sheet.
	Sharing int
	// Home is the homework that the lesson is, if it is one.
	Home *homework.Homework
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
	// Work is how much was looked at to decide, also for a refused operation;
	// Bytes about how much it wrote.
	Work, Bytes int
}

// Charge is how much of a student's rate an operation takes, where a change is
// told to so many readers: 1, and more for what took long to decide, is long,
// or goes to many.
func (r Result) Charge(readers int) int {
	return 1 + r.Work/workPerCharge + r.Bytes/bytesPerCharge + r.Bytes*readers/toldPerCharge
}

// What one operation may take of everybody's time, and what of it is as much as
// one operation of a student's rate. A unit of work is about as long as looking
// whether one line runs under one move of an eraser; 400,000 take some 20 ms.
const (
	maxWork        = 400_000
	workPerCharge  = 10_000
	bytesPerCharge = 8 << 10
	toldPerCharge  = 512 << 10
)

// Draft is a sheet with operations on top that are decided and not yet taken.
// The sheet stays as it is; take the changes once they are stored.
type Draft struct {
	sheet *Sheet
	seq   int64
	over  map[string]lesson.Element
	last  map[string]int64 // the number of the change that changed each of them last
	done  map[string]done
	there tally
	by    map[string]tally // what the operations added to the sheet's
	top   int64
}

// Draft begins one.
func (s *Sheet) Draft() *Draft {
	return &Draft{sheet: s, seq: s.Seq, over: map[string]lesson.Element{}, last: map[string]int64{},
		done: map[string]done{}, there: s.there, by: map[string]tally{}, top: s.top}
}

// Decide says what the actor's operation changes, after those decided before. It
// checks permission, limits and ids; a refused operation changes nothing.
func (d *Draft) Decide(t Terms, a Actor, op Op) (Result, error) {
	known, ok := d.done[op.ID]
	if !ok {
		known, ok = d.sheet.done[op.ID]
	}
	if ok {
		if known.by != a.author() {
			return Result{}, refusal.New(refusal.NotYours)
		}
		return Result{Change: Change{Seq: known.seq}, Again: true}, nil
	}
	deed, err := op.Step.deed()
	if err != nil {
		return Result{}, err
	}
	if err := d.mayWork(t, a, deed.right()); err != nil {
		return Result{}, err
	}
	e := edit{Draft: d, terms: t, actor: a, op: op, mine: map[string]lesson.Element{}, added: map[string]tally{},
		count: d.there, top: d.top, left: maxWork}
	if err := deed.do(&e); err != nil {
		return Result{Work: maxWork - e.left}, err
	}
	change := Change{Seq: d.seq + 1, Op: op.ID, By: a.author(), At: t.Now}
	result := Result{Undo: Op{Sheet: op.Sheet, Back: true, Step: e.undo()}, Work: maxWork - e.left}
	for _, id := range e.order {
		now := e.mine[id]
		before, was := d.mark(id)
		saw, sees := was && before.Stands() == lesson.Shown, now.Stands() == lesson.Shown
		knew, knows := saw || was && before.Stands() == lesson.Held, sees || now.Stands() == lesson.Held
		switch {
		case saw && !sees:
			change.Gone = append(change.Gone, id)
		case knew && !knows:
			change.Dropped = append(change.Dropped, id)
		case was && (!saw && sees || !knew && knows):
			change.Come = append(change.Come, id)
		}
		put := lean(now, before, was)
		change.Put = append(change.Put, put)
		result.Bytes += Size(put)
		if knows && !saw {
			result.Bytes += Size(now)
		}
	}
	e.settle(change)
	result.Change = change
	return result, nil
}

// lean leaves out the points of a stroke that has the same as before.
func lean(now, before lesson.Element, was bool) lesson.Element {
	if !was || now.Stroke == nil || before.Stroke == nil || !slices.Equal(now.Stroke.Points, before.Stroke.Points) {
		return now
	}
	stroke := *now.Stroke
	stroke.Points = []float64{}
	now.Stroke = &stroke
	return now
}

// mark gives a mark as it is after the operations before.
func (d *Draft) mark(id string) (lesson.Element, bool) {
	if m, ok := d.over[id]; ok {
		return m, true
	}
	m, ok := d.sheet.marks[id]
	return m.Element, ok
}

// amount counts what an author has after the operations before.
func (d *Draft) amount(author string) tally { return d.sheet.by[author].plus(d.by[author]) }

// Touched is a mark with the number of the change that changed it last.
type Touched struct {
	lesson.Element
	Seq int64
}

// Touched lists the marks that the decided operations changed, whole, as they
// are after them, and what their authors, and who did it, then have.
func (d *Draft) Touched() (marks []Touched, amounts map[string]int) {
	amounts = map[string]int{}
	for id, m := range d.over {
		marks = append(marks, Touched{m, d.last[id]})
		amounts[m.Author] = d.amount(m.Author).marks
	}
	for _, done := range d.done {
		amounts[done.by] = d.amount(done.by).marks
	}
	return marks, amounts
}

// edit is an operation in the making. The marks that it has touched so far lie
// over those of the draft, which stays untouched until all is decided.
type edit struct {
	*Draft
	terms Terms
	actor Actor
	op    Op
	mine  map[string]lesson.Element
	order []string         // the marks in mine, as they were first touched
	back  []Step           // what takes each step back, in the order of the steps
	count tally            // what is on the frame after the steps so far
	added map[string]tally // what the steps so far added, by author
	top   int64
	left  int // of the work that the operation may take
}

// settle brings a decided operation into the draft.
func (e *edit) settle(c Change) {
	d := e.Draft
	for id, now := range e.mine {
		d.over[id], d.last[id] = now, c.Seq
	}
	for author, more := range e.added {
		d.by[author] = d.by[author].plus(more)
	}
	d.done[c.Op] = done{c.Seq, c.By}
	d.seq, d.there, d.top = c.Seq, e.count, e.top
}

// spend notes work and refuses the operation when it takes too much.
func (e *edit) spend(work int) error {
	if e.left -= work; e.left < 0 {
		return refusal.About(refusal.TooMany, "this would take too long at once")
	}
	return nil
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
	if m, ok := e.mine[id]; ok {
		return m, true
	}
	return e.Draft.mark(id)
}

// each lists the marks that are there after the steps so far and for which is
// says so, from the lowest to the highest.
func (e *edit) each(is func(lesson.Element) bool) ([]lesson.Element, error) {
	if err := e.spend(len(e.sheet.marks)/8 + len(e.over)/8 + 1); err != nil {
		return nil, err
	}
	var found []lesson.Element
	add := func(m lesson.Element) {
		if m.OnFrame() && is(m) {
			found = append(found, m)
		}
	}
	for id, m := range e.sheet.marks {
		_, over := e.over[id]
		if _, mine := e.mine[id]; !over && !mine {
			add(m.Element)
		}
	}
	for id, m := range e.over {
		if _, mine := e.mine[id]; !mine {
			add(m)
		}
	}
	for _, m := range e.mine {
		add(m)
	}
	slices.SortFunc(found, lowest)
	return found, nil
}

// put lays down a mark and notes what takes this back.
func (e *edit) put(m lesson.Element, back Step) {
	if before, was := e.mark(m.ID); was {
		e.count = e.count.minus(onFrame(before))
		e.added[before.Author] = e.added[before.Author].minus(onFrame(before))
	}
	e.count = e.count.plus(onFrame(m))
	e.added[m.Author] = e.added[m.Author].plus(onFrame(m))
	if _, touched := e.mine[m.ID]; !touched {
		e.order = append(e.order, m.ID)
	}
	e.mine[m.ID] = m
	e.top = max(e.top, m.Z)
	e.back = append(e.back, back)
}

// changed notes who changed a mark last.
func (e *edit) changed(m *lesson.Element) {
	m.By = ""
	if by := e.actor.author(); by != m.Author {
		m.By = by
	}
}

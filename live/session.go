package live

import (
	"context"
	"math/rand/v2"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"

	"golang.org/x/time/rate"
)

// How much one student may do: operations a second, and at once.
const (
	opsPerSecond = 40
	opsAtOnce    = 120
)

// participant is a student of a session in memory.
type participant struct {
	Person
	connections int
	limit       *rate.Limiter
}

// add brings in a participant; the caller holds the session's lock.
func (r *running) add(p store.Participant) *participant {
	if known, ok := r.people[p.ID]; ok {
		return known
	}
	added := &participant{Person: Person{ID: p.ID, Name: p.Name, At: place(p)}, limit: rate.NewLimiter(opsPerSecond, opsAtOnce)}
	r.people[p.ID] = added
	r.order = append(r.order, p.ID)
	return added
}

// place is the frame that a participant has gone to.
func place(p store.Participant) string {
	if p.Frame == nil {
		return ""
	}
	return *p.Frame
}

// present counts the connections; the caller holds the session's lock.
func (r *running) present() int {
	n := r.staff
	for _, p := range r.people {
		n += p.connections
	}
	return n
}

// list gives the participants in the order they joined; staff learns who is here.
func (r *running) list(staff bool) []Person {
	r.mu.RLock()
	defer r.mu.RUnlock()
	people := make([]Person, len(r.order))
	for i, id := range r.order {
		people[i] = r.people[id].Person
		people[i].Here = staff && r.people[id].connections > 0
		if !staff {
			people[i].At = ""
		}
	}
	return people
}

// Joined tells a session that somebody has joined it over HTTP.
func (h *Hub) Joined(ctx context.Context, p store.Participant) error {
	r, err := h.session(ctx, p.SessionID)
	if err != nil {
		return err
	}
	r.mu.Lock()
	person := r.add(p).Person
	r.mu.Unlock()
	h.publish(staffChannel(p.SessionID), News{Kind: NewsPeople, People: &People{[]Person{person}}})
	h.publish(classChannel(p.SessionID), News{Kind: NewsPeople, People: &People{[]Person{person}}})
	return nil
}

// presence counts somebody's connections up or down and tells the staff when a
// student has come or gone.
func (h *Hub) presence(r *running, a sheet.Actor, by int) {
	r.mu.Lock()
	p, ok := r.people[a.ID]
	if !ok {
		r.staff += by
		r.mu.Unlock()
		return
	}
	before := p.connections > 0
	p.connections += by
	person := p.Person
	person.Here = p.connections > 0
	r.mu.Unlock()
	if person.Here != before {
		h.publish(staffChannel(r.kept.ID), News{Kind: NewsPeople, People: &People{[]Person{person}}})
	}
}

// Command lets the teacher change the state of a session: the new state is
// saved first and then told to all.
func (h *Hub) Command(ctx context.Context, id string, c session.Command) (session.State, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return session.State{}, err
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	err = h.change(ctx, r, func(state session.State) (session.State, error) {
		return state.Apply(r.kept.Content.V, c, session.Class{Students: r.order, Random: rand.IntN})
	})
	if err != nil {
		return r.state, err
	}
	concerned := r.order
	if c.Kind == session.KindGo && r.state.Pace == session.Own {
		concerned = nil // the teacher looks elsewhere
	}
	h.publishState(r, concerned)
	return r.state, nil
}

// admit finds a group for a student who has none. Only their group learns of it.
func (h *Hub) admit(ctx context.Context, r *running, student string) error {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.state.GroupOf(student) != 0 {
		return nil
	}
	err := h.change(ctx, r, func(state session.State) (session.State, error) {
		next, changed := state.Admit(student)
		if !changed {
			return state, refusal.New(refusal.Ended)
		}
		return next, nil
	})
	if err == nil {
		h.publishState(r, r.state.Groups[r.state.GroupOf(student)-1])
	}
	return err
}

// change saves the next state of a session, decided anew when another server
// was quicker; the caller holds the session's lock.
func (h *Hub) change(ctx context.Context, r *running, decide func(session.State) (session.State, error)) error {
	for range attempts {
		next, err := decide(r.state)
		if err != nil {
			return err
		}
		saved, err := h.store.SetState(ctx, r.kept.ID, next)
		if err != nil {
			return err
		}
		if saved {
			r.state = next
			r.together()
			return nil
		}
		if err := h.read(ctx, r, r.kept.ID); err != nil {
			return err
		}
	}
	return refusal.New(refusal.Unavailable)
}

// together forgets where students have gone once the teacher leads; the caller
// holds the session's lock.
func (r *running) together() {
	if r.state.Pace == session.Own {
		return
	}
	for _, p := range r.people {
		p.At = ""
	}
}

// student gives what the state asks to know of a participant; the caller holds
// the session's lock.
func (r *running) student(id string) session.Student {
	s := session.Student{ID: id}
	if p, ok := r.people[id]; ok {
		s.At = p.At
	}
	return s
}

// stage gives what a student may know of the session now.
func (r *running) stage(id string) (session.Stage, error) {
	r.mu.RLock()
	defer r.mu.RUnlock()
	return r.state.For(r.kept.Content.V, r.student(id))
}

// move takes a student to a frame, if it is open to them at their own pace.
func (h *Hub) move(ctx context.Context, r *running, a sheet.Actor, frame string) (Moved, error) {
	if err := h.goTo(ctx, r, a.ID, frame); err != nil {
		return Moved{}, err
	}
	stage, err := r.stage(a.ID)
	if err != nil {
		return Moved{}, err
	}
	sheets, err := h.open(ctx, r, a, stage.Frame.ID)
	if err != nil {
		return Moved{}, err
	}
	// Opening may have found the student a group.
	stage, err = r.stage(a.ID)
	return Moved{Stage: stage, Sheets: sheets}, err
}

// goTo notes where a student has gone and tells the staff.
func (h *Hub) goTo(ctx context.Context, r *running, student, frame string) error {
	may := func() bool {
		p, ok := r.people[student]
		return ok && r.state.MayMove(r.kept.Content.V, frame) && p.At != frame
	}
	r.mu.RLock()
	ok := may()
	r.mu.RUnlock()
	if !ok {
		return nil
	}
	// Without the lock: a whole class moves at once, and others work meanwhile.
	if err := h.store.SetPlace(ctx, student, frame); err != nil {
		return err
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	if !may() {
		return nil
	}
	p := r.people[student]
	p.At = frame
	person := p.Person
	person.Here = p.connections > 0
	h.publish(staffChannel(r.kept.ID), News{Kind: NewsPeople, People: &People{[]Person{person}}})
	return nil
}

// rulesFor gives what holds on a frame in a state of the session.
func rulesFor(board lesson.Board, state session.State, frame string) (sheet.Rules, error) {
	f, err := state.On(board, frame)
	if err != nil {
		return sheet.Rules{}, err
	}
	return sheet.Rules{Frame: f, Reached: slices.Contains(state.Reached, frame), Ended: state.Ended, Polls: state.Polls, Lifted: state.Lifted, Now: now()}, nil
}

// in gives the actor with the group that they are in now.
func in(state session.State, a sheet.Actor) sheet.Actor {
	a.Group = state.GroupOf(a.ID)
	return a
}

// owners says whose sheets a student works with on a frame: the one they share
// or their own, and their own where a poll is to be answered.
func owners(f lesson.Frame, a sheet.Actor) []string {
	shared := a.Owner(f.Arrangement)
	if shared != a.ID && len(f.Polls()) > 0 {
		return []string{shared, a.ID}
	}
	return []string{shared}
}

// open gives a student the sheets of a frame that the class has been on.
func (h *Hub) open(ctx context.Context, r *running, a sheet.Actor, frame string) ([]SheetView, error) {
	f, err := r.snapshot().On(r.kept.Content.V, frame)
	if err != nil {
		return nil, err
	}
	if !slices.Contains(r.snapshot().Reached, frame) {
		return nil, refusal.New(refusal.NoSuchFrame)
	}
	if f.Arrangement == lesson.Groups {
		if err := h.admit(ctx, r, a.ID); err != nil {
			return nil, err
		}
	}
	a = in(r.snapshot(), a)
	views := []SheetView{}
	for _, owner := range owners(f, a) {
		key, err := h.store.EnsureSheet(ctx, r.kept.ID, frame, owner)
		if err != nil {
			return nil, err
		}
		view, err := h.view(ctx, h.place(key), a)
		if err != nil {
			return nil, err
		}
		views = append(views, view)
	}
	return views, nil
}

// openAll gives the staff every sheet of a frame.
func (h *Hub) openAll(ctx context.Context, r *running, frame string) ([]SheetView, error) {
	f, err := r.snapshot().On(r.kept.Content.V, frame)
	if err != nil {
		return nil, err
	}
	for _, owner := range sharers(f, r.snapshot()) {
		if _, err := h.store.EnsureSheet(ctx, r.kept.ID, frame, owner); err != nil {
			return nil, err
		}
	}
	keys, err := h.store.SheetKeys(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	views := []SheetView{}
	for _, key := range keys {
		if key.Frame != frame {
			continue
		}
		view, err := h.view(ctx, h.place(key), sheet.Actor{Staff: true})
		if err != nil {
			return nil, err
		}
		views = append(views, view)
	}
	return views, nil
}

// sharers lists the owners of the sheets that more than one work on, which
// are there for the staff before anybody has opened them.
func sharers(f lesson.Frame, state session.State) []string {
	switch f.Arrangement {
	case lesson.WholeClass:
		return []string{sheet.ClassOwner}
	case lesson.Groups:
		var owners []string
		for i := range state.Groups {
			owners = append(owners, sheet.GroupOwner(i+1))
		}
		return owners
	}
	return nil
}

// ShownPicture says whether a class may see a picture of the library under this
// name now, and on which frame: one that it has been on and that shows it.
func (h *Hub) ShownPicture(ctx context.Context, id, name string) (lesson.Frame, bool, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return lesson.Frame{}, false, err
	}
	state := r.snapshot()
	for _, f := range r.kept.Content.V.Frames {
		if slices.Contains(state.Reached, f.ID) && slices.Contains(f.ForClass(state.Lifted).Pictures(), name) {
			return f, true, nil
		}
	}
	return lesson.Frame{}, false, nil
}

// view reads a sheet for somebody who may read it.
func (h *Hub) view(ctx context.Context, at *held, a sheet.Actor) (SheetView, error) {
	if !a.MayRead(at.key.Owner) {
		return SheetView{}, refusal.New(refusal.NoSuchSheet)
	}
	at.mu.Lock()
	defer at.mu.Unlock()
	if err := h.catchUp(ctx, at); err != nil {
		return SheetView{}, err
	}
	marks := at.sheet.MarksFor(a)
	if marks == nil {
		marks = []lesson.Element{}
	}
	return SheetView{Sheet: at.key.ID, Frame: at.key.Frame, Owner: at.key.Owner, Seq: at.sheet.Seq, Marks: marks}, nil
}

// since gives the changes of a sheet after a number, as the actor may see them.
func (h *Hub) since(ctx context.Context, r *running, a sheet.Actor, ask Since) ([]sheet.Change, error) {
	at, err := h.hold(ctx, ask.Sheet)
	if err != nil {
		return nil, err
	}
	if at.key.Session != r.kept.ID || !in(r.snapshot(), a).MayRead(at.key.Owner) {
		return nil, refusal.New(refusal.NoSuchSheet)
	}
	changes, err := h.store.ChangesSince(ctx, ask.Sheet, ask.Seq)
	if err != nil {
		return nil, err
	}
	// Read after the changes: what was put away meanwhile is left out of them.
	at.mu.Lock()
	defer at.mu.Unlock()
	if err := h.catchUp(ctx, at); err != nil {
		return nil, err
	}
	return at.sheet.History(changes, a), nil
}

// work counts what everybody has on every frame of a session.
func (h *Hub) work(ctx context.Context, r *running) ([]Work, error) {
	marks, err := h.store.SessionMarks(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	type place struct{ author, frame string }
	counts := map[place]int{}
	for _, m := range marks {
		if m.OnFrame() {
			counts[place{m.Author, m.Frame}]++
		}
	}
	last, err := h.store.Activities(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	work := make([]Work, len(last))
	for i, l := range last {
		work[i] = Work{Author: l.Author, Frame: l.Frame, Marks: counts[place{l.Author, l.Frame}], At: l.At}
	}
	return work, nil
}

package live

import (
	"context"
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
	added := &participant{Person: Person{ID: p.ID, Name: p.Name}, limit: rate.NewLimiter(opsPerSecond, opsAtOnce)}
	r.people[p.ID] = added
	r.order = append(r.order, p.ID)
	return added
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
	for range attempts {
		next, err := r.state.Apply(r.kept.Content.V, c)
		if err != nil {
			return r.state, err
		}
		saved, err := h.store.SetState(ctx, id, next)
		if err != nil {
			return r.state, err
		}
		if saved {
			r.state = next
			h.publishState(r)
			return next, nil
		}
		if err := h.read(ctx, r, id); err != nil {
			return r.state, err
		}
	}
	return r.state, refusal.New(refusal.Unavailable)
}

// rulesFor gives what holds on a frame in a state of the session.
func rulesFor(board lesson.Board, state session.State, frame string) (sheet.Rules, error) {
	f, err := state.On(board, frame)
	if err != nil {
		return sheet.Rules{}, err
	}
	return sheet.Rules{Frame: f, Reached: slices.Contains(state.Reached, frame), Ended: state.Ended, Polls: state.Polls, Lifted: state.Lifted, Now: now()}, nil
}

// owners says whose sheets a student works with on a frame: the shared one or
// their own, and their own where a poll is to be answered.
func owners(f lesson.Frame, me string) []string {
	switch {
	case f.Arrangement == lesson.Individual:
		return []string{me}
	case len(f.Polls()) > 0:
		return []string{sheet.ClassOwner, me}
	}
	return []string{sheet.ClassOwner}
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
	views := []SheetView{}
	for _, owner := range owners(f, a.ID) {
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
	if f.Arrangement == lesson.WholeClass {
		if _, err := h.store.EnsureSheet(ctx, r.kept.ID, frame, sheet.ClassOwner); err != nil {
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
	if at.key.Session != r.kept.ID || !a.MayRead(at.key.Owner) {
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

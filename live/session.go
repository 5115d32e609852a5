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

// rulesFor gives what holds on a frame in a state of the session.
func rulesFor(board lesson.Board, state session.State, frame string) (sheet.Rules, error) {
	f, err := state.On(board, frame)
	if err != nil {
		return sheet.Rules{}, err
	}
	return sheet.Rules{Frame: f, Reached: slices.Contains(state.Reached, frame), Ended: state.Ended, Polls: state.Polls, Lifted: state.Lifted, Now: now()}, nil
}

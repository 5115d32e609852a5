package live

import (
	"context"
	"math/rand/v2"
	"slices"
	"sync"
	"time"

	"alpenglow/core/id"
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

// running is a session in memory.
type running struct {
	kept  store.Session   // as it was when loaded, and never changed; its State is not used
	taken map[string]bool // the ids of everything on its board
	used  time.Time       // under the hub's lock
	// turn is held by whoever changes what is stored of the session: commands
	// are carried out one after the other.
	turn chan struct{}
	news teller
	// views are the frames as the class may see them.
	views views

	mu     sync.RWMutex
	state  session.State
	people map[string]*participant // by id
	order  []string                // their ids in the order they joined
	staff  int                     // connections of teachers
}

// participant is a student of a session in memory.
type participant struct {
	Person
	connections int
	limit       *rate.Limiter // of operations
	passes      *rate.Limiter // of passing things
}

// session gives a session in memory and loads it when it is not there.
func (h *Hub) session(ctx context.Context, sessionID string) (*running, error) {
	if !id.IsUUID(sessionID) {
		return nil, refusal.New(refusal.NotFound)
	}
	h.mu.Lock()
	r, ok := h.sessions[sessionID]
	if ok {
		r.used = time.Now()
	}
	h.mu.Unlock()
	if ok {
		return r, nil
	}
	return ask(ctx, h, "session "+sessionID, func(ctx context.Context) (*running,
		error) {
		return h.loadSession(ctx, sessionID)
	})
}

func (h *Hub) loadSession(ctx context.Context, id string) (*running, error) {
	kept, err := h.store.Session(ctx, id)
	if err != nil {
		return nil, missing(err, refusal.NotFound)
	}
	list, err := h.store.Participants(ctx, id)
	if err != nil {
		return nil, err
	}
	r := &running{kept: kept, taken: kept.Content.V.IDs(), turn: make(chan struct{}, 1), state: kept.State.V,
		people: map[string]*participant{}}
	for _, p := range list {
		r.add(p).At = place(p)
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	if known, ok := h.sessions[id]; ok {
		r = known
	}
	h.sessions[id] = r
	r.used = time.Now()
	return r, nil
}

// refresh takes what other servers have changed about a session.
func (h *Hub) refresh(ctx context.Context, r *running) error {
	_, err := ask(ctx, h, "fresh "+r.kept.ID, func(ctx context.Context) (any, error) {
		return nil,
			h.readAgain(ctx, r)
	})
	return err
}

func (h *Hub) readAgain(ctx context.Context, r *running) error {
	stored, err := h.store.Numbers(ctx, r.kept.ID)
	if err != nil {
		return missing(err, refusal.NotFound)
	}
	r.mu.RLock()
	rev, people := r.state.Rev, len(r.people)
	r.mu.RUnlock()
	if stored.Rev > rev {
		state, err := h.store.State(ctx, r.kept.ID)
		if err != nil {
			return err
		}
		if told := r.become(state, true); told != nil {
			h.tell(r, told...)
		}
	}
	if stored.People == people {
		return nil
	}
	list, err := h.store.Participants(ctx, r.kept.ID)
	if err != nil {
		return err
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	for _, p := range list {
		r.add(p).At = place(p)
	}
	return nil
}

// become gives the session a newer state, and what is to be told of it; nothing
// when the state is not newer. Telling all says that every student is concerned.
func (r *running) become(next session.State, all bool) []telling {
	r.mu.Lock()
	defer r.mu.Unlock()
	if next.Rev <= r.state.Rev {
		return nil
	}
	r.state = next
	// Once the teacher leads, nobody has gone anywhere.
	if next.Pace != session.Own {
		for _, p := range r.people {
			p.At = ""
		}
	}
	var concerned []string
	if all {
		concerned = r.order
	}
	return r.stateFor(concerned)
}

// add brings in a participant; the caller holds the session's lock.
func (r *running) add(p store.Participant) *participant {
	if known, ok := r.people[p.ID]; ok {
		return known
	}
	added := &participant{Person: Person{ID: p.ID, Name: p.Name, At: place(p)},
		limit: rate.NewLimiter(opsPerSecond, opsAtOnce), passes: rate.NewLimiter(passPerSecond, passPerSecond)}
	r.people[p.ID] = added
	r.order = append(r.order, p.ID)
	return added
}

// person finds a participant in memory.
func (r *running) person(id string) *participant {
	r.mu.RLock()
	defer r.mu.RUnlock()
	return r.people[id]
}

// present counts the connections.
func (r *running) present() int {
	r.mu.RLock()
	defer r.mu.RUnlock()
	return r.connections()
}

// connections counts them; the caller holds the session's lock.
func (r *running) connections() int {
	n := r.staff
	for _, p := range r.people {
		n += p.connections
	}
	return n
}

// snapshot gives the state of a session; what is in it is never written to.
func (r *running) snapshot() session.State {
	r.mu.RLock()
	defer r.mu.RUnlock()
	return r.state
}

// list gives the participants in the order they joined; staff learns who is here.
func (r *running) list(staff bool) []Person {
	r.mu.RLock()
	defer r.mu.RUnlock()
	people := make([]Person, 0, len(r.order))
	for _, id := range r.order {
		person := r.people[id].Person
		person.Removed = !r.state.Seated(id)
		if !staff {
			if person.Removed {
				continue
			}
			person.At = ""
		} else {
			person.Here = r.people[id].connections > 0
		}
		people = append(people, person)
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
	news := News{Kind: NewsPeople, People: &People{[]Person{person}}}
	h.tell(r, telling{[]string{staffChannel(p.SessionID)}, news}, telling{[]string{classChannel(p.SessionID)}, news})
	return nil
}

// Seated reports whether a participant has their seat in a session: it was not
// taken away.
func (h *Hub) Seated(ctx context.Context, sessionID, participant string) (bool, error) {
	r, err := h.session(ctx, sessionID)
	if err != nil {
		return false, err
	}
	return r.snapshot().Seated(participant), nil
}

// Watched reports whether a teacher has a session open on this server.
func (h *Hub) Watched(session string) bool {
	h.mu.Lock()
	r, ok := h.sessions[session]
	h.mu.Unlock()
	if !ok {
		return false
	}
	r.mu.RLock()
	defer r.mu.RUnlock()
	return r.staff > 0
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
	person.Removed = !r.state.Seated(a.ID)
	r.mu.Unlock()
	if person.Here != before {
		h.tell(r, telling{[]string{staffChannel(r.kept.ID)}, News{Kind: NewsPeople, People: &People{[]Person{person}}}})
	}
}

// Command lets the teacher change the state of a session: the new state is
// saved first and then told to all. By is who gives it.
func (h *Hub) Command(ctx context.Context, id, by string, c session.Command) (session.State, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return session.State{}, err
	}
	state, err := h.change(ctx, r, true, func(state session.State) (session.State, error) {
		r.mu.RLock()
		students := slices.Clone(r.order)
		r.mu.RUnlock()
		return state.Apply(r.kept.Content.V, c, session.With{By: by, Now: now(), Students: students, Random: rand.IntN})
	})
	if err == nil && c.Seat != nil && c.Seat.Remove {
		h.CloseSeat(c.Seat.Student)
	}
	return state, err
}

// admit finds a group for a student who has none. Only their group learns of it.
func (h *Hub) admit(ctx context.Context, r *running, student string) error {
	if state := r.snapshot(); state.GroupOf(student) != 0 || state.Ended {
		return nil
	}
	state, err := h.change(ctx, r, false, func(state session.State) (session.State, error) {
		next, _ := state.Admit(student)
		return next, nil
	})
	if n := state.GroupOf(student); err == nil && n > 0 {
		r.mu.RLock()
		told := r.stateFor(state.Groups[n-1])
		r.mu.RUnlock()
		h.tell(r, told...)
	}
	return err
}

// change saves the next state of a session, decided anew when another server
// was quicker, and tells it to the staff and, with all, to the students. A
// state that stays as it is is not saved.
func (h *Hub) change(ctx context.Context, r *running, all bool,
	decide func(session.State) (session.State, error)) (session.State, error) {
	select {
	case r.turn <- struct{}{}:
		defer func() { <-r.turn }()
	case <-ctx.Done():
		return session.State{}, ctx.Err()
	}
	for range attempts {
		state := r.snapshot()
		next, err := decide(state)
		if err != nil || next.Rev == state.Rev {
			return state, err
		}
		saved, err := h.store.SetState(ctx, r.kept.ID, next)
		if err != nil {
			return state, err
		}
		if saved {
			h.tell(r, r.become(next, all)...)
			return next, nil
		}
		if err := h.readAgain(ctx, r); err != nil {
			return state, err
		}
	}
	return session.State{}, refusal.New(refusal.Unavailable)
}

// termsFor gives what holds on a frame in a state of the session.
func termsFor(r *running, state session.State, frame string) (sheet.Terms, error) {
	f, err := state.On(r.kept.Content.V, frame)
	if err != nil {
		return sheet.Terms{}, err
	}
	return sheet.Terms{Frame: f, Open: state.IsOpen(frame), Ended: state.Ended, Polls: state.Polls,
		Lifted: state.Lifted, Taken: r.taken, Now: now()}, nil
}

// mayGoOn refuses an operation of somebody whose seat was taken away, or who has
// taken more time of others than their rate allows.
func (r *running) mayGoOn(q *request) error {
	if q.actor.Staff {
		return nil
	}
	r.mu.RLock()
	p, seated := r.people[q.actor.ID], r.state.Seated(q.actor.ID)
	r.mu.RUnlock()
	switch {
	case p == nil || !seated:
		return refusal.New(refusal.JoinNeeded)
	case q.stopped.Load() || p.limit.TokensAt(time.Now()) < 0:
		q.stopped.Store(true)
		return refusal.New(refusal.TooMany)
	}
	return nil
}

// charge takes from a student's rate what an operation has cost beyond the one
// that was taken when it came. The rate may go below nothing; until it is above
// again, nothing more is decided.
func (r *running) charge(q *request, result sheet.Result, readers int) {
	if more := result.Charge(readers) - 1; more > 0 && !q.actor.Staff {
		if p := r.person(q.actor.ID); p != nil {
			p.limit.ReserveN(time.Now(), min(more, opsAtOnce))
		}
	}
}

// readersOf counts about how many are told of changes on the sheet of an owner.
func (r *running) readersOf(owner string, state session.State) int {
	if n := sheet.GroupNumber(owner); n > 0 && n <= len(state.Groups) {
		return len(state.Groups[n-1]) + 1
	}
	if owner != sheet.ClassOwner {
		return 2
	}
	return r.present()
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
	all := []string{}
	if shared != "" { // the lesson may have ended before they had a group
		all = append(all, shared)
	}
	if shared != a.ID && len(f.Polls()) > 0 {
		all = append(all, a.ID)
	}
	return all
}

package live

import (
	"cmp"
	"context"
	"sync"
	"time"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/voices"
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
	kept store.Session // as it was when loaded, and never changed; its State is not used
	used time.Time     // under the hub's lock
	// turn is held by whoever changes what is stored of the session: commands
	// are carried out one after the other.
	turn chan struct{}
	news teller
	// saying is held by whoever changes what the class has said.
	saying chan struct{}
	// views are the frames as the class may see them.
	views views

	mu     sync.RWMutex
	state  session.State
	board  *edition
	people map[string]*participant // by id
	order  []string                // their ids in the order they joined
	staff  int                     // connections of teachers
	fronts int                     // connections of front screens
	looks  int                     // and of small pictures of them
	voices voices.Voices           // what the class has said
	toSay  bool                    // it is about to be told
	shared voices.Shared           // what the class was told of it last
	know   knowing                 // what is known of the students
	tally  bool                    // the answers that the front screens show are being counted anew
	took   time.Duration           // how long counting them took
}

// edition is the board of a lesson as it is for a while. What is in it is never
// written to; when the board is changed, there is another one.
type edition struct {
	lesson.Board
	taken map[string]bool // the ids of everything on it
}

func newEdition(board lesson.Board) *edition { return &edition{board, board.IDs()} }

// participant is a student of a session in memory.
type participant struct {
	Person
	connections int
	since       int64         // when they came to the frame that they are on, or joined
	turned      int64         // when they came, went or turned away last
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
	// The board is read after the state: with an older state nothing is stored.
	board, err := h.store.Lesson(ctx, id)
	if err != nil {
		return nil, err
	}
	list, err := h.store.Participants(ctx, id)
	if err != nil {
		return nil, err
	}
	said, err := h.store.Voices(ctx, id)
	if err != nil {
		return nil, err
	}
	r := &running{kept: kept, turn: make(chan struct{}, 1), state: kept.State.V, board: newEdition(board),
		voices: said, shared: said.ForClass(), saying: make(chan struct{}, 1), people: map[string]*participant{}}
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
	state, board, people, said := r.state, r.board, len(r.people), r.voices.Rev
	r.mu.RUnlock()
	if stored.Voices > said {
		next, err := h.store.Voices(ctx, r.kept.ID)
		if err != nil {
			return err
		}
		h.becomes(r, next)
	}
	renamed := false
	if stored.Rev > state.Rev {
		next, err := h.store.State(ctx, r.kept.ID)
		if err != nil {
			return err
		}
		if next.Edition != state.Edition {
			now, err := h.store.Lesson(ctx, r.kept.ID)
			if err != nil {
				return err
			}
			board = newEdition(now)
		}
		renamed = next.Persons != state.Persons
		if told := r.become(next, board, true); told != nil {
			h.tell(r, told...)
		}
	}
	if stored.People == people && !renamed {
		return nil
	}
	list, err := h.store.Participants(ctx, r.kept.ID)
	if err != nil {
		return err
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	for _, p := range list {
		on := r.add(p)
		on.At, on.Name, on.Student = place(p), p.Name, ""
		if p.StudentID != nil {
			on.Student = *p.StudentID
		}
	}
	if renamed {
		h.tell(r, telling{[]string{staffChannel(r.kept.ID)},
			News{Kind: NewsPeople, People: &People{People: r.listed(true, ""), All: true}}})
		if !r.state.Nameless {
			h.tell(r, telling{[]string{classChannel(r.kept.ID), frontChannel(r.kept.ID)},
				News{Kind: NewsPeople, People: &People{People: r.listed(false, ""), All: true}}})
		}
	}
	return nil
}

// become gives the session a newer state with its board, and what is to be told of
// it; nothing when the state is not newer. Telling all says that every student is
// concerned.
func (r *running) become(next session.State, board *edition, all bool) []telling {
	r.mu.Lock()
	defer r.mu.Unlock()
	if next.Rev <= r.state.Rev {
		return nil
	}
	before, named := r.board, !r.state.Nameless
	r.state, r.board = next, board
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
	told := r.stateFor(before, concerned)
	if named != !next.Nameless {
		told = append(told, telling{[]string{classChannel(r.kept.ID), frontChannel(r.kept.ID)},
			News{Kind: NewsPeople, People: &People{People: r.listed(false, ""), All: true}}})
	}
	return told
}

// code is the lesson's join code in a state.
func (r *running) code(state session.State) string { return cmp.Or(state.Code, r.kept.Code) }

// add brings in a participant; the caller holds the session's lock.
func (r *running) add(p store.Participant) *participant {
	if known, ok := r.people[p.ID]; ok {
		return known
	}
	added := &participant{since: p.JoinedAt.UnixMilli(), Person: Person{ID: p.ID, Name: p.Name, At: place(p)},
		limit: rate.NewLimiter(opsPerSecond, opsAtOnce), passes: rate.NewLimiter(passPerSecond, passPerSecond)}
	if p.StudentID != nil {
		added.Student = *p.StudentID
	}
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
	n := r.staff + r.fronts + r.looks
	for _, p := range r.people {
		n += p.connections
	}
	return n
}

// snapshot gives the state of a session and the board that it is the state of; what
// is in them is never written to.
func (r *running) snapshot() (session.State, *edition) {
	r.mu.RLock()
	defer r.mu.RUnlock()
	return r.state, r.board
}

// list gives the participants in the order they joined; staff learns who is here. Where
// students do not learn each other's names, one of them has their own alone.
func (r *running) list(staff bool, to string) []Person {
	r.mu.RLock()
	defer r.mu.RUnlock()
	return r.listed(staff, to)
}

// listed does the same; the caller holds the session's lock.
func (r *running) listed(staff bool, to string) []Person {
	people := make([]Person, 0, len(r.order))
	for _, id := range r.order {
		person := r.people[id].Person
		person.Removed = !r.state.Seated(id)
		if !staff {
			if person.Removed || r.state.Nameless && id != to {
				continue
			}
			person = person.forClass()
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
	person, nameless := r.add(p).Person, r.state.Nameless
	r.mu.Unlock()
	h.tell(r, telling{[]string{staffChannel(p.SessionID)}, ofPeople(person)})
	if !nameless {
		h.tell(r, telling{[]string{classChannel(p.SessionID), frontChannel(p.SessionID)}, ofPeople(person.forClass())})
	}
	return nil
}

func ofPeople(p Person) News { return News{Kind: NewsPeople, People: &People{People: []Person{p}}} }

// forClass gives a participant as the class may see them.
func (p Person) forClass() Person {
	p.At, p.Student, p.Away = "", "", false
	return p
}

// leads reports whether a teacher may lead a session.
func (h *Hub) leads(ctx context.Context, r *running, teacher string) (bool, error) {
	if r.kept.TeacherID == teacher {
		return true, nil
	}
	return h.store.Leads(ctx, r.kept.ID, teacher)
}

// Seated reports whether a participant has their seat in a session: it was not
// taken away.
func (h *Hub) Seated(ctx context.Context, sessionID, participant string) (bool, error) {
	r, err := h.session(ctx, sessionID)
	if err != nil {
		return false, err
	}
	state, _ := r.snapshot()
	return state.Seated(participant), nil
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
func (h *Hub) presence(r *running, s seat, by int) {
	r.mu.Lock()
	if s.looks {
		r.looks += by
		r.mu.Unlock()
		return
	}
	if s.front {
		r.fronts += by
		news := News{Kind: NewsFronts, Fronts: &Fronts{r.fronts}}
		r.mu.Unlock()
		h.tell(r, telling{[]string{staffChannel(r.kept.ID)}, news})
		return
	}
	a := s.actor
	p, ok := r.people[a.ID]
	if !ok {
		r.staff += by
		r.mu.Unlock()
		return
	}
	before := p.connections > 0
	p.connections += by
	if by > 0 {
		p.Away = false // a device says when it is not looked at
	}
	p.turned = now()
	person := p.Person
	person.Here = p.connections > 0
	person.Removed = !r.state.Seated(a.ID)
	r.mu.Unlock()
	if person.Here != before {
		h.tell(r, telling{[]string{staffChannel(r.kept.ID)}, ofPeople(person)})
		h.ponder(r)
	}
}

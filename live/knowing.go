package live

import (
	"cmp"
	"context"
	"maps"
	"slices"
	"sync"
	"time"

	"alpenglow/core/insight"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// How often at most the staff is told who is next, and how often what other servers
// have saved is read.
const (
	nextEvery  = 500 * time.Millisecond
	knowsAgain = 20 * time.Second
)

// on is somebody on a frame.
type on struct{ author, frame string }

// knowing is what is known of what the students of a session do. It is read when a
// teacher comes, and kept up while one is here.
type knowing struct {
	mu      sync.Mutex
	read    time.Time
	learned int // counts what was learned
	work    map[on]insight.Work
	amounts map[on]map[string]int      // of what there is, by sheet
	answers map[on]map[string]answered // by mark
	before  map[string]int             // how often each student of the class was drawn in lessons before
	waiting map[string]Waiting         // by mark
	queued  bool                       // what waits has changed since it was told
	handed  map[on]bool                // who has handed in a set, by the id of the mark that says so
	asked   map[string]string          // the frames of questions whose answers have changed since they were told
	took    time.Duration              // how long it took to compute what answers say
	hears   bool                       // what answers say is about to be told
	soon    bool                       // who is next is about to be told
	told    []insight.Row
	later   *time.Timer // when somebody's state changes by time alone
}

// answered is an answer with what is thought of it, by the board as it was then.
type answered struct {
	lesson.Answer
	at    int64
	as    poll.Assessed
	is    bool // it is an answer to the question
	board *edition
}

// assess gives the answers of somebody on a frame, each assessed by the board as it is now;
// once for each answer and board. The caller holds the lock.
func (k *knowing) assess(at on, board *edition) map[string]answered {
	f, _, err := board.Frame(at.frame)
	if err != nil {
		return nil
	}
	all := k.answers[at]
	for id, a := range all {
		if a.board == board {
			continue
		}
		a.board, a.is = board, false
		if m, err := f.Poll(a.Poll); err == nil {
			a.as, a.is = m.Poll.In(a.Round).Assess(a.Value)
		}
		all[id] = a
	}
	return all
}

// work reads what everybody has on every frame of a session, and gives it with who
// is next.
func (h *Hub) work(ctx context.Context, r *running) ([]Work, Next, error) {
	list, err := h.know(ctx, r)
	if err != nil {
		return nil, Next{}, err
	}
	work, at := []Work{}, map[on]int{}
	for _, l := range list {
		key := on{l.Author, l.Frame}
		i, ok := at[key]
		if !ok {
			i = len(work)
			at[key], work = i, append(work, Work{Author: l.Author, Frame: l.Frame})
		}
		work[i].Marks, work[i].At = work[i].Marks+l.Marks, max(work[i].At, l.At)
	}
	rows, _ := r.next(now())
	h.ponder(r)
	return work, Next{rows}, nil
}

// know reads what is known of a session's students.
func (h *Hub) know(ctx context.Context, r *running) ([]store.Activity, error) {
	k := &r.know
	k.mu.Lock()
	learned := k.learned
	k.mu.Unlock()
	list, err := h.store.Activities(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	telling, err := h.store.Telling(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	before, err := h.store.PickedBefore(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	k.mu.Lock()
	defer k.mu.Unlock()
	first := k.work == nil
	if first {
		k.work, k.amounts = map[on]insight.Work{}, map[on]map[string]int{}
	}
	for _, l := range list {
		at := on{l.Author, l.Frame}
		was := k.work[at]
		if _, known := k.amounts[at][l.Sheet]; !known || l.At >= was.At { // else something was learned meanwhile
			k.has(at, l.Sheet, l.Marks)
		}
		k.work[at] = insight.Work{Marks: k.sum(at), At: max(was.At, l.At), Pause: max(l.Pause, was.Pause)}
	}
	k.before, k.read = before, time.Now()
	switch {
	case k.learned != learned && !first:
		return list, nil // what was learned while it was read is newer
	case k.learned != learned:
		k.read = time.Time{} // it was not kept up then: it is read once more soon
	}
	had := k.answers
	k.answers, k.waiting, k.queued = map[on]map[string]answered{}, map[string]Waiting{}, true
	k.handed = map[on]bool{}
	if k.asked == nil {
		k.asked = map[string]string{}
	}
	for _, m := range telling {
		if m.Mark.V.IsAnswer() {
			k.answer(m.Frame, m.Mark.V)
			// What another server has saved is told, too.
			if a := m.Mark.V.Answer; a != nil && !first &&
				had[on{m.Mark.V.Author, m.Frame}][m.Mark.V.ID].at != m.Mark.V.At {
				k.asked[a.Poll] = m.Frame
			}
		} else {
			k.wait(Waiting{Sheet: m.Sheet, Frame: m.Frame, Mark: m.Mark.V})
		}
	}
	return list, nil
}

// answer takes what is known of an answer; the caller holds the lock.
func (k *knowing) answer(frame string, e lesson.Element) {
	if e.Handed != nil {
		k.handed[on{e.Author, e.ID}] = true
		return
	}
	at := on{e.Author, frame}
	if k.answers[at] == nil {
		k.answers[at] = map[string]answered{}
	}
	if e.OnFrame() && e.Answer != nil {
		k.answers[at][e.ID] = answered{Answer: *e.Answer, at: e.At}
	} else {
		delete(k.answers[at], e.ID)
	}
}

// learn takes what has just been saved on a sheet.
func (h *Hub) learn(s *onSheet) {
	r, frame := s.session, s.at.key.Frame
	amounts := map[string]int{}
	if s.at.with(func(on *sheet.Sheet) {
		for _, a := range s.accepted {
			for _, by := range append(authors(a.result.Change), a.result.Change.By) {
				amounts[by] = on.Amount(by)
			}
		}
	}) != nil {
		return // it is read again
	}
	k := &r.know
	k.mu.Lock()
	k.learned++
	if k.work == nil {
		k.mu.Unlock()
		return
	}
	for _, a := range s.accepted {
		c := a.result.Change
		at := on{c.By, frame}
		k.work[at] = k.work[at].Then(c.At, k.work[at].Marks)
		for _, e := range c.Put {
			if e.IsAnswer() {
				k.answer(frame, e)
				if e.Answer != nil {
					k.asked[e.Answer.Poll] = frame
				} else {
					k.asked[frame] = frame
				}
			} else {
				k.wait(Waiting{Sheet: s.at.key.ID, Frame: frame, Mark: e})
			}
		}
	}
	for by, n := range amounts {
		at := on{by, frame}
		k.has(at, s.at.key.ID, n)
		w := k.work[at]
		w.Marks = k.sum(at)
		k.work[at] = w
	}
	k.mu.Unlock()
	h.ponder(r)
	h.hear(r)
}

// has notes how much somebody has on a sheet of a frame, and sum says how much on all of
// them: somebody may work on one sheet, answer on another, and say something about a
// third. The caller holds the lock.
func (k *knowing) has(at on, sheet string, n int) {
	if k.amounts[at] == nil {
		k.amounts[at] = map[string]int{}
	}
	k.amounts[at][sheet] = n
}

func (k *knowing) sum(at on) (n int) {
	for _, some := range k.amounts[at] {
		n += some
	}
	return n
}

// altogether says how much somebody has on a frame, when they have n on one sheet of it;
// that alone, where nothing more is known.
func (k *knowing) altogether(at on, sheet string, n int) int {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.work == nil {
		return n
	}
	return k.sum(at) - k.amounts[at][sheet] + n
}

// wait takes how a mark stands now; the caller holds the lock.
func (k *knowing) wait(w Waiting) {
	_, was := k.waiting[w.Mark.ID]
	switch is := w.Mark.Stands() == lesson.Held; {
	case is:
		w.Mark.Stroke = nil // what is drawn is looked at on its frame
		k.waiting[w.Mark.ID] = w
	case was:
		delete(k.waiting, w.Mark.ID)
	default:
		return
	}
	k.queued = true
}

// mostQueued is how much of what waits is told at once.
const mostQueued = 60

// queue gives what waits, the longest waiting first.
func (r *running) queue() Queue {
	state, _ := r.snapshot()
	k := &r.know
	k.mu.Lock()
	first := slices.SortedFunc(maps.Values(k.waiting), func(a, b Waiting) int {
		return cmp.Or(cmp.Compare(a.Mark.Standing.At, b.Mark.Standing.At), cmp.Compare(a.Mark.ID, b.Mark.ID))
	})
	k.mu.Unlock()
	q := Queue{First: append([]Waiting{}, first[:min(len(first), mostQueued)]...), Count: len(first)}
	for i := range q.First {
		q.First[i].Words = state.Holds.Watch().Finds(q.First[i].Mark.Words())
	}
	return q
}

func authors(c sheet.Change) []string {
	var all []string
	for _, e := range c.Put {
		if e.Author != "" && !slices.Contains(all, e.Author) {
			all = append(all, e.Author)
		}
	}
	return all
}

// ponder lets the staff be told soon who is next, if any of them is here.
func (h *Hub) ponder(r *running) {
	r.mu.RLock()
	staff := r.staff
	r.mu.RUnlock()
	k := &r.know
	k.mu.Lock()
	defer k.mu.Unlock()
	if staff == 0 || k.soon || k.work == nil {
		return
	}
	k.soon = true
	time.AfterFunc(nextEvery, func() { h.guard("next", func() { h.tellNext(r) }) })
}

func (h *Hub) tellNext(r *running) {
	k := &r.know
	k.mu.Lock()
	k.soon = false
	old := time.Since(k.read) > knowsAgain
	k.mu.Unlock()
	if old {
		ctx, cancel := context.WithTimeout(context.Background(), patience)
		defer cancel()
		if _, err := h.know(ctx, r); err != nil {
			h.log.Error("who is next", "error", store.Bare(err))
		}
		h.hear(r)
	}
	at := now()
	rows, changes := r.next(at)
	k.mu.Lock()
	same := slices.EqualFunc(rows, k.told, insight.Row.Same)
	k.told = rows
	queued := k.queued
	k.queued = false
	if k.later != nil {
		k.later.Stop()
		k.later = nil
	}
	if changes > 0 {
		k.later = time.AfterFunc(time.Duration(changes-at)*time.Millisecond,
			func() { h.guard("next", func() { h.ponder(r) }) })
	}
	k.mu.Unlock()
	if !same {
		h.tell(r, telling{[]string{staffChannel(r.kept.ID)}, News{Kind: NewsNext, Next: &Next{rows}}})
	}
	if queued {
		queue := r.queue()
		h.tell(r, telling{[]string{staffChannel(r.kept.ID)}, News{Kind: NewsQueue, Queue: &queue}})
	}
}

// next says who is next, and when that changes by time alone.
func (r *running) next(at int64) ([]insight.Row, int64) {
	r.mu.RLock()
	state, board := r.state, r.board
	said := r.voices
	help := map[string]int{}
	for i, c := range said.Help {
		help[c.Student] = i
	}
	students := make([]insight.Student, 0, len(r.order))
	for _, id := range r.order {
		p := r.people[id]
		s := insight.Student{ID: id, Name: p.Name, Here: p.connections > 0, Away: p.Away, Removed: !state.Seated(id),
			Frame: state.Place(board.Board, session.Student{ID: id, At: p.At}), Since: p.since,
			Looked: said.Looked[id], PresenceSince: p.turned}
		if s.Frame == state.Frame {
			s.Since = max(s.Since, state.Since)
		}
		if i, asks := help[id]; asks {
			s.Help, s.Coming = said.Help[i].At, said.Help[i].Coming
		}
		for _, d := range said.Picked {
			if d.Student == id {
				s.Picked++
			}
		}
		s.Done = slices.Contains(said.Done[s.Frame], id)
		students = append(students, s)
	}
	r.mu.RUnlock()
	before := r.drawnBefore()
	k := &r.know
	k.mu.Lock()
	for i := range students {
		s := &students[i]
		s.Picked += before[s.ID]
		s.Work = k.work[on{s.ID, s.Frame}]
		s.Wrong, s.WrongAt = wrong(state, k.assess(on{s.ID, s.Frame}, board))
	}
	k.mu.Unlock()
	return insight.Next(students, at)
}

// wrong gives what is the same for all who are wrong in the same way, of the answer
// given last that is wrong in the round that is asked, and when it was given.
func wrong(state session.State, answers map[string]answered) (key string, at int64) {
	for _, a := range answers {
		if !a.is || a.Round != state.Polls[a.Poll].Round || a.as.Verdict != poll.Wrong {
			continue
		}
		// A known mistake is the same however it was written.
		same := cmp.Or(a.as.Mistake, a.as.Says)
		if a.at > at || a.at == at && a.Poll+same > key {
			key, at = a.Poll+same, a.at
		}
	}
	return key, at
}

// drawnBefore says how often each participant was drawn in lessons before, by their ids.
func (r *running) drawnBefore() map[string]int {
	k := &r.know
	k.mu.Lock()
	byStudent := k.before
	k.mu.Unlock()
	r.mu.RLock()
	defer r.mu.RUnlock()
	before := map[string]int{}
	for id, p := range r.people {
		if n := byStudent[p.Student]; n > 0 && p.Student != "" {
			before[id] = n
		}
	}
	return before
}

// here lists the students who are here, and may be; the caller holds the session's lock.
func (r *running) here() []string {
	var here []string
	for _, id := range r.order {
		if r.people[id].connections > 0 && r.state.Seated(id) {
			here = append(here, id)
		}
	}
	return here
}

// sight notes whether the lesson is in sight on a student's device.
func (h *Hub) sight(s seat, ask Sight) {
	r := s.session
	r.mu.Lock()
	p, ok := r.people[s.actor.ID]
	if !ok || p.Away == ask.Away {
		r.mu.Unlock()
		return
	}
	p.Away, p.turned = ask.Away, now()
	person := p.Person
	person.Here, person.Removed = p.connections > 0, !r.state.Seated(p.ID)
	r.mu.Unlock()
	h.tell(r, telling{[]string{staffChannel(r.kept.ID)}, ofPeople(person)})
	h.ponder(r)
}

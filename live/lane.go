package live

import (
	"context"
	"errors"
	"hash/maphash"
	"slices"
	"sync/atomic"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// groupMax is how many operations go into one statement. A committer does not
// wait for company: what comes while it commits is its next group.
const groupMax = 512

// request is one operation on its way. Those of one message share its stopped:
// when one is refused for its cost, or could not be stored, so are those after
// it, to keep their order.
type request struct {
	session *running
	at      *held
	actor   sheet.Actor
	op      sheet.Op
	stopped *atomic.Bool
	done    func(sheet.Result, error)
}

// lane is one committer. Each sheet belongs to one lane, so that its
// operations are decided one after the other.
type lane struct {
	hub *Hub
	in  chan *request
}

// submit hands an operation to its sheet's lane; done is called once, after it
// is saved or refused.
func (h *Hub) submit(r *request) {
	select {
	case <-h.stop:
		r.done(sheet.Result{}, refusal.New(refusal.Unavailable))
		return
	default:
	}
	l := h.lanes[maphash.String(h.seed, r.at.key.ID)%lanes]
	r.at.busy.Add(1)
	select {
	case l.in <- r:
	default:
		r.at.busy.Add(-1)
		r.stopped.Store(true)
		r.done(sheet.Result{}, refusal.New(refusal.TooMany))
	}
}

// answer tells what became of an operation, once.
func (h *Hub) answer(r *request, result sheet.Result, err error) {
	r.at.busy.Add(-1)
	h.guard("answer", func() { r.done(result, err) })
}

// run commits what comes until the hub stops, and then what is still waiting.
func (l *lane) run() {
	for {
		select {
		case first := <-l.in:
			l.commit(l.group(first))
		case <-l.hub.stop:
			for {
				select {
				case first := <-l.in:
					l.commit(l.group(first))
				default:
					return
				}
			}
		}
	}
}

// group takes all that is there.
func (l *lane) group(first *request) []*request {
	group := []*request{first}
	for len(group) < groupMax {
		select {
		case r := <-l.in:
			group = append(group, r)
		default:
			return group
		}
	}
	return group
}

// onSheet is what a group has for one sheet.
type onSheet struct {
	at       *held
	session  *running
	waiting  []*request
	accepted []accepted
	draft    *sheet.Draft
	terms    int64
	from     int64
}

type accepted struct {
	*request
	result sheet.Result
}

// commit decides and saves a group. What another server got in before is
// read, and the rest decided again, for as long as patience lasts.
func (l *lane) commit(group []*request) {
	ctx, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	work := bySheet(group)
	for len(work) > 0 {
		var batches []store.Batch
		for _, s := range work {
			if l.hub.guard("decide", func() { l.decide(ctx, s) }) {
				l.giveUp(s, refusal.New(refusal.Failed))
			}
			if len(s.accepted) > 0 {
				batches = append(batches, s.batch())
			}
		}
		stored, failed := l.save(ctx, batches)
		work = slices.DeleteFunc(work, func(s *onSheet) bool {
			err, bad := failed[s.at.key.ID]
			switch {
			case len(s.accepted) == 0:
			case stored[s.at.key.ID]:
				l.finish(s)
			case bad && s.settleTaken(ctx, l.hub, err):
				return len(s.waiting) == 0
			case bad || ctx.Err() != nil:
				// Whether it is stored is not known: the sheet is read anew, and
				// the client sends again.
				l.giveUp(s, refusal.New(refusal.Unavailable))
			default:
				l.stale(ctx, s)
				return false
			}
			return true
		})
	}
}

// giveUp refuses what is on its way for a sheet, and forgets what is in memory of it.
func (l *lane) giveUp(s *onSheet, why error) {
	s.at.mu.Lock()
	s.at.sheet = nil
	s.at.mu.Unlock()
	for _, a := range s.accepted {
		l.hub.answer(a.request, sheet.Result{}, why)
	}
	for _, r := range s.waiting {
		l.hub.answer(r, sheet.Result{}, why)
	}
	s.accepted, s.waiting = nil, nil
}

// save stores the batches and says which are stored and which failed, and why;
// the others have been moved on by another server. If the group fails as a
// whole, each is tried alone, so that one sheet's trouble stays its own.
func (l *lane) save(ctx context.Context, batches []store.Batch) (stored map[string]bool, failed map[string]error) {
	stored, failed = map[string]bool{}, map[string]error{}
	if len(batches) == 0 {
		return stored, failed
	}
	start := time.Now()
	together, err := l.hub.store.Commit(ctx, batches)
	l.hub.metrics.commit(batches, time.Since(start), err)
	if err == nil {
		return together, failed
	}
	l.hub.log.Error("commit failed", "sheets", len(batches), "error", store.Bare(err))
	for _, b := range batches {
		alone, err := l.hub.store.Commit(ctx, []store.Batch{b})
		if err != nil {
			l.hub.log.Error("commit failed", "sheet", b.Sheet, "error", store.Bare(err))
			failed[b.Sheet] = err
		}
		stored[b.Sheet] = alone[b.Sheet]
	}
	return stored, failed
}

// bySheet sorts a group's operations by sheet, in the order they came.
func bySheet(group []*request) []*onSheet {
	var work []*onSheet
	found := map[string]*onSheet{}
	for _, r := range group {
		s, ok := found[r.at.key.ID]
		if !ok {
			s = &onSheet{at: r.at, session: r.session}
			found[r.at.key.ID] = s
			work = append(work, s)
		}
		s.waiting = append(s.waiting, r)
	}
	return work
}

// decide asks the core about each waiting operation of a sheet. The sheet's lock
// is held for each of them alone.
func (l *lane) decide(ctx context.Context, s *onSheet) {
	if err := l.hub.load(ctx, s.at); err != nil {
		l.hub.log.Error("load sheet", "sheet", s.at.key.ID, "error", err)
		l.giveUp(s, err)
		return
	}
	state, board := s.session.snapshot()
	terms, refused := termsFor(state, board, s.at.key.Frame)
	readers := s.session.readersOf(s.at.key.Frame, s.at.key.Owner, state)
	terms.Sharing = s.session.sharing(s.at.key.Owner, state)
	s.terms, s.draft = state.Terms, nil
	for len(s.waiting) > 0 {
		r := s.waiting[0]
		s.waiting = s.waiting[1:]
		var result sheet.Result
		err := refused
		panicked := l.hub.guard("operation", func() {
			if err == nil && r.stopped.Load() {
				err = refusal.New(refusal.TooMany)
			}
			if err == nil {
				err = s.session.mayGoOn(r)
			}
			if err != nil {
				return
			}
			lost := s.at.with(func(on *sheet.Sheet) {
				// What another server stored meanwhile may have been read by
				// somebody who looked at the sheet: the draft then begins there.
				if s.draft == nil {
					s.draft, s.from = on.Draft(), on.Seq
				}
				result, err = s.draft.Decide(terms, in(state, r.actor), r.op)
			})
			err = errors.Join(err, lost)
		})
		if panicked {
			l.hub.answer(r, sheet.Result{}, refusal.New(refusal.Failed))
			continue
		}
		s.session.charge(r, result, readers)
		if err != nil || result.Again {
			l.hub.answer(r, result, err)
		} else {
			s.accepted = append(s.accepted, accepted{r, result})
		}
	}
}

// batch gives what was accepted for storing.
func (s *onSheet) batch() store.Batch {
	b := store.Batch{Sheet: s.at.key.ID, Session: s.session.kept.ID, Expected: s.from, Terms: s.terms,
		Changes: make([]sheet.Change, len(s.accepted))}
	for i, a := range s.accepted {
		b.Changes[i] = a.result.Change
	}
	// The draft lies over the sheet, which somebody may just bring up to what is stored.
	s.at.mu.Lock()
	defer s.at.mu.Unlock()
	b.Marks, b.Amounts = s.draft.Touched()
	return b
}

// stale reads what the sheet and its session have missed and puts the accepted
// operations back in line.
func (l *lane) stale(ctx context.Context, s *onSheet) {
	l.hub.metrics.conflicts.Inc()
	if err := l.hub.catchUp(ctx, s.at); err != nil {
		l.hub.log.Error("catch up", "sheet", s.at.key.ID, "error", err)
	}
	if err := l.hub.refresh(ctx, s.session); err != nil {
		l.hub.log.Error("refresh session", "session", s.at.key.Session, "error", err)
	}
	s.again()
}

func (s *onSheet) again() {
	var back []*request
	for _, a := range s.accepted {
		back = append(back, a.request)
	}
	s.accepted, s.waiting = nil, append(back, s.waiting...)
}

// settleTaken answers those operations that the log has had for so long that the
// sheet does not remember them, and puts the others back in line. It reports
// whether there were any: then the failure was of their being stored twice.
func (s *onSheet) settleTaken(ctx context.Context, h *Hub, failure error) bool {
	if !errors.Is(failure, store.ErrTaken) {
		return false
	}
	ops := make([]string, len(s.accepted))
	for i, a := range s.accepted {
		ops[i] = a.op.ID
	}
	taken, err := h.store.Taken(ctx, s.at.key.ID, ops)
	if err != nil || len(taken) == 0 {
		return false
	}
	byOp := map[string]store.Taken{}
	for _, t := range taken {
		byOp[t.Op] = t
		s.at.with(func(on *sheet.Sheet) { on.LoadDone(t.Op, t.Seq, t.Author) }) // sent once more, it is known
	}
	s.accepted = slices.DeleteFunc(s.accepted, func(a accepted) bool {
		t, ok := byOp[a.op.ID]
		switch {
		case !ok:
			return false
		case t.Author != a.result.Change.By:
			h.answer(a.request, sheet.Result{}, refusal.New(refusal.NotYours))
		default:
			h.answer(a.request, sheet.Result{Change: sheet.Change{Seq: t.Seq}, Again: true}, nil)
		}
		s.session.chargeTaken(a.request)
		return true
	})
	s.again()
	return true
}

// finish takes what was saved, acknowledges and tells it.
func (l *lane) finish(s *onSheet) {
	var told []telling
	panicked := l.hub.guard("take", func() {
		lost := s.at.with(func(on *sheet.Sheet) {
			for _, a := range s.accepted {
				on.Take(a.result.Change)
			}
			s.at.ink.Store(int64(on.Points()))
			told = s.session.changesFor(s.at.key, on, s.accepted)
		})
		if lost != nil {
			l.hub.log.Error("saved, and not in memory", "sheet", s.at.key.ID)
		}
	})
	if panicked {
		s.at.mu.Lock()
		s.at.sheet = nil
		s.at.mu.Unlock()
	}
	l.hub.guard("learn", func() { l.hub.learn(s) })
	for _, a := range s.accepted {
		l.hub.answer(a.request, a.result, nil)
	}
	l.hub.recount(s.session, s.at.key, s.accepted)
	l.hub.tell(s.session, told...)
}

package live

import (
	"context"
	"hash/maphash"
	"slices"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

const (
	gather   = 5 * time.Millisecond // how long a committer waits for company
	groupMax = 512                  // operations in one statement
)

// request is one operation on its way.
type request struct {
	session *running
	sheet   string
	actor   sheet.Actor
	op      sheet.Op
	done    func(sheet.Result, error)
}

// lane is one committer. Each sheet belongs to one lane, so that its
// operations are applied one after the other.
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
	l := h.lanes[maphash.String(h.seed, r.sheet)%lanes]
	select {
	case l.in <- r:
	default:
		r.done(sheet.Result{}, refusal.New(refusal.TooMany))
	}
}

// run commits what comes until the hub stops, and then what is still waiting.
func (l *lane) run() {
	for {
		select {
		case first := <-l.in:
			l.commit(l.group(first, time.After(gather)))
		case <-l.hub.stop:
			for {
				select {
				case first := <-l.in:
					now := make(chan time.Time)
					close(now)
					l.commit(l.group(first, now))
				default:
					return
				}
			}
		}
	}
}

// group gathers operations until the time is up or the group is full.
func (l *lane) group(first *request, up <-chan time.Time) []*request {
	group := []*request{first}
	for len(group) < groupMax {
		select {
		case r := <-l.in:
			group = append(group, r)
		case <-up:
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
	rev      int64
	from     int64
}

type accepted struct {
	*request
	result sheet.Result
}

// commit applies and saves a group. What another server got in before is
// read, and the rest applied again, for as long as patience lasts.
func (l *lane) commit(group []*request) {
	ctx, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	work := l.bySheet(ctx, group)
	for len(work) > 0 {
		var batches []store.Batch
		for _, s := range work {
			l.apply(ctx, s)
			if len(s.accepted) > 0 {
				batches = append(batches, s.batch())
			}
		}
		stored, failed := l.save(ctx, batches)
		work = slices.DeleteFunc(work, func(s *onSheet) bool {
			switch {
			case len(s.accepted) == 0:
			case stored[s.at.key.ID]:
				l.finish(s)
			case !failed[s.at.key.ID] && ctx.Err() == nil:
				l.stale(ctx, s)
				return false
			default:
				// What was applied here is not saved: forget the sheet, and
				// let the client send again.
				s.at.sheet = nil
				for _, a := range s.accepted {
					a.done(sheet.Result{}, refusal.New(refusal.Unavailable))
				}
			}
			s.at.mu.Unlock()
			return true
		})
	}
}

// save stores the batches and says which are stored and which failed; the
// others have been moved on by another server. If the group fails as a whole,
// each is tried alone, so that one sheet's trouble stays its own.
func (l *lane) save(ctx context.Context, batches []store.Batch) (stored, failed map[string]bool) {
	stored, failed = map[string]bool{}, map[string]bool{}
	if len(batches) == 0 {
		return stored, failed
	}
	start := time.Now()
	together, err := l.hub.store.Commit(ctx, batches)
	l.hub.metrics.commit(batches, time.Since(start), err)
	if err == nil {
		return together, failed
	}
	l.hub.log.Error("commit failed", "sheets", len(batches), "error", err)
	for _, b := range batches {
		alone, err := l.hub.store.Commit(ctx, []store.Batch{b})
		if err != nil {
			l.hub.log.Error("commit failed", "sheet", b.Sheet, "error", err)
			failed[b.Sheet] = true
		}
		stored[b.Sheet] = alone[b.Sheet]
	}
	return stored, failed
}

// bySheet sorts a group's operations by sheet, in the order they came, and
// locks the sheets.
func (l *lane) bySheet(ctx context.Context, group []*request) []*onSheet {
	var work []*onSheet
	found := map[string]*onSheet{}
	for _, r := range group {
		s, ok := found[r.sheet]
		if !ok {
			at, err := l.hub.hold(ctx, r.sheet)
			if err != nil {
				r.done(sheet.Result{}, err)
				continue
			}
			if at.key.Session != r.session.kept.ID {
				r.done(sheet.Result{}, refusal.New(refusal.NoSuchSheet))
				continue
			}
			s = &onSheet{at: at, session: r.session}
			found[r.sheet] = s
			work = append(work, s)
			at.mu.Lock()
		}
		if s.session != r.session {
			r.done(sheet.Result{}, refusal.New(refusal.NoSuchSheet))
			continue
		}
		s.waiting = append(s.waiting, r)
	}
	return work
}

// apply asks the core about each waiting operation of a sheet.
func (l *lane) apply(ctx context.Context, s *onSheet) {
	waiting := s.waiting
	s.waiting, s.accepted = nil, nil
	if err := l.hub.load(ctx, s.at); err != nil {
		l.hub.log.Error("load sheet", "sheet", s.at.key.ID, "error", err)
		for _, r := range waiting {
			r.done(sheet.Result{}, err)
		}
		return
	}
	state := s.session.snapshot()
	s.rev, s.from = state.Rev, s.at.sheet.Seq
	rules, missing := rulesFor(s.session.kept.Content.V, state, s.at.key.Frame)
	for _, r := range waiting {
		result, err := sheet.Result{}, missing
		if missing == nil {
			result, err = s.at.sheet.Apply(rules, in(state, r.actor), r.op)
		}
		if err != nil || result.Again {
			r.done(result, err)
		} else {
			s.accepted = append(s.accepted, accepted{r, result})
		}
	}
}

// batch gives what was accepted for storing.
func (s *onSheet) batch() store.Batch {
	return store.Batch{Sheet: s.at.key.ID, Session: s.at.key.Session, Expected: s.from, Rev: s.rev, Changes: s.changes()}
}

func (s *onSheet) changes() []sheet.Change {
	changes := make([]sheet.Change, len(s.accepted))
	for i, a := range s.accepted {
		changes[i] = a.result.Change
	}
	return changes
}

// stale reads a sheet and its session again and puts the accepted operations back in line.
func (l *lane) stale(ctx context.Context, s *onSheet) {
	l.hub.metrics.conflicts.Inc()
	s.at.sheet = nil
	if err := l.hub.refresh(ctx, s.at.key.Session); err != nil {
		l.hub.log.Error("refresh session", "session", s.at.key.Session, "error", err)
	}
	for _, a := range s.accepted {
		s.waiting = append(s.waiting, a.request)
	}
}

// finish acknowledges and publishes what was saved.
func (l *lane) finish(s *onSheet) {
	for _, a := range s.accepted {
		a.done(a.result, nil)
	}
	l.hub.publishChanges(s.session, s.at, s.changes())
}

package web

import (
	"context"
	"runtime/debug"
	"sync"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/live"
	"alpenglow/store"
)

// How many rehearsals one teacher may have, and all together on this server; how
// long one goes on that nobody looks at, and at most.
const (
	rehearsalsOfOne = 2
	rehearsalsOfAll = 8
	unwatchedFor    = 10 * time.Minute
	rehearsalLasts  = 3 * time.Hour
)

// rehearsals are the simulated classes at work on this server.
type rehearsals struct {
	mu      sync.Mutex
	all     map[string]*rehearsal // by session
	waiting map[string]int        // that are just beginning, by teacher
}

type rehearsal struct {
	class          Class
	owner          string
	began, watched time.Time
}

func newRehearsals() *rehearsals {
	return &rehearsals{all: map[string]*rehearsal{}, waiting: map[string]int{}}
}

// reserve takes a place for a teacher's rehearsal before it begins; call done when
// it has, or has not.
func (r *rehearsals) reserve(owner string) (done func(), err error) {
	r.mu.Lock()
	defer r.mu.Unlock()
	own, all := r.waiting[owner], len(r.all)
	for _, n := range r.waiting {
		all += n
	}
	for _, one := range r.all {
		if one.owner == owner {
			own++
		}
	}
	if own >= rehearsalsOfOne || all >= rehearsalsOfAll {
		return nil, refusal.New(refusal.RehearsalsFull)
	}
	r.waiting[owner]++
	return func() {
		r.mu.Lock()
		defer r.mu.Unlock()
		if r.waiting[owner]--; r.waiting[owner] == 0 {
			delete(r.waiting, owner)
		}
	}, nil
}

func (r *rehearsals) add(session, owner string, class Class) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.all[session] = &rehearsal{class: class, owner: owner, began: time.Now(), watched: time.Now()}
}

func (r *rehearsals) find(session string) Class {
	r.mu.Lock()
	defer r.mu.Unlock()
	if one, ok := r.all[session]; ok {
		return one.class
	}
	return nil
}

// drop sends the simulated class of a session home, if it has one.
func (r *rehearsals) drop(session string) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if one, ok := r.all[session]; ok {
		one.class.Stop()
		delete(r.all, session)
	}
}

// left lists those that nobody has looked at for a while, or that have gone on
// for long enough.
func (r *rehearsals) left(now time.Time, watched func(session string) bool) []string {
	r.mu.Lock()
	defer r.mu.Unlock()
	var left []string
	for id, one := range r.all {
		if watched(id) {
			one.watched = now
		}
		if now.Sub(one.watched) > unwatchedFor || now.Sub(one.began) > rehearsalLasts {
			left = append(left, id)
		}
	}
	return left
}

// end ends a rehearsal and throws away all that was done in it.
func (s *server) end(ctx context.Context, sessionID string) error {
	s.rehearsals.drop(sessionID)
	if err := s.finish(ctx, sessionID); err != nil {
		return err
	}
	// From here on nothing of it is stored: what is on its way meets the end.
	return s.Store.ForgetPractice(ctx, sessionID)
}

// sweep throws away from time to time what nobody has asked for.
func (s *server) sweep(ctx context.Context) {
	tick := time.NewTicker(time.Minute)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case now := <-tick.C:
			s.guarded("sweep", func() {
				s.intakes.mu.Lock()
				s.intakes.forget(now.Add(-intakeForgets))
				s.intakes.mu.Unlock()
				s.outputs.forget(now)
				if err := s.Store.ReadSaid(ctx); err != nil {
					s.Log.Error("read what was written, for searching", "error", store.Bare(err))
				}
				for _, id := range s.rehearsals.left(now, s.Hub.Watched) {
					if err := s.end(ctx, id); err != nil {
						s.Log.Error("end a rehearsal", "session", id, "error", err)
					}
				}
			})
		}
	}
}

// guarded runs a part of the work of which a bug must not end the server.
func (s *server) guarded(what string, work func()) {
	defer func() {
		if cause := recover(); cause != nil {
			s.panics.Inc()
			s.Log.Error("panic", "in", what, "cause", live.Cause(cause), "stack", string(debug.Stack()))
		}
	}()
	work()
}

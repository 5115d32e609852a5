// Package live runs the sessions in progress: it puts operations in order,
// saves them in groups, and tells each audience what it may know.
package live

import (
	"context"
	"errors"
	"fmt"
	"hash/maphash"
	"log/slog"
	"sync"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"

	"github.com/centrifugal/centrifuge"
	"github.com/google/uuid"
	"github.com/prometheus/client_golang/prometheus"
)

const (
	lanes     = 2                // committers; a sheet always goes to the same one; more were slower on two cores
	keepFor   = 10 * time.Minute // how long what is not used stays in memory
	patience  = 10 * time.Second // how long one call to the database may take
	laneQueue = 4096             // operations waiting for one committer
	attempts  = 8                // tries of a command when other servers change the same session
)

// Hub holds the sessions in progress on this server. Any number of servers may
// run sessions of the same database; PostgreSQL decides the order.
type Hub struct {
	store   *store.Store
	node    *centrifuge.Node
	log     *slog.Logger
	metrics *metrics
	lanes   []*lane
	seed    maphash.Seed
	stop    chan struct{}
	working sync.WaitGroup

	mu       sync.Mutex
	sessions map[string]*running
	sheets   map[string]*held

	passMu  sync.Mutex
	passing map[string][]Pass // by sheet, what waits to be told
}

// New starts a hub. Close it to finish what has been accepted.
func New(s *store.Store, log *slog.Logger, registry prometheus.Registerer) (*Hub, error) {
	node, err := newNode(log)
	if err != nil {
		return nil, fmt.Errorf("start realtime: %w", err)
	}
	h := &Hub{store: s, node: node, log: log, metrics: newMetrics(registry, node), seed: maphash.MakeSeed(), stop: make(chan struct{}),
		sessions: map[string]*running{}, sheets: map[string]*held{}, passing: map[string][]Pass{}}
	h.listen()
	for range lanes {
		l := &lane{hub: h, in: make(chan *request, laneQueue)}
		h.lanes = append(h.lanes, l)
		h.working.Go(l.run)
	}
	h.working.Go(h.sweep)
	if err := node.Run(); err != nil {
		return nil, fmt.Errorf("start realtime: %w", err)
	}
	return h, nil
}

// Close stops taking operations, saves those that were accepted, and then
// closes all connections; clients come back by themselves.
func (h *Hub) Close(ctx context.Context) error {
	close(h.stop)
	h.working.Wait()
	return h.node.Shutdown(ctx)
}

// running is a session in memory.
type running struct {
	mu     sync.RWMutex
	kept   store.Session // as it was when loaded; its State is not used
	state  session.State
	people map[string]*participant // by id
	order  []string                // their ids in the order they joined
	staff  int                     // connections of teachers
	used   time.Time
}

// held is a sheet in memory. Its lock is kept from applying operations until
// they are saved, so that nobody reads what is not.
type held struct {
	mu    sync.Mutex
	key   store.SheetKey
	sheet *sheet.Sheet // nil until loaded, and after a failure
	used  time.Time
}

// session gives a session in memory and loads it when it is not there.
func (h *Hub) session(ctx context.Context, id string) (*running, error) {
	if uuid.Validate(id) != nil {
		return nil, refusal.New(refusal.NotFound)
	}
	h.mu.Lock()
	r, ok := h.sessions[id]
	if !ok {
		r = &running{people: map[string]*participant{}}
		h.sessions[id] = r
	}
	r.used = time.Now()
	h.mu.Unlock()
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.kept.ID != "" {
		return r, nil
	}
	return r, h.read(ctx, r, id)
}

// read brings a session in memory up to what is stored; the caller holds its lock.
func (h *Hub) read(ctx context.Context, r *running, id string) error {
	kept, err := h.store.Session(ctx, id)
	if err != nil {
		return missing(err, refusal.NotFound)
	}
	list, err := h.store.Participants(ctx, id)
	if err != nil {
		return err
	}
	if r.kept.ID == "" {
		r.kept = kept // never changes, so that it is read without the lock
	}
	r.state = kept.State.V
	for _, p := range list {
		r.add(p).At = place(p)
	}
	return nil
}

// refresh reads the state of a session again, after another server changed it.
func (h *Hub) refresh(ctx context.Context, id string) error {
	r, err := h.session(ctx, id)
	if err != nil {
		return err
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	return h.read(ctx, r, id)
}

// snapshot gives the state of a session; its maps are never written to.
func (r *running) snapshot() session.State {
	r.mu.RLock()
	defer r.mu.RUnlock()
	return r.state
}

// hold gives the place of a sheet in memory, which may not be loaded yet.
func (h *Hub) hold(ctx context.Context, id string) (*held, error) {
	h.mu.Lock()
	at, ok := h.sheets[id]
	if ok {
		at.used = time.Now()
	}
	h.mu.Unlock()
	if ok {
		return at, nil
	}
	if uuid.Validate(id) != nil {
		return nil, refusal.New(refusal.NoSuchSheet)
	}
	key, err := h.store.SheetKey(ctx, id)
	if err != nil {
		return nil, missing(err, refusal.NoSuchSheet)
	}
	return h.place(key), nil
}

// place gives the place in memory of a sheet that is known to exist.
func (h *Hub) place(key store.SheetKey) *held {
	h.mu.Lock()
	defer h.mu.Unlock()
	at, ok := h.sheets[key.ID]
	if !ok {
		at = &held{key: key}
		h.sheets[key.ID] = at
	}
	at.used = time.Now()
	return at
}

// load makes sure that the sheet is in memory; the caller holds its lock.
func (h *Hub) load(ctx context.Context, at *held) error {
	if at.sheet != nil {
		return nil
	}
	loaded, err := h.store.LoadSheet(ctx, at.key)
	if err != nil {
		return err
	}
	at.sheet = loaded
	return nil
}

// catchUp takes what other servers have saved on a sheet; the caller holds its lock.
func (h *Hub) catchUp(ctx context.Context, at *held) error {
	if at.sheet == nil {
		return h.load(ctx, at)
	}
	seq, err := h.store.SheetSeq(ctx, at.key.ID)
	if err != nil || seq == at.sheet.Seq {
		return err
	}
	changes, err := h.store.ChangesSince(ctx, at.key.ID, at.sheet.Seq)
	if err != nil {
		return err
	}
	for _, c := range changes {
		at.sheet.Take(c)
	}
	return nil
}

// sweep forgets from time to time what has not been used.
func (h *Hub) sweep() {
	tick := time.NewTicker(time.Minute)
	defer tick.Stop()
	for {
		select {
		case <-h.stop:
			return
		case now := <-tick.C:
			h.forget(now.Add(-keepFor))
		}
	}
}

func (h *Hub) forget(before time.Time) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for id, at := range h.sheets {
		if at.used.Before(before) && at.mu.TryLock() {
			delete(h.sheets, id)
			at.mu.Unlock()
		}
	}
	for id, r := range h.sessions {
		if r.used.Before(before) && r.mu.TryLock() {
			if r.present() == 0 {
				delete(h.sessions, id)
			}
			r.mu.Unlock()
		}
	}
}

// missing turns a row that is not there into a refusal.
func missing(err error, code refusal.Code) error {
	if errors.Is(err, store.ErrNotFound) {
		return refusal.New(code)
	}
	return err
}

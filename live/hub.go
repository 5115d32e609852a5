// Package live runs the sessions in progress: it puts operations in order,
// saves them in groups, and tells each audience what it may know.
package live

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"hash/maphash"
	"log/slog"
	"slices"
	"sync"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/centrifugal/centrifuge"
	"github.com/prometheus/client_golang/prometheus"
	"golang.org/x/sync/singleflight"
)

const (
	lanes     = 2                // committers; a sheet always goes to the same one; more were slower on two cores
	keepFor   = 10 * time.Minute // how long what is not used stays in memory
	sweepsIn  = 15 * time.Second // how often what is not used is looked for
	patience  = 10 * time.Second // how long one call to the database may take
	laneQueue = 4096             // operations waiting for one committer
	attempts  = 8                // tries of a command when other servers change the same session

	// maxInk is how many points of ink lie in memory, over all sheets, before
	// those that were used longest ago are forgotten: some 200 MB.
	maxInk = 8_000_000
	// inUse is how long a sheet is left in memory at least.
	inUse = 30 * time.Second
)

// Hub holds the sessions in progress on this server. Any number of servers may
// run sessions of the same database; PostgreSQL decides the order.
//
// None of its locks is held while the database is asked or while anybody is told.
type Hub struct {
	store   *store.Store
	node    *centrifuge.Node
	log     *slog.Logger
	metrics *metrics
	lanes   []*lane
	seed    maphash.Seed
	stop    chan struct{}
	working sync.WaitGroup
	reading singleflight.Group // what many ask the database at the same time is asked once

	mu       sync.Mutex
	sessions map[string]*running
	sheets   map[string]*held

	pasts   pasts
	seats   seats
	passMu  sync.Mutex
	passing map[string][]Pass // by sheet, what waits to be told
}

// New starts a hub. Close it to finish what has been accepted.
func New(s *store.Store, log *slog.Logger, registry prometheus.Registerer) (*Hub, error) {
	node, err := newNode(log)
	if err != nil {
		return nil, fmt.Errorf("start realtime: %w", err)
	}
	h := &Hub{store: s, node: node, log: log, metrics: newMetrics(registry, node), seed: maphash.MakeSeed(),
		stop:     make(chan struct{}),
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
// closes all connections; clients come back by themselves. When ctx ends
// first, what is not saved by then is left: devices send it again.
func (h *Hub) Close(ctx context.Context) error {
	close(h.stop)
	done := make(chan struct{})
	go func() {
		h.working.Wait()
		close(done)
	}()
	select {
	case <-done:
	case <-ctx.Done():
		h.log.Error("committers did not end in time")
	}
	return h.node.Shutdown(ctx)
}

// ask reads something from the database once for all who ask for it at the same
// time. It goes on when one of them gives up.
func ask[T any](ctx context.Context, h *Hub, key string, read func(context.Context) (T, error)) (T, error) {
	answer := h.reading.DoChan(key, func() (v any, err error) {
		within, cancel := context.WithTimeout(context.WithoutCancel(ctx), patience)
		defer cancel()
		if h.guard("reading", func() { v, err = read(within) }) {
			err = refusal.New(refusal.Failed)
		}
		return v, err
	})
	select {
	case a := <-answer:
		v, _ := a.Val.(T)
		return v, a.Err
	case <-ctx.Done():
		var none T
		return none, ctx.Err()
	}
}

// sweep forgets from time to time what has not been used.
func (h *Hub) sweep() {
	tick := time.NewTicker(sweepsIn)
	defer tick.Stop()
	for {
		select {
		case <-h.stop:
			return
		case now := <-tick.C:
			h.guard("sweep", func() {
				h.forget(now, keepFor, maxInk)
				h.pasts.forget(now.Add(-pastFor), "")
			})
		}
	}
}

// Forget drops what is in memory of a session that is over: it is read anew.
func (h *Hub) Forget(session string) {
	h.pasts.forget(time.Time{}, session)
	h.mu.Lock()
	defer h.mu.Unlock()
	delete(h.sessions, session)
	for id, at := range h.sheets {
		if at.key.Session == session && at.busy.Load() == 0 {
			delete(h.sheets, id)
		}
	}
}

// forget drops the sheets and sessions that were not used for a while, and the
// sheets that were used longest ago while more ink than most lies in memory.
func (h *Hub) forget(now time.Time, unused time.Duration, most int) {
	h.mu.Lock()
	defer h.mu.Unlock()
	var rest []*held
	ink := 0
	for id, at := range h.sheets {
		if at.busy.Load() > 0 {
			continue
		}
		if at.used.Before(now.Add(-unused)) {
			delete(h.sheets, id)
			continue
		}
		ink += int(at.ink.Load())
		rest = append(rest, at)
	}
	slices.SortFunc(rest, func(a, b *held) int { return a.used.Compare(b.used) })
	for _, at := range rest {
		if ink <= most || at.used.After(now.Add(-min(inUse, unused))) {
			break
		}
		ink -= int(at.ink.Load())
		delete(h.sheets, at.key.ID)
	}
	for id, r := range h.sessions {
		if r.used.Before(now.Add(-unused)) && r.present() == 0 {
			delete(h.sessions, id)
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

func byOwner(a, b store.SheetKey) int { return cmp.Compare(a.Owner, b.Owner) }

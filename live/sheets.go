package live

import (
	"context"
	"sync"
	"sync/atomic"
	"time"

	"alpenglow/core/id"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// held is a sheet in memory. Only its lane decides what changes on it; anybody
// may bring it up to what is stored.
type held struct {
	key  store.SheetKey
	used time.Time    // under the hub's lock
	busy atomic.Int64 // operations on their way to its lane or in it
	ink  atomic.Int64 // points in memory

	mu    sync.Mutex
	sheet *sheet.Sheet // nil until loaded, and after a failure
}

// hold gives a sheet in memory, loaded.
func (h *Hub) hold(ctx context.Context, sheetID string) (*held, error) {
	if !id.IsUUID(sheetID) {
		return nil, refusal.New(refusal.NoSuchSheet)
	}
	h.mu.Lock()
	at, ok := h.sheets[sheetID]
	if ok {
		at.used = time.Now()
	}
	h.mu.Unlock()
	if !ok {
		key, err := ask(ctx, h, "key "+sheetID,
			func(ctx context.Context) (store.SheetKey, error) { return h.store.SheetKey(ctx, sheetID) })
		if err != nil {
			return nil, missing(err, refusal.NoSuchSheet)
		}
		at = h.place(key)
	}
	return at, h.load(ctx, at)
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

// load makes sure that a sheet is in memory.
func (h *Hub) load(ctx context.Context, at *held) error {
	if at.loaded() {
		return nil
	}
	_, err := ask(ctx, h, "load "+at.key.ID, func(ctx context.Context) (any, error) {
		loaded, err := h.store.LoadSheet(ctx, at.key)
		if err == nil {
			at.take(loaded)
		}
		return nil, missing(err, refusal.NoSuchSheet)
	})
	return err
}

// loadAll makes sure that sheets are in memory, and as new as their rows were
// when they were read.
func (h *Hub) loadAll(ctx context.Context, keys []store.SheetKey) ([]*held, error) {
	all := make([]*held, len(keys))
	for i, key := range keys {
		all[i] = h.place(key)
	}
	// What a whole class asks for at once is read once. Reading that had begun
	// before may bring what is older than asked for: then once more.
	for range 3 {
		var old []store.SheetKey
		ids := "load"
		for i, key := range keys {
			if all[i].seq() < key.Seq || !all[i].loaded() {
				old = append(old, key)
				ids += " " + key.ID
			}
		}
		if len(old) == 0 {
			return all, nil
		}
		_, err := ask(ctx, h, ids, func(ctx context.Context) (any, error) {
			loaded, err := h.store.LoadSheets(ctx, old)
			for _, key := range old {
				if s, ok := loaded[key.ID]; ok {
					h.place(key).take(s)
				}
			}
			return nil, err
		})
		if err != nil {
			return nil, err
		}
	}
	return all, nil
}

func (at *held) loaded() bool {
	at.mu.Lock()
	defer at.mu.Unlock()
	return at.sheet != nil
}

func (at *held) seq() int64 {
	at.mu.Lock()
	defer at.mu.Unlock()
	if at.sheet == nil {
		return 0
	}
	return at.sheet.Seq
}

// take puts a sheet as it was read into its place, unless what is there is newer.
func (at *held) take(s *sheet.Sheet) {
	at.mu.Lock()
	defer at.mu.Unlock()
	if at.sheet == nil || at.sheet.Seq < s.Seq {
		at.sheet = s
	}
	at.ink.Store(int64(at.sheet.Points()))
}

// fewChanges is up to how many changes that are missing are read from the log;
// when it is more, the sheet is read whole.
const fewChanges = 500

// catchUp takes what other servers have saved on a sheet.
func (h *Hub) catchUp(ctx context.Context, at *held) error {
	_, err := ask(ctx, h, "up "+at.key.ID, func(ctx context.Context) (any, error) {
		seq, err := h.store.SheetSeq(ctx, at.key.ID)
		if err != nil || seq <= at.seq() && at.loaded() {
			return nil, err
		}
		if has := at.seq(); has > 0 && seq-has <= fewChanges {
			changes, err := h.store.ChangesSince(ctx, at.key.ID, has, fewChanges)
			if err != nil {
				return nil, err
			}
			at.mu.Lock()
			defer at.mu.Unlock()
			for _, c := range changes {
				if at.sheet != nil && c.Seq == at.sheet.Seq+1 {
					at.sheet.Take(c)
				}
			}
			return nil, nil
		}
		loaded, err := h.store.LoadSheet(ctx, at.key)
		if err == nil {
			at.take(loaded)
		}
		return nil, err
	})
	return err
}

// with works with a sheet that is loaded, under its lock; what it does must not wait.
func (at *held) with(work func(*sheet.Sheet)) error {
	at.mu.Lock()
	defer at.mu.Unlock()
	if at.sheet == nil {
		return refusal.New(refusal.Unavailable)
	}
	work(at.sheet)
	return nil
}

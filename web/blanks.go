package web

import (
	"sync"

	"alpenglow/core/picture"

	"golang.org/x/sync/singleflight"
)

// blanksBytes is how much of pictures with blank parts lies in memory.
const blanksBytes = 16 << 20

// blanks keeps pictures with blank parts for a while, so that each is painted once.
type blanks struct {
	painting singleflight.Group
	mu       sync.Mutex
	kept     map[string]picture.Picture
	order    []string // the oldest first
	bytes    int
}

// get gives a picture, painted when it is not there.
func (b *blanks) get(key string, paint func() (picture.Picture, error)) (picture.Picture, error) {
	b.mu.Lock()
	known, ok := b.kept[key]
	b.mu.Unlock()
	if ok {
		return known, nil
	}
	painted, err, _ := b.painting.Do(key, func() (any, error) {
		p, err := paint()
		if err == nil {
			b.keep(key, p)
		}
		return p, err
	})
	return painted.(picture.Picture), err
}

func (b *blanks) keep(key string, p picture.Picture) {
	b.mu.Lock()
	defer b.mu.Unlock()
	if _, ok := b.kept[key]; ok || len(p.Data) > blanksBytes {
		return
	}
	if b.kept == nil {
		b.kept = map[string]picture.Picture{}
	}
	b.kept[key] = p
	b.order = append(b.order, key)
	for b.bytes += len(p.Data); b.bytes > blanksBytes; {
		b.bytes -= len(b.kept[b.order[0]].Data)
		delete(b.kept, b.order[0])
		b.order = b.order[1:]
	}
}

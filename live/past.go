package live

import (
	"cmp"
	"context"
	"sort"
	"sync"
	"time"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

const (
	// momentsEvery is after how many changes of a sheet its state is kept while its
	// past is looked at, so that any moment is made from at most so many changes.
	momentsEvery = 500
	// maxPasts is how many sheets' pasts lie in memory, maxPast how many changes one has.
	maxPasts = 4
	maxPast  = 100_000
	// readPast is how many changes are read at once.
	readPast = 5000
	// pastFor is how long a past lies in memory that nobody looks at.
	pastFor = 2 * time.Minute
)

// past is what happened on a sheet, from its first change on.
type past struct {
	mu      sync.Mutex
	session string
	owner   string
	changes []sheet.Change
	moments [][]lesson.Element // after every momentsEvery changes
	now     *sheet.Sheet       // after all of them
	used    time.Time
}

// pasts are those that are looked at.
type pasts struct {
	mu sync.Mutex
	of map[string]*past
}

func (p *pasts) get(key store.SheetKey) *past {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.of == nil {
		p.of = map[string]*past{}
	}
	at := p.of[key.ID]
	if at == nil {
		if len(p.of) >= maxPasts {
			oldest := ""
			for id, o := range p.of {
				if oldest == "" || o.used.Before(p.of[oldest].used) {
					oldest = id
				}
			}
			delete(p.of, oldest)
		}
		at = &past{session: key.Session, owner: key.Owner, now: sheet.New(key.Owner)}
		p.of[key.ID] = at
	}
	at.used = time.Now()
	return at
}

// forget drops pasts that nobody has looked at for a while, and those of a session.
func (p *pasts) forget(before time.Time, session string) {
	p.mu.Lock()
	defer p.mu.Unlock()
	for id, at := range p.of {
		if at.used.Before(before) || at.session == session {
			delete(p.of, id)
		}
	}
}

// read takes what has happened since, of which there is as much as a number at least;
// the caller holds the lock. Two portions are read at once: most of the time goes into
// making changes of what is stored.
func (p *past) read(ctx context.Context, h *Hub, id string, known int64) error {
	for {
		type portion struct {
			changes []sheet.Change
			err     error
		}
		var second chan portion
		from := p.now.Seq
		if known > from+readPast {
			second = make(chan portion, 1)
			go h.guard("past", func() {
				more, err := h.store.ChangesSince(ctx, id, from+readPast, readPast)
				second <- portion{more, err}
			})
		}
		more, err := h.store.ChangesSince(ctx, id, from, readPast)
		if err == nil {
			err = p.take(more)
		}
		last := len(more) < readPast && second == nil
		if second != nil {
			select {
			case next := <-second:
				if err = cmp.Or(err, next.err); err == nil {
					err = p.take(next.changes)
				}
			case <-ctx.Done():
				err = ctx.Err()
			}
		}
		if err != nil || last {
			return err
		}
	}
}

// take takes changes that follow; those that it has taken are passed over.
func (p *past) take(more []sheet.Change) error {
	if len(p.changes)+len(more) > maxPast {
		return refusal.About(refusal.TooLarge, "more than %d changes", maxPast)
	}
	for _, c := range more {
		if c.Seq <= p.now.Seq {
			continue
		}
		p.now.Take(c)
		if p.changes = append(p.changes, c); len(p.changes)%momentsEvery == 0 {
			p.moments = append(p.moments, p.now.Marks())
		}
	}
	return nil
}

// after gives the marks as they were after the first n changes, the removed ones too,
// and the number of the last of these; the caller holds the lock.
func (p *past) after(n int) ([]lesson.Element, int64) {
	n = min(max(n, 0), len(p.changes))
	kept := n / momentsEvery * momentsEvery
	s := sheet.New(p.owner)
	if kept > 0 {
		s.Seq = p.changes[kept-1].Seq
		for _, m := range p.moments[kept/momentsEvery-1] {
			s.Load(m, s.Seq)
		}
	}
	for _, c := range p.changes[kept:n] {
		s.Take(c)
	}
	return s.Marks(), s.Seq
}

// count says how many changes there are up to a number; what was erased leaves holes.
func (p *past) count(seq int64) int {
	return sort.Search(len(p.changes), func(i int) bool { return p.changes[i].Seq > seq })
}

// look reads the past of a sheet of a session and lets something be done with it.
func (h *Hub) look(ctx context.Context, sessionID, sheetID string, do func(p *past)) error {
	at, err := h.hold(ctx, sheetID)
	if err != nil {
		return err
	}
	if at.key.Session != sessionID {
		return refusal.New(refusal.NoSuchSheet)
	}
	p := h.pasts.get(at.key)
	p.mu.Lock()
	defer p.mu.Unlock()
	if err := p.read(ctx, h, sheetID, at.seq()); err != nil {
		return err
	}
	do(p)
	return nil
}

// Timeline says of each change of a sheet, in order, when it was and whose: At in
// milliseconds since the one before, the first since 1970; By counts in People.
type Timeline struct {
	At     []int64  `json:"at"`
	By     []int    `json:"by"`
	People []string `json:"people"`
}

// Timeline gives what happened on a sheet of a session.
func (h *Hub) Timeline(ctx context.Context, sessionID, sheetID string) (Timeline, error) {
	t := Timeline{At: []int64{}, By: []int{}, People: []string{}}
	err := h.look(ctx, sessionID, sheetID, func(p *past) {
		known := map[string]int{}
		before := int64(0)
		for _, c := range p.changes {
			n, ok := known[c.By]
			if !ok {
				n = len(t.People)
				known[c.By] = n
				t.People = append(t.People, c.By)
			}
			t.At, t.By = append(t.At, c.At-before), append(t.By, n)
			before = c.At
		}
	})
	return t, err
}

// Moment is a sheet as it was after so many of its changes, the last with the number Seq.
type Moment struct {
	Seq   int64            `json:"seq"`
	Marks []lesson.Element `json:"marks"`
}

// Moment gives a sheet of a session as it was after its first n changes.
func (h *Hub) Moment(ctx context.Context, sessionID, sheetID string, n int) (Moment, error) {
	m := Moment{Marks: []lesson.Element{}}
	err := h.look(ctx, sessionID, sheetID, func(p *past) {
		var all []lesson.Element
		all, m.Seq = p.after(n)
		for _, e := range all {
			if e.OnFrame() {
				m.Marks = append(m.Marks, e)
			}
		}
	})
	return m, err
}

// remember gives an operation that sets a sheet back how the sheet was.
func (h *Hub) remember(ctx context.Context, at *held, s *sheet.SetBack) error {
	to, only := s.To, []string(nil)
	if s.Of != "" {
		c, err := h.store.ChangeOf(ctx, at.key.ID, s.Of)
		if err != nil {
			return missing(err, refusal.NoSuchMark)
		}
		to = c.Seq - 1
		for _, m := range c.Put {
			only = append(only, m.ID)
		}
	}
	return h.look(ctx, at.key.Session, at.key.ID, func(p *past) {
		then, _ := p.after(p.count(to))
		s.Given(then, only)
	})
}

// Past is a sheet as it was after a change that was made At, in milliseconds since 1970.
type Past struct {
	At    int64            `json:"at"`
	Marks []lesson.Element `json:"marks"`
}

// pastOf gives a sheet as it was after the change with a number, as somebody may see it.
func (h *Hub) pastOf(ctx context.Context, sessionID, sheetID string, to int64, who audience.Audience) (*Past, error) {
	was := Past{}
	err := h.look(ctx, sessionID, sheetID, func(p *past) {
		n := p.count(to)
		if n > 0 {
			was.At = p.changes[n-1].At
		}
		then, _ := p.after(n)
		was.Marks = who.Past(then, p.now)
	})
	return &was, err
}

// TwoMoments gives the marks that lay on a sheet of a session at two times, in milliseconds since
// 1970, from the lowest to the highest.
func (h *Hub) TwoMoments(
	ctx context.Context,
	sessionID, sheetID string,
	one, other int64,
) (before, after []lesson.Element,
	err error) {
	before, after = []lesson.Element{}, []lesson.Element{}
	err = h.look(ctx, sessionID, sheetID, func(p *past) {
		for at, into := range map[int64]*[]lesson.Element{one: &before, other: &after} {
			all, _ := p.after(sort.Search(len(p.changes), func(i int) bool { return p.changes[i].At > at }))
			for _, e := range all {
				if e.OnFrame() {
					*into = append(*into, e)
				}
			}
		}
		if one == other {
			before = after
		}
	})
	return before, after, err
}

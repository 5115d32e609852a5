package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"hash/maphash"
	"math/rand/v2"
	"net/http"
	"strings"
	"sync"
	"time"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/live"
	"alpenglow/store"

	"github.com/gorilla/websocket"
)

// How often a pupil does something, and on how many notes.
const (
	pupilEvery = 900 * time.Millisecond
	pupilNotes = 8
	pupilWaits = 8 * time.Second // for an answer, before it connects anew
)

// pupil is a client as a student's device is one: what is done is kept in an
// outbox until it is acknowledged, and sent again with the same ids.
type pupil struct {
	url, cookie, session string

	mu       sync.Mutex
	resting  bool
	outbox   []sheet.Op
	made     map[string]time.Time
	acked    map[string]int64 // by operation, its number
	refused  map[refusal.Code]int
	slowest  time.Duration // answer
	notes    []string
	sheet    string
	at       int64
	marks    map[string]lesson.Element // by id
	early    map[int64]sheet.Change
	heard    int64
	conn     *websocket.Conn
	next     int
	waiting  map[int]chan json.RawMessage
	connects int
	here     bool
}

func newPupil(url, cookie, session string) *pupil {
	return &pupil{
		url:     url,
		cookie:  cookie,
		session: session,
		made:    map[string]time.Time{},
		refused: map[refusal.Code]int{},
		acked:   map[string]int64{},
		marks:   map[string]lesson.Element{},
	}
}

// live works and stays connected until ctx ends.
func (p *pupil) live(ctx context.Context) {
	go p.work(ctx)
	for ctx.Err() == nil {
		p.online(ctx)
		select {
		case <-ctx.Done():
		case <-time.After(time.Duration(50+rand.IntN(300)) * time.Millisecond):
		}
	}
}

func (p *pupil) rest() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.resting = true
}

// work puts operations into the outbox.
func (p *pupil) work(ctx context.Context) {
	for {
		select {
		case <-ctx.Done():
			return
		case <-time.After(pupilEvery + time.Duration(rand.IntN(200))*time.Millisecond):
		}
		p.mu.Lock()
		if !p.resting && p.sheet != "" {
			op := sheet.Op{ID: store.NewID(), Sheet: p.sheet}
			x, y := float64(rand.IntN(1200)), float64(rand.IntN(800))
			if len(p.notes) < pupilNotes {
				op.Kind, op.Add = sheet.KindAdd,
					&sheet.Add{Mark: store.NewID(), X: x, Y: y, W: 200, H: 100,
						Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "tide", Tint: "moss"}}}
				p.notes = append(p.notes, op.Add.Mark)
			} else {
				op.Kind, op.Set = sheet.KindSet,
					&sheet.Set{Mark: p.notes[rand.IntN(len(p.notes))], Properties: lesson.Properties{X: &x, Y: &y}}
			}
			p.outbox = append(p.outbox, op)
			p.made[op.ID] = time.Now()
		}
		p.mu.Unlock()
	}
}

// online connects, and works on the connection until it breaks.
func (p *pupil) online(ctx context.Context) {
	dial, cancel := context.WithTimeout(ctx, 5*time.Second)
	defer cancel()
	conn, response, err := websocket.DefaultDialer.DialContext(dial,
		strings.Replace(p.url, "http", "ws", 1)+"/realtime", http.Header{"Origin": {p.url}, "Cookie": {p.cookie}})
	if err != nil {
		return
	}
	response.Body.Close()
	defer conn.Close()
	p.mu.Lock()
	p.conn, p.next, p.waiting, p.early = conn, 1, map[int]chan json.RawMessage{}, map[int64]sheet.Change{}
	p.connects++
	p.mu.Unlock()
	broken := make(chan struct{})
	go func() {
		defer close(broken)
		p.listen(conn)
	}()
	err = p.converse(ctx, broken)
	p.mu.Lock()
	p.here = false
	p.mu.Unlock()
	_ = err // it connects anew, whatever it was
	conn.Close()
	<-broken
}

// converse says hello and sends what waits, one message after the other.
func (p *pupil) converse(ctx context.Context, broken <-chan struct{}) error {
	if _, err := p.ask(ctx, broken, "connect",
		map[string]any{"data": live.Connect{Session: p.session, As: live.RoleStudent}}); err != nil {
		return err
	}
	var hello live.StudentHello
	p.mu.Lock()
	ask := live.Hello{}
	if p.sheet != "" {
		ask.Have = map[string]sheet.Cursor{p.sheet: {Seq: p.at}}
	}
	p.mu.Unlock()
	if err := p.call(ctx, broken, live.MethodHello, ask, &hello); err != nil {
		return err
	}
	if len(hello.Sheets) == 0 {
		return errors.New("no sheet")
	}
	p.mu.Lock()
	p.sheet, p.here = hello.Sheets[0].Sheet, true
	p.mu.Unlock()
	part := hello.Sheets[0].Part
	for {
		p.fill(part)
		if !part.More {
			break
		}
		if err := p.call(ctx, broken, live.MethodSince, live.Since{Sheet: p.sheet, Cursor: part.To},
			&part); err != nil {
			return err
		}
	}
	for {
		p.mu.Lock()
		batch := p.outbox[:min(len(p.outbox), 20)]
		lacks, from := p.heard > p.at || len(p.early) > 0, p.at
		p.mu.Unlock()
		switch {
		case lacks:
			part = sheet.Part{}
			if err := p.call(ctx, broken, live.MethodSince, live.Since{Sheet: p.sheet, Cursor: sheet.Cursor{Seq: from}},
				&part); err != nil {
				return err
			}
			if !part.More {
				p.fill(part)
			}
		case len(batch) > 0:
			if err := p.send(ctx, broken, batch); err != nil {
				return err
			}
		default:
			select {
			case <-broken:
				return errors.New("broken")
			case <-ctx.Done():
				return ctx.Err()
			case <-time.After(20 * time.Millisecond):
			}
		}
	}
}

func (p *pupil) send(ctx context.Context, broken <-chan struct{}, batch []sheet.Op) error {
	var ask live.Ops
	for _, op := range batch {
		text, err := json.Marshal(op)
		if err != nil {
			return err
		}
		ask.Ops = append(ask.Ops, text)
	}
	var reply live.OpsReply
	if err := p.call(ctx, broken, live.MethodOps, ask, &reply); err != nil {
		return err
	}
	if len(reply.Results) != len(batch) {
		time.Sleep(200 * time.Millisecond) // refused as a whole, in passing
		return nil
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	for i, r := range reply.Results {
		switch {
		case r.Problem == nil:
			p.acked[batch[i].ID] = r.Seq
			p.slowest = max(p.slowest, time.Since(p.made[batch[i].ID]))
			p.heard = max(p.heard, r.Seq)
		case r.Problem.Code == refusal.Unavailable || r.Problem.Code == refusal.TooMany:
			continue
		default:
			p.refused[r.Problem.Code]++
		}
		p.outbox = without(p.outbox, batch[i].ID)
	}
	return nil
}

func without(ops []sheet.Op, id string) []sheet.Op {
	left := make([]sheet.Op, 0, len(ops))
	for _, op := range ops {
		if op.ID != id {
			left = append(left, op)
		}
	}
	return left
}

func (p *pupil) call(ctx context.Context, broken <-chan struct{}, method string, data, into any) error {
	text, err := p.ask(ctx, broken, "rpc", map[string]any{"method": method, "data": data})
	if err != nil {
		return err
	}
	return json.Unmarshal(text, into)
}

func (p *pupil) ask(ctx context.Context, broken <-chan struct{}, kind string, body any) (json.RawMessage, error) {
	answer := make(chan json.RawMessage, 1)
	p.mu.Lock()
	id := p.next
	p.next++
	p.waiting[id] = answer
	err := p.conn.WriteJSON(map[string]any{"id": id, kind: body})
	p.mu.Unlock()
	if err != nil {
		return nil, err
	}
	select {
	case text := <-answer:
		return text, nil
	case <-broken:
		return nil, errors.New("broken")
	case <-ctx.Done():
		return nil, ctx.Err()
	case <-time.After(pupilWaits):
		return nil, errors.New("no answer")
	}
}

func (p *pupil) listen(conn *websocket.Conn) {
	for {
		_, text, err := conn.ReadMessage()
		if err != nil {
			return
		}
		for line := range bytes.Lines(text) {
			line = bytes.TrimSpace(line)
			if len(line) == 2 { // {} is a ping
				p.mu.Lock()
				conn.WriteMessage(websocket.TextMessage, line)
				p.mu.Unlock()
				continue
			}
			if c, ok := heardOf.changes(line); ok {
				p.hear(c)
				continue
			}
			var said struct {
				ID      int
				RPC     *struct{ Data json.RawMessage }
				Connect json.RawMessage
			}
			if json.Unmarshal(line, &said) != nil {
				return
			}
			p.mu.Lock()
			if waiting := p.waiting[said.ID]; waiting != nil {
				delete(p.waiting, said.ID)
				if said.RPC != nil {
					waiting <- said.RPC.Data
				} else {
					waiting <- said.Connect
				}
			}
			p.mu.Unlock()
		}
	}
}

// hear takes what is told of the sheet.
func (p *pupil) hear(c *live.SheetChanges) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if !p.here || c == nil {
		return
	}
	for _, change := range c.Changes {
		p.early[change.Seq] = change
	}
	p.heard = max(p.heard, c.Seq)
	p.drain()
}

// readings are what was told, read once for a whole class: this program shares the
// machine with what it measures.
type readings struct {
	mu           sync.Mutex
	newer, older map[uint64]*live.SheetChanges
}

var heardOf = readings{newer: map[uint64]*live.SheetChanges{}}

// changes gives the changes in a line of news; nil for other news, and false for
// what is no news.
func (r *readings) changes(line []byte) (*live.SheetChanges, bool) {
	if !bytes.HasPrefix(line, []byte(`{"push"`)) {
		return nil, false
	}
	hash := maphash.Bytes(hashSeed, line)
	r.mu.Lock()
	defer r.mu.Unlock()
	c, ok := r.newer[hash]
	if !ok {
		if c, ok = r.older[hash]; !ok {
			var push struct {
				Push struct{ Pub struct{ Data live.News } }
			}
			if json.Unmarshal(line, &push) == nil {
				c = push.Push.Pub.Data.Changes
			}
		}
		if len(r.newer) > 5000 {
			r.newer, r.older = map[uint64]*live.SheetChanges{}, r.newer
		}
		r.newer[hash] = c
	}
	return c, true
}

// fill takes a part of the sheet.
func (p *pupil) fill(part sheet.Part) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if part.To.Seq < p.at {
		return
	}
	if part.Anew {
		p.marks = map[string]lesson.Element{}
	}
	p.take(part.Put, part.Gone)
	p.at = part.To.Seq
	if part.To.After != "" {
		p.at--
	}
	p.drain()
}

// drain takes the changes that follow; the caller holds the lock.
func (p *pupil) drain() {
	for seq := range p.early {
		if seq <= p.at {
			delete(p.early, seq)
		}
	}
	for c, ok := p.early[p.at+1]; ok; c, ok = p.early[p.at+1] {
		delete(p.early, c.Seq)
		p.take(c.Put, c.Gone)
		p.at = c.Seq
	}
}

func (p *pupil) take(put []lesson.Element, gone []string) {
	for _, e := range put {
		p.marks[e.ID] = e
	}
	for _, id := range gone {
		delete(p.marks, id)
	}
}

// caughtUp reports whether the pupil is connected, and all that it did before a
// time is acknowledged and shown.
func (p *pupil) caughtUp(before time.Time) bool {
	p.mu.Lock()
	defer p.mu.Unlock()
	return p.here && p.at >= p.heard && (len(p.outbox) == 0 || p.made[p.outbox[0].ID].After(before))
}

func (p *pupil) state() string {
	p.mu.Lock()
	defer p.mu.Unlock()
	return fmt.Sprintf("connected %v, %d waiting, at %d of %d", p.here, len(p.outbox), p.at, p.heard)
}

func asText(e lesson.Element) string {
	text, _ := json.Marshal(e)
	return string(text)
}

// picture gives the marks of a sheet that a class sees, as they are stored.
func picture(ctx context.Context, s *store.Store, id string) (map[string]string, error) {
	key, err := s.SheetKey(ctx, id)
	if err != nil {
		return nil, err
	}
	stored, err := s.LoadSheet(ctx, key)
	if err != nil {
		return nil, err
	}
	marks := map[string]string{}
	for _, e := range audience.Class().Marks(stored) {
		marks[e.ID] = asText(e)
	}
	return marks, nil
}

func samePicture(a map[string]lesson.Element, b map[string]string) bool {
	if len(a) != len(b) {
		return false
	}
	for id, mark := range a {
		if b[id] != asText(mark) {
			return false
		}
	}
	return true
}

package main

import (
	"bytes"
	"context"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"hash/maphash"
	"math/rand/v2"
	"net/http"
	"strconv"
	"strings"
	"sync"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
	"alpenglow/live"

	"github.com/google/uuid"
	"github.com/gorilla/websocket"
)

// adds is how many marks a student of a class puts on the frame before only
// moving them, so that a sheet stays within its limit.
func (k *class) adds() int { return min(20, sheet.MaxMarks/len(k.clients)) }

// client is one student's connection.
type client struct {
	class *class
	conn  *websocket.Conn
	write sync.Mutex
	marks []string

	mu      sync.Mutex
	seq     int64
	seen    []time.Duration
	acked   []time.Duration
	pending map[int]time.Time
	waiting int
	sent    int
	refused int
	double  int
	holes   int
	differs int
	next    int
}

// told is one publication: the bytes are the same for the whole class, so they
// are read once and compared by their hash for the others.
type told struct {
	hash    uint64
	changes []sheet.Change
}

var hashSeed = maphash.MakeSeed()

// connect opens a connection and says hello.
func (o loadOptions) connect(ctx context.Context, k *class, cookie string) (*client, error) {
	header := http.Header{"Origin": {o.url}}
	if cookie != "" {
		header.Set("Cookie", cookie)
	}
	conn, _, err := websocket.DefaultDialer.DialContext(ctx, strings.Replace(o.url, "http", "ws", 1)+"/realtime",
		header)
	if err != nil {
		return nil, fmt.Errorf("connect: %w", err)
	}
	c := &client{class: k, conn: conn, pending: map[int]time.Time{}, next: 3}
	if err := conn.WriteJSON(map[string]any{"id": 1,
		"connect": map[string]any{"data": live.Connect{Session: k.session, As: live.RoleStudent}}}); err != nil {
		return nil, err
	}
	if _, _, err := conn.ReadMessage(); err != nil {
		return nil, fmt.Errorf("connect: %w", err)
	}
	if !o.relay {
		if err := c.hello(); err != nil {
			return nil, err
		}
	}
	go c.listen()
	return c, nil
}

// hello learns the class's sheet.
func (c *client) hello() error {
	if err := c.conn.WriteJSON(map[string]any{"id": 2,
		"rpc": map[string]any{"method": live.MethodHello, "data": struct{}{}}}); err != nil {
		return err
	}
	for {
		_, text, err := c.conn.ReadMessage()
		if err != nil {
			return err
		}
		// Others who join meanwhile are told too; wait for our own reply.
		for line := range bytes.Lines(text) {
			var reply struct {
				ID  int
				RPC struct{ Data live.StudentHello }
			}
			if err := json.Unmarshal(line, &reply); err != nil {
				return err
			}
			if reply.ID != 2 {
				continue
			}
			if len(reply.RPC.Data.Sheets) == 0 {
				return fmt.Errorf("hello: no sheet in %s", line)
			}
			view := reply.RPC.Data.Sheets[0]
			c.class.mu.Lock()
			c.class.sheet = view.Sheet
			c.class.mu.Unlock()
			c.seq = view.To.Seq
			return nil
		}
	}
}

// work sends one operation every so often until the end.
func (c *client) work(ctx context.Context, first, end time.Time, every time.Duration) {
	timer := time.NewTimer(time.Until(first))
	defer timer.Stop()
	for due := first; due.Before(end); {
		select {
		case <-ctx.Done():
			return
		case <-timer.C:
		}
		if err := c.send(); err != nil {
			return
		}
		due = due.Add(every)
		timer.Reset(time.Until(due))
	}
}

// send does one thing: adds a note or a short line, or moves one.
func (c *client) send() error {
	op := sheet.Op{ID: timedID(), Sheet: c.class.sheet}
	x, y := float64(rand.IntN(1200)), float64(rand.IntN(800))
	switch {
	case len(c.marks) >= c.class.adds():
		op.Kind = sheet.KindSet
		op.Set = &sheet.Set{Mark: c.marks[rand.IntN(len(c.marks))], Properties: lesson.Properties{X: &x, Y: &y}}
	case len(c.marks)%2 == 0:
		op.Kind, op.Add = sheet.KindAdd, &sheet.Add{Mark: timedID(), X: x, Y: y, W: 300, H: 120,
			Body: lesson.Body{Kind: lesson.KindNote,
				Note: &lesson.Note{Text: "high tide is about 50 minutes later every day", Tint: "apricot"}}}
	default:
		points := make([]float64, 0, 60)
		for i := range 20 {
			points = append(points, float64(i*5), float64(i*i%37), 0.5)
		}
		op.Kind, op.Add = sheet.KindAdd, &sheet.Add{Mark: timedID(), X: x, Y: y,
			Body: lesson.Body{Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Points: points, Ink: "lake", Width: 8}}}
	}
	if op.Add != nil {
		c.marks = append(c.marks, op.Add.Mark)
	}
	text, err := json.Marshal(op)
	if err != nil {
		return err
	}
	c.mu.Lock()
	id := c.next
	c.next++
	c.pending[id] = time.Now()
	c.waiting++
	c.sent++
	c.mu.Unlock()
	message := fmt.Appendf(nil, `{"id":%d,"rpc":{"method":"ops","data":{"ops":[%s]}}}`, id, text)
	return c.say(message)
}

// timedID is a version 7 UUID that holds the time to a 4096th of a millisecond
// in rand_a (RFC 9562, section 6.2, method 3), so that receivers can tell how
// long an operation took.
func timedID() string {
	id := uuid.New()
	now := time.Now().UnixNano()
	ms, fraction := now/1e6, now%1e6*4096/1e6
	binary.BigEndian.PutUint64(id[:8], uint64(ms)<<16|7<<12|uint64(fraction))
	return id.String()
}

func timeOf(id uuid.UUID) time.Time {
	head := binary.BigEndian.Uint64(id[:8])
	return time.Unix(0, int64(head>>16)*1e6+int64(head&0xfff)*1e6/4096)
}

// listen takes what the server says until the connection ends.
func (c *client) listen() {
	for {
		_, text, err := c.conn.ReadMessage()
		if err != nil {
			return
		}
		now := time.Now()
		for line := range bytes.Lines(text) {
			line = bytes.TrimSpace(line)
			switch {
			case len(line) == 2: // {} is a ping
				c.write.Lock()
				err = c.conn.WriteMessage(websocket.TextMessage, line)
				c.write.Unlock()
			case bytes.HasPrefix(line, []byte(`{"id":`)):
				c.answered(line, now)
			case bytes.Contains(line, []byte(`"kind":"changes"`)):
				c.heard(line, now)
			}
		}
		if err != nil {
			return
		}
	}
}

func (c *client) answered(line []byte, now time.Time) {
	number, _, _ := bytes.Cut(line[len(`{"id":`):], []byte(","))
	id, err := strconv.Atoi(string(number))
	c.mu.Lock()
	defer c.mu.Unlock()
	sent, ok := c.pending[id]
	if err != nil || !ok {
		c.double++
		return
	}
	delete(c.pending, id)
	c.waiting--
	if bytes.Contains(line, []byte(`"problem"`)) || !bytes.Contains(line, []byte(`"seq"`)) {
		c.refused++
		return
	}
	c.acked = append(c.acked, now.Sub(sent))
}

// heard counts a publication, and reads it when nobody of the class has yet.
func (c *client) heard(line []byte, now time.Time) {
	_, rest, _ := bytes.Cut(line, []byte(`"changes":[{"seq":`))
	number, _, _ := bytes.Cut(rest, []byte(","))
	first, err := strconv.ParseInt(string(number), 10, 64)
	if err != nil {
		c.mu.Lock()
		c.differs++
		c.mu.Unlock()
		return
	}
	hash := maphash.Bytes(hashSeed, line)
	c.class.mu.Lock()
	t, ok := c.class.told[first]
	if !ok {
		t = &told{hash: hash, changes: changesIn(line)}
		c.class.told[first] = t
	}
	c.class.mu.Unlock()
	c.mu.Lock()
	defer c.mu.Unlock()
	if t.hash != hash {
		c.differs++
	}
	for _, change := range t.changes {
		switch {
		case change.Seq == c.seq+1:
		case change.Seq <= c.seq:
			c.double++
			continue
		default:
			c.holes++
		}
		c.seq = change.Seq
		if id, err := uuid.Parse(change.Op); err == nil {
			c.seen = append(c.seen, now.Sub(timeOf(id)))
		}
	}
}

func changesIn(line []byte) []sheet.Change {
	var push struct {
		Push struct{ Pub struct{ Data live.News } }
	}
	if err := json.Unmarshal(line, &push); err != nil || push.Push.Pub.Data.Changes == nil {
		return nil
	}
	return push.Push.Pub.Data.Changes.Changes
}

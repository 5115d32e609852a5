package standin

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/live"
	"alpenglow/web"

	"github.com/gorilla/websocket"
)

// answerWithin is how long the server may take for an answer.
const answerWithin = 15 * time.Second

// join takes a seat in the lesson, as the start page does.
func (s *student) join(ctx context.Context) (seat, cookie string, err error) {
	body, err := json.Marshal(web.Join{Code: s.Code, Name: s.name})
	if err != nil {
		return "", "", err
	}
	request, err := http.NewRequestWithContext(ctx, http.MethodPost, s.URL+"/api/join", bytes.NewReader(body))
	if err != nil {
		return "", "", err
	}
	request.Header.Set("Origin", s.origin())
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return "", "", fmt.Errorf("join: %w", err)
	}
	defer response.Body.Close()
	if response.StatusCode != http.StatusOK {
		return "", "", fmt.Errorf("join: status %d", response.StatusCode)
	}
	var in web.Seat
	if err := json.NewDecoder(response.Body).Decode(&in); err != nil {
		return "", "", fmt.Errorf("join: %w", err)
	}
	for _, c := range response.Cookies() {
		cookie += c.Name + "=" + c.Value + "; "
	}
	return in.Session, strings.TrimSuffix(cookie, "; "), nil
}

func (o Options) origin() string {
	if o.Origin != "" {
		return strings.TrimSuffix(o.Origin, "/")
	}
	return o.URL
}

// line is a student's realtime connection, with the stage and the sheets as
// they were last told.
type line struct {
	conn *websocket.Conn
	me   string

	mu      sync.Mutex
	next    int
	waiting map[int]chan json.RawMessage
	stage   session.Stage
	sheets  []live.SheetView
	gone    chan struct{}
}

func dial(ctx context.Context, url, origin, id, cookie string) (*line, error) {
	header := http.Header{"Origin": {origin}, "Cookie": {cookie}}
	conn, response, err := websocket.DefaultDialer.DialContext(ctx, strings.Replace(url, "http", "ws", 1)+"/realtime",
		header)
	if err != nil {
		return nil, fmt.Errorf("connect: %w", err)
	}
	response.Body.Close()
	l := &line{conn: conn, next: 1, waiting: map[int]chan json.RawMessage{}, gone: make(chan struct{})}
	go l.listen(ctx)
	if _, err := l.send(ctx, "connect", map[string]any{"data": live.Connect{Session: id,
		As: live.RoleStudent}}); err != nil {
		l.close()
		return nil, err
	}
	var hello live.StudentHello
	if err := l.call(ctx, live.MethodHello, struct{}{}, &hello); err != nil {
		l.close()
		return nil, err
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	l.me, l.stage, l.sheets = hello.Me.ID, hello.Stage, hello.Sheets
	return l, nil
}

func (l *line) close() { l.conn.Close() }

func (l *line) now() (session.Stage, []live.SheetView) {
	l.mu.Lock()
	defer l.mu.Unlock()
	return l.stage, l.sheets
}

// do sends one operation. That it is refused is nothing to stop for: somebody
// else may have been quicker.
func (l *line) do(ctx context.Context, op sheet.Op) error {
	text, err := json.Marshal(op)
	if err != nil {
		return err
	}
	return l.call(ctx, live.MethodOps, live.Ops{Ops: []json.RawMessage{text}}, nil)
}

// move goes to another frame, at own pace.
func (l *line) move(ctx context.Context, frame string) error {
	var moved live.Moved
	if err := l.call(ctx, live.MethodMove, live.Move{Frame: frame}, &moved); err != nil {
		return err
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	if moved.Stage.Rev >= l.stage.Rev {
		l.stage, l.sheets = moved.Stage, moved.Sheets
	}
	return nil
}

func (l *line) call(ctx context.Context, method string, data, into any) error {
	text, err := l.send(ctx, "rpc", map[string]any{"method": method, "data": data})
	if err != nil || into == nil {
		return err
	}
	return json.Unmarshal(text, into)
}

var errGone = errors.New("the connection is gone")

func (l *line) send(ctx context.Context, command string, body any) (json.RawMessage, error) {
	answer := make(chan json.RawMessage, 1)
	l.mu.Lock()
	id := l.next
	l.next++
	l.waiting[id] = answer
	err := l.conn.WriteJSON(map[string]any{"id": id, command: body})
	l.mu.Unlock()
	if err != nil {
		return nil, err
	}
	select {
	case text := <-answer:
		return text, nil
	case <-l.gone:
		return nil, errGone
	case <-ctx.Done():
		return nil, ctx.Err()
	case <-time.After(answerWithin):
		return nil, errGone
	}
}

// listen takes what the server says until the connection ends.
func (l *line) listen(ctx context.Context) {
	defer close(l.gone)
	for {
		_, text, err := l.conn.ReadMessage()
		if err != nil {
			return
		}
		for part := range bytes.Lines(text) {
			var said struct {
				ID  int `json:"id"`
				RPC *struct {
					Data json.RawMessage `json:"data"`
				} `json:"rpc"`
				Push *struct {
					Pub struct {
						Data live.News `json:"data"`
					} `json:"pub"`
				} `json:"push"`
			}
			if err := json.Unmarshal(part, &said); err != nil {
				return
			}
			switch {
			case len(bytes.TrimSpace(part)) == 2: // {} asks whether we are there
				l.mu.Lock()
				err = l.conn.WriteMessage(websocket.TextMessage, []byte("{}"))
				l.mu.Unlock()
			case said.Push != nil:
				l.hear(ctx, said.Push.Pub.Data)
			case said.ID > 0:
				l.mu.Lock()
				waiting := l.waiting[said.ID]
				delete(l.waiting, said.ID)
				l.mu.Unlock()
				if waiting != nil && said.RPC != nil {
					waiting <- said.RPC.Data
				} else if waiting != nil {
					waiting <- nil
				}
			}
			if err != nil {
				return
			}
		}
	}
}

// hear takes news: where the teacher leads, and what lies on the sheets.
func (l *line) hear(ctx context.Context, n live.News) {
	l.mu.Lock()
	defer l.mu.Unlock()
	switch {
	case n.Stage != nil && n.Stage.Rev > l.stage.Rev:
		before := l.stage
		l.stage = *n.Stage
		if change := n.Stage.Change; change != nil {
			if change.From != before.Content {
				go l.move(ctx, "")
			}
			l.stage.Frame.Prepared = change.Apply(before.Frame.Prepared)
		}
		if n.Stage.Frame.ID != before.Frame.ID || n.Stage.Frame.Arrangement != before.Frame.Arrangement ||
			number(n.Stage.Group) != number(before.Group) {
			go l.open(ctx, n.Stage.Frame.ID)
		}
	case n.Changes != nil:
		l.sheets = slices.Clone(l.sheets)
		for i, v := range l.sheets {
			if v.Sheet != n.Changes.Sheet {
				continue
			}
			for _, c := range n.Changes.Changes {
				for _, put := range c.Put {
					v.Put = append(without(v.Put, put.ID), put)
				}
				for _, gone := range c.Gone {
					v.Put = without(v.Put, gone)
				}
			}
			l.sheets[i] = v
		}
	}
}

func number(g *session.Group) int {
	if g == nil {
		return 0
	}
	return g.Number
}

func (l *line) open(ctx context.Context, frame string) {
	var opened live.Opened
	if l.call(ctx, live.MethodOpen, live.Open{Frame: frame}, &opened) != nil {
		return
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	l.sheets = opened.Sheets
}

// without copies marks, because others may be reading the list.
func without(marks []lesson.Element, id string) []lesson.Element {
	kept := make([]lesson.Element, 0, len(marks)+1)
	for _, m := range marks {
		if m.ID != id {
			kept = append(kept, m)
		}
	}
	return kept
}

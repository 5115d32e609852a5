package live

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
	"alpenglow/store/storetest"

	"github.com/gorilla/websocket"
	"github.com/prometheus/client_golang/prometheus"
	"golang.org/x/time/rate"
)

// secret stands in everything that docs/audiences.md keeps from the attacker.
const secret = "SECRET"

func words(text string) lesson.Body {
	return lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "moss"}}
}

// battlefield is a board with everything on it that a student's device may know
// or may not know, with ids as devices make them.
func battlefield() lesson.Board {
	mark := func(x float64, b lesson.Body) lesson.Element {
		return lesson.Element{ID: store.NewID(), X: x, Y: 300, W: 200, H: 100, Body: b}
	}
	question := func(text string) lesson.Body {
		return lesson.Body{Kind: lesson.KindPoll,
			Poll: &poll.Question{Text: text, Body: poll.Offer(poll.Option{ID: store.NewID(), Text: "7 days"},
				poll.Option{ID: store.NewID(), Text: "29.53 days", Right: true})}}
	}
	piece, supply := mark(20, words("ebb")), mark(250, words("flood"))
	piece.Layer, supply.Layer = lesson.Piece, lesson.Supply
	under, lid := mark(700, words(secret+" under a cover")),
		mark(690, lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "lilac"}})
	lid.W, lid.H = 300, 200
	covered := mark(760, words(secret+" piece under a cover"))
	covered.Layer = lesson.Piece
	frame := func(title string, a lesson.Arrangement, marks ...lesson.Element) lesson.Frame {
		return lesson.Frame{ID: store.NewID(), Title: title, Notes: secret + " lesson notes",
			Paper: paper.Paper{Kind: paper.Plain}, Arrangement: a, Permission: lesson.Add, Prepared: marks}
	}
	board := lesson.Board{Title: "Moon and tides", Frames: []lesson.Frame{
		frame("shared", lesson.WholeClass, mark(450, words("what do you see?")), piece, supply, under, covered, lid),
		frame("own", lesson.Individual, mark(450, question("How long?"))),
		frame(secret+" to come", lesson.WholeClass, mark(450, question(secret+"?"))),
	}}
	board.Frames[0].Replies = true
	return board
}

// battle is a class in battle: the attacker and the others on their connections.
type battle struct {
	t      testing.TB
	hub    *Hub
	board  lesson.Board
	id     string
	url    string
	ids    []string // the participants': the attacker's first
	last   map[string]*scene
	timing sync.Mutex
	// slowest is how long an answer has taken at most, slow what was asked then.
	slowest time.Duration
	slow    string
}

// newBattle starts it, with more students if they are named.
func newBattle(t testing.TB, more ...string) *battle {
	t.Helper()
	s := storetest.Open(t, storetest.URL(t))
	teacher := store.Teacher{Email: "ines@ternharbour.example", Password: "x"}
	if err := s.AddTeacher(ctx, &teacher); err != nil {
		t.Fatal(err)
	}
	f := &battle{t: t, board: battlefield()}
	boardID, err := s.AddBoard(ctx, teacher.ID, f.board)
	if err != nil {
		t.Fatal(err)
	}
	state, err := session.Start(f.board, session.Own)
	if err != nil {
		t.Fatal(err)
	}
	state.Reached, state.Through = []string{f.board.Frames[0].ID, f.board.Frames[1].ID}, f.board.Frames[1].ID
	delete(state.Polls, f.board.Frames[2].Prepared[0].ID)
	n := store.Session{TeacherID: teacher.ID, Code: "K7M2QX", State: store.JSON[session.State]{V: state}}
	if err := s.StartSession(ctx, &n, boardID, f.board); err != nil {
		t.Fatal(err)
	}
	f.id = n.ID
	people := map[string]store.Participant{}
	for i, name := range append([]string{"Noor", "Kenji", "Vera"}, more...) {
		p, err := s.Join(ctx, n.ID, store.Joining{Limit: 400, Token: fmt.Append(nil, i),
			Decide: store.Anybody(func([]string) string { return name })})
		if err != nil {
			t.Fatal(err)
		}
		f.ids, people[name] = append(f.ids, p.ID), p
	}
	hub, err := New(s, quiet(), prometheus.NewRegistry())
	if err != nil {
		t.Fatal(err)
	}
	f.hub = hub
	mux := http.NewServeMux()
	for path, h := range hub.Handlers(func(*http.Request) bool { return true }) {
		mux.HandleFunc(path, func(w http.ResponseWriter, r *http.Request) {
			v := Visitor{Teacher: teacher.ID, Login: "login"}
			if p, ok := people[r.URL.Query().Get("as")]; ok {
				v = Visitor{Participant: &p}
			}
			switch r.URL.Query().Get("as") {
			case "screen":
				v = Visitor{Front: &store.Front{ID: "screen", SessionID: &f.id}}
			case "elsewhere":
				other := store.NewID()
				v = Visitor{Front: &store.Front{ID: "elsewhere", SessionID: &other}}
			}
			h.ServeHTTP(w, r.WithContext(WithVisitor(r.Context(), v)))
		})
	}
	server := httptest.NewServer(mux)
	f.url = strings.Replace(server.URL, "http", "ws", 1)
	t.Cleanup(func() { hub.Close(context.Background()); server.Close() })
	// The rate is not what is tested here.
	r, err := hub.session(ctx, f.id)
	if err != nil {
		t.Fatal(err)
	}
	for _, id := range f.ids {
		r.person(id).limit.SetLimit(rate.Inf)
	}
	return f
}

// wire is one connection, with all that ever came over it.
type wire struct {
	battle  *battle
	conn    *websocket.Conn
	mu      sync.Mutex
	next    int
	waiting map[int]chan json.RawMessage
	closed  int             // the code with which it ended
	broke   error           // and what reading it said then
	leaked  string          // what came that should not have
	each    func([]byte)    // is given all that comes, where it is set
	heard   map[string]bool // which of what is listened for has come
	known   map[string]bool
	pool    []string // all that is known, in the order in which it came
}

func (f *battle) connect(name string, as Role) *wire {
	f.t.Helper()
	w := f.dial(name, as)
	w.send("connect", map[string]any{"data": Connect{Session: f.id, As: as}})
	return w
}

// dial opens a connection and asks to be let in, without waiting for the answer.
func (f *battle) dial(name string, as Role) *wire {
	f.t.Helper()
	conn, response, err := websocket.DefaultDialer.Dial(f.url+"/realtime?as="+url.QueryEscape(name), nil)
	if err != nil {
		f.t.Fatal(err)
	}
	response.Body.Close()
	w := &wire{battle: f, conn: conn, next: 1, waiting: map[int]chan json.RawMessage{}, known: map[string]bool{}}
	f.t.Cleanup(func() { conn.Close() })
	go w.listen()
	return w
}

func (w *wire) listen() {
	for {
		_, text, err := w.conn.ReadMessage()
		if err != nil {
			w.mu.Lock()
			defer w.mu.Unlock()
			w.broke = err
			if closing := new(websocket.CloseError); errors.As(err, &closing) {
				w.closed = closing.Code
			}
			return
		}
		w.mu.Lock()
		if w.each != nil {
			w.each(text)
			w.mu.Unlock()
			continue
		}
		if at := strings.Index(string(text), secret); at >= 0 && w.leaked == "" {
			w.leaked = string(text[max(0, at-300):min(len(text), at+100)])
		}
		// What comes as an answer was asked for; what is listened for comes unasked.
		for what := range w.heard {
			if strings.HasPrefix(string(text), `{"push"`) && strings.Contains(string(text), what) {
				w.heard[what] = true
			}
		}
		for word := range strings.SplitSeq(string(text), `"`) {
			if len(w.pool) < 4000 && id.IsUUID(word) && !w.known[word] {
				w.known[word] = true
				w.pool = append(w.pool, word)
			}
		}
		w.mu.Unlock()
		for line := range strings.SplitSeq(strings.TrimSpace(string(text)), "\n") {
			var said struct {
				ID      int
				RPC     *struct{ Data json.RawMessage }
				Connect json.RawMessage
			}
			if line == "{}" {
				w.mu.Lock()
				w.conn.WriteMessage(websocket.TextMessage, []byte("{}"))
				w.mu.Unlock()
			} else if json.Unmarshal([]byte(line), &said) == nil && said.ID > 0 {
				w.mu.Lock()
				waiting := w.waiting[said.ID]
				delete(w.waiting, said.ID)
				w.mu.Unlock()
				if waiting != nil && said.RPC != nil {
					waiting <- said.RPC.Data
				} else if waiting != nil {
					waiting <- said.Connect
				}
			}
		}
	}
}

// patient is how long an answer may take in a test: a machine that does other things
// may stand still for a while. The slowest is noted.
const patient = 10 * time.Second

// note keeps how long the slowest answer took, and to what.
func (f *battle) note(took time.Duration, asked any) {
	f.timing.Lock()
	defer f.timing.Unlock()
	if took > f.slowest {
		text, _ := json.Marshal(asked)
		f.slowest, f.slow = took, fmt.Sprintf("%.300s", text)
	}
}

// send asks something and waits for the answer.
func (w *wire) send(kind string, body any) json.RawMessage {
	w.battle.t.Helper()
	answer := make(chan json.RawMessage, 1)
	w.mu.Lock()
	id := w.next
	w.next++
	w.waiting[id] = answer
	err := w.conn.WriteJSON(map[string]any{"id": id, kind: body})
	w.mu.Unlock()
	if err != nil {
		w.battle.t.Fatal(err)
	}
	asked := time.Now()
	select {
	case got := <-answer:
		w.battle.note(time.Since(asked), body)
		return got
	case <-time.After(patient):
		text, _ := json.Marshal(body)
		w.mu.Lock()
		defer w.mu.Unlock()
		w.battle.t.Fatalf("no answer within %v, closed with %d (%v), to %.400s", patient, w.closed, w.broke, text)
		return nil
	}
}

// listenFor notes from now on whether some texts come unasked; forget begins anew.
func (w *wire) listenFor(texts []string) {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.heard = map[string]bool{}
	for _, text := range texts {
		w.heard[text] = false
	}
}

func (w *wire) forget() {
	w.mu.Lock()
	defer w.mu.Unlock()
	for text := range w.heard {
		w.heard[text] = false
	}
}

// refuse asks to be let in as a front screen where it is to be refused.
func (w *wire) refuse(session string) {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.conn.WriteJSON(
		map[string]any{"id": 1, "connect": map[string]any{"data": Connect{Session: session, As: RoleFront}}},
	)
}

func (w *wire) call(method string, data any) json.RawMessage {
	w.battle.t.Helper()
	return w.send("rpc", map[string]any{"method": method, "data": data})
}

func (w *wire) ops(ops ...sheet.Op) OpsReply {
	w.battle.t.Helper()
	var ask Ops
	for _, op := range ops {
		text, err := json.Marshal(op)
		if err != nil {
			w.battle.t.Fatal(err)
		}
		ask.Ops = append(ask.Ops, text)
	}
	var reply OpsReply
	if err := json.Unmarshal(w.call(MethodOps, ask), &reply); err != nil {
		w.battle.t.Fatal(err)
	}
	return reply
}

func (w *wire) open(frame string) []SheetView {
	w.battle.t.Helper()
	var reply Opened
	if err := json.Unmarshal(w.call(MethodOpen, Open{Frame: frame}), &reply); err != nil {
		w.battle.t.Fatal(err)
	}
	return reply.Sheets
}

func step(on string, s sheet.Step) sheet.Op { return sheet.Op{ID: store.NewID(), Sheet: on, Step: s} }

func adding(on, text string) sheet.Op {
	return step(on, sheet.Step{Kind: sheet.KindAdd,
		Add: &sheet.Add{Mark: store.NewID(), X: 10, Y: 10, W: 200, H: 100, Body: words(text)}})
}

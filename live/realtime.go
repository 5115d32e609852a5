package live

import (
	"bytes"
	"context"
	"encoding/json"
	"log/slog"
	"net/http"
	"slices"
	"sync/atomic"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"

	"github.com/centrifugal/centrifuge"
	"golang.org/x/time/rate"
)

const (
	// MaxMessage is how many bytes one message of a client may have.
	MaxMessage = 64 << 10
	// MaxOps is how many operations one call may send.
	MaxOps = 40
	// readCost is what a reading call counts against a student's rate.
	readCost = 4
	// passPerSecond is how many passing things one connection may show.
	passPerSecond = 50
)

// Visitor is who the cookies of a request say is calling.
type Visitor struct {
	Teacher     string
	Participant *store.Participant
}

type visitorKey struct{}

// WithVisitor notes in a request's context who is calling, for the realtime handlers.
func WithVisitor(ctx context.Context, v Visitor) context.Context {
	return context.WithValue(ctx, visitorKey{}, v)
}

// Refused connections are closed with one of these codes, after which a client
// does not try again by itself.
var (
	closeBadConnect = centrifuge.Disconnect{Code: 4500, Reason: string(refusal.Malformed)}
	closeSignIn     = centrifuge.Disconnect{Code: 4501, Reason: string(refusal.SignInNeeded)}
	closeJoin       = centrifuge.Disconnect{Code: 4502, Reason: string(refusal.JoinNeeded)}
)

func newNode(log *slog.Logger) (*centrifuge.Node, error) {
	return centrifuge.New(centrifuge.Config{
		LogLevel: centrifuge.LogLevelWarn,
		LogHandler: func(e centrifuge.LogEntry) {
			log.Warn("realtime", "message", e.Message)
		},
		ClientQueueMaxSize: 16 << 20, // a teacher who opens a full class's frames
	})
}

// Handlers gives the HTTP handlers of the realtime endpoint: WebSocket, and
// for networks that do not let it through, an HTTP stream with its way back.
// Both of those are POST requests, whose origin the caller checks.
func (h *Hub) Handlers(sameOrigin func(*http.Request) bool) map[string]http.Handler {
	return map[string]http.Handler{
		"/realtime": centrifuge.NewWebsocketHandler(h.node, centrifuge.WebsocketConfig{
			CheckOrigin: sameOrigin, MessageSizeLimit: MaxMessage, ReadBufferSize: 1024, UseWriteBufferPool: true, WriteTimeout: 5 * time.Second,
		}),
		"/realtime/stream": centrifuge.NewHTTPStreamHandler(h.node, centrifuge.HTTPStreamConfig{MaxRequestBodySize: MaxMessage}),
		"/realtime/back":   centrifuge.NewEmulationHandler(h.node, centrifuge.EmulationConfig{MaxRequestBodySize: MaxMessage}),
	}
}

// place of a connection: the session and who is on it.
type seat struct {
	session *running
	actor   sheet.Actor
}

type seatKey struct{}

// listen sets up what happens on connections.
func (h *Hub) listen() {
	h.node.OnConnecting(func(ctx context.Context, e centrifuge.ConnectEvent) (centrifuge.ConnectReply, error) {
		var ask Connect
		if err := json.Unmarshal(e.Data, &ask); err != nil {
			return centrifuge.ConnectReply{}, closeBadConnect
		}
		visitor, _ := ctx.Value(visitorKey{}).(Visitor)
		s, channels, err := h.seat(ctx, ask, visitor)
		if err != nil {
			return centrifuge.ConnectReply{}, err
		}
		subscriptions := map[string]centrifuge.SubscribeOptions{}
		for _, c := range channels {
			subscriptions[c] = centrifuge.SubscribeOptions{}
		}
		return centrifuge.ConnectReply{
			Context:       context.WithValue(ctx, seatKey{}, s),
			Credentials:   &centrifuge.Credentials{UserID: s.actor.ID},
			Subscriptions: subscriptions,
		}, nil
	})
	h.node.OnConnect(func(c *centrifuge.Client) {
		s := c.Context().Value(seatKey{}).(seat)
		h.presence(s.session, s.actor, 1)
		c.OnDisconnect(func(centrifuge.DisconnectEvent) { h.presence(s.session, s.actor, -1) })
		limit := rate.NewLimiter(passPerSecond, passPerSecond)
		c.OnMessage(func(e centrifuge.MessageEvent) { h.pass(s, limit, e.Data) })
		c.OnRPC(func(e centrifuge.RPCEvent, done centrifuge.RPCCallback) {
			answer := func(reply any, err error) {
				if err != nil {
					if refusal.Of(err) == nil {
						h.log.Error("call failed", "method", e.Method, "error", err)
					}
					reply = Failure{ProblemOf(err)}
				}
				text, err := json.Marshal(reply)
				done(centrifuge.RPCReply{Data: text}, err)
			}
			h.call(s, e, answer)
		})
	})
}

// seat checks that the visitor may be in the session in the role asked for.
func (h *Hub) seat(ctx context.Context, ask Connect, v Visitor) (seat, []string, error) {
	switch ask.As {
	case RoleStaff:
		if v.Teacher == "" {
			return seat{}, nil, closeSignIn
		}
		r, err := h.session(ctx, ask.Session)
		if refusal.Of(err) != nil || err == nil && r.kept.TeacherID != v.Teacher {
			return seat{}, nil, closeSignIn
		}
		return seat{r, sheet.Actor{Staff: true}}, []string{staffChannel(ask.Session)}, err
	case RoleStudent:
		if v.Participant == nil || v.Participant.SessionID != ask.Session {
			return seat{}, nil, closeJoin
		}
		r, err := h.session(ctx, ask.Session)
		if err != nil {
			return seat{}, nil, err
		}
		r.mu.Lock()
		r.add(*v.Participant)
		r.mu.Unlock()
		return seat{r, sheet.Actor{ID: v.Participant.ID}}, []string{classChannel(ask.Session), oneChannel(v.Participant.ID)}, nil
	}
	return seat{}, nil, closeBadConnect
}

// call carries out one call of a client. Operations are handed on in the order
// they came, and reading calls go beside them.
func (h *Hub) call(s seat, e centrifuge.RPCEvent, answer func(any, error)) {
	if e.Method == MethodOps {
		h.callOps(s, e.Data, answer)
		return
	}
	if !s.may(readCost) {
		answer(nil, refusal.New(refusal.TooMany))
		return
	}
	go func() {
		ctx, cancel := context.WithTimeout(context.Background(), patience)
		defer cancel()
		answer(h.callOther(ctx, s, e))
	}()
}

func (h *Hub) callOther(ctx context.Context, s seat, e centrifuge.RPCEvent) (any, error) {
	id := s.session.kept.ID
	switch e.Method {
	case MethodHello:
		return h.hello(ctx, s)
	case MethodOpen:
		var ask Open
		if err := read(e.Data, &ask); err != nil {
			return nil, err
		}
		views, err := h.openFor(ctx, s, ask.Frame)
		return Opened{views}, err
	case MethodMove:
		var ask Move
		if s.actor.Staff {
			return nil, refusal.New(refusal.UnknownOp)
		}
		if err := read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.move(ctx, s.session, s.actor, ask.Frame)
	case MethodSince:
		var ask Since
		if err := read(e.Data, &ask); err != nil {
			return nil, err
		}
		changes, err := h.since(ctx, s.session, s.actor, ask)
		return ChangesReply{changes}, err
	case MethodTidy:
		var ask Tidy
		if err := read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.tidy(ctx, s, ask)
	case MethodCommand:
		var c session.Command
		if !s.actor.Staff {
			return nil, refusal.New(refusal.NotYours)
		}
		if err := read(e.Data, &c); err != nil {
			return nil, err
		}
		state, err := h.Command(ctx, id, c)
		return CommandReply{state}, err
	}
	return nil, refusal.New(refusal.UnknownOp)
}

// hello tells who has just connected where the session stands.
func (h *Hub) hello(ctx context.Context, s seat) (any, error) {
	// Another server may have led the session on.
	if err := h.refresh(ctx, s.session.kept.ID); err != nil {
		return nil, err
	}
	if s.actor.Staff {
		return h.helloStaff(ctx, s.session)
	}
	// Asking to stay opens the frame that the student is on.
	moved, err := h.move(ctx, s.session, s.actor, "")
	if err != nil {
		return nil, err
	}
	worked, err := h.store.Worked(ctx, s.session.kept.ID, s.actor.ID)
	people := s.session.list(false)
	me := people[slices.IndexFunc(people, func(p Person) bool { return p.ID == s.actor.ID })]
	return StudentHello{Me: me, Stage: moved.Stage, People: people, Sheets: moved.Sheets, Worked: worked}, err
}

func (h *Hub) helloStaff(ctx context.Context, r *running) (any, error) {
	state := r.snapshot()
	sheets, err := h.openAll(ctx, r, state.Frame)
	if err != nil {
		return nil, err
	}
	work, err := h.work(ctx, r)
	return StaffHello{Board: r.kept.Content.V, State: state, Code: r.kept.Code, ClassName: r.kept.ClassName,
		Expected: r.kept.Students.V, People: r.list(true), Work: work, Sheets: sheets, Practice: r.kept.Practice}, err
}

// tidy offers what may take the place of a stroke that the asker sees.
func (h *Hub) tidy(ctx context.Context, s seat, ask Tidy) (Tidied, error) {
	at, err := h.hold(ctx, ask.Sheet)
	if err != nil {
		return Tidied{}, err
	}
	if at.key.Session != s.session.kept.ID || !in(s.session.snapshot(), s.actor).MayRead(at.key.Owner) {
		return Tidied{}, refusal.New(refusal.NoSuchSheet)
	}
	at.mu.Lock()
	err = h.load(ctx, at)
	var stroke lesson.Element
	if err == nil {
		stroke, err = at.sheet.MarkFor(s.actor, ask.Mark)
	}
	at.mu.Unlock()
	if err != nil {
		return Tidied{}, err
	}
	return TidiedOf(stroke)
}

// TidiedOf gives what may take the place of a stroke.
func TidiedOf(stroke lesson.Element) (Tidied, error) {
	if stroke.Kind != lesson.KindStroke {
		return Tidied{}, refusal.New(refusal.NoSuchMark)
	}
	tidier := func(e lesson.Element) *Tidier {
		return &Tidier{X: e.X, Y: e.Y, W: e.W, H: e.H, Turn: e.Turn, Body: e.Body}
	}
	reply := Tidied{Smooth: tidier(lesson.Smoother(stroke))}
	if clean, sure, ok := lesson.Clean(stroke); ok {
		reply.Clean, reply.Confidence = tidier(clean), sure
	}
	return reply, nil
}

func (h *Hub) openFor(ctx context.Context, s seat, frame string) ([]SheetView, error) {
	if s.actor.Staff {
		return h.openAll(ctx, s.session, frame)
	}
	return h.open(ctx, s.session, s.actor, frame)
}

// callOps takes operations in order and answers when each is saved or refused.
func (h *Hub) callOps(s seat, data []byte, answer func(any, error)) {
	var ask Ops
	if err := read(data, &ask); err != nil {
		answer(nil, err)
		return
	}
	switch n := len(ask.Ops); {
	case n == 0:
		answer(OpsReply{[]OpResult{}}, nil)
		return
	case n > MaxOps:
		answer(nil, refusal.About(refusal.TooMany, "%d operations at once, at most %d", n, MaxOps))
		return
	}
	ops, problems, cost := make([]sheet.Op, len(ask.Ops)), make([]error, len(ask.Ops)), 0
	for i, text := range ask.Ops {
		ops[i], problems[i] = sheet.ReadOp(text)
		cost += ops[i].Cost()
	}
	if !s.may(min(cost, opsAtOnce)) {
		h.metrics.refused.WithLabelValues(string(refusal.TooMany)).Add(float64(len(ops)))
		answer(nil, refusal.New(refusal.TooMany))
		return
	}
	results := make([]OpResult, len(ask.Ops))
	var left atomic.Int64
	left.Store(int64(len(ask.Ops)))
	start := time.Now()
	for i, op := range ops {
		done := func(result sheet.Result, err error) {
			if err != nil {
				problem := ProblemOf(err)
				h.metrics.refused.WithLabelValues(string(problem.Code)).Inc()
				results[i] = OpResult{Problem: problem}
			} else {
				results[i] = OpResult{Seq: result.Change.Seq}
				if !result.Again {
					results[i].Undo = &result.Undo
				}
				h.metrics.saved(time.Since(start))
			}
			if left.Add(-1) == 0 {
				answer(OpsReply{results}, nil)
			}
		}
		if problems[i] != nil {
			done(sheet.Result{}, problems[i])
			continue
		}
		h.submit(&request{session: s.session, sheet: op.Sheet, actor: s.actor, op: op, done: done})
	}
}

// may counts n operations against a student's rate and says whether they go.
func (s seat) may(n int) bool {
	if s.actor.Staff {
		return true
	}
	s.session.mu.RLock()
	p := s.session.people[s.actor.ID]
	s.session.mu.RUnlock()
	return p != nil && p.limit.AllowN(time.Now(), n)
}

// read reads a call's data; fields that do not belong there are refused.
func read(data []byte, into any) error {
	reader := json.NewDecoder(bytes.NewReader(data))
	reader.DisallowUnknownFields()
	if err := reader.Decode(into); err != nil {
		return refusal.New(refusal.Malformed)
	}
	return nil
}

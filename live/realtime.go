package live

import (
	"cmp"
	"context"
	"encoding/json"
	"log/slog"
	"net/http"
	"sync"
	"sync/atomic"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/core/strict"
	"alpenglow/core/voices"
	"alpenglow/store"

	"github.com/centrifugal/centrifuge"
)

const (
	// MaxMessage is how many bytes one message of a client may have.
	MaxMessage = 64 << 10
	// MaxOps is how many operations one call may send.
	MaxOps = 40
	// readCost is what a reading call counts against a student's rate, connectCost
	// what connecting does.
	readCost    = 4
	connectCost = 10
	// passPerSecond is how many passing things one person may show.
	passPerSecond = 50
	// maxQueue is how many bytes wait for one reader before its connection is
	// closed: it comes back and asks.
	maxQueue = 4 << 20
	// maxCalls is how many calls of one connection wait for the one before them.
	maxCalls = 64
)

// Visitor is who the cookies of a request say is calling.
type Visitor struct {
	// Teacher is whose sign-in it is, and may teach. Account is the same, also while a
	// second factor has to be set up first. A guest has begun without an account.
	Teacher     string
	Account     string
	Guest       bool
	Participant *store.Participant
	// Front is the front screen that this device is, with its session.
	Front *store.Front
	// Login names the teacher's sign-in, until LoginEnds; Address is where the
	// request comes from.
	Login     string
	LoginEnds time.Time
	Address   string
}

type visitorKey struct{}

// WithVisitor notes in a request's context who is calling, for the realtime handlers.
func WithVisitor(ctx context.Context, v Visitor) context.Context {
	return context.WithValue(ctx, visitorKey{}, v)
}

func newNode(log *slog.Logger) (*centrifuge.Node, error) {
	return centrifuge.New(centrifuge.Config{
		LogLevel: centrifuge.LogLevelWarn,
		LogHandler: func(e centrifuge.LogEntry) {
			log.Warn("realtime", "message", e.Message)
		},
		ClientQueueMaxSize: maxQueue,
	})
}

// Handlers gives the HTTP handlers of the realtime endpoint: WebSocket, and
// for networks that do not let it through, an HTTP stream with its way back.
// Both of those are POST requests, whose origin the caller checks.
func (h *Hub) Handlers(sameOrigin func(*http.Request) bool) map[string]http.Handler {
	return map[string]http.Handler{
		"/realtime": centrifuge.NewWebsocketHandler(h.node, centrifuge.WebsocketConfig{
			CheckOrigin: sameOrigin, MessageSizeLimit: MaxMessage, ReadBufferSize: 1024, UseWriteBufferPool: true,
			WriteTimeout: 5 * time.Second,
		}),
		"/realtime/stream": centrifuge.NewHTTPStreamHandler(h.node,
			centrifuge.HTTPStreamConfig{MaxRequestBodySize: MaxMessage}),
		"/realtime/back": centrifuge.NewEmulationHandler(h.node,
			centrifuge.EmulationConfig{MaxRequestBodySize: MaxMessage}),
	}
}

type seatKey struct{}

// listen sets up what happens on connections.
func (h *Hub) listen() {
	h.node.OnConnecting(func(ctx context.Context, e centrifuge.ConnectEvent) (reply centrifuge.ConnectReply,
		err error) {
		if h.guard("connecting", func() { reply, err = h.connecting(ctx, e) }) {
			err = centrifuge.DisconnectServerError
		}
		return reply, err
	})
	h.node.OnConnect(func(c *centrifuge.Client) { h.guard("connect", func() { h.connected(c) }) })
}

func (h *Hub) connecting(ctx context.Context, e centrifuge.ConnectEvent) (centrifuge.ConnectReply, error) {
	var ask Connect
	if err := strict.Read(e.Data, &ask); err != nil {
		return centrifuge.ConnectReply{}, closeBadConnect
	}
	visitor, _ := ctx.Value(visitorKey{}).(Visitor)
	if h.seats.full(visitor.Address) {
		return centrifuge.ConnectReply{}, closeFull
	}
	s, channels, err := h.seat(ctx, ask, visitor)
	if err != nil {
		return centrifuge.ConnectReply{}, err
	}
	subscriptions := map[string]centrifuge.SubscribeOptions{}
	for _, c := range channels {
		subscriptions[c] = centrifuge.SubscribeOptions{}
	}
	credentials := &centrifuge.Credentials{UserID: s.person()}
	if (s.actor.Staff || s.own) && !visitor.LoginEnds.IsZero() {
		credentials.ExpireAt = visitor.LoginEnds.Unix()
	}
	return centrifuge.ConnectReply{Context: context.WithValue(ctx, seatKey{}, s), Credentials: credentials,
		Subscriptions: subscriptions}, nil
}

// connected sets up a connection. Its calls are carried out one after the other
// in the order they came.
func (h *Hub) connected(c *centrifuge.Client) {
	s := c.Context().Value(seatKey{}).(seat)
	for _, over := range h.seats.add(s, c) {
		go over.Disconnect(closeOver)
	}
	h.presence(s.session, s, 1)
	calls := &calls{hub: h}
	var end sync.Once
	c.OnDisconnect(func(centrifuge.DisconnectEvent) {
		end.Do(func() {
			h.seats.drop(s, c)
			h.presence(s.session, s, -1)
		})
	})
	c.OnMessage(func(e centrifuge.MessageEvent) { h.guard("passing", func() { h.pass(s, e.Data) }) })
	c.OnRPC(func(e centrifuge.RPCEvent, done centrifuge.RPCCallback) {
		var once sync.Once
		answer := func(reply any, err error) {
			once.Do(func() { h.reply(e.Method, reply, err, done) })
		}
		taken := calls.add(func() {
			if h.guard("call", func() { h.call(s, e, answer) }) {
				answer(nil, refusal.New(refusal.Failed))
			}
		})
		if !taken {
			answer(nil, refusal.New(refusal.TooMany))
		}
	})
}

func (h *Hub) reply(method string, reply any, err error, done centrifuge.RPCCallback) {
	if err != nil {
		if refusal.Of(err) == nil {
			h.log.Error("call failed", "method", method, "error", store.Bare(err))
		}
		reply = Failure{ProblemOf(err)}
	}
	text, err := json.Marshal(reply)
	done(centrifuge.RPCReply{Data: text}, err)
}

// seat checks that the visitor may be in the session in the role asked for.
func (h *Hub) seat(ctx context.Context, ask Connect, v Visitor) (seat, []string, error) {
	switch ask.As {
	case RoleStaff:
		if v.Teacher == "" {
			return seat{}, nil, closeSignIn
		}
		r, err := h.session(ctx, ask.Session)
		if refusal.Of(err) != nil {
			return seat{}, nil, closeSignIn
		}
		if err != nil {
			return seat{}, nil, err
		}
		if leads, err := h.leads(ctx, r, v.Teacher); err != nil || !leads {
			return seat{}, nil, cmp.Or(err, error(closeSignIn))
		}
		return seat{session: r, actor: sheet.Actor{Staff: true}, login: v.Login, address: v.Address},
			[]string{staffChannel(ask.Session)}, err
	case RoleFront:
		return h.seatFront(ctx, ask, v)
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
		seated := r.state.Seated(v.Participant.ID)
		r.mu.Unlock()
		if !seated {
			return seat{}, nil, closeJoin
		}
		s := seat{session: r, actor: sheet.Actor{ID: v.Participant.ID}, address: v.Address}
		if !s.may(connectCost) {
			return seat{}, nil, closeFull
		}
		return s, []string{classChannel(ask.Session), oneChannel(v.Participant.ID),
			walkChannel(ask.Session)}, nil
	}
	return seat{}, nil, closeBadConnect
}

// call carries out one call of a client.
func (h *Hub) call(s seat, e centrifuge.RPCEvent, answer func(any, error)) {
	ctx, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	if s.front {
		answer(h.callFront(ctx, s, e))
		return
	}
	if e.Method == MethodOps {
		h.callOps(ctx, s, e.Data, answer)
		return
	}
	if !s.may(readCost) {
		answer(nil, refusal.New(refusal.TooMany))
		return
	}
	answer(h.callOther(ctx, s, e))
}

func (h *Hub) callOther(ctx context.Context, s seat, e centrifuge.RPCEvent) (any, error) {
	id := s.session.kept.ID
	switch e.Method {
	case MethodHello:
		var ask Hello
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.hello(ctx, s, ask)
	case MethodOpen:
		var ask Open
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		views, err := h.openFor(ctx, s, ask.Frame)
		return Opened{views}, err
	case MethodMove:
		var ask Move
		if s.actor.Staff {
			return nil, refusal.New(refusal.UnknownOp)
		}
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.move(ctx, s.session, s.actor, ask)
	case MethodSince:
		var ask Since
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.since(ctx, s.session, s.actor, ask)
	case MethodTidy:
		var ask Tidy
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.tidy(ctx, s, ask)
	case MethodWalk:
		var ask WalkTo
		if s.actor.Staff {
			return nil, refusal.New(refusal.UnknownOp)
		}
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.walk(ctx, s, ask)
	case MethodOutcome:
		var ask AskOutcome
		if !s.actor.Staff {
			return nil, refusal.New(refusal.UnknownOp)
		}
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.outcomes(s.session, ask)
	case MethodVerdict:
		var ask AskVerdict
		if s.actor.Staff {
			return nil, refusal.New(refusal.UnknownOp)
		}
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.verdict(ctx, s, ask)
	case MethodResults:
		var ask AskResults
		if s.actor.Staff {
			return nil, refusal.New(refusal.UnknownOp)
		}
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.results(ctx, s, ask)
	case MethodTime:
		return Time{now()}, nil
	case MethodSight:
		var ask Sight
		if s.actor.Staff {
			return nil, refusal.New(refusal.UnknownOp)
		}
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		h.sight(s, ask)
		return struct{}{}, nil
	case MethodSay:
		var w voices.Word
		if err := strict.Read(e.Data, &w); err != nil {
			return nil, err
		}
		return h.say(ctx, s, w)
	case MethodCommand:
		var c session.Command
		if !s.actor.Staff {
			return nil, refusal.New(refusal.NotYours)
		}
		if err := strict.Read(e.Data, &c); err != nil {
			return nil, err
		}
		state, err := h.Command(ctx, id, s.login, c)
		return CommandReply{state}, err
	}
	return nil, refusal.New(refusal.UnknownOp)
}

// callOps takes operations in order and answers when each is saved or refused.
func (h *Hub) callOps(ctx context.Context, s seat, data []byte, answer func(any, error)) {
	var ask Ops
	if err := strict.Read(data, &ask); err != nil {
		answer(nil, err)
		return
	}
	n := len(ask.Ops)
	switch {
	case n == 0:
		answer(OpsReply{[]OpResult{}}, nil)
		return
	case n > MaxOps:
		answer(nil, refusal.About(refusal.TooMany, "%d operations at once, at most %d", n, MaxOps))
		return
	case !s.may(n):
		h.metrics.refused.WithLabelValues(string(refusal.TooMany)).Add(float64(n))
		answer(nil, refusal.New(refusal.TooMany))
		return
	}
	results := make([]OpResult, n)
	var left atomic.Int64
	var stopped atomic.Bool
	left.Store(int64(n))
	start := time.Now()
	for i, text := range ask.Ops {
		done := func(result sheet.Result, err error) {
			if err != nil {
				problem := ProblemOf(err)
				if problem.Code == refusal.Unavailable {
					stopped.Store(true) // what follows may build on it: all is sent again, in order
				}
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
		op, err := sheet.ReadOp(text)
		var at *held
		if err == nil && stopped.Load() {
			err = refusal.New(refusal.Unavailable)
		}
		if err == nil {
			at, err = h.hold(ctx, op.Sheet)
		}
		if err == nil && at.key.Session != s.session.kept.ID {
			err = refusal.New(refusal.NoSuchSheet)
		}
		if err == nil && op.SetBack != nil && s.actor.Staff {
			err = h.remember(ctx, at, op.SetBack)
		}
		if err != nil {
			done(sheet.Result{}, err)
			continue
		}
		h.submit(&request{session: s.session, at: at, actor: s.actor, op: op, stopped: &stopped, done: done})
	}
}

// may counts n operations against a student's rate and says whether they go.
func (s seat) may(n int) bool {
	if s.actor.Staff {
		return true
	}
	p := s.session.person(s.actor.ID)
	return p != nil && p.limit.AllowN(time.Now(), n)
}

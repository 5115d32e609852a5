package live

import (
	"cmp"
	"context"
	"slices"
	"time"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/core/strict"
	"alpenglow/store"

	"github.com/centrifugal/centrifuge"
	"golang.org/x/time/rate"
)

// tallyEvery is how often the answers that front screens show are counted at most.
const tallyEvery = 250 * time.Millisecond

// How often a front screen may ask, in a second, and at once.
const (
	frontAsks   = 10
	frontAtOnce = 60
)

// seatFront lets a front screen in: a device that its teacher has let show this
// lesson, or the teacher's own.
func (h *Hub) seatFront(ctx context.Context, ask Connect, v Visitor) (seat, []string, error) {
	r, err := h.session(ctx, ask.Session)
	if refusal.Of(err) != nil {
		return seat{}, nil, closeFront
	}
	if err != nil {
		return seat{}, nil, err
	}
	s := seat{session: r, front: true, address: v.Address, asks: rate.NewLimiter(frontAsks, frontAtOnce)}
	// A teacher's own device may be both.
	switch {
	case v.Front != nil && !ask.Looks && v.Front.SessionID != nil && *v.Front.SessionID == ask.Session:
		s.login = v.Front.ID
	case v.Teacher == "":
		return seat{}, nil, closeFront
	default:
		if leads, err := h.leads(ctx, r, v.Teacher); err != nil || !leads {
			return seat{}, nil, cmp.Or(err, error(closeFront))
		}
		s.login, s.own, s.looks = v.Login, true, ask.Looks
	}
	return s, []string{frontChannel(ask.Session)}, nil
}

// callFront carries out one call of a front screen: it may say hello, and fill up
// what it shows.
func (h *Hub) callFront(ctx context.Context, s seat, e centrifuge.RPCEvent) (any, error) {
	if !s.asks.Allow() {
		return nil, refusal.New(refusal.TooMany)
	}
	switch e.Method {
	case MethodHello:
		var ask Hello
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		return h.helloFront(ctx, s, ask)
	case MethodTime:
		return Time{now()}, nil
	case MethodSince:
		var ask Since
		if err := strict.Read(e.Data, &ask); err != nil {
			return nil, err
		}
		at, err := h.hold(ctx, ask.Sheet)
		if err != nil {
			return nil, err
		}
		s.session.mu.RLock()
		who, shown := s.session.onFront(at.key)
		s.session.mu.RUnlock()
		if !shown || at.key.Session != s.session.kept.ID {
			return nil, refusal.New(refusal.NoSuchSheet)
		}
		return h.part(ctx, at, who, ask.Cursor)
	}
	return nil, refusal.New(refusal.NotYours)
}

// helloFront tells a front screen what it shows, or what it would show.
func (h *Hub) helloFront(ctx context.Context, s seat, ask Hello) (any, error) {
	r := s.session
	if err := h.refresh(ctx, r); err != nil {
		return nil, err
	}
	r.mu.RLock()
	state, edition, students := r.state, r.board, slices.Clone(r.order)
	r.mu.RUnlock()
	board := edition.Board
	if ask.Show != nil {
		if !s.own {
			return nil, refusal.New(refusal.NotYours)
		}
		next, err := state.Apply(board, session.Command{Kind: session.KindFront, Front: ask.Show},
			session.With{Students: students, Now: now()})
		if err != nil {
			return nil, err
		}
		next.Rev = state.Rev // it only looks as if
		state = next
	}
	frame, owners := state.OnFront(board)
	view := session.View{}
	if frame != "" {
		var err error
		if view, err = state.View(board, frame, session.View{}); err != nil {
			return nil, err
		}
	}
	stage := state.OfFront(board, view, r.code(state), students)
	if err := h.count(ctx, r, state, edition, &stage); err != nil {
		return nil, err
	}
	sheets := []SheetView{}
	var past *Past
	if len(owners) > 0 {
		keys, err := h.store.EnsureSheets(ctx, r.kept.ID, frame, owners)
		if err != nil {
			return nil, err
		}
		if sheets, err = h.views(ctx, audience.Front(owners), true, keys, ask.Have); err != nil {
			return nil, err
		}
		if stage.Show.Kind == session.FrontPast && len(sheets) == 1 {
			past, err = h.pastOf(ctx, r.kept.ID, sheets[0].Sheet, stage.Show.To, audience.Front(owners))
			if err != nil {
				return nil, err
			}
		}
	}
	stage.Stage = stage.Stage.Knowing(ask.Known)
	people := []Person{}
	if !state.Ended {
		people = r.list(false, "")
	}
	return FrontHello{
		Front:    stage,
		People:   people,
		Sheets:   sheets,
		Past:     past,
		Language: r.kept.Language,
		Dark:     r.kept.Dark,
	}, nil
}

// onFront gives the front screen as an audience of a sheet, where it shows that
// one; the caller holds the session's lock.
func (r *running) onFront(key store.SheetKey) (audience.Audience, bool) {
	frame, owners := r.state.OnFront(r.board.Board)
	who := audience.Front(owners)
	return who, frame != "" && key.Frame == frame && who.Sheet(key.Owner, true)
}

// frontStage gives what front screens are told of a state; the caller holds the
// session's lock.
func (r *running) frontStage(state session.State, before map[string]session.View) (session.FrontStage, error) {
	board, v := r.board.Board, session.View{}
	if frame, _ := state.OnFront(board); frame != "" {
		var err error
		if v, err = r.views.of(state, board, frame); err != nil {
			return session.FrontStage{}, err
		}
	}
	stage := state.OfFront(board, v, r.code(state), r.order)
	if v.Frame.ID != "" {
		stage.Stage = stage.Stage.Changed(v.Since(before[v.Frame.ID]))
	}
	return stage, nil
}

// recount lets front screens that show a poll have its answers counted anew, soon.
func (h *Hub) recount(r *running, key store.SheetKey, done []accepted) {
	answered := slices.ContainsFunc(done, func(a accepted) bool {
		return slices.ContainsFunc(a.result.Change.Put, func(e lesson.Element) bool { return e.IsAnswer() })
	})
	if !answered {
		return
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	counted := r.state.Front.Poll != "" && r.state.Front.Frame == key.Frame ||
		r.state.Front.Kind == session.FrontFrame && r.state.Frame == key.Frame
	if r.fronts+r.looks == 0 || r.tally || !counted {
		return
	}
	r.tally = true
	time.AfterFunc(restful(tallyEvery, r.took), func() { h.guard("tally", func() { h.tellTally(r) }) })
}

func (h *Hub) tellTally(r *running) {
	ctx, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	r.mu.Lock()
	r.tally = false
	state, board := r.state, r.board
	r.mu.Unlock()
	began := time.Now()
	r.mu.RLock()
	stage, err := r.frontStage(state, map[string]session.View{})
	r.mu.RUnlock()
	if err == nil {
		err = h.count(ctx, r, state, board, &stage)
	}
	r.mu.Lock()
	r.took = time.Since(began)
	current := r.state.Rev == state.Rev // else what has changed meanwhile is told with its own count
	r.mu.Unlock()
	switch {
	case err != nil:
		h.log.Error("tally", "error", store.Bare(err))
	case current && (stage.Tally != nil || stage.Set != nil):
		h.tell(r, telling{[]string{frontChannel(r.kept.ID)}, News{Kind: NewsFront, Front: &stage}})
	}
}

// count puts onto a front's stage how the answers stand to the poll that it shows, or the set
// of the frame: nothing of what lies under a cover.
func (h *Hub) count(
	ctx context.Context,
	r *running,
	state session.State,
	board *edition,
	on *session.FrontStage,
) error {
	if _, seen := on.Polls[on.Show.Poll]; seen {
		tally, err := h.tallyOf(ctx, r, state, board.Board)
		on.Tally = tally
		return err
	}
	if on.Show.Kind != session.FrontFrame || on.Frame.Set == nil {
		return nil
	}
	r.know.mu.Lock()
	old := time.Since(r.know.read) > knowsAgain
	r.know.mu.Unlock()
	if old {
		if _, err := h.know(ctx, r); err != nil {
			return err
		}
	}
	if set, ok := r.setOf(state, board, on.Frame.ID); ok {
		set = set.ForFront(on.Frame.Set.Race)
		on.Set = &set
	}
	return nil
}

// tallyOf counts the answers to the poll that a state shows on the front; nothing
// where it shows none.
func (h *Hub) tallyOf(ctx context.Context, r *running, state session.State, board lesson.Board) (*poll.Tally, error) {
	show := state.Front
	question, ok := question(board, show)
	if !ok {
		return nil, nil
	}
	keys, err := h.store.SheetKeys(ctx, r.kept.ID, show.Frame)
	if err != nil {
		return nil, err
	}
	all, err := h.loadAll(ctx, keys)
	if err != nil {
		return nil, err
	}
	var values []poll.Value
	round := state.Polls[show.Poll].Round
	for _, at := range all {
		if err := at.with(func(s *sheet.Sheet) {
			for _, e := range s.Marks() {
				a := e.Answer
				if a != nil && a.Poll == show.Poll && a.Round == round && e.OnFrame() && !a.Late {
					values = append(values, a.Value)
				}
			}
		}); err != nil {
			return nil, err
		}
	}
	tally := question.Tally(values).ForClass(state.Polls[show.Poll].At(now()).Phase)
	if !show.Result {
		tally = poll.Tally{Answered: tally.Answered}
	}
	return &tally, nil
}

// question finds the question that is to be shown.
func question(board lesson.Board, show session.Front) (poll.Question, bool) {
	frame, _, err := board.Frame(show.Frame)
	if err != nil || show.Poll == "" {
		return poll.Question{}, false
	}
	for _, p := range frame.Polls() {
		if p.ID == show.Poll {
			return *p.Poll, true
		}
	}
	return poll.Question{}, false
}

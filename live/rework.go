package live

import (
	"context"
	"reflect"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/store"
)

// Rework lets work change the board of a running lesson. Each change that it saves
// is held against the lesson (session.State.Rework) first; all of them are stored
// together with the state, and then told. Work may be called again when another
// server was quicker.
func (h *Hub) Rework(ctx context.Context, id, by string, work func(d *store.Draft) error) (session.State, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return session.State{}, err
	}
	if err := r.takeTurn(ctx); err != nil {
		return session.State{}, err
	}
	defer r.passTurn()
	for range attempts {
		state, board := r.snapshot()
		next, after := state, board.Board
		saved, err := h.store.Rework(ctx, id, state.Rev, func(d *store.Draft) (session.State, error) {
			d.May = func() error {
				changed := over(after, d.Draft)
				then, kept, err := mayBecome(ctx, d, next, session.Rework{Before: after, After: changed}, r.with(by))
				if err == nil {
					next, after = then, kept
					keepWas(d, kept)
				}
				return err
			}
			if err := work(d); err != nil || next.Rev == state.Rev {
				return next, err
			}
			next.Rev, next.Terms, next.Edition = state.Rev+1, state.Terms+1, state.Edition+1
			return next, nil
		})
		switch {
		case err != nil:
			return state, missing(err, refusal.NotFound)
		case saved && next.Rev == state.Rev:
			return state, nil
		case saved:
			h.tell(r, r.become(next, newEdition(after), true)...)
			return next, nil
		}
		if err := h.readAgain(ctx, r); err != nil {
			return state, err
		}
	}
	return session.State{}, refusal.New(refusal.Unavailable)
}

// over gives a board with what is in a draft of it in its place.
func over(board lesson.Board, d prepare.Draft) lesson.Board {
	next := lesson.Board{Title: d.Outline.Title, Objectives: d.Outline.Objectives, Criteria: d.Outline.Criteria,
		Frames: []lesson.Frame{}}
	for _, id := range d.Outline.Frames {
		f, _, _ := board.Frame(id)
		if drafted, ok := d.Frames[id]; ok {
			f = drafted.Settled()
		}
		next.Frames = append(next.Frames, f)
	}
	return next
}

// mayBecome holds a change of the board against the state, and against what is on
// the sheets: the answers to its questions, and ids that students have used.
func mayBecome(ctx context.Context, d *store.Draft, state session.State, r session.Rework,
	with session.With) (session.State, lesson.Board, error) {
	fresh, before := []string{}, r.Before.IDs()
	for id := range r.After.IDs() {
		if !before[id] {
			fresh = append(fresh, id)
		}
	}
	marked, err := d.Marked(ctx, fresh)
	if err != nil {
		return state, r.After, err
	}
	if marked {
		return state, r.After, refusal.New(refusal.MarkExists)
	}
	polls := questions(r.Before)
	for id, now := range questions(r.After) {
		if reflect.DeepEqual(polls[id], now) {
			delete(polls, id)
		}
	}
	ids := []string{}
	for id := range polls {
		ids = append(ids, id)
	}
	if r.Answered, err = d.Answered(ctx, ids); err != nil {
		return state, r.After, err
	}
	return state.Rework(r, with)
}

// keepWas brings into a draft how its questions were asked before.
func keepWas(d *store.Draft, board lesson.Board) {
	asked := questions(board)
	for id, f := range d.Frames {
		f.Prepared = slices.Clone(f.Prepared)
		for i, e := range f.Prepared {
			if now := asked[e.ID]; e.Poll != nil && now != nil {
				question := *e.Poll
				question.Was = now.Was
				f.Prepared[i].Poll = &question
			}
		}
		d.Frames[id] = f
	}
}

func questions(b lesson.Board) map[string]*poll.Question {
	all := map[string]*poll.Question{}
	for _, f := range b.Frames {
		for _, p := range f.Polls() {
			all[p.ID] = p.Poll
		}
	}
	return all
}

// applyStep makes one edit of a board.
func applyStep(ctx context.Context, d *store.Draft, step prepare.Step) error {
	if err := d.Load(ctx, step.Needs()...); err != nil {
		return err
	}
	changed, back, err := d.Apply(prepare.Edit{ID: store.NewID(), Step: step}, now())
	if err != nil {
		return err
	}
	return d.Save(ctx, &changed, back)
}

// reworked says how a board differs from what it was.
func reworked(was, is lesson.Board, state session.State) Reworked {
	r := Reworked{State: state, Title: is.Title, Order: []string{}, Frames: []lesson.Frame{}}
	for _, f := range is.Frames {
		r.Order = append(r.Order, f.ID)
		if at := slices.IndexFunc(was.Frames, func(o lesson.Frame) bool { return o.ID == f.ID }); at < 0 ||
			!reflect.DeepEqual(was.Frames[at], f) {
			r.Frames = append(r.Frames, f)
		}
	}
	return r
}

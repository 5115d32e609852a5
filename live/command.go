package live

import (
	"context"
	"math/rand/v2"
	"slices"

	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/store"
)

// Command lets the teacher change the state of a session: the new state is
// saved first and then told to all. By is who gives it.
func (h *Hub) Command(ctx context.Context, id, by string, c session.Command) (session.State, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return session.State{}, err
	}
	if step, ok := c.Edit(); ok {
		return h.Rework(ctx, id, by, func(d *store.Draft) error { return applyStep(ctx, d, step) })
	}
	state, err := h.change(ctx, r, true, func(state session.State, board *edition) (session.State, error) {
		with := r.with(by)
		switch {
		case c.Talk != nil:
			with.Said = r.saidTo(c.Talk.Poll)
		case c.Groups != nil && c.Groups.Poll != "":
			with.Said = r.saidTo(c.Groups.Poll)
		}
		return state.Apply(board.Board, c, with)
	})
	if err == nil && c.Seat != nil && c.Seat.Remove {
		h.CloseSeat(c.Seat.Student)
	}
	return state, err
}

// admit finds a group for a student who has none. Only their group learns of it.
func (h *Hub) admit(ctx context.Context, r *running, student string) error {
	if state, _ := r.snapshot(); state.GroupOf(student) != 0 || state.Ended {
		return nil
	}
	state, err := h.change(ctx, r, false, func(state session.State, _ *edition) (session.State, error) {
		next, _ := state.Admit(student)
		return next, nil
	})
	if n := state.GroupOf(student); err == nil && n > 0 {
		r.mu.RLock()
		told := r.stateFor(r.board, state.Groups[n-1])
		r.mu.RUnlock()
		h.tell(r, told...)
	}
	return err
}

// Knock puts somebody in line at the closed door of a session. The staff learns of it.
func (h *Hub) Knock(ctx context.Context, id string, k session.Knock) error {
	r, err := h.session(ctx, id)
	if err != nil {
		return err
	}
	_, err = h.change(
		ctx,
		r,
		false,
		func(state session.State, _ *edition) (session.State, error) { return state.Knock(k) },
	)
	return err
}

// Enter takes somebody who knocked off the list of those who were let through,
// so that each comes in once, and says who it is.
func (h *Hub) Enter(ctx context.Context, id, knock string) (session.Knock, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return session.Knock{}, err
	}
	if err := h.refresh(ctx, r); err != nil { // another server may have let them through
		return session.Knock{}, err
	}
	var let session.Knock
	_, err = h.change(ctx, r, false, func(state session.State, _ *edition) (session.State, error) {
		next, k, ok := state.Enter(knock)
		if !ok {
			return state, refusal.New(refusal.NotLetIn)
		}
		let = k
		return next, nil
	})
	return let, err
}

// with gives what a command is given from around it.
func (r *running) with(by string) session.With {
	r.mu.RLock()
	defer r.mu.RUnlock()
	// The class's notes name students; here they are who has joined as each of them.
	as := map[string]string{}
	for _, id := range r.order {
		if student := r.people[id].Student; student != "" && r.state.Seated(id) {
			as[student] = id
		}
	}
	return session.With{
		By:       by,
		Now:      now(),
		Students: slices.Clone(r.order),
		Random:   rand.IntN,
		Plan:     r.kept.Plan.V.As(as),
		Listed:   len(r.kept.Students.V) > 0,
	}
}

// takeTurn waits until nobody else changes what is stored of the session; passTurn
// lets the next one.
func (r *running) takeTurn(ctx context.Context) error {
	select {
	case r.turn <- struct{}{}:
		return nil
	case <-ctx.Done():
		return ctx.Err()
	}
}

func (r *running) passTurn() { <-r.turn }

// change saves the next state of a session, decided anew when another server
// was quicker, and tells it to the staff and, with all, to the students. A
// state that stays as it is is not saved.
func (h *Hub) change(ctx context.Context, r *running, all bool,
	decide func(session.State, *edition) (session.State, error)) (session.State, error) {
	if err := r.takeTurn(ctx); err != nil {
		return session.State{}, err
	}
	defer r.passTurn()
	for range attempts {
		state, board := r.snapshot()
		next, err := decide(state, board)
		if err != nil || next.Rev == state.Rev {
			return state, err
		}
		saved, err := h.store.SetState(ctx, r.kept.ID, next)
		if err != nil {
			return state, err
		}
		if saved {
			h.tell(r, r.become(next, board, all)...)
			h.ponder(r)
			return next, nil
		}
		if err := h.readAgain(ctx, r); err != nil {
			return state, err
		}
	}
	return session.State{}, refusal.New(refusal.Unavailable)
}

// Resume takes a lesson up again that has ended, as homework where a date is given, under a new code or with none
// under its own. It says store.ErrTaken where that is another's by now.
func (h *Hub) Resume(ctx context.Context, id, by, code string, home session.SetHome) (session.State, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return session.State{}, err
	}
	kept, err := h.store.Session(ctx, id)
	if err != nil {
		return session.State{}, missing(err, refusal.NotFound)
	}
	return h.change(ctx, r, true, func(state session.State, board *edition) (session.State, error) {
		ended := now()
		if kept.EndedAt != nil {
			ended = kept.EndedAt.UnixMilli()
		}
		next, err := state.Resume(code, kept.StartedAt.UnixMilli(), ended, now())
		if err != nil || home.Until == 0 {
			return next, err
		}
		rev := next.Rev
		next, err = next.Apply(board.Board, session.Command{Kind: session.KindHome, Home: &home}, r.with(by))
		next.Rev = rev // one change, and not two
		return next, err
	})
}

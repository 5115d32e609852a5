package live

import (
	"context"
	"slices"

	"alpenglow/core/refusal"
)

// hello tells who has just connected where the session stands.
func (h *Hub) hello(ctx context.Context, s seat, ask Hello) (any, error) {
	// Another server may have led the session on.
	if err := h.refresh(ctx, s.session); err != nil {
		return nil, err
	}
	if s.actor.Staff {
		return h.helloStaff(ctx, s.session, ask)
	}
	// Asking to stay opens the frame that the student is on.
	moved, err := h.move(ctx, s.session, s.actor, Move{Known: ask.Known, Have: ask.Have})
	if err != nil {
		return nil, err
	}
	worked, err := h.store.Worked(ctx, s.session.kept.ID, s.actor.ID)
	if err != nil {
		return nil, err
	}
	s.session.mu.RLock()
	said := s.session.voices
	s.session.mu.RUnlock()
	people := s.session.list(false, s.actor.ID)
	at := slices.IndexFunc(people, func(p Person) bool { return p.ID == s.actor.ID })
	if at < 0 {
		return nil, refusal.New(refusal.JoinNeeded)
	}
	return StudentHello{Me: people[at], Stage: moved.Stage, People: people, Sheets: moved.Sheets, Worked: worked,
		Said: s.said(said)}, nil
}

func (h *Hub) helloStaff(ctx context.Context, r *running, ask Hello) (any, error) {
	state, now := r.snapshot()
	sheets, err := h.openAll(ctx, r, state.Frame, ask.Have)
	if err != nil {
		return nil, err
	}
	if err != nil {
		return nil, err
	}
	work, next, err := h.work(ctx, r)
	board := &now.Board
	if ask.Board != nil && *ask.Board == state.Edition {
		board = nil
	}
	r.mu.RLock()
	fronts, said := r.fronts, r.voices.Ordered()
	r.mu.RUnlock()
	plan := r.kept.Plan.V
	var sets []GroupSet
	for _, set := range plan.Sets {
		sets = append(sets, GroupSet{set.ID, set.Name})
	}
	// Row by row, as the teacher sees them from the front.
	seated := slices.DeleteFunc(slices.Clone(plan.Seats.At), func(student string) bool { return student == "" })
	return StaffHello{Board: board, State: state, Code: r.code(state), ClassName: r.kept.ClassName,
		Sets: sets, Seats: seated,
		Expected: r.kept.Students.V, People: r.list(true, ""), Work: work, Next: next, Queue: r.queue(),
		Sheets: sheets, Practice: r.kept.Practice,
		Fronts: fronts, Said: Said{All: &said}}, err
}

func (h *Hub) openFor(ctx context.Context, s seat, frame string) ([]SheetView, error) {
	if s.actor.Staff {
		return h.openAll(ctx, s.session, frame, nil)
	}
	return h.open(ctx, s.session, s.actor, frame, nil)
}

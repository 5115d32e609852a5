package live

import (
	"context"
	"slices"

	"alpenglow/core/audience"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

// walk takes a student to a stop of the class's walk.
func (h *Hub) walk(ctx context.Context, s seat, ask WalkTo) (AtStop, error) {
	r := s.session
	r.mu.RLock()
	state, board, people := r.state, r.board.Board, slices.Clone(r.order)
	r.mu.RUnlock()
	var stops []string
	if state.Walk != nil && state.Seated(s.actor.ID) {
		stops = state.Walked(state.Walk.Frame)
	}
	if len(stops) == 0 || ask.Owner != "" && !slices.Contains(stops, ask.Owner) {
		return AtStop{}, refusal.New(refusal.NoSuchSheet)
	}
	at := AtStop{Owner: ask.Owner}
	if at.Owner == "" {
		at.Owner = stops[0]
		if state.Walk.Own {
			at.Owner = stops[state.Begins(s.actor.ID, people)]
		}
	}
	view, err := state.View(board, state.Walk.Frame, session.View{})
	if err != nil {
		return AtStop{}, err
	}
	at.Stage = state.Stage(board, session.Student{ID: s.actor.ID}, view).Knowing(ask.Known)
	keys, err := h.store.EnsureSheets(ctx, r.kept.ID, state.Walk.Frame, []string{at.Owner})
	if err != nil {
		return AtStop{}, err
	}
	views, err := h.views(ctx, audience.Of(in(state, s.actor)).Walking(stops), true, keys, ask.Have)
	if err != nil {
		return AtStop{}, err
	}
	if len(views) != 1 {
		return AtStop{}, refusal.New(refusal.NoSuchSheet)
	}
	at.Sheet = views[0]
	return at, nil
}

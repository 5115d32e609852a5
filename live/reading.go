package live

import (
	"context"
	"slices"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// How many bytes of marks, about, go into one answer: of all sheets of a frame
// together, and of one sheet that is filled up. The rest is asked for.
const (
	openBytes = 1 << 20
	partBytes = 256 << 10
)

// open gives a student the sheets of a frame that is open to them.
func (h *Hub) open(ctx context.Context, r *running, a sheet.Actor, frame string,
	have map[string]sheet.Cursor) ([]SheetView, error) {
	state, board := r.snapshot()
	f, _, err := board.Frame(frame)
	if err != nil {
		return nil, err
	}
	if !state.IsOpen(frame) {
		return nil, refusal.New(refusal.NoSuchFrame)
	}
	if f.Arrangement == lesson.Groups {
		if err := h.admit(ctx, r, a.ID); err != nil {
			return nil, err
		}
	}
	state, _ = r.snapshot()
	a = in(state, a)
	keys, err := h.store.EnsureSheets(ctx, r.kept.ID, frame, owners(f, a))
	if err != nil {
		return nil, err
	}
	return h.views(ctx, audience.Of(a), true, keys, have)
}

// openAll gives the staff every sheet of a frame.
func (h *Hub) openAll(ctx context.Context, r *running, frame string,
	have map[string]sheet.Cursor) ([]SheetView, error) {
	state, board := r.snapshot()
	f, _, err := board.Frame(frame)
	if err != nil {
		return nil, err
	}
	if _, err := h.store.EnsureSheets(ctx, r.kept.ID, frame, sharers(f, state)); err != nil {
		return nil, err
	}
	keys, err := h.store.SheetKeys(ctx, r.kept.ID, frame)
	if err != nil {
		return nil, err
	}
	return h.views(ctx, audience.Staff(), state.IsOpen(frame), keys, have)
}

// sharers lists the owners of the sheets that more than one work on, which
// are there for the staff before anybody has opened them.
func sharers(f lesson.Frame, state session.State) []string {
	owners := []string{}
	switch f.Arrangement {
	case lesson.WholeClass:
		owners = append(owners, sheet.ClassOwner)
	case lesson.Groups:
		for i := range state.Groups {
			owners = append(owners, sheet.GroupOwner(i+1))
		}
	}
	return owners
}

// views reads sheets for somebody; those that they may not see are left out. Of
// what they have, up to a cursor, they get what has changed since.
func (h *Hub) views(ctx context.Context, who audience.Audience, open bool, keys []store.SheetKey,
	have map[string]sheet.Cursor) ([]SheetView, error) {
	keys = slices.DeleteFunc(keys, func(k store.SheetKey) bool { return !who.Sheet(k.Owner, open) })
	slices.SortFunc(keys, byOwner)
	all, err := h.loadAll(ctx, keys)
	if err != nil {
		return nil, err
	}
	views, left := []SheetView{}, openBytes
	for _, at := range all {
		view := SheetView{Sheet: at.key.ID, Frame: at.key.Frame, Owner: at.key.Owner}
		if err := at.with(func(s *sheet.Sheet) {
			from := have[at.key.ID]
			if from.After != "" { // reading broke off in the middle of a change
				from = sheet.Cursor{Seq: from.Seq - 1}
			}
			view.Part = s.Since(from, max(left, 1), who.Mark)
		}); err != nil {
			return nil, err
		}
		for _, m := range view.Put {
			left -= sheet.Size(m)
		}
		views = append(views, view)
	}
	return views, nil
}

// ShownPicture says whether a class may see a picture of the library under this
// name now, and on which frame: one that it has been on and that shows it.
func (h *Hub) ShownPicture(ctx context.Context, id, name string) (lesson.Frame, bool, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return lesson.Frame{}, false, err
	}
	state, board := r.snapshot()
	for _, f := range board.Frames {
		seen, may := audience.Class().Frame(f, state.IsOpen(f.ID), state.Lifted)
		if may && slices.Contains(state.AsAsked(seen).Pictures(), name) {
			return f, true, nil
		}
	}
	return lesson.Frame{}, false, nil
}

// readable gives a sheet in memory for somebody who may read it now.
func (h *Hub) readable(ctx context.Context, r *running, a sheet.Actor, id string) (*held, error) {
	at, err := h.hold(ctx, id)
	if err != nil {
		return nil, err
	}
	state, _ := r.snapshot()
	who := audience.Of(in(state, a)).Walking(state.Walked(at.key.Frame))
	if at.key.Session != r.kept.ID || !who.Sheet(at.key.Owner, state.IsOpen(at.key.Frame)) {
		return nil, refusal.New(refusal.NoSuchSheet)
	}
	return at, nil
}

// since gives what has changed on a sheet since a cursor, as the actor may see
// it, a portion at a time.
func (h *Hub) since(ctx context.Context, r *running, a sheet.Actor, ask Since) (sheet.Part, error) {
	at, err := h.readable(ctx, r, a, ask.Sheet)
	if err != nil {
		return sheet.Part{}, err
	}
	return h.part(ctx, at, audience.Of(a), ask.Cursor)
}

// part gives a portion of a sheet as somebody may see it, who may read it.
func (h *Hub) part(ctx context.Context, at *held, who audience.Audience, from sheet.Cursor) (sheet.Part, error) {
	if err := h.catchUp(ctx, at); err != nil {
		return sheet.Part{}, err
	}
	var part sheet.Part
	return part, at.with(func(s *sheet.Sheet) { part = s.Since(from, partBytes, who.Mark) })
}

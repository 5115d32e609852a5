package live

import (
	"context"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
)

// in gives the actor with the group that they are in now.
func in(state session.State, a sheet.Actor) sheet.Actor {
	a.Group = state.GroupOf(a.ID)
	return a
}

// owners says whose sheets a student works with on a frame: the one they share
// or their own, and their own where a poll is to be answered.
func owners(f lesson.Frame, a sheet.Actor) []string {
	shared := a.Owner(f.Arrangement)
	if shared != a.ID && len(f.Polls()) > 0 {
		return []string{shared, a.ID}
	}
	return []string{shared}
}

// open gives a student the sheets of a frame that the class has been on.
func (h *Hub) open(ctx context.Context, r *running, a sheet.Actor, frame string) ([]SheetView, error) {
	f, err := r.snapshot().On(r.kept.Content.V, frame)
	if err != nil {
		return nil, err
	}
	if !slices.Contains(r.snapshot().Reached, frame) {
		return nil, refusal.New(refusal.NoSuchFrame)
	}
	if f.Arrangement == lesson.Groups && !r.snapshot().Ended {
		if err := h.admit(ctx, r, a.ID); err != nil {
			return nil, err
		}
	}
	a = in(r.snapshot(), a)
	views := []SheetView{}
	for _, owner := range owners(f, a) {
		if owner == "" {
			continue // the lesson ended before they had a group
		}
		key, err := h.store.EnsureSheet(ctx, r.kept.ID, frame, owner)
		if err != nil {
			return nil, err
		}
		view, err := h.view(ctx, h.place(key), a)
		if err != nil {
			return nil, err
		}
		views = append(views, view)
	}
	return views, nil
}

// openAll gives the staff every sheet of a frame.
func (h *Hub) openAll(ctx context.Context, r *running, frame string) ([]SheetView, error) {
	f, err := r.snapshot().On(r.kept.Content.V, frame)
	if err != nil {
		return nil, err
	}
	for _, owner := range sharers(f, r.snapshot()) {
		if _, err := h.store.EnsureSheet(ctx, r.kept.ID, frame, owner); err != nil {
			return nil, err
		}
	}
	keys, err := h.store.SheetKeys(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	views := []SheetView{}
	for _, key := range keys {
		if key.Frame != frame {
			continue
		}
		view, err := h.view(ctx, h.place(key), sheet.Actor{Staff: true})
		if err != nil {
			return nil, err
		}
		views = append(views, view)
	}
	return views, nil
}

// sharers lists the owners of the sheets that more than one work on, which
// are there for the staff before anybody has opened them.
func sharers(f lesson.Frame, state session.State) []string {
	switch f.Arrangement {
	case lesson.WholeClass:
		return []string{sheet.ClassOwner}
	case lesson.Groups:
		var owners []string
		for i := range state.Groups {
			owners = append(owners, sheet.GroupOwner(i+1))
		}
		return owners
	}
	return nil
}

// ShownPicture says whether a class may see a picture of the library under this
// name now, and on which frame: one that it has been on and that shows it.
func (h *Hub) ShownPicture(ctx context.Context, id, name string) (lesson.Frame, bool, error) {
	r, err := h.session(ctx, id)
	if err != nil {
		return lesson.Frame{}, false, err
	}
	state := r.snapshot()
	for _, f := range r.kept.Content.V.Frames {
		if slices.Contains(state.Reached, f.ID) && slices.Contains(f.ForClass(state.Lifted).Pictures(), name) {
			return f, true, nil
		}
	}
	return lesson.Frame{}, false, nil
}

// view reads a sheet for somebody who may read it.
func (h *Hub) view(ctx context.Context, at *held, a sheet.Actor) (SheetView, error) {
	if !a.MayRead(at.key.Owner) {
		return SheetView{}, refusal.New(refusal.NoSuchSheet)
	}
	at.mu.Lock()
	defer at.mu.Unlock()
	if err := h.catchUp(ctx, at); err != nil {
		return SheetView{}, err
	}
	marks := at.sheet.MarksFor(a)
	if marks == nil {
		marks = []lesson.Element{}
	}
	return SheetView{Sheet: at.key.ID, Frame: at.key.Frame, Owner: at.key.Owner, Seq: at.sheet.Seq, Marks: marks}, nil
}

// since gives the changes of a sheet after a number, as the actor may see them.
func (h *Hub) since(ctx context.Context, r *running, a sheet.Actor, ask Since) ([]sheet.Change, error) {
	at, err := h.hold(ctx, ask.Sheet)
	if err != nil {
		return nil, err
	}
	if at.key.Session != r.kept.ID || !in(r.snapshot(), a).MayRead(at.key.Owner) {
		return nil, refusal.New(refusal.NoSuchSheet)
	}
	changes, err := h.store.ChangesSince(ctx, ask.Sheet, ask.Seq)
	if err != nil {
		return nil, err
	}
	// Read after the changes: what was put away meanwhile is left out of them.
	at.mu.Lock()
	defer at.mu.Unlock()
	if err := h.catchUp(ctx, at); err != nil {
		return nil, err
	}
	return at.sheet.History(changes, a), nil
}

// work counts what everybody has on every frame of a session.
func (h *Hub) work(ctx context.Context, r *running) ([]Work, error) {
	marks, err := h.store.SessionMarks(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	type place struct{ author, frame string }
	counts := map[place]int{}
	for _, m := range marks {
		if m.OnFrame() {
			counts[place{m.Author, m.Frame}]++
		}
	}
	last, err := h.store.Activities(ctx, r.kept.ID)
	if err != nil {
		return nil, err
	}
	work := make([]Work, len(last))
	for i, l := range last {
		work[i] = Work{Author: l.Author, Frame: l.Frame, Marks: counts[place{l.Author, l.Frame}], At: l.At}
	}
	return work, nil
}

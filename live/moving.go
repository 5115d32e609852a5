package live

import (
	"context"

	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// place is the frame that a participant has gone to.
func place(p store.Participant) string {
	if p.Frame == nil {
		return ""
	}
	return *p.Frame
}

// student gives what the state asks to know of a participant; the caller holds
// the session's lock.
func (r *running) student(id string) session.Student {
	s := session.Student{ID: id}
	if p, ok := r.people[id]; ok {
		s.At = p.At
	}
	return s
}

// stage gives what a student may know of the session now.
func (r *running) stage(id string) (session.Stage, error) {
	r.mu.RLock()
	defer r.mu.RUnlock()
	student := r.student(id)
	v, err := r.views.of(r.state, r.board.Board, r.state.Place(r.board.Board, student))
	if err != nil {
		return session.Stage{}, err
	}
	return r.state.Stage(r.board.Board, student, v), nil
}

// move takes a student to a frame, if it is open to them at their own pace; no
// frame means to stay.
func (h *Hub) move(ctx context.Context, r *running, a sheet.Actor, ask Move) (Moved, error) {
	if err := h.goTo(ctx, r, a.ID, ask.Frame); err != nil {
		return Moved{}, err
	}
	stage, err := r.stage(a.ID)
	if err != nil {
		return Moved{}, err
	}
	sheets, err := h.open(ctx, r, a, stage.Frame.ID, ask.Have)
	if err != nil {
		return Moved{}, err
	}
	// Opening may have found the student a group.
	stage, err = r.stage(a.ID)
	return Moved{Stage: stage.Knowing(ask.Known), Sheets: sheets}, err
}

// goTo notes where a student has gone and tells the staff.
func (h *Hub) goTo(ctx context.Context, r *running, student, frame string) error {
	r.mu.RLock()
	p, ok := r.people[student]
	goes := ok && r.state.MayMove(r.board.Board, frame) && p.At != frame
	r.mu.RUnlock()
	if !goes {
		return nil
	}
	if err := h.store.SetPlace(ctx, student, frame); err != nil {
		return err
	}
	r.mu.Lock()
	// Somebody may have read the new place meanwhile; it is told all the same.
	if r.state.MayMove(r.board.Board, frame) {
		p.At = frame
		p.since = now()
	}
	person := p.Person
	person.Here = p.connections > 0
	r.mu.Unlock()
	h.tell(r, telling{[]string{staffChannel(r.kept.ID)}, ofPeople(person)})
	h.ponder(r)
	return nil
}

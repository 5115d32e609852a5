package live

import (
	"context"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
)

// Tie notes which student of the class a participant is; "" for none of them.
func (h *Hub) Tie(ctx context.Context, sessionID, participant, student string) error {
	if err := h.store.Tie(ctx, sessionID, participant, student); err != nil {
		return missing(err, refusal.NotFound)
	}
	return h.known(ctx, sessionID, participant, func(p *Person) { p.Student = student })
}

// Rename gives a participant another name, told apart from those of the others and the
// teacher's.
func (h *Hub) Rename(ctx context.Context, sessionID, participant, name, teacher string) error {
	name, err := h.store.Rename(ctx, sessionID, participant,
		func(taken []string) string { return roster.Apart(name, append(taken, teacher)) })
	if err != nil {
		return missing(err, refusal.NotFound)
	}
	return h.known(ctx, sessionID, participant, func(p *Person) { p.Name = name })
}

// known takes what has become known of a participant, tells of it, and lets other
// servers learn of it by the session's state. After the end nobody is told.
func (h *Hub) known(ctx context.Context, sessionID, participant string, learn func(p *Person)) error {
	r, err := h.session(ctx, sessionID)
	if err != nil {
		return err
	}
	r.mu.Lock()
	p, ok := r.people[participant]
	var person Person
	if ok {
		learn(&p.Person)
		person = p.Person
		person.Here, person.Removed = p.connections > 0, !r.state.Seated(participant)
	}
	state := r.state
	r.mu.Unlock()
	if state.Ended {
		return nil
	}
	if ok { // else they joined on another server
		h.tell(r, telling{[]string{staffChannel(sessionID)}, ofPeople(person)})
		toClass := []string{oneChannel(participant)}
		if !state.Nameless && !person.Removed {
			toClass = []string{classChannel(sessionID), frontChannel(sessionID)}
		}
		h.tell(r, telling{toClass, ofPeople(person.forClass())})
	}
	_, err = h.change(
		ctx,
		r,
		false,
		func(state session.State, _ *edition) (session.State, error) { return state.Person() },
	)
	if refusal.Of(err) != nil && refusal.Of(err).Code == refusal.Ended {
		return nil
	}
	return err
}

package live

import (
	"context"
	"math/rand/v2"
	"slices"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/voices"
)

// voicesEvery is how often the staff and the class are told of what is said at most.
const voicesEvery = 200 * time.Millisecond

// say takes a word of somebody: what follows is saved first, then they are answered,
// those whom it concerns are told at once, and everybody else soon.
func (h *Hub) say(ctx context.Context, s seat, w voices.Word) (Said, error) {
	r := s.session
	select {
	case r.saying <- struct{}{}:
		defer func() { <-r.saying }()
	case <-ctx.Done():
		return Said{}, ctx.Err()
	}
	before := r.drawnBefore()
	for range attempts {
		r.mu.RLock()
		v, state := r.voices, r.state
		with := voices.With{
			By:       s.actor.ID,
			Staff:    s.actor.Staff,
			Now:      now(),
			Students: slices.Clone(r.order),
			Open:     state.Reached,
			Here:     r.here(),
			Before:   before,
			Random:   rand.IntN,
			Home:     state.Home,
		}
		r.mu.RUnlock()
		switch {
		case state.Ended:
			return Said{}, refusal.New(refusal.Ended)
		case !s.actor.Staff && !state.Seated(s.actor.ID):
			return Said{}, refusal.New(refusal.JoinNeeded)
		}
		next, err := v.Say(w, with)
		if err != nil || next.Rev == v.Rev {
			return s.said(v), err
		}
		saved, err := h.store.SetVoices(ctx, r.kept.ID, next)
		if err != nil {
			return Said{}, err
		}
		if saved {
			h.becomes(r, next, next.Concerned(w, s.actor.ID)...)
			return s.said(next), nil
		}
		if err := h.readAgain(ctx, r); err != nil {
			return Said{}, err
		}
	}
	return Said{}, refusal.New(refusal.Unavailable)
}

// said gives the voices as somebody may know them.
func (s seat) said(v voices.Voices) Said {
	if s.actor.Staff {
		v = v.Ordered()
		return Said{All: &v}
	}
	shared, own := v.ForClass(), v.ForStudent(s.actor.ID)
	return Said{Shared: &shared, Own: &own}
}

// becomes takes newer voices and tells of them.
func (h *Hub) becomes(r *running, next voices.Voices, students ...string) {
	r.mu.Lock()
	if next.Rev <= r.voices.Rev {
		r.mu.Unlock()
		return
	}
	r.voices = next
	soon := !r.toSay
	r.toSay = true
	var told []telling
	for _, id := range students {
		if p, ok := r.people[id]; ok && p.connections > 0 {
			own := next.ForStudent(id)
			told = append(told, telling{[]string{oneChannel(id)}, News{Kind: NewsVoices, Voices: &Said{Own: &own}}})
		}
	}
	r.mu.Unlock()
	h.tell(r, told...)
	if soon {
		time.AfterFunc(voicesEvery, func() { h.guard("voices", func() { h.tellVoices(r) }) })
	}
}

func (h *Hub) tellVoices(r *running) {
	r.mu.Lock()
	r.toSay = false
	all := r.voices.Ordered()
	r.mu.Unlock()
	h.ponder(r)
	shared := all.ForClass()
	told := []telling{{[]string{staffChannel(r.kept.ID)}, News{Kind: NewsVoices, Voices: &Said{All: &all}}}}
	// Who is done and who needs help changes often and is nothing to the class.
	r.mu.Lock()
	if !shared.Same(r.shared) {
		r.shared = shared
		told = append(
			told,
			telling{[]string{classChannel(r.kept.ID)}, News{Kind: NewsVoices, Voices: &Said{Shared: &shared}}},
		)
	}
	r.mu.Unlock()
	h.tell(r, told...)
}

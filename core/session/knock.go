package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
)

// KindAdmit answers those who wait at a closed door.
const KindAdmit CommandKind = "admit"

// MaxWaiting is how many may wait at a closed door.
const MaxWaiting = 40

// Knock is somebody at a closed door, by the name they gave. Its id is known to
// their device and to the staff alone.
type Knock struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Doubt is what speaks against the name.
	Doubt roster.Doubt `json:"doubt,omitempty"`
}

// Admit lets some of those who wait come in, or sends them away. Who does not
// wait any more, because somebody else has answered, is passed over.
type Admit struct {
	Knocks []string `json:"knocks"`
	Yes    bool     `json:"yes"`
}

func (c *Admit) do(s *State, _ lesson.Board, _ With) error {
	var answered []Knock
	s.Waiting = slices.DeleteFunc(s.Waiting, func(k Knock) bool {
		known := slices.Contains(c.Knocks, k.ID)
		if known {
			answered = append(answered, k)
		}
		return known
	})
	if c.Yes {
		s.admit(answered)
	}
	return nil
}

// admit notes whom the closed door lets through. Of those who never come in
// the last ones are kept.
func (s *State) admit(knocks []Knock) {
	s.Admitted = append(s.Admitted, knocks...)
	s.Admitted = s.Admitted[max(0, len(s.Admitted)-MaxParticipants):]
}

// Knock returns the state when somebody waits at the closed door. Knocking twice
// changes nothing; where too many wait, the door stays closed.
func (s State) Knock(k Knock) (State, error) {
	switch {
	case s.Ended:
		return s, refusal.New(refusal.Ended)
	case s.Knocked(k.ID):
		return s, nil
	case len(s.Waiting) >= MaxWaiting:
		return s, refusal.New(refusal.DoorClosed)
	}
	next := s.clone()
	if s.waits(k) {
		next.Waiting = append(next.Waiting, k)
	} else { // the door was opened meanwhile
		next.admit([]Knock{k})
	}
	return next.after(s), nil
}

// Waits reports whether a knock has no answer yet.
func (s State) Waits(id string) bool { return slices.ContainsFunc(s.Waiting, Knock{ID: id}.is) }

// Knocked reports whether somebody waits, or was let through and has not come in yet.
func (s State) Knocked(id string) bool {
	return s.Waits(id) || slices.ContainsFunc(s.Admitted, Knock{ID: id}.is)
}

// Enter returns the state when somebody comes in who was let through, once, and
// who that is.
func (s State) Enter(id string) (State, Knock, bool) {
	at := slices.IndexFunc(s.Admitted, Knock{ID: id}.is)
	if at < 0 || s.Ended {
		return s, Knock{}, false
	}
	next := s.clone()
	next.Admitted = slices.Delete(next.Admitted, at, at+1)
	return next.after(s), s.Admitted[at], true
}

func (k Knock) is(other Knock) bool { return k.ID == other.ID }

// Person returns the state after somebody was given another name, or was found to be
// another student of the class.
func (s State) Person() (State, error) {
	if s.Ended {
		return s, refusal.New(refusal.Ended)
	}
	next := s.clone()
	next.Persons++
	return next.after(s), nil
}

package session_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

// Whatever is done at the door, in any order and twice: somebody comes in once
// for each knock, only after a yes or while the door is open, nobody waits at an
// open door, and no state is written to that somebody may hold.
func TestDoor(t *testing.T) {
	door := func(closed bool) session.Command {
		return session.Command{Kind: session.KindDoor, Door: &session.Door{Closed: closed}}
	}
	for seed := range uint64(200) {
		chance := rand.New(rand.NewPCG(seed, 1))
		s, err := session.Start(board(), session.Led)
		if err != nil {
			t.Fatal(err)
		}
		let, in := map[string]bool{}, map[string]bool{}
		for range 300 {
			id := fmt.Sprint("knock ", chance.IntN(60))
			before := s
			kept, _ := json.Marshal(s)
			switch chance.IntN(8) {
			case 0:
				s, err = s.Apply(board(), door(chance.IntN(4) > 0), session.With{})
				if !s.Closed {
					for _, k := range before.Waiting {
						let[k.ID] = true
					}
				}
			case 1, 2:
				ids, yes := []string{id, id, "nobody"}, chance.IntN(2) == 0
				s, err = s.Apply(board(), session.Command{Kind: session.KindAdmit,
					Admit: &session.Admit{Knocks: ids, Yes: yes}}, session.With{})
				if before.Waits(id) && yes {
					let[id] = true
				}
				if s.Waits(id) {
					t.Fatal("who was answered waits on")
				}
			case 3, 4:
				next, k, ok := s.Enter(id)
				if ok && (k.ID != id || !let[id]) {
					t.Fatalf("%s came in without a yes", id)
				}
				if ok {
					in[id], let[id] = true, false
				}
				s = next
			default:
				next, refused := s.Knock(session.Knock{ID: id, Name: "Noor"})
				if refused != nil && (refusal.Of(refused).Code != refusal.DoorClosed ||
					len(s.Waiting) < session.MaxWaiting) {
					t.Fatal(refused)
				}
				if refused == nil && !next.Closed {
					let[id] = true
				}
				s = next
			}
			if err != nil {
				t.Fatal(err)
			}
			if now, _ := json.Marshal(before); string(now) != string(kept) {
				t.Fatal("a state that was given was written to")
			}
			if len(s.Waiting) > session.MaxWaiting || len(s.Waiting) > 0 && !s.Closed {
				t.Fatalf("%d wait, closed %v", len(s.Waiting), s.Closed)
			}
			if s.Terms != before.Terms {
				t.Fatal("a knock made operations start again")
			}
		}
		if len(in) == 0 {
			t.Error("nobody ever came in")
		}
		if s, err = s.Apply(board(), end(), session.With{}); err != nil {
			t.Fatal(err)
		}
		if _, err := s.Knock(session.Knock{ID: "late"}); refusal.Of(err).Code != refusal.Ended {
			t.Errorf("a knock after the end: %v", err)
		}
		for id := range let {
			if _, _, ok := s.Enter(id); ok {
				t.Error("somebody came in after the end")
			}
		}
	}
}

package session_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
)

// In random classes: everybody is in one group of at most its size; like groups have one answer each but
// those of the rest; mixed ones have each answer as evenly as can be.
func TestGroupsByAnswers(t *testing.T) {
	rnd := rand.New(rand.NewPCG(41, 42))
	b := board()
	start, _ := session.Start(b, session.Led)
	start, _ = start.Apply(b, goTo("two"), session.With{})
	for range 2000 {
		with := session.With{Random: rnd.IntN, Said: map[string]string{}}
		count := map[string]int{}
		for i := range 1 + rnd.IntN(30) {
			id := fmt.Sprint("s", i)
			with.Students = append(with.Students, id)
			with.Said[id] = []string{"", "a", "b", "c"}[rnd.IntN(4)]
			count[with.Said[id]]++
		}
		c := session.SetGroups{
			Size: 2 + rnd.IntN(4),
			By:   []session.GroupBy{session.ByLike, session.ByMixed}[rnd.IntN(2)],
			Poll: "asked",
		}
		s, err := start.Apply(b, session.Command{Kind: session.KindGroups, Groups: &c}, with)
		if err != nil {
			t.Fatal(err)
		}
		seen, mixed := map[string]bool{}, 0
		for _, g := range s.Groups {
			said := map[string]int{}
			for _, id := range g {
				if seen[id] {
					t.Fatalf("%s twice: %v", id, s.Groups)
				}
				seen[id] = true
				said[with.Said[id]]++
			}
			if len(g) == 0 || len(g) > c.Size {
				t.Fatalf("%d of %d: %v", len(g), c.Size, s.Groups)
			}
			if len(said) > 1 {
				mixed++
				for answer := range said {
					if c.By == session.ByLike && count[answer] >= roster.MinGroup {
						t.Fatalf("%q is with others: %v, %v", answer, s.Groups, with.Said)
					}
				}
			}
			for answer, n := range said {
				if most := (count[answer]+len(s.Groups)-1)/len(s.Groups) + 1; c.By == session.ByMixed && n > most {
					t.Fatalf("%q %d times, at most %d: %v, %v", answer, n, most, s.Groups, with.Said)
				}
			}
		}
		if len(seen) != len(with.Students) {
			t.Fatalf("%d of %d are in groups", len(seen), len(with.Students))
		}
	}
	c := session.Command{
		Kind:   session.KindGroups,
		Groups: &session.SetGroups{Size: 3, By: session.ByLike, Poll: "nowhere"},
	}
	if _, err := start.Apply(b, c, session.With{}); refusal.Of(err) == nil ||
		refusal.Of(err).Code != refusal.NoSuchPoll {
		t.Errorf("a question that was not asked: %v", err)
	}
}

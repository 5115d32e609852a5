package session_test

import (
	"errors"
	"slices"
	"testing"

	"alpenglow/core/outcome"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
)

func talk(asked string) session.Command {
	return session.Command{Kind: session.KindTalk, Talk: &session.SetTalk{Poll: asked}}
}

// Neighbours who answered differently talk with each other: by seats, by groups, or anybody;
// who is away is left out, who should not be together is not, and the next time others are
// together where that can be.
func TestTalk(t *testing.T) {
	start := session.State{
		Frame:   "two",
		Reached: []string{"one", "two"},
		Front:   session.Front{Kind: session.FrontFrame},
		Polls:   map[string]poll.State{"asked": {Phase: poll.Closed, Round: 1}},
	}
	said := map[string]string{"a": "week", "b": "month", "c": "month", "d": "week", "e": "year"}
	all := []string{"a", "b", "c", "d", "e", "away"}
	with := session.With{Students: all, Said: said}
	do := func(s session.State, c session.Command, with session.With) session.State {
		t.Helper()
		next, err := s.Apply(board(), c, with)
		if err != nil {
			t.Fatal(err)
		}
		return next
	}
	// In two rows: a b c / d e; a and c are too far apart.
	seats := roster.Seats{Rows: 2, Columns: 3, At: []string{"a", "b", "c", "d", "e", "away"}}
	seated := with
	seated.Plan = roster.Plan{Seats: seats, Apart: []roster.Pair{{"a", "b"}}}
	s := do(start, talk("asked"), seated)
	in := []string{}
	for _, g := range s.Talk.Groups {
		in = append(in, g...)
		for _, pair := range [][2]string{{"a", "b"}, {"a", "c"}, {"c", "d"}} {
			if len(g) == 2 && slices.Contains(g, pair[0]) && slices.Contains(g, pair[1]) {
				t.Errorf("%v talk", g)
			}
		}
	}
	if in = append(in, s.Talk.Alone...); len(in) != 5 || slices.Contains(in, "away") {
		t.Errorf("%+v", s.Talk)
	}
	if partner, talks := s.TalksWith("away"); !talks || len(partner) != 0 {
		t.Errorf("who came back talks with %v, %v", partner, talks)
	}
	// In the groups that there are.
	grouped := start
	grouped.Groups = [][]string{{"a", "b"}, {"c", "d", "e", "away"}}
	s = do(grouped, talk("asked"), with)
	if partner, _ := s.TalksWith("a"); !slices.Equal(partner, []string{"b"}) {
		t.Errorf("in their group a talks with %v", partner)
	}
	// Three times in a row: nobody twice with the same as long as there are others.
	s, met := start, map[[2]string]int{}
	for range 3 {
		s = do(
			s,
			talk("asked"),
			session.With{Students: all[:4], Said: map[string]string{"a": "1", "b": "2", "c": "3", "d": "4"}},
		)
		for _, g := range s.Talk.Groups {
			met[[2]string(g)]++
		}
	}
	if len(met) != 6 {
		t.Errorf("in three rounds of four %v", met)
	}
	stage, err := s.For(board(), session.Student{ID: "a"})
	if err != nil || stage.Talk == nil || len(stage.Talk.With) != 1 || s.Same(board()) {
		t.Errorf("the stage: %+v, %v", stage.Talk, err)
	}
	s = do(s, talk(""), with)
	if stage, _ := s.For(board(), session.Student{ID: "a"}); stage.Talk != nil || len(s.Talked) != 6 {
		t.Errorf("it is over: %+v, %v", stage.Talk, s.Talked)
	}
	if _, err := start.Apply(board(), talk("another"), with); !errors.Is(err, refusal.New(refusal.NoSuchPoll)) {
		t.Errorf("about what was not asked: %v", err)
	}
}

func TestBands(t *testing.T) {
	s, err := session.Start(board(), session.Led)
	if err != nil {
		t.Fatal(err)
	}
	set := func(from, to int) session.Command {
		return session.Command{
			Kind:  session.KindBands,
			Bands: &session.SetBands{Bands: outcome.Bands{From: from, To: to}},
		}
	}
	if next, err := s.Apply(board(), set(35, 70), session.With{}); err != nil ||
		*next.Bands != (outcome.Bands{From: 35, To: 70}) {
		t.Errorf("%+v, %v", next.Bands, err)
	}
	for _, c := range []session.Command{set(70, 35), set(-1, 50), set(50, 101), set(0, 0)} {
		if _, err := s.Apply(board(), c, session.With{}); !errors.Is(err, refusal.New(refusal.Malformed)) {
			t.Errorf("%+v: %v", c.Bands, err)
		}
	}
}

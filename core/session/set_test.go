package session_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

// inRow is a board whose second frame asks three questions in a row; the last stands in for
// the first.
func inRow(s lesson.Set) lesson.Board {
	b := board()
	asked := b.Frames[1].Prepared[0]
	b.Frames[1].Prepared = nil
	for _, id := range []string{"q1", "q2", "q3", "q1 again"} {
		q := *asked.Poll
		if before, is := strings.CutSuffix(id, " again"); is {
			q.InsteadOf = before
		}
		asked.ID, asked.Poll = strings.ReplaceAll(id, " ", "-"), &q
		b.Frames[1].Prepared = append(b.Frames[1].Prepared, asked)
	}
	b.Frames[1].Set = &s
	return b
}

func tellSet(step session.SetStep) session.Command {
	return session.Command{Kind: session.KindSet, Set: &session.TellSet{Frame: "two", Step: step}}
}

// stands writes how questions stand: the phase's first letter and the round.
func stands(s session.State) string {
	var all []string
	for _, id := range []string{"q1", "q2", "q3", "q1-again"} {
		if at, asked := s.Polls[id]; asked {
			all = append(all, fmt.Sprint(string(at.At(1_000_000).Phase)[:1], at.Round))
		} else {
			all = append(all, "-")
		}
	}
	return strings.Join(all, " ")
}

func TestSet(t *testing.T) {
	asks := session.Command{Kind: session.KindAsk, Ask: &session.Ask{Poll: "q1-again"}}
	next, closes, show, again := tellSet(
		session.SetNext,
	), tellSet(
		session.SetClose,
	), tellSet(
		session.SetShow,
	), tellSet(
		session.SetAgain,
	)
	led, own := lesson.Set{}, lesson.Set{OwnPace: true}
	with := func(s lesson.Set, f lesson.Feedback) lesson.Set { s.Feedback = f; return s }
	for name, c := range map[string]struct {
		set   lesson.Set
		steps []session.Command
		want  string
		no    refusal.Code
	}{
		"led: the first alone":           {led, nil, "o1 - - -", ""},
		"the next closes the one before": {led, []session.Command{next}, "c1 o1 - -", ""},
		"after the last it is closed":    {led, []session.Command{next, next, next}, "c1 c1 c1 -", ""},
		"and stays so":                   {led, []session.Command{next, next, next, next}, "c1 c1 c1 -", ""},
		"judged at once: shown on going on": {with(led, lesson.FeedbackAtOnce), []session.Command{next},
			"r1 o1 - -", ""},
		"judged at the end: shown after the last": {with(led, lesson.FeedbackAtEnd), []session.Command{next, next,
			next}, "r1 r1 r1 -", ""},
		"shown when the teacher shows it": {led, []session.Command{next, next, next, show}, "r1 r1 r1 -", ""},
		"led again":                       {led, []session.Command{closes, again, next}, "c2 o2 - -", ""},
		"again while it is open":          {led, []session.Command{again}, "o1 - - -", refusal.PollOpen},
		"own pace: all at once":           {own, nil, "o1 o1 o1 -", ""},
		"own pace has no next":            {own, []session.Command{next}, "o1 o1 o1 -", refusal.NotLed},
		"own pace closed":                 {own, []session.Command{closes}, "c1 c1 c1 -", ""},
		"own pace, judged at the end": {with(own, lesson.FeedbackAtEnd), []session.Command{closes},
			"r1 r1 r1 -", ""},
		"own pace again":              {own, []session.Command{closes, again}, "o2 o2 o2 -", ""},
		"time is over":                {lesson.Set{OwnPace: true, Seconds: 5}, nil, "c1 c1 c1 -", ""},
		"one that stands in is asked": {own, []session.Command{closes, asks}, "c1 c1 c1 o1", ""},
		"a step that is not there": {own, []session.Command{tellSet("back")}, "o1 o1 o1 -",
			refusal.Malformed},
	} {
		b := inRow(c.set)
		s, err := session.Start(b, session.Led)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := s.Apply(b, next, session.With{}); refusal.Of(err) == nil ||
			refusal.Of(err).Code != refusal.NoSuchSet {
			t.Errorf("%s: a set that the class has not reached: %v", name, err)
		}
		steps := append([]session.Command{goTo("two")}, c.steps...)
		for i, step := range steps {
			s, err = s.Apply(b, step, session.With{Now: 1000 * int64(i)})
			if i < len(steps)-1 && err != nil {
				t.Fatalf("%s: %v", name, err)
			}
		}
		if r := refusal.Of(err); (r == nil) != (c.no == "") || r != nil && r.Code != c.no {
			t.Errorf("%s: %v", name, err)
		}
		if got := stands(s); got != c.want {
			t.Errorf("%s: %s, not %s", name, got, c.want)
		}
		v, _ := s.View(b, "two", session.View{})
		for _, e := range v.Frame.Prepared {
			if _, asked := s.Polls[e.ID]; !asked {
				t.Errorf("%s: the class sees %s before it is asked", name, e.ID)
			}
		}
	}
}

// However a set is led: at most one of its questions is open while the class is led, none is
// asked a round too often, and one step after another always comes to its end.
func TestSetAnyhow(t *testing.T) {
	rnd := rand.New(rand.NewPCG(3, 4))
	for range 2000 {
		b := inRow(lesson.Set{OwnPace: rnd.IntN(2) == 0, Feedback: lesson.Feedbacks[rnd.IntN(3)], Seconds: rnd.IntN(2)})
		pace := []session.Pace{session.Led, session.Own}[rnd.IntN(2)]
		s, _ := session.Start(b, pace)
		s, _ = s.Apply(b, goTo("two"), session.With{})
		for i := range 30 {
			command := tellSet(session.SetSteps[rnd.IntN(4)])
			if rnd.IntN(9) == 0 {
				command = session.Command{Kind: session.KindPace, Pace: &session.SetPace{Pace: session.Led}}
			}
			s, _ = s.Apply(b, command, session.With{Now: int64(i * 700)})
			open := 0
			for _, at := range s.Polls {
				if at.Phase == poll.Open {
					open++
				}
				if at.Round < 1 || at.Round > poll.MaxRounds {
					t.Fatalf("%+v", s.Polls)
				}
			}
			if !b.Frames[1].Set.OwnPace && pace == session.Led && open > 1 {
				t.Fatalf("%d are open: %+v", open, s.Polls)
			}
		}
		for range 4 {
			s, _ = s.Apply(b, tellSet(session.SetNext), session.With{Now: 1e6})
		}
		if s.Pace == session.Led && !b.Frames[1].Set.OwnPace && strings.Contains(stands(s), "o") {
			t.Fatalf("it does not end: %s", stands(s))
		}
	}
}

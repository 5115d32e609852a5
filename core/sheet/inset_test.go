package sheet_test

import (
	"errors"
	"math/rand/v2"
	"reflect"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

func inSet(s lesson.Set) sheet.Terms {
	r := rules(lesson.Individual, lesson.Look)
	r.Frame.Set = &s
	r.Frame.Prepared[0].Poll.Body = poll.Offer(poll.Option{ID: "a", Text: "A", Right: true},
		poll.Option{ID: "b", Text: "B"}, poll.Option{ID: "c", Text: "C"})
	return r
}

func handIn(round int) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindHandIn, HandIn: &sheet.HandIn{Round: round}}}
}

// Option a is the right one.
func TestAnswersInASet(t *testing.T) {
	once := lesson.Set{OwnPace: true, Feedback: lesson.FeedbackAtOnce, Tries: 2}
	end := lesson.Set{OwnPace: true, Feedback: lesson.FeedbackAtEnd}
	for name, c := range map[string]struct {
		set  lesson.Set
		ops  []sheet.Op
		want refusal.Code // of the last
		left string       // the answer that stays
	}{
		"a second try":        {once, []sheet.Op{answer("b"), answer("a")}, "", "a"},
		"after the right one": {once, []sheet.Op{answer("a"), answer("b")}, refusal.AnswerFinal, "a"},
		"the same twice":      {once, []sheet.Op{answer("b"), answer("b"), answer("a")}, "", "a"},
		"a third of two": {once, []sheet.Op{answer("b"), answer("c"), answer("a")}, refusal.AnswerFinal,
			"c"},
		"taken back": {once, []sheet.Op{answer("b"), answer("")}, refusal.AnswerFinal, "b"},
		"never, as often as wished": {lesson.Set{OwnPace: true}, []sheet.Op{answer("a"), answer("b"), answer("a"),
			answer("b")}, "", "b"},
		"until handed in":             {end, []sheet.Op{answer("b"), answer("a"), handIn(1)}, "", "a"},
		"after that":                  {end, []sheet.Op{answer("b"), handIn(1), answer("a")}, refusal.HandedIn, "b"},
		"taken back after that":       {end, []sheet.Op{answer("b"), handIn(1), answer("")}, refusal.HandedIn, "b"},
		"handed in twice":             {end, []sheet.Op{answer("b"), handIn(1), handIn(1)}, refusal.HandedIn, "b"},
		"another round":               {end, []sheet.Op{answer("b"), handIn(2)}, refusal.NoSuchSet, "b"},
		"not a set that is handed in": {once, []sheet.Op{answer("b"), handIn(1)}, refusal.NoSuchSet, "b"},
	} {
		s, r := sheet.New("noor"), inSet(c.set)
		var err error
		for _, op := range c.ops {
			_, err = apply(s, r, noor, op)
		}
		if got := refusal.Of(err); c.want == "" && err != nil || c.want != "" && (got == nil || got.Code != c.want) {
			t.Errorf("%s: %v", name, err)
		}
		if m, ok := s.Mark("asked"); !ok || m.Answer == nil || m.Answer.Value.Choice.Option != c.left {
			t.Errorf("%s: left with %+v", name, m.Answer)
		}
	}
	if _, err := apply(sheet.New("vera"), inSet(end), noor, handIn(1)); !errors.Is(
		err,
		refusal.New(refusal.NoSuchSheet),
	) {
		t.Errorf("handed in for somebody else: %v", err)
	}
}

// Whatever a device sends and whatever the teacher does between: who has been told that an
// answer is right, or what would be, changes it no more in that round, nobody has more tries
// than there are, and a late answer tells nothing before that is shown.
func TestNothingIsLearntFromASetTooEarly(t *testing.T) {
	rnd := rand.New(rand.NewPCG(7, 8))
	told, final := 0, 0
	for range 3000 {
		r := inSet(lesson.Set{OwnPace: rnd.IntN(2) == 0, Feedback: lesson.Feedbacks[rnd.IntN(3)], Tries: rnd.IntN(4)})
		r.Polls = map[string]poll.State{"asked": {Phase: poll.Open, Round: 1}}
		s, question := sheet.New("noor"), *r.Frame.Prepared[0].Poll
		fixed := map[int]poll.Value{} // by round, what cannot change any more
		for range 14 {
			now := r.Polls["asked"]
			switch rnd.IntN(8) {
			case 0:
				now.Phase = poll.Closed
			case 1:
				if now.Phase == poll.Closed && now.Round < 3 {
					now = poll.State{Phase: poll.Open, Round: now.Round + 1}
				}
			case 2:
				_, _ = apply(s, r, noor, handIn(rnd.IntN(3)))
			default:
				_, _ = apply(s, r, noor, answerIn(1+rnd.IntN(3), []string{"a", "b", "c", ""}[rnd.IntN(4)]))
			}
			r.Polls = map[string]poll.State{"asked": now}
			for round := 1; round <= now.Round; round++ {
				m, there := s.Mark(poll.AnswerID("asked", round))
				if value, is := fixed[round]; is &&
					(!there || !m.OnFrame() || !reflect.DeepEqual(m.Answer.Value, value)) {
					t.Fatalf("changed after it was told: %+v, %+v", r.Frame.Set, m)
				}
				if !there || !m.OnFrame() || round < now.Round {
					continue
				}
				if len(m.Answer.Before) >= r.Frame.Set.Most() {
					t.Fatalf("too many tries: %+v, %+v", r.Frame.Set, m.Answer)
				}
				_, handed := s.Mark(lesson.HandedID(r.Frame.ID, now.Round))
				verdict, right := r.Frame.Set.Tells(question, now, m.Answer, handed)
				if verdict && m.Answer.Late && !handed {
					t.Fatalf("a late answer is judged: %+v, %+v", r.Frame.Set, m.Answer)
				}
				if verdict {
					told++
				}
				if right || verdict && question.Judge(m.Answer.Value).Verdict == poll.Right {
					fixed[round], final = m.Answer.Value, final+1
				}
			}
		}
	}
	if told < 1000 || final < 500 {
		t.Errorf("told %d times, %d of them final: too seldom to say anything", told, final)
	}
}

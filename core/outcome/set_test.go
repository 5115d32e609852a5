package outcome_test

import (
	"fmt"
	"reflect"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/poll"
)

// Three questions in a row, two tries each; the third has not been asked.
func TestSetOf(t *testing.T) {
	f := lesson.Frame{ID: "f", Set: &lesson.Set{OwnPace: true, Feedback: lesson.FeedbackAtOnce, Tries: 2, Race: true}}
	for _, id := range []string{"q1", "q2", "q3"} {
		q := poll.Question{Body: poll.Offer(poll.Option{ID: "a", Right: true}, poll.Option{ID: "b"})}
		f.Prepared = append(f.Prepared, lesson.Element{ID: id, Body: lesson.Body{Kind: lesson.KindPoll, Poll: &q}})
	}
	polls := map[string]poll.State{"q1": {Round: 2}, "q2": {Round: 2}}
	gave := func(round, before int, v poll.Verdict, late bool) outcome.Taken {
		return outcome.Taken{
			Answer:  lesson.Answer{Round: round, Before: make([]poll.Value, before), Late: late},
			Verdict: v,
		}
	}
	takers := []outcome.Taker{
		{Student: "ada", Here: true, Given: map[string]outcome.Taken{
			"q1": gave(2, 1, poll.Right, false), "q2": gave(2, 1, poll.Wrong, false)}, Handed: true},
		{
			Student: "bo",
			Here:    true,
			Given:   map[string]outcome.Taken{"q1": gave(2, 0, poll.Wrong, false)},
		}, // has a try left
		{Student: "cem", Here: true, Given: map[string]outcome.Taken{
			"q1": gave(1, 0, poll.Right, false), "q2": gave(2, 0, poll.Right, true)}}, // another round, and late
		{Student: "dara", Given: map[string]outcome.Taken{"q1": gave(2, 0, poll.Right, false)}}, // has left
		{
			Student: "eno",
			Given:   map[string]outcome.Taken{},
		}, // has left and answered nothing
	}
	s := outcome.SetOf(f, polls, takers)
	if s.Of != 4 || s.Given != 4 || s.All != 1 || s.Handed != 1 || s.Round != 2 || s.Now != 1 ||
		!reflect.DeepEqual(s.Asked, []string{"q1", "q2"}) {
		t.Errorf("%+v", s)
	}
	if want := []float64{0, 0, 1. / 3, 2. / 3}; !reflect.DeepEqual(s.Dots, want) || s.Lanes != nil {
		t.Errorf("without groups: %v, %v", s.Dots, s.Lanes)
	}
	if row := s.Rows[0]; row.Right != 1 ||
		!reflect.DeepEqual(row.Cells, []outcome.SetCell{{2, poll.Right}, {2, poll.Wrong}}) {
		t.Errorf("%+v", row)
	}
	for i, group := range []int{1, 1, 2, 2, 2} {
		takers[i].Group = group
	}
	s = outcome.SetOf(f, polls, takers)
	if len(s.Lanes) != 2 || s.Lanes[0] != (outcome.Lane{Group: 1, Size: 2, Share: 1. / 3}) || s.Lanes[1].Size != 2 ||
		s.Dots != nil {
		t.Errorf("by groups: %+v, %v", s.Lanes, s.Dots)
	}
	if front := s.ForFront(true); front.Rows != nil || front.Lanes == nil {
		t.Errorf("a front may not show who: %+v", front)
	}
	if front := s.ForFront(false); front.Lanes != nil || front.Dots != nil {
		t.Errorf("no race was asked for: %+v", front)
	}
	takers[1].Group = 3 // a lane of one would be a name
	if s = outcome.SetOf(f, polls, takers); s.Lanes != nil || len(s.Dots) != 4 {
		t.Errorf("a group of one: %+v", s.Lanes)
	}
}

func BenchmarkSetOf(b *testing.B) {
	f := lesson.Frame{ID: "f", Set: &lesson.Set{OwnPace: true}}
	polls, given := map[string]poll.State{}, map[string]outcome.Taken{}
	for i := range 40 {
		id := fmt.Sprint("q", i)
		q := poll.Question{Body: poll.Offer(poll.Option{ID: "a", Right: true}, poll.Option{ID: "b"})}
		f.Prepared = append(f.Prepared, lesson.Element{ID: id, Body: lesson.Body{Kind: lesson.KindPoll, Poll: &q}})
		polls[id] = poll.State{Round: 1}
		given[id] = outcome.Taken{Answer: lesson.Answer{Round: 1}, Verdict: poll.Right}
	}
	var takers []outcome.Taker
	for i := range 300 {
		takers = append(takers, outcome.Taker{Student: fmt.Sprint("s", i), Here: true, Given: given})
	}
	for b.Loop() {
		outcome.SetOf(f, polls, takers)
	}
}

package outcome

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/measure"
	"alpenglow/core/number"
	"alpenglow/core/poll"
)

func question() poll.Question {
	return poll.Question{Sure: true, Body: poll.Offer(poll.Option{ID: "week", Text: "7 days", Mistake: "took a week"},
		poll.Option{ID: "month", Text: "29.53 days", Right: true}, poll.Option{ID: "year", Text: "a year"})}
}

// answered is an answer that is not assessed yet.
type answered struct {
	Student string
	Round   int
	Value   poll.Value
	Sure    poll.Sureness
	At      int64
	Late    bool
	Offline bool
}

// assessed leaves out what is no answer to the question.
func assessed(q poll.Question, all []answered) (given []Given) {
	for _, a := range all {
		if one, ok := q.Assess(a.Value); ok {
			given = append(given, Given{a.Student, a.Round, one, a.Sure, a.At, a.Late, a.Offline})
		}
	}
	return given
}

// A written-out lesson: four of six have answered, one of them late, one without network.
func TestOf(t *testing.T) {
	state := poll.State{Phase: poll.Closed, Round: 2, OpenedAt: 10_000, ClosedAt: 70_000}
	given := assessed(question(), []answered{
		{Student: "aya", Round: 1, Value: poll.Choose("week"), At: 1000},
		{Student: "bo", Round: 1, Value: poll.Choose("month"), At: 1000},
		{Student: "cem", Round: 1, Value: poll.Choose("year"), At: 1000},
		{Student: "aya", Round: 2, Value: poll.Choose("month"), At: 20_000, Sure: poll.Unsure},
		{Student: "bo", Round: 2, Value: poll.Choose("month"), At: 30_000, Sure: poll.Sure, Offline: true},
		{Student: "cem", Round: 2, Value: poll.Choose("week"), At: 45_000, Sure: poll.Sure},
		{Student: "dov", Round: 2, Value: poll.Choose("month"), At: 80_000, Late: true, Sure: poll.Sure},
		{Student: "ela", Round: 2, Value: poll.Choose("never"), At: 30_000},
	})
	here := []Present{{"aya", 0, 0}, {"bo", 0, 0}, {"cem", 15_000, 0}, {"dov", 0, 0}, {"ela", 0, 0}, {"fay", 0, 50_000}}
	got := Of("q", question(), state, given, here, UsualBands, 99_000)
	var order []string
	for _, a := range got.Answers {
		order = append(order, a.Student)
	}
	if fmt.Sprint(order) != "[cem aya bo dov]" {
		t.Errorf("answers in the order %v", order)
	}
	if got.Answered != 3 || got.Of != 5 || fmt.Sprint(got.Waiting) != "[dov ela]" {
		t.Errorf("%d of %d, without %v", got.Answered, got.Of, got.Waiting)
	}
	if got.Late != 1 || got.Offline != 1 {
		t.Errorf("%d late, %d without network", got.Late, got.Offline)
	}
	if *got.Verdicts != (poll.Judged{Right: 2, Wrong: 1, Span: measure.Wilson(2, 3)}) ||
		fmt.Sprint(got.Percent) != "[67 0 33]" {
		t.Errorf("%+v, %v", got.Verdicts, got.Percent)
	}
	if *got.Sure != (Sure{SureRight: 1, SureWrong: 1, UnsureRight: 1}) {
		t.Errorf("%+v", got.Sure)
	}
	// Answers after 10, 20 and 30 s; fay left after 40; the others waited until 60: of six, half by 30.
	if got.HalfMS == nil || *got.HalfMS != 30_000 {
		t.Errorf("half by %v", got.HalfMS)
	}
	if n := got.Next; n.Is != Discuss || fmt.Sprint(n.Or) != "[explain goOn]" {
		t.Errorf("%+v", n)
	}
	m := got.Moved
	if m.Of != 3 || m.Kept != 1 || m.Learned != 1 || m.Lost != 0 || *m.Chance != 1 ||
		math.Abs(*m.ClassGain-.5) > 1e-12 ||
		m.Band != measure.Medium ||
		*m.MeanGain != .5 ||
		m.MeanOf != 2 ||
		len(m.Flows) != 3 {
		t.Errorf("%+v", m)
	}
}

// The bands of 30 voters, edges included, and how many it takes for a firm "discuss"
// (computed with other libraries; the rule of the bands from memory, see UsualBands).
func TestAdvise(t *testing.T) {
	for right := range 31 {
		want := Discuss
		if right < 9 {
			want = Explain
		} else if right > 21 {
			want = GoOn
		}
		if got := UsualBands.Advise(right, 30); got.Is != want || slices.Contains(got.Or, want) {
			t.Errorf("%d of 30: %+v", right, got)
		}
	}
	for n := 2; n <= 40; n += 2 {
		if firm := UsualBands.Advise(n/2, n).Or == nil; firm != (n >= 22) {
			t.Errorf("half of %d is firm: %v", n, firm)
		}
	}
	if UsualBands.Advise(0, 0) != nil {
		t.Error("advice on nothing")
	}
	for _, b := range []Bands{{}, {70, 30}, {-1, 50}, {50, 101}} {
		if b.Or() != UsualBands {
			t.Errorf("%+v are taken", b)
		}
	}
	if b := (Bands{40, 80}); b.Or() != b {
		t.Error("bands of one's own are not")
	}
}

// What answers say does not depend on the order in which they came, nor on that of the
// students; all who are here are either waited for or counted.
func TestArrival(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 10))
	for range 300 {
		var raw []answered
		var here []Present
		for i := range 1 + r.IntN(30) {
			id := fmt.Sprint(i)
			here = append(here, Present{id, int64(r.IntN(20)), int64(r.IntN(3) / 2 * r.IntN(90))})
			for round := 1; round <= 3; round++ {
				if r.IntN(4) > 0 {
					raw = append(
						raw,
						answered{id, round, poll.Choose([]string{"week", "month", "year", "never"}[r.IntN(4)]),
							poll.Surenesses[r.IntN(3)], int64(r.IntN(100)), r.IntN(9) == 0, r.IntN(9) == 0},
					)
				}
			}
		}
		given := assessed(question(), raw)
		state := poll.State{Phase: poll.Open, Round: 1 + r.IntN(3), OpenedAt: 5}
		want := Of("q", question(), state, given, here, UsualBands, 99)
		r.Shuffle(len(given), func(i, j int) { given[i], given[j] = given[j], given[i] })
		r.Shuffle(len(here), func(i, j int) { here[i], here[j] = here[j], here[i] })
		if got := Of("q", question(), state, given, here, UsualBands, 99); !reflect.DeepEqual(got, want) {
			a, _ := json.Marshal(got)
			b, _ := json.Marshal(want)
			t.Fatalf("%s\n%s", a, b)
		}
		if want.Answered+len(want.Waiting) != want.Of || len(want.Percent) != 3 {
			t.Fatalf("%+v", want)
		}
		if m := want.Moved; m != nil {
			n := 0
			for _, f := range m.Flows {
				n += f.Count
			}
			if n != m.Of {
				t.Fatalf("%d flow, of %d", n, m.Of)
			}
		}
	}
}

// 300 answers to one question, two rounds of it: of a choice, a number with mistakes, and texts
// as long and as many as may be.
func BenchmarkOf(b *testing.B) {
	long := strings.Repeat("ebb and flood ", 14)
	short := &poll.Short{Slips: 3}
	for i := range poll.MaxAccepted {
		short.Accepted = append(short.Accepted, fmt.Sprint(long, i))
	}
	for i := range 2 {
		short.Mistakes = append(short.Mistakes, poll.TextMistake{Name: fmt.Sprint(i), Texts: short.Accepted})
	}
	for name, c := range map[string]struct {
		question poll.Question
		value    func(i int) poll.Value
	}{
		"choice": {question(), func(i int) poll.Value { return poll.Choose([]string{"week", "month", "year"}[i%3]) }},
		"number": {poll.Question{Body: poll.Body{Kind: poll.KindNumber, Number: &poll.Number{Language: "de",
			Answer:    "29,53",
			Tolerance: number.Tolerance{Is: number.Relative, Below: "2", Above: "2"}, Unit: "days",
			UnitRule: poll.MayUnit,
			Mistakes: []poll.NumberMistake{{Name: "half", From: "14,77"}, {Name: "year", From: "360", To: "370"}}}}},
			func(i int) poll.Value {
				return poll.Value{Kind: poll.KindNumber, Number: &poll.Written{Text: fmt.Sprint(i, " h")}}
			}},
		"texts": {poll.Question{Body: poll.Body{Kind: poll.KindShort, Short: short}}, func(i int) poll.Value {
			return poll.Value{Kind: poll.KindShort, Short: &poll.Written{Text: fmt.Sprint(long[1:], "y", i)}}
		}},
	} {
		b.Run(name, func(b *testing.B) {
			var raw []answered
			var here []Present
			for i := range 300 {
				here = append(here, Present{Student: fmt.Sprint(i)})
				for round := 1; round <= 2; round++ {
					raw = append(
						raw,
						answered{Student: fmt.Sprint(i), Round: round, At: int64(i), Value: c.value(i * round)},
					)
				}
			}
			for b.Loop() {
				given := assessed(c.question, raw)
				Of("q", c.question, poll.State{Phase: poll.Open, Round: 2}, given, here, UsualBands, 1000)
			}
		})
	}
}

// A question asked in place of another is compared with the last answers to that one: by what is
// thought of them, for what is offered differs.
func TestInsteadOf(t *testing.T) {
	other := poll.Question{
		Body: poll.Offer(poll.Option{ID: "x", Right: true}, poll.Option{ID: "y", Mistake: "took a week"}),
	}
	given := append(assessed(question(), []answered{
		{Student: "aya", Value: poll.Choose("week")}, {Student: "bo", Value: poll.Choose("month")},
		{Student: "cem", Value: poll.Choose("week")}}), assessed(other, []answered{
		{Student: "aya", Round: 1, Value: poll.Choose("x")}, {Student: "bo", Round: 1, Value: poll.Choose("x")},
		{Student: "cem", Round: 1, Value: poll.Choose("y")}, {Student: "dov", Round: 1, Value: poll.Choose("x")}})...)
	m := Of("q", other, poll.State{Phase: poll.Open, Round: 1}, given, nil, UsualBands, 0).Moved
	if m == nil || m.Of != 3 || m.Learned != 1 || m.Kept != 1 || len(m.Flows) != 3 || math.Abs(*m.ClassGain-.5) > 1e-9 {
		t.Fatalf("%+v", m)
	}
	for _, f := range m.Flows {
		if f.To.Key == "wrong took a week" && f.From.Key != f.To.Key {
			t.Errorf("the same mistake is another: %+v", f)
		}
	}
	if Of("q", other, poll.State{Phase: poll.Open, Round: 1}, given[3:], nil, UsualBands, 0).Moved != nil {
		t.Error("compared with nothing")
	}
}

package report_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/measure"
	"alpenglow/core/outcome"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/record"
	"alpenglow/core/report"
)

// class is a board of some questions, one a frame, and a frame without, and what each of some students answered: "r" is
// right, "w" wrong, "" nothing.
func class(answers [][]string) record.Record {
	b := lesson.Board{Title: "Tides", Objectives: []lesson.Objective{{ID: "o", Text: "why two tides"}}}
	frame := func(i int) lesson.Frame {
		return lesson.Frame{
			ID:          fmt.Sprint("f", i),
			Title:       fmt.Sprint("Frame ", i),
			Paper:       paper.Paper{Kind: paper.Plain},
			Arrangement: lesson.Individual,
			Permission:  lesson.Look,
		}
	}
	for q := range answers[0] {
		f := frame(q)
		question := &poll.Question{Text: fmt.Sprint("Question ", q),
			Body: poll.Offer(poll.Option{ID: "r", Text: "29.53 days", Right: true},
				poll.Option{ID: "w", Text: "a week"})}
		f.Prepared = []lesson.Element{{ID: fmt.Sprint("q", q), X: 10, Y: 10, W: 400, H: 300,
			Body: lesson.Body{Kind: lesson.KindPoll, Poll: question}},
			{ID: fmt.Sprint("c", q), X: 500, Y: 10, W: 100, H: 100,
				Body: lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "moss"}}}}
		b.Frames = append(b.Frames, f)
	}
	free := frame(len(answers[0]))
	free.Permission = lesson.Add
	b.Frames = append(b.Frames, free)
	var people []record.Student
	var marks []record.Mark
	for s, given := range answers {
		who := fmt.Sprint("s", s)
		people = append(people, record.Student{ID: who, Name: fmt.Sprint("Student ", s)})
		for q, option := range given {
			if option != "" {
				marks = append(
					marks,
					record.Mark{Frame: fmt.Sprint("f", q), Element: lesson.Element{ID: who + fmt.Sprint(q),
						Author: who, Body: lesson.Body{Kind: lesson.KindAnswer,
							Answer: &lesson.Answer{Poll: fmt.Sprint("q", q), Round: 1,
								Value: poll.Value{Kind: poll.KindChoice, Choice: &poll.Chosen{Option: option}}}}}},
				)
			}
		}
	}
	return record.Build(b, people, marks)
}

func TestReport(t *testing.T) {
	answers := [][]string{
		{"r", "w", "w", ""},
		{"r", "w", "r", ""},
		{"r", "w", "w", ""},
		{"r", "r", "w", "w"},
		{"", "", "", ""},
		{"w", "w", "w", ""},
	}
	r := report.Of(class(answers), outcome.UsualBands)
	for i, want := range []struct {
		right, of int
		is        outcome.Advice
	}{{4, 5, outcome.GoOn}, {1, 5, outcome.Explain}, {1, 5, outcome.Explain}, {0, 1, outcome.Explain}} {
		a := r.Questions[i].Advice
		if a.Right != want.right || a.Of != want.of || a.Is != want.is ||
			a.Span != measure.Wilson(want.right, want.of) {
			t.Errorf("question %d: %+v", i, a)
		}
	}
	if got := r.Frames[0]; got.Worked != 5 || r.Here != 6 {
		t.Errorf("%+v of %d", got, r.Here)
	}
	var sought []string
	for _, s := range r.Sought {
		sought = append(sought, string(s.Why)+" "+s.ID)
	}
	if want := []string{"nothing s4", "lost s0", "lost s2", "lost s5"}; !slices.Equal(sought, want) {
		t.Errorf("%v", sought)
	}
	var again []string
	for _, a := range r.Again() {
		again = append(again, a.Poll)
	}
	if want := []string{"q3", "q1", "q2"}; !slices.Equal(again, want) {
		t.Errorf("%v", again)
	}
	if got := r.Unfinished(class(answers).Board); !slices.Equal(got, []string{"f3", "f4"}) {
		t.Errorf("%v", got)
	}
}

// Whatever was answered, the counts of a report agree with each other, every share lies in its interval, and nothing
// that everybody had right comes again.
func TestReportOfAnything(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 300 {
		answers := make([][]string, 1+r.IntN(30))
		n := 1 + r.IntN(6)
		right := make([]int, n)
		for s := range answers {
			answers[s] = make([]string, n)
			for q := range n {
				answers[s][q] = []string{"r", "w", ""}[r.IntN(3)]
				if answers[s][q] == "r" {
					right[q]++
				}
			}
		}
		kept := class(answers)
		made := report.Of(kept, outcome.Bands{})
		sum, byStudent := 0, 0
		for i, q := range made.Questions {
			if q.Advice == nil {
				continue
			}
			sum += q.Advice.Right
			share := float64(q.Advice.Right) / float64(q.Advice.Of)
			if q.Advice.Right != right[i] || share < q.Advice.Span.Low-1e-9 || share > q.Advice.Span.High+1e-9 {
				t.Fatalf("%+v, %d right", q.Advice, right[i])
			}
		}
		for _, s := range made.Students {
			byStudent += s.Right
			if s.Answered > 0 && math.Abs(s.Share-float64(s.Right)/float64(s.Answered)) > 1e-9 {
				t.Fatalf("%+v", s)
			}
		}
		if sum != byStudent {
			t.Fatalf("%d right by question, %d by student", sum, byStudent)
		}
		for _, a := range made.Again() {
			if a.Advice.Right == a.Advice.Of {
				t.Fatalf("%+v comes again", a)
			}
		}
	}
}

// The next lesson's board has the chosen questions alone on their frames, then the chosen frames, all with new ids,
// with the teacher's additions where they are wished for and nothing of students.
func TestNext(t *testing.T) {
	b := class([][]string{{"r", "w"}}).Board
	note := func(id, author string) lesson.Element {
		return lesson.Element{ID: id, Author: author, X: 10, Y: 10, W: 300, H: 120,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: id, Tint: "moss"}}}
	}
	gone := note("removed", lesson.Staff)
	gone.Remove(lesson.Staff, 1, "")
	added := map[string][]lesson.Element{"f2": {note("mine", lesson.Staff), note("theirs", "s0"), gone}}
	n := 0
	id := func() string { n++; return fmt.Sprint("new", n) }
	for _, additions := range []bool{false, true} {
		wish := report.Wish{Title: "Next", Polls: []string{"q1"}, Frames: []string{"f2", "f0"}, Additions: additions}
		next, err := wish.Next(b, added, id)
		if err != nil || len(next.Frames) != 3 || next.Title != "Next" || len(next.Frames[0].Prepared) != 1 ||
			next.Frames[0].Prepared[0].Poll.Text != "Question 1" || len(next.Frames[2].Prepared) != 2 {
			t.Fatalf("%+v, %v", next, err)
		}
		want := 0
		if additions {
			want = 1
		}
		if got := next.Frames[1].Prepared; len(got) != want ||
			want == 1 && (got[0].Words() != "mine" || got[0].Author != "") {
			t.Errorf("with additions %v: %+v", additions, got)
		}
		old := b.IDs()
		for made := range next.IDs() {
			if old[made] {
				t.Errorf("%s is an id of the lesson", made)
			}
		}
	}
	for _, wish := range []report.Wish{{Title: "x", Polls: []string{"none"}}, {Title: "x", Frames: []string{"none"}},
		{Title: "x"}} {
		if _, err := wish.Next(b, nil, id); err == nil {
			t.Errorf("%+v made a board", wish)
		}
	}
}

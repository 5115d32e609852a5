package record_test

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/measure"
	"alpenglow/core/poll"
	"alpenglow/core/record"
)

// quiz makes a lesson of four questions and a matter of opinion, and what students, by name,
// answered: a letter for each question, r right, w and x wrong in a known and in another way,
// - not at all.
func quiz(given map[string]string) record.Record {
	board := lesson.Board{
		Title:      "Tides",
		Objectives: []lesson.Objective{{ID: "goal", Text: "knows"}, {ID: "none", Text: "other"}},
	}
	var students []record.Student
	var marks []record.Mark
	for i := range 5 {
		options := []poll.Option{
			{ID: "r", Text: "right", Right: i < 4},
			{ID: "w", Text: "wrong"},
			{ID: "x", Text: "odd"},
		}
		if i < 4 {
			options[1].Mistake = "took it for " + fmt.Sprint(i)
		}
		q := poll.Question{Text: fmt.Sprint("q", i), Body: poll.Offer(options...)}
		if i < 2 {
			q.Objectives = []string{"goal"}
		}
		board.Frames = append(board.Frames, lesson.Frame{ID: fmt.Sprint("f", i),
			Prepared: []lesson.Element{{ID: fmt.Sprint("p", i), Body: lesson.Body{Kind: lesson.KindPoll, Poll: &q}}}})
	}
	for name, answers := range given {
		students = append(students, record.Student{ID: name, Name: name})
		for i, a := range answers {
			if a == '-' {
				continue
			}
			for round := 1; round <= 2; round++ {
				value := poll.Choose(string(a))
				if round == 2 {
					value = poll.Choose("r") // after it was shown
				}
				id := fmt.Sprint("p", i)
				marks = append(marks, record.Mark{Frame: fmt.Sprint("f", i), Element: lesson.Element{
					ID: poll.AnswerID(id, round), Author: name, Body: lesson.Body{Kind: lesson.KindAnswer,
						Answer: &lesson.Answer{Poll: id, Round: round, Value: value}}}})
			}
		}
	}
	return record.Build(board, students, marks)
}

func TestQuestions(t *testing.T) {
	given := map[string]string{
		"a": "rrrrr",
		"b": "rrrwr",
		"c": "rrwwr",
		"d": "rwwwr",
		"e": "rwxww",
		"f": "ww---",
		"g": "-----",
	}
	got := quiz(given).Questions()
	if len(got.Questions) != 4 || got.All != 5 || len(got.Students) != 6 || got.Set == nil {
		t.Fatalf("%+v", got)
	}
	first := got.Questions[0]
	if first.Right != 5 || first.Answered != 6 || first.Span != measure.Wilson(5, 6) ||
		!reflect.DeepEqual(
			first.Wrong,
			[]record.WrongAnswer{{Text: "took it for 0", Mistake: true, Count: 1, Lower: 1}},
		) {
		t.Errorf("%+v", first)
	}
	third := got.Questions[2]
	if third.Right != 2 || third.Answered != 5 || !reflect.DeepEqual(third.Wrong, []record.WrongAnswer{
		{Text: "took it for 2", Mistake: true, Count: 2, Middle: 2}, {Text: "odd", Count: 1, Middle: 1}}) {
		t.Errorf("%+v", third)
	}
	if got.Mistakes[0] != (poll.Named{Name: "took it for 3", Count: 4}) {
		t.Errorf("mistakes %+v", got.Mistakes)
	}
	if want := (record.ByObjective{ID: "goal", Text: "knows", Questions: 2, Answers: 12, Mean: 8. / 12}); len(
		got.Objectives,
	) != 1 ||
		got.Objectives[0] != want {
		t.Errorf("objectives %+v", got.Objectives)
	}
	// The figures are those of the five who answered all: the matrix that a Guttman scale makes.
	want := measure.Analyse([][]float64{{1, 1, 1, 1}, {1, 1, 1, 0}, {1, 1, 0, 0}, {1, 0, 0, 0}, {1, 0, 0, 0}})
	if !reflect.DeepEqual(*got.Set, want) {
		t.Errorf("%+v, want %+v", *got.Set, want)
	}
	if few := quiz(map[string]string{"a": "rrrr", "b": "wwww"}).Questions(); few.Set != nil || few.All != 2 {
		t.Errorf("figures of two: %+v", few)
	}
	if none := quiz(nil).Questions(); len(none.Questions) != 4 || none.Questions[0].Mean != 0 {
		t.Errorf("of nobody: %+v", none)
	}
}

// Nothing depends on in what order students are kept.
func TestQuestionsInAnyOrder(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 9))
	given := map[string]string{}
	for i := range 40 {
		answers := []byte("-----")
		for j := range answers {
			answers[j] = "rwx-"[r.IntN(4)]
		}
		given[fmt.Sprint(i)] = string(answers)
	}
	kept := quiz(given)
	want := kept.Questions()
	for range 20 {
		r.Shuffle(
			len(kept.Students),
			func(i, j int) { kept.Students[i], kept.Students[j] = kept.Students[j], kept.Students[i] },
		)
		got := kept.Questions()
		got.Students, want.Students = nil, nil
		if got.Set == nil || len(got.Set.Items) != 4 {
			t.Fatal("no figures")
		}
		got.Set, want.Set = nil, nil // their sums are rounded in another order
		for j := range got.Questions {
			if d := got.Questions[j].Mean - want.Questions[j].Mean; d > 1e-12 || d < -1e-12 {
				t.Fatal("mean", d)
			}
			got.Questions[j].Mean = want.Questions[j].Mean
		}
		for j := range got.Objectives {
			got.Objectives[j].Mean = want.Objectives[j].Mean
		}
		if !reflect.DeepEqual(got, want) {
			t.Fatalf("%+v\n%+v", got, want)
		}
	}
}

// What came late counts nowhere, and is marked where it is listed.
func TestLateInTheRecord(t *testing.T) {
	board := lesson.Board{Frames: []lesson.Frame{{ID: "f", Prepared: []lesson.Element{{ID: "p",
		Body: lesson.Body{
			Kind: lesson.KindPoll,
			Poll: &poll.Question{Body: poll.Offer(poll.Option{ID: "r", Text: "right", Right: true},
				poll.Option{ID: "w", Text: "wrong"})},
		}}}}}}
	late := record.Mark{
		Frame: "f",
		Element: lesson.Element{ID: "p", Author: "a", Body: lesson.Body{Kind: lesson.KindAnswer,
			Answer: &lesson.Answer{Poll: "p", Round: 1, Value: poll.Choose("r"), Late: true, Sure: poll.Sure}}},
	}
	r := record.Build(board, []record.Student{{ID: "a", Name: "Aya"}}, []record.Mark{late})
	if r.Tallies[0].Answered != 0 || r.Questions().Questions[0].Answered != 0 ||
		r.Coverage(nil).Students[0].Cells[0] != nil {
		t.Errorf("it counts: %+v", r.Tallies[0])
	}
	var out strings.Builder
	if err := r.CSV(&out); err != nil || !strings.Contains(out.String(), `"answer","right","right","late",`) ||
		!strings.Contains(out.String(), `"","sure"`) {
		t.Errorf("%v: %s", err, out.String())
	}
}

// Where answers were judged at once, how hard a question was is told by what came first; that a
// set was handed in is kept.
func TestFirstTry(t *testing.T) {
	all := quiz(map[string]string{"ada": "rrrr-", "bo": "rrrr-"})
	wrong, right := poll.Choose("w"), poll.Choose("r")
	rec := record.Build(all.Board, []record.Student{{ID: "ada", Name: "ada"}}, []record.Mark{
		{Frame: "f0", Element: lesson.Element{ID: "p0", Author: "ada", Body: lesson.Body{Kind: lesson.KindAnswer,
			Answer: &lesson.Answer{Poll: "p0", Round: 1, Value: right, Before: []poll.Value{wrong}}}}},
		{Frame: "f0", Element: lesson.Element{ID: lesson.HandedID("f0", 1), Author: "ada",
			Body: lesson.Body{Kind: lesson.KindHanded, Handed: &lesson.Handed{Round: 1}}}}})
	on := rec.Students[0].Frames[0]
	if a := on.Answers[0]; a.Verdict != poll.Right || a.Tries != 2 || a.First.Verdict != poll.Wrong || on.Handed != 1 {
		t.Errorf("%+v", on)
	}
	q := rec.Questions()
	if got := q.Questions[0]; len(got.Wrong) != 1 || got.Wrong[0].Text != "took it for 0" ||
		*q.Students[0].Shares[0] != 0 {
		t.Errorf("%+v", got)
	}
	var csv strings.Builder
	if err := rec.CSV(&csv); err != nil || !strings.Contains(csv.String(), `"2","wrong"`) {
		t.Errorf("%v: %s", err, csv.String())
	}
}

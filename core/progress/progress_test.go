package progress_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/progress"
	"alpenglow/core/record"
	"alpenglow/core/settings"
)

// Worked by hand: pieces of now, one half life ago and two weigh 1, 1/2 and 1/4.
func TestCondense(t *testing.T) {
	const h = progress.HalfLife
	piece := func(at int64, share float64) progress.Piece { return progress.Piece{At: at, Share: share} }
	for _, c := range []struct {
		pieces []progress.Piece
		want   progress.Condensed
	}{
		{nil, progress.Condensed{}},
		{[]progress.Piece{piece(2*h, 1)}, progress.Condensed{Mean: 1, Worth: 1}},
		// (1*1 + 0.5*0 + 0.25*1) / 1.75 = 5/7; spread sqrt(5/7 * 2/7); worth 1.75^2 / 1.3125 = 7/3
		{[]progress.Piece{piece(2*h, 1), piece(h, 0), piece(0, 1)},
			progress.Condensed{Mean: 5.0 / 7, Spread: math.Sqrt(10.0 / 49), Worth: 7.0 / 3}},
		// What is dated later than now weighs as now.
		{[]progress.Piece{piece(9*h, 1), piece(2*h, 0)}, progress.Condensed{Mean: 0.5, Spread: 0.5, Worth: 2}},
	} {
		got := progress.Condense(c.pieces, 2*h)
		if math.Abs(got.Mean-c.want.Mean)+math.Abs(got.Spread-c.want.Spread)+math.Abs(got.Worth-c.want.Worth) > 1e-12 {
			t.Errorf("%+v: %+v, want %+v", c.pieces, got, c.want)
		}
	}
}

// Whatever the evidence, the mean lies between the least and the most, the worth is at most the number of pieces, and
// an old piece never weighs more than the same one as a newer one.
func TestCondenseAnything(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	for range 3000 {
		pieces := make([]progress.Piece, 1+r.IntN(12))
		low, high := 1.0, 0.0
		for i := range pieces {
			pieces[i] = progress.Piece{At: r.Int64N(10 * progress.HalfLife), Share: r.Float64()}
			low, high = min(low, pieces[i].Share), max(high, pieces[i].Share)
		}
		now := 10 * int64(progress.HalfLife)
		c := progress.Condense(pieces, now)
		if c.Mean < low-1e-9 || c.Mean > high+1e-9 || c.Spread > (high-low)/2+1e-9 || c.Worth < 1-1e-9 ||
			c.Worth > float64(len(pieces))+1e-9 {
			t.Fatalf("%+v of %+v", c, pieces)
		}
		i := r.IntN(len(pieces))
		newer := append([]progress.Piece{}, pieces...)
		newer[i].At = now
		if toward := progress.Condense(newer, now); (toward.Mean-c.Mean)*(pieces[i].Share-c.Mean) < -1e-12 {
			t.Fatalf("a newer piece of %v drew the mean from %v to %v", pieces[i].Share, c.Mean, toward.Mean)
		}
	}
}

// given is a lesson at a time with a question about an objective, and what participants answered.
func given(session string, at int64, objective string, answers map[string]string) progress.Lesson {
	question := &poll.Question{Text: "How long?", Objectives: []string{"o" + session},
		Body: poll.Offer(poll.Option{ID: "r", Text: "29.53 days", Right: true}, poll.Option{ID: "w", Text: "a week"})}
	board := lesson.Board{Title: "Tides", Objectives: []lesson.Objective{{ID: "o" + session, Text: objective}},
		Frames: []lesson.Frame{{ID: "f", Title: "Month", Objectives: []string{"o" + session},
			Prepared: []lesson.Element{{ID: "q", Body: lesson.Body{Kind: lesson.KindPoll, Poll: question}}}}}}
	var people []record.Student
	var marks []record.Mark
	as := map[string]string{}
	for who, option := range answers {
		seat := session + who
		people, as[seat] = append(people, record.Student{ID: seat, Name: who}), who
		if option != "" {
			marks = append(marks, record.Mark{Frame: "f", Element: lesson.Element{ID: seat, Author: seat, At: at,
				Body: lesson.Body{Kind: lesson.KindAnswer, Answer: &lesson.Answer{Poll: "q", Round: 1,
					Value: poll.Value{Kind: poll.KindChoice, Choice: &poll.Chosen{Option: option}}}}}})
		}
	}
	return progress.Lesson{
		Session: session,
		Title:   "Tides " + session,
		At:      at,
		Kept:    record.Build(board, people, marks),
		As:      as,
	}
}

func TestYear(t *testing.T) {
	level := assess.Level{At: 2, Scale: []settings.Level{{Name: "a"}, {Name: "b"}, {Name: "c"}}}
	second := given("2", 200, "why TWO tides ", map[string]string{"noor": "r", "kenji": ""})
	second.Judged = []assess.Judged{
		{Piece: assess.Piece{Student: "2noor"}, Level: &level, Word: assess.Word{Comment: "well done"}},
		{Piece: assess.Piece{Student: "2kenji", Frame: "f"}, Level: &level},
	}
	lessons := []progress.Lesson{second, given("1", 100, "Why two tides", map[string]string{"noor": "w"})}
	years := progress.Of(lessons, []record.Student{{ID: "noor", Name: "Noor"}, {ID: "kenji", Name: "Kenji"}}, 300)
	noor, kenji := years[0], years[1]
	if len(noor.Lessons) != 2 || noor.Lessons[0].Session != "1" || noor.Lessons[0].Right != 0 ||
		noor.Lessons[1].Right != 1 ||
		noor.Lessons[1].Level == nil ||
		noor.Lessons[1].Comment != "well done" {
		t.Errorf("%+v", noor.Lessons)
	}
	if len(noor.Objectives) != 1 || len(noor.Objectives[0].Pieces) != 2 ||
		math.Abs(noor.Objectives[0].Mean-0.5) > 1e-6 {
		t.Errorf("%+v", noor.Objectives)
	}
	if kenji.Lessons[0].There || !kenji.Lessons[1].There || len(kenji.Objectives) != 1 ||
		kenji.Objectives[0].Pieces[0].Kind != progress.Level || kenji.Objectives[0].Mean != 1 {
		t.Errorf("%+v", kenji)
	}
	if noor.Change != nil {
		t.Error("two answers say that something changed")
	}
	var many []progress.Lesson
	for i := range 20 {
		answer := "w"
		if i >= 10 {
			answer = "r"
		}
		many = append(many, given(fmt.Sprint(i), int64(i), "x", map[string]string{"noor": answer}))
	}
	if c := progress.Of(many, []record.Student{{ID: "noor"}}, 30)[0].Change; c == nil || !c.Sure ||
		c.Difference.Low <= 0 ||
		c.Before != (progress.Right{Right: 0, Answered: 10}) ||
		c.After != (progress.Right{Right: 10, Answered: 10}) {
		t.Errorf("%+v", c)
	}
}

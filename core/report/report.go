// Package report answers: how did a lesson go, on one page, and what is to be done next?
package report

import (
	"cmp"
	"slices"

	"alpenglow/core/measure"
	"alpenglow/core/outcome"
	"alpenglow/core/poll"
	"alpenglow/core/record"
)

// Report is a lesson on one page. No share of right answers stands in it without between what it may be; of how
// many took part and worked on a frame all are counted, so there is nothing to guess.
type Report struct {
	Title  string `json:"title"`
	Class  string `json:"class,omitempty"`
	Began  int64  `json:"began"` // milliseconds since 1970
	Ended  int64  `json:"ended,omitempty"`
	Listed int    `json:"listed,omitempty"` // students of the class; 0 without a list
	Here   int    `json:"here"`             // who took part

	Frames     []Frame              `json:"frames"`
	Questions  []Question           `json:"questions"`
	Set        *measure.Set         `json:"set,omitempty"`
	Mistakes   []poll.Named         `json:"mistakes"`
	Objectives []record.ByObjective `json:"objectives"`
	// Sought are students to look for next, Students all of them.
	Sought   []Sought  `json:"sought"`
	Students []Student `json:"students"`
}

// Frame is how many of those who took part have left something on a frame.
type Frame struct {
	N      int    `json:"n"`
	ID     string `json:"id"`
	Title  string `json:"title"`
	Worked int    `json:"worked"`
}

// Question is how a question with something right did, by first answers, and what might come next.
type Question struct {
	N      int              `json:"n"` // its frame's place, from 1
	Frame  string           `json:"frame"`
	Poll   string           `json:"poll"`
	Text   string           `json:"text"`
	Advice *outcome.Advised `json:"advice,omitempty"` // nothing where nobody has answered
	// Wrong is what was answered instead most often.
	Wrong []record.WrongAnswer `json:"wrong"`
}

// Why somebody is to be looked for.
type Why string

// Nothing was left by them; they answered, and of what is right they had less than half.
const (
	Nothing Why = "nothing"
	Lost    Why = "lost"
)

// Whys lists them.
var Whys = []Why{Nothing, Lost}

// Sought is a student to look for next, and why.
type Sought struct {
	record.Student
	Why   Why `json:"why"`
	Right int `json:"right"`
	Of    int `json:"of"`
}

// Student is one of those who took part: on how many frames something of theirs is, and of how many answers how many
// are right.
type Student struct {
	record.Student
	Frames   int     `json:"frames"`
	Answered int     `json:"answered"`
	Right    int     `json:"right"`
	Share    float64 `json:"share"` // of what was right, partly right counted as such
	// Span is between what shares of right answers it may be, by those that were given.
	Span measure.Interval `json:"span"`
}

// leastAnswers is to how many questions somebody has answered before few right ones say anything.
const leastAnswers = 3

// mostWrong is how many wrong answers to a question a report names.
const mostWrong = 3

// Of puts a report together of what is kept of a lesson; bands say when a question is discussed again.
func Of(kept record.Record, bands outcome.Bands) Report {
	q := kept.Questions()
	r := Report{Title: kept.Board.Title, Here: len(kept.Students), Frames: []Frame{}, Questions: []Question{},
		Set: q.Set, Mistakes: q.Mistakes, Objectives: q.Objectives, Sought: []Sought{}, Students: []Student{}}
	for i, f := range kept.Board.Frames {
		line := Frame{N: i + 1, ID: f.ID, Title: f.Title}
		for _, s := range kept.Students {
			if on := s.Frames[i]; len(on.Marks)+len(on.Answers) > 0 {
				line.Worked++
			}
		}
		r.Frames = append(r.Frames, line)
	}
	for _, asked := range q.Questions {
		_, at, _ := kept.Board.Frame(asked.Frame)
		r.Questions = append(r.Questions, Question{N: at + 1, Frame: asked.Frame, Poll: asked.Poll, Text: asked.Text,
			Advice: bands.Or().Advise(asked.Right, asked.Answered),
			Wrong:  asked.Wrong[:min(mostWrong, len(asked.Wrong))]})
	}
	for _, s := range kept.Students {
		r.student(s, q)
	}
	slices.SortStableFunc(r.Sought, func(a, b Sought) int {
		return cmp.Or(cmp.Compare(slices.Index(Whys, a.Why), slices.Index(Whys, b.Why)), cmp.Compare(a.Name, b.Name))
	})
	return r
}

func (r *Report) student(kept record.Kept, q record.Questions) {
	s := Student{Student: kept.Student, Frames: kept.Worked()}
	for _, row := range q.Students {
		if row.ID != kept.ID {
			continue
		}
		for _, share := range row.Shares {
			if share == nil {
				continue
			}
			s.Answered++
			s.Share += *share
			if *share == 1 {
				s.Right++
			}
		}
	}
	s.Share /= max(1, float64(s.Answered))
	s.Span = measure.Wilson(s.Right, s.Answered)
	r.Students = append(r.Students, s)
	switch {
	case s.Frames == 0:
		r.Sought = append(r.Sought, Sought{kept.Student, Nothing, 0, 0})
	case s.Answered >= leastAnswers && s.Share < 0.5:
		r.Sought = append(r.Sought, Sought{kept.Student, Lost, s.Right, s.Answered})
	}
}

// Again is a question to begin the next lesson with, and why.
type Again struct {
	Frame  string               `json:"frame"`
	Poll   string               `json:"poll"`
	Text   string               `json:"text"`
	Advice *outcome.Advised     `json:"advice"`
	Wrong  []record.WrongAnswer `json:"wrong"`
}

// Again lists the questions to begin the next lesson with: those after which one would not go on, the least right
// first. Nobody's answers are no reason.
func (r Report) Again() []Again {
	again := []Again{}
	for _, q := range r.Questions {
		if q.Advice != nil && q.Advice.Is != outcome.GoOn {
			again = append(again, Again{q.Frame, q.Poll, q.Text, q.Advice, q.Wrong})
		}
	}
	share := func(a Again) float64 { return float64(a.Advice.Right) / float64(a.Advice.Of) }
	slices.SortStableFunc(again, func(a, b Again) int { return cmp.Compare(share(a), share(b)) })
	return again
}

package record

import (
	"cmp"
	"slices"

	"alpenglow/core/measure"
	"alpenglow/core/poll"
)

// leastFor is of how many students, and over how many questions, figures of a set are given.
const leastFor = 4

// Questions is how the questions of a lesson did: those that have something right, each by
// the first answer that a student gave in time, before anything was shown.
type Questions struct {
	Questions []Asked `json:"questions"`
	// All is how many students answered every question; figures of the set are of these.
	All int `json:"all"`
	// Set has the figures of the questions together, in their order; nil where too few
	// answered them all.
	Set *measure.Set `json:"set,omitempty"`
	// Students by questions: how much of each is right, from 0 to 1; nil without an answer.
	Students []Row        `json:"students"`
	Mistakes []poll.Named `json:"mistakes"`
	// Objectives is how much of the questions about each objective is right.
	Objectives []ByObjective `json:"objectives"`
}

// Asked is how one question did.
type Asked struct {
	Frame    string  `json:"frame"`
	Poll     string  `json:"poll"`
	Text     string  `json:"text"`
	Right    int     `json:"right"`
	Answered int     `json:"answered"`
	Mean     float64 `json:"mean"` // how much of it is right, from 0 to 1
	// Span is between what shares of right answers it may be.
	Span measure.Interval `json:"span"`
	// Wrong is what was answered instead, most often first, by whom of the class.
	Wrong []WrongAnswer `json:"wrong"`
}

// WrongAnswer is one wrong answer, or all that are one known mistake: how many gave it of
// the third that did best in all, of the middle and of the last one.
type WrongAnswer struct {
	Text    string `json:"text"`
	Mistake bool   `json:"mistake,omitempty"`
	Count   int    `json:"count"`
	Upper   int    `json:"upper"`
	Middle  int    `json:"middle"`
	Lower   int    `json:"lower"`
}

// Row is one student's share of each question.
type Row struct {
	Student
	Shares []*float64 `json:"shares"`
}

// ByObjective is how a class did in the questions about an objective.
type ByObjective struct {
	ID        string  `json:"id"`
	Text      string  `json:"text"`
	Questions int     `json:"questions"`
	Answers   int     `json:"answers"`
	Mean      float64 `json:"mean"`
}

// mostWrong is how many wrong answers to a question are listed.
const mostWrong = 8

// first gives the answer to a question that a student gave first and in time, of several tries
// the first; without a round where there is none.
func first(answers []Answered, id string) Answered {
	var found Answered
	for _, a := range answers {
		if a.Poll == id && !a.Late && (found.Round == 0 || a.Round < found.Round) {
			found = a
		}
	}
	if f := found.First; f != nil {
		found.Text, found.Judgement = f.Text, f.Judgement
	}
	return found
}

// judgedQuestion is a question that has something right, with what each student answered first, in the
// order of the students; without a round where there is nothing.
type judgedQuestion struct {
	frame, id string
	asked     *poll.Question
	first     []Answered
}

// judged lists the questions of the lesson that have something right.
func (r Record) judged() []judgedQuestion {
	var all []judgedQuestion
	for i, f := range r.Board.Frames {
		for _, p := range f.Polls() {
			if !p.Poll.HasRight() {
				continue
			}
			q := judgedQuestion{f.ID, p.ID, p.Poll, make([]Answered, len(r.Students))}
			for k, s := range r.Students {
				q.first[k] = first(s.Frames[i].Answers, p.ID)
			}
			all = append(all, q)
		}
	}
	return all
}

// Questions says how the questions of the lesson did.
func (r Record) Questions() Questions {
	q := Questions{Questions: []Asked{}, Students: []Row{}, Mistakes: []poll.Named{}, Objectives: []ByObjective{}}
	asked := []*poll.Question{}
	answers := [][]Answered{} // by question and student
	for _, one := range r.judged() {
		asked, answers = append(asked, one.asked), append(answers, one.first)
		q.Questions = append(q.Questions,
			Asked{Frame: one.frame, Poll: one.id, Text: one.asked.Text, Wrong: []WrongAnswer{}})
	}
	var whole [][]float64
	sums := make([]float64, len(r.Students))
	for k, s := range r.Students {
		row := Row{Student: s.Student, Shares: make([]*float64, len(asked))}
		all := []float64{}
		for j := range asked {
			if a := answers[j][k]; a.Round > 0 {
				share := a.Share
				row.Shares[j] = &share
				all = append(all, share)
				sums[k] += share
			}
		}
		if len(all) > 0 {
			q.Students = append(q.Students, row)
		}
		if len(all) == len(asked) && len(all) > 0 {
			whole = append(whole, all)
		}
	}
	q.All = len(whole)
	if q.All >= leastFor && len(asked) >= leastFor {
		set := measure.Analyse(whole)
		q.Set = &set
	}
	third := thirds(sums, answers)
	mistakes := map[string]int{}
	for j := range asked {
		q.Questions[j].count(answers[j], third, mistakes)
	}
	for name, n := range mistakes {
		q.Mistakes = append(q.Mistakes, poll.Named{Name: name, Count: n})
	}
	slices.SortFunc(q.Mistakes, func(a, b poll.Named) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Name, b.Name))
	})
	q.byObjective(r, asked, answers)
	return q
}

// thirds says of each student in which third of those they are who answered anything: 0 did
// best. Who are equal are in the same one, the better.
func thirds(sums []float64, answers [][]Answered) []int {
	var there []float64
	for k := range sums {
		if slices.ContainsFunc(answers, func(column []Answered) bool { return column[k].Round > 0 }) {
			there = append(there, sums[k])
		}
	}
	slices.SortFunc(there, func(a, b float64) int { return cmp.Compare(b, a) })
	third := make([]int, len(sums))
	for k, sum := range sums {
		if at := slices.Index(there, sum); at >= 0 {
			third[k] = 3 * at / len(there)
		}
	}
	return third
}

func (a *Asked) count(answers []Answered, third []int, mistakes map[string]int) {
	wrong := map[string]*WrongAnswer{}
	for k, given := range answers {
		if given.Round == 0 {
			continue
		}
		a.Answered++
		a.Mean += given.Share
		if given.Verdict == poll.Right {
			a.Right++
			continue
		}
		text := cmp.Or(given.Mistake, given.Text)
		if given.Mistake != "" {
			mistakes[given.Mistake]++
		}
		w := wrong[text]
		if w == nil {
			w = &WrongAnswer{Text: text, Mistake: given.Mistake != ""}
			wrong[text] = w
		}
		w.Count++
		*[]*int{&w.Upper, &w.Middle, &w.Lower}[third[k]]++
	}
	a.Mean /= max(1, float64(a.Answered))
	a.Span = measure.Wilson(a.Right, a.Answered)
	for _, w := range wrong {
		a.Wrong = append(a.Wrong, *w)
	}
	slices.SortFunc(a.Wrong, func(x, y WrongAnswer) int {
		return cmp.Or(cmp.Compare(y.Count, x.Count), cmp.Compare(x.Text, y.Text))
	})
	a.Wrong = a.Wrong[:min(len(a.Wrong), mostWrong)]
}

func (q *Questions) byObjective(r Record, asked []*poll.Question, answers [][]Answered) {
	for _, o := range r.Board.Objectives {
		by := ByObjective{ID: o.ID, Text: o.Text}
		for j, question := range asked {
			if !slices.Contains(question.Objectives, o.ID) {
				continue
			}
			by.Questions++
			for _, a := range answers[j] {
				if a.Round > 0 {
					by.Answers++
					by.Mean += a.Share
				}
			}
		}
		if by.Answers > 0 {
			by.Mean /= float64(by.Answers)
			q.Objectives = append(q.Objectives, by)
		}
	}
}

// First gives the answer to a question that was given first and in time, of several tries the first; false where there
// is none.
func (o OnFrame) First(poll string) (Answered, bool) {
	a := first(o.Answers, poll)
	return a, a.Round > 0
}

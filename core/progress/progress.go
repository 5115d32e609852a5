// Package progress answers: what do the lessons of a year say of a student, and of a class?
package progress

import (
	"cmp"
	"math"
	"slices"

	"alpenglow/core/assess"
	"alpenglow/core/find"
	"alpenglow/core/lesson"
	"alpenglow/core/measure"
	"alpenglow/core/poll"
	"alpenglow/core/record"
)

// Lesson is a lesson as it was kept: As says which student of the class each participant was, Judged is
// what the teacher of the lesson thinks of the work.
type Lesson struct {
	Session string
	Title   string
	At      int64 // milliseconds since 1970
	Kept    record.Record
	As      map[string]string
	Judged  []assess.Judged
}

// Year is what a student did over the lessons of a class.
type Year struct {
	record.Student
	Lessons    []Day       `json:"lessons"` // the first one first
	Objectives []Objective `json:"objectives"`
	// Change compares the answers of the later lessons with those of the earlier ones; nil where there are too few.
	Change *Change `json:"change,omitempty"`
}

// Day is a lesson for a student: whether they were there, on how many frames of how many something of theirs is, how
// many of their answers are right with the interval of that share, what the teacher thinks of the whole, and some of
// their own words.
type Day struct {
	Session  string           `json:"session"`
	Title    string           `json:"title"`
	At       int64            `json:"at"`
	There    bool             `json:"there"`
	Frames   int              `json:"frames"`
	Of       int              `json:"of"`
	Right    int              `json:"right"`
	Answered int              `json:"answered"`
	Span     measure.Interval `json:"span"`
	Level    *assess.Level    `json:"level,omitempty"`
	Comment  string           `json:"comment,omitempty"`
	Words    []string         `json:"words,omitempty"`
}

// Change is by how much more of the answers were right in the later half of the lessons than in the earlier one, with
// its interval; it is sure that something changed where that does not hold 0. Answers of one student hang together,
// so the interval is rather too narrow.
type Change struct {
	Before     Right            `json:"before"`
	After      Right            `json:"after"`
	Difference measure.Interval `json:"difference"`
	Sure       bool             `json:"sure,omitempty"`
}

// Right is how many of some answers are right.
type Right struct {
	Right    int `json:"right"`
	Answered int `json:"answered"`
}

// Piece is a piece of evidence: when it was, how much of it was reached, from 0 to 1, in which lesson, and what it is.
type Piece struct {
	At      int64   `json:"at"`
	Share   float64 `json:"share"`
	Session string  `json:"session"`
	Kind    Kind    `json:"kind"`
}

// Kind tells evidence apart.
type Kind string

// An answer to a question about the objective; a level of work on a frame that serves it.
const (
	Answer Kind = "answer"
	Level  Kind = "level"
)

// Kinds lists them.
var Kinds = []Kind{Answer, Level}

// Objective is what is known of a student and an objective: all pieces, and what they come to.
type Objective struct {
	Text   string  `json:"text"`
	Pieces []Piece `json:"pieces"`
	Condensed
}

// Condensed is what pieces of evidence come to: a mean in which recent ones weigh more, how far they spread, and as
// many pieces of equal weight as they are worth. A mean is never shown without the other two.
type Condensed struct {
	Mean   float64 `json:"mean"`
	Spread float64 `json:"spread"`
	Worth  float64 `json:"worth"`
}

// HalfLife is after how many milliseconds a piece weighs half: six weeks, about half a term. A choice of ours.
const HalfLife = 42 * 24 * 60 * 60 * 1000

// Condense gives what pieces come to at a time: with weights w = 2^(-age/HalfLife), the mean is sum(w x)/sum(w), the
// spread the root of sum(w (x - mean)^2)/sum(w), and the worth sum(w)^2/sum(w^2) (Kish's effective size, 1965, from
// memory). Of nothing all are 0.
func Condense(pieces []Piece, now int64) Condensed {
	var c Condensed
	sum, squares := 0.0, 0.0
	for _, p := range pieces {
		w := weight(p, now)
		sum, squares, c.Mean = sum+w, squares+w*w, c.Mean+w*p.Share
	}
	if sum == 0 {
		return Condensed{}
	}
	c.Mean /= sum
	for _, p := range pieces {
		c.Spread += weight(p, now) * (p.Share - c.Mean) * (p.Share - c.Mean)
	}
	c.Spread, c.Worth = math.Sqrt(c.Spread/sum), sum*sum/squares
	return c
}

func weight(p Piece, now int64) float64 {
	return math.Exp2(-float64(max(0, now-p.At)) / HalfLife)
}

// Of gives what lessons, in whatever order, say of each of some students.
func Of(lessons []Lesson, students []record.Student, now int64) []Year {
	lessons = slices.SortedFunc(slices.Values(lessons), func(a, b Lesson) int {
		return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Session, b.Session))
	})
	years := make([]Year, len(students))
	for i, s := range students {
		y := Year{Student: s, Lessons: []Day{}, Objectives: []Objective{}}
		for _, l := range lessons {
			y.add(l)
		}
		for k := range y.Objectives {
			y.Objectives[k].Condensed = Condense(y.Objectives[k].Pieces, now)
		}
		y.Change = change(y.Lessons)
		years[i] = y
	}
	return years
}

// mostWords is how many of a student's own words stand beside a lesson.
const mostWords = 3

// add takes a lesson in: all seats that the student had in it.
func (y *Year) add(l Lesson) {
	day := Day{Session: l.Session, Title: l.Title, At: l.At, Of: len(l.Kept.Board.Frames)}
	on := map[string]bool{}
	for _, kept := range l.Kept.Students {
		if l.As[kept.ID] != y.ID {
			continue
		}
		day.There = true
		for i, f := range kept.Frames {
			if len(f.Marks)+len(f.Answers) > 0 {
				on[f.Frame] = true
			}
			for _, m := range f.Marks {
				if words := m.Words(); (m.Note != nil || m.Text != nil) && words != "" && len(day.Words) < mostWords &&
					!slices.Contains(day.Words, words) {
					day.Words = append(day.Words, words)
				}
			}
			y.answers(l, l.Kept.Board.Frames[i], f, &day)
		}
		for _, j := range l.Judged {
			y.judged(l, j, kept.ID, &day)
		}
	}
	day.Frames, day.Span = len(on), measure.Wilson(day.Right, day.Answered)
	y.Lessons = append(y.Lessons, day)
}

// answers takes the first answer to each question of a frame.
func (y *Year) answers(l Lesson, f lesson.Frame, on record.OnFrame, day *Day) {
	for _, p := range f.Polls() {
		a, ok := on.First(p.ID)
		if !ok || !p.Poll.HasRight() {
			continue
		}
		day.Answered++
		if a.Verdict == poll.Right {
			day.Right++
		}
		for _, id := range p.Poll.Objectives {
			y.evidence(l, id, Piece{a.At, a.Share, l.Session, Answer})
		}
	}
}

// judged takes a level of the lesson, or of a frame for what that serves; one by a criterion is a part of it.
func (y *Year) judged(l Lesson, j assess.Judged, seat string, day *Day) {
	switch {
	case j.Student != seat || !j.Whole():
	case j.Frame == "":
		day.Level, day.Comment = j.Level, j.Comment
	case j.Level != nil && len(j.Level.Scale) > 1:
		f, _, err := l.Kept.Board.Frame(j.Frame)
		if err != nil {
			return
		}
		share := float64(j.Level.At) / float64(len(j.Level.Scale)-1)
		for _, id := range f.Objectives {
			y.evidence(l, id, Piece{l.At, share, l.Session, Level})
		}
	}
}

// evidence adds a piece to the objective with an id on a lesson's board. Objectives of many boards are one where
// they say the same.
func (y *Year) evidence(l Lesson, id string, p Piece) {
	at := slices.IndexFunc(l.Kept.Board.Objectives, func(o lesson.Objective) bool { return o.ID == id })
	if at < 0 {
		return
	}
	text := l.Kept.Board.Objectives[at].Text
	known := slices.IndexFunc(y.Objectives, func(o Objective) bool { return find.Plain(o.Text) == find.Plain(text) })
	if known < 0 {
		known = len(y.Objectives)
		y.Objectives = append(y.Objectives, Objective{Text: text})
	}
	y.Objectives[known].Pieces = append(y.Objectives[known].Pieces, p)
}

// leastAnswers is how many answers each half has at least before they are compared.
const leastAnswers = 5

// change compares the later half of the lessons in which something was answered with the earlier one.
func change(days []Day) *Change {
	days = slices.DeleteFunc(slices.Clone(days), func(d Day) bool { return d.Answered == 0 })
	var c Change
	for i, d := range days {
		half := &c.Before
		if 2*i >= len(days) {
			half = &c.After
		}
		half.Right, half.Answered = half.Right+d.Right, half.Answered+d.Answered
	}
	if c.Before.Answered < leastAnswers || c.After.Answered < leastAnswers {
		return nil
	}
	c.Difference = measure.Difference(c.After.Right, c.After.Answered, c.Before.Right, c.Before.Answered)
	c.Sure = c.Difference.Low > 0 || c.Difference.High < 0
	return &c
}

package standin

import (
	"math/rand/v2"
	"slices"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/sheet"
)

// Deed is something that a student did in a lesson that is over.
type Deed struct {
	Student int // from 0
	Frame   string
	At      time.Time
	Step    sheet.Step
}

// perFrame is how long a class was on a frame.
const perFrame = 8 * time.Minute

// Past makes up what a class did on the frames of a board, in order of time: the same for
// the same seed, but for the ids. Of a frame that groups share each student does theirs.
func Past(board lesson.Board, students int, asked map[string]poll.Question, seed uint64, begin time.Time) []Deed {
	random := rand.New(rand.NewPCG(seed, 7))
	o := Options{Students: students, Asked: asked, Seed: seed}
	class := make([]*student, students)
	for i := range class {
		class[i] = newStudent(o, i, random)
	}
	var deeds []Deed
	for n, f := range board.Frames {
		from := begin.Add(time.Duration(n) * perFrame)
		shared := map[bool][]lesson.Element{}
		for i, s := range class {
			if s.temper == idle || s.temper == fooling {
				continue
			}
			s.marks = nil
			for _, step := range s.recall(f, shared[f.Arrangement != lesson.Individual]) {
				at := from.Add(time.Duration(30+random.IntN(int(perFrame.Seconds())-60)) * time.Second)
				deeds = append(deeds, Deed{i, f.ID, at, step})
				if add := step.Add; add != nil {
					shared[true] = append(shared[true], lesson.Element{ID: add.Mark, Author: s.name, Body: add.Body})
				}
			}
		}
	}
	slices.SortStableFunc(deeds, func(a, b Deed) int { return a.At.Compare(b.At) })
	return deeds
}

// recall gives what a student did on a frame, in order.
func (s *student) recall(f lesson.Frame, there []lesson.Element) []sheet.Step {
	var steps []sheet.Step
	for _, q := range f.Polls() {
		value, sure := s.answer(q, 1)
		steps = append(steps, sheet.Step{Kind: sheet.KindAnswer,
			Answer: &sheet.SetAnswer{Poll: q.ID, Round: 1, Value: &value, Sure: sure}})
	}
	if f.Permission == lesson.Look {
		return steps
	}
	for range 1 + s.random.IntN(3) {
		switch {
		case f.Arrangement == lesson.Individual && !f.Layout.InColumns() && s.random.IntN(3) == 0:
			steps = append(steps, s.draw())
		case s.random.IntN(4) == 0 && len(there) > 0:
			note := there[s.random.IntN(len(there))]
			if note.Note != nil && note.Author != s.name {
				steps = append(steps, sheet.Step{Kind: sheet.KindAgree, Agree: &sheet.Agree{Mark: note.ID, Yes: true}})
			}
		default:
			steps = append(steps, s.note(f))
		}
	}
	return steps
}

// Again makes up what the same class answers to a question that is asked once more.
func Again(frame lesson.Frame, q lesson.Element, round, students int, asked map[string]poll.Question, seed uint64,
	begin time.Time) []Deed {
	random := rand.New(rand.NewPCG(seed, 8))
	o := Options{Students: students, Asked: asked, Seed: seed}
	var deeds []Deed
	for i := range students {
		s := newStudent(o, i, random)
		if s.temper == idle || s.temper == fooling {
			continue
		}
		value, sure := s.answer(q, round)
		deeds = append(deeds, Deed{i, frame.ID, begin.Add(time.Duration(5+random.IntN(60)) * time.Second),
			sheet.Step{
				Kind:   sheet.KindAnswer,
				Answer: &sheet.SetAnswer{Poll: q.ID, Round: round, Value: &value, Sure: sure},
			}})
	}
	slices.SortStableFunc(deeds, func(a, b Deed) int { return a.At.Compare(b.At) })
	return deeds
}

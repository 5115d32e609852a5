// Package record answers: what is kept of a session?
package record

import (
	"cmp"
	"maps"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
)

// Student is one participant of the session, as the record names them.
type Student struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Record is what is kept of a session: for each student and frame what they
// wrote, drew and chose.
type Record struct {
	Board    lesson.Board `json:"board"`
	Students []Kept       `json:"students"`
	Tallies  []Tally      `json:"tallies"`
}

// Kept is what one student left on each frame, in the order of the frames.
type Kept struct {
	Student
	Frames []OnFrame `json:"frames"`
}

// OnFrame is what one student left on one frame: every mark of theirs from the
// lowest to the highest, hidden ones too, and the answer with its verdict.
type OnFrame struct {
	Frame   string           `json:"frame"`
	Marks   []lesson.Element `json:"marks"`
	Answers []Answered       `json:"answers"`
	// Handed is in which round they handed in the set of the frame last; 0 for none.
	Handed int `json:"handed,omitempty"`
}

// Has reports whether a mark of the student lies on the frame: their work, or an answer by the
// id of its mark.
func (o OnFrame) Has(mark string) bool {
	return slices.ContainsFunc(o.Marks, func(m lesson.Element) bool { return m.ID == mark }) ||
		slices.ContainsFunc(o.Answers, func(a Answered) bool { return poll.AnswerID(a.Poll, a.Round) == mark })
}

// Answered is an answer, in a round of its poll, with what it says.
type Answered struct {
	Poll  string     `json:"poll"`
	Round int        `json:"round"`
	Value poll.Value `json:"value"`
	Text  string     `json:"text"`
	poll.Judgement
	Sure    poll.Sureness `json:"sure,omitempty"`
	Late    bool          `json:"late,omitempty"`
	Offline bool          `json:"offline,omitempty"`
	At      int64         `json:"at"`
	// Tries is how often it was answered where each answer was judged at once, First the first of
	// them, where there was more than one.
	Tries int       `json:"tries,omitempty"`
	First *FirstTry `json:"first,omitempty"`
}

// FirstTry is what was answered first.
type FirstTry struct {
	Text string `json:"text"`
	poll.Judgement
}

// Tally is how the answers to a poll stand in one of its rounds.
type Tally struct {
	Frame string `json:"frame"`
	Poll  string `json:"poll"`
	Round int    `json:"round"`
	poll.Tally
}

// Mark is a mark with the frame it lies on.
type Mark struct {
	Frame string
	lesson.Element
}

// Build makes the record from the board as it was run, the students and all
// marks of all sheets. Students stand in the order of their names, and what
// was removed is not in it.
func Build(board lesson.Board, students []Student, marks []Mark) Record {
	places := map[string]map[string]*OnFrame{}
	rec := Record{Board: board, Students: make([]Kept, 0, len(students)), Tallies: []Tally{}}
	for _, s := range slices.SortedFunc(slices.Values(students), func(a, b Student) int {
		return cmp.Or(cmp.Compare(a.Name, b.Name), cmp.Compare(a.ID, b.ID))
	}) {
		kept := Kept{Student: s, Frames: make([]OnFrame, len(board.Frames))}
		places[s.ID] = map[string]*OnFrame{}
		for i, f := range board.Frames {
			kept.Frames[i] = OnFrame{Frame: f.ID, Marks: []lesson.Element{}, Answers: []Answered{}}
			places[s.ID][f.ID] = &kept.Frames[i]
		}
		rec.Students = append(rec.Students, kept)
	}
	marks = slices.SortedStableFunc(slices.Values(marks), func(a, b Mark) int { return cmp.Compare(a.Z, b.Z) })
	for _, m := range marks {
		place := places[m.Author][m.Frame]
		if place == nil || !m.OnFrame() {
			continue
		}
		if !m.IsAnswer() {
			place.Marks = append(place.Marks, m.Element)
		} else if m.Handed != nil {
			place.Handed = max(place.Handed, m.Handed.Round)
		} else if a, ok := verdict(board, m); ok {
			place.Answers = append(place.Answers, a)
		}
	}
	rec.tally()
	return rec
}

func verdict(board lesson.Board, m Mark) (Answered, bool) {
	frame, _, err := board.Frame(m.Frame)
	if err != nil {
		return Answered{}, false
	}
	asked, err := frame.Poll(m.Answer.Poll)
	if err != nil {
		return Answered{}, false
	}
	q, given := asked.Poll.In(m.Answer.Round), m.Answer
	a := Answered{Poll: asked.ID, Round: given.Round, Value: given.Value, Text: q.Says(given.Value),
		Judgement: q.Judge(given.Value), Sure: given.Sure, Late: given.Late, Offline: given.Offline, At: m.At}
	if len(given.Before) > 0 {
		first := given.Before[0]
		a.Tries, a.First = len(given.Before)+1, &FirstTry{q.Says(first), q.Judge(first)}
	}
	return a, q.Takes(given.Value) == nil
}

// tally counts the answers that the record holds, round by round; a poll that
// nobody answered has its first.
func (r *Record) tally() {
	for i, f := range r.Board.Frames {
		for _, p := range f.Polls() {
			rounds := map[int][]poll.Value{1: nil}
			for _, s := range r.Students {
				for _, a := range s.Frames[i].Answers {
					if a.Poll == p.ID && !a.Late {
						rounds[a.Round] = append(rounds[a.Round], a.Value)
					}
				}
			}
			for _, round := range slices.Sorted(maps.Keys(rounds)) {
				r.Tallies = append(r.Tallies, Tally{f.ID, p.ID, round, p.Poll.In(round).Tally(rounds[round])})
			}
		}
	}
}

// Worked counts the frames on which the student has left something.
func (k Kept) Worked() int {
	n := 0
	for _, f := range k.Frames {
		if len(f.Marks)+len(f.Answers) > 0 {
			n++
		}
	}
	return n
}

package outcome

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
)

// Taker is a student who is asked a set: in which group they are (0: none), whether they are
// here, whether they have handed in, and what they answered in time to each question, by its id.
type Taker struct {
	Student string
	Group   int
	Here    bool
	Handed  bool
	Given   map[string]Taken
}

// Taken is an answer to a question of a set, with what is thought of it.
type Taken struct {
	lesson.Answer
	Verdict poll.Verdict
}

// Set is how the questions of a frame stand that are asked in a row.
type Set struct {
	Frame string `json:"frame"`
	// Round is which time they are asked, Asked which of them have been in it, in order.
	Round int      `json:"round"`
	Asked []string `json:"asked"`
	// Of is how many were asked, Given how many answers there are, Handed how many have handed
	// in, All how many have answered everything.
	Of     int `json:"of"`
	Given  int `json:"given"`
	Handed int `json:"handed"`
	All    int `json:"all"`
	// Now is how many have answered the question that was asked last.
	Now int `json:"now"`
	// Lanes say how far groups have come, or, with none, Dots how far each student has, without
	// saying who: from 0 to 1.
	Lanes []Lane    `json:"lanes,omitempty"`
	Dots  []float64 `json:"dots,omitempty"`
	// Rows are the students, with a cell for each question asked.
	Rows []SetRow `json:"rows,omitempty"`
}

// Lane is how far a group has come: the mean over its students.
type Lane struct {
	Group int     `json:"group"`
	Size  int     `json:"size"`
	Share float64 `json:"share"`
}

// SetRow is how far a student has come with a set.
type SetRow struct {
	Student string    `json:"student"`
	Handed  bool      `json:"handed,omitempty"`
	Right   int       `json:"right"`
	Cells   []SetCell `json:"cells"`
}

// SetCell is how a student did with a question: in how many tries, 0 where there is no answer.
type SetCell struct {
	Tries   int          `json:"tries"`
	Verdict poll.Verdict `json:"verdict,omitempty"`
}

// leastInLane is how many a group must have so that its lane does not stand for one person.
const leastInLane = 2

// SetOf gives how a frame's set stands.
func SetOf(f lesson.Frame, polls map[string]poll.State, takers []Taker) Set {
	s := Set{Frame: f.ID, Round: f.RoundOf(polls), Asked: []string{}}
	long := 0 // how many questions there are to come through
	for _, p := range f.Polls() {
		if p.Poll.InsteadOf != "" {
			continue
		}
		long++
		if polls[p.ID].Round == s.Round && s.Round > 0 {
			s.Asked = append(s.Asked, p.ID)
		}
	}
	lanes := map[int]*Lane{}
	for _, t := range takers {
		row, done := s.row(f, t)
		if !t.Here && !slices.ContainsFunc(row.Cells, func(c SetCell) bool { return c.Tries > 0 }) {
			continue
		}
		s.Of++
		s.Rows = append(s.Rows, row)
		for _, c := range row.Cells {
			if c.Tries > 0 {
				s.Given++
			}
		}
		if n := len(row.Cells); n > 0 && row.Cells[n-1].Tries > 0 {
			s.Now++
		}
		if row.Handed {
			s.Handed++
		}
		if len(s.Asked) > 0 && !slices.ContainsFunc(row.Cells, func(c SetCell) bool { return c.Tries == 0 }) {
			s.All++
		}
		far := 0.0
		if long > 0 {
			far = float64(done) / float64(long)
		}
		s.Dots = append(s.Dots, far)
		if lanes[t.Group] == nil {
			lanes[t.Group] = &Lane{Group: t.Group}
		}
		l := lanes[t.Group]
		l.Size++
		l.Share += (far - l.Share) / float64(l.Size)
	}
	slices.Sort(s.Dots)
	teams := lanes[0] == nil && len(lanes) > 1
	for _, l := range lanes {
		teams = teams && l.Size >= leastInLane
		s.Lanes = append(s.Lanes, *l)
	}
	slices.SortFunc(s.Lanes, func(a, b Lane) int { return a.Group - b.Group })
	if teams {
		s.Dots = nil
	} else {
		s.Lanes = nil
	}
	return s
}

// row gives a student's row, and how many questions they are done with.
func (s Set) row(f lesson.Frame, t Taker) (row SetRow, done int) {
	row = SetRow{Student: t.Student, Handed: t.Handed, Cells: []SetCell{}}
	for _, id := range s.Asked {
		a, given := t.Given[id]
		if !given || a.Round != s.Round || a.Late {
			row.Cells = append(row.Cells, SetCell{})
			continue
		}
		tries := len(a.Before) + 1
		row.Cells = append(row.Cells, SetCell{tries, a.Verdict})
		if a.Verdict == poll.Right {
			row.Right++
		}
		// Where there are tries left, a wrong answer is not done with.
		if a.Verdict == poll.Right || a.Verdict == poll.NoVerdict || tries >= f.Set.Most() {
			done++
		}
	}
	return row, done
}

// ForFront gives what a front screen may show of it: how far the class has come, and of a race
// how far each group.
func (s Set) ForFront(race bool) Set {
	s.Rows = nil
	if !race {
		s.Lanes, s.Dots = nil, nil
	}
	return s
}

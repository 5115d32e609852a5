package insight

import (
	"cmp"
	"slices"
)

// Why is a reason why a student may need the teacher.
type Why string

// The reasons.
const (
	WhyHelp     Why = "help"     // asked for it
	WhyComing   Why = "coming"   // asked for it, and the teacher has said that they are coming
	WhySame     Why = "same"     // is wrong as others are
	WhyBehind   Why = "behind"   // has nothing yet, most others have
	WhyQuiet    Why = "quiet"    // has changed nothing for long
	WhyWrong    Why = "wrong"    // is wrong in a way of their own
	WhyUnseen   Why = "unseen"   // was not looked at yet
	WhyNotBegun Why = "notBegun" // has nothing yet, as most others
	WhyNone     Why = "none"
)

// Whys lists all of them.
var Whys = []Why{WhyHelp, WhyComing, WhySame, WhyBehind, WhyQuiet, WhyWrong, WhyUnseen, WhyNotBegun, WhyNone}

// Weights say which reason comes before which, in one place. Who was looked at since
// a reason came about has Seen of its weight.
var Weights = map[Why]int{WhyHelp: 100, WhyComing: 70, WhySame: 60, WhyBehind: 50, WhyQuiet: 40, WhyWrong: 30,
	WhyNotBegun: 25, WhyUnseen: 20, WhyNone: 0}

// Seen is what is left of a reason's weight, in percent, that the teacher has looked at.
const Seen = 15

// Row is what is said of a student: in which state they are and since when, and why
// they may need the teacher. N is a number that belongs to the reason: how many others
// are wrong in the same way, or how many marks others have, in the middle.
type Row struct {
	Student string `json:"student"`
	Frame   string `json:"frame"`
	State   State  `json:"state"`
	Since   int64  `json:"since,omitempty"`
	Why     Why    `json:"why"`
	N       int    `json:"n,omitempty"`
	// Picked is how often they were drawn, in this lesson and in those before it.
	Picked int `json:"picked,omitempty"`
	// Seen says that the teacher has looked since the reason came about.
	Seen bool `json:"seen,omitempty"`

	weight int
	from   int64 // when the reason came about
	name   string
}

// onFrame is what a class shows on a frame.
type onFrame struct {
	pauses []float64
	marks  []float64
	here   int
	limit  int64
	wrong  map[string]int
}

// Next gives a row for each student, those first who may need the teacher first, and
// when the next of them changes by time alone (0 for never). It depends on the
// students and the time alone, not on their order.
func Next(students []Student, now int64) (rows []Row, changes int64) {
	frames := map[string]*onFrame{}
	for _, s := range students {
		f := frames[s.Frame]
		if f == nil {
			f = &onFrame{wrong: map[string]int{}}
			frames[s.Frame] = f
		}
		if s.Work.Pause > 0 {
			f.pauses = append(f.pauses, float64(s.Work.Pause))
		}
		if s.Removed {
			continue
		}
		if s.Wrong != "" {
			f.wrong[s.Wrong]++
		}
		if s.Here {
			f.here++
			if s.Work.Marks > 0 {
				f.marks = append(f.marks, float64(s.Work.Marks))
			}
		}
	}
	for _, f := range frames {
		f.limit = Pause(f.pauses)
	}
	rows = make([]Row, len(students))
	for i, s := range students {
		f := frames[s.Frame]
		rows[i] = s.row(f, now)
		if rows[i].State == AtWork {
			if at := s.Work.At + f.limit + 1; changes == 0 || at < changes {
				changes = at
			}
		}
	}
	slices.SortFunc(rows, func(a, b Row) int {
		return cmp.Or(cmp.Compare(b.weight, a.weight), cmp.Compare(a.from, b.from), cmp.Compare(a.name, b.name),
			cmp.Compare(a.Student, b.Student))
	})
	return rows, changes
}

// row says of a student what is to be said, with the strongest reason.
func (s Student) row(f *onFrame, now int64) Row {
	state, since := s.state(f.limit, now)
	r := Row{Student: s.ID, Frame: s.Frame, State: state, Since: since, Why: WhyNone, Picked: s.Picked,
		name: s.Name}
	if state == Removed || state == Gone {
		r.weight = -2
		if state == Removed {
			r.weight = -3
		}
		return r
	}
	reason := func(why Why, from int64, n int) {
		weight, seen := Weights[why], s.Looked >= from && s.Looked > 0
		if seen {
			weight = weight * Seen / 100
		}
		if r.Why == WhyNone || weight > r.weight {
			r.Why, r.from, r.N, r.Seen, r.weight = why, from, n, seen, weight
		}
	}
	switch {
	case state == Help && s.Coming:
		r.Why, r.from, r.weight = WhyComing, s.Help, Weights[WhyComing]
		return r
	case state == Help:
		r.Why, r.from, r.weight = WhyHelp, s.Help, Weights[WhyHelp] // to look is not to have helped
		return r
	}
	if s.Wrong != "" {
		if same := f.wrong[s.Wrong]; same > 1 {
			reason(WhySame, s.WrongAt, same-1)
		} else {
			reason(WhyWrong, s.WrongAt, 0)
		}
	}
	switch {
	case state == NotBegun && 2*len(f.marks) >= f.here:
		reason(WhyBehind, s.Since, int(Median(f.marks)))
	case state == NotBegun:
		reason(WhyNotBegun, s.Since, 0)
	case state == Quiet:
		reason(WhyQuiet, since+f.limit, 0)
	}
	if s.Looked == 0 && state != Done && state != NotBegun {
		reason(WhyUnseen, 0, 0)
	}
	if r.Why == WhyNone && state == Done {
		r.weight = -1
	}
	return r
}

// Same reports whether a row says the same as another.
func (r Row) Same(o Row) bool {
	return r.Student == o.Student && r.Frame == o.Frame && r.State == o.State && r.Since == o.Since && r.Why == o.Why &&
		r.N == o.N && r.Seen == o.Seen && r.Picked == o.Picked
}

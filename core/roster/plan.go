package roster

import (
	"slices"
	"strconv"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// Bounds of what a teacher notes about a class.
const (
	MaxSets     = 12 // ways in which a class is divided
	MaxGroups   = 40 // groups of one of them
	MaxApart    = 200
	MaxSeatRows = 20
	MaxSeatCols = 20
)

// Plan is what a teacher notes about a class for its lessons. Students are named by
// their ids.
type Plan struct {
	// Sets are the ways in which the class is divided into groups.
	Sets []Set `json:"sets"`
	// Apart lists those who should not be in one group.
	Apart []Pair `json:"apart"`
	// Seats say who sits where.
	Seats Seats `json:"seats"`
}

// Set is one way in which a class is divided: groups under a name.
type Set struct {
	ID     string     `json:"id"`
	Name   string     `json:"name"`
	Groups [][]string `json:"groups"`
}

// Pair is two students.
type Pair [2]string

// Seats are in rows, the first one nearest to the board; At gives the students row by
// row from the left, "" where nobody sits.
type Seats struct {
	Rows    int      `json:"rows"`
	Columns int      `json:"columns"`
	At      []string `json:"at"`
}

// Sound gives a plan without nil lists.
func (p Plan) Sound() Plan {
	if p.Sets == nil {
		p.Sets = []Set{}
	}
	if p.Apart == nil {
		p.Apart = []Pair{}
	}
	if p.Seats.At == nil {
		p.Seats.At = []string{}
	}
	return p
}

// As gives a plan with other ids; students without one are left out.
func (p Plan) As(ids map[string]string) Plan {
	named := func(students []string) []string {
		out := []string{}
		for _, s := range students {
			if id := ids[s]; id != "" {
				out = append(out, id)
			}
		}
		return out
	}
	as := Plan{Seats: Seats{Rows: p.Seats.Rows, Columns: p.Seats.Columns}}
	for _, set := range p.Sets {
		groups := [][]string{}
		for _, g := range set.Groups {
			groups = append(groups, named(g))
		}
		as.Sets = append(as.Sets, Set{set.ID, set.Name, groups})
	}
	for _, pair := range p.Apart {
		if a, b := ids[pair[0]], ids[pair[1]]; a != "" && b != "" {
			as.Apart = append(as.Apart, Pair{a, b})
		}
	}
	for _, s := range p.Seats.At {
		as.Seats.At = append(as.Seats.At, ids[s])
	}
	return as
}

// Without gives a plan without a student, whose seat stays free.
func (p Plan) Without(student string) Plan {
	is := func(s string) bool { return s == student }
	out := Plan{Sets: []Set{}, Apart: []Pair{}, Seats: Seats{p.Seats.Rows, p.Seats.Columns, slices.Clone(p.Seats.At)}}
	for _, set := range p.Sets {
		groups := [][]string{}
		for _, g := range set.Groups {
			groups = append(groups, slices.DeleteFunc(slices.Clone(g), is))
		}
		out.Sets = append(out.Sets, Set{set.ID, set.Name, groups})
	}
	for _, pair := range p.Apart {
		if !slices.ContainsFunc(pair[:], is) {
			out.Apart = append(out.Apart, pair)
		}
	}
	for i, s := range out.Seats.At {
		if is(s) {
			out.Seats.At[i] = ""
		}
	}
	return out.Sound()
}

// Of says what a plan notes about a student: the groups that have them, where they sit
// (row and place from 1; nil for nowhere), and with how many they should not be together.
func (p Plan) Of(student string) (groups []string, seat []int, apart int) {
	for _, set := range p.Sets {
		for i, g := range set.Groups {
			if slices.Contains(g, student) {
				groups = append(groups, set.Name+" "+strconv.Itoa(i+1))
			}
		}
	}
	if at := slices.Index(p.Seats.At, student); at >= 0 && p.Seats.Columns > 0 {
		seat = []int{at/p.Seats.Columns + 1, at%p.Seats.Columns + 1}
	}
	for _, pair := range p.Apart {
		if slices.Contains(pair[:], student) {
			apart++
		}
	}
	return groups, seat, apart
}

// Check gives a plan as it is kept for a class with these students. Those who are not
// in it are left out: they may have left meanwhile.
func (p Plan) Check(students []string) (Plan, error) {
	switch {
	case len(p.Sets) > MaxSets || len(p.Apart) > MaxApart:
		return p, refusal.New(refusal.TooMany)
	case p.Seats.Rows < 0 || p.Seats.Rows > MaxSeatRows || p.Seats.Columns < 0 || p.Seats.Columns > MaxSeatCols ||
		len(p.Seats.At) != p.Seats.Rows*p.Seats.Columns:
		return p, refusal.About(refusal.Malformed, "seats")
	}
	kept := Plan{Sets: []Set{}, Apart: []Pair{}, Seats: Seats{p.Seats.Rows, p.Seats.Columns, []string{}}}
	ids := map[string]bool{}
	for _, set := range p.Sets {
		name, err := lesson.ReadCalled(set.Name, MaxName)
		if err != nil {
			return p, err
		}
		if set.ID == "" || len(set.ID) > MaxName || ids[set.ID] || len(set.Groups) > MaxGroups {
			return p, refusal.About(refusal.Malformed, "groups")
		}
		ids[set.ID] = true
		kept.Sets = append(kept.Sets, Set{set.ID, name, once(set.Groups, students)})
	}
	for _, pair := range p.Apart {
		if pair[0] == pair[1] {
			return p, refusal.About(refusal.Malformed, "not together")
		}
		turned := Pair{pair[1], pair[0]}
		if slices.Contains(students, pair[0]) && slices.Contains(students, pair[1]) &&
			!slices.Contains(kept.Apart, pair) && !slices.Contains(kept.Apart, turned) {
			kept.Apart = append(kept.Apart, pair)
		}
	}
	sits := once([][]string{p.Seats.At}, students)[0]
	for _, s := range p.Seats.At {
		if !slices.Contains(sits, s) {
			s = ""
		} else {
			sits = slices.DeleteFunc(sits, func(o string) bool { return o == s })
		}
		kept.Seats.At = append(kept.Seats.At, s)
	}
	return kept, nil
}

// once gives groups in which each of the students stands once at most, and nobody else.
func once(groups [][]string, students []string) [][]string {
	kept, seen := [][]string{}, map[string]bool{}
	for _, g := range groups {
		in := []string{}
		for _, s := range g {
			if !seen[s] && slices.Contains(students, s) {
				seen[s] = true
				in = append(in, s)
			}
		}
		kept = append(kept, in)
	}
	return kept
}

// Seated lists those who have a seat, row by row, every other row from the right: so
// that who comes next sits beside.
func (s Seats) Seated() []string {
	seated := []string{}
	for row := range s.Rows {
		line := slices.Clone(s.At[row*s.Columns : (row+1)*s.Columns])
		if row%2 == 1 {
			slices.Reverse(line)
		}
		for _, student := range line {
			if student != "" {
				seated = append(seated, student)
			}
		}
	}
	return seated
}

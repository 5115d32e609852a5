// Package pairs answers: who talks with whom, so that neighbours who answered differently
// come together, as many as can be?
package pairs

import (
	"cmp"
	"slices"
)

// Class is who is here, and what is known of them.
type Class struct {
	Students []Student
	// Near says whether two sit near enough to talk, by their ids; nil where anybody may.
	Near func(a, b string) bool
	// Apart are those who are not to be together, Before those who have talked already.
	Apart, Before [][2]string
}

// Student is one student with what they answered; who did so in the same way has the same
// answer, who did not answer none.
type Student struct {
	ID     string
	Answer string
}

// Pairing is who talks with whom: pairs, some threes for those left over, and those for
// whom there is nobody.
type Pairing struct {
	Groups [][]string `json:"groups"`
	Alone  []string   `json:"alone"`
}

// Make pairs students who are near each other and answered differently: as many pairs as
// there can be (a maximum matching by Edmonds' blossoms; Edmonds 1965, Can J Math
// 17:449-467). Those who have talked before are paired only where there would be fewer
// pairs without. Who is left over is paired with somebody near who answered alike, or
// makes a pair a three.
func Make(c Class) Pairing {
	students := slices.SortedFunc(slices.Values(c.Students), func(a, b Student) int { return cmp.Compare(a.ID, b.ID) })
	n := len(students)
	apart, before := known(c.Apart), known(c.Before)
	may := func(i, j int) bool {
		a, b := students[i].ID, students[j].ID
		return i != j && !apart[[2]string{a, b}]
	}
	near := func(i, j int) bool {
		return may(i, j) &&
			(c.Near == nil || c.Near(students[i].ID, students[j].ID) || c.Near(students[j].ID, students[i].ID))
	}
	differ := func(i, j int) bool {
		a, b := students[i].Answer, students[j].Answer
		return near(i, j) && a != b && a != "" && b != ""
	}
	fresh := func(i, j int) bool { return !before[[2]string{students[i].ID, students[j].ID}] }
	m := newMatching(n)
	// First those who differ and have not talked yet, then all who differ, then any who
	// are near; what is matched once stays matched, though perhaps with another.
	for _, edge := range []func(i, j int) bool{
		func(i, j int) bool { return differ(i, j) && fresh(i, j) }, differ,
	} {
		m.grow(edge)
	}
	m.rest(func(i, j int) bool { return near(i, j) && fresh(i, j) })
	m.rest(near)
	groups := map[int][]int{}
	var left []int
	for i, with := range m.mate {
		switch {
		case with < 0:
			left = append(left, i)
		case i < with:
			groups[i] = []int{i, with}
		}
	}
	p := Pairing{Groups: [][]string{}, Alone: []string{}}
	for _, i := range left {
		if at, found := three(groups, i, may, near, differ); found {
			groups[at] = append(groups[at], i)
		} else {
			p.Alone = append(p.Alone, students[i].ID)
		}
	}
	for i := range n {
		if g := groups[i]; g != nil {
			var ids []string
			for _, one := range g {
				ids = append(ids, students[one].ID)
			}
			p.Groups = append(p.Groups, ids)
		}
	}
	return p
}

// three finds a pair that somebody joins: near one of them and apart from neither, best one
// of whom answered differently. They are looked through in order.
func three(groups map[int][]int, i int, may, near, differ func(i, j int) bool) (int, bool) {
	best, found := -1, false
	for at := range groups {
		g := groups[at]
		if len(g) != 2 || !may(i, g[0]) || !may(i, g[1]) || !near(i, g[0]) && !near(i, g[1]) {
			continue
		}
		good := differ(i, g[0]) || differ(i, g[1])
		goodBest := found && (differ(i, groups[best][0]) || differ(i, groups[best][1]))
		if !found || good && !goodBest || good == goodBest && at < best {
			best, found = at, true
		}
	}
	return best, found
}

func known(pairs [][2]string) map[[2]string]bool {
	all := map[[2]string]bool{}
	for _, p := range pairs {
		all[p], all[[2]string{p[1], p[0]}] = true, true
	}
	return all
}

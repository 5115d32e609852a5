package roster

import "slices"

// Sizes of groups, in students.
const (
	MinGroup     = 2
	MaxGroup     = 12
	DefaultGroup = 4
)

// Divide makes groups by chance: as few as keep each at the size or below,
// whose sizes differ by one at most. random(n) gives a number in 0..n-1. It
// panics on a size below 1.
func Divide(students []string, size int, random func(n int) int) [][]string {
	mixed := Shuffled(students, random)
	groups := make([][]string, groupsOf(len(mixed), size))
	for i, s := range mixed {
		at := i % len(groups)
		groups[at] = append(groups[at], s)
	}
	return groups
}

// Shuffled gives students in an order by chance: random(n) gives a number in 0..n-1.
func Shuffled(students []string, random func(n int) int) []string {
	mixed := slices.Clone(students)
	for i := len(mixed) - 1; i > 0; i-- {
		j := random(i + 1)
		mixed[i], mixed[j] = mixed[j], mixed[i]
	}
	return mixed
}

func groupsOf(students, size int) int { return (students + size - 1) / size }

// Neighbours makes groups, as many and as large as Divide does, of those who stand
// beside each other in the order given.
func Neighbours(students []string, size int) [][]string {
	groups := make([][]string, groupsOf(len(students), size))
	for i := range groups {
		from, to := i*len(students)/len(groups), (i+1)*len(students)/len(groups)
		groups[i] = slices.Clone(students[from:to])
	}
	return groups
}

// KeepApart swaps students between groups until no pair that should not be together
// is, or no swap makes it better: then as few pairs are together as it found. Sizes
// stay as they are.
func KeepApart(groups [][]string, apart []Pair) {
	if len(apart) == 0 {
		return
	}
	foes := map[string][]string{}
	for _, p := range apart {
		foes[p[0]], foes[p[1]] = append(foes[p[0]], p[1]), append(foes[p[1]], p[0])
	}
	// with counts those of a group, but for one, whom a student should not be with.
	with := func(student string, group []string, but string) int {
		n := 0
		for _, f := range foes[student] {
			if f != but && slices.Contains(group, f) {
				n++
			}
		}
		return n
	}
	// Each swap makes fewer pairs, so that this ends.
	for better := true; better; {
		better = false
		for i := range groups {
			for x := range groups[i] {
				better = swapAway(groups, i, x, with) || better
			}
		}
	}
}

// swapAway swaps one student with the one in another group where that leaves the
// fewest pairs together, if it leaves fewer than now.
func swapAway(groups [][]string, i, x int, with func(student string, group []string, but string) int) bool {
	a := groups[i][x]
	if with(a, groups[i], "") == 0 {
		return false
	}
	most, other, at := 0, 0, 0
	for j := range groups {
		if j == i {
			continue
		}
		for y, b := range groups[j] {
			now := with(a, groups[i], "") + with(b, groups[j], "")
			then := with(a, groups[j], b) + with(b, groups[i], a)
			if now-then > most {
				most, other, at = now-then, j, y
			}
		}
	}
	if most == 0 {
		return false
	}
	groups[i][x], groups[other][at] = groups[other][at], a
	return true
}

// Place gives the number, from 0, of the group for one who comes late: the
// smallest that has room at the size, or else a new one.
func Place(groups [][]string, size int) int {
	best := len(groups)
	for i, g := range groups {
		if len(g) < size && (best == len(groups) || len(g) < len(groups[best])) {
			best = i
		}
	}
	return best
}

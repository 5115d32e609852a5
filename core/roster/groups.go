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
	mixed := slices.Clone(students)
	for i := len(mixed) - 1; i > 0; i-- {
		j := random(i + 1)
		mixed[i], mixed[j] = mixed[j], mixed[i]
	}
	groups := make([][]string, (len(mixed)+size-1)/size)
	for i, s := range mixed {
		at := i % len(groups)
		groups[at] = append(groups[at], s)
	}
	return groups
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

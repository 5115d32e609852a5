package session

import (
	"cmp"
	"maps"
	"slices"

	"alpenglow/core/roster"
)

// byAnswers divides students by what they said: like ones together, or as mixed as can be. Who
// said what nobody else did is with others of whom that is true; who has said nothing counts as
// having said the same. The order of who said the same is chance.
func byAnswers(students []string, said map[string]string, like bool, size int, random func(n int) int) [][]string {
	of := map[string][]string{}
	for _, id := range roster.Shuffled(students, random) {
		of[said[id]] = append(of[said[id]], id)
	}
	keys := slices.SortedFunc(maps.Keys(of), func(a, b string) int {
		return cmp.Or(cmp.Compare(len(of[b]), len(of[a])), cmp.Compare(a, b))
	})
	var groups [][]string
	var rest []string
	for _, key := range keys {
		if like && len(of[key]) >= roster.MinGroup {
			groups = append(groups, roster.Neighbours(of[key], size)...)
		} else {
			rest = append(rest, of[key]...)
		}
	}
	if like {
		return append(groups, roster.Neighbours(rest, size)...)
	}
	// Dealt one by one, those who said the same come into different groups as far as there are groups.
	groups = make([][]string, (len(rest)+size-1)/size)
	for i, id := range rest {
		groups[i%len(groups)] = append(groups[i%len(groups)], id)
	}
	return groups
}

package roster

import (
	"slices"
	"strings"
	"unicode/utf8"
)

// Listed is a student of a class list, by the name that tells them apart in it.
type Listed struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// ToldApart gives each of the names of a list, or the same with a number where it
// could be taken for one before: of two called Noor the second is "Noor 2".
func ToldApart(names []string) []string {
	apart := make([]string, 0, len(names))
	there := newTaken(len(names))
	for _, name := range names {
		apart = append(apart, there.apart(name))
	}
	return apart
}

// Find gives the student of a list whom somebody means who types this name, in
// whatever case; false where it is nobody's.
func Find(list []Listed, typed string) (Listed, bool) {
	at := slices.IndexFunc(list, func(l Listed) bool { return strings.EqualFold(l.Name, typed) })
	if at < 0 {
		return Listed{}, false
	}
	return list[at], true
}

// Likely gives those of a list whom a typed name may mean, the likeliest first: by
// the share of letters that would have to be changed, in the whole name or in one
// part of it. Nobody is given of whose name more than half is different.
func Likely(list []Listed, typed string) []Listed {
	typed = strings.ToLower(typed)
	type guess struct {
		Listed
		off float64
	}
	var guesses []guess
	for _, l := range list {
		name := strings.ToLower(l.Name)
		off := apartBy(typed, name)
		for _, part := range strings.Fields(name) {
			off = min(off, apartBy(typed, part)+partly)
		}
		for _, part := range strings.Fields(typed) {
			off = min(off, apartBy(part, name)+partly)
		}
		if off <= 0.5 {
			guesses = append(guesses, guess{l, off})
		}
	}
	slices.SortStableFunc(guesses, func(a, b guess) int {
		switch {
		case a.off < b.off:
			return -1
		case a.off > b.off:
			return 1
		}
		return 0
	})
	likely := []Listed{}
	for _, g := range guesses {
		likely = append(likely, g.Listed)
	}
	return likely
}

// partly is by how much a part of a name that fits stands behind a whole one.
const partly = 0.1

// apartBy gives the distance of two words as a share of the longer one.
func apartBy(a, b string) float64 {
	longer := max(utf8.RuneCountInString(a), utf8.RuneCountInString(b))
	if longer == 0 {
		return 0
	}
	return float64(Distance(a, b)) / float64(longer)
}

// Distance is the optimal string alignment distance: how many letters have to be put
// in, left out, replaced, or swapped with their neighbour, none of them twice, to
// make one word of the other (Boytsov 2011, "Indexing methods for approximate
// dictionary searching", restricted Damerau-Levenshtein; CA and ABC are 3 apart).
func Distance(a, b string) int {
	x, y := []rune(a), []rune(b)
	before, last, row := make([]int, len(y)+1), make([]int, len(y)+1), make([]int, len(y)+1)
	for j := range row {
		row[j] = j
	}
	for i := 1; i <= len(x); i++ {
		before, last, row = last, row, before
		row[0] = i
		for j := 1; j <= len(y); j++ {
			cost := 1
			if x[i-1] == y[j-1] {
				cost = 0
			}
			row[j] = min(last[j]+1, row[j-1]+1, last[j-1]+cost)
			if i > 1 && j > 1 && x[i-1] == y[j-2] && x[i-2] == y[j-1] {
				row[j] = min(row[j], before[j-2]+1)
			}
		}
	}
	return row[len(y)]
}

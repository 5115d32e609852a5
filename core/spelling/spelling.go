// Package spelling answers: do two texts say the same, but for how they are written, and
// how far apart are they?
package spelling

import (
	"strings"
	"unicode"

	"github.com/rivo/uniseg"
	"golang.org/x/text/cases"
	"golang.org/x/text/unicode/norm"
)

// Fold writes a text so that only what it says is left: without case, without what
// Unicode holds for the same sign (NFKC), without soft hyphens and signs of no width,
// with single spaces, and without signs of punctuation at its ends.
func Fold(text string) string {
	folded := norm.NFKC.String(cases.Fold().String(norm.NFKC.String(Plain(text))))
	folded = strings.Join(strings.Fields(strings.Map(cherokee, folded)), " ")
	if bare := strings.TrimFunc(folded, isEnd); bare != "" {
		return bare
	}
	return folded
}

// cherokee: its letters fold to capitals, which the library turns around.
func cherokee(r rune) rune {
	if unicode.Is(unicode.Cherokee, r) {
		return unicode.ToUpper(r)
	}
	return r
}

// Plain gives a text without signs that cannot be seen, with single spaces.
func Plain(text string) string {
	seen := strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Cf, r) || r == '\u034f' || r == '\u115f' || r == '\u1160' || r == '\u3164' {
			return -1
		}
		return r
	}, text)
	return strings.Join(strings.Fields(seen), " ")
}

func isEnd(r rune) bool { return unicode.IsPunct(r) || unicode.IsSpace(r) }

// Distance counts the slips between two texts: a letter too many, one missing, another
// one, or two neighbours in each other's places, where no letter is touched twice
// (optimal string alignment). Letters are what people see as one.
func Distance(a, b string) int {
	x, y := letters(a), letters(b)
	return slips(x, y, max(len(x), len(y)))
}

// slips counts them up to a bound; of more it gives the bound and one. Only what lies so near
// the diagonal that it may be within the bound is looked at.
func slips(x, y []string, most int) int {
	if max(len(x)-len(y), len(y)-len(x)) > most {
		return most + 1
	}
	before2, before, now := make([]int, len(y)+1), make([]int, len(y)+1), make([]int, len(y)+1)
	for j := range before {
		before[j] = min(j, most+1)
	}
	for i := 1; i <= len(x); i++ {
		from, to := max(1, i-most), min(len(y), i+most)
		// Beside what is looked at stand no counts of other rows.
		now[from-1] = most + 1
		if from == 1 {
			now[0] = min(i, most+1)
		}
		if to < len(y) {
			now[to+1] = most + 1
		}
		for j := from; j <= to; j++ {
			other := 1
			if x[i-1] == y[j-1] {
				other = 0
			}
			n := min(before[j]+1, now[j-1]+1, before[j-1]+other)
			if i > 1 && j > 1 && x[i-1] == y[j-2] && x[i-2] == y[j-1] {
				n = min(n, before2[j-2]+1)
			}
			now[j] = min(n, most+1)
		}
		before2, before, now = before, now, before2
	}
	return before[len(y)]
}

func letters(text string) []string {
	var all []string
	for g := uniseg.NewGraphemes(text); g.Next(); {
		all = append(all, g.Str())
	}
	return all
}

// Text is a text that is compared with others: as it is read, and its letters.
type Text struct {
	read    string
	letters []string
}

// Read prepares a text for comparing; with case if that matters.
func Read(text string, withCase bool) Text {
	read := Fold(text)
	if withCase {
		read = norm.NFKC.String(Plain(text))
	}
	return Text{read, letters(read)}
}

// Accepts says whether another text is this one, with at most so many slips. Of a short word
// fewer slips are forgiven, so that no more than every third letter may be wrong.
func (t Text) Accepts(other Text, most int) bool {
	if t.read == "" || t.read == other.read {
		return t.read != ""
	}
	may := min(most, len(t.letters)/3)
	return may > 0 && slips(other.letters, t.letters, may) <= may
}

// Accepted says whether a text is one of some others, with at most so many slips.
func Accepted(text string, among []string, most int, withCase bool) bool {
	given := Read(text, withCase)
	for _, right := range among {
		if Read(right, withCase).Accepts(given, most) {
			return true
		}
	}
	return false
}

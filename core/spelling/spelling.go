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
	rows := make([][]int, len(x)+1)
	for i := range rows {
		rows[i] = make([]int, len(y)+1)
		rows[i][0] = i
	}
	for j := range rows[0] {
		rows[0][j] = j
	}
	for i := 1; i <= len(x); i++ {
		for j := 1; j <= len(y); j++ {
			other := 1
			if x[i-1] == y[j-1] {
				other = 0
			}
			rows[i][j] = min(rows[i-1][j]+1, rows[i][j-1]+1, rows[i-1][j-1]+other)
			if i > 1 && j > 1 && x[i-1] == y[j-2] && x[i-2] == y[j-1] {
				rows[i][j] = min(rows[i][j], rows[i-2][j-2]+1)
			}
		}
	}
	return rows[len(x)][len(y)]
}

func letters(text string) []string {
	var all []string
	for g := uniseg.NewGraphemes(text); g.Next(); {
		all = append(all, g.Str())
	}
	return all
}

// Accepted says whether a text is one of some others, with at most so many slips; with
// case if that matters. Of a short word fewer slips are forgiven, so that no more than
// every third letter may be wrong.
func Accepted(text string, among []string, slips int, withCase bool) bool {
	for _, right := range among {
		a, b := Fold(text), Fold(right)
		if withCase {
			a, b = norm.NFKC.String(Plain(text)), norm.NFKC.String(Plain(right))
		}
		if b == "" {
			continue
		}
		n, m := len(letters(a)), len(letters(b))
		may := min(slips, m/3)
		if max(n-m, m-n) <= may && Distance(a, b) <= may {
			return true
		}
	}
	return false
}

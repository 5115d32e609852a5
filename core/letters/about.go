package letters

import (
	"strings"
	"sync"
	"unicode"
)

// About is about how many lines words take in a width, for where hundreds are
// asked at once: by the widths of single letters, which are neither joined nor
// drawn together. It costs some nanoseconds a letter, whatever the writing.
func About(text string, width float64, s Style) int {
	lines, line, word := 1, 0.0, 0.0
	size := s.Size * (1 + bolder*float64(s.Weight-Regular)/(Bold-Regular))
	settle := func() {
		if line > 0 && line+word > width {
			lines, line = lines+1, 0
		}
		line, word = line+word, 0
	}
	for _, r := range strings.TrimSuffix(text, "\n") {
		w := single(r) * size
		switch {
		case r == '\n':
			settle()
			lines, line = lines+1, 0
		case r == ' ' || r == '\t':
			settle()
			line += w
		case word+w > width && word > 0:
			settle()
			lines, line, word = lines+1, 0, w
		case r >= firstIdeograph:
			word += w
			settle()
		default:
			word += w
		}
	}
	settle()
	return lines
}

// How much wider bold letters are, and how wide Arabic ones are in a word beside
// the same ones alone: read off the fonts that ship.
const (
	bolder = 0.07
	joined = 0.8
)

// firstIdeograph is from where on letters are mostly ideographs, or pictures, and
// lines break anywhere.
const firstIdeograph = 0x2E80

// single is the width of a letter by itself, in letter sizes.
func single(r rune) float64 {
	if r < firstIdeograph {
		return float64(singles()[r])
	}
	return ownWidth(r)
}

var singles = sync.OnceValue(func() []float32 {
	wide := make([]float32, firstIdeograph)
	for r := range rune(firstIdeograph) {
		wide[r] = float32(ownWidth(r))
		for _, f := range fonts() {
			if g, ok := f.NominalGlyph(r); ok && !unicode.Is(unicode.M, r) {
				if wide[r] = plain(f, g); unicode.Is(unicode.Arabic, r) {
					wide[r] *= joined
				}
				break
			}
		}
	}
	return wide
})

// Package letters knows how wide words are in the fonts that ship, where their
// lines break, how many there are, and what their letters look like.
//
// The browser shows words in the same fonts and by the same rules, so that both
// come to the same lines. For letters of no shipped font (Chinese, pictures of
// faces), which every device shows in its own, the usual widths are taken.
package letters

import (
	"math"
	"strings"
	"sync"
	"unicode"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/harfbuzz"
	"github.com/go-text/typesetting/language"
	"github.com/go-text/typesetting/segmenter"
	"golang.org/x/text/width"
)

// The weights of letters that are used.
const (
	Regular  = 400
	SemiBold = 600
	Heading  = 650
	Bold     = 700
)

// Style is how letters are set. Size is the height of a letter (em) in units;
// lines are as wide as many units say. Display is the letters of headings, which
// stand a little closer; Tabular gives all digits one width.
type Style struct {
	Size    float64
	Weight  int
	Display bool
	Tabular bool
}

// closer is by how much letters of headings stand closer, in letter sizes (styles.css).
const closer = 0.01

// Widths in letter sizes of what no shipped font has: an ideograph is as wide as
// high (common practice of such fonts), a picture of a face as wide as in
// Debian's fonts-noto-color-emoji (read from the font: 2550 of 2048 units).
const (
	wideLetter  = 1.0
	face        = 2550.0 / 2048
	otherLetter = 0.6
)

// tabStop is how many blanks lie between two tab stops (CSS Text 3, tab-size).
const tabStop = 8

// Lines breaks words into lines of at most a width. A line ends at a line feed,
// or where Unicode allows a break (UAX 14); a word longer than a line is broken
// between letters. Blanks at the end of a line hang over its edge, as CSS has
// it with white-space: pre-wrap.
func Lines(text string, width float64, s Style) []string {
	setter := setters.Get().(*setter)
	var lines []string
	for paragraph := range strings.SplitSeq(text, "\n") {
		lines = setter.breakUp(lines, []rune(paragraph), width, s)
	}
	setters.Put(setter) // not after a panic
	return lines
}

// Width is how wide words are that stand on one line.
func Width(text string, s Style) float64 {
	setter := setters.Get().(*setter)
	total := 0.0
	for _, w := range setter.advances([]rune(text), s) {
		total += w
	}
	setters.Put(setter)
	return total
}

// setter sets letters. Fonts at work are not safe for many at once.
type setter struct {
	buffer *harfbuzz.Buffer
	fonts  map[Style][]*harfbuzz.Font // by style without its size, in the order in which they are asked
	own    []*harfbuzz.Font
	parts  segmenter.Segmenter
}

var setters = sync.Pool{New: func() any {
	return &setter{buffer: harfbuzz.NewBuffer(), fonts: map[Style][]*harfbuzz.Font{}}
}}

func (t *setter) fontsOf(s Style) []*harfbuzz.Font {
	s.Size = 0
	if set, ok := t.fonts[s]; ok {
		return set
	}
	from := fonts()
	if s.Display {
		from = displayFonts()
	}
	set := atWeight(from, s.Weight)
	t.fonts[s] = set
	return set
}

func atWeight(from []*font.Font, weight int) []*harfbuzz.Font {
	set := make([]*harfbuzz.Font, len(from))
	for i, f := range from {
		face := font.NewFace(f)
		face.SetVariations([]font.Variation{{Tag: opentype.MustNewTag("wght"), Value: float32(weight)}})
		set[i] = harfbuzz.NewFont(face)
	}
	return set
}

// breakUp appends the lines of a paragraph.
func (t *setter) breakUp(lines []string, paragraph []rune, width float64, s Style) []string {
	if len(paragraph) == 0 {
		return append(lines, "")
	}
	wide := t.advances(paragraph, s)
	t.parts.Init(paragraph)
	may, whole := t.breaks(paragraph), t.letters(paragraph)
	start, used := 0, 0.0
	end := func(at int) {
		lines = append(lines, string(paragraph[start:at]))
		start, used = at, 0
	}
	for from, to := 0, 1; to <= len(paragraph); to++ {
		if !may[to] && to < len(paragraph) {
			continue
		}
		full, bare := 0.0, 0.0 // with and without the blanks at its end
		for i := from; i < to; i++ {
			if full += wide[i]; !hangs(paragraph[i]) {
				bare = full
			}
		}
		if used+bare > width+slack && start < from {
			end(from)
		}
		if used+bare <= width+slack {
			used += full
			from = to
			continue
		}
		for i, letter := from, from; i < to; i++ {
			used += wide[i]
			if used > width+slack && letter > start && !hangs(paragraph[i]) {
				end(letter)
				for _, w := range wide[letter : i+1] {
					used += w
				}
			}
			if whole[i+1] {
				letter = i + 1
			}
		}
		from = to
	}
	return append(lines, string(paragraph[start:]))
}

// letters reports where a letter, as people count them, ends.
func (t *setter) letters(paragraph []rune) []bool {
	ends := make([]bool, len(paragraph)+1)
	all := t.parts.GraphemeIterator()
	for all.Next() {
		g := all.Grapheme()
		ends[g.Offset+len(g.Text)] = true
	}
	return ends
}

// hangs reports what may stand over the edge at the end of a line.
func hangs(r rune) bool { return r == ' ' || r == '\t' }

// slack is what a line may be too long without being broken: browsers count in
// 64ths.
const slack = 1.0 / 64

// advances gives the width of each rune; that of letters that join to one
// stands at the first of them.
func (t *setter) advances(text []rune, s Style) []float64 {
	set := t.fontsOf(s)
	wide := make([]float64, len(text))
	for _, r := range runs(text, set) {
		if r.font == nil {
			t.ownWidths(text[r.from:r.to], wide[r.from:r.to], s.Size)
			continue
		}
		t.shape(r, text, s)
		for i, g := range t.buffer.Info {
			wide[g.Cluster] += float64(t.buffer.Pos[i].XAdvance) * s.Size / float64(r.font.XScale)
		}
	}
	if s.Display {
		for i := range wide {
			if wide[i] > 0 {
				wide[i] -= closer * s.Size
			}
		}
	}
	tabs(text, wide, blank(set[0])*s.Size)
	return wide
}

// run is letters of one font and writing; without a font, the device shows them in one of its own.
type run struct {
	font     *harfbuzz.Font
	script   language.Script
	from, to int
}

// leftwards reports whether the writing runs from right to left.
func (r run) leftwards() bool { return r.script == language.Arabic || r.script == language.Hebrew }

// runs parts a text by font and writing.
func runs(text []rune, set []*harfbuzz.Font) []run {
	var all []run
	var had *harfbuzz.Font
	script, from := language.Common, 0
	flush := func(to int) {
		of := script
		if had == set[0] {
			of = language.Latin // blanks and signs between the words of any writing
		}
		if from < to {
			all = append(all, run{had, of, from, to})
		}
		from = to
	}
	for i, r := range text {
		f, of := fontFor(set, r, had), language.LookupScript(r)
		if of == language.Common || of == language.Inherited {
			of = script
		}
		if f != had || of != script && script != language.Common {
			flush(i)
		}
		had, script = f, of
	}
	flush(len(text))
	return all
}

// shape leaves the glyphs of a run in the buffer, from left to right.
func (t *setter) shape(r run, text []rune, s Style) {
	t.buffer.Clear()
	t.buffer.AddRunes(text, r.from, r.to-r.from)
	t.buffer.Props = harfbuzz.SegmentProperties{Direction: harfbuzz.LeftToRight, Script: r.script}
	if r.leftwards() {
		t.buffer.Props.Direction = harfbuzz.RightToLeft
	}
	var features []harfbuzz.Feature
	if s.Tabular {
		features = []harfbuzz.Feature{{Tag: opentype.MustNewTag("tnum"), Value: 1, End: harfbuzz.FeatureGlobalEnd}}
	}
	t.buffer.Shape(r.font, features)
}

// tabs moves what follows a tab to the next stop.
func tabs(text []rune, wide []float64, blank float64) {
	stop, at := tabStop*blank, 0.0
	for i, r := range text {
		if r == '\t' {
			wide[i] = stop*(1+math.Floor(at/stop)) - at
		}
		at += wide[i]
	}
}

func blank(f *harfbuzz.Font) float64 {
	g, _ := f.Face().NominalGlyph(' ')
	return float64(f.Face().HorizontalAdvance(g)) / float64(f.Face().Upem())
}

// fontFor gives the first font that has a letter; marks and joiners stay with
// the letter before them where its font has them. Nil where none has it.
func fontFor(set []*harfbuzz.Font, r rune, before *harfbuzz.Font) *harfbuzz.Font {
	joins := unicode.Is(unicode.M, r) || r == '\u200d' || r == '\u200c'
	if joins && before == nil {
		return nil
	}
	if joins {
		if _, ok := before.Face().NominalGlyph(r); ok {
			return before
		}
	}
	for _, f := range set {
		if _, ok := f.Face().NominalGlyph(r); ok {
			return f
		}
	}
	return nil
}

// ownWidths gives the widths of letters that the device shows in a font of its own.
func (t *setter) ownWidths(text []rune, wide []float64, size float64) {
	joined := false
	for i, r := range text {
		second := isFlag(r) && i > 0 && isFlag(text[i-1]) && wide[i-1] > 0
		if !joined && !second {
			wide[i] = ownWidth(r) * size
		}
		joined = r == '\u200d' // joins pictures to one
	}
}

// ownWidth is the width of such a letter, in letter sizes.
func ownWidth(r rune) float64 {
	switch {
	case unicode.Is(unicode.M, r), unicode.Is(unicode.Cf, r), isSkin(r):
		return 0
	case isPicture(r):
		return face
	case isWide(r):
		return wideLetter
	}
	return otherLetter
}

func isWide(r rune) bool {
	k := width.LookupRune(r).Kind()
	return k == width.EastAsianWide || k == width.EastAsianFullwidth
}

// isFlag reports a regional indicator: two of them are one flag.
func isFlag(r rune) bool { return r >= 0x1F1E6 && r <= 0x1F1FF }

// isSkin reports what changes the skin of the picture before it.
func isSkin(r rune) bool { return r >= 0x1F3FB && r <= 0x1F3FF }

// isPicture reports the blocks of Unicode that hold pictures of things and faces.
func isPicture(r rune) bool {
	return r >= 0x1F000 && r <= 0x1FAFF || r >= 0x2600 && r <= 0x27BF || r == 0x2B50
}

package letters

import (
	"slices"
	"strings"
	"unicode"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/harfbuzz"
	"github.com/go-text/typesetting/language"
	"golang.org/x/text/unicode/bidi"
)

// Cluster is letters that stand as one, as people count them or as a font joins
// them: what they say, where they begin on their line and how wide they are, in
// units, and the glyphs that show them.
type Cluster struct {
	Text   string
	X      float64
	Wide   float64
	Glyphs []Glyph
}

// Glyph is a drawing of a font. It stands at X and Y from where its cluster
// begins on the base line, in units, Y downwards, in letters of a Size.
type Glyph struct {
	Face Face
	ID   uint32
	X, Y float64
	Size float64
}

// Leftwards reports whether a text begins at the right, by its first letter.
func Leftwards(text string) bool {
	for _, r := range text {
		switch p, _ := bidi.LookupRune(r); p.Class() {
		case bidi.L:
			return false
		case bidi.R, bidi.AL:
			return true
		}
	}
	return false
}

// Set sets the letters of one line in the order in which they are seen, from the
// left, in a text that begins at the right or at the left; and says how wide it is. What hangs over its
// end, blanks, is left out.
func Set(line string, leftwards bool, s Style) (clusters []Cluster, width float64) {
	text := []rune(strings.TrimRight(line, " \t"))
	t := setters.Get().(*setter)
	for _, part := range inSight(text, leftwards) {
		own := t.clusters(text[part.from:part.to], s)
		if part.leftwards {
			slices.Reverse(own)
		}
		for _, c := range own {
			if part.leftwards {
				slices.Reverse(c)
			}
			for _, one := range c {
				one.X = width
				clusters = append(clusters, one)
				width += one.Wide
			}
		}
	}
	setters.Put(t) // not after a panic
	return clusters, width
}

// clusters sets the letters of a part of a line that runs one way, run by run, in
// the order in which they are read.
func (t *setter) clusters(text []rune, s Style) [][]Cluster {
	var all [][]Cluster
	for _, r := range runs(text, t.fontsOf(s)) {
		if r.font == nil {
			all = append(all, t.ownClusters(text[r.from:r.to], s))
		} else {
			all = append(all, t.shaped(r, text, s))
		}
	}
	return all
}

// shaped sets a run of one font, in the order in which it is read.
func (t *setter) shaped(r run, text []rune, s Style) []Cluster {
	t.shape(r, text, s)
	at := map[int]*Cluster{}
	var starts []int
	k := s.Size / float64(r.font.XScale)
	for i, g := range t.buffer.Info {
		c := at[g.Cluster]
		if c == nil {
			c = &Cluster{}
			at[g.Cluster] = c
			starts = append(starts, g.Cluster)
		}
		pos := t.buffer.Pos[i]
		c.Glyphs = append(c.Glyphs, Glyph{faceOf(r.font, s), uint32(g.Glyph), c.Wide + float64(pos.XOffset)*k,
			-float64(pos.YOffset) * k, s.Size})
		c.Wide += float64(pos.XAdvance) * k
	}
	slices.Sort(starts)
	clusters := make([]Cluster, len(starts))
	for i, from := range starts {
		to := r.to
		if i+1 < len(starts) {
			to = starts[i+1]
		}
		clusters[i] = *at[from]
		clusters[i].Text = string(text[from:to])
		if s.Display && clusters[i].Wide > 0 {
			clusters[i].Wide -= closer * s.Size
		}
		if text[from] == '\t' {
			clusters[i].Wide, clusters[i].Glyphs = tabStop*blank(r.font)*s.Size, nil
		}
	}
	return clusters
}

// ownClusters sets letters that no font for reading has: in the widths that
// lines are broken by, each from a font that has it, or as an empty box.
func (t *setter) ownClusters(text []rune, s Style) []Cluster {
	if t.own == nil {
		t.own = atWeight(ownFonts(), s.Weight)
	}
	wide := make([]float64, len(text))
	t.ownWidths(text, wide, s.Size)
	t.parts.Init(text)
	ends := t.letters(text)
	var clusters []Cluster
	for from, to := 0, 1; to <= len(text); to++ {
		if !ends[to] {
			continue
		}
		c := Cluster{Text: string(text[from:to])}
		for _, w := range wide[from:to] {
			c.Wide += w
		}
		c.Glyphs = t.fitted(text[from:to], c.Wide, s)
		clusters = append(clusters, c)
		from = to
	}
	return clusters
}

// fitted gives the glyphs of a letter, in the middle of a width and no wider.
func (t *setter) fitted(letter []rune, wide float64, s Style) []Glyph {
	f := fontFor(t.own, letter[0], nil)
	if f == nil {
		if wide == 0 || unicode.Is(unicode.Cf, letter[0]) {
			return nil
		}
		return []Glyph{{Face{}, 0, 0, 0, s.Size}}
	}
	t.shape(run{font: f, script: language.LookupScript(letter[0]), to: len(letter)}, letter, s)
	full := 0.0
	for _, p := range t.buffer.Pos {
		full += float64(p.XAdvance) / float64(f.XScale)
	}
	if full == 0 {
		return nil
	}
	size := min(s.Size, wide/full)
	x := (wide - full*size) / 2
	var glyphs []Glyph
	for i, g := range t.buffer.Info {
		p, k := t.buffer.Pos[i], size/float64(f.XScale)
		glyphs = append(glyphs,
			Glyph{faceOf(f, s), uint32(g.Glyph), x + float64(p.XOffset)*k, -float64(p.YOffset) * k, size})
		x += float64(p.XAdvance) * k
	}
	return glyphs
}

// part is letters of a line that run one way.
type part struct {
	from, to  int
	leftwards bool
}

// inSight gives the parts of a line in the order in which they are seen from the
// left (UAX 9). Numbers after words that run leftwards belong to these.
func inSight(text []rune, leftwards bool) []part {
	if !slices.ContainsFunc(text, func(r rune) bool { return r >= 0x590 }) && !leftwards {
		return []part{{0, len(text), false}}
	}
	// The library takes the direction from the first letter: a sign before the text says it.
	const lrm, rlm = "\u200e", "\u200f"
	sign := lrm
	if leftwards {
		sign = rlm
	}
	var p bidi.Paragraph
	if _, err := p.SetString(sign + string(text)); err != nil {
		return []part{{0, len(text), leftwards}}
	}
	order, err := p.Order()
	if err != nil {
		return []part{{0, len(text), leftwards}}
	}
	var parts []part
	for i := range order.NumRuns() {
		run := order.Run(i)
		from, to := run.Pos()
		if from = max(0, from-1); from < to { // the sign goes
			parts = append(parts, part{from, to, run.Direction() == bidi.RightToLeft})
		}
	}
	if leftwards {
		slices.Reverse(parts)
		return parts
	}
	for i := 0; i < len(parts); i++ {
		end := i
		for end < len(parts) && (parts[end].leftwards || end > i && isNumber(text[parts[end].from:parts[end].to])) {
			end++
		}
		slices.Reverse(parts[i:max(i, end)])
		i = max(i, end)
	}
	return parts
}

// isNumber reports digits and what stands among them, and no letter.
func isNumber(text []rune) bool {
	return !slices.ContainsFunc(text, unicode.IsLetter) && slices.ContainsFunc(text, unicode.IsDigit)
}

// Ascent and Descent are how far the letters of a style reach above and below
// the base line, in units; both are more than 0.
func Ascent(s Style) float64  { up, _ := reach(s); return up }
func Descent(s Style) float64 { _, down := reach(s); return down }

func reach(s Style) (up, down float64) {
	first := fonts()[0]
	if s.Display {
		first = displayFonts()[0]
	}
	e, _ := font.NewFace(first).FontHExtents()
	k := s.Size / float64(first.Upem())
	return float64(e.Ascender) * k, -float64(e.Descender) * k
}

// faceOf names a font at its weight.
func faceOf(f *harfbuzz.Font, s Style) Face {
	of := f.Face().Font
	if i := slices.Index(ownFonts(), of); i >= 0 {
		return Face{Own, i, Regular}
	}
	if i := slices.Index(fonts(), of); i >= 0 {
		return Face{Reading, i, s.Weight}
	}
	return Face{Display, slices.Index(displayFonts(), of), s.Weight}
}

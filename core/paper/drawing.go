package paper

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Drawing is what is on a paper: lines from the faintest to the strongest, and
// labels on top.
type Drawing struct {
	Lines  []Line  `json:"lines"`
	Labels []Label `json:"labels"`
}

// Line is a path of an SVG, of one weight.
type Line struct {
	Weight Weight `json:"weight"`
	Path   string `json:"path"`
}

// Weight says how a line stands out.
type Weight string

// The weights: squares and other helping lines; the lines that one writes on;
// lines that guide the eye; axes and staves; filled dots.
const (
	Fine  Weight = "fine"
	Base  Weight = "base"
	Guide Weight = "guide"
	Firm  Weight = "firm"
	Dots  Weight = "dots"
)

// Weights lists the weights.
var Weights = []Weight{Fine, Base, Guide, Firm, Dots}

// Label is a word or a number with its middle at a height of Y, and at X with
// its start, middle or end.
type Label struct {
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	Size   float64 `json:"size"`
	Text   string  `json:"text"`
	Anchor Anchor  `json:"anchor"`
}

// Anchor says which part of a label stands at its X.
type Anchor string

// The anchors.
const (
	Start  Anchor = "start"
	Middle Anchor = "middle"
	End    Anchor = "end"
)

// Anchors lists the anchors.
var Anchors = []Anchor{Start, Middle, End}

// Draw computes what is on a sound paper; see Check.
func (p Paper) Draw() Drawing {
	d := drawing{}
	switch p.Kind {
	case Dotted:
		p.dots(&d)
	case Ruled:
		p.rules(&d)
	case Squared:
		p.squares(&d)
	case Handwriting:
		p.handwriting(&d)
	case Axes:
		p.axes(&d)
	case NumberLine:
		p.numberLine(&d)
	case Staff:
		p.staves(&d)
	}
	return d.done()
}

// drawing gathers paths by weight.
type drawing struct {
	paths  map[Weight]*strings.Builder
	labels []Label
}

func (d *drawing) on(w Weight) *strings.Builder {
	if d.paths == nil {
		d.paths = map[Weight]*strings.Builder{}
	}
	if d.paths[w] == nil {
		d.paths[w] = &strings.Builder{}
	}
	return d.paths[w]
}

func (d *drawing) level(w Weight, x1, x2, y float64) {
	fmt.Fprintf(d.on(w), "M%s %sH%s", short(x1), short(y), short(x2))
}

func (d *drawing) plumb(w Weight, x, y1, y2 float64) {
	fmt.Fprintf(d.on(w), "M%s %sV%s", short(x), short(y1), short(y2))
}

// arrow draws a head with its tip at a point, to the right or upwards.
func (d *drawing) arrow(x, y float64, up bool) {
	if up {
		fmt.Fprintf(d.on(Firm), "M%s %sl12 -20l12 20", short(x-12), short(y+20))
		return
	}
	fmt.Fprintf(d.on(Firm), "M%s %sl20 12l-20 12", short(x-20), short(y-12))
}

func (d *drawing) label(x, y, size float64, text string, a Anchor) {
	if text != "" {
		d.labels = append(d.labels, Label{X: x, Y: y, Size: size, Text: text, Anchor: a})
	}
}

func (d *drawing) done() Drawing {
	out := Drawing{Lines: []Line{}, Labels: d.labels}
	for _, w := range Weights {
		if d.paths[w] != nil {
			out.Lines = append(out.Lines, Line{Weight: w, Path: d.paths[w].String()})
		}
	}
	if out.Labels == nil {
		out.Labels = []Label{}
	}
	return out
}

// short writes a place to a tenth of a unit.
func short(v float64) string { return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64) }

func (p Paper) step(usual float64) float64 {
	if p.Step > 0 {
		return p.Step
	}
	return usual
}

func (p Paper) dots(d *drawing) {
	step, to := p.step(usualStep), d.on(Dots)
	for y := step / 2; y < Height; y += step {
		for x := step / 2; x < Width; x += step {
			fmt.Fprintf(to, "M%s %sa2.4 2.4 0 1 0 4.8 0a2.4 2.4 0 1 0-4.8 0", short(x-2.4), short(y))
		}
	}
}

func (p Paper) rules(d *drawing) {
	step := p.step(50)
	for y := step; y < Height; y += step {
		d.level(Base, 0, Width, y)
	}
}

// squares fills the paper; what a square stands for is drawn in the corner.
func (p Paper) squares(d *drawing) {
	step := p.step(usualStep)
	for y := step; y < Height; y += step {
		d.level(Fine, 0, Width, y)
	}
	for x := step; x < Width; x += step {
		d.plumb(Fine, x, 0, Height)
	}
	if p.Unit == "" {
		return
	}
	// On a line of the squares, one square long, near the lower right corner.
	x := step * math.Floor((Width-2*step-60)/step)
	y := step * math.Floor((Height-30)/step)
	d.level(Firm, x, x+step, y)
	d.plumb(Firm, x, y-8, y+8)
	d.plumb(Firm, x+step, y-8, y+8)
	d.label(x-14, y, 24, p.Unit, End)
}

// zones are the parts of a handwriting line over, in and under the small letters.
func (r Ruling) zones() (over, in, under float64) {
	switch r {
	case Tall:
		return 2, 3, 2
	case Low:
		return 3, 2, 3
	}
	return 1, 1, 1
}

// handwriting draws groups of four lines. The base line stands out, and so
// does the zone of the small letters by the fine lines around it.
func (p Paper) handwriting(d *drawing) {
	height := p.step(usualLine)
	over, in, under := p.Ruling.zones()
	all := over + in + under
	gap := height * 0.35
	for top := 150.0; top+height <= Height-20; top += height + gap {
		d.level(Fine, 60, Width-60, top)
		d.level(Guide, 60, Width-60, top+height*over/all)
		d.level(Base, 60, Width-60, top+height*(over+in)/all)
		d.level(Fine, 60, Width-60, top+height)
	}
}

// staves draws groups of five lines, two staves apart from each other.
func (p Paper) staves(d *drawing) {
	height := p.step(usualStaff)
	for top := 180.0; top+height <= Height-60; top += 2 * height {
		for i := range 5 {
			d.level(Firm, 60, Width-60, top+height*float64(i)/4)
		}
		d.plumb(Firm, 60, top, top+height)
		d.plumb(Firm, Width-60, top, top+height)
	}
}

// Package paper answers: what is the ground of a frame, and which lines and
// labels are on it?
//
// A paper is computed once, here, as paths in frame units, so that it is crisp
// at any zoom and the same on every screen and in every export.
package paper

import (
	"encoding/json"
	"math"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"alpenglow/core/id"
	"alpenglow/core/refusal"
)

// The size of the ground, in frame units.
const (
	Width  = 1600
	Height = 1000
)

// Kind tells papers apart.
type Kind string

// The papers. Handwriting has groups of four lines, axes a coordinate plane,
// staff groups of five lines for music, picture a picture or a page that fills
// the frame as far as its proportions let it.
const (
	Plain       Kind = "plain"
	Dotted      Kind = "dotted"
	Ruled       Kind = "ruled"
	Squared     Kind = "squared"
	Handwriting Kind = "handwriting"
	Axes        Kind = "axes"
	NumberLine  Kind = "number-line"
	Staff       Kind = "staff"
	Picture     Kind = "picture"
)

// Kinds lists the papers.
var Kinds = []Kind{Plain, Dotted, Ruled, Squared, Handwriting, Axes, NumberLine, Staff, Picture}

// Ruling is the proportion of the three zones of a handwriting line: over, in
// and under the small letters.
type Ruling string

// Even zones (1:1:1), for the first years; tall small letters (2:3:2); and
// low ones (3:2:3), for hands that are sure already. Common practice.
const (
	Even Ruling = "even"
	Tall Ruling = "tall"
	Low  Ruling = "low"
)

// Rulings lists the rulings.
var Rulings = []Ruling{Even, Tall, Low}

// Paper is a ground with its settings. Those that its kind does not use are
// kept, so that going back to another kind loses nothing.
type Paper struct {
	Kind Kind `json:"kind"`
	// Dark turns it into a school board.
	Dark bool `json:"dark,omitempty"`
	// Step is the distance of its rules, dots or squares, the height of one
	// whole handwriting line, or the height of a staff, in frame units; 0 for
	// the usual one.
	Step float64 `json:"step,omitempty"`
	// Unit is what the side of one square stands for, such as "1 cm".
	Unit   string `json:"unit,omitempty"`
	Ruling Ruling `json:"ruling,omitempty"`
	// X and Y are the axes of a plane; a number line has X alone.
	X *Axis `json:"x,omitempty"`
	Y *Axis `json:"y,omitempty"`
	// Bare leaves out the grid behind the axes.
	Bare bool `json:"bare,omitempty"`
	// Picture is the id of the picture, Alt what is on it, in words.
	Picture string `json:"picture,omitempty"`
	Alt     string `json:"alt,omitempty"`
}

// Axis is a range of numbers with a tick every step.
type Axis struct {
	From  float64 `json:"from"`
	To    float64 `json:"to"`
	Step  float64 `json:"step"`
	Label string  `json:"label,omitempty"`
}

// Usual steps, and the limits of all.
const (
	usualStep  = 40
	usualLine  = 150
	usualStaff = 120
	minStep    = 16
	maxStep    = 400
	maxTicks   = 100
	maxNumber  = 1e9
	maxLabel   = 40
	maxAlt     = 20_000
)

// Check reports what is wrong with a paper.
func (p Paper) Check() error {
	switch {
	case !slices.Contains(Kinds, p.Kind):
		return refusal.About(refusal.BadPaper, "kind of paper")
	case p.Step != 0 && !(p.Step >= minStep && p.Step <= maxStep):
		return refusal.About(refusal.BadPaper, "distance of the lines")
	case p.Ruling != "" && !slices.Contains(Rulings, p.Ruling):
		return refusal.About(refusal.BadPaper, "proportions of the lines")
	case !words(p.Unit, maxLabel) || !words(p.Alt, maxAlt):
		return refusal.About(refusal.BadPaper, "label")
	case p.Kind == Picture && p.Picture == "" || p.Picture != "" && !id.IsPlain(p.Picture):
		return refusal.New(refusal.NoSuchPicture)
	case p.Kind == Axes && (p.X == nil || p.Y == nil), p.Kind == NumberLine && p.X == nil:
		return refusal.About(refusal.BadPaper, "numbers of the axes")
	}
	for _, a := range []*Axis{p.X, p.Y} {
		if a == nil {
			continue
		}
		if err := a.check(); err != nil {
			return err
		}
	}
	return nil
}

func (a Axis) check() error {
	switch {
	case !(math.Abs(a.From) <= maxNumber && math.Abs(a.To) <= maxNumber && a.From < a.To):
		return refusal.About(refusal.BadPaper, "range of an axis")
	case !(a.Step > 0 && (a.To-a.From)/a.Step <= maxTicks && a.Step >= 1e-6):
		return refusal.About(refusal.BadPaper, "step of an axis")
	case !words(a.Label, maxLabel):
		return refusal.About(refusal.BadPaper, "label")
	}
	return nil
}

// words lets through text without control characters, of at most so many runes.
func words(s string, limit int) bool {
	return utf8.ValidString(s) && utf8.RuneCountInString(s) <= limit &&
		!strings.ContainsFunc(s, func(r rune) bool { return unicode.IsControl(r) && r != '\n' && r != '\t' })
}

// UnmarshalJSON reads a paper; a bare name, as boards once had it, is a paper
// of that kind.
func (p *Paper) UnmarshalJSON(text []byte) error {
	var name Kind
	if json.Unmarshal(text, &name) == nil {
		*p = Paper{Kind: name}
		return nil
	}
	type plain Paper
	return json.Unmarshal(text, (*plain)(p))
}

package lesson

import (
	"slices"
	"strings"

	"alpenglow/core/letters"
	"alpenglow/core/place"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// KindShape is a figure with an inside.
const KindShape Kind = "shape"

// Form is the outline of a shape.
type Form string

// The forms. A line, which only prepared frames have, runs from the top left
// to the bottom right of its box; lines drawn in class are connectors.
const (
	FormRect     Form = "rect"
	FormRounded  Form = "rounded"
	FormEllipse  Form = "ellipse"
	FormTriangle Form = "triangle"
	FormDiamond  Form = "diamond"
	FormBubble   Form = "bubble"
	FormStar     Form = "star"
	FormLine     Form = "line"
)

// Forms lists the forms.
var Forms = []Form{FormRect, FormRounded, FormEllipse, FormTriangle, FormDiamond, FormBubble, FormStar, FormLine}

// Fill is what a shape is filled with: a tint, or empty for nothing.
type Fill string

// Fills lists nothing and the tints.
var Fills = append([]Fill{""}, tintsAsFills()...)

func tintsAsFills() []Fill {
	fills := make([]Fill, len(Tints))
	for i, t := range Tints {
		fills[i] = Fill(t)
	}
	return fills
}

// Shape is a figure with an outline, a fill and words in it. Lean is how far
// the tip of a triangle stands beside the middle of its base, in parts of the
// base: -0.5 above its left end, 0.5 above its right.
type Shape struct {
	Form  Form    `json:"form"`
	Ink   Ink     `json:"ink"`
	Fill  Fill    `json:"fill,omitempty"`
	Width float64 `json:"width"`
	Dash  bool    `json:"dash,omitempty"`
	Text  string  `json:"text,omitempty"`
	Lean  float64 `json:"lean,omitempty"`
}

func (s *Shape) check() error {
	if !slices.Contains(Forms, s.Form) {
		return refusal.About(refusal.BadStyle, "form")
	}
	if !slices.Contains(Fills, s.Fill) || !(s.Lean >= -0.5 && s.Lean <= 0.5) {
		return refusal.About(refusal.BadStyle, "fill or lean")
	}
	if err := prose.Check(s.Text, MaxNote); err != nil {
		return err
	}
	return checkLine(s.Ink, s.Width)
}

func (s *Shape) with(p, before *Properties) Body {
	c := *s
	take(&c.Form, &p.Form, &before.Form)
	take(&c.Text, &p.Text, &before.Text)
	take(&c.Ink, &p.Ink, &before.Ink)
	take(&c.Width, &p.Width, &before.Width)
	take(&c.Dash, &p.Dash, &before.Dash)
	take(&c.Fill, &p.Fill, &before.Fill)
	return Body{Kind: KindShape, Shape: &c}
}

// insides are where the words of a form stand, in parts of its box: from the
// top, the sides and the bottom.
var insides = map[Form][3]float64{
	FormTriangle: {.45, .18, .04}, FormBubble: {.04, .08, .22}, FormRect: {.04, .06, .04}, FormRounded: {.04, .06, .04},
}

// Inside gives where the words of a shape with a box of w x h stand in it, and
// how high they are, in its middle.
func (s *Shape) Inside(w, h float64) (box place.Box, tall float64) {
	in, ok := insides[s.Form]
	if !ok {
		in = [3]float64{.18, .20, .18}
	}
	box = place.Box{X: in[1] * w, Y: in[0] * h, W: w * (1 - 2*in[1]), H: h * (1 - in[0] - in[2])}
	return box, lines(letters.Count).height(s.Text, box.W, letters.Style{Size: shapeSize, Weight: letters.Regular})
}

func (s *Shape) words() string { return s.Text }
func (s *Shape) says() string  { return strings.TrimSpace(string(s.Form) + " " + s.Text) }
func (s *Shape) manner() manner {
	m := manner{inClass: true, piece: true, least: minSide}
	if s.Form == FormLine {
		m.least = 0 // a level line has no height
	}
	return m
}

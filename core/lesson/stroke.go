package lesson

import (
	"math"
	"slices"

	"alpenglow/core/ink"
	"alpenglow/core/refusal"
)

// KindStroke is a drawn line.
const KindStroke Kind = "stroke"

// Nib is what a stroke was drawn with; empty for the pen.
type Nib string

// The nibs: the highlighter lets what is under it shine through, the brush
// follows the pressure more than the pen, the marker not at all.
const (
	NibPen         Nib = ""
	NibMarker      Nib = "marker"
	NibHighlighter Nib = "highlighter"
	NibBrush       Nib = "brush"
)

// Stroke is a drawn line; see package ink for its points. Width in frame units.
// In a change, a stroke without points has those that it had before.
type Stroke struct {
	Points []float64 `json:"points"`
	Ink    Ink       `json:"ink"`
	Width  float64   `json:"width"`
	Nib    Nib       `json:"nib,omitempty"`
}

func (s *Stroke) check() error {
	if !slices.Contains([]Nib{NibPen, NibMarker, NibHighlighter, NibBrush}, s.Nib) {
		return refusal.About(refusal.BadStyle, "nib")
	}
	w, h, err := ink.Bounds(s.Points)
	if err != nil {
		return err
	}
	if w > FrameWidth || h > FrameHeight {
		return refusal.New(refusal.OutOfFrame)
	}
	return checkLine(s.Ink, s.Width)
}

func (s *Stroke) with(p, before *Properties) Body {
	c := *s
	if p.Stroke != nil {
		given := p.Stroke.rounded()
		p.Stroke = &given
	}
	take(&c, &p.Stroke, &before.Stroke)
	take(&c.Ink, &p.Ink, &before.Ink)
	take(&c.Width, &p.Width, &before.Width)
	return Body{Kind: KindStroke, Stroke: &c}
}

// rounded gives the stroke with its points in tenths of a unit and its
// pressures in hundredths, so that no point takes more than a few characters.
func (s Stroke) rounded() Stroke {
	points := make([]float64, len(s.Points))
	for i, v := range s.Points {
		if points[i] = math.Round(v*10) / 10; i%ink.Per == ink.Per-1 {
			points[i] = math.Round(v*100) / 100
		}
	}
	s.Points = points
	return s
}

func (s *Stroke) words() string { return "" }
func (s *Stroke) says() string  { return "" }
func (s *Stroke) manner() manner {
	return manner{inClass: true, piece: true, counted: "drawing"}
}

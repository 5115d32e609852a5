package lesson

import (
	"math"

	"alpenglow/core/ink"
)

// Clean gives the clean shape that a drawn stroke seems to mean, with the
// stroke's ink and width, and how sure that is (0 to 1). Where nothing is sure
// enough, ok is false.
func Clean(stroke Element) (clean Element, confidence float64, ok bool) {
	g := ink.Recognise(ink.Points(stroke.Drawn()))
	if g.Form == ink.NoForm || stroke.Stroke.Nib == NibHighlighter {
		return Element{}, 0, false
	}
	colour, width := stroke.Stroke.Ink, stroke.Stroke.Width
	tenth := func(n float64) float64 { return math.Round(n*10) / 10 }
	if g.Form == ink.Line || g.Form == ink.Arrow {
		c := &Connector{From: Anchor{X: tenth(g.From.X), Y: tenth(g.From.Y)},
			To: Anchor{X: tenth(g.To.X), Y: tenth(g.To.Y)}, Ink: colour, Width: width}
		if g.Form == ink.Arrow {
			c.Heads = HeadsTo
		}
		clean = Element{Body: Body{Kind: KindConnector, Connector: c}}
	} else {
		b := g.Box
		turn := math.Mod(math.Round(b.Turn*180/math.Pi)+720, 360)
		shape := &Shape{Form: Form(g.Form), Ink: colour, Width: width, Lean: math.Round(g.Lean*100) / 100}
		clean = Element{X: tenth(b.Centre.X - b.Along), Y: tenth(b.Centre.Y - b.Wide), W: tenth(2 * b.Along),
			H: tenth(2 * b.Wide), Turn: turn,
			Body: Body{Kind: KindShape, Shape: shape}}
		// What was drawn at the very edge stays inside it.
		clean.X = min(max(0, clean.X), FrameWidth-clean.W)
		clean.Y = min(max(0, clean.Y), FrameHeight-clean.H)
	}
	return clean, g.Confidence, clean.Check() == nil
}

// Smoother gives a stroke with the tremor taken out.
func Smoother(stroke Element) Element {
	stroke.DrawnAt(ink.Smooth(stroke.Drawn()))
	return stroke
}

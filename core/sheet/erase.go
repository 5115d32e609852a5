package sheet

import (
	"fmt"

	"alpenglow/core/ink"
	"alpenglow/core/lesson"
	"alpenglow/core/place"
	"alpenglow/core/refusal"

	"github.com/google/uuid"
)

const (
	maxPath   = 500 // points of an eraser's path
	maxRadius = 100 // units
)

// erase takes away ink that the actor may change. A stroke cut in part is
// removed, and its pieces are new marks of the same author at its height, so
// that undo brings back the stroke itself.
func (e *edit) erase(erase Erase) error {
	if len(erase.Path) == 0 || len(erase.Path)%2 != 0 || len(erase.Path) > 2*maxPath || !(erase.Radius >= 1 && erase.Radius <= maxRadius) {
		return refusal.About(refusal.StrokeInvalid, "path or radius of the eraser")
	}
	eraser := ink.Eraser{Path: make([]ink.Point, len(erase.Path)/2)}
	for i := range eraser.Path {
		eraser.Path[i] = ink.Point{X: erase.Path[2*i], Y: erase.Path[2*i+1]}
	}
	way := around(eraser.Path)
	for _, m := range e.sheet.Marks() {
		if m.Kind != lesson.KindStroke || !m.OnFrame() || m.Hidden && !e.actor.Staff || !e.owns(m) {
			continue
		}
		// Half the line's width lies on either side of its middle.
		eraser.Radius = erase.Radius + m.Stroke.Width/2
		if !m.Covers().Near(way, eraser.Radius) {
			continue
		}
		drawn := m.Drawn()
		if !erase.Part {
			if eraser.Touches(ink.Points(drawn)) {
				e.remove(m)
			}
			continue
		}
		pieces, touched := eraser.Cut(drawn)
		if !touched {
			continue
		}
		e.remove(m)
		for i, piece := range pieces {
			if err := e.rest(m, i, piece); err != nil {
				return err
			}
		}
	}
	if len(e.back) == 0 {
		return refusal.New(refusal.NoSuchMark)
	}
	return nil
}

// rest lays down what is left of a stroke. Its id follows from those of the
// operation and the stroke: applied again, it is the same.
func (e *edit) rest(of lesson.Element, i int, points []float64) error {
	m := of
	m.ID = uuid.NewSHA1(uuid.NameSpaceOID, fmt.Appendf(nil, "%s/%s/%d", e.op.ID, of.ID, i)).String()
	m.RemovedBy, m.RemovedIn = "", ""
	m.DrawnAt(points)
	if err := m.Check(); err != nil {
		return err
	}
	if err := e.room(1, pointsOf(m)); err != nil {
		return err
	}
	e.changed(&m)
	e.put(m, Step{Kind: KindRemove, Remove: &Target{Mark: m.ID}})
	return nil
}

// around is the box around points.
func around(points []ink.Point) place.Box {
	low, high := points[0], points[0]
	for _, p := range points {
		low, high = ink.Point{X: min(low.X, p.X), Y: min(low.Y, p.Y)}, ink.Point{X: max(high.X, p.X), Y: max(high.Y, p.Y)}
	}
	return place.Box{X: low.X, Y: low.Y, W: high.X - low.X, H: high.Y - low.Y}
}

package sheet

import (
	"fmt"

	"alpenglow/core/ink"
	"alpenglow/core/lesson"
	"alpenglow/core/place"
	"alpenglow/core/refusal"

	"github.com/google/uuid"
)

// KindErase takes away ink.
const KindErase Kind = "erase"

// Erase takes away the ink under a round eraser that was moved along a path
// x0, y0, x1, y1, ... of frame units: whole strokes that it touched, or with
// Part set the part of each that lay under it.
type Erase struct {
	Path   []float64 `json:"path"`
	Radius float64   `json:"radius"`
	Part   bool      `json:"part,omitempty"`
}

const (
	maxPath   = 500 // points of an eraser's path
	maxRadius = 100 // units
)

func (er *Erase) right() right { return right{} }

func (er *Erase) check() error {
	if len(er.Path) == 0 || len(er.Path)%2 != 0 || len(er.Path) > 2*maxPath ||
		!(er.Radius >= 1 && er.Radius <= maxRadius) {
		return refusal.About(refusal.StrokeInvalid, "path or radius of the eraser")
	}
	return nil
}

// do takes away ink that the actor may change. A stroke cut in part is
// removed, and its pieces are new marks of the same author at its height, so
// that undo brings back the stroke itself.
func (er *Erase) do(e *edit) error {
	if err := er.check(); err != nil {
		return err
	}
	path := make([]ink.Point, len(er.Path)/2)
	for i := range path {
		path[i] = ink.Point{X: er.Path[2*i], Y: er.Path[2*i+1]}
	}
	way := around(path)
	lines, err := e.each(func(m lesson.Element) bool {
		return m.Kind == lesson.KindStroke && (e.actor.Staff || m.Stands() != lesson.Hidden) && e.owns(m) &&
			m.Covers().Near(way, er.Radius+m.Stroke.Width/2)
	})
	if err != nil {
		return err
	}
	eraser := ink.NewEraser(path, &e.left)
	for _, m := range lines {
		// Half the line's width lies on either side of its middle.
		if err := e.eraseFrom(m, eraser.Wide(er.Radius+m.Stroke.Width/2), er.Part); err != nil {
			return err
		}
		if err := e.spend(pointsOf(m) / 10); err != nil {
			return err
		}
	}
	if len(e.back) == 0 {
		return refusal.New(refusal.NoSuchMark)
	}
	return nil
}

func (e *edit) eraseFrom(m lesson.Element, eraser ink.Eraser, part bool) error {
	drawn := m.Drawn()
	if !part {
		if eraser.Touches(ink.Points(drawn)) {
			e.remove(m)
		}
		return nil
	}
	pieces, touched := eraser.Cut(drawn)
	if !touched {
		return nil
	}
	e.remove(m)
	for i, piece := range pieces {
		if err := e.rest(m, i, piece); err != nil {
			return err
		}
	}
	return nil
}

// rest lays down what is left of a stroke. Its id follows from those of the
// operation and the stroke: applied again, it is the same.
func (e *edit) rest(of lesson.Element, i int, points []float64) error {
	m := of
	m.ID = uuid.NewSHA1(uuid.NameSpaceOID, fmt.Appendf(nil, "%s/%s/%d", e.op.ID, of.ID, i)).String()
	m.DrawnAt(points)
	if err := m.Check(); err != nil {
		return err
	}
	if err := e.room(m, tally{1, pointsOf(m)}); err != nil {
		return err
	}
	e.changed(&m)
	e.put(m, Step{Kind: KindRemove, Remove: &Remove{Mark: m.ID}})
	return nil
}

// around is the box around points.
func around(points []ink.Point) place.Box {
	low, high := points[0], points[0]
	for _, p := range points {
		low, high = ink.Point{X: min(low.X, p.X), Y: min(low.Y, p.Y)},
			ink.Point{X: max(high.X, p.X), Y: max(high.Y, p.Y)}
	}
	return place.Box{X: low.X, Y: low.Y, W: high.X - low.X, H: high.Y - low.Y}
}

package lesson

import (
	"math"
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/ink"
	"alpenglow/core/refusal"
)

const (
	minSide = 8       // units; the shortest side a box may have
	maxZ    = 1 << 40 // how high or low in the stack a mark may lie
)

// Element is one mark on a sheet or a frame: its place in frame units, its
// height in the stack (Z, higher lies on top) and its body.
type Element struct {
	ID string `json:"id"`
	// Author is a participant's id, Staff, or empty for what was prepared.
	Author string `json:"author,omitempty"`
	Z      int64  `json:"z"`
	// At is when it was made, in milliseconds since 1970.
	At int64   `json:"at"`
	X  float64 `json:"x"`
	Y  float64 `json:"y"`
	W  float64 `json:"w"`
	H  float64 `json:"h"`
	// Turn is by how much the mark is turned about its middle, in degrees
	// clockwise, from 0 to less than 360.
	Turn float64 `json:"turn,omitempty"`
	// Group is what marks share that are grouped. Groups do not nest.
	Group string `json:"group,omitempty"`
	// Layer says whether a prepared mark is fixed or a piece, Tray that a
	// piece lies beside the frame until it is taken.
	Layer Layer `json:"layer,omitempty"`
	Tray  bool  `json:"tray,omitempty"`
	// Standing is how the mark stands for the class; nil for shown.
	Standing *Standing `json:"standing,omitempty"`
	// By is who changed the mark last, where that is not the author.
	By string `json:"by,omitempty"`
	// Agreed are those who agree with a note, in the order they did.
	Agreed []string `json:"agreed,omitempty"`
	Body
}

// Layer is what a prepared mark is in class; empty for fixed.
type Layer string

// Fixed marks stay where they are. A piece is moved by students; one of an
// endless supply stays, and students take copies of it.
const (
	Fixed  Layer = ""
	Piece  Layer = "piece"
	Supply Layer = "supply"
)

// Layers lists the layers of prepared marks.
var Layers = []Layer{Fixed, Piece, Supply}

// Staff is the author of what teachers add.
const Staff = "staff"

// LastBy is who changed the mark last.
func (e Element) LastBy() string {
	if e.By != "" {
		return e.By
	}
	return e.Author
}

// Check reports what is wrong with a mark: a body that does not fit its kind,
// a size or place that does not fit the frame, text over its limit. For
// connectors it also sets the place and size to the box of the ends.
func (e *Element) Check() error {
	if err := e.Body.Sound(); err != nil {
		return err
	}
	m := e.manner()
	if m.answer {
		return nil
	}
	if m.nowhere {
		if e.X != 0 || e.Y != 0 || e.W != 0 || e.H != 0 || e.Turn != 0 || e.Group != "" || e.Layer != Fixed || e.Tray {
			return refusal.About(refusal.BadSize, "this kind of mark has no place on the frame")
		}
		return nil
	}
	if err := e.checkLayer(m); err != nil {
		return err
	}
	if e.Group != "" && !id.IsPlain(e.Group) {
		return refusal.New(refusal.BadID)
	}
	if !(e.Turn >= 0 && e.Turn < 360) {
		return refusal.About(refusal.BadSize, "turn")
	}
	if !(e.Z >= -maxZ && e.Z <= maxZ) {
		return refusal.About(refusal.BadSize, "place in the stack")
	}
	if e.Connector != nil {
		e.X, e.Y, e.W, e.H = e.Connector.box()
	}
	if !(e.W >= m.least && e.W <= FrameWidth && e.H >= m.least && e.H <= FrameHeight) {
		return refusal.New(refusal.BadSize)
	}
	// Sums of tenths may exceed the edge by a rounding error.
	const slack = 1e-6
	if !(e.X >= 0 && e.Y >= 0 && e.X+e.W <= FrameWidth+slack && e.Y+e.H <= FrameHeight+slack) {
		return refusal.New(refusal.OutOfFrame)
	}
	return nil
}

// checkLayer lets only marks be pieces that can be moved as one.
func (e *Element) checkLayer(m manner) error {
	if m.straight && e.Turn != 0 {
		return refusal.About(refusal.BadStyle, "this kind of mark lies straight")
	}
	if !slices.Contains(Layers, e.Layer) || e.Layer != Fixed && !m.piece || e.Tray && e.Layer == Fixed {
		return refusal.About(refusal.BadStyle, "this kind of mark cannot be a piece")
	}
	return nil
}

// Fit rounds the points of a new stroke and sets its size to their box. A stroke
// that is resized later keeps its points; its size says how far they are stretched.
func (e *Element) Fit() error {
	if e.Kind != KindStroke || e.Stroke == nil {
		return nil
	}
	if _, _, err := ink.Bounds(e.Stroke.Points); err != nil {
		return err
	}
	stroke := e.Stroke.rounded()
	e.Stroke = &stroke
	var err error
	e.W, e.H, err = ink.Bounds(e.Stroke.Points)
	return err
}

// leastExtent is below what a line has no width or height to be stretched, in units.
const leastExtent = 0.05

// Drawn gives a stroke's points as they lie on the frame: stretched to its
// size, turned and at its place, with their pressures.
func (e Element) Drawn() []float64 {
	w, h, err := ink.Bounds(e.Stroke.Points)
	if err != nil {
		return nil
	}
	across, down := 1.0, 1.0
	if w >= leastExtent {
		across = e.W / w
	}
	if h >= leastExtent {
		down = e.H / h
	}
	sin, cos := math.Sincos(e.Turn * math.Pi / 180)
	mx, my := e.X+e.W/2, e.Y+e.H/2
	out := make([]float64, len(e.Stroke.Points))
	for i := 0; i < len(out); i += ink.Per {
		x, y := e.Stroke.Points[i]*across-e.W/2, e.Stroke.Points[i+1]*down-e.H/2
		out[i], out[i+1], out[i+2] = mx+x*cos-y*sin, my+x*sin+y*cos, e.Stroke.Points[i+2]
	}
	return out
}

// DrawnAt makes a stroke's element lie around points on the frame, which it
// takes as its own.
func (e *Element) DrawnAt(points []float64) {
	x, y, right, bottom := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for i := 0; i < len(points); i += ink.Per {
		x, right = min(x, points[i]), max(right, points[i])
		y, bottom = min(y, points[i+1]), max(bottom, points[i+1])
	}
	stroke := *e.Stroke
	stroke.Points = make([]float64, len(points))
	tenth := func(n float64) float64 { return math.Round(n*10) / 10 }
	hundredth := func(n float64) float64 { return math.Round(n*100) / 100 }
	x, y = max(0, math.Floor(x*10)/10), max(0, math.Floor(y*10)/10)
	for i := 0; i < len(points); i += ink.Per {
		stroke.Points[i], stroke.Points[i+1] = max(0, tenth(points[i]-x)), max(0, tenth(points[i+1]-y))
		stroke.Points[i+2] = hundredth(points[i+2])
	}
	e.Stroke, e.Turn, e.X, e.Y = &stroke, 0, x, y
	e.W, e.H = min(tenth(right-x), FrameWidth-x), min(tenth(bottom-y), FrameHeight-y)
}

// Package ink answers: what is a drawn line, as geometry? It thins and smooths
// strokes, cuts them with an eraser, catches them with a lasso, and says which
// clean shape somebody meant to draw.
//
// A stroke's points are a flat list x0, y0, p0, x1, y1, p1, ... in frame units,
// relative to the stroke's top left corner; p is the pressure from 0 to 1.
package ink

import (
	"math"

	"alpenglow/core/refusal"
)

// MaxPoints is how many points one stroke may have.
const MaxPoints = 4000

// Per is how many numbers of a flat list describe a point: x, y and pressure.
const Per = 3

// Point is a place in frame units; y grows downwards.
type Point struct{ X, Y float64 }

func (p Point) sub(q Point) Point     { return Point{p.X - q.X, p.Y - q.Y} }
func (p Point) dot(q Point) float64   { return p.X*q.X + p.Y*q.Y }
func (p Point) cross(q Point) float64 { return p.X*q.Y - p.Y*q.X }
func (p Point) to(q Point) float64    { return math.Hypot(q.X-p.X, q.Y-p.Y) }
func (p Point) at(q Point, t float64) Point {
	return Point{p.X + t*(q.X-p.X), p.Y + t*(q.Y-p.Y)}
}

// Points reads a flat list, leaving out the pressures.
func Points(flat []float64) []Point {
	points := make([]Point, len(flat)/Per)
	for i := range points {
		points[i] = Point{flat[Per*i], flat[Per*i+1]}
	}
	return points
}

// Bounds checks a stroke's points and returns the width and height of the box
// from its origin that holds them all. Points left of or above the origin, not
// finite, or with a pressure outside 0..1 are refused, as are no points and
// more than MaxPoints.
func Bounds(points []float64) (w, h float64, err error) {
	if len(points) == 0 || len(points)%Per != 0 {
		return 0, 0, refusal.About(refusal.StrokeInvalid, "points come in threes")
	}
	if n := len(points) / Per; n > MaxPoints {
		return 0, 0, refusal.About(refusal.StrokeInvalid, "%d points, at most %d", n, MaxPoints)
	}
	for i := 0; i < len(points); i += Per {
		x, y, p := points[i], points[i+1], points[i+2]
		// Written so that NaN fails too.
		if !(x >= 0 && y >= 0 && p >= 0 && p <= 1) || math.IsInf(x, 1) || math.IsInf(y, 1) {
			return 0, 0, refusal.About(refusal.StrokeInvalid, "point %d", i/Per)
		}
		w, h = max(w, x), max(h, y)
	}
	return w, h, nil
}

// Length is the length of an open line through the points.
func Length(points []Point) float64 {
	sum := 0.0
	for i := 1; i < len(points); i++ {
		sum += points[i-1].to(points[i])
	}
	return sum
}

// toSegment is the distance of p to the segment from a to b, and how far along
// it (0..1) the nearest point lies.
func toSegment(p, a, b Point) (distance, along float64) {
	ab := b.sub(a)
	if length := ab.dot(ab); length > 0 {
		along = min(1, max(0, p.sub(a).dot(ab)/length))
	}
	return p.to(a.at(b, along)), along
}

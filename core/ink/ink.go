// Package ink answers: what is a drawn line, as geometry?
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

// perPoint is how many numbers describe a point: x, y and pressure.
const perPoint = 3

// Bounds checks a stroke's points and returns the width and height of the box
// from its origin that holds them all. Points left of or above the origin, not
// finite, or with a pressure outside 0..1 are refused, as are no points and
// more than MaxPoints.
func Bounds(points []float64) (w, h float64, err error) {
	if len(points) == 0 || len(points)%perPoint != 0 {
		return 0, 0, refusal.About(refusal.StrokeInvalid, "points come in threes")
	}
	if n := len(points) / perPoint; n > MaxPoints {
		return 0, 0, refusal.About(refusal.StrokeInvalid, "%d points, at most %d", n, MaxPoints)
	}
	for i := 0; i < len(points); i += perPoint {
		x, y, p := points[i], points[i+1], points[i+2]
		// Written so that NaN fails too.
		if !(x >= 0 && y >= 0 && p >= 0 && p <= 1) || math.IsInf(x, 1) || math.IsInf(y, 1) {
			return 0, 0, refusal.About(refusal.StrokeInvalid, "point %d", i/perPoint)
		}
		w, h = max(w, x), max(h, y)
	}
	return w, h, nil
}

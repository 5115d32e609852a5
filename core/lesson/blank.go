package lesson

import (
	"math"

	"alpenglow/core/place"
)

// blank is the part of a picture, which lies in a box and is turned about its
// middle, that a cover hides: the upright box, in the picture, around the
// cover's corners.
func blank(cover Element, at place.Box, turn float64) Blank {
	sin, cos := math.Sincos(-turn * math.Pi / 180)
	mx, my := at.X+at.W/2, at.Y+at.H/2
	left, top, right, bottom := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, corner := range [4][2]float64{{cover.X, cover.Y}, {cover.X + cover.W, cover.Y}, {cover.X, cover.Y + cover.H},
		{cover.X + cover.W, cover.Y + cover.H}} {
		x, y := corner[0]-mx, corner[1]-my
		u, v := (x*cos-y*sin)/at.W+0.5, (x*sin+y*cos)/at.H+0.5
		left, right, top, bottom = min(left, u), max(right, u), min(top, v), max(bottom, v)
	}
	left, top, right, bottom = max(0, left), max(0, top), min(1, right), min(1, bottom)
	return Blank{X: left, Y: top, W: max(0, right-left), H: max(0, bottom-top)}
}

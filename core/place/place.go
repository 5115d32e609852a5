// Package place answers: where is room for something new on a frame?
package place

import "math"

// Box is an upright rectangle in frame units.
type Box struct{ X, Y, W, H float64 }

func (a Box) overlap(b Box) float64 {
	w := min(a.X+a.W, b.X+b.W) - max(a.X, b.X)
	h := min(a.Y+a.H, b.Y+b.H) - max(a.Y, b.Y)
	if w <= 0 || h <= 0 {
		return 0
	}
	return w * h
}

// Near reports whether two boxes come within reach of each other.
func (a Box) Near(b Box, reach float64) bool {
	return a.X-reach <= b.X+b.W && b.X <= a.X+a.W+reach && a.Y-reach <= b.Y+b.H && b.Y <= a.Y+a.H+reach
}

// grow gives the box with a rim around it.
func (a Box) grow(by float64) Box { return Box{a.X - by, a.Y - by, a.W + 2*by, a.H + 2*by} }

const (
	rim  = 10 // units kept free around what is new
	fine = 20 // how finely places are tried
	// coarse is how finely they are tried where much lies, because each place
	// is held against all of it.
	coarse  = 40
	crowded = 100
)

// Free finds a place for a box of w x h inside room: the one whose middle is
// nearest to (x, y) among those that cover nothing of what is taken. Where
// there is no free place, it is the one that covers least, the nearer of equal
// ones, and clear is false. A box larger than the room lies at its top left.
//
// Besides a grid, the places that touch what is taken are tried, so that a gap
// that fits exactly is found.
func Free(room Box, taken []Box, w, h, x, y float64) (left, top float64, clear bool) {
	right, bottom := max(room.X, room.X+room.W-w), max(room.Y, room.Y+room.H-h)
	clampX := func(v float64) float64 { return min(right, max(room.X, v)) }
	clampY := func(v float64) float64 { return min(bottom, max(room.Y, v)) }
	step := float64(fine)
	if len(taken) > crowded {
		step = coarse
	}
	xs, ys := []float64{clampX(x - w/2)}, []float64{clampY(y - h/2)}
	for v := room.X; v <= right; v += step {
		xs = append(xs, v)
	}
	for v := room.Y; v <= bottom; v += step {
		ys = append(ys, v)
	}
	if len(taken) <= 40 {
		for _, t := range taken {
			xs = append(xs, clampX(t.X-w-rim), clampX(t.X+t.W+rim))
			ys = append(ys, clampY(t.Y-h-rim), clampY(t.Y+t.H+rim))
		}
	}
	bestCovered, bestWay := math.Inf(1), math.Inf(1)
	left, top = xs[0], ys[0]
	for _, cy := range ys {
		for _, cx := range xs {
			way := math.Hypot(cx+w/2-x, cy+h/2-y)
			if bestCovered == 0 && way >= bestWay {
				continue
			}
			here, covered := Box{cx, cy, w, h}, 0.0
			around := here.grow(rim - 0.01)
			for _, t := range taken {
				if around.overlap(t) == 0 {
					continue
				}
				// Nearly touching counts a little, covering by its area.
				if covered += 1 + here.overlap(t); covered > bestCovered {
					break
				}
			}
			if covered < bestCovered || covered == bestCovered && way < bestWay {
				bestCovered, bestWay, left, top = covered, way, cx, cy
			}
		}
	}
	return left, top, bestCovered == 0
}

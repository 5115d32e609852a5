package ink

import (
	"cmp"
	"math"
	"slices"
)

// span is a part of a segment, from 0 at its beginning to 1 at its end; empty
// when from is not less than to.
type span struct{ from, to float64 }

var nothing = span{1, 0}

func (s span) empty() bool { return !(s.from < s.to) }

// and is the least span that holds both.
func (s span) and(t span) span {
	switch {
	case s.empty():
		return t
	case t.empty():
		return s
	}
	return span{min(s.from, t.from), max(s.to, t.to)}
}

// within cuts off what lies outside 0..1.
func (s span) within() span { return span{max(0, s.from), min(1, s.to)} }

// underDisc is the part of the segment from a to b that lies inside a disc.
// Touching it in one point is not inside.
func underDisc(a, b, centre Point, radius float64) span {
	d, m := b.sub(a), a.sub(centre)
	if d == (Point{}) {
		if m.dot(m) < radius*radius {
			return span{0, 1}
		}
		return nothing
	}
	// |m + t d| = radius
	half, square := m.dot(d)/d.dot(d), (m.dot(m)-radius*radius)/d.dot(d)
	root := half*half - square
	if root <= 0 {
		return nothing
	}
	s := math.Sqrt(root)
	return span{-half - s, -half + s}.within()
}

// underSweep is the part of the segment from a to b that lies under a disc
// swept from s to e. That is a convex figure, the union of two discs and a
// rectangle, so that the parts under each of the three join to one.
func underSweep(a, b, s, e Point, radius float64) span {
	under := underDisc(a, b, s, radius)
	along := e.sub(s)
	length := math.Hypot(along.X, along.Y)
	if length == 0 {
		return under
	}
	under = under.and(underDisc(a, b, e, radius))
	u := Point{along.X / length, along.Y / length}
	from, way := a.sub(s), b.sub(a)
	inside := span{0, 1}
	clip := func(at, by, low, high float64) {
		if by == 0 {
			if at <= low || at >= high {
				inside = nothing
			}
			return
		}
		t0, t1 := (low-at)/by, (high-at)/by
		inside = span{max(inside.from, min(t0, t1)), min(inside.to, max(t0, t1))}
	}
	clip(from.dot(u), way.dot(u), 0, length)
	if !inside.empty() {
		clip(u.cross(from), u.cross(way), -radius, radius)
	}
	return under.and(inside)
}

// Eraser is the way of a round eraser over a frame. What it looks at is counted
// off the budget that it was made with; when that is below zero it finds
// nothing more, and what it found is not to be used.
type Eraser struct {
	radius float64
	way    []run
	budget *int
}

// sweep is one move of the eraser.
type sweep struct{ from, to Point }

// run is some moves one after the other, with the box around them.
type run struct {
	moves     []sweep
	low, high Point
}

// How many moves of an eraser, and how many segments of a line, are looked at
// as one first.
const (
	movesInRun    = 16
	segmentsInRun = 32
)

// NewEraser makes an eraser that is moved along a path, of at least one point. A
// unit of the budget is one test of a move against a segment, or of two boxes.
func NewEraser(path []Point, budget *int) Eraser {
	e := Eraser{budget: budget}
	moves := []sweep{{path[0], path[0]}}
	for i := 1; i < len(path); i++ {
		moves = append(moves, sweep{path[i-1], path[i]})
	}
	if len(moves) > 1 {
		moves = moves[1:]
	}
	for some := range slices.Chunk(moves, movesInRun) {
		r := run{moves: some, low: some[0].from, high: some[0].from}
		for _, m := range some {
			r.low = Point{min(r.low.X, m.to.X), min(r.low.Y, m.to.Y)}
			r.high = Point{max(r.high.X, m.to.X), max(r.high.Y, m.to.Y)}
		}
		e.way = append(e.way, r)
	}
	return e
}

// Wide gives the eraser with a radius in units.
func (e Eraser) Wide(radius float64) Eraser {
	e.radius = radius
	return e
}

// near lists the moves that may come near a part of a line.
func (e Eraser) near(points []Point) []sweep {
	low, high := bounds(points)
	low, high = Point{low.X - e.radius, low.Y - e.radius}, Point{high.X + e.radius, high.Y + e.radius}
	var moves []sweep
	*e.budget -= len(e.way)
	for _, r := range e.way {
		if r.high.X < low.X || r.low.X > high.X || r.high.Y < low.Y || r.low.Y > high.Y {
			continue
		}
		*e.budget -= len(r.moves)
		for _, m := range r.moves {
			if max(m.from.X, m.to.X) < low.X || min(m.from.X, m.to.X) > high.X || max(m.from.Y, m.to.Y) < low.Y ||
				min(m.from.Y, m.to.Y) > high.Y {
				continue
			}
			moves = append(moves, m)
		}
	}
	return moves
}

// Touches reports whether the eraser has come over a line through the points.
func (e Eraser) Touches(points []Point) bool {
	if len(points) == 1 {
		points = []Point{points[0], points[0]}
	}
	for i := 0; i < len(points)-1 && *e.budget >= 0; i += segmentsInRun {
		part := points[i:min(i+segmentsInRun+1, len(points))]
		moves := e.near(part)
		for k := 1; k < len(part) && len(moves) > 0; k++ {
			if len(e.over(moves, part[k-1], part[k], true)) > 0 {
				return true
			}
		}
	}
	return false
}

// Cut takes away the part of a flat stroke under the eraser and returns what is
// left, in order. Where the line is cut, the pressure lies between its
// neighbours'. A stroke that the eraser did not touch comes back as it is.
func (e Eraser) Cut(flat []float64) (pieces [][]float64, touched bool) {
	points := Points(flat)
	if len(points) == 1 {
		if e.Touches(points) {
			return nil, true
		}
		return [][]float64{flat}, false
	}
	var piece []float64
	end := func() {
		if len(piece) > Per {
			pieces = append(pieces, piece)
		}
		piece = nil
	}
	add := func(i int, t float64) {
		from, to := flat[Per*i:Per*i+Per], flat[Per*i+Per:Per*i+2*Per]
		for k := range Per {
			piece = append(piece, from[k]+t*(to[k]-from[k]))
		}
	}
	var moves []sweep
	for i := range len(points) - 1 {
		if *e.budget < 0 {
			return nil, false
		}
		if i%segmentsInRun == 0 {
			moves = e.near(points[i:min(i+segmentsInRun+1, len(points))])
		}
		at := 0.0
		keep := func(to float64) {
			if to <= at {
				return
			}
			if piece == nil {
				add(i, at)
			}
			add(i, to)
		}
		for _, gap := range e.over(moves, points[i], points[i+1], false) {
			touched = true
			keep(gap.from)
			end()
			at = gap.to
		}
		keep(1)
	}
	end()
	if !touched {
		return [][]float64{flat}, false
	}
	return pieces, true
}

// over lists the parts of a segment under some moves of the eraser, in order
// and apart from each other; with any set, it stops at the first it finds.
func (e Eraser) over(moves []sweep, a, b Point, any bool) []span {
	var parts []span
	low, high := Point{min(a.X, b.X) - e.radius, min(a.Y, b.Y) - e.radius},
		Point{max(a.X, b.X) + e.radius, max(a.Y, b.Y) + e.radius}
	*e.budget -= len(moves)
	for _, m := range moves {
		s, t := m.from, m.to
		if max(s.X, t.X) < low.X || min(s.X, t.X) > high.X || max(s.Y, t.Y) < low.Y || min(s.Y, t.Y) > high.Y {
			continue
		}
		if part := underSweep(a, b, s, t, e.radius); !part.empty() {
			parts = append(parts, part)
			if any {
				return parts
			}
		}
	}
	slices.SortFunc(parts, func(s, t span) int { return cmp.Compare(s.from, t.from) })
	joined := parts[:0]
	for _, p := range parts {
		if n := len(joined); n > 0 && p.from <= joined[n-1].to {
			joined[n-1].to = max(joined[n-1].to, p.to)
		} else {
			joined = append(joined, p)
		}
	}
	return joined
}

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

// Eraser is the way of a round eraser over a frame.
type Eraser struct {
	Path   []Point
	Radius float64
	way    []sweep // of the path, what comes near the line that is looked at
}

// near is the eraser on the parts of its way that come near a line.
func (e Eraser) near(points []Point) Eraser {
	low, high := bounds(points)
	away := func(s, t Point) bool {
		return max(s.X, t.X) < low.X-e.Radius || min(s.X, t.X) > high.X+e.Radius || max(s.Y, t.Y) < low.Y-e.Radius || min(s.Y, t.Y) > high.Y+e.Radius
	}
	var way []sweep
	for i, s := range e.Path {
		t := e.Path[min(i+1, len(e.Path)-1)]
		if (i == 0 || i < len(e.Path)-1) && !away(s, t) {
			way = append(way, sweep{s, t})
		}
	}
	e.way = way
	return e
}

// sweep is one move of the eraser.
type sweep struct{ from, to Point }

// Touches reports whether the eraser has come over a line through the points.
func (e Eraser) Touches(points []Point) bool {
	if len(points) == 1 {
		points = []Point{points[0], points[0]}
	}
	e = e.near(points)
	for i := 1; i < len(points); i++ {
		if len(e.over(points[i-1], points[i], true)) > 0 {
			return true
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
	e = e.near(points)
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
	for i := range len(points) - 1 {
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
		for _, gap := range e.over(points[i], points[i+1], false) {
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

// over lists the parts of a segment under the eraser, in order and apart from
// each other; with any set, it stops at the first it finds.
func (e Eraser) over(a, b Point, any bool) []span {
	var parts []span
	low, high := Point{min(a.X, b.X) - e.Radius, min(a.Y, b.Y) - e.Radius}, Point{max(a.X, b.X) + e.Radius, max(a.Y, b.Y) + e.Radius}
	for _, m := range e.way {
		s, t := m.from, m.to
		if max(s.X, t.X) < low.X || min(s.X, t.X) > high.X || max(s.Y, t.Y) < low.Y || min(s.Y, t.Y) > high.Y {
			continue
		}
		if part := underSweep(a, b, s, t, e.Radius); !part.empty() {
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

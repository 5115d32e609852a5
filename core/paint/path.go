package paint

import (
	"math"

	"alpenglow/core/letters"

	"github.com/srwiley/oksvg"
	"github.com/srwiley/rasterx"
	"golang.org/x/image/math/fixed"
)

// Path is pieces of outlines: M, L, Q, C to a point, and Z.
type Path []letters.Segment

// The operations of a path.
const (
	moveTo  = 'M'
	lineTo  = 'L'
	quadTo  = 'Q'
	cubicTo = 'C'
	closing = 'Z'
)

// points is how many points an operation has.
func points(op byte) int { return map[byte]int{moveTo: 1, lineTo: 1, quadTo: 2, cubicTo: 3}[op] }

func (p *Path) add(op byte, xy ...float64) {
	s := letters.Segment{Op: op}
	for i := 0; i+1 < len(xy); i += 2 {
		s.Points[i/2] = [2]float64{xy[i], xy[i+1]}
	}
	*p = append(*p, s)
}

// Matrix maps a place (x, y) to (A x + C y + E, B x + D y + F).
type Matrix struct{ A, B, C, D, E, F float64 }

// still leaves everything where it is.
var still = Matrix{A: 1, D: 1}

// to gives a place as the matrix maps it.
func (m Matrix) to(x, y float64) (float64, float64) { return m.A*x + m.C*y + m.E, m.B*x + m.D*y + m.F }

// then gives the matrix that does m first and then n.
func (m Matrix) then(n Matrix) Matrix {
	return Matrix{
		n.A*m.A + n.C*m.B, n.B*m.A + n.D*m.B, n.A*m.C + n.C*m.D, n.B*m.C + n.D*m.D,
		n.A*m.E + n.C*m.F + n.E, n.B*m.E + n.D*m.F + n.F,
	}
}

func moved(x, y float64) Matrix { return Matrix{1, 0, 0, 1, x, y} }
func scaled(k float64) Matrix   { return Matrix{k, 0, 0, k, 0, 0} }

// turned turns about a place, in degrees clockwise.
func turned(degrees, x, y float64) Matrix {
	sin, cos := math.Sincos(degrees * math.Pi / 180)
	return moved(-x, -y).then(Matrix{cos, sin, -sin, cos, 0, 0}).then(moved(x, y))
}

// size is by how much the matrix makes lengths longer.
func (m Matrix) size() float64 { return math.Sqrt(math.Abs(m.A*m.D - m.B*m.C)) }

// read gives the path that SVG's notation says; what it cannot read is left out.
func read(d string) Path {
	var cursor oksvg.PathCursor
	if cursor.CompilePath(d) != nil {
		return nil
	}
	var p Path
	units := func(v []fixed.Int26_6) []float64 {
		f := make([]float64, len(v))
		for i := range v {
			f[i] = float64(v[i]) / 64
		}
		return f
	}
	for i := 0; i < len(cursor.Path); {
		op := map[rasterx.PathCommand]byte{rasterx.PathMoveTo: moveTo, rasterx.PathLineTo: lineTo,
			rasterx.PathQuadTo: quadTo, rasterx.PathCubicTo: cubicTo, rasterx.PathClose: closing}[rasterx.PathCommand(
			cursor.Path[i])]
		n := 2 * points(op)
		p.add(op, units(cursor.Path[i+1:i+1+n])...)
		i += 1 + n
	}
	return p
}

// kappa is how far the handles of a quarter of a circle reach, in radii.
const kappa = 0.5522847498

// box is a rectangle with corners of four radii: from the upper left one on, clockwise.
func box(x, y, w, h float64, r [4]float64) Path {
	most := min(w, h) / 2
	for i := range r {
		r[i] = max(0, min(r[i], most))
	}
	var p Path
	k := 1 - kappa
	p.add(moveTo, x+r[0], y)
	p.add(lineTo, x+w-r[1], y)
	if r[1] > 0 {
		p.add(cubicTo, x+w-k*r[1], y, x+w, y+k*r[1], x+w, y+r[1])
	}
	p.add(lineTo, x+w, y+h-r[2])
	if r[2] > 0 {
		p.add(cubicTo, x+w, y+h-k*r[2], x+w-k*r[2], y+h, x+w-r[2], y+h)
	}
	p.add(lineTo, x+r[3], y+h)
	if r[3] > 0 {
		p.add(cubicTo, x+k*r[3], y+h, x, y+h-k*r[3], x, y+h-r[3])
	}
	p.add(lineTo, x, y+r[0])
	if r[0] > 0 {
		p.add(cubicTo, x, y+k*r[0], x+k*r[0], y, x+r[0], y)
	}
	p.add(closing)
	return p
}

func even(r float64) [4]float64 { return [4]float64{r, r, r, r} }

// oval is the ellipse that a box holds.
func oval(x, y, w, h float64) Path {
	cx, cy, rx, ry := x+w/2, y+h/2, w/2, h/2
	var p Path
	p.add(moveTo, cx+rx, cy)
	p.add(cubicTo, cx+rx, cy+kappa*ry, cx+kappa*rx, cy+ry, cx, cy+ry)
	p.add(cubicTo, cx-kappa*rx, cy+ry, cx-rx, cy+kappa*ry, cx-rx, cy)
	p.add(cubicTo, cx-rx, cy-kappa*ry, cx-kappa*rx, cy-ry, cx, cy-ry)
	p.add(cubicTo, cx+kappa*rx, cy-ry, cx+rx, cy-kappa*ry, cx+rx, cy)
	p.add(closing)
	return p
}

// straight is a line through some places.
func straight(xy ...float64) Path {
	var p Path
	for i := 0; i+1 < len(xy); i += 2 {
		op := byte(lineTo)
		if i == 0 {
			op = moveTo
		}
		p.add(op, xy[i], xy[i+1])
	}
	return p
}

// flat gives a path as places along it, piece by piece, no further from it than a
// tolerance where a matrix has mapped it.
func (p Path) flat(m Matrix, tolerance float64) []line {
	var all []line
	var now line
	put := func(x, y float64) { now.at = append(now.at, [2]float64{x, y}) }
	end := func(closed bool) {
		if len(now.at) > 0 {
			now.closed = closed
			all = append(all, now)
		}
		now = line{}
	}
	for _, s := range p {
		var q [3][2]float64
		for i := range points(s.Op) {
			q[i][0], q[i][1] = m.to(s.Points[i][0], s.Points[i][1])
		}
		switch s.Op {
		case moveTo:
			end(false)
			put(q[0][0], q[0][1])
		case lineTo:
			put(q[0][0], q[0][1])
		case quadTo:
			a := now.at[len(now.at)-1]
			for i, n := 1, steps(tolerance, a, q[0], q[1]); i <= n; i++ {
				t := float64(i) / float64(n)
				u := 1 - t
				put(u*u*a[0]+2*u*t*q[0][0]+t*t*q[1][0], u*u*a[1]+2*u*t*q[0][1]+t*t*q[1][1])
			}
		case cubicTo:
			a := now.at[len(now.at)-1]
			for i, n := 1, steps(tolerance, a, q[0], q[1], q[2]); i <= n; i++ {
				t := float64(i) / float64(n)
				u := 1 - t
				b0, b1, b2, b3 := u*u*u, 3*u*u*t, 3*u*t*t, t*t*t
				put(b0*a[0]+b1*q[0][0]+b2*q[1][0]+b3*q[2][0], b0*a[1]+b1*q[0][1]+b2*q[1][1]+b3*q[2][1])
			}
		case closing:
			if len(now.at) == 0 {
				continue
			}
			first := now.at[0]
			end(true)
			put(first[0], first[1])
		}
	}
	if len(now.at) > 1 || len(all) == 0 {
		end(false)
	}
	return all
}

// line is places that are joined by straight pieces.
type line struct {
	at     [][2]float64
	closed bool
}

// steps is in how many straight pieces a curve is drawn: its handles' bend over the
// tolerance, of which the distance of a chord grows with the square of its length.
func steps(tolerance float64, p ...[2]float64) int {
	bend := 0.0
	for i := 2; i < len(p); i++ {
		bend = max(bend, math.Hypot(p[i][0]-2*p[i-1][0]+p[i-2][0], p[i][1]-2*p[i-1][1]+p[i-2][1]))
	}
	n := math.Ceil(math.Sqrt(0.75 * bend / tolerance))
	return int(max(1, min(n, 200)))
}

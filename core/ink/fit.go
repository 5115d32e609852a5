package ink

import (
	"errors"
	"math"

	"gonum.org/v1/gonum/mat"
)

// ErrNoFit says that points do not determine the figure.
var ErrNoFit = errors.New("the points do not determine the figure")

// Circle is a centre and a radius.
type Circle struct {
	Centre Point
	Radius float64
}

// FitCircle is the circle with the least sum of squared distances to the
// points, by Gauss-Newton (Levenberg's damping) from Taubin's algebraic fit.
// Gander, Golub & Strebel (1994) and Taubin (1991), recalled from memory.
func FitCircle(points []Point) (Circle, error) {
	c, err := Taubin(points)
	if err != nil {
		return c, err
	}
	cost := func(c Circle) float64 {
		sum := 0.0
		for _, p := range points {
			d := c.Centre.to(p) - c.Radius
			sum += d * d
		}
		return sum
	}
	best, damp := cost(c), 1e-4
	for range 200 {
		// Normal equations of the residuals |p - centre| - radius.
		var n [3][3]float64
		var g [3]float64
		for _, p := range points {
			d := c.Centre.to(p)
			if d == 0 {
				continue
			}
			row := [3]float64{(c.Centre.X - p.X) / d, (c.Centre.Y - p.Y) / d, -1}
			for i := range 3 {
				g[i] -= row[i] * (d - c.Radius)
				for j := range 3 {
					n[i][j] += row[i] * row[j]
				}
			}
		}
		for i := range 3 {
			n[i][i] *= 1 + damp
		}
		step, ok := solve3(n, g)
		if !ok {
			return c, ErrNoFit
		}
		next := Circle{Point{c.Centre.X + step[0], c.Centre.Y + step[1]}, c.Radius + step[2]}
		after := cost(next)
		if after > best {
			if damp *= 10; damp > 1e12 {
				break
			}
			continue
		}
		c, best, damp = next, after, damp/10
		if math.Abs(
			step[0],
		)+math.Abs(
			step[1],
		)+math.Abs(
			step[2],
		) <= 1e-13*(c.Radius+math.Abs(c.Centre.X)+math.Abs(c.Centre.Y)) {
			break
		}
	}
	return c, nil
}

// Taubin is Taubin's algebraic circle fit (1991, recalled from memory): Newton's
// method from zero on the characteristic polynomial of the moments.
func Taubin(points []Point) (Circle, error) {
	n := float64(len(points))
	if n < 3 {
		return Circle{}, ErrNoFit
	}
	var mean Point
	for _, p := range points {
		mean.X, mean.Y = mean.X+p.X/n, mean.Y+p.Y/n
	}
	var xx, yy, xy, xz, yz, zz float64
	for _, p := range points {
		d := p.sub(mean)
		z := d.dot(d)
		xx, yy, xy = xx+d.X*d.X/n, yy+d.Y*d.Y/n, xy+d.X*d.Y/n
		xz, yz, zz = xz+d.X*z/n, yz+d.Y*z/n, zz+z*z/n
	}
	z := xx + yy
	cov := xx*yy - xy*xy
	a3 := 4 * z
	a2 := -3*z*z - zz
	a1 := (zz-z*z)*z + 4*cov*z - xz*xz - yz*yz
	a0 := xz*(xz*yy-yz*xy) + yz*(yz*xx-xz*xy) - (zz-z*z)*cov
	x := 0.0
	for range 100 {
		y := a0 + x*(a1+x*(a2+x*a3))
		slope := a1 + x*(2*a2+x*3*a3)
		next := x - y/slope
		if math.IsNaN(next) || math.Abs(next-x) <= 1e-15*math.Abs(next) {
			break
		}
		x = next
	}
	det := x*x - x*z + cov
	if det == 0 || math.Abs(det) < 1e-14*z*z {
		return Circle{}, ErrNoFit
	}
	cx := (xz*(yy-x) - yz*xy) / det / 2
	cy := (yz*(xx-x) - xz*xy) / det / 2
	return Circle{Point{mean.X + cx, mean.Y + cy}, math.Sqrt(cx*cx + cy*cy + z)}, nil
}

// Ellipse is a centre, the half axes (the larger first) and the direction of
// the larger one in radians, from -pi/2 to pi/2.
type Ellipse struct {
	Centre       Point
	Major, Minor float64
	Turn         float64
}

// FitEllipse is the direct least-squares fit of an ellipse (Fitzgibbon, Pilu &
// Fisher 1999, in the form of Halir & Flusser 1998, recalled from memory). It
// is not the geometric fit: it draws thin ellipses a little fatter.
func FitEllipse(points []Point) (Ellipse, error) {
	if len(points) < 5 {
		return Ellipse{}, ErrNoFit
	}
	// Centred and scaled, so that the sums keep their digits.
	var mean Point
	for _, p := range points {
		mean.X, mean.Y = mean.X+p.X/float64(len(points)), mean.Y+p.Y/float64(len(points))
	}
	size := 0.0
	for _, p := range points {
		size = max(size, math.Abs(p.X-mean.X), math.Abs(p.Y-mean.Y))
	}
	if size == 0 {
		return Ellipse{}, ErrNoFit
	}
	var s1, s2, s3 mat.Dense
	quadratic, linear := mat.NewDense(len(points), 3, nil), mat.NewDense(len(points), 3, nil)
	for i, p := range points {
		x, y := (p.X-mean.X)/size, (p.Y-mean.Y)/size
		quadratic.SetRow(i, []float64{x * x, x * y, y * y})
		linear.SetRow(i, []float64{x, y, 1})
	}
	s1.Mul(quadratic.T(), quadratic)
	s2.Mul(quadratic.T(), linear)
	s3.Mul(linear.T(), linear)
	var t, m mat.Dense
	if err := t.Solve(&s3, s2.T()); err != nil {
		return Ellipse{}, ErrNoFit
	}
	t.Scale(-1, &t)
	m.Mul(&s2, &t)
	m.Add(&s1, &m)
	// The inverse of the constraint 4ac - b2 = 1, from the left.
	bound := mat.NewDense(3, 3, []float64{0, 0, .5, 0, -1, 0, .5, 0, 0})
	m.Mul(bound, mat.DenseCopyOf(&m))
	var eigen mat.Eigen
	if !eigen.Factorize(&m, mat.EigenRight) {
		return Ellipse{}, ErrNoFit
	}
	var vectors mat.CDense
	eigen.VectorsTo(&vectors)
	for k := range 3 {
		a, b, c := real(vectors.At(0, k)), real(vectors.At(1, k)), real(vectors.At(2, k))
		if 4*a*c-b*b <= 0 || imag(eigen.Values(nil)[k]) != 0 {
			continue
		}
		d := t.At(0, 0)*a + t.At(0, 1)*b + t.At(0, 2)*c
		e := t.At(1, 0)*a + t.At(1, 1)*b + t.At(1, 2)*c
		f := t.At(2, 0)*a + t.At(2, 1)*b + t.At(2, 2)*c
		return fromConic(a, b, c, d, e, f, mean, size)
	}
	return Ellipse{}, ErrNoFit
}

// fromConic reads an ellipse from a x2 + b xy + c y2 + d x + e y + f = 0 in
// centred and scaled coordinates.
func fromConic(a, b, c, d, e, f float64, mean Point, size float64) (Ellipse, error) {
	det := 4*a*c - b*b
	x, y := (b*e-2*c*d)/det, (b*d-2*a*e)/det
	rest := f + (d*x+e*y)/2
	spread := math.Hypot(a-c, b)
	one, two := -2*rest/(a+c+spread), -2*rest/(a+c-spread)
	if !(one > 0 && two > 0) {
		return Ellipse{}, ErrNoFit
	}
	// The direction of the larger axis belongs to the smaller eigenvalue.
	turn := math.Atan2(b, a-c) / 2
	if a+c > 0 {
		turn += math.Pi / 2
	}
	major, minor := math.Sqrt(max(one, two)), math.Sqrt(min(one, two))
	for turn > math.Pi/2 {
		turn -= math.Pi
	}
	return Ellipse{Point{mean.X + size*x, mean.Y + size*y}, size * major, size * minor, turn}, nil
}

// solve3 solves three linear equations by Cramer's rule.
func solve3(n [3][3]float64, g [3]float64) (x [3]float64, ok bool) {
	det := func(m [3][3]float64) float64 {
		return m[0][0]*(m[1][1]*m[2][2]-m[1][2]*m[2][1]) - m[0][1]*(m[1][0]*m[2][2]-m[1][2]*m[2][0]) +
			m[0][2]*(m[1][0]*m[2][1]-m[1][1]*m[2][0])
	}
	d := det(n)
	if d == 0 {
		return x, false
	}
	for k := range 3 {
		m := n
		for i := range 3 {
			m[i][k] = g[i]
		}
		x[k] = det(m) / d
	}
	return x, true
}

package ink

import (
	"cmp"
	"math"
	"slices"
)

// Area is the area of a polygon whose last point joins the first, without
// sign. The shoelace formula, taken from the first point, so that a small
// polygon far from the origin keeps its digits.
func Area(polygon []Point) float64 {
	sum := 0.0
	for i := 1; i+1 < len(polygon); i++ {
		sum += polygon[i].sub(polygon[0]).cross(polygon[i+1].sub(polygon[0]))
	}
	return math.Abs(sum) / 2
}

// Centroid is the centre of a polygon's area; of a polygon without area, the
// mean of its points.
func Centroid(polygon []Point) Point {
	var sum, mean Point
	twice := 0.0
	for i, p := range polygon {
		a := p.sub(polygon[0])
		mean.X, mean.Y = mean.X+a.X/float64(len(polygon)), mean.Y+a.Y/float64(len(polygon))
		b := polygon[(i+1)%len(polygon)].sub(polygon[0])
		c := a.cross(b)
		twice += c
		sum.X, sum.Y = sum.X+(a.X+b.X)*c, sum.Y+(a.Y+b.Y)*c
	}
	if twice != 0 {
		mean = Point{sum.X / (3 * twice), sum.Y / (3 * twice)}
	}
	return Point{polygon[0].X + mean.X, polygon[0].Y + mean.Y}
}

// Perimeter is the length of a polygon's outline.
func Perimeter(polygon []Point) float64 {
	if len(polygon) == 0 {
		return 0
	}
	return Length(polygon) + polygon[len(polygon)-1].to(polygon[0])
}

// Inside reports whether p lies in a polygon by the even-odd rule. A point on
// an edge may count either way.
func Inside(polygon []Point, p Point) bool {
	inside := false
	for i, a := range polygon {
		b := polygon[(i+1)%len(polygon)]
		if (a.Y > p.Y) != (b.Y > p.Y) && p.X < a.X+(p.Y-a.Y)*(b.X-a.X)/(b.Y-a.Y) {
			inside = !inside
		}
	}
	return inside
}

// Hull is the convex hull of points, counter-clockwise where y points up, from
// the leftmost (of those the lowest) point on. Points on an edge are left out.
// Andrew's monotone chain.
func Hull(points []Point) []Point {
	sorted := slices.Clone(points)
	slices.SortFunc(sorted, func(a, b Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
	sorted = slices.Compact(sorted)
	if len(sorted) < 3 {
		return sorted
	}
	half := func(points []Point) []Point {
		var chain []Point
		for _, p := range points {
			for n := len(chain); n >= 2 && chain[n-1].sub(chain[n-2]).cross(p.sub(chain[n-1])) <= 0; n-- {
				chain = chain[:n-1]
			}
			chain = append(chain, p)
		}
		return chain[:len(chain)-1]
	}
	lower := half(sorted)
	slices.Reverse(sorted)
	return append(lower, half(sorted)...)
}

// Box is a rectangle that may be turned: its centre, its half sides along and
// across the direction Turn (radians).
type Box struct {
	Centre      Point
	Along, Wide float64
	Turn        float64
}

// Area is the area of the box.
func (b Box) Area() float64 { return 4 * b.Along * b.Wide }

// SmallestBox is the rectangle of least area around points. One of its sides
// lies on an edge of the convex hull (Freeman & Shapira 1975, recalled from
// memory), so that each edge is tried.
func SmallestBox(points []Point) Box {
	hull := Hull(points)
	if len(hull) == 0 {
		return Box{}
	}
	best, bestArea := Box{Centre: hull[0]}, math.Inf(1)
	for i, a := range hull {
		edge := hull[(i+1)%len(hull)].sub(a)
		turn := math.Atan2(edge.Y, edge.X)
		u, v := Point{math.Cos(turn), math.Sin(turn)}, Point{-math.Sin(turn), math.Cos(turn)}
		left, right, top, bottom := math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
		for _, p := range hull {
			d := p.sub(a)
			left, right = min(left, d.dot(u)), max(right, d.dot(u))
			top, bottom = min(top, d.dot(v)), max(bottom, d.dot(v))
		}
		if area := (right - left) * (bottom - top); area < bestArea {
			mx, my := (left+right)/2, (top+bottom)/2
			centre := Point{a.X + mx*u.X + my*v.X, a.Y + mx*u.Y + my*v.Y}
			best, bestArea = Box{centre, (right - left) / 2, (bottom - top) / 2, turn}, area
		}
	}
	return best
}

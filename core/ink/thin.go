package ink

import "math"

// Thin gives the indices of the points that a line can do with: every point
// left out lies within epsilon of the thinned line. Ramer (1972), Douglas &
// Peucker (1973), with the distance to the segment, not to the infinite line.
func Thin(points []Point, epsilon float64) []int {
	if len(points) < 3 {
		kept := make([]int, len(points))
		for i := range kept {
			kept[i] = i
		}
		return kept
	}
	keep := make([]bool, len(points))
	keep[0], keep[len(points)-1] = true, true
	spans := [][2]int{{0, len(points) - 1}}
	for len(spans) > 0 {
		first, last := spans[len(spans)-1][0], spans[len(spans)-1][1]
		spans = spans[:len(spans)-1]
		far, at := epsilon, 0
		for i := first + 1; i < last; i++ {
			if d, _ := toSegment(points[i], points[first], points[last]); d > far {
				far, at = d, i
			}
		}
		if at > 0 {
			keep[at] = true
			spans = append(spans, [2]int{first, at}, [2]int{at, last})
		}
	}
	var kept []int
	for i, k := range keep {
		if k {
			kept = append(kept, i)
		}
	}
	return kept
}

// Smooth gives a flat stroke with the tremor taken out: each point becomes the
// mean of its surroundings, weighted by a bell curve whose standard deviation
// is a fiftieth of the line's length, at most 24 units. Beyond its ends the
// line is thought to go on turned around them, so that the ends stay. The
// result is thinned to within half a unit.
func Smooth(flat []float64) []float64 {
	points := Points(flat)
	n := len(points)
	length := Length(points)
	sigma := min(24, length/50)
	if n < 3 || sigma == 0 {
		return flat
	}
	way := make([]float64, n) // the way along the line up to each point
	for i := 1; i < n; i++ {
		way[i] = way[i-1] + points[i-1].to(points[i])
	}
	// at gives the point with a number before 0 or after n-1, too, its way, and
	// for how much of the line it stands; ok is false beyond a whole line.
	at := func(j int) (p Point, along, share float64, ok bool) {
		k, end, turns := j, 0, false
		switch {
		case j < 0:
			k, end, turns = -j, 0, true
		case j >= n:
			k, end, turns = 2*(n-1)-j, n-1, true
		}
		if k < 0 || k >= n {
			return p, 0, 0, false
		}
		p, along, share = points[k], way[k], way[min(k+1, n-1)]-way[max(k-1, 0)]
		if turns {
			p, along = Point{2*points[end].X - p.X, 2*points[end].Y - p.Y}, 2*way[end]-along
		}
		return p, along, share, true
	}
	smooth := make([]Point, n)
	for i := range points {
		var sum Point
		weights := 0.0
		add := func(j int) bool {
			p, along, share, ok := at(j)
			d := (along - way[i]) / sigma
			if !ok || math.Abs(d) > 3 {
				return false
			}
			w := math.Exp(-d*d/2) * share
			sum.X, sum.Y, weights = sum.X+w*p.X, sum.Y+w*p.Y, weights+w
			return true
		}
		for j := i; add(j); j++ {
		}
		for j := i - 1; add(j); j-- {
		}
		if weights == 0 {
			smooth[i] = points[i]
			continue
		}
		smooth[i] = Point{sum.X / weights, sum.Y / weights}
	}
	smooth[0], smooth[n-1] = points[0], points[n-1]
	var out []float64
	for _, i := range Thin(smooth, 0.5) {
		out = append(out, smooth[i].X, smooth[i].Y, flat[Per*i+2])
	}
	return out
}

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
// is a fiftieth of the line's length, at most 24 units. The ends stay, and near
// them the bell narrows. The result is thinned to within half a unit.
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
	smooth := make([]Point, n)
	for i := range points {
		s := min(sigma, way[i]/2, (length-way[i])/2)
		if s <= 0 {
			smooth[i] = points[i]
			continue
		}
		var sum Point
		weights := 0.0
		add := func(j int) bool {
			d := (way[j] - way[i]) / s
			if math.Abs(d) > 3 {
				return false
			}
			// A point stands for the stretch of line around it.
			w := math.Exp(-d*d/2) * (way[min(j+1, n-1)] - way[max(j-1, 0)])
			sum.X, sum.Y, weights = sum.X+w*points[j].X, sum.Y+w*points[j].Y, weights+w
			return true
		}
		for j := i; j < n && add(j); j++ {
		}
		for j := i - 1; j >= 0 && add(j); j-- {
		}
		if weights == 0 {
			smooth[i] = points[i]
			continue
		}
		smooth[i] = Point{sum.X / weights, sum.Y / weights}
	}
	var out []float64
	for _, i := range Thin(smooth, 0.5) {
		out = append(out, smooth[i].X, smooth[i].Y, flat[Per*i+2])
	}
	return out
}

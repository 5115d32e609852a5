package ink

import (
	"cmp"
	"math"
	"slices"
)

// ellipse fits circles and ellipses.
func ellipse(loop []Point) Guess {
	e, err := FitEllipse(loop)
	if err != nil || e.Minor < 0.2*e.Major {
		return Guess{}
	}
	sum := 0.0
	for _, p := range loop {
		// The way to the outline, near enough: the gradient's distance.
		d := p.sub(e.Centre)
		u := (d.X*math.Cos(e.Turn) + d.Y*math.Sin(e.Turn)) / e.Major
		v := (-d.X*math.Sin(e.Turn) + d.Y*math.Cos(e.Turn)) / e.Minor
		level := u*u + v*v - 1
		slope := 2 * math.Hypot(u/e.Major, v/e.Minor)
		off := level / slope
		sum += off * off
	}
	misfit := math.Sqrt(sum/float64(len(loop))) / math.Sqrt(e.Major*e.Minor)
	box := Box{e.Centre, e.Major, e.Minor, e.Turn}
	if e.Minor > 0.86*e.Major {
		r := (e.Major + e.Minor) / 2
		box = Box{e.Centre, r, r, 0}
	}
	return Guess{Form: Ellipsoid, Confidence: sureness(misfit, 0.062), Box: box.upright()}
}

// upright gives the box with its sides swapped or its turn dropped so that it
// stands straight where it nearly does.
func (b Box) upright() Box {
	b.Turn = math.Remainder(b.Turn, math.Pi)
	if math.Abs(b.Turn) > math.Pi/4 {
		b.Along, b.Wide = b.Wide, b.Along
		b.Turn = math.Remainder(b.Turn+math.Pi/2, math.Pi)
	}
	if math.Abs(b.Turn) < 14*math.Pi/180 {
		b.Turn = 0
	}
	return b
}

// misfit is the root mean square distance of a loop to a polygon's outline, in
// parts of the root of its area.
func misfit(loop, polygon []Point) float64 {
	sum := 0.0
	for _, p := range loop {
		nearest := math.Inf(1)
		for i, a := range polygon {
			d, _ := toSegment(p, a, polygon[(i+1)%len(polygon)])
			nearest = min(nearest, d)
		}
		sum += nearest * nearest
	}
	return math.Sqrt(sum/float64(len(loop))) / math.Sqrt(Area(polygon)+1)
}

// roundness is how far the corners of a polygon stand out beyond a loop, in
// parts of the root of its area: little for corners, much for a blot's lobes.
func roundness(loop, polygon []Point) float64 {
	worst := 0.0
	for _, p := range polygon {
		nearest := math.Inf(1)
		for _, q := range loop {
			nearest = min(nearest, p.to(q))
		}
		worst = max(worst, nearest)
	}
	return worst / math.Sqrt(Area(polygon)+1)
}

// corners gives the k points of a loop that its polygon can least do without:
// again and again the one that spans the smallest triangle with its neighbours
// is left out (Visvalingam & Whyatt 1993, recalled from memory).
func corners(loop []Point, k int) []int {
	kept := make([]int, len(loop))
	for i := range kept {
		kept[i] = i
	}
	for len(kept) > k {
		least, drop := math.Inf(1), 0
		for i := range kept {
			a, b, c := loop[kept[(i+len(kept)-1)%len(kept)]], loop[kept[i]], loop[kept[(i+1)%len(kept)]]
			if area := math.Abs(b.sub(a).cross(c.sub(a))); area < least {
				least, drop = area, i
			}
		}
		kept = slices.Delete(kept, drop, drop+1)
	}
	return kept
}

// edges fits a straight line to each stretch of a loop between corners, the
// fifth of it nearest to each corner left out because hands round corners, and
// returns where neighbouring lines meet.
func edges(loop []Point, kept []int) ([]Point, bool) {
	type line struct{ through, along Point }
	lines := make([]line, len(kept))
	for i, from := range kept {
		n := (kept[(i+1)%len(kept)] - from + len(loop)) % len(loop)
		skip := n / 5
		var stretch []Point
		for k := skip; k <= n-skip; k++ {
			stretch = append(stretch, loop[(from+k)%len(loop)])
		}
		if len(stretch) < 2 {
			return nil, false
		}
		var m Point
		for _, p := range stretch {
			m.X, m.Y = m.X+p.X/float64(len(stretch)), m.Y+p.Y/float64(len(stretch))
		}
		var xx, xy, yy float64
		for _, p := range stretch {
			d := p.sub(m)
			xx, xy, yy = xx+d.X*d.X, xy+d.X*d.Y, yy+d.Y*d.Y
		}
		turn := math.Atan2(2*xy, xx-yy) / 2
		lines[i] = line{m, Point{math.Cos(turn), math.Sin(turn)}}
	}
	meet := make([]Point, len(kept))
	for i := range lines {
		a, b := lines[(i+len(lines)-1)%len(lines)], lines[i]
		det := a.along.cross(b.along)
		if math.Abs(det) < 0.2 {
			return nil, false
		}
		t := b.through.sub(a.through).cross(b.along) / det
		meet[i] = Point{a.through.X + t*a.along.X, a.through.Y + t*a.along.Y}
	}
	return meet, true
}

// angle is the inner angle at b in degrees.
func angle(a, b, c Point) float64 {
	u, v := a.sub(b), c.sub(b)
	return math.Abs(math.Atan2(u.cross(v), u.dot(v))) * 180 / math.Pi
}

func triangle(loop []Point) Guess {
	meet, ok := edges(loop, corners(loop, 3))
	if !ok {
		return Guess{}
	}
	sharpest := 180.0
	for i := range meet {
		sharpest = min(sharpest, angle(meet[(i+2)%3], meet[i], meet[(i+1)%3]))
	}
	if sharpest < 18 {
		return Guess{}
	}
	// Its base is the most level side that the tip stands above or below.
	best := Guess{}
	least := math.Inf(1)
	for i := range meet {
		a, b, tip := meet[i], meet[(i+1)%3], meet[(i+2)%3]
		base := a.to(b)
		u := Point{(b.X - a.X) / base, (b.Y - a.Y) / base}
		if u.cross(tip.sub(a)) > 0 { // look along the base so that the tip is up
			u = Point{-u.X, -u.Y}
		}
		down := Point{-u.Y, u.X}
		middle := a.at(b, 0.5)
		lean, height := tip.sub(middle).dot(u)/base, middle.sub(tip).dot(down)
		tilt := math.Abs(math.Remainder(math.Atan2(u.Y, u.X), math.Pi))
		if math.Abs(lean) > 0.56 || tilt >= least {
			continue
		}
		least = tilt
		turn := math.Atan2(u.Y, u.X)
		if level := math.Round(turn/math.Pi) * math.Pi; math.Abs(turn-level) < 12*math.Pi/180 {
			turn = level
		}
		if math.Abs(lean) < 0.07 {
			lean = 0
		}
		if math.Abs(lean) > 0.43 {
			lean = math.Copysign(0.5, lean)
		}
		centre := Point{middle.X - down.X*height/2, middle.Y - down.Y*height/2}
		best = Guess{Form: Triangle, Box: Box{centre, base / 2, height / 2, turn}, Lean: lean}
	}
	best.Confidence = sureness(max(misfit(loop, meet)/0.05, roundness(loop, meet)/0.16), 1)
	return best
}

// quadrangle fits rectangles and diamonds; other figures of four sides are
// left alone.
func quadrangle(loop []Point) Guess {
	meet, ok := edges(loop, corners(loop, 4))
	if !ok {
		return Guess{}
	}
	fit := max(misfit(loop, meet)/0.055, roundness(loop, meet)/0.16)
	var sides, angles [4]float64
	skew := 0.0
	for i := range meet {
		sides[i] = meet[i].to(meet[(i+1)%4])
		angles[i] = angle(meet[(i+3)%4], meet[i], meet[(i+1)%4])
		skew = max(skew, math.Abs(angles[i]-90))
	}
	one, two := meet[2].sub(meet[0]), meet[3].sub(meet[1])
	if math.Abs(one.X) < math.Abs(one.Y) {
		one, two = two, one
	}
	// How far the diagonals are from level and plumb, in degrees.
	cross := max(math.Abs(math.Atan2(one.Y, math.Abs(one.X))),
		math.Abs(math.Atan2(two.X, math.Abs(two.Y)))) * 180 / math.Pi
	uneven := math.Log(slices.Max(sides[:]) / slices.Min(sides[:]))
	low, high := bounds(meet)
	centre := Centroid(meet)
	if uneven < 0.5 && cross < 20 {
		box := Box{centre, (high.X - low.X) / 2, (high.Y - low.Y) / 2, 0}
		return Guess{Form: Diamond, Confidence: sureness(max(fit, cross/20, uneven/0.5), 1), Box: box}
	}
	along := meet[1].sub(meet[0])
	box := Box{centre, (sides[0] + sides[2]) / 4, (sides[1] + sides[3]) / 4, math.Atan2(along.Y, along.X)}.upright()
	if r := box.Along / box.Wide; r > 0.88 && r < 1/0.88 {
		box.Along = (box.Along + box.Wide) / 2
		box.Wide = box.Along
	}
	return Guess{Form: Rectangle, Confidence: sureness(max(fit, skew/24), 1), Box: box}
}

// star fits stars of five points: drawn around their outline, or in five
// strokes that cross each other.
func star(loop []Point) Guess {
	c := Centroid(Hull(loop))
	around := func(p Point) float64 { return math.Atan2(p.Y-c.Y, p.X-c.X) }
	tips := func(kept []int) (outer []Point) {
		for _, k := range kept {
			outer = append(outer, loop[k])
		}
		return outer
	}
	try := func(outer []Point, polygon []Point, inner float64) Guess {
		byAngle := slices.Clone(outer)
		slices.SortFunc(byAngle, func(p, q Point) int { return cmp.Compare(around(p), around(q)) })
		worst, radius := 0.0, 0.0
		for i, p := range byAngle {
			step := math.Remainder(around(byAngle[(i+1)%5])-around(p), 2*math.Pi)
			worst = max(worst, math.Abs(step-2*math.Pi/5))
			radius += c.to(p) / 5
		}
		if inner > 0.75*radius {
			return Guess{}
		}
		low, high := bounds(outer)
		box := Box{Point{(low.X + high.X) / 2, (low.Y + high.Y) / 2}, (high.X - low.X) / 2, (high.Y - low.Y) / 2, 0}
		return Guess{Form: Star, Confidence: sureness(max(misfit(loop, polygon)/0.05, worst/0.5), 1), Box: box}
	}
	five := tips(corners(loop, 5))
	if turns := windings(loop, c); turns == 2 {
		return try(five, five, 0)
	}
	ten := tips(corners(loop, 10))
	for first := range 2 {
		var outer []Point
		inner := 0.0
		alternate := true
		for i := range 5 {
			p, q := ten[2*i+first], ten[(2*i+first+1)%10]
			outer, inner = append(outer, p), inner+c.to(q)/5
			alternate = alternate && c.to(p) > 1.15*c.to(q)
		}
		if alternate {
			return try(outer, ten, inner)
		}
	}
	return Guess{}
}

// windings counts how often a loop goes around a point.
func windings(loop []Point, c Point) int {
	sum := 0.0
	for i, p := range loop {
		q := loop[(i+1)%len(loop)]
		sum += math.Atan2(p.sub(c).cross(q.sub(c)), p.sub(c).dot(q.sub(c)))
	}
	return int(math.Round(math.Abs(sum) / (2 * math.Pi)))
}

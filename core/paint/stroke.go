package paint

import (
	"math"

	"alpenglow/core/ink"
	"alpenglow/core/lesson"
)

// nib is how a pen writes: how much thinner it is under less pressure (0 to 1), how
// evenly its edge runs (in line widths), and how calmly its middle follows the hand.
// The numbers are those of ui/src/frame/paint/outline.ts.
type nib struct{ thinning, smoothing, streamline float64 }

var nibs = map[lesson.Nib]nib{
	lesson.NibPen: {0.35, 0.6, 0.35}, lesson.NibMarker: {0, 0.5, 0.35}, lesson.NibHighlighter: {0, 0.5, 0.5},
	lesson.NibBrush: {0.85, 0.7, 0.4},
}

// inkWide is how wide a line's ink is at most, of the width that was chosen.
const inkWide = 1.4

// stroke paints a drawn line.
func (p *painter) stroke(e lesson.Element) {
	p.at = still // its places are on the frame
	flat := e.Drawn()
	points := make([]vertex, len(flat)/ink.Per)
	for i := range points {
		points[i] = vertex{ink.Point{X: flat[ink.Per*i], Y: flat[ink.Per*i+1]}, flat[ink.Per*i+2]}
	}
	if len(points) == 0 {
		return
	}
	c := p.ink(e.Stroke.Ink)
	item := Item{Path: outline(points, e.Stroke.Width*inkWide, e.Stroke.Nib), Fill: &c}
	if e.Stroke.Nib == lesson.NibHighlighter {
		item.Mix, item.Alpha = p.shine(), 0.4
	}
	p.put(item)
}

// vertex is a place of a drawn line with the pressure there.
type vertex struct {
	at       ink.Point
	pressure float64
}

// joint is a place of a line's middle: which way the line came there (backwards, of length 1), how far from the
// joint before, how far along the whole, and half of its width there.
type joint struct {
	at          ink.Point
	back        ink.Point
	step, along float64
	pressure    float64
	radius      float64
}

// outline is the edge of the ink of a line of a width: a smooth closed path.
func outline(points []vertex, size float64, of lesson.Nib) Path {
	joints := thickened(spine(points, size, nibs[of].streamline), points, size, of)
	return smooth(edges(joints, size*nibs[of].smoothing))
}

// spine is the middle of a line, calmer than the hand was: each place is drawn only a part of the way towards where
// the hand went. What lies nearer to its beginning than the line is wide is left away.
func spine(points []vertex, size, streamline float64) []joint {
	const follows = 0.15 // the least part of the way
	part := follows + (1-streamline)*(1-follows)
	switch len(points) {
	case 1: // a dot
		p := points[0]
		p.at.X, p.at.Y = p.at.X+1, p.at.Y+1
		points = []vertex{points[0], p}
	case 2: // a straight line has some joints between, so that its ends are round
		a, b := points[0], points[1]
		points = []vertex{a}
		for i := 1; i <= 4; i++ {
			t := float64(i) / 4
			points = append(points,
				vertex{ink.Point{X: a.at.X + t*(b.at.X-a.at.X), Y: a.at.Y + t*(b.at.Y-a.at.Y)}, b.pressure})
		}
	}
	joints := []joint{{at: points[0].at, pressure: points[0].pressure}}
	along, begun := 0.0, false
	for i := 1; i < len(points); i++ {
		before, to, last := joints[len(joints)-1].at, points[i].at, i == len(points)-1
		if !last {
			to = ink.Point{X: before.X + part*(to.X-before.X), Y: before.Y + part*(to.Y-before.Y)}
		}
		step := math.Hypot(to.X-before.X, to.Y-before.Y)
		if step == 0 {
			continue
		}
		along += step
		if !last && !begun && along < size {
			continue
		}
		begun = true
		joints = append(joints, joint{at: to, back: ink.Point{X: (before.X - to.X) / step, Y: (before.Y - to.Y) / step},
			step: step, along: along, pressure: points[i].pressure})
	}
	if len(joints) > 1 {
		joints[0].back = joints[1].back
	}
	return joints
}

// thickened gives each joint half of the line's width there. A brush that felt no pressure is thinner where the hand
// was fast.
func thickened(joints []joint, points []vertex, size float64, of lesson.Nib) []joint {
	felt := false
	for _, p := range points {
		felt = felt || p.pressure != 0.5
	}
	thinning := nibs[of].thinning
	now := joints[0].pressure
	follow := func(step float64) {
		const swift = 0.275 // how quickly the width follows the speed
		fast := min(1, step/size)
		now = min(1, now+(1-fast-now)*fast*swift)
	}
	bySpeed := of == lesson.NibBrush && !felt
	if bySpeed { // what the first joints say together
		for _, j := range joints[:min(10, len(joints))] {
			before := now
			follow(j.step)
			now = (before + now) / 2
		}
	}
	for i := range joints {
		switch {
		case thinning == 0:
			joints[i].radius = size / 2
			continue
		case bySpeed:
			follow(joints[i].step)
		default:
			now = joints[i].pressure
		}
		joints[i].radius = size * (0.5 - thinning*(0.5-now))
	}
	return joints
}

// edges walks along both sides of a line and round its ends: the corners of its edge, in order.
func edges(joints []joint, even float64) []ink.Point {
	const tail = 3 // units before the end in which no more corners are made
	n := len(joints)
	if n == 1 {
		j := joints[0]
		return arc(nil, j.at, ink.Point{X: j.at.X + j.radius, Y: j.at.Y}, 2*math.Pi, 13)
	}
	var left, right []ink.Point
	before, turned := joints[0].back, false
	whole := joints[n-1].along
	for i, j := range joints {
		last := i == n-1
		if !last && whole-j.along < tail {
			continue
		}
		next, straight := j.back, 1.0
		if !last {
			next = joints[i+1].back
			straight = j.back.X*next.X + j.back.Y*next.Y
		}
		if back := j.back.X*before.X + j.back.Y*before.Y; back < 0 && !turned || straight < 0 {
			// A sharp corner is round.
			o := ink.Point{X: before.Y * j.radius, Y: -before.X * j.radius}
			left = arc(left, j.at, ink.Point{X: j.at.X - o.X, Y: j.at.Y - o.Y}, math.Pi, 13)
			right = arc(right, j.at, ink.Point{X: j.at.X + o.X, Y: j.at.Y + o.Y}, -math.Pi, 13)
			turned = straight < 0
			continue
		}
		turned = false
		way := j.back
		if !last {
			way = ink.Point{X: next.X + straight*(j.back.X-next.X), Y: next.Y + straight*(j.back.Y-next.Y)}
		}
		o := ink.Point{X: way.Y * j.radius, Y: -way.X * j.radius}
		left = corner(left, ink.Point{X: j.at.X - o.X, Y: j.at.Y - o.Y}, even, last)
		right = corner(right, ink.Point{X: j.at.X + o.X, Y: j.at.Y + o.Y}, even, last)
		before = j.back
	}
	// From the right side back round the beginning to the left one, and round the end.
	first, end := joints[0].at, joints[n-1]
	all := arc(nil, first, right[0], math.Pi, 13)
	all = append(all, left...)
	o := ink.Point{X: -end.back.Y * end.radius, Y: end.back.X * end.radius}
	all = arc(all, end.at, ink.Point{X: end.at.X + o.X, Y: end.at.Y + o.Y}, 3*math.Pi, 29)
	for i := len(right) - 1; i >= 0; i-- {
		all = append(all, right[i])
	}
	return all
}

// corner adds a corner to a side, but where it is too near to the one before.
func corner(side []ink.Point, at ink.Point, even float64, always bool) []ink.Point {
	if n := len(side); n > 1 && !always && math.Hypot(at.X-side[n-1].X, at.Y-side[n-1].Y) <= even {
		return side
	}
	return append(side, at)
}

// arc adds places on the way from one round a middle, by an angle clockwise.
func arc(all []ink.Point, middle, from ink.Point, angle float64, steps int) []ink.Point {
	for i := range steps {
		sin, cos := math.Sincos(angle * float64(i) / float64(steps))
		x, y := from.X-middle.X, from.Y-middle.Y
		all = append(all, ink.Point{X: middle.X + x*cos - y*sin, Y: middle.Y + x*sin + y*cos})
	}
	return all
}

// smooth is a closed path that runs through the middles between corners, bent towards these.
func smooth(corners []ink.Point) Path {
	var p Path
	n := len(corners)
	between := func(i int) (x, y float64) {
		a, b := corners[i%n], corners[(i+1)%n]
		return (a.X + b.X) / 2, (a.Y + b.Y) / 2
	}
	x, y := between(0)
	p.add(moveTo, x, y)
	for i := 1; i <= n; i++ {
		x, y := between(i)
		p.add(quadTo, corners[i%n].X, corners[i%n].Y, x, y)
	}
	p.add(closing)
	return p
}

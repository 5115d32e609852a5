package ink

import (
	"math"
	"slices"
)

// Form is a clean shape that somebody may have meant to draw.
type Form string

// The forms that are recognised. A square is a rectangle and a circle an
// ellipse with equal sides.
const (
	NoForm    Form = ""
	Line      Form = "line"
	Arrow     Form = "arrow"
	Ellipsoid Form = "ellipse"
	Triangle  Form = "triangle"
	Rectangle Form = "rect"
	Diamond   Form = "diamond"
	Star      Form = "star"
)

// Guess is the clean shape for a drawn line. Lines and arrows run from From to
// To; the others fill Box, whose Turn is 0 where the drawing is about upright.
type Guess struct {
	Form       Form
	Confidence float64 // 0 to 1
	Box        Box
	// Lean is how far the tip of a triangle stands beside the middle of its
	// base, in parts of the base: -0.5 over its left end, 0.5 over its right.
	Lean     float64
	From, To Point
}

// Offer is the confidence from which on a guess is worth telling.
const Offer = 0.6

const (
	smallest = 60.0 // units; what is smaller is taken for writing
	samples  = 96   // points that a line is taken at
)

// Recognise says which shape a line means. When unsure, the guess is NoForm:
// a closed outline must fit a shape closely, and clearly better than any other.
func Recognise(points []Point) Guess {
	points = apart(points)
	if len(points) < 2 {
		return Guess{}
	}
	low, high := bounds(points)
	size := low.to(high)
	if size < smallest {
		return Guess{}
	}
	if g := straight(points); g.Form != NoForm {
		return g.ifSure()
	}
	if g := arrow(points, size); g.Form != NoForm {
		return g.ifSure()
	}
	loop, closed := outline(points)
	if !closed || min(high.X-low.X, high.Y-low.Y) < smallest/2 {
		return Guess{}
	}
	var best, second Guess
	for _, try := range []func([]Point) Guess{ellipse, triangle, quadrangle, star} {
		switch g := try(loop); {
		case g.Confidence > best.Confidence:
			best, second = g, best
		case g.Confidence > second.Confidence:
			second = g
		}
	}
	// Where two shapes fit nearly as well, neither is sure.
	best.Confidence *= min(1, 0.6+2*(best.Confidence-second.Confidence))
	return best.ifSure()
}

func (g Guess) ifSure() Guess {
	if g.Confidence < Offer {
		return Guess{}
	}
	return g
}

// sureness turns a misfit into a confidence: 1 for none, 0.6 at the bound.
func sureness(misfit, bound float64) float64 { return math.Exp(-0.51 * math.Pow(misfit/bound, 2)) }

// apart leaves out points that lie on the one before.
func apart(points []Point) []Point {
	var out []Point
	for _, p := range points {
		if len(out) == 0 || out[len(out)-1].to(p) > 0.5 {
			out = append(out, p)
		}
	}
	return out
}

func bounds(points []Point) (low, high Point) {
	low, high = points[0], points[0]
	for _, p := range points {
		low, high = Point{min(low.X, p.X), min(low.Y, p.Y)}, Point{max(high.X, p.X), max(high.Y, p.Y)}
	}
	return low, high
}

// resample gives n points at equal distances along a line, its ends included.
func resample(points []Point, n int) []Point {
	length := Length(points)
	out := []Point{points[0]}
	way := 0.0
	for i := 1; i < len(points) && len(out) < n; i++ {
		step := points[i-1].to(points[i])
		for len(out) < n {
			next := length * float64(len(out)) / float64(n-1)
			if next > way+step && !(i == len(points)-1 && len(out) == n-1) {
				break
			}
			t := 1.0
			if step > 0 {
				t = min(1, (next-way)/step)
			}
			out = append(out, points[i-1].at(points[i], t))
		}
		way += step
	}
	return out
}

// straight tells a line drawn in one go from end to end.
func straight(points []Point) Guess {
	from, to := points[0], points[len(points)-1]
	chord := from.to(to)
	// Trembling makes a line longer; going there and back does more so.
	if chord < 1.4*smallest || Length(at(points, Thin(points, 0.02*chord))) > 1.1*chord {
		return Guess{}
	}
	off := 0.0
	for _, p := range points {
		d, _ := toSegment(p, from, to)
		off = max(off, d)
	}
	return Guess{Form: Line, Confidence: sureness(off/chord, 0.05), From: from, To: to}
}

// arrow tells a shaft with a head drawn in the same line: back along one barb
// and then, over the tip or straight across, to the end of the other.
func arrow(points []Point, size float64) Guess {
	corners := at(points, Thin(points, 0.045*size))
	if len(corners) < 4 || len(corners) > 6 {
		return Guess{}
	}
	from := corners[0]
	// The tip is the first corner about as far from the beginning as any.
	far := 0.0
	for _, c := range corners {
		far = max(far, from.to(c))
	}
	tip := slices.IndexFunc(corners, func(c Point) bool { return from.to(c) > 0.93*far })
	to := corners[tip]
	shaft := from.to(to)
	head := corners[tip+1:]
	if tip > 2 || len(head) < 2 || shaft < 1.2*smallest {
		return Guess{}
	}
	if d, _ := toSegment(corners[1], from, to); tip == 2 && d > 0.08*shaft {
		return Guess{}
	}
	first, last := head[0], head[len(head)-1]
	if len(head) >= 3 && last.to(to) < 0.12*shaft {
		last = head[len(head)-2] // the head was closed at the tip
	}
	worst := 0.0
	side := func(p Point) float64 { return to.sub(from).cross(p.sub(to)) / shaft }
	if side(first)*side(last) >= 0 {
		return Guess{}
	}
	var lengths [2]float64
	for i, barb := range []Point{first, last} {
		back := from.sub(to).dot(barb.sub(to)) / shaft
		lengths[i] = to.to(barb)
		angle := math.Atan2(math.Abs(side(barb)), back) * 180 / math.Pi
		worst = max(worst, math.Abs(angle-35)/35, math.Max(0, lengths[i]/shaft-0.55)*5,
			math.Max(0, 0.1-lengths[i]/shaft)*10)
	}
	worst = max(worst, math.Abs(math.Log(lengths[0]/lengths[1]))/0.9)
	return Guess{Form: Arrow, Confidence: sureness(worst, 0.95), From: from, To: to}
}

func at(points []Point, indices []int) []Point {
	out := make([]Point, len(indices))
	for i, k := range indices {
		out[i] = points[k]
	}
	return out
}

// outline closes a line that nearly comes back to its beginning: what was
// drawn past the beginning is cut off. It returns points at equal distances
// around, the last one before the first.
func outline(points []Point) ([]Point, bool) {
	line := resample(points, 2*samples)
	ends := len(line) / 7 // how much of either end may be too much
	bestGap, from, to := math.Inf(1), 0, len(line)-1
	for i := range ends {
		for j := len(line) - 1; j >= len(line)-ends; j-- {
			// Of equal gaps the one that cuts off least.
			gap := line[i].to(line[j]) + 0.25*line[0].to(line[1])*float64(i+len(line)-1-j)
			if gap < bestGap {
				bestGap, from, to = gap, i, j
			}
		}
	}
	loop := line[from : to+1]
	if loop[0].to(loop[len(loop)-1]) > 0.1*Length(loop) {
		return nil, false
	}
	loop = append(slices.Clone(loop), loop[0])
	return resample(loop, samples+1)[:samples], true
}

package paper

import (
	"math"
	"strconv"
	"strings"
)

// Where a coordinate plane lies on the paper: below the task, with room for
// numbers at its left and lower edge.
const (
	planeLeft   = 110
	planeRight  = 1510
	planeTop    = 170
	planeBottom = 930
	tick        = 9  // units, half of a tick's length
	number      = 24 // units, the height of numbers
	past        = 34 // units that an axis goes on past its last number
)

// ticks lists the numbers of an axis: the multiples of its step in its range.
// Numbers that are almost on the range's end by a rounding error count as on it.
func (a Axis) ticks() []float64 {
	const slack = 1e-9
	first, last := math.Ceil(a.From/a.Step-slack), math.Floor(a.To/a.Step+slack)
	list := make([]float64, 0, int(last-first)+1)
	for n := first; n <= last; n++ {
		list = append(list, n*a.Step)
	}
	return list
}

// write gives a number with as many decimals as the step has, and the minus
// sign of typography (U+2212).
func (a Axis) write(v float64) string {
	decimals := 0
	for s := a.Step; decimals < 6 && math.Abs(s-math.Round(s)) > 1e-9*s; decimals++ {
		s *= 10
	}
	text := strconv.FormatFloat(v, 'f', decimals, 64)
	if strings.Trim(text, "-0.") == "" {
		return "0"
	}
	return strings.Replace(text, "-", "\u2212", 1)
}

// every says how many ticks there are for one number, so that the numbers have
// room: of the steps 1, 2, 5, 10, 20, ... the first that leaves enough.
func every(ticks int, length, room float64) int {
	for scale := 1; ; scale *= 10 {
		for _, n := range []int{1, 2, 5} {
			if length/float64(max(1, ticks))*float64(n*scale) >= room || n*scale >= ticks {
				return n * scale
			}
		}
	}
}

// widest is about the width of the widest number of an axis, in units.
func (a Axis) widest() float64 {
	most := 0
	for _, v := range a.ticks() {
		most = max(most, len([]rune(a.write(v))))
	}
	return float64(most)*number*0.6 + 16
}

// plane is a coordinate plane as it lies on the paper.
type plane struct {
	x, y                     Axis
	left, right, top, bottom float64
}

// lay fits a plane into its place. Where both axes have the same step, a unit
// is as long on one as on the other, so that circles are round.
func lay(x, y Axis) plane {
	p := plane{x, y, planeLeft, planeRight, planeTop, planeBottom}
	if x.Step != y.Step {
		return p
	}
	unit := math.Min((planeRight-planeLeft)/(x.To-x.From), (planeBottom-planeTop)/(y.To-y.From))
	w, h := unit*(x.To-x.From), unit*(y.To-y.From)
	p.left, p.top = (planeLeft+planeRight-w)/2, (planeTop+planeBottom-h)/2
	p.right, p.bottom = p.left+w, p.top+h
	return p
}

func (p plane) atX(v float64) float64 {
	return p.left + (v-p.x.From)/(p.x.To-p.x.From)*(p.right-p.left)
}

func (p plane) atY(v float64) float64 {
	return p.bottom - (v-p.y.From)/(p.y.To-p.y.From)*(p.bottom-p.top)
}

// axes draws a coordinate plane. Axes cross at zero, or at the edge nearest to
// it where zero is not on the plane.
func (p Paper) axes(d *drawing) {
	at := lay(*p.X, *p.Y)
	zeroX, zeroY := at.atX(within(0, *p.X)), at.atY(within(0, *p.Y))
	xs, ys := p.X.ticks(), p.Y.ticks()
	if !p.Bare {
		for _, v := range xs {
			d.plumb(Fine, at.atX(v), at.top, at.bottom)
		}
		for _, v := range ys {
			d.level(Fine, at.left, at.right, at.atY(v))
		}
	}
	d.level(Firm, at.left, at.right+past, zeroY)
	d.arrow(at.right+past, zeroY, false)
	d.plumb(Firm, zeroX, at.bottom, at.top-past)
	d.arrow(zeroX, at.top-past, true)

	inX := every(len(xs), at.right-at.left, p.X.widest())
	for _, v := range xs {
		x := at.atX(v)
		d.plumb(Firm, x, zeroY-tick, zeroY+tick)
		if counts(v, p.X.Step, inX) && !(isZero(v, p.X.Step) && crosses(*p.Y)) {
			d.label(x, zeroY+tick+20, number, p.X.write(v), Middle)
		}
	}
	inY := every(len(ys), at.bottom-at.top, number*1.5)
	for _, v := range ys {
		y := at.atY(v)
		d.level(Firm, zeroX-tick, zeroX+tick, y)
		if counts(v, p.Y.Step, inY) && !(isZero(v, p.Y.Step) && crosses(*p.X)) {
			d.label(zeroX-tick-8, y, number, p.Y.write(v), End)
		}
	}
	if crosses(*p.X) && crosses(*p.Y) {
		d.label(zeroX-tick-4, zeroY+tick+16, number, "0", End)
	}
	d.label(at.right+past, zeroY-28, 28, p.X.Label, End)
	d.label(zeroX+24, at.top-past+8, 28, p.Y.Label, Start)
}

// numberLine draws one axis across the middle of the paper.
func (p Paper) numberLine(d *drawing) {
	const left, right, y = 100.0, 1480.0, 560.0
	a := *p.X
	at := func(v float64) float64 { return left + (v-a.From)/(a.To-a.From)*(right-left) }
	d.level(Firm, left-past, right+past+16, y)
	d.arrow(right+past+16, y, false)
	marks := a.ticks()
	in := every(len(marks), right-left, a.widest()*1.25)
	for _, v := range marks {
		long := counts(v, a.Step, in)
		reach := 14.0
		if long {
			reach = 24
		}
		d.plumb(Firm, at(v), y-reach, y+reach)
		if long {
			d.label(at(v), y+52, 32, a.write(v), Middle)
		}
	}
	d.label(right+past, y-56, 30, a.Label, End)
}

func within(v float64, a Axis) float64 { return math.Min(a.To, math.Max(a.From, v)) }

// crosses says whether zero lies inside a range and not on its edge.
func crosses(a Axis) bool { return a.From < 0 && a.To > 0 }

func isZero(v, step float64) bool { return math.Abs(v) < step/2 }

// counts says whether a tick has its number written.
func counts(v, step float64, in int) bool {
	return math.Mod(math.Abs(math.Round(v/step)), float64(in)) == 0
}

package ink

import (
	"math"
	"math/rand/v2"
)

// hand draws like one: never straight, never quite closed, faster here and
// slower there. Its seed is fixed, so that each run draws the same.
type hand struct{ *rand.Rand }

func newHand() hand { return hand{rand.New(rand.NewPCG(2953, 1))} }

func (h hand) between(a, b float64) float64 { return a + (b-a)*h.Float64() }

// draws gives one drawing of a form, of 80 to 600 units.
func (h hand) draws(f Form) []Point {
	w := h.between(90, 600)
	tall := w * h.between(0.5, 1.6)
	switch f {
	case Line:
		a := h.between(0, 2*math.Pi)
		return h.trembling([]Point{{0, 0}, {w * math.Cos(a), w * math.Sin(a)}}, 0)
	case Arrow:
		return h.arrow(w)
	case Ellipsoid:
		turn, tilt := h.between(0, 2*math.Pi), h.between(-0.3, 0.3)
		var round []Point
		for i := range 73 {
			a := turn + 2*math.Pi*float64(i)/72
			x, y := w/2*math.Cos(a), tall/2*math.Sin(a)
			round = append(round, Point{x*math.Cos(tilt) - y*math.Sin(tilt), x*math.Sin(tilt) + y*math.Cos(tilt)})
		}
		return h.around(round[:72])
	case Triangle:
		return h.around(h.tilted([]Point{{h.between(0.1, 0.9) * w, 0}, {w, tall}, {0, tall * h.between(0.92, 1.08)}},
			math.Pi))
	case Rectangle:
		return h.around(h.tilted([]Point{{0, 0}, {w, 0}, {w, tall}, {0, tall}}, 0.14))
	case Diamond:
		return h.around(h.tilted([]Point{{w / 2, 0}, {w, tall / 2}, {w / 2, tall}, {0, tall / 2}}, 0.1))
	case Star:
		var tips []Point
		inner := h.between(0.35, 0.5)
		crossed := h.Float64() < 0.5
		for i := range 10 {
			a, r := -math.Pi/2+2*math.Pi*float64(i)/10, w/2
			if i%2 == 1 {
				r *= inner
			}
			tips = append(tips, Point{r * math.Cos(a), r * math.Sin(a)})
		}
		if crossed {
			tips = []Point{tips[0], tips[4], tips[8], tips[2], tips[6]}
		}
		return h.around(h.tilted(tips, 0.15))
	}
	panic(f)
}

func (h hand) tilted(corners []Point, most float64) []Point {
	turn := h.between(-most, most)
	out := make([]Point, len(corners))
	for i, p := range corners {
		// Corners are missed by a little.
		x, y := p.X+h.NormFloat64()*2.5, p.Y+h.NormFloat64()*2.5
		out[i] = Point{x*math.Cos(turn) - y*math.Sin(turn), x*math.Sin(turn) + y*math.Cos(turn)}
	}
	return out
}

// around draws along a closed outline from some corner, in either direction,
// and stops a little early or goes on a little too far.
func (h hand) around(corners []Point) []Point {
	n := len(corners)
	first := h.IntN(n)
	step := 1
	if h.Float64() < 0.5 {
		step = n - 1
	}
	var way []Point
	for i := range n + 1 {
		way = append(way, corners[(first+i*step)%n])
	}
	length := Length(way)
	if beyond := h.between(-0.06, 0.07); beyond < 0 {
		way = upTo(way, length*(1+beyond))
	} else {
		next := way[1]
		for i := 2; Length(way) < length*(1+beyond); i++ {
			way = append(way, next)
			next = way[i%n]
		}
		way = upTo(way, length*(1+beyond))
	}
	return h.trembling(way, 0.6)
}

func upTo(way []Point, length float64) []Point {
	out := []Point{way[0]}
	for i := 1; i < len(way); i++ {
		step := way[i-1].to(way[i])
		if step >= length {
			return append(out, way[i-1].at(way[i], length/step))
		}
		length -= step
		out = append(out, way[i])
	}
	return out
}

// arrow draws a shaft and a head without lifting the pen: over the tip to both
// barbs, straight across, or closed.
func (h hand) arrow(w float64) []Point {
	turn := h.between(0, 2*math.Pi)
	barb, open := w*h.between(0.16, 0.38), h.between(0.4, 0.8)
	end := func(side float64) Point {
		return Point{w - barb*math.Cos(open*h.between(0.85, 1.15)), side * barb * math.Sin(open*h.between(0.85, 1.15))}
	}
	side := 1.0
	if h.Float64() < 0.5 {
		side = -1
	}
	tip := func() Point { return Point{w + h.NormFloat64()*2.5, h.NormFloat64() * 2.5} }
	way := []Point{{0, 0}, tip(), end(side)}
	switch h.IntN(3) {
	case 0:
		way = append(way, tip(), end(-side))
	case 1:
		way = append(way, end(-side))
	case 2:
		way = append(way, end(-side), tip())
	}
	for i, p := range way {
		way[i] = Point{p.X*math.Cos(turn) - p.Y*math.Sin(turn), p.X*math.Sin(turn) + p.Y*math.Cos(turn)}
	}
	return h.trembling(way, 0.4)
}

// trembling follows a way with a hand that drifts slowly, trembles quickly,
// rounds corners and takes its points at uneven distances.
func (h hand) trembling(way []Point, rounds float64) []Point {
	n := 50 + h.IntN(90)
	line := resample(way, 4*n)
	size := Length(way)
	round := int(rounds * h.between(0, 0.016) * float64(len(line)))
	drift := h.between(0.002, 0.007) * size
	phase, waves := h.between(0, 6), h.between(1, 4)
	phase2, waves2 := h.between(0, 6), h.between(1, 4)
	shake := h.between(0.2, 1.3)
	var out []Point
	for i := 0; i < len(line); i += 1 + h.IntN(7) {
		var p Point
		from, to := max(0, i-round), min(len(line)-1, i+round)
		for _, q := range line[from : to+1] {
			p.X, p.Y = p.X+q.X/float64(to-from+1), p.Y+q.Y/float64(to-from+1)
		}
		t := 2 * math.Pi * float64(i) / float64(len(line))
		out = append(out, Point{
			p.X + drift*math.Sin(waves*t+phase)/2 + shake*h.NormFloat64(),
			p.Y + drift*math.Sin(waves2*t+phase2)/2 + shake*h.NormFloat64(),
		})
	}
	return out
}

// nonsense is ink that means no shape: scribbles, hatching, spirals, waves,
// and lines of writing.
func (h hand) nonsense(kind int) []Point {
	var way []Point
	size := h.between(80, 500)
	switch kind % 8 {
	case 0: // a wandering scribble
		a := h.between(0, 6)
		p := Point{}
		for range 12 + h.IntN(60) {
			a += h.NormFloat64() * 0.9
			p = Point{p.X + size/8*math.Cos(a), p.Y + size/8*math.Sin(a)}
			way = append(way, p)
		}
	case 1: // hatching
		for i := range 6 + h.IntN(14) {
			way = append(way, Point{float64(i) * size / 16, size / 2 * float64(i%2) * h.between(0.7, 1)})
		}
	case 2: // a spiral
		turns := h.between(2, 5)
		for i := range 80 {
			t := float64(i) / 79
			way = append(way, Point{size / 2 * t * math.Cos(turns*2*math.Pi*t),
				size / 2 * t * math.Sin(turns*2*math.Pi*t)})
		}
	case 3: // cursive loops, like a row of e or l
		loops, tall := float64(2+h.IntN(7)), h.between(20, 120)
		for i := range 120 {
			t := float64(i) / 119 * loops * 2 * math.Pi
			way = append(way, Point{t*tall/5 + tall/2*math.Cos(t), tall / 2 * math.Sin(t) * h.between(0.95, 1.05)})
		}
	case 4: // cursive arches, like a row of m or u
		arches, tall := float64(2+h.IntN(8)), h.between(20, 110)
		for i := range 100 {
			t := float64(i) / 99 * arches * math.Pi
			way = append(way, Point{t * tall / 4, -tall * math.Abs(math.Sin(t)) * h.between(0.85, 1)})
		}
	case 5: // a wave
		waves := h.between(1.5, 5)
		for i := range 80 {
			t := float64(i) / 79
			way = append(way, Point{size * t, size / 6 * math.Sin(waves*2*math.Pi*t)})
		}
	case 6: // a single written sign: 2, 3, 5, 6, 7, 9, S, Z, N, a
		signs := [][]Point{
			{{0, 2}, {2, 0}, {4, 0}, {6, 2}, {5, 5}, {0, 10}, {6, 10}},
			{{0, 1}, {3, 0}, {6, 2}, {3, 5}, {6, 8}, {3, 10}, {0, 9}},
			{{6, 0}, {1, 0}, {0, 5}, {4, 4}, {6, 7}, {4, 10}, {0, 9}},
			{{5, 0}, {1, 4}, {0, 8}, {3, 10}, {6, 8}, {4, 5}, {0, 7}},
			{{0, 0}, {6, 0}, {2, 10}},
			{{6, 3}, {3, 0}, {0, 3}, {3, 5}, {6, 3}, {6, 10}},
			{{6, 1}, {3, 0}, {0, 2}, {3, 5}, {6, 8}, {3, 10}, {0, 9}},
			{{0, 0}, {6, 0}, {0, 10}, {6, 10}},
			{{0, 10}, {0, 0}, {6, 10}, {6, 0}},
			{{6, 4}, {3, 3}, {0, 6}, {2, 10}, {6, 8}, {6, 3}, {7, 10}},
		}
		sign := signs[h.IntN(len(signs))]
		scale := size / 12
		for _, p := range sign {
			way = append(way, Point{scale * p.X, scale * p.Y})
		}
	case 7: // a cloud or a blot: closed, but of no shape
		a := h.between(0, 6)
		bumps := float64(3 + h.IntN(5))
		for i := range 90 {
			t := 2 * math.Pi * float64(i) / 89
			r := size / 2 * (1 + 0.3*math.Sin(bumps*t+a) + 0.1*math.Sin(2*t))
			way = append(way, Point{r * math.Cos(t), r * math.Sin(t)})
		}
	}
	return h.trembling(way, 0.3)
}

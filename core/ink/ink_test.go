package ink

import (
	"encoding/binary"
	"math"
	"math/rand/v2"
	"testing"

	"alpenglow/core/agreed"
	"alpenglow/core/refusal"
)

func TestBounds(t *testing.T) {
	long := make([]float64, Per*(MaxPoints+1))
	for name, c := range map[string]struct {
		points []float64
		w, h   float64
		ok     bool
	}{
		"a dot":              {[]float64{0, 0, .5}, 0, 0, true},
		"a line":             {[]float64{0, 3, .5, 8, 0, 1}, 8, 3, true},
		"none":               {nil, 0, 0, false},
		"a coordinate short": {[]float64{0, 0, .5, 1, 1}, 0, 0, false},
		"left of its box":    {[]float64{-1, 0, .5}, 0, 0, false},
		"not a number":       {[]float64{math.NaN(), 0, .5}, 0, 0, false},
		"endless":            {[]float64{0, math.Inf(1), .5}, 0, 0, false},
		"pressed too hard":   {[]float64{0, 0, 1.01}, 0, 0, false},
		"no pressure at all": {[]float64{0, 0, math.NaN()}, 0, 0, false},
		"too many":           {long, 0, 0, false},
	} {
		w, h, err := Bounds(c.points)
		if (err == nil) != c.ok || w != c.w || h != c.h {
			t.Errorf("%s: %v x %v, %v", name, w, h, err)
		}
		if err != nil && refusal.Of(err).Code != refusal.StrokeInvalid {
			t.Errorf("%s: refused with %v", name, err)
		}
	}
}

// wander is a random line, as a flat stroke.
func wander(r *rand.Rand, n int) []float64 {
	x, y := 500+100*r.Float64(), 500+100*r.Float64()
	var out []float64
	for range n {
		x, y = x+20*r.NormFloat64(), y+20*r.NormFloat64()
		out = append(out, x, y, r.Float64())
	}
	return out
}

func eraserOver(r *rand.Rand) (Eraser, []Point) {
	path := Points(wander(r, 1+r.IntN(40)))
	return eraser(path, 2+30*r.Float64()), path
}

// eraser is one with as much budget as it may ever need.
func eraser(path []Point, radius float64) Eraser {
	budget := math.MaxInt
	return NewEraser(path, &budget).Wide(radius)
}

// Cutting never lengthens ink; what is left lies outside the eraser and on the
// stroke; and what is left and what lay under the eraser together make up its
// length.
func TestCut(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	cut := 0
	for range 3000 {
		stroke := wander(r, 2+r.IntN(100))
		e, path := eraserOver(r)
		pieces, touched := e.Cut(stroke)
		points := Points(stroke)
		if touched != e.Touches(points) {
			t.Fatal("Cut and Touches differ")
		}
		left, under := 0.0, 0.0
		for _, piece := range pieces {
			line := Points(piece)
			left += Length(line)
			for i, p := range line {
				if onto, _ := nearest(points, p); onto > 1e-6 {
					t.Fatalf("a piece leaves the stroke by %g", onto)
				}
				if away, _ := nearest(path, p); touched && away < e.radius-1e-6 {
					t.Fatalf("point %d of a piece lies %g under the eraser", i, e.radius-away)
				}
			}
		}
		for i := 1; i < len(points); i++ {
			for _, gap := range e.over(e.near(points), points[i-1], points[i], false) {
				under += (gap.to - gap.from) * points[i-1].to(points[i])
			}
		}
		if all := Length(points); math.Abs(all-left-under) > 1e-6*all {
			t.Fatalf("%g left and %g under the eraser of %g", left, under, all)
		}
		if touched {
			cut++
		}
	}
	if cut < 300 {
		t.Errorf("only %d strokes were cut", cut)
	}
}

// nearest is the distance of p to a line, or to its one point.
func nearest(line []Point, p Point) (float64, float64) {
	best, along := line[0].to(p), 0.0
	for i := 1; i < len(line); i++ {
		if d, a := toSegment(p, line[i-1], line[i]); d < best {
			best, along = d, a
		}
	}
	return best, along
}

func TestThinStaysWithinItsTolerance(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 500 {
		points := Points(wander(r, 1+r.IntN(80)))
		epsilon := 40 * r.Float64()
		kept := Thin(points, epsilon)
		thinned := at(points, kept)
		if kept[0] != 0 || kept[len(kept)-1] != len(points)-1 {
			t.Fatal("an end is gone")
		}
		for _, p := range points {
			if d, _ := nearest(thinned, p); d > epsilon+1e-9 {
				t.Fatalf("a point lies %g off, more than %g", d, epsilon)
			}
		}
	}
}

// A tremor on a straight line is taken out, the ends stay, and an even arc
// hardly changes.
func TestSmooth(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	var shaky, arc []float64
	for i := range 200 {
		x := float64(5 * i)
		shaky = append(shaky, x, 100+4*r.NormFloat64(), 0.5)
		a := math.Pi * float64(i) / 199
		arc = append(arc, 400-300*math.Cos(a), 300-300*math.Sin(a), 0.5)
	}
	smooth := Smooth(shaky)
	if turned(Points(smooth)) > turned(Points(shaky))/10 {
		t.Errorf("the line still trembles: it turns by %.0f, before %.0f", turned(Points(smooth)),
			turned(Points(shaky)))
	}
	if n := len(smooth); smooth[0] != shaky[0] || smooth[1] != shaky[1] || smooth[n-3] != shaky[len(shaky)-3] {
		t.Error("an end has moved")
	}
	for _, p := range Points(Smooth(arc)) {
		if off := math.Abs(Point{400, 300}.to(p) - 300); off > 2 {
			t.Errorf("the arc has moved by %g", off)
		}
	}
}

// turned is by how much a line turns in all, in radians.
func turned(points []Point) float64 {
	sum := 0.0
	for i := 1; i+1 < len(points); i++ {
		u, v := points[i].sub(points[i-1]), points[i+1].sub(points[i])
		sum += math.Abs(math.Atan2(u.cross(v), u.dot(v)))
	}
	return sum
}

func TestCaught(t *testing.T) {
	square := []Point{{0, 0}, {100, 0}, {100, 100}, {0, 100}}
	for name, c := range map[string]struct {
		line []Point
		want bool
	}{
		"all inside":      {[]Point{{10, 10}, {90, 90}}, true},
		"all outside":     {[]Point{{110, 10}, {190, 90}}, false},
		"mostly inside":   {[]Point{{10, 50}, {50, 50}, {90, 50}, {150, 50}}, true},
		"mostly outside":  {[]Point{{90, 50}, {110, 50}, {300, 50}}, false},
		"a dot inside":    {[]Point{{50, 50}}, true},
		"a dot outside":   {[]Point{{50, 150}}, false},
		"a lasso of none": {nil, false},
	} {
		if got := Caught(c.line, square); got != c.want {
			t.Errorf("%s: %v", name, got)
		}
	}
}

// Whatever bytes come: no panic, nothing not finite, and cutting holds.
func FuzzStroke(f *testing.F) {
	f.Add([]byte("a stroke that came over the network, as bytes of numbers"))
	f.Add(make([]byte, 96))
	f.Fuzz(func(t *testing.T, data []byte) {
		var stroke []float64
		for len(data) >= 8 {
			stroke = append(stroke, math.Float64frombits(binary.LittleEndian.Uint64(data)))
			data = data[8:]
		}
		if _, _, err := Bounds(stroke); err != nil {
			return
		}
		points := Points(stroke)
		for _, p := range points {
			if p.X > 1e4 || p.Y > 1e4 {
				return // outside every frame
			}
		}
		Recognise(points)
		for _, n := range Smooth(stroke) {
			if math.IsNaN(n) || math.IsInf(n, 0) {
				t.Fatal("smoothing made a number that is none")
			}
		}
		pieces, _ := eraser(points[:1], 5).Cut(stroke)
		for _, piece := range pieces {
			if Length(Points(piece)) > Length(points)*(1+1e-9) {
				t.Fatal("cutting lengthened the ink")
			}
		}
	})
}

// What the interface computes for itself is held against the same cuts: this
// file is read by its tests. Run UPDATE=1 go test ./core/ink to write it anew.
func TestCutsForTheInterface(t *testing.T) {
	type cut struct {
		Path    []float64   `json:"path"`
		Radius  float64     `json:"radius"`
		Line    []float64   `json:"line"`
		Touched bool        `json:"touched"`
		Pieces  [][]float64 `json:"pieces"`
		Caught  bool        `json:"caught"` // by the path, as a lasso
	}
	r := rand.New(rand.NewPCG(11, 12))
	tenths := func(flat []float64) []float64 {
		for i := range flat {
			flat[i] = math.Round(flat[i]*10) / 10
		}
		return flat
	}
	var cuts []cut
	for i := range 60 {
		line := tenths(wander(r, 1+i%9))
		path := Points(tenths(wander(r, 1+i%5)))
		e := eraser(path, float64(4+i%40))
		c := cut{Path: flat(path), Radius: e.radius, Line: line, Caught: Caught(Points(line), path)}
		c.Pieces, c.Touched = e.Cut(line)
		cuts = append(cuts, c)
	}
	agreed.Holds(t, "testdata/cuts.json", cuts)
}

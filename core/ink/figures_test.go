package ink

import (
	"encoding/json"
	"math"
	"os"
	"strings"
	"testing"
)

// figure is a case computed outside of this project with general-purpose
// libraries; where it names a publication, that was recalled from memory.
type figure struct {
	ID        string
	Input     json.RawMessage
	Expected  json.RawMessage
	Tolerance struct{ Relative float64 }
	Source    string
}

type pairs [][2]float64

func (p pairs) points() []Point {
	out := make([]Point, len(p))
	for i, q := range p {
		out[i] = Point{q[0], q[1]}
	}
	return out
}

func TestFigures(t *testing.T) {
	text, err := os.ReadFile("testdata/figures.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []figure
	if err := json.Unmarshal(text, &all); err != nil {
		t.Fatal(err)
	}
	inputs := map[string]json.RawMessage{}
	for _, f := range all {
		inputs[f.ID] = f.Input
	}
	checked := 0
	for _, f := range all {
		var in struct {
			Points, Polygon, Segment, Sweep pairs
			Centre                          [2]float64
			Epsilon, Radius                 float64
			Same                            string `json:"input_same_as"`
		}
		decode(t, f.Input, &in)
		if in.Same != "" {
			input, ok := inputs[in.Same]
			if !ok {
				continue // its points were not handed on
			}
			decode(t, input, &in)
		}
		points := in.Points.points()
		var got []float64
		switch kind, _, _ := strings.Cut(f.ID, " "); {
		case kind == "polygon":
			c := Centroid(points)
			got = []float64{Area(points), c.X, c.Y, Perimeter(points)}
		case kind == "convex":
			var want pairs
			decode(t, f.Expected, &want)
			f.Expected, _ = json.Marshal(flat(want.points()))
			got = flat(Hull(points))
		case kind == "minimum-area":
			b := SmallestBox(points)
			got = []float64{b.Area(), 2 * min(b.Along, b.Wide), 2 * max(b.Along, b.Wide)}
			if strings.Contains(f.ID, "five30") { // two boxes tie
				got = got[:1]
			}
		case kind == "Ramer-Douglas-Peucker":
			for _, i := range Thin(points, in.Epsilon) {
				got = append(got, float64(i))
			}
		case strings.HasPrefix(f.ID, "circle Taubin"):
			c, err := Taubin(points)
			got = []float64{c.Centre.X, c.Centre.Y, c.Radius}
			mustFit(t, err)
		case strings.HasPrefix(f.ID, "circle geometric"):
			c, err := FitCircle(points)
			mustFit(t, err)
			sum := 0.0
			for _, p := range points {
				sum += math.Pow(c.Centre.to(p)-c.Radius, 2)
			}
			got = []float64{c.Centre.X, c.Centre.Y, c.Radius, math.Sqrt(sum)}
		case strings.HasPrefix(f.ID, "ellipse direct"):
			e, err := FitEllipse(points)
			mustFit(t, err)
			got = []float64{e.Centre.X, e.Centre.Y, e.Major, e.Minor, e.Turn}
		case kind == "point":
			var want struct {
				EvenOdd []float64 `json:"even_odd"`
			}
			decode(t, f.Expected, &want)
			f.Expected, _ = json.Marshal(want.EvenOdd)
			for _, p := range points {
				got = append(got, map[bool]float64{true: 1}[Inside(in.Polygon.points(), p)])
			}
		case kind == "eraser":
			way := pairs{in.Centre, in.Centre}
			if in.Sweep != nil {
				way = in.Sweep
			}
			s, w := in.Segment.points(), way.points()
			if part := underSweep(s[0], s[1], w[0], w[1], in.Radius); !part.empty() {
				got = []float64{part.from, part.to}
			}
		default:
			continue // the input of another case
		}
		checked++
		var want []float64
		decode(t, f.Expected, &want)
		if len(got) != len(want) {
			t.Errorf("%s: got %v, want %v", f.ID, got, want)
			continue
		}
		for i := range want {
			if math.Abs(got[i]-want[i]) > max(f.Tolerance.Relative*math.Abs(want[i]), 1e-12) {
				t.Errorf("%s: figure %d is %.12g, want %.12g (%s)", f.ID, i, got[i], want[i], f.Source)
			}
		}
	}
	if checked < 37 {
		t.Errorf("only %d figures were checked", checked)
	}
}

func decode(t *testing.T, text json.RawMessage, into any) {
	t.Helper()
	if err := json.Unmarshal(text, into); err != nil {
		t.Fatal(err)
	}
}

func mustFit(t *testing.T, err error) {
	t.Helper()
	if err != nil {
		t.Fatal(err)
	}
}

func flat(points []Point) []float64 {
	out := []float64{}
	for _, p := range points {
		out = append(out, p.X, p.Y)
	}
	return out
}

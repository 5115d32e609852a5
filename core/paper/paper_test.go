package paper_test

import (
	"encoding/json"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"alpenglow/core/paper"
	"alpenglow/core/refusal"
)

func axis(from, to, step float64) *paper.Axis { return &paper.Axis{From: from, To: to, Step: step} }

func numbers(d paper.Drawing) []string {
	var list []string
	for _, l := range d.Labels {
		list = append(list, l.Text)
	}
	return list
}

func TestNumbersOnAnAxis(t *testing.T) {
	for _, c := range []struct {
		name string
		axis *paper.Axis
		want string
	}{
		{"whole numbers", axis(0, 5, 1), "0 1 2 3 4 5"},
		{"below zero", axis(-2, 2, 1), "−2 −1 0 1 2"},
		{"halves", axis(-1, 1, 0.5), "−1.0 −0.5 0 0.5 1.0"},
		{"tenths that do not add up in floating point", axis(0, 0.3, 0.1), "0 0.1 0.2 0.3"},
		{"a range that begins between two multiples", axis(0.5, 3.2, 1), "1 2 3"},
		{"many ticks: every tenth has its number", axis(0, 100, 1), "0 10 20 30 40 50 60 70 80 90 100"},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := paper.Paper{Kind: paper.NumberLine, X: c.axis}
			if err := p.Check(); err != nil {
				t.Fatal(err)
			}
			if got := strings.Join(numbers(p.Draw()), " "); got != c.want {
				t.Errorf("%s, want %s", got, c.want)
			}
		})
	}
}

var position = regexp.MustCompile(`M(-?[\d.]+) (-?[\d.]+)([HV])(-?[\d.]+)`)

// Where both axes have the same step, a unit is as long on one as on the other,
// so that circles are round.
func TestUnitsAreEven(t *testing.T) {
	p := paper.Paper{Kind: paper.Axes, X: axis(-10, 10, 1), Y: axis(-5, 5, 1)}
	var across, up []float64
	for _, line := range p.Draw().Lines {
		if line.Weight != paper.Fine {
			continue
		}
		for _, m := range position.FindAllStringSubmatch(line.Path, -1) {
			x, _ := strconv.ParseFloat(m[1], 64)
			y, _ := strconv.ParseFloat(m[2], 64)
			if m[3] == "V" {
				across = append(across, x)
			} else {
				up = append(up, y)
			}
		}
	}
	if len(across) != 21 || len(up) != 11 {
		t.Fatalf("%d lines up and %d across", len(across), len(up))
	}
	if wide, tall := across[1]-across[0], math.Abs(up[1]-up[0]); math.Abs(wide-tall) > 0.15 {
		t.Errorf("a unit is %v wide and %v high", wide, tall)
	}
}

// The zones of a handwriting line have the proportions of the ruling.
func TestHandwritingProportions(t *testing.T) {
	for ruling, want := range map[paper.Ruling][2]float64{"": {1, 1}, paper.Even: {1, 1}, paper.Tall: {1.5, 1.5},
		paper.Low: {2. / 3, 2. / 3}} {
		d := paper.Paper{Kind: paper.Handwriting, Ruling: ruling, Step: 210}.Draw()
		first := map[paper.Weight]float64{}
		last := 0.0
		for _, line := range d.Lines {
			all := position.FindAllStringSubmatch(line.Path, -1)
			first[line.Weight], _ = strconv.ParseFloat(all[0][2], 64)
			if line.Weight == paper.Fine {
				last, _ = strconv.ParseFloat(all[1][2], 64)
			}
		}
		over, in, under := first[paper.Guide]-first[paper.Fine], first[paper.Base]-first[paper.Guide],
			last-first[paper.Base]
		if math.Abs(in/over-want[0]) > 0.01 || math.Abs(in/under-want[1]) > 0.01 || math.Abs(over+in+under-210) > 0.2 {
			t.Errorf("%q: zones of %v, %v and %v", ruling, over, in, under)
		}
	}
}

func TestCheck(t *testing.T) {
	for _, c := range []struct {
		name  string
		paper paper.Paper
		want  refusal.Code
	}{
		{"plain", paper.Paper{Kind: paper.Plain}, ""},
		{"squares with a unit", paper.Paper{Kind: paper.Squared, Step: 50, Unit: "1 cm"}, ""},
		{"no kind", paper.Paper{}, refusal.BadPaper},
		{"squares of nothing", paper.Paper{Kind: paper.Squared, Step: 0.001}, refusal.BadPaper},
		{"squares of no number", paper.Paper{Kind: paper.Squared, Step: math.NaN()}, refusal.BadPaper},
		{"axes without numbers", paper.Paper{Kind: paper.Axes, X: axis(0, 1, 1)}, refusal.BadPaper},
		{"a range that runs back", paper.Paper{Kind: paper.NumberLine, X: axis(5, 0, 1)}, refusal.BadPaper},
		{"a million ticks", paper.Paper{Kind: paper.NumberLine, X: axis(0, 1e6, 1)}, refusal.BadPaper},
		{"a step of nothing", paper.Paper{Kind: paper.NumberLine, X: axis(0, 1, 0)}, refusal.BadPaper},
		{"to infinity", paper.Paper{Kind: paper.NumberLine, X: axis(0, math.Inf(1), 1)}, refusal.BadPaper},
		{"a label that breaks the line", paper.Paper{Kind: paper.Squared, Unit: "1\x00cm"}, refusal.BadPaper},
		{"a picture that is none", paper.Paper{Kind: paper.Picture}, refusal.NoSuchPicture},
	} {
		err := c.paper.Check()
		if got := refusal.Of(err); c.want == "" && err != nil || c.want != "" && (got == nil || got.Code != c.want) {
			t.Errorf("%s: %v, want %q", c.name, err, c.want)
		}
	}
}

// Boards once had the bare name of a paper.
func TestOldPapers(t *testing.T) {
	var p paper.Paper
	if err := json.Unmarshal([]byte(`"squared"`), &p); err != nil || p.Kind != paper.Squared {
		t.Errorf("%+v, %v", p, err)
	}
	if err := json.Unmarshal([]byte(`{"kind":"axes","x":{"from":0,"to":1,"step":1}}`), &p); err != nil || p.X == nil {
		t.Errorf("%+v, %v", p, err)
	}
}

// Whatever sound numbers an axis has, everything lies on the paper, and the
// drawing is of a size that can be sent.
func FuzzDraw(f *testing.F) {
	for _, s := range [][4]float64{{-10, 10, 1, 0}, {0, 1e-5, 1e-6, 1}, {-1e9, 1e9, 1e8, 2}, {3, 4, 0.25, 3},
		{0, 100, 1, 40}} {
		f.Add(s[0], s[1], s[2], s[3])
	}
	places := regexp.MustCompile(`[MHV](-?[\d.]+)(?: (-?[\d.]+))?`)
	f.Fuzz(func(t *testing.T, from, to, step, distance float64) {
		for _, kind := range paper.Kinds {
			p := paper.Paper{Kind: kind, Step: distance, X: axis(from, to, step), Y: axis(to-from, 2*(to-from)+1, step),
				Picture: "p"}
			if p.Check() != nil {
				continue
			}
			d := p.Draw()
			size := 0
			for _, line := range d.Lines {
				size += len(line.Path)
				if !slices.Contains(paper.Weights, line.Weight) || strings.Contains(line.Path, "NaN") {
					t.Fatalf("%s: %+v", kind, line)
				}
				for _, m := range places.FindAllStringSubmatch(line.Path, -1) {
					if v, _ := strconv.ParseFloat(m[1], 64); v < -5 || v > paper.Width+5 {
						t.Fatalf("%s draws at %v", kind, v)
					}
				}
			}
			for _, l := range d.Labels {
				if math.IsNaN(l.X+l.Y) || l.X < 0 || l.X > paper.Width || l.Y < 0 || l.Y > paper.Height {
					t.Fatalf("%s writes %q at %v, %v", kind, l.Text, l.X, l.Y)
				}
			}
			if size > 1<<18 {
				t.Fatalf("%s takes %d bytes", kind, size)
			}
		}
	})
}

func BenchmarkAxes(b *testing.B) {
	p := paper.Paper{Kind: paper.Axes, X: axis(-50, 50, 1), Y: axis(-30, 30, 1)}
	for b.Loop() {
		p.Draw()
	}
}

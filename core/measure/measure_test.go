package measure

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"strings"
	"testing"
)

// check is one case that other libraries computed; its source says whose figure it is,
// and its certainty how that is known: those with A or B were recalled from memory.
type check struct {
	ID, Function    string
	Input, Expected json.RawMessage
	Source          string
}

type checks []check

func readChecks(t *testing.T) checks {
	text, err := os.ReadFile("testdata/checks.json")
	if err != nil {
		t.Fatal(err)
	}
	var all checks
	if err := json.Unmarshal(text, &all); err != nil {
		t.Fatal(err)
	}
	return all
}

// input reads the input of a case, which may be that of another.
func (all checks) input(t *testing.T, c check, into any) {
	t.Helper()
	var same struct {
		Of string `json:"input_same_as"`
	}
	if json.Unmarshal(c.Input, &same) == nil && same.Of != "" {
		i := slices.IndexFunc(all, func(o check) bool { return o.ID == same.Of })
		c.Input = all[i].Input
	}
	if err := json.Unmarshal(c.Input, into); err != nil {
		t.Fatal(c.ID, err)
	}
}

func (c check) expected(t *testing.T, into any) {
	t.Helper()
	if err := json.Unmarshal(c.Expected, into); err != nil {
		t.Fatal(c.ID, err)
	}
}

func (c check) near(t *testing.T, what string, got, want float64) {
	t.Helper()
	if !(math.Abs(got-want) <= 1e-9*max(math.Abs(want), 1e-3)) {
		t.Errorf("%s (%s): %s is %v, want %v", c.ID, c.Source, what, got, want)
	}
}

func (c check) all(t *testing.T, what string, got, want []float64) {
	t.Helper()
	if len(got) != len(want) {
		t.Errorf("%s: %d of %s, want %d", c.ID, len(got), what, len(want))
		return
	}
	for i := range got {
		c.near(t, what, got[i], want[i])
	}
}

// Every case has a function that is known here: none is passed over.
func TestChecks(t *testing.T) {
	all := readChecks(t)
	for _, c := range all {
		known := false
		for begins, test := range tests {
			if strings.HasPrefix(c.Function, begins) {
				known = true
				test(t, all, c)
			}
		}
		if !known {
			t.Errorf("%s: nothing checks %q", c.ID, c.Function)
		}
	}
}

var tests = map[string]func(*testing.T, checks, check){
	"Wilson score": func(t *testing.T, all checks, c check) {
		var in struct{ X, N int }
		all.input(t, c, &in)
		var want []float64
		c.expected(t, &want)
		got := Wilson(in.X, in.N)
		c.all(t, "interval", []float64{got.Low, got.High}, want)
	},
	"Difference of two": func(t *testing.T, all checks, c check) {
		var in struct{ X1, N1, X2, N2 int }
		all.input(t, c, &in)
		var want []float64
		c.expected(t, &want)
		got := Difference(in.X1, in.N1, in.X2, in.N2)
		c.all(t, "interval", []float64{got.Low, got.High}, want)
	},
	"Item difficulty": items(func(i Item) float64 { return i.Difficulty }),
	"Point-biserial":  items(func(i Item) float64 { return *i.Total }),
	"Corrected item":  items(func(i Item) float64 { return *i.Rest }),
	"Alpha if item":   items(func(i Item) float64 { return *i.Without }),
	"KR-20": func(t *testing.T, all checks, c check) {
		var want float64
		c.expected(t, &want)
		c.near(t, "alpha", *Analyse(rowsOf(t, all, c)).Alpha, want)
	},
	"Cronbach's alpha =": func(t *testing.T, all checks, c check) {
		var want float64
		c.expected(t, &want)
		c.near(t, "alpha", *Analyse(rowsOf(t, all, c)).Alpha, want)
	},
	"Cronbach's alpha on": func(t *testing.T, all checks, c check) {
		var want struct {
			Alpha float64
			Rest  []float64 `json:"item_rest"`
		}
		c.expected(t, &want)
		got := Analyse(rowsOf(t, all, c))
		c.near(t, "alpha", *got.Alpha, want.Alpha)
		for i, item := range got.Items {
			c.near(t, "item-rest", *item.Rest, want.Rest[i])
		}
	},
	"Standard error of": func(t *testing.T, all checks, c check) {
		var want struct{ SEM float64 }
		c.expected(t, &want)
		c.near(t, "error", *Analyse(rowsOf(t, all, c)).Error, want.SEM)
	},
	"p, point-biserial": func(t *testing.T, all checks, c check) {
		var want struct {
			P     []float64
			Total []float64 `json:"point_biserial"`
			Rest  []float64 `json:"item_rest"`
			KR20  float64
			SEM   float64
		}
		c.expected(t, &want)
		got := Analyse(rowsOf(t, all, c))
		for i, item := range got.Items {
			c.near(t, "difficulty", item.Difficulty, want.P[i])
			c.near(t, "item-total", *item.Total, want.Total[i])
			c.near(t, "item-rest", *item.Rest, want.Rest[i])
		}
		c.near(t, "alpha", *got.Alpha, want.KR20)
		c.near(t, "error", *got.Error, want.SEM)
	},
	"Upper-lower":    discrimination,
	"D when the cut": discrimination,
	"95 % interval for alpha": func(t *testing.T, all checks, c check) {
		var in struct {
			Alpha float64
			N, K  int
		}
		all.input(t, c, &in)
		var want []float64
		c.expected(t, &want)
		got := AlphaSpan(in.Alpha, in.N, in.K)
		c.all(t, "interval", []float64{got.Low, got.High}, want)
	},
	"<g> =": func(t *testing.T, all checks, c check) {
		before, after := gains(t, all, c)
		var want, b, a float64
		c.expected(t, &want)
		for i := range before {
			b += before[i] / float64(len(before))
			a += after[i] / float64(len(after))
		}
		got, _ := ClassGain(b, a)
		c.near(t, "gain", got, want)
	},
	"mean of individual g": func(t *testing.T, all checks, c check) {
		before, after := gains(t, all, c)
		var want struct {
			Each []float64
			Mean float64
		}
		c.expected(t, &want)
		got, of := MeanGain(before, after)
		c.near(t, "mean", got, want.Mean)
		c.near(t, "count", float64(of), float64(len(want.Each)))
	},
	"pre 44": func(t *testing.T, all checks, c check) {
		var in struct{ Pre, Post float64 }
		all.input(t, c, &in)
		var want float64
		c.expected(t, &want)
		got, _ := ClassGain(in.Pre/100, in.Post/100)
		c.near(t, "gain", got, want)
	},
	"low < 0.3": func(t *testing.T, all checks, c check) {
		var in []float64
		all.input(t, c, &in)
		var want []Band
		c.expected(t, &want)
		for i, g := range in {
			if BandOf(g) != want[i] {
				t.Errorf("%v is %s, want %s", g, BandOf(g), want[i])
			}
		}
	},
	"exact": func(t *testing.T, all checks, c check) {
		var in struct{ B, C int }
		all.input(t, c, &in)
		var want struct{ Exact, Midp float64 }
		c.expected(t, &want)
		exact, mid := McNemar(in.B, in.C)
		c.near(t, "exact", exact, want.Exact)
		c.near(t, "mid-p", mid, want.Midp)
	},
	"quantile type 7": func(t *testing.T, all checks, c check) {
		var in struct{ Data []float64 }
		all.input(t, c, &in)
		var want []float64
		c.expected(t, &want)
		for i, p := range []float64{0, .1, .25, .5, .75, .9, 1} {
			c.near(t, "quantile", Quantile(in.Data, p), want[i])
		}
	},
	"90th percentile": func(t *testing.T, all checks, c check) {
		var in struct{ Data []float64 }
		all.input(t, c, &in)
		var want []float64
		c.expected(t, &want)
		c.near(t, "quantile", Quantile(in.Data, .9), want[6])
	},
	"number of bins": func(t *testing.T, all checks, c check) {
		var in struct{ Data []float64 }
		all.input(t, c, &in)
		var want struct {
			Width float64 `json:"fd_width"`
		}
		c.expected(t, &want)
		c.near(t, "width", BinWidth(in.Data), want.Width)
	},
	"points 3,2,1": func(t *testing.T, all checks, c check) {
		var in struct{ Votes [][2]any }
		all.input(t, c, &in)
		var want struct {
			Mean map[string]float64 `json:"mean_rank"`
		}
		c.expected(t, &want)
		sums, n := map[string]float64{}, 0.
		for _, vote := range in.Votes {
			n += vote[0].(float64)
			for place, thing := range vote[1].(string) {
				sums[string(thing)] += vote[0].(float64) * float64(place+1)
			}
		}
		for thing, mean := range want.Mean {
			c.near(t, "mean rank", sums[thing]/n, mean)
		}
	},
	"3 raters": concordance, "tie-corrected": concordance, "22 players": concordance,
	"two orders of 12": tau, "tau and exact": tau, "x = 1,2,2": tau,
	"tau, rho": func(t *testing.T, all checks, c check) {
		var in struct {
			Key    []float64
			Orders [][]int
		}
		all.input(t, c, &in)
		var want struct {
			Tau     []float64
			Swapped []int `json:"swapped_pairs"`
		}
		c.expected(t, &want)
		for i, order := range in.Orders {
			var x []float64
			for _, at := range order {
				x = append(x, float64(at))
			}
			got, _ := Tau(x, in.Key)
			c.near(t, "tau", got, want.Tau[i])
			if Swapped(order) != want.Swapped[i] {
				t.Errorf("%v: %d pairs swapped, want %d", order, Swapped(order), want.Swapped[i])
			}
		}
	},
	"quartiles of time": func(t *testing.T, all checks, c check) {
		var in times
		all.input(t, c, &in)
		var want struct {
			Quartiles []*int64
			Times     []int64
			Survival  []float64
		}
		c.expected(t, &want)
		steps := Waiting(in.waits())
		var left []float64
		for i, s := range steps {
			left = append(left, s.Left)
			if s.At != want.Times[i] {
				t.Errorf("%s: a step at %d, want %d", c.ID, s.At, want.Times[i])
			}
		}
		c.all(t, "steps", left, want.Survival)
		for i, q := range want.Quartiles {
			at, reached := Reached(steps, float64(i+1)/4)
			if reached != (q != nil) || reached && at != *q {
				t.Errorf("%s: quartile %d at %d, %v", c.ID, i+1, at, reached)
			}
		}
	},
	"medians of the two": func(t *testing.T, all checks, c check) {
		var in struct{ Maintained, Nonmaintained times }
		all.input(t, c, &in)
		var want []int64
		c.expected(t, &want)
		for i, group := range []times{in.Maintained, in.Nonmaintained} {
			if at, _ := Reached(Waiting(group.waits()), .5); at != want[i] {
				t.Errorf("%s: median %d, want %d", c.ID, at, want[i])
			}
		}
	},
}

type times struct {
	Time  []int64
	Event []int
}

func (in times) waits() []Wait {
	var waits []Wait
	for i, at := range in.Time {
		waits = append(waits, Wait{at, in.Event[i] == 1})
	}
	return waits
}

// rowsOf reads a matrix, or patterns with how often each was seen.
func rowsOf(t *testing.T, all checks, c check) [][]float64 {
	var in struct {
		Matrix   [][]float64
		Patterns [][]float64 `json:"patterns_with_count_in_last_column"`
	}
	all.input(t, c, &in)
	for _, p := range in.Patterns {
		for range int(p[len(p)-1]) {
			in.Matrix = append(in.Matrix, p[:len(p)-1])
		}
	}
	return in.Matrix
}

func items(of func(Item) float64) func(*testing.T, checks, check) {
	return func(t *testing.T, all checks, c check) {
		var want, got []float64
		c.expected(t, &want)
		for _, item := range Analyse(rowsOf(t, all, c)).Items {
			got = append(got, of(item))
		}
		c.all(t, "figures", got, want)
	}
}

func discrimination(t *testing.T, all checks, c check) {
	var in struct {
		Size int `json:"group_size"`
	}
	all.input(t, c, &in)
	if err := json.Unmarshal(c.Input, &in); err != nil || in.Size == 0 {
		in.Size = 8
	}
	rows := rowsOf(t, all, c)
	var want, got []float64
	c.expected(t, &want)
	var totals []float64
	for _, row := range rows {
		sum := 0.
		for _, x := range row {
			sum += x
		}
		totals = append(totals, sum)
	}
	for j := range rows[0] {
		var column []float64
		for _, row := range rows {
			column = append(column, row[j])
		}
		upper, lower := Ends(totals, column, in.Size)
		got = append(got, upper-lower)
	}
	c.all(t, "discrimination", got, want)
}

func gains(t *testing.T, all checks, c check) (before, after []float64) {
	var in struct {
		Percent [][2]float64 `json:"pre_post_percent"`
	}
	all.input(t, c, &in)
	for _, p := range in.Percent {
		before, after = append(before, p[0]/100), append(after, p[1]/100)
	}
	return before, after
}

func concordance(t *testing.T, all checks, c check) {
	var in struct {
		Raters [][]float64 `json:"rows_are_raters"`
		Times  [][]float64
	}
	all.input(t, c, &in)
	var want struct{ W float64 }
	c.expected(t, &want)
	got, _ := Concordance(append(in.Raters, in.Times...))
	c.near(t, "W", got, want.W)
}

func tau(t *testing.T, all checks, c check) {
	var in struct{ X, Y []float64 }
	all.input(t, c, &in)
	var want float64
	if json.Unmarshal(c.Expected, &want) != nil {
		var figures struct{ Tau float64 }
		c.expected(t, &figures)
		want = figures.Tau
	}
	got, _ := Tau(in.X, in.Y)
	c.near(t, "tau", got, want)
}

// Shares in a text sum to 100, whatever was counted, and none is off by 1 or more.
func TestPercent(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 10_000 {
		counts := make([]int, 1+r.IntN(12))
		all := 0
		for i := range counts {
			counts[i] = r.IntN(r.IntN(40) + 1)
			all += counts[i]
		}
		sum := 0
		for i, p := range Percent(counts) {
			sum += p
			if all > 0 && math.Abs(float64(p)-100*float64(counts[i])/float64(all)) >= 1 {
				t.Fatalf("%v: %v", counts, Percent(counts))
			}
		}
		if want := min(all, 1) * 100; sum != want {
			t.Fatalf("%v sum to %d", counts, sum)
		}
	}
}

// A histogram counts each number once, in the bin that holds it, in bins of one width,
// and is never long: one number far away does not make hundreds.
func TestBins(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for round := range 3_000 {
		of := make([]float64, 1+r.IntN(60))
		scale := math.Pow(10, float64(r.IntN(30)-15))
		for i := range of {
			of[i] = math.Round(r.NormFloat64()*20) / 4 * scale
			if r.IntN(30) == 0 {
				of[i] *= math.Pow(10, float64(r.IntN(9)))
			}
		}
		bins := Bins(of)
		n := 0
		for i, b := range bins {
			n += b.Count
			inside := 0
			for _, x := range of {
				edge := 1e-6 * (b.High - b.Low)
				if x > b.Low+edge && x < b.High-edge {
					inside++
				}
			}
			if inside > b.Count || i > 0 && b.Low != bins[i-1].High {
				t.Fatalf("round %d: %v holds %d; %v", round, b, inside, of)
			}
		}
		if n != len(of) || len(bins) > MostBins {
			t.Fatalf("round %d: %d bins hold %d of %d: %v", round, len(bins), n, len(of), of)
		}
	}
}

// What nobody or one alone answered has no figures, and says so instead of being odd.
func TestOfFew(t *testing.T) {
	if Wilson(0, 0) != (Interval{0, 1}) || Difference(0, 0, 1, 2) != (Interval{-1, 1}) {
		t.Error("an interval of nobody")
	}
	if _, ok := ClassGain(1, 1); ok {
		t.Error("a gain where all was right")
	}
	if mean, of := MeanGain([]float64{1}, []float64{0}); mean != 0 || of != 0 {
		t.Error("a mean of nobody's gains", mean, of)
	}
	if p, mid := McNemar(0, 0); p != 1 || mid != 1 {
		t.Error("nobody changed", p, mid)
	}
	if Quantile(nil, .5) != 0 || Bins(nil) != nil || Waiting(nil) != nil {
		t.Error("figures of nothing")
	}
	for _, rows := range [][][]float64{{{1, 2, 3}}, {{1}, {2}}, {{1, 1}, {2, 2}}} {
		if w, ok := Concordance(rows); ok {
			t.Errorf("%v agree by %v", rows, w)
		}
	}
	if tau, ok := Tau([]float64{1, 1}, []float64{1, 2}); ok {
		t.Error("an order of equals agrees by", tau)
	}
	one := Analyse([][]float64{{1, 0}})
	if one.Alpha != nil || one.Error != nil || one.Items[0].Rest != nil || one.Items[0].RestSpan != nil {
		t.Errorf("a set of one student: %+v", one)
	}
	same := Analyse([][]float64{{1, 0}, {1, 0}, {1, 0}})
	if same.Alpha != nil || same.Items[0].Total != nil || same.Items[0].Difficulty != 1 {
		t.Errorf("all the same: %+v", same)
	}
	if len(Analyse(nil).Items) != 0 {
		t.Error("a set of nobody")
	}
	text, err := json.Marshal(Analyse([][]float64{{1, 0, 1}, {0, 1, 0}, {1, 1, 0}, {0, 0, 1}}))
	if err != nil {
		t.Error(string(text), err)
	}
}

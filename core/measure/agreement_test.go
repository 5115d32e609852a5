package measure

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

func init() {
	kappas := []Disagreement{Nominal, Linear, Quadratic}
	all := func(t *testing.T, c check, table [][]float64) {
		var want []float64
		c.expected(t, &want)
		for i, apart := range kappas {
			got, ok := Kappa(table, apart)
			if !ok {
				t.Fatal(c.ID)
			}
			c.near(t, "kappa", got.Kappa, want[i])
		}
	}
	tests["unweighted kappa from proportions"] = func(t *testing.T, cases checks, c check) {
		var in struct{ Proportions [][]float64 }
		cases.input(t, c, &in)
		var want float64
		c.expected(t, &want)
		got, _ := Kappa(in.Proportions, Nominal)
		c.near(t, "kappa", got.Kappa, want)
	}
	tests["kappa and weighted kappa with given"] = func(t *testing.T, cases checks, c check) {
		var in struct {
			Proportions [][]float64
			Weights     [][]float64 `json:"disagreement_weights"`
		}
		cases.input(t, c, &in)
		var want struct{ Kappa, Weighted float64 }
		c.expected(t, &want)
		plain, _ := Kappa(in.Proportions, Nominal)
		weighted, _ := Kappa(in.Proportions, func(a, b int) float64 { return in.Weights[a][b] })
		c.all(t, "kappas", []float64{plain.Kappa, weighted.Kappa}, []float64{want.Kappa, want.Weighted})
	}
	tests["unweighted, linear, quadratic kappa, 4 x 4"] = func(t *testing.T, cases checks, c check) {
		var in struct{ Table [][]float64 }
		cases.input(t, c, &in)
		all(t, c, in.Table)
		// The standard errors that R's vcd prints for this table are .0686 and .0783 (from memory).
		for i, se := range []float64{.0686, .0783} {
			got, _ := Kappa(in.Table, kappas[i])
			if half := (got.Span.High - got.Span.Low) / 2; math.Abs(half/z-se) > .00006 {
				t.Errorf("standard error %v, want %v", half/z, se)
			}
		}
	}
	tests["two markers, levels 1-4"] = func(t *testing.T, cases checks, c check) {
		var in struct{ Pairs [][2]int }
		cases.input(t, c, &in)
		table := make([][]float64, 4)
		for i := range table {
			table[i] = make([]float64, 4)
		}
		for _, p := range in.Pairs {
			table[p[0]-1][p[1]-1]++
		}
		all(t, c, table)
	}
	tests["Fleiss kappa"] = func(t *testing.T, cases checks, c check) {
		var in struct{ Counts [][]int }
		cases.input(t, c, &in)
		got, ok := Fleiss(in.Counts)
		var whole struct{ Kappa float64 }
		if c.Expected[0] == '{' {
			c.expected(t, &whole)
		} else {
			c.expected(t, &whole.Kappa)
		}
		if !ok {
			t.Fatal(c.ID)
		}
		c.near(t, "kappa", got, whole.Kappa)
	}
	tests["nominal, ordinal, interval, with missing marks"] = func(t *testing.T, cases checks, c check) {
		var in struct {
			Raters [][]*int `json:"rows_are_raters"`
		}
		cases.input(t, c, &in)
		pieces := make([][]int, len(in.Raters[0]))
		for _, row := range in.Raters {
			for i, mark := range row {
				if mark != nil {
					pieces[i] = append(pieces[i], *mark)
				}
			}
		}
		var want []float64
		c.expected(t, &want)
		plain := func(d Disagreement) func(a, b int, _ []float64) float64 {
			return func(a, b int, _ []float64) float64 { return d(a, b) }
		}
		for i, apart := range []func(a, b int, given []float64) float64{plain(Nominal), ByOrder, plain(Quadratic)} {
			got, ok := Krippendorff(pieces, apart)
			if !ok {
				t.Fatal(c.ID)
			}
			c.near(t, "alpha", got, want[i])
		}
	}
}

// What holds of any two markers: who is first plays no part, agreement always is 1, and nothing
// is said of one category alone.
func TestKappaOfAny(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	for range 2000 {
		k := 2 + r.IntN(5)
		table, turned, same := make([][]float64, k), make([][]float64, k), make([][]float64, k)
		for i := range k {
			table[i], turned[i], same[i] = make([]float64, k), make([]float64, k), make([]float64, k)
		}
		for range 1 + r.IntN(30) {
			i, j := r.IntN(k), r.IntN(k)
			table[i][j]++
			turned[j][i]++
			same[i][i]++
		}
		for _, apart := range []Disagreement{Nominal, Linear, Quadratic} {
			a, ok := Kappa(table, apart)
			b, is := Kappa(turned, apart)
			if ok != is || math.Abs(a.Kappa-b.Kappa) > 1e-9 || a.Kappa > 1+1e-9 || a.Kappa < -1-1e-9 ||
				ok && (a.Span.Low > a.Kappa+1e-9 || a.Span.High < a.Kappa-1e-9) {
				t.Fatalf("%+v, and %+v of %v", a, b, table)
			}
			if one, ok := Kappa(same, apart); ok && math.Abs(one.Kappa-1) > 1e-9 {
				t.Fatalf("always the same: %+v", one)
			}
		}
	}
	if _, ok := Kappa([][]float64{{5, 0}, {0, 0}}, Nominal); ok {
		t.Error("one category says nothing")
	}
	if _, ok := Krippendorff([][]int{{1}, {2}}, ByOrder); ok {
		t.Error("nothing to compare")
	}
	if got := []Strength{StrengthOf(-.1), StrengthOf(.2), StrengthOf(.61), StrengthOf(.95)}; !slices.Equal(got,
		[]Strength{NoStrength, Slight, Substantial, Perfect}) {
		t.Error(got)
	}
}

package measure

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"
)

// Item is how one question of a set did. What cannot be computed, of a question that all
// answered alike or of a set of one, is nil.
type Item struct {
	// Difficulty is the mean of what was reached, from 0 to 1: the higher, the easier.
	Difficulty float64 `json:"difficulty"`
	// Upper and Lower are the same of the third that did best and the third that did
	// worst over the whole set; Discrimination is how far they lie apart.
	Upper          float64 `json:"upper"`
	Lower          float64 `json:"lower"`
	Discrimination float64 `json:"discrimination"`
	// Total is its correlation with the whole, Rest with all others (the point-biserial
	// correlation where an answer is right or wrong), RestSpan the interval of the latter.
	Total    *float64  `json:"total,omitempty"`
	Rest     *float64  `json:"rest,omitempty"`
	RestSpan *Interval `json:"restSpan,omitempty"`
	// Without is the set's alpha without it.
	Without *float64 `json:"without,omitempty"`
}

// Set is how a set of questions did together.
type Set struct {
	Items []Item `json:"items"`
	// Alpha is Cronbach's alpha, which is KR-20 where answers are right or wrong, with
	// its interval; Error is the standard error of measurement, in points.
	Alpha     *float64  `json:"alpha,omitempty"`
	AlphaSpan *Interval `json:"alphaSpan,omitempty"`
	Error     *float64  `json:"error,omitempty"`
}

// Analyse gives how the questions of a set did: a row for each student who answered all,
// a column for each question, from 0 to 1 what was reached. The formulas are those of
// classical test theory (Cronbach 1951, Psychometrika 16:297-334; Kuder & Richardson 1937).
func Analyse(rows [][]float64) Set {
	if len(rows) == 0 {
		return Set{}
	}
	columns := make([][]float64, len(rows[0]))
	totals := make([]float64, len(rows))
	for i, row := range rows {
		for j, x := range row {
			columns[j] = append(columns[j], x)
			totals[i] += x
		}
	}
	var set Set
	thirds := max(1, int(math.Round(float64(len(rows))/3)))
	for j, column := range columns {
		item := Item{Difficulty: stat.Mean(column, nil)}
		item.Upper, item.Lower = Ends(totals, column, thirds)
		item.Discrimination = item.Upper - item.Lower
		item.Total = correlation(column, totals)
		rest := slices.Clone(totals)
		for i := range rest {
			rest[i] -= column[i]
		}
		if item.Rest = correlation(column, rest); item.Rest != nil {
			item.RestSpan = fisher(*item.Rest, len(rows))
		}
		if others := slices.Delete(slices.Clone(columns), j, j+1); len(others) > 1 {
			item.Without = Alpha(others)
		}
		set.Items = append(set.Items, item)
	}
	if set.Alpha = Alpha(columns); set.Alpha != nil {
		set.AlphaSpan = AlphaSpan(*set.Alpha, len(rows), len(columns))
		// An alpha below 0 says nothing about how far a result may be off.
		if *set.Alpha >= 0 {
			e := stat.StdDev(totals, nil) * math.Sqrt(1-*set.Alpha)
			set.Error = &e
		}
	}
	return set
}

// Ends gives the mean of a question's points among those with the highest totals, and
// among those with the lowest, so many each. Who are tied at the cut share the places
// that are left, so that nothing depends on the order of rows.
func Ends(totals, points []float64, size int) (upper, lower float64) {
	end := func(order func(a, b float64) int) float64 {
		sorted := slices.SortedFunc(slices.Values(totals), order)
		cut := sorted[size-1]
		sum, before, tiedSum, tied := 0., 0, 0., 0
		for i, total := range totals {
			switch order(total, cut) {
			case -1:
				sum += points[i]
				before++
			case 0:
				tiedSum += points[i]
				tied++
			}
		}
		return (sum + tiedSum*float64(size-before)/float64(tied)) / float64(size)
	}
	return end(func(a, b float64) int { return cmp.Compare(b, a) }), end(cmp.Compare[float64])
}

// Alpha gives Cronbach's alpha of the columns of a set; nil of fewer than two columns or
// rows, and where all totals are the same. All variances are those of samples.
func Alpha(columns [][]float64) *float64 {
	if len(columns) < 2 || len(columns[0]) < 2 {
		return nil
	}
	parts := 0.
	totals := make([]float64, len(columns[0]))
	for _, column := range columns {
		parts += stat.Variance(column, nil)
		for i, x := range column {
			totals[i] += x
		}
	}
	whole := stat.Variance(totals, nil)
	if whole < 1e-12 {
		return nil
	}
	k := float64(len(columns))
	alpha := k / (k - 1) * (1 - parts/whole)
	return &alpha
}

// AlphaSpan gives the interval of an alpha of n students and k questions, by the F
// distribution (Feldt 1965, Psychometrika 30:357-370); nil of fewer than two of either.
func AlphaSpan(alpha float64, n, k int) *Interval {
	if n < 2 || k < 2 {
		return nil
	}
	f := distuv.F{D1: float64(n - 1), D2: float64((n - 1) * (k - 1))}
	return &Interval{1 - (1-alpha)*f.Quantile(.975), 1 - (1-alpha)*f.Quantile(.025)}
}

// correlation gives Pearson's correlation; nil where one side is always the same.
func correlation(x, y []float64) *float64 {
	if len(x) < 2 || stat.Variance(x, nil) < 1e-12 || stat.Variance(y, nil) < 1e-12 {
		return nil
	}
	r := stat.Correlation(x, y, nil)
	return &r
}

// fisher gives the interval of a correlation of n pairs by Fisher's z (Fisher 1921); nil
// of fewer than four.
func fisher(r float64, n int) *Interval {
	if n < 4 {
		return nil
	}
	r = min(max(r, -1+1e-12), 1-1e-12)
	half := z / math.Sqrt(float64(n-3))
	return &Interval{math.Tanh(math.Atanh(r) - half), math.Tanh(math.Atanh(r) + half)}
}

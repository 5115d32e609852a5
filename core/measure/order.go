package measure

import (
	"cmp"
	"math"
	"slices"
)

// Ranks gives the ranks of some numbers from 1, the smallest first; equal ones share
// the mean of their places.
func Ranks(of []float64) []float64 {
	order := make([]int, len(of))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(of[a], of[b]) })
	ranks := make([]float64, len(of))
	for from := 0; from < len(order); {
		to := from + 1
		for to < len(order) && of[order[to]] == of[order[from]] {
			to++
		}
		for _, i := range order[from:to] {
			ranks[i] = float64(from+to+1) / 2
		}
		from = to
	}
	return ranks
}

// Concordance gives Kendall's W: how well some orders of the same things agree, from 0
// to 1, corrected for ties (Kendall & Babington Smith 1939; Siegel 1956). Each row is
// what one person gave, by things. It is false of fewer than two rows or things, and
// where nobody put anything before anything else.
func Concordance(rows [][]float64) (float64, bool) {
	if len(rows) < 2 || len(rows[0]) < 2 {
		return 0, false
	}
	m, n := float64(len(rows)), float64(len(rows[0]))
	sums := make([]float64, len(rows[0]))
	ties := 0.
	for _, row := range rows {
		for i, r := range Ranks(row) {
			sums[i] += r
		}
		count := map[float64]float64{}
		for _, x := range row {
			count[x]++
		}
		for _, t := range count {
			ties += t*t*t - t
		}
	}
	s := 0.
	for _, r := range sums {
		s += (r - m*(n+1)/2) * (r - m*(n+1)/2)
	}
	below := m*m*(n*n*n-n) - m*ties
	if below <= 0 {
		return 0, false
	}
	return min(1, 12*s/below), true
}

// Tau gives Kendall's tau-b of two orders of the same things, from -1 to 1, with ties
// (Kendall 1938, 1945). It is false where one of them puts nothing before anything.
func Tau(x, y []float64) (float64, bool) {
	agree, tiedX, tiedY, pairs := 0., 0., 0., 0.
	for i := range x {
		for j := range i {
			pairs++
			a, b := cmp.Compare(x[i], x[j]), cmp.Compare(y[i], y[j])
			agree += float64(a * b)
			if a == 0 {
				tiedX++
			}
			if b == 0 {
				tiedY++
			}
		}
	}
	below := math.Sqrt((pairs - tiedX) * (pairs - tiedY))
	if below == 0 {
		return 0, false
	}
	return agree / below, true
}

// Swapped counts the pairs of things that stand the other way round than they should,
// of an order that gives to each place the right place of what stands there.
func Swapped(order []int) int {
	n := 0
	for i := range order {
		for j := range i {
			if order[j] > order[i] {
				n++
			}
		}
	}
	return n
}

// Package measure computes published figures about answers: how sure a share is, what a
// class gained between two rounds, how an order agrees with others, when half had
// answered, and how the questions of a set did. It knows numbers alone.
package measure

import "math"

// z is the 97.5th percentile of the standard normal distribution.
const z = 1.959963984540054

// Interval is between what two values something is, with 95 % confidence.
type Interval struct {
	Low  float64 `json:"low"`
	High float64 `json:"high"`
}

// Within says whether the whole interval lies in another, edges included.
func (i Interval) Within(low, high float64) bool { return i.Low >= low && i.High <= high }

// Wilson gives the score interval of a share, x of n, within 0 and 1; of nobody it is
// from 0 to 1 (Wilson 1927, J Am Stat Assoc 22:209-212).
func Wilson(x, n int) Interval {
	if n <= 0 {
		return Interval{0, 1}
	}
	p, m := float64(x)/float64(n), float64(n)
	mid := (p + z*z/(2*m)) / (1 + z*z/m)
	half := z / (1 + z*z/m) * math.Sqrt(p*(1-p)/m+z*z/(4*m*m))
	i := Interval{max(0, mid-half), min(1, mid+half)}
	// What is exact on paper is not by rounding.
	if x == 0 {
		i.Low = 0
	}
	if x == n {
		i.High = 1
	}
	return i
}

// Difference gives by how much the share x1 of n1 is above the share x2 of n2, of two
// groups that have nobody in common: the hybrid score interval (method 10 of Newcombe
// 1998, Stat Med 17:873-890).
func Difference(x1, n1, x2, n2 int) Interval {
	if n1 <= 0 || n2 <= 0 {
		return Interval{-1, 1}
	}
	p1, p2 := float64(x1)/float64(n1), float64(x2)/float64(n2)
	a, b := Wilson(x1, n1), Wilson(x2, n2)
	return Interval{
		p1 - p2 - math.Hypot(p1-a.Low, b.High-p2),
		p1 - p2 + math.Hypot(a.High-p1, p2-b.Low),
	}
}

// Percent gives whole percents of some counts that sum to 100: the largest remainders
// are rounded up, of equal ones the first. Of nothing all are 0.
func Percent(counts []int) []int {
	all := 0
	for _, n := range counts {
		all += n
	}
	shares := make([]int, len(counts))
	if all == 0 {
		return shares
	}
	left := 100
	for i, n := range counts {
		shares[i] = 100 * n / all
		left -= shares[i]
	}
	given := make([]bool, len(counts))
	for range left {
		most := -1
		for i, n := range counts {
			if !given[i] && (most < 0 || 100*n%all > 100*counts[most]%all) {
				most = i
			}
		}
		given[most] = true
		shares[most]++
	}
	return shares
}

package measure

import "math"

// ClassGain gives the normalised gain of a class, from the mean before to the mean
// after, both as shares of 1: what was gained of what could be (Hake 1998, Am J Phys
// 66:64-74). It is false where all was right before.
func ClassGain(before, after float64) (float64, bool) {
	if before >= 1 {
		return 0, false
	}
	return (after - before) / (1 - before), true
}

// MeanGain gives the mean of the students' own normalised gains, and of how many it is:
// who had all right before has none. It differs from the class's, so it must be named.
func MeanGain(before, after []float64) (mean float64, of int) {
	for i := range before {
		if g, ok := ClassGain(before[i], after[i]); ok {
			mean += g
			of++
		}
	}
	if of > 0 {
		mean /= float64(of)
	}
	return mean, of
}

// Band says how large a gain is.
type Band string

// The bands of a class's normalised gain: below 0.3, below 0.7, and the rest (Hake
// 1998; the handling of the edges from memory).
const (
	Low    Band = "low"
	Medium Band = "medium"
	High   Band = "high"
)

// Bands lists them.
var Bands = []Band{Low, Medium, High}

// BandOf gives the band of a gain.
func BandOf(gain float64) Band {
	switch {
	case gain < .3:
		return Low
	case gain < .7:
		return Medium
	}
	return High
}

// McNemar gives how likely it is that at least so uneven a count comes by chance alone,
// of b who changed one way and c who changed the other: the exact two-sided
// probability, and the mid-p (McNemar 1947; Fagerland, Lydersen & Laake 2013, BMC Med
// Res Methodol 13:91). Where nobody changed both are 1.
func McNemar(b, c int) (exact, mid float64) {
	n, k := b+c, min(b, c)
	if n == 0 {
		return 1, 1
	}
	tail := 0.
	for i := range k + 1 {
		tail += binomial(n, i)
	}
	exact = min(1, 2*tail)
	if b == c {
		return exact, 1 - binomial(n, k)/2
	}
	return exact, exact - binomial(n, k)
}

// binomial gives the probability of k in n throws of a fair coin.
func binomial(n, k int) float64 {
	all, _ := math.Lgamma(float64(n + 1))
	yes, _ := math.Lgamma(float64(k + 1))
	no, _ := math.Lgamma(float64(n - k + 1))
	return math.Exp(all - yes - no - float64(n)*math.Ln2)
}

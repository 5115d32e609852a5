package insight

import "slices"

// Gini gives the Gini coefficient of some amounts, none of them negative: 0 when
// all are equal, (n-1)/n when one has all; 0 of none or nothing. With amounts in
// ascending order x(1)..x(n) it is the sum of (2i-n-1) x(i), divided by n times
// their sum, without a correction for small samples.
func Gini(amounts []float64) float64 {
	sorted := slices.Sorted(slices.Values(amounts))
	n := float64(len(sorted))
	sum, weighted := 0.0, 0.0
	for i, x := range sorted {
		sum += x
		weighted += (2*float64(i+1) - n - 1) * x
	}
	if sum == 0 {
		return 0
	}
	return weighted / (n * sum)
}

// Evenness says in words how evenly a class takes part.
type Evenness string

// Nobody has done anything; most take part about alike; some do clearly more than
// others; few do most of it. The bands are ours: a Gini coefficient below 0.3, below
// 0.5, and the rest.
const (
	Nobody Evenness = "nobody"
	Even   Evenness = "even"
	Uneven Evenness = "uneven"
	Few    Evenness = "few"
)

// Evennesses lists them.
var Evennesses = []Evenness{Nobody, Even, Uneven, Few}

// Spread is how evenly a class takes part.
type Spread struct {
	Is    Evenness `json:"is"`
	Gini  float64  `json:"gini"`
	Total int      `json:"total"`
	// Half is how few of those who did most made half of it or more.
	Half   int `json:"half"`
	Of     int `json:"of"`
	Silent int `json:"silent"` // have nothing yet
}

// Spoken says how evenly some amounts are spread, one for each student.
func Spoken(amounts []int) Spread {
	s := Spread{Of: len(amounts)}
	values := make([]float64, len(amounts))
	for i, n := range amounts {
		values[i] = float64(n)
		s.Total += n
		if n == 0 {
			s.Silent++
		}
	}
	s.Gini = Gini(values)
	most := slices.Sorted(slices.Values(amounts))
	slices.Reverse(most)
	for made := 0; s.Half < len(most) && 2*made < s.Total; s.Half++ {
		made += most[s.Half]
	}
	switch {
	case s.Total == 0:
		s.Is = Nobody
	case s.Gini < .3:
		s.Is = Even
	case s.Gini < .5:
		s.Is = Uneven
	default:
		s.Is = Few
	}
	return s
}

package measure

import "math"

// Disagreement says how far apart two categories are.
type Disagreement func(a, b int) float64

// Nominal counts every difference alike, Linear by how many steps, Quadratic by their square.
func Nominal(a, b int) float64 {
	if a == b {
		return 0
	}
	return 1
}

// Linear is how many steps lie between them.
func Linear(a, b int) float64 { return math.Abs(float64(a - b)) }

// Quadratic is the square of that.
func Quadratic(a, b int) float64 { return float64((a - b) * (a - b)) }

// Agreed is how far two markers agree beyond chance: 1 is always, 0 as by chance. Span is the
// 95 % interval by its standard error; rough for few.
type Agreed struct {
	Kappa float64  `json:"kappa"`
	Span  Interval `json:"span"`
}

// Kappa gives how far two markers agree: table counts, for each category of the one, what the
// other gave. False where both used one category alone, or there is nothing.
//
// Cohen 1960 and, with weights, 1968: 1 - observed / expected disagreement. Standard error:
// Fleiss, Cohen & Everitt 1969, Psychol Bull 72:323-327 (from memory; its figure for one table
// is in the tests).
func Kappa(table [][]float64, apart Disagreement) (Agreed, bool) {
	k := len(table)
	n, most := 0., 0.
	rows, columns := make([]float64, k), make([]float64, k)
	for i := range table {
		for j, count := range table[i] {
			n += count
			rows[i] += count
			columns[j] += count
			most = max(most, apart(i, j))
		}
	}
	if n == 0 || most == 0 {
		return Agreed{}, false
	}
	// Weights of agreement, from 0 to 1, and their means in each row and column.
	w := func(i, j int) float64 { return 1 - apart(i, j)/most }
	byRow, byColumn := make([]float64, k), make([]float64, k)
	seen, chance := 0., 0.
	for i := range k {
		for j := range k {
			seen += w(i, j) * table[i][j] / n
			chance += w(i, j) * rows[i] / n * columns[j] / n
			byRow[i] += w(i, j) * columns[j] / n
			byColumn[j] += w(i, j) * rows[i] / n
		}
	}
	if 1-chance < 1e-12 {
		return Agreed{}, false
	}
	sum := 0.
	for i := range k {
		for j := range k {
			off := w(i, j)*(1-chance) - (byRow[i]+byColumn[j])*(1-seen)
			sum += table[i][j] / n * off * off
		}
	}
	off := seen*chance - 2*chance + seen
	se := math.Sqrt(max(0, sum-off*off)/n) / ((1 - chance) * (1 - chance))
	kappa := (seen - chance) / (1 - chance)
	return Agreed{kappa, Interval{max(-1, kappa-z*se), min(1, kappa+z*se)}}, true
}

// Fleiss gives how far several markers agree who each judged every piece: counts says for
// each piece how many put it into each category (Fleiss 1971, Psychol Bull 76:378-382). False
// where all of them used one category alone, or there are fewer than two markers.
func Fleiss(counts [][]int) (float64, bool) {
	if len(counts) == 0 {
		return 0, false
	}
	share := make([]float64, len(counts[0]))
	agree, markers := 0., 0
	for _, piece := range counts {
		of, pairs := 0, 0
		for c, n := range piece {
			of += n
			pairs += n * (n - 1)
			share[c] += float64(n)
		}
		markers = of
		agree += float64(pairs) / float64(of*(of-1))
	}
	agree /= float64(len(counts))
	chance := 0.
	for _, n := range share {
		p := n / float64(len(counts)*markers)
		chance += p * p
	}
	if markers < 2 || 1-chance < 1e-12 {
		return 0, false
	}
	return (agree - chance) / (1 - chance), true
}

// Krippendorff gives how far any number of markers agree where not everybody judged every
// piece: alpha (Krippendorff 2011, from memory). Each piece has the categories, from 0, that
// were given to it; apart is told also how often each category was given in all, by which the
// ordinal distance goes. False where nothing can be compared or no two differ.
func Krippendorff(pieces [][]int, apart func(a, b int, given []float64) float64) (float64, bool) {
	most := 0
	for _, p := range pieces {
		for _, c := range p {
			most = max(most, c)
		}
	}
	given := make([]float64, most+1)
	paired := make([][]float64, most+1)
	for i := range paired {
		paired[i] = make([]float64, most+1)
	}
	n := 0.
	for _, p := range pieces {
		if len(p) < 2 {
			continue
		}
		for i, a := range p {
			given[a]++
			n++
			for j, b := range p {
				if i != j {
					paired[a][b] += 1 / float64(len(p)-1)
				}
			}
		}
	}
	seen, chance := 0., 0.
	for a := range given {
		for b := range given {
			d := apart(a, b, given)
			seen += paired[a][b] * d
			chance += given[a] * given[b] * d
		}
	}
	if n < 2 || chance == 0 {
		return 0, false
	}
	return 1 - (n-1)*seen/chance, true
}

// ByOrder is how far apart two categories of an order are: by the square of how many were
// given between them, half of each end (Krippendorff's ordinal metric, from memory).
func ByOrder(a, b int, given []float64) float64 {
	if a > b {
		a, b = b, a
	}
	between := -(given[a] + given[b]) / 2
	for c := a; c <= b; c++ {
		between += given[c]
	}
	if a == b {
		return 0
	}
	return between * between
}

// Strength is a word for how far markers agree.
type Strength string

// Words for kappa after Landis & Koch 1977, Biometrics 33:159-174 (from memory): common
// practice, and no law.
const (
	NoStrength  Strength = "none" // not more than by chance
	Slight      Strength = "slight"
	Fair        Strength = "fair"
	Moderate    Strength = "moderate"
	Substantial Strength = "substantial"
	Perfect     Strength = "perfect" // almost
)

// Strengths lists them.
var Strengths = []Strength{NoStrength, Slight, Fair, Moderate, Substantial, Perfect}

// StrengthOf gives the word for a kappa.
func StrengthOf(kappa float64) Strength {
	switch {
	case kappa <= 0:
		return NoStrength
	case kappa <= .2:
		return Slight
	case kappa <= .4:
		return Fair
	case kappa <= .6:
		return Moderate
	case kappa <= .8:
		return Substantial
	}
	return Perfect
}

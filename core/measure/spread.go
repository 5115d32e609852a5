package measure

import (
	"math"
	"slices"
)

// Quantile gives the quantile p, from 0 to 1, of some numbers: type 7 of Hyndman & Fan
// 1996 (Am Stat 50:361-365), between the two nearest by how far it lies between them.
// Of none it is 0.
func Quantile(of []float64, p float64) float64 {
	if len(of) == 0 {
		return 0
	}
	sorted := slices.Sorted(slices.Values(of))
	h := p * float64(len(sorted)-1)
	i := int(math.Floor(h))
	if i+1 >= len(sorted) {
		return sorted[len(sorted)-1]
	}
	return sorted[i] + (h-float64(i))*(sorted[i+1]-sorted[i])
}

// MostBins is how many bins a histogram has at most, whatever lies far outside.
const MostBins = 24

// BinWidth gives the width of bins by Freedman & Diaconis 1981: twice the range of the
// middle half, divided by the cube root of how many there are.
func BinWidth(of []float64) float64 {
	if len(of) == 0 {
		return 0
	}
	return 2 * (Quantile(of, .75) - Quantile(of, .25)) / math.Cbrt(float64(len(of)))
}

// Bin is one bin of a histogram: how many are at least Low and below High; in the last
// one those at High too.
type Bin struct {
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
	Count int     `json:"count"`
}

// Bins gives the histogram of some numbers. Its bins are about as wide as Freedman and
// Diaconis say, rounded to 1, 2 or 5 times a power of ten and beginning at a multiple of
// that; where half of all are the same, by Sturges' count of bins. There are never
// more than MostBins: a few numbers far outside make the bins wider.
func Bins(of []float64) []Bin {
	if len(of) == 0 {
		return nil
	}
	low, high := slices.Min(of), slices.Max(of)
	if low == high {
		return []Bin{{low, high, len(of)}}
	}
	width := BinWidth(of)
	if !(width > 0) || math.IsInf(width, 0) {
		width = (high - low) / math.Ceil(math.Log2(float64(len(of)))+1)
	}
	width = round(max(width, (high-low)/MostBins))
	// What lies on an edge belongs to the bin above, whatever rounding makes of it.
	at := func(x float64) float64 { return math.Floor(x/width + 1e-9) }
	for at(high)-at(low)+1 > MostBins {
		width = round(width * 2)
	}
	first := at(low)
	bins := make([]Bin, int(at(high)-first)+1)
	for i := range bins {
		bins[i] = Bin{Low: (first + float64(i)) * width, High: (first + float64(i) + 1) * width}
	}
	for _, x := range of {
		i := int(at(x) - first)
		bins[min(max(i, 0), len(bins)-1)].Count++
	}
	return bins
}

// round gives what is nearest of 1, 2 and 5 times a power of ten, by how many times larger or
// smaller it is.
func round(width float64) float64 {
	unit := math.Pow(10, math.Floor(math.Log10(width)))
	for _, times := range []float64{1, 2, 5} {
		if next := map[float64]float64{1: 2, 2: 5, 5: 10}[times]; width < unit*math.Sqrt(times*next) {
			return times * unit
		}
	}
	return 10 * unit
}

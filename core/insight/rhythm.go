package insight

import "slices"

// Of pauses: what is usual before a class has shown its own rhythm, and the least
// and the most that is taken for usual, in milliseconds.
const (
	UsualPause = 180_000
	LeastPause = 60_000
	MostPause  = 600_000
	// rhythmOf is how many students must have paused before their rhythm counts.
	rhythmOf = 5
)

// Median gives the middle of some numbers, of an even count the mean of the two
// in the middle; 0 of none.
func Median(of []float64) float64 {
	sorted := slices.Sorted(slices.Values(of))
	n := len(sorted)
	switch {
	case n == 0:
		return 0
	case n%2 == 1:
		return sorted[n/2]
	}
	return (sorted[n/2-1] + sorted[n/2]) / 2
}

// MAD gives the median of the absolute deviations from the median, without a factor.
func MAD(of []float64) float64 {
	m := Median(of)
	off := make([]float64, len(of))
	for i, x := range of {
		off[i] = max(x-m, m-x)
	}
	return Median(off)
}

// Pause is up to how long a pause is usual on a frame, in milliseconds, by the
// longest pause that each student has made there and ended: the median and three
// robust standard deviations, 1.4826 times the MAD each, within bounds. Of fewer
// than five students it says what is usual anywhere.
func Pause(longest []float64) int64 {
	if len(longest) < rhythmOf {
		return UsualPause
	}
	return min(max(int64(Median(longest)+3*1.4826*MAD(longest)), LeastPause), MostPause)
}

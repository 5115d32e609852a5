package alike

import (
	"cmp"
	"slices"
)

// Counted is a text with how many agree with it, and when it came in milliseconds since 1970.
type Counted struct {
	ID     string
	Agreed int
	At     int64
}

// Band is some texts whose number lies in From..To.
type Band struct {
	From  int64    `json:"from"`
	To    int64    `json:"to"`
	Texts []string `json:"texts"`
}

// bounds are up to how many agree in each band but the last; the bands are ours.
var bounds = []int64{0, 2, 5}

// ByAgreement puts texts into bands by how many agree, the most first: none, 1 or 2, 3 to
// 5, and more. Bands without a text are left out; To is the most that there are.
func ByAgreement(texts []Counted) []Band {
	bands := make([]Band, len(bounds)+1)
	for i := range bands {
		if i > 0 {
			bands[i].From = bounds[i-1] + 1
		}
	}
	for _, t := range texts {
		at := slices.IndexFunc(bounds, func(to int64) bool { return int64(t.Agreed) <= to })
		if at < 0 {
			at = len(bounds)
		}
		bands[at].To = max(bands[at].To, int64(t.Agreed))
		bands[at].Texts = append(bands[at].Texts, t.ID)
	}
	bands = slices.DeleteFunc(bands, func(b Band) bool { return len(b.Texts) == 0 })
	slices.Reverse(bands)
	return bands
}

// How many texts a band of times has, about, and how many bands there are at most.
const (
	perBand  = 6
	maxBands = 4
)

// ByTime puts texts into bands of about as many each, in the order in which they came.
func ByTime(texts []Counted) []Band {
	sorted := slices.SortedStableFunc(slices.Values(texts), func(a, b Counted) int { return cmp.Compare(a.At, b.At) })
	bands := []Band{}
	if len(sorted) == 0 {
		return bands
	}
	count := min(maxBands, (len(sorted)+perBand-1)/perBand)
	for some := range slices.Chunk(sorted, (len(sorted)+count-1)/count) {
		b := Band{From: some[0].At, To: some[len(some)-1].At}
		for _, t := range some {
			b.Texts = append(b.Texts, t.ID)
		}
		bands = append(bands, b)
	}
	return bands
}

package assess

import (
	"cmp"
	"reflect"
	"slices"

	"alpenglow/core/measure"
	"alpenglow/core/settings"
)

// Agreement is how far two teachers agree on the pieces to which both gave a level of the same
// scale.
type Agreement struct {
	One   string           `json:"one"`
	Other string           `json:"other"`
	Of    int              `json:"of"`
	Same  int              `json:"same"`
	Scale []settings.Level `json:"scale"`
	// Table counts, for each level that the one gave, what the other gave.
	Table [][]int `json:"table"`
	// Plain counts every difference alike, Weighted by the square of how many levels lie between;
	// nil where nothing can be said. Words is for the weighted one.
	Plain    *measure.Agreed  `json:"plain,omitempty"`
	Weighted *measure.Agreed  `json:"weighted,omitempty"`
	Words    measure.Strength `json:"words,omitempty"`
	// Apart are the pieces on which they differ, those farthest apart first.
	Apart []Differing `json:"apart"`
}

// Differing is a piece to which two teachers gave different levels.
type Differing struct {
	Piece
	One   int `json:"one"`
	Other int `json:"other"`
}

// Agree compares what two teachers think. Where levels of several scales were given, the scale
// that both used most often is compared.
func Agree(all []Judged, one, other string) Agreement {
	a := Agreement{One: one, Other: other, Apart: []Differing{}, Table: [][]int{}, Scale: []settings.Level{}}
	mine := map[Piece]Level{}
	for _, j := range all {
		if j.By == one && j.Level != nil {
			mine[j.Piece] = *j.Level
		}
	}
	type both struct {
		of    []Differing
		scale []settings.Level
	}
	var scales []both
	for _, j := range all {
		first, is := mine[j.Piece]
		if j.By != other || j.Level == nil || !is || !reflect.DeepEqual(first.Scale, j.Level.Scale) {
			continue
		}
		at := slices.IndexFunc(scales, func(b both) bool { return reflect.DeepEqual(b.scale, first.Scale) })
		if at < 0 {
			at = len(scales)
			scales = append(scales, both{scale: first.Scale})
		}
		scales[at].of = append(scales[at].of, Differing{j.Piece, first.At, j.Level.At})
	}
	if len(scales) == 0 {
		return a
	}
	most := slices.MaxFunc(scales, func(a, b both) int { return cmp.Compare(len(a.of), len(b.of)) })
	a.Scale, a.Of = most.scale, len(most.of)
	table := make([][]float64, len(a.Scale))
	a.Table = make([][]int, len(a.Scale))
	for i := range table {
		table[i], a.Table[i] = make([]float64, len(a.Scale)), make([]int, len(a.Scale))
	}
	for _, d := range most.of {
		table[d.One][d.Other]++
		a.Table[d.One][d.Other]++
		if d.One == d.Other {
			a.Same++
		} else {
			a.Apart = append(a.Apart, d)
		}
	}
	slices.SortStableFunc(a.Apart, func(x, y Differing) int {
		return cmp.Or(cmp.Compare(apart(y), apart(x)), cmp.Compare(x.Student, y.Student), cmp.Compare(x.Frame, y.Frame),
			cmp.Compare(x.Mark, y.Mark))
	})
	if k, ok := measure.Kappa(table, measure.Nominal); ok {
		a.Plain = &k
	}
	if k, ok := measure.Kappa(table, measure.Quadratic); ok {
		a.Weighted, a.Words = &k, measure.StrengthOf(k.Kappa)
	}
	return a
}

func apart(d Differing) int { return max(d.One-d.Other, d.Other-d.One) }

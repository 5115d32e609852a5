package alike

import (
	"cmp"
	"math"
	"slices"
)

// Vector is what a text is, as weights of its tokens; its length is 1, or 0 for a text
// without tokens.
type Vector map[string]float64

// vectors weighs the tokens of texts: how often a token is in the text, times
// ln((1+n)/(1+df))+1 where df of n texts have it.
func vectors(tokens [][]string) []Vector {
	df := map[string]int{}
	for _, t := range tokens {
		seen := map[string]bool{}
		for _, w := range t {
			if !seen[w] {
				seen[w] = true
				df[w]++
			}
		}
	}
	n := float64(len(tokens))
	all := make([]Vector, len(tokens))
	for i, t := range tokens {
		v := Vector{}
		for _, w := range t {
			v[w] += math.Log((1+n)/(1+float64(df[w]))) + 1
		}
		all[i] = v.unit()
	}
	return all
}

// unit gives the vector with length 1. The sum is in a fixed order, so that the same
// texts give the same digits.
func (v Vector) unit() Vector {
	squares := make([]float64, 0, len(v))
	for _, x := range v {
		squares = append(squares, x*x)
	}
	slices.Sort(squares)
	sum := 0.0
	for _, x := range squares {
		sum += x
	}
	if length := math.Sqrt(sum); length > 0 {
		for w := range v {
			v[w] /= length
		}
	}
	return v
}

// Cosine gives the cosine of the angle between two vectors of length 1, as how alike
// two texts are: 0 for nothing in common, 1 for the same.
func Cosine(a, b Vector) float64 {
	if len(b) < len(a) {
		a, b = b, a
	}
	products := make([]float64, 0, len(a))
	for w, x := range a {
		if y, ok := b[w]; ok {
			products = append(products, x*y)
		}
	}
	slices.Sort(products)
	sum := 0.0
	for _, x := range products {
		sum += x
	}
	return min(sum, 1)
}

// Merge is a step of joining: which two groups, by their first members, at which
// distance.
type Merge struct {
	A, B   int
	Height float64
}

// Linkage joins what is closest by average linkage (UPGMA): the distance of two groups
// is the mean of those between their members. It gives the n-1 merges by height, by
// chains of nearest neighbours (Murtagh 1983, from memory), in time n². The table of
// distances is used up.
func Linkage(far [][]float64) []Merge {
	n := len(far)
	size, there := make([]float64, n), make([]bool, n)
	for i := range n {
		size[i], there[i] = 1, true
	}
	var merges []Merge
	var chain []int
	for len(merges) < n-1 {
		if len(chain) == 0 {
			chain = append(chain, slices.Index(there, true))
		}
		at := chain[len(chain)-1]
		near, before := -1, -1
		if len(chain) > 1 {
			before = chain[len(chain)-2]
			near = before // of those equally near the one before, so that the chain ends
		}
		for i := range n {
			if there[i] && i != at && (near < 0 || far[at][i] < far[at][near]) {
				near = i
			}
		}
		if near != before || before < 0 {
			chain = append(chain, near)
			continue
		}
		chain = chain[:len(chain)-2]
		a, b := min(at, near), max(at, near)
		merges = append(merges, Merge{a, b, far[a][b]})
		for i := range n {
			if there[i] && i != a && i != b {
				d := (size[a]*far[a][i] + size[b]*far[b][i]) / (size[a] + size[b])
				far[a][i], far[i][a] = d, d
			}
		}
		size[a] += size[b]
		there[b] = false
	}
	slices.SortStableFunc(merges, func(x, y Merge) int { return cmp.Compare(x.Height, y.Height) })
	return merges
}

// joined gives the groups of what is joined below a distance, each by its members'
// numbers in order, in the order of their first members.
func joined(far [][]float64, below float64) [][]int {
	n := len(far)
	of := make([]int, n)
	for i := range of {
		of[i] = i
	}
	find := func(i int) int {
		for of[i] != i {
			of[i] = of[of[i]]
			i = of[i]
		}
		return i
	}
	for _, m := range Linkage(far) {
		if m.Height < below {
			a, b := find(m.A), find(m.B)
			of[max(a, b)] = min(a, b)
		}
	}
	at := map[int]int{}
	var groups [][]int
	for i := range n {
		root := find(i)
		g, ok := at[root]
		if !ok {
			g = len(groups)
			at[root] = g
			groups = append(groups, nil)
		}
		groups[g] = append(groups[g], i)
	}
	return groups
}

package insight

import (
	"cmp"
	"slices"
)

// Candidate is somebody who may be picked, and how often they were before, in this
// lesson and in those before it.
type Candidate struct {
	ID    string
	Times int
}

// Pool lists those of some candidates who were picked least often; each of them is
// as likely as any other to be picked, and nobody else is.
func Pool(all []Candidate) []string {
	if len(all) == 0 {
		return nil
	}
	least := slices.MinFunc(all, func(a, b Candidate) int { return cmp.Compare(a.Times, b.Times) }).Times
	var pool []string
	for _, c := range all {
		if c.Times == least {
			pool = append(pool, c.ID)
		}
	}
	slices.Sort(pool)
	return pool
}

// Pick draws one of the pool; random(n) gives a number in 0..n-1. It is empty for
// an empty pool.
func Pick(pool []string, random func(n int) int) string {
	if len(pool) == 0 {
		return ""
	}
	return pool[random(len(pool))]
}

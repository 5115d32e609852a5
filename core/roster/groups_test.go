package roster_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"alpenglow/core/roster"
)

// Every student is in one group, none is above the size, sizes differ by one
// at most, and there are no more groups than needed.
func TestDivide(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for n := range 60 {
		for size := roster.MinGroup; size <= roster.MaxGroup; size++ {
			var students []string
			for i := range n {
				students = append(students, fmt.Sprint(i))
			}
			groups := roster.Divide(students, size, random.IntN)
			if want := (n + size - 1) / size; len(groups) != want {
				t.Fatalf("%d in groups of %d: %d groups, want %d", n, size, len(groups), want)
			}
			var all []string
			small, large := n, 0
			for _, g := range groups {
				all = append(all, g...)
				small, large = min(small, len(g)), max(large, len(g))
			}
			if n > 0 && (large > size || large-small > 1) {
				t.Fatalf("%d in groups of %d: from %d to %d", n, size, small, large)
			}
			slices.Sort(all)
			slices.Sort(students)
			if !slices.Equal(all, students) {
				t.Fatalf("%d in groups of %d: %v", n, size, all)
			}
		}
	}
}

// Chance decides who is with whom: over many tries each pair of eight students
// is together about as often as any other. Two given ones share a group of four
// with probability 3/7; 7,000 tries have a standard deviation of 41.
func TestDivideIsFair(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 4))
	students := []string{"a", "b", "c", "d", "e", "f", "g", "h"}
	together := map[[2]string]int{}
	for range 7000 {
		for _, g := range roster.Divide(students, 4, random.IntN) {
			slices.Sort(g)
			for i, a := range g {
				for _, b := range g[i+1:] {
					together[[2]string{a, b}]++
				}
			}
		}
	}
	if len(together) != 28 {
		t.Fatalf("%d of 28 pairs were ever together", len(together))
	}
	for pair, n := range together {
		if n < 3000-6*41 || n > 3000+6*41 {
			t.Errorf("%v: together %d times of about 3000", pair, n)
		}
	}
}

func TestPlace(t *testing.T) {
	for _, c := range []struct {
		groups [][]string
		size   int
		want   int
	}{
		{nil, 4, 0},
		{[][]string{{"a"}}, 4, 0},
		{[][]string{{"a", "b"}, {"c"}}, 4, 1},
		{[][]string{{"a", "b"}, {}}, 4, 1},
		{[][]string{{"a", "b"}, {"c", "d"}}, 2, 2},
		{[][]string{{"a", "b", "c"}, {"d", "e"}}, 2, 2},
	} {
		if got := roster.Place(c.groups, c.size); got != c.want {
			t.Errorf("%v at %d: %d, want %d", c.groups, c.size, got, c.want)
		}
	}
}

func ExampleDivide() {
	notMixed := func(n int) int { return n - 1 }
	fmt.Println(roster.Divide([]string{"Amara", "Kenji", "Noor", "Tomás", "Ayla"}, 2, notMixed))
	// Output: [[Amara Tomás] [Kenji Ayla] [Noor]]
}

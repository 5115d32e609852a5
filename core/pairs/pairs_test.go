package pairs

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"slices"
	"testing"
)

// class makes a class at random: seats in rows, or none; some who are not to be together,
// some who talked before, some who have not answered.
func class(r *rand.Rand, n int) Class {
	c := Class{}
	seat := map[string]int{}
	for i := range n {
		id := fmt.Sprintf("s%03d", i)
		seat[id] = i
		answer := ""
		if r.IntN(8) > 0 {
			answer = fmt.Sprint(r.IntN(1 + r.IntN(4)))
		}
		c.Students = append(c.Students, Student{id, answer})
	}
	some := func(times int) (all [][2]string) {
		for range times {
			all = append(all, [2]string{c.Students[r.IntN(n)].ID, c.Students[r.IntN(n)].ID})
		}
		return all
	}
	if n > 0 {
		c.Apart, c.Before = some(r.IntN(n)), some(r.IntN(2*n))
	}
	if r.IntN(4) > 0 {
		wide := 2 + r.IntN(6)
		c.Near = func(a, b string) bool {
			x, y := seat[a]%wide-seat[b]%wide, seat[a]/wide-seat[b]/wide
			return max(x, -x)+max(y, -y) == 1
		}
	}
	return c
}

func (c Class) may(a, b string) bool { return a != b && !known(c.Apart)[[2]string{a, b}] }
func (c Class) near(a, b string) bool {
	return c.may(a, b) && (c.Near == nil || c.Near(a, b))
}
func (c Class) answer(id string) string {
	return c.Students[slices.IndexFunc(c.Students, func(s Student) bool { return s.ID == id })].Answer
}
func (c Class) differ(a, b string) bool {
	return c.near(a, b) && c.answer(a) != c.answer(b) && c.answer(a) != "" && c.answer(b) != ""
}

// most searches through all pairings for the largest, and among the largest for the
// fewest who talked before. Slow.
func (c Class) most(ids []string, before map[[2]string]bool) (pairs, again int) {
	if len(ids) < 2 {
		return 0, 0
	}
	rest := ids[1:]
	pairs, again = c.most(rest, before) // the first one without
	for i, other := range rest {
		if !c.differ(ids[0], other) {
			continue
		}
		n, k := c.most(slices.Concat(rest[:i], rest[i+1:]), before)
		n++
		if before[[2]string{ids[0], other}] {
			k++
		}
		if n > pairs || n == pairs && k < again {
			pairs, again = n, k
		}
	}
	return pairs, again
}

// In 10,000 classes everybody is in one group or alone, nobody with whom they are not to
// be, everybody near somebody of the group; pairs of different answers are as many as a
// search through all of small classes finds, and where that needs nobody twice, nobody is.
func TestMake(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	needless := 0
	for round := range 10_000 {
		n := r.IntN(9)
		if round%20 == 0 {
			n = r.IntN(60)
		}
		c := class(r, n)
		p := Make(c)
		before := known(c.Before)
		var all []string
		different, again := 0, 0
		for _, g := range p.Groups {
			all = append(all, g...)
			if len(g) != 2 && len(g) != 3 {
				t.Fatalf("a group of %v", g)
			}
			for i, a := range g {
				beside := false
				for j, b := range g {
					if i != j && !c.may(a, b) {
						t.Fatalf("%s and %s are together", a, b)
					}
					beside = beside || c.near(a, b)
				}
				if !beside {
					t.Fatalf("%s sits near nobody of %v", a, g)
				}
			}
			if c.differ(g[0], g[1]) {
				different++
				if before[[2]string{g[0], g[1]}] {
					again++
				}
			}
		}
		for _, id := range p.Alone {
			for _, other := range p.Alone {
				if c.near(id, other) {
					t.Fatalf("%s and %s are alone, side by side", id, other)
				}
			}
		}
		all = append(all, p.Alone...)
		slices.Sort(all)
		var ids []string
		for _, s := range c.Students {
			ids = append(ids, s.ID)
		}
		if !slices.Equal(all, ids) {
			t.Fatalf("%v of %v", all, ids)
		}
		if n <= 8 {
			pairs, repeats := c.most(ids, before)
			if different != pairs || repeats == 0 && again > 0 {
				t.Fatalf(
					"%d pairs, %d of them again; there can be %d with %d\n%+v\n%+v",
					different,
					again,
					pairs,
					repeats,
					c,
					p,
				)
			}
			needless += again - repeats
		}
		r.Shuffle(len(c.Students), func(i, j int) { c.Students[i], c.Students[j] = c.Students[j], c.Students[i] })
		if now := Make(c); !reflect.DeepEqual(now, p) {
			t.Fatalf("in another order %+v, before %+v", now, p)
		}
	}
	t.Logf("%d pairs talked again that need not have", needless)
}

// 300 students, anybody with anybody, and on their seats.
func BenchmarkMake(b *testing.B) {
	for _, near := range []bool{false, true} {
		b.Run(fmt.Sprintf("near=%v", near), func(b *testing.B) {
			c := class(rand.New(rand.NewPCG(1, 1)), 300)
			c.Near = nil
			if near {
				at := map[string]int{}
				for i, s := range c.Students {
					at[s.ID] = i
				}
				c.Near = func(a, b string) bool {
					d := at[a] - at[b]
					return d == 1 || d == -1 || d == 20 || d == -20
				}
			}
			for b.Loop() {
				Make(c)
			}
		})
	}
}

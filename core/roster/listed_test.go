package roster_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
)

// Published examples: CA to ABC is 3 by optimal string alignment and 2 by the
// unrestricted distance (Boytsov 2011); kitten to sitting is 3, Saturday to Sunday 3
// (Wagner & Fischer's distance as commonly shown, from memory).
func TestDistance(t *testing.T) {
	for _, c := range []struct {
		a, b string
		want int
	}{{"ca", "abc", 3}, {"kitten", "sitting", 3}, {"saturday", "sunday", 3}, {"noor", "onor", 1}, {"", "noor", 4},
		{"zoë", "zoe", 1}, {"noor", "noor", 0}} {
		if got, back := roster.Distance(c.a, c.b), roster.Distance(c.b, c.a); got != c.want || back != c.want {
			t.Errorf("%s to %s: %d and %d, want %d", c.a, c.b, got, back, c.want)
		}
	}
}

func TestLikely(t *testing.T) {
	var list []roster.Listed
	for _, name := range []string{"Noor Haddad", "Nora Haddad", "Kenji Mori", "Zofia Novak", "علا حداد"} {
		list = append(list, roster.Listed{ID: name, Name: name})
	}
	for typed, want := range map[string]string{"noor haddad": "Noor Haddad|Nora Haddad", "Kenij": "Kenji Mori",
		"zofia n": "Zofia Novak", "علا": "علا حداد", "xyz": "", "Haddad": "Noor Haddad|Nora Haddad"} {
		got := ""
		for _, l := range roster.Likely(list, typed) {
			got += "|" + l.Name
		}
		if got != "" {
			got = got[1:]
		}
		if got != want {
			t.Errorf("%s: %q, want %q", typed, got, want)
		}
	}
}

func TestToldApart(t *testing.T) {
	got := roster.ToldApart([]string{"Noor", "Kenji", "noor", "Noor 2", "Nооr"}) // the last one with Cyrillic letters
	if want := []string{"Noor", "Kenji", "noor 2", "Noor 2 2", "Nооr 3"}; !slices.Equal(got, want) {
		t.Errorf("%q", got)
	}
}

// However a class is divided and whoever should not be together: groups keep their
// sizes and everybody, and no swap of two would part more.
func TestKeepApart(t *testing.T) {
	random := rand.New(rand.NewPCG(5, 6))
	for range 300 {
		var students []string
		for i := range 4 + random.IntN(30) {
			students = append(students, fmt.Sprint(i))
		}
		var apart []roster.Pair
		for range random.IntN(20) {
			a, b := random.IntN(len(students)), random.IntN(len(students))
			if a != b {
				apart = append(apart, roster.Pair{students[a], students[b]})
			}
		}
		groups := roster.Divide(students, 2+random.IntN(5), random.IntN)
		sizes := fmt.Sprint(sizesOf(groups))
		roster.KeepApart(groups, apart)
		all := slices.Concat(groups...)
		slices.Sort(all)
		slices.Sort(students)
		if fmt.Sprint(sizesOf(groups)) != sizes || !slices.Equal(all, students) {
			t.Fatalf("%v of %v", groups, students)
		}
		now := together(groups, apart)
		for i := range groups {
			for j := range i {
				for x := range groups[i] {
					for y := range groups[j] {
						groups[i][x], groups[j][y] = groups[j][y], groups[i][x]
						if together(groups, apart) < now {
							t.Fatalf("%d together in %v, but fewer with a swap", now, groups)
						}
						groups[i][x], groups[j][y] = groups[j][y], groups[i][x]
					}
				}
			}
		}
	}
}

func sizesOf(groups [][]string) (sizes []int) {
	for _, g := range groups {
		sizes = append(sizes, len(g))
	}
	return sizes
}

func together(groups [][]string, apart []roster.Pair) (n int) {
	for _, p := range apart {
		for _, g := range groups {
			if slices.Contains(g, p[0]) && slices.Contains(g, p[1]) {
				n++
			}
		}
	}
	return n
}

func TestPlan(t *testing.T) {
	in := []string{"a", "b", "c"}
	good := roster.Plan{Sets: []roster.Set{{ID: "1", Name: " Labs ", Groups: [][]string{{"a", "gone"}, {"a", "b"}}}},
		Apart: []roster.Pair{{"a", "b"}, {"b", "a"}, {"a", "gone"}},
		Seats: roster.Seats{Rows: 2, Columns: 2, At: []string{"a", "a", "b", "c"}}}
	kept, err := good.Check(in)
	if err != nil || fmt.Sprint(kept) != "{[{1 Labs [[a] [b]]}] [[a b]] {2 2 [a  b c]}}" {
		t.Errorf("%v, %v", kept, err)
	}
	// The second row is read from the right: who comes next sits beside.
	if got := kept.Seats.Seated(); !slices.Equal(got, []string{"a", "c", "b"}) {
		t.Errorf("seated %v", got)
	}
	if as := kept.As(map[string]string{"a": "x", "b": "y"}); fmt.Sprint(
		as,
	) != "{[{1 Labs [[x] [y]]}] [[x y]] {2 2 [x  y ]}}" {
		t.Errorf("%v", as)
	}
	for name, bad := range map[string]roster.Plan{
		"seats that are not there": {Seats: roster.Seats{Rows: 2, Columns: 2, At: []string{"a"}}},
		"seats without end":        {Seats: roster.Seats{Rows: 21, Columns: 1, At: make([]string, 21)}},
		"fewer than none":          {Seats: roster.Seats{Rows: -1, Columns: -1, At: []string{"a"}}},
		"apart from oneself":       {Apart: []roster.Pair{{"a", "a"}}},
		"two sets of one id":       {Sets: []roster.Set{{ID: "1", Name: "A"}, {ID: "1", Name: "B"}}},
		"a set without a name":     {Sets: []roster.Set{{ID: "1", Name: " "}}},
		"too many":                 {Apart: make([]roster.Pair, roster.MaxApart+1)},
	} {
		if _, err := bad.Check(in); refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

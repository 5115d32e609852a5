package insight_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"alpenglow/core/insight"
)

const minute = 60_000

// A class of six on one frame, with the order and the reasons that a person would
// give who looked at them. It is 10 minutes in; three have paused for at most 1, 2
// and 2 minutes, so that what is usual anywhere counts: 3 minutes.
func class() ([]insight.Student, int64) {
	now := int64(100 * minute)
	in := func(id string, marks int, ago, pause int64) insight.Student {
		s := insight.Student{ID: id, Name: id, Here: true, Frame: "f", Since: now - 10*minute, Looked: now - 20*minute,
			Work: insight.Work{Marks: marks, Pause: pause}}
		if marks > 0 {
			s.Work.At = now - ago
		}
		return s
	}
	return []insight.Student{
		in("Ada", 6, minute/2, minute),
		in("Bo", 4, minute/2, 2*minute),
		in("Cem", 8, minute/3, 2*minute),
		in("Dia", 0, 0, 0),
		in("Eli", 2, 4*minute, 0),
		in("Fay", 6, minute, 0),
	}, now
}

func TestNext(t *testing.T) {
	type row struct {
		student string
		state   insight.State
		why     insight.Why
		n       int
	}
	for _, c := range []struct {
		name   string
		change func(by map[string]*insight.Student, now int64)
		want   []row // the first of them
	}{
		{"one has nothing, others are at 6; one has changed nothing for 4 minutes", nil,
			[]row{{"Dia", insight.NotBegun, insight.WhyBehind, 6}, {"Eli", insight.Quiet, insight.WhyQuiet, 0},
				{"Ada", insight.AtWork, insight.WhyNone, 0}}},
		{"who asks for help comes first, the longest waiting before", func(by map[string]*insight.Student, now int64) {
			by["Fay"].Help, by["Ada"].Help = now-2*minute, now-minute
		}, []row{{"Fay", insight.Help, insight.WhyHelp, 0}, {"Ada", insight.Help, insight.WhyHelp, 0},
			{"Dia", insight.NotBegun, insight.WhyBehind, 6}}},
		{"to look is not to have helped; to be on the way is", func(by map[string]*insight.Student, now int64) {
			by["Fay"].Help, by["Fay"].Looked = now-2*minute, now-minute
			by["Ada"].Help, by["Ada"].Coming = now-5*minute, true
		}, []row{{"Fay", insight.Help, insight.WhyHelp, 0}, {"Ada", insight.Help, insight.WhyComing, 0}}},
		{"three are wrong in the same way, one in another", func(by map[string]*insight.Student, now int64) {
			for i, id := range []string{"Cem", "Ada", "Bo"} {
				by[id].Wrong, by[id].WrongAt = "a", now-int64(i)*1000
			}
			by["Fay"].Wrong, by["Fay"].WrongAt = "b", now
		}, []row{{"Bo", insight.AtWork, insight.WhySame, 2}, {"Ada", insight.AtWork, insight.WhySame, 2},
			{"Cem", insight.AtWork, insight.WhySame, 2}, {"Dia", insight.NotBegun, insight.WhyBehind, 6},
			{"Eli", insight.Quiet, insight.WhyQuiet, 0}, {"Fay", insight.AtWork, insight.WhyWrong, 0}}},
		{"who was looked at since falls behind", func(by map[string]*insight.Student, now int64) {
			by["Dia"].Looked = now
		}, []row{{"Eli", insight.Quiet, insight.WhyQuiet, 0}, {"Dia", insight.NotBegun, insight.WhyBehind, 6}}},
		{"whom the teacher has never looked at", func(by map[string]*insight.Student, now int64) {
			by["Cem"].Looked = 0
		}, []row{{"Dia", insight.NotBegun, insight.WhyBehind, 6}, {"Eli", insight.Quiet, insight.WhyQuiet, 0},
			{"Cem", insight.AtWork, insight.WhyUnseen, 0}}},
		{"who is done needs nobody, however quiet", func(by map[string]*insight.Student, now int64) {
			by["Eli"].Done = true
		}, []row{{"Dia", insight.NotBegun, insight.WhyBehind, 6}, {"Ada", insight.AtWork, insight.WhyNone, 0}}},
		{"most have not begun", func(by map[string]*insight.Student, now int64) {
			for _, id := range []string{"Ada", "Bo", "Cem", "Eli"} {
				by[id].Work = insight.Work{}
			}
		}, []row{{"Ada", insight.NotBegun, insight.WhyNotBegun, 0}}},
		{"who is gone stands last", func(by map[string]*insight.Student, now int64) {
			for _, id := range []string{"Ada", "Bo", "Cem", "Eli", "Fay"} {
				by[id].Here = false
			}
		}, []row{{"Dia", insight.NotBegun, insight.WhyNotBegun, 0}, {"Ada", insight.Gone, insight.WhyNone, 0}}},
	} {
		t.Run(c.name, func(t *testing.T) {
			students, now := class()
			if c.change != nil {
				by := map[string]*insight.Student{}
				for i := range students {
					by[students[i].ID] = &students[i]
				}
				c.change(by, now)
			}
			rows, _ := insight.Next(students, now)
			for i, want := range c.want {
				if got := (row{rows[i].Student, rows[i].State, rows[i].Why, rows[i].N}); got != want {
					t.Errorf("%d: %v, want %v", i, got, want)
				}
			}
		})
	}
}

// A class that pauses for long is not quiet when it pauses: of the pauses 1 to 9
// minutes and one of 100 the median is 5.5 and the MAD 2.5 minutes.
func TestPause(t *testing.T) {
	var pauses []float64
	for i := range 9 {
		pauses = append(pauses, float64(i+1))
	}
	// Median and MAD of 1..9 and 100: 5.5 and 2.5, as R's mad(c(1:9,100)) gives 3.7065
	// with its factor (from memory, and computed again).
	if m := insight.MAD(append(pauses, 100)); math.Abs(m*1.4826-3.7065) > 1e-9 {
		t.Error("MAD:", m)
	}
	if m := insight.MAD([]float64{1, 1, 2, 2, 4, 6, 9}); m != 1 {
		t.Error("MAD of Wikipedia's example, as recalled:", m)
	}
	for _, c := range []struct {
		of   []float64
		want int64
	}{
		{nil, insight.UsualPause}, {[]float64{1, 1, 1, 1}, insight.UsualPause},
		{[]float64{2000, 2000, 2000, 2000, 2000}, insight.LeastPause},
		{[]float64{100_000, 120_000, 140_000, 160_000, 180_000}, 140_000 + 88_956},
		{[]float64{1e6, 2e6, 3e6, 4e6, 5e6}, insight.MostPause},
	} {
		if got := insight.Pause(c.of); got != c.want {
			t.Errorf("%v: %d, want %d", c.of, got, c.want)
		}
	}
}

// Over random classes: the order does not depend on that of the students; nothing
// changes by time alone before it is said to; and who does more never comes earlier
// for it.
func TestNextProperties(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 1))
	for range 3000 {
		students, now := randomClass(r, 1+r.IntN(12))
		rows, changes := insight.Next(students, now)
		mixed := slices.Clone(students)
		r.Shuffle(len(mixed), func(i, j int) { mixed[i], mixed[j] = mixed[j], mixed[i] })
		if again, _ := insight.Next(mixed, now); !same(rows, again) {
			t.Fatal("the order of the students matters")
		}
		until := now + 100*minute
		if changes > 0 {
			if changes <= now {
				t.Fatal("changes before now")
			}
			until = changes - 1
		}
		if later, _ := insight.Next(students, until); !same(rows, later) {
			t.Fatal("changed without a cause")
		}
		i := r.IntN(len(students))
		// Before whom nothing else has changed.
		ahead := rows[:place(rows, students[i].ID)]
		students[i].Work = students[i].Work.Then(now, students[i].Work.Marks+1+r.IntN(5))
		done, _ := insight.Next(students, now)
		for _, other := range ahead {
			if at := place(done, other.Student); done[at].Same(other) && at > place(done, students[i].ID) {
				t.Fatalf("%+v comes before %+v for having done more", students[i], other)
			}
		}
	}
}

func place(rows []insight.Row, id string) int {
	return slices.IndexFunc(rows, func(r insight.Row) bool { return r.Student == id })
}

func same(a, b []insight.Row) bool { return slices.EqualFunc(a, b, insight.Row.Same) }

func randomClass(r *rand.Rand, n int) ([]insight.Student, int64) {
	now := int64(1000 * minute)
	students := make([]insight.Student, n)
	for i := range students {
		s := insight.Student{ID: fmt.Sprint(i), Name: fmt.Sprint(i % 3), Here: r.IntN(6) > 0, Away: r.IntN(6) == 0,
			Removed: r.IntN(9) == 0, Frame: "f", Since: now - r.Int64N(20*minute), Done: r.IntN(5) == 0}
		if r.IntN(3) > 0 {
			s.Work = insight.Work{Marks: r.IntN(9), At: now - r.Int64N(10*minute), Pause: r.Int64N(8 * minute)}
		}
		if r.IntN(5) == 0 {
			s.Help, s.Coming = now-r.Int64N(9*minute), r.IntN(2) == 0
		}
		if r.IntN(3) == 0 {
			s.Looked = now - r.Int64N(20*minute)
		}
		if r.IntN(4) == 0 {
			s.Wrong, s.WrongAt = []string{"a", "b"}[r.IntN(2)], now-r.Int64N(9*minute)
		}
		students[i] = s
	}
	return students, now
}

// Work does not depend on the order in which its changes arrive, but for the pause,
// which counts those that come in order.
func TestWork(t *testing.T) {
	w := insight.Work{}.Then(1000, 1).Then(5000, 2).Then(4000, 2).Then(5000, 2)
	if want := (insight.Work{Marks: 2, At: 5000, Pause: 4000}); w != want {
		t.Errorf("%+v", w)
	}
}

func TestSpoken(t *testing.T) {
	skewed := []int{0, 0, 1, 1, 2, 2, 3, 5, 8, 20}
	for _, c := range []struct {
		amounts []int
		gini    float64
		half    int
		silent  int
	}{
		// The vector and .4620911 of the help of R's package ineq, from memory.
		{[]int{541, 1463, 2445, 3438, 4437, 5401, 6392, 8304, 11904, 22261}, 0.46209113026762383, 2, 0},
		{nil, 0, 0, 0}, {[]int{0, 0, 0}, 0, 0, 3}, {[]int{4, 4, 4, 4}, 0, 2, 0},
		{[]int{0, 0, 0, 9}, .75, 1, 3}, // (n-1)/n
		{skewed, 0.6238095238095238, 2, 2},
	} {
		got := insight.Spoken(c.amounts)
		if math.Abs(got.Gini-c.gini) > 1e-12 || got.Half != c.half || got.Silent != c.silent {
			t.Errorf("%v: %+v", c.amounts, got)
		}
	}
}

// Everybody is drawn once before anybody is drawn twice, and each of the pool as
// often as any other: with 28 in the pool and 28,000 draws each about 1,000 times,
// within six standard deviations.
func TestPick(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 1))
	times := map[string]int{}
	var all []insight.Candidate
	for i := range 28 {
		all = append(all, insight.Candidate{ID: fmt.Sprintf("%02d", i)})
	}
	for range 28_000 {
		times[insight.Pick(insight.Pool(all), r.IntN)]++
	}
	for id, n := range times {
		if math.Abs(float64(n)-1000) > 6*math.Sqrt(1000) {
			t.Errorf("%s: %d", id, n)
		}
	}
	drawn := map[string]int{}
	for i := range 28 * 3 {
		id := insight.Pick(insight.Pool(all), r.IntN)
		drawn[id]++
		all[slices.IndexFunc(all, func(c insight.Candidate) bool { return c.ID == id })].Times++
		if i%28 == 27 && len(drawn) != 28 {
			t.Fatalf("after %d draws %d were drawn", i+1, len(drawn))
		} else if i%28 == 27 {
			clear(drawn)
		}
	}
	if insight.Pick(nil, r.IntN) != "" || insight.Pool(nil) != nil {
		t.Error("of nobody somebody")
	}
}

// What a server does after an operation in a class of 300.
func BenchmarkNext(b *testing.B) {
	students, now := randomClass(rand.New(rand.NewPCG(1, 1)), 300)
	for b.Loop() {
		insight.Next(students, now)
	}
}

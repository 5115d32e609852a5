package homework_test

import (
	"math/rand/v2"
	"testing"
	"time"

	"alpenglow/core/homework"
)

func TestStand(t *testing.T) {
	h := homework.Homework{Since: 10, Until: 100, Longer: map[string]int64{"noor": 200}}
	for _, c := range []struct {
		student     string
		handed, now int64
		worked      bool
		want        homework.Stand
	}{
		{"kenji", 0, 50, false, homework.NotBegun}, {"kenji", 0, 50, true, homework.AtWork},
		{"kenji", 100, 100, true, homework.HandedIn}, {"kenji", 101, 150, true, homework.HandedLate},
		{"kenji", 0, 101, true, homework.NotHanded}, {"kenji", 0, 101, false, homework.Missing},
		{"noor", 101, 150, true, homework.HandedIn}, {"noor", 0, 200, false, homework.NotBegun},
		{"noor", 0, 201, true, homework.NotHanded}, {"kenji", 60, 60, false, homework.HandedIn},
		{"kenji", 9, 60, true, homework.AtWork}, // of the homework before
	} {
		if got := h.Stand(c.student, c.handed, c.worked, c.now); got != c.want {
			t.Errorf("%+v: %s", c, got)
		}
	}
}

// A date is a moment: over the change of the clock (29 March 2026, 1:00 UTC in Europe) a day has 23 hours, and in
// every zone it is the same moment.
func TestDatesOverTheChangeOfTheClock(t *testing.T) {
	lisbon := time.FixedZone("WEST", 3600) // Lisbon after the change
	due := time.Date(2026, 3, 29, 18, 0, 0, 0, lisbon)
	h := homework.Homework{Until: due.UnixMilli(), Closes: true}
	for _, c := range []struct {
		at   time.Time
		over bool
	}{
		{time.Date(2026, 3, 29, 17, 0, 0, 0, time.UTC), false}, // 18:00 there
		{time.Date(2026, 3, 29, 17, 0, 1, 0, time.UTC), true},
		{time.Date(2026, 3, 29, 13, 0, 0, 0, time.FixedZone("", -4*3600)), false},
	} {
		if got := h.Over("kenji", c.at.UnixMilli()); got != c.over {
			t.Errorf("%s: over %v", c.at, got)
		}
	}
}

func TestCheck(t *testing.T) {
	const day = 24 * 60 * 60 * 1000
	for until, ok := range map[int64]bool{-1: false, 0: false, 1000: false, 1001: true, 1000 + 366*day: true,
		1001 + 366*day: false, 1 << 62: false, -1 << 63: false} {
		if err := homework.Check(until, 1000); (err == nil) != ok {
			t.Errorf("%d: %v", until, err)
		}
	}
}

// Whatever dates there are, a student learns of their own alone, and nothing that is over is open again by what
// somebody else was given.
func TestOwnDate(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	students := []string{"a", "b", "c"}
	for range 2000 {
		h := &homework.Homework{Until: r.Int64N(100), Closes: r.IntN(2) == 0}
		for range r.IntN(4) {
			h = h.For(students[r.IntN(3)], r.Int64N(100))
		}
		who, now := students[r.IntN(3)], r.Int64N(100)
		own := h.Of(who)
		if len(own.Longer) > 0 || own.Until != h.Due(who) || own.Over(who, now) != h.Over(who, now) {
			t.Fatalf("%+v: %s knows %+v", h, who, own)
		}
		other := h.For(students[r.IntN(3)], 1+r.Int64N(100))
		for _, s := range students {
			if _, changed := other.Longer[s]; !changed && other.Due(s) != h.Due(s) {
				t.Fatalf("%s has another date", s)
			}
		}
		if back := h.For(who, 0); back.Due(who) != h.Until {
			t.Fatalf("%s has not everybody's date again", who)
		}
	}
	if none := (*homework.Homework)(nil); none.Of("a") != nil || none.Over("a", 5) || !none.Same(nil) {
		t.Error("no homework is one")
	}
}

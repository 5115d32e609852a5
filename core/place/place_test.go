package place

import (
	"math"
	"math/rand/v2"
	"testing"
)

var frame = Box{0, 0, 1600, 1000}

func TestFree(t *testing.T) {
	left := Box{0, 0, 800, 1000}
	for name, c := range map[string]struct {
		taken      []Box
		w, h, x, y float64
		wantX      float64
		wantY      float64
		clear      bool
	}{
		"an empty frame: just where one looks":   {nil, 300, 120, 800, 500, 650, 440, true},
		"near the edge it stays inside":          {nil, 300, 120, 1590, 990, 1300, 880, true},
		"beside what is there":                   {[]Box{left}, 300, 120, 700, 500, 810, 440, true},
		"nothing free: the nearest of the least": {[]Box{frame}, 300, 120, 800, 500, 650, 440, false},
		"larger than the room":                   {nil, 2000, 1200, 800, 500, 0, 0, true},
		"a gap that fits exactly": {[]Box{{0, 0, 633, 1000}, {953, 0, 647, 1000}}, 300, 120, 100, 500,
			643, 440, true},
	} {
		x, y, clear := Free(frame, c.taken, c.w, c.h, c.x, c.y)
		if x != c.wantX || y != c.wantY || clear != c.clear {
			t.Errorf("%s: %g, %g, clear %v; want %g, %g", name, x, y, clear, c.wantX, c.wantY)
		}
	}
}

// A whole class that begins a note at the same time: nobody's lies on
// another's as long as there is room.
func TestNotesOfAClassDoNotCoverEachOther(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	var taken []Box
	for range 26 {
		x, y, _ := Free(frame, taken, 220, 120, 800+40*r.NormFloat64(), 500+40*r.NormFloat64())
		b := Box{x, y, 220, 120}
		if b.X < 0 || b.Y < 0 || b.X+b.W > 1600 || b.Y+b.H > 1000 {
			t.Fatalf("outside: %v", b)
		}
		for _, other := range taken {
			if o := b.overlap(other); o > 0 {
				t.Fatalf("note %d covers %g of another", len(taken)+1, o)
			}
		}
		taken = append(taken, b)
	}
	if math.IsNaN(taken[0].X) {
		t.Fatal("no place")
	}
}

func BenchmarkFree(b *testing.B) {
	r := rand.New(rand.NewPCG(9, 10))
	taken := make([]Box, 400)
	for i := range taken {
		taken[i] = Box{1500 * r.Float64(), 900 * r.Float64(), 100, 100}
	}
	for b.Loop() {
		Free(frame, taken, 300, 120, 800, 500)
	}
}

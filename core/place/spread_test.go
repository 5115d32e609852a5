package place

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

// heap gives notes of a class that all lie about the middle.
func heap(r *rand.Rand, n int, w, h, far float64) []Box {
	boxes := make([]Box, n)
	for i := range boxes {
		tall := h * (1 + 0.5*float64(r.IntN(3)))
		boxes[i] = Box{
			min(1600-w, max(0, 700+far*r.NormFloat64())),
			min(1000-tall, max(0, 400+far*r.NormFloat64())),
			w,
			tall,
		}
	}
	return boxes
}

var inside = Box{10, 10, 1580, 980}

// None covers another or what is taken, none lies outside, the same comes out
// twice, and what lies apart already stays.
func TestSpread(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for run := range 60 {
		taken := heap(r, r.IntN(4), 300, 100, 400)
		boxes := heap(r, 1+r.IntN(30), 120, 60, 30+float64(r.IntN(300)))
		laid, ok := Spread(inside, taken, boxes)
		if !ok {
			t.Fatalf("run %d: no room for %d", run, len(boxes))
		}
		for i, b := range laid {
			if b.W != boxes[i].W || b.H != boxes[i].H {
				t.Fatalf("run %d: %v became %v", run, boxes[i], b)
			}
			if b.X < inside.X || b.Y < inside.Y || b.X+b.W > 1590 || b.Y+b.H > 990 {
				t.Fatalf("run %d: outside: %v", run, b)
			}
			for _, o := range append(slices.Clone(taken), laid[:i]...) {
				if b.overlap(o) > 0 {
					t.Fatalf("run %d: %v covers %v", run, b, o)
				}
			}
		}
		if again, _ := Spread(inside, taken, boxes); !slices.Equal(again, laid) {
			t.Fatalf("run %d: another result the second time", run)
		}
		still, ok := Spread(inside, taken, laid)
		if way := Way(laid, still); !ok || way > 0 {
			t.Fatalf("run %d: what lay apart was moved by %g in all", run, way)
		}
	}
}

// As many as the area takes: boxes that fill seven to nine tenths of the room,
// as many as rows of them take, find a place each, however they lay.
func TestSpreadFillsTheRoom(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for _, size := range []Box{{W: 180, H: 110}, {W: 100, H: 60}, {W: 250, H: 130}} {
		w, h := size.W+rim, size.H+rim // a gap is shared with the next
		n := int(inside.W/(w+cell)) * int(inside.H/(h+cell))
		if share := float64(n) * w * h / (inside.W * inside.H); share < 0.7 {
			t.Fatalf("%v: a test of %g", size, share)
		}
		boxes := make([]Box, n)
		for i := range boxes {
			boxes[i] = Box{1400 * r.Float64(), 800 * r.Float64(), size.W, size.H}
		}
		laid, ok := Spread(inside, nil, boxes)
		if !ok {
			t.Errorf("%d of %v found no room", n, size)
		}
		if _, ok := Spread(inside, nil, append(boxes, boxes...)); ok {
			t.Errorf("twice %d of %v found room", n, size)
		}
		t.Logf("%d of %g x %g: mean way %.0f units", n, size.W, size.H, Way(boxes, laid)/float64(n))
	}
}

// What is said of the quality in docs: the sum of ways against the least that an
// exact assignment to the same places could have (exchange leaves little).
func TestExchangeIsNearTheBest(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	for range 20 {
		boxes := heap(r, 7, 200, 100, 80)
		for i := range boxes {
			boxes[i].H = 100
		}
		laid, ok := Spread(inside, nil, boxes)
		if !ok {
			t.Fatal("no room")
		}
		best := math.Inf(1)
		permute(laid, 0, func(p []Box) { best = min(best, Way(boxes, p)) })
		if way := Way(boxes, laid); way > 1.05*best {
			t.Errorf("way %g, %g would do", way, best)
		}
	}
}

func permute(p []Box, from int, see func([]Box)) {
	if from == len(p) {
		see(p)
		return
	}
	q := slices.Clone(p)
	for i := from; i < len(q); i++ {
		q[from], q[i] = q[i], q[from]
		permute(q, from+1, see)
		q[from], q[i] = q[i], q[from]
	}
}

func TestOpen(t *testing.T) {
	if got := Open(Box{0, 0, 400, 400}, []Box{{0, 0, 200, 400}, {100, 0, 200, 200},
		{-50, -50, 60, 60}}); got != 60_000 {
		t.Errorf("open %g, want 60000", got)
	}
}

func BenchmarkSpread150(b *testing.B) {
	r := rand.New(rand.NewPCG(9, 10))
	boxes := heap(r, 150, 100, 36, 200)
	for i := range boxes {
		boxes[i].H = 40 + 10*float64(i%3)
	}
	for b.Loop() {
		if _, ok := Spread(inside, []Box{{0, 0, 1600, 140}}, boxes); !ok {
			b.Fatal("no room")
		}
	}
}

package columns_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"testing"

	"alpenglow/core/agreed"
	"alpenglow/core/columns"
	"alpenglow/core/lesson"
	"alpenglow/core/place"
)

// tall is about how high a card with so many letters stands; the interface's test
// knows the same formula.
func tall(chars int) func(letters, width float64) float64 {
	return func(letters, width float64) float64 {
		return 38 + math.Max(1, math.Ceil(float64(chars)*letters*.5/(width-38)))*letters*1.35
	}
}

func notes(chars, columns []int) []columnsNote {
	all := make([]columnsNote, len(chars))
	for i := range all {
		all[i] = columnsNote{Column: columns[i], Tall: tall(chars[i])}
	}
	return all
}

type columnsNote = columns.Note

func box(s columns.Spot, n columns.Note, letters float64) place.Box {
	return place.Box{X: s.X, Y: s.Y - columns.Tab, W: s.W, H: n.Tall(letters, s.W) + columns.Tab}
}

func meet(a, b place.Box) bool {
	return a.X < b.X+b.W && b.X < a.X+a.W && a.Y < b.Y+b.H && b.Y < a.Y+a.H
}

// For classes up to 300 with five notes each: no note covers another or leaves
// the room; what is beyond is counted; a note that comes last moves no other
// while the letters keep their size; the same notes lie the same.
func TestLay(t *testing.T) {
	for seed := range uint64(200) {
		rnd := rand.New(rand.NewPCG(seed, 3))
		count := 1 + rnd.IntN(lesson.MaxNoteColumns)
		room := place.Box{X: 20, Y: 140, W: 400 + 1160*rnd.Float64(), H: 300 + 540*rnd.Float64()}
		n := 1 + rnd.IntN(5*(1+rnd.IntN(300)))
		chars, in := make([]int, n), make([]int, n)
		for i := range chars {
			chars[i], in[i] = 1+rnd.IntN(200), rnd.IntN(count)
		}
		all := notes(chars, in)
		prompts := seed%2 == 0
		laid := columns.Lay(room, count, prompts, all, nil)
		if again := columns.Lay(room, count, prompts, all, nil); !reflect.DeepEqual(laid, again) {
			t.Fatalf("seed %d: another result the second time", seed)
		}
		on, beyond := make([]int, count), make([]int, count)
		var lying []place.Box
		for i, s := range laid.Spots {
			if s.Beyond {
				beyond[in[i]]++
				continue
			}
			on[in[i]]++
			b := box(s, all[i], laid.Letters)
			first := on[in[i]] == 1 // it is shown, however high
			if b.X < room.X-1e-9 || b.X+b.W > room.X+room.W+1e-9 || b.Y < room.Y || !first && b.Y+b.H > room.Y+room.H {
				t.Fatalf("seed %d: %v outside %v", seed, b, room)
			}
			lying = append(lying, b)
		}
		for i, a := range lying {
			for _, b := range lying[:i] {
				if meet(a, b) {
					t.Fatalf("seed %d: %v covers %v", seed, a, b)
				}
			}
		}
		if !reflect.DeepEqual(on, laid.On) || !reflect.DeepEqual(beyond, laid.Beyond) {
			t.Fatalf("seed %d: %v on, %v beyond; said %v, %v", seed, on, beyond, laid.On, laid.Beyond)
		}
		before := columns.Lay(room, count, prompts, all[:n-1], nil)
		if before.Letters == laid.Letters && !reflect.DeepEqual(before.Spots, laid.Spots[:n-1]) {
			t.Fatalf("seed %d: the last note moved others", seed)
		}
		// Going on by what was shown, every note of a column comes once.
		if c := rnd.IntN(count); laid.Beyond[c] > 0 {
			from, seen := make([]int, count), 0
			for range n + 1 {
				part := columns.Lay(room, count, prompts, all, from)
				seen += part.On[c]
				from[c] += part.On[c]
				if part.On[c] == 0 {
					break
				}
			}
			if seen != laid.On[c]+laid.Beyond[c] {
				t.Fatalf("seed %d: %d notes were shown of %d", seed, seen, laid.On[c]+laid.Beyond[c])
			}
		}
	}
}

func TestRoom(t *testing.T) {
	frame := place.Box{X: 20, Y: 140, W: 1560, H: 840}
	for name, c := range map[string]struct {
		taken []place.Box
		want  place.Box
	}{
		"nothing prepared": {nil, frame},
		"a table at the left": {[]place.Box{{X: 60, Y: 170, W: 600, H: 240}}, place.Box{X: 20, Y: 420, W: 1560,
			H: 560}},
		"a tall picture": {[]place.Box{{X: 20, Y: 140, W: 500, H: 800}}, place.Box{X: 520, Y: 140, W: 1060,
			H: 840}},
		"everything taken": {[]place.Box{frame}, frame},
	} {
		if got := columns.Room(frame, c.taken); got != c.want {
			t.Errorf("%s: %v, want %v", name, got, c.want)
		}
	}
}

func note(i int, author string, rank float64, tint lesson.Tint, agreed ...string) lesson.Element {
	return lesson.Element{ID: fmt.Sprint("n", i), At: int64(i), Author: author, Agreed: agreed,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Rank: rank, Tint: tint}}}
}

func TestInOrder(t *testing.T) {
	all := []lesson.Element{
		note(3, "kenji", 5, "moss", "a"),
		note(1, "noor", 7, "rose"),
		note(2, "amara", 5, "snow", "a", "b"),
		note(4, "noor", -1, "moss"),
	}
	name := func(author string) string { return author }
	for order, want := range map[lesson.Order]string{lesson.OrderCame: "n1 n2 n3 n4 ",
		lesson.OrderAgreed: "n2 n3 n1 n4 ",
		lesson.OrderName:   "n2 n3 n1 n4 ", lesson.OrderTint: "n2 n1 n3 n4 ", lesson.OrderHand: "n4 n2 n3 n1 "} {
		got := ""
		for _, e := range columns.InOrder(lesson.Layout{Order: order}, all, name) {
			got += e.ID + " "
		}
		if got != want {
			t.Errorf("%q: %s, want %s", order, got, want)
		}
	}
}

// What a device lays itself, while people write, it lays the same.
func TestAgreed(t *testing.T) {
	type laying struct {
		Room    place.Box    `json:"room"`
		Taken   []place.Box  `json:"taken"`
		Count   int          `json:"count"`
		Prompts bool         `json:"prompts"`
		Chars   []int        `json:"chars"`
		In      []int        `json:"in"`
		From    []int        `json:"from"`
		Inside  place.Box    `json:"inside"`
		Laid    columns.Laid `json:"laid"`
	}
	var cases []laying
	for seed := range uint64(40) {
		rnd := rand.New(rand.NewPCG(seed, 5))
		c := laying{Room: place.Box{X: 20, Y: 140, W: 1560, H: 840}, Count: 1 + rnd.IntN(6), Prompts: seed%3 == 0,
			Taken: []place.Box{}}
		for range rnd.IntN(4) {
			c.Taken = append(c.Taken, place.Box{X: float64(rnd.IntN(1300)), Y: float64(rnd.IntN(800)),
				W: float64(50 + rnd.IntN(400)), H: float64(50 + rnd.IntN(200))})
		}
		for range 1 + rnd.IntN(60) {
			c.Chars, c.In = append(c.Chars, 1+rnd.IntN(150)), append(c.In, rnd.IntN(c.Count))
		}
		for range c.Count {
			c.From = append(c.From, rnd.IntN(3)*int(seed%2))
		}
		c.Inside = columns.Room(c.Room, c.Taken)
		c.Laid = columns.Lay(c.Inside, c.Count, c.Prompts, notes(c.Chars, c.In), c.From)
		cases = append(cases, c)
	}
	agreed.Holds(t, "testdata/laid.json", cases)
}

func BenchmarkLay1500(b *testing.B) {
	rnd := rand.New(rand.NewPCG(1, 2))
	all := make([]columns.Note, 1500)
	for i := range all {
		all[i] = columns.Note{Column: i % 3, Tall: tall(1 + rnd.IntN(150))}
	}
	room := place.Box{X: 20, Y: 140, W: 1560, H: 840}
	for b.Loop() {
		columns.Lay(room, 3, false, all, nil)
	}
}

func BenchmarkRoom(b *testing.B) {
	taken := make([]place.Box, 50)
	for i := range taken {
		taken[i] = place.Box{X: float64(i * 30), Y: float64(200 + i*10), W: 60, H: 40}
	}
	for b.Loop() {
		columns.Room(place.Box{X: 20, Y: 140, W: 1560, H: 840}, taken)
	}
}

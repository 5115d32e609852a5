package place

import (
	"cmp"
	"math"
	"slices"
)

// Open is how much of a room nothing covers, in square units, to within the
// cells that it counts in (5 x 5 units, rounded against what is free).
func Open(room Box, taken []Box) float64 {
	g := newGround(room)
	for _, t := range taken {
		g.take(t, 0)
	}
	return g.open()
}

// Spread lays boxes anew in a room, so that none covers another or what is
// taken, each as near as possible to where it lay. It is false where that cannot
// be done.
//
// First each box, in their order, takes the free place nearest to its own. When
// the last find none that way, because gaps too small to use are left between,
// the boxes are laid close together from the top left, the tallest first. Then
// boxes of one size change places as long as that shortens their ways. A box
// keeps its size; the places are told by their top left, in the order of boxes.
func Spread(room Box, taken, boxes []Box) ([]Box, bool) {
	g := over(room, taken)
	order := make([]int, len(boxes))
	for i := range order {
		order[i] = i
	}
	laid, ok := g.lay(boxes, order, func(b Box) (float64, float64) { return b.X, b.Y })
	if !ok {
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(boxes[b].H, boxes[a].H) })
		corner := func(Box) (float64, float64) { return room.X, room.Y }
		if laid, ok = g.lay(boxes, order, corner); !ok {
			return nil, false
		}
	}
	exchange(boxes, laid)
	return laid, true
}

// lay lays boxes on a copy of the ground, in an order, each near where it wishes.
func (g *ground) lay(boxes []Box, order []int, wish func(Box) (x, y float64)) ([]Box, bool) {
	on := *g
	on.taken = slices.Clone(g.taken)
	laid := make([]Box, len(boxes))
	for _, i := range order {
		b := boxes[i]
		x, y := wish(b)
		x, y, ok := on.nearest(b.W, b.H, x, y)
		if !ok {
			return nil, false
		}
		laid[i] = Box{x, y, b.W, b.H}
		on.take(laid[i], rimCells)
	}
	return laid, true
}

// exchange lets boxes of one size change places while that makes the sum of
// their ways shorter, a few times over.
func exchange(boxes, laid []Box) {
	way := func(i int, at Box) float64 { return math.Hypot(at.X-boxes[i].X, at.Y-boxes[i].Y) }
	for range 4 {
		changed := false
		for i := range laid {
			for j := range i {
				if laid[i].W != laid[j].W || laid[i].H != laid[j].H {
					continue
				}
				if way(i, laid[j])+way(j, laid[i]) < way(i, laid[i])+way(j, laid[j])-1e-9 {
					laid[i], laid[j] = laid[j], laid[i]
					changed = true
				}
			}
		}
		if !changed {
			return
		}
	}
}

// Way is the sum of the ways that boxes go from where they lay, in units.
func Way(boxes, laid []Box) float64 {
	var sum float64
	for i, b := range boxes {
		sum += math.Hypot(laid[i].X-b.X, laid[i].Y-b.Y)
	}
	return sum
}

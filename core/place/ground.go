package place

import (
	"math"
	"math/bits"
)

// cell is how finely the ground is divided, in units, and rimCells how many are
// kept free around what is laid.
const (
	cell     = 5
	rimCells = rim / cell
)

// ground knows what is taken of a room.
type ground struct {
	room       Box
	cols, rows int // cells
	taken      []span
}

// span is the cells from one to before another, across and down.
type span struct{ x0, y0, x1, y1 int }

func newGround(room Box) *ground {
	return &ground{room: room, cols: int(room.W / cell), rows: int(room.H / cell)}
}

// take marks the cells that a box touches as taken, and some around it.
func (g *ground) take(b Box, around int) {
	first := func(v float64) int { return int(math.Floor(v/cell+1e-9)) - around }
	end := func(v float64) int { return int(math.Ceil(v/cell-1e-9)) + around }
	x, y := b.X-g.room.X, b.Y-g.room.Y
	g.taken = append(g.taken, span{first(x), first(y), end(x + b.W), end(y + b.H)})
}

// open is the area that nothing has taken, in square units.
func (g *ground) open() float64 { return float64(g.spots(1, 1).count()) * cell * cell }

// spots gives the cells at which the top left of a box of w x h units can lie.
func (g *ground) spots(w, h float64) spots {
	wide, tall := max(1, int(math.Ceil(w/cell-1e-9))), max(1, int(math.Ceil(h/cell-1e-9)))
	s := spots{cols: g.cols, rows: g.rows, long: (g.cols + 63) / 64}
	s.closed = make([]uint64, s.long*s.rows)
	s.close(span{g.cols - wide + 1, 0, s.long * 64, g.rows})
	s.close(span{0, g.rows - tall + 1, g.cols, g.rows})
	for _, t := range g.taken {
		s.close(span{t.x0 - wide + 1, t.y0 - tall + 1, t.x1, t.y1})
	}
	return s
}

// spots has a bit for each cell where something cannot lie, row by row.
type spots struct {
	cols, rows int
	long       int // words of a row
	closed     []uint64
}

func (s spots) close(c span) {
	x0, x1 := max(0, c.x0), min(s.long*64, c.x1)
	for y := max(0, c.y0); y < min(s.rows, c.y1); y++ {
		row := s.row(y)
		for x := x0; x < x1; {
			n := min(64-x%64, x1-x)
			row[x/64] |= (^uint64(0) >> (64 - n)) << (x % 64)
			x += n
		}
	}
}

func (s spots) row(y int) []uint64 { return s.closed[y*s.long : (y+1)*s.long] }

func (s spots) isClosed(x, y int) bool { return s.row(y)[x/64]>>(x%64)&1 == 1 }

// count says how many cells are not closed.
func (s spots) count() int {
	n := len(s.closed) * 64
	for _, w := range s.closed {
		n -= bits.OnesCount64(w)
	}
	return n
}

// over gives the ground of a room on which boxes lie, with a rim around each.
func over(room Box, taken []Box) *ground {
	g := newGround(room)
	for _, t := range taken {
		g.take(t, rimCells)
	}
	return g
}

// Nearest finds the place that is nearest to (x, y), where the middle of a box of
// w x h is wished, and clear of what is taken, to within the cells of a ground; false
// where there is none. It takes no longer where much lies.
func Nearest(room Box, taken []Box, w, h, x, y float64) (left, top float64, ok bool) {
	return over(room, taken).nearest(w, h, x-w/2, y-h/2)
}

// InColumns finds a place as Nearest does, among those that stand in columns of the
// box's width and touch the room's edge or what is taken above or below: where
// many of one width come, no gaps are left that nobody can use.
func InColumns(room Box, taken []Box, w, h, x, y float64) (left, top float64, ok bool) {
	s := over(room, taken).spots(w, h)
	best := math.Inf(1)
	for col := 0; col < s.cols; col += int(math.Ceil((w + rim) / cell)) {
		for row := range s.rows {
			edge := row == 0 || row == s.rows-1 || s.isClosed(col, row-1) || s.isClosed(col, row+1)
			if !edge || s.isClosed(col, row) {
				continue
			}
			cx, cy := room.X+float64(col)*cell, room.Y+float64(row)*cell
			if way := math.Hypot(cx+w/2-x, cy+h/2-y); way < best {
				best, left, top = way, cx, cy
			}
		}
	}
	return left, top, !math.IsInf(best, 1)
}

// nearest gives the place for a box of w x h that is nearest to where it wishes
// its top left; false where there is none.
func (g *ground) nearest(w, h, x, y float64) (left, top float64, ok bool) {
	s := g.spots(w, h)
	cx, cy := (x-g.room.X)/cell, (y-g.room.Y)/cell
	best := math.Inf(1)
	bestX, bestY := 0, 0
	from := min(g.rows-1, max(0, int(math.Round(cy))))
	try := func(row int) bool {
		if row < 0 || row >= g.rows {
			return false
		}
		dy := float64(row) - cy
		if dy*dy >= best {
			return false
		}
		words := s.row(row)
		for _, at := range [2]int{freeBefore(words, int(math.Floor(cx))), freeFrom(words, int(math.Floor(cx))+1)} {
			if at >= 0 && at < g.cols {
				if dx := float64(at) - cx; dx*dx+dy*dy < best {
					best, bestX, bestY = dx*dx+dy*dy, at, row
				}
			}
		}
		return true
	}
	for d := 0; d < g.rows; d++ {
		up, down := try(from-d), d > 0 && try(from+d)
		if !up && !down && !math.IsInf(best, 1) {
			break // from here on every row is further off than the best place
		}
	}
	return g.room.X + float64(bestX)*cell, g.room.Y + float64(bestY)*cell, !math.IsInf(best, 1)
}

// freeFrom gives the first bit from x on that is not set, -1 for none.
func freeFrom(row []uint64, x int) int {
	x = max(0, x)
	for i := x / 64; i < len(row); i++ {
		w := ^row[i]
		if i == x/64 {
			w &= ^uint64(0) << (x % 64)
		}
		if w != 0 {
			return i*64 + bits.TrailingZeros64(w)
		}
	}
	return -1
}

// freeBefore gives the last bit up to x that is not set, -1 for none.
func freeBefore(row []uint64, x int) int {
	x = min(x, len(row)*64-1)
	for i := x / 64; x >= 0 && i >= 0; i-- {
		w := ^row[i]
		if i == x/64 {
			w &= ^uint64(0) >> (63 - x%64)
		}
		if w != 0 {
			return i*64 + 63 - bits.LeadingZeros64(w)
		}
	}
	return -1
}

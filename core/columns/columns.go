// Package columns answers: where do notes lie that lie by themselves, and how
// large are their letters?
package columns

import (
	"cmp"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/place"
)

// Units that are kept between columns and between notes, and what a heading takes.
const (
	Gap     = 16
	Tab     = 30 // a note's name stands out above it
	Heading = 52
	Prompt  = 66 // two lines below a heading
	Bottom  = 30 // below the last note, for "42 more"
)

// Size is a size of notes: of their letters, and how wide a card is at most, in
// units.
type Size struct{ Letters, Width float64 }

// Sizes are the sizes of notes in columns, the largest first. The least, 25 units,
// is a fortieth of a frame's height: common practice has letters of that size
// read at eight times the picture's height.
var Sizes = []Size{{34, 380}, {28, 300}, {25, 260}}

// Note is what laying needs to know of a note: its column, from 0, and how high
// it stands in a size and width, without its name.
type Note struct {
	Column int
	Tall   func(letters, width float64) float64
}

// Spot is where a note lies: its card, below its name. Beyond says that there is
// no room for it; its place is then nowhere.
type Spot struct {
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	W      float64 `json:"w"`
	Beyond bool    `json:"beyond,omitempty"`
}

// Laid is how notes lie: the size of their letters, a place for each, how many
// of each column lie on the frame, and how many are beyond.
type Laid struct {
	Letters float64 `json:"letters"`
	Spots   []Spot  `json:"spots"`
	On      []int   `json:"on"`
	Beyond  []int   `json:"beyond"`
}

// Lay lays notes in columns of a room, in their order. In each column they stand
// in lanes, as many as the size of the letters allows; a note stands in the lane
// that ends highest. All letters have the largest of Sizes in which every note
// finds room; where none is small enough, columns show what fits, from the note
// with the number from[column] on.
//
// A note that comes last moves no other, unless all become smaller.
func Lay(room place.Box, count int, prompts bool, notes []Note, from []int) Laid {
	var laid Laid
	for _, size := range Sizes {
		if laid = lay(room, count, prompts, notes, from, size); !laid.over() {
			return laid
		}
	}
	return laid
}

func (l Laid) over() bool {
	for _, n := range l.Beyond {
		if n > 0 {
			return true
		}
	}
	return false
}

func lay(room place.Box, count int, prompts bool, notes []Note, from []int, size Size) Laid {
	wide := Width(room, count)
	lanes := max(1, int((wide+Gap)/(size.Width+Gap)))
	card := (wide - float64(lanes-1)*Gap) / float64(lanes)
	top := room.Y + Heading
	if prompts {
		top += Prompt
	}
	bottom := room.Y + room.H - Bottom
	ends := make([][]float64, count)
	for c := range ends {
		ends[c] = make([]float64, lanes)
		for i := range ends[c] {
			ends[c][i] = top
		}
	}
	laid := Laid{Letters: size.Letters, Spots: make([]Spot, len(notes)), On: make([]int, count),
		Beyond: make([]int, count)}
	seen, full := make([]int, count), make([]bool, count)
	for i, n := range notes {
		c := n.Column
		seen[c]++
		if full[c] || c < len(from) && seen[c] <= from[c] {
			laid.Spots[i].Beyond = true
			laid.Beyond[c]++
			continue
		}
		lane := 0
		for k, end := range ends[c] {
			if end < ends[c][lane] {
				lane = k
			}
		}
		y := ends[c][lane] + Tab
		tall := n.Tall(size.Letters, card)
		// One note that is higher than the room is shown all the same.
		if y+tall > bottom && laid.On[c] > 0 {
			full[c] = true
			laid.Spots[i].Beyond = true
			laid.Beyond[c]++
			continue
		}
		laid.Spots[i] = Spot{X: room.X + float64(c)*(wide+Gap) + float64(lane)*(card+Gap), Y: y, W: card}
		laid.On[c]++
		ends[c][lane] = y + tall + Gap
	}
	return laid
}

// Width is how wide each of so many columns is.
func Width(room place.Box, count int) float64 {
	return (room.W - float64(count-1)*Gap) / float64(count)
}

// step is how finely Room looks, in units.
const step = 20

// Room is the largest upright box of a frame that keeps clear of what is taken:
// where notes lie that keep clear of what was prepared, grown by the Gap. It looks at squares of
// 20 units; where none is free, it is the whole frame.
func Room(frame place.Box, taken []place.Box) place.Box {
	cols, rows := int(frame.W/step), int(frame.H/step)
	free := make([]int, cols) // squares above one another that are free, down to the row
	best, most := frame, 0
	for row := range rows {
		for col := range cols {
			b := place.Box{X: frame.X + float64(col)*step, Y: frame.Y + float64(row)*step, W: step, H: step}
			if free[col]++; covered(b, taken) {
				free[col] = 0
			}
		}
		for col := range cols {
			tall := free[col]
			for end := col; end < cols && free[end] > 0; end++ {
				tall = min(tall, free[end])
				if wide := end - col + 1; wide*tall > most {
					most = wide * tall
					best = place.Box{X: frame.X + float64(col)*step, Y: frame.Y + float64(row+1-tall)*step,
						W: float64(wide) * step, H: float64(tall) * step}
				}
			}
		}
	}
	return best
}

func covered(b place.Box, taken []place.Box) bool {
	for _, t := range taken {
		if b.X < t.X+t.W && t.X < b.X+b.W && b.Y < t.Y+t.H && t.Y < b.Y+b.H {
			return true
		}
	}
	return false
}

// InOrder gives notes in the order of a layout, with the name of each author. Of
// those that come out alike the older stands first.
func InOrder(layout lesson.Layout, notes []lesson.Element, name func(author string) string) []lesson.Element {
	older := func(a, b lesson.Element) int { return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.ID, b.ID)) }
	by := map[lesson.Order]func(a, b lesson.Element) int{
		lesson.OrderCame:   older,
		lesson.OrderAgreed: func(a, b lesson.Element) int { return cmp.Compare(len(b.Agreed), len(a.Agreed)) },
		lesson.OrderName:   func(a, b lesson.Element) int { return cmp.Compare(name(a.Author), name(b.Author)) },
		lesson.OrderTint: func(a, b lesson.Element) int {
			return cmp.Compare(slices.Index(lesson.Tints, a.Note.Tint), slices.Index(lesson.Tints, b.Note.Tint))
		},
		lesson.OrderHand: func(a, b lesson.Element) int { return cmp.Compare(rank(a), rank(b)) },
	}[layout.Order]
	first := func(a, b lesson.Element) int { return cmp.Or(by(a, b), older(a, b)) }
	return slices.SortedFunc(slices.Values(notes), first)
}

// rank is a note's place by hand; one that nobody has put anywhere stands where it came.
func rank(note lesson.Element) float64 {
	if note.Note.Rank == 0 {
		return float64(note.At)
	}
	return note.Note.Rank
}

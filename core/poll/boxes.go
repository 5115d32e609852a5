package poll

import (
	"slices"
	"strings"

	"alpenglow/core/refusal"
)

// KindBoxes asks to sort things into boxes.
const KindBoxes Kind = "boxes"

// Bounds of boxes and of the things that are sorted into them.
const (
	MaxBoxes  = 6
	MaxThings = 20
)

// Boxes is a question with things that are sorted into boxes. Homes says where each belongs;
// Mistakes are known wrong places.
type Boxes struct {
	Boxes    []Option     `json:"boxes"`
	Things   []Option     `json:"things"`
	Homes    []InBox      `json:"homes,omitempty"`
	Mistakes []BoxMistake `json:"mistakes,omitempty"`
}

// InBox puts a thing into a box, by their ids.
type InBox struct {
	Thing string `json:"thing"`
	Box   string `json:"box"`
}

// BoxMistake is a known wrong place.
type BoxMistake struct {
	Name string `json:"name"`
	InBox
}

// Sorted is an answer to it: some things in boxes, each in one at most.
type Sorted struct {
	In []InBox `json:"in"`
}

func (b *Boxes) of() options { return b.Things }

func (b *Boxes) check() error {
	if err := options(b.Boxes).check(2, MaxBoxes); err != nil {
		return err
	}
	if err := options(b.Things).check(1, MaxThings); err != nil {
		return err
	}
	if len(b.Mistakes) > MaxMistakes {
		return refusal.About(refusal.BoardIncorrect, "at most %d known mistakes", MaxMistakes)
	}
	for _, known := range b.Mistakes {
		if err := checkName(known.Name); err != nil {
			return err
		}
		if err := b.checkPlaces([]InBox{known.InBox}); err != nil {
			return err
		}
	}
	return b.checkPlaces(b.Homes)
}

func (b *Boxes) checkPlaces(in []InBox) error {
	seen := map[string]bool{}
	for _, p := range in {
		if seen[p.Thing] || options(b.Things).at(p.Thing) < 0 || options(b.Boxes).at(p.Box) < 0 {
			return refusal.New(refusal.NoSuchChoice)
		}
		seen[p.Thing] = true
	}
	return nil
}

func (b *Boxes) words() []string {
	return slices.Concat(options(b.Boxes).words(), options(b.Things).words())
}
func (b *Boxes) pictures() []string {
	return slices.Concat(options(b.Boxes).pictures(), options(b.Things).pictures())
}

func (b *Boxes) shown(rename func(string) string) Body {
	return Body{Kind: KindBoxes, Boxes: &Boxes{options(b.Boxes).shown(rename), options(b.Things).shown(rename), b.Homes,
		b.Mistakes}}
}

func (b *Boxes) bare() Body {
	return Body{
		Kind:  KindBoxes,
		Boxes: &Boxes{Boxes: options(b.Boxes).bare(), Things: options(b.Things).bare().mixed()},
	}
}

func (b *Boxes) nameless() Body {
	return Body{Kind: KindBoxes, Boxes: &Boxes{Boxes: options(b.Boxes).bare(), Things: options(b.Things).bare().mixed(),
		Homes: b.Homes}}
}

func (b *Boxes) inWords(in []InBox) string {
	var words []string
	for _, box := range b.Boxes {
		var things []string
		for _, thing := range b.Things {
			if slices.Contains(in, InBox{thing.ID, box.ID}) {
				things = append(things, thing.Text)
			}
		}
		if len(things) > 0 {
			words = append(words, box.Text+": "+strings.Join(things, ", "))
		}
	}
	return strings.Join(words, "; ")
}

func (b *Boxes) right() string { return b.inWords(b.Homes) }

func (b *Boxes) takes(v Value) error {
	if len(v.Boxes.In) == 0 {
		return refusal.New(refusal.AnswerEmpty)
	}
	return b.checkPlaces(v.Boxes.In)
}

// judge: a thing that belongs nowhere and lies in a box takes one right one away.
func (b *Boxes) judge(v Value) Judgement {
	if len(b.Homes) == 0 {
		return Judgement{}
	}
	right, mistake := 0, ""
	for _, p := range v.Boxes.In {
		if slices.Contains(b.Homes, p) {
			right++
			continue
		}
		if !slices.ContainsFunc(b.Homes, func(home InBox) bool { return home.Thing == p.Thing }) {
			right--
		}
		for _, known := range b.Mistakes {
			if known.InBox == p && mistake == "" {
				mistake = known.Name
			}
		}
	}
	return part(right, len(b.Homes), mistake)
}

func (b *Boxes) says(v Value) string { return b.inWords(v.Boxes.In) }

func (b *Boxes) chart(values []Value, _ []Judgement) Chart {
	grid := &Grid{Columns: options(b.Boxes).words()}
	for _, thing := range b.Things {
		row := GridRow{Text: thing.Text, Cells: make([]GridCell, len(b.Boxes))}
		for j, box := range b.Boxes {
			p := InBox{thing.ID, box.ID}
			row.Cells[j].Right = slices.Contains(b.Homes, p)
			for _, known := range b.Mistakes {
				if known.InBox == p {
					row.Cells[j].Mistake = known.Name
				}
			}
			for _, v := range values {
				if slices.Contains(v.Boxes.In, p) {
					row.Cells[j].Count++
				}
			}
		}
		grid.Rows = append(grid.Rows, row)
	}
	return Chart{Kind: ChartGrid, Grid: grid}
}

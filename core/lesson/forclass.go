package lesson

import (
	"slices"
	"strings"

	"alpenglow/core/letters"
	"alpenglow/core/paper"
	"alpenglow/core/place"
)

// ForClass gives a frame as a class may see it while some of its covers are
// lifted: without lesson notes, and without what lies under the others.
//
// What bears words is left out as soon as a cover touches it, for its words
// may lie there; a drawing when half of it or more is covered. Of a table the
// covered cells are empty. A picture that sticks out names the covers on it,
// so that it is sent with these parts blank; see PictureOf.
func (f Frame) ForClass(lifted []string) Frame {
	seen := f
	seen.Notes, seen.Objectives, seen.Criteria = "", nil, nil
	seen.Prepared = []Element{}
	all := f.on(lifted)
	seen.Paper.Picture = f.blanked(f.Paper.Picture, all)
	if f.Paper.Kind != paper.Picture {
		seen.Paper.Picture = ""
	}
	for i, e := range f.Prepared {
		if !e.OnFrame() || e.Kind == KindCover && slices.Contains(lifted, e.ID) {
			continue
		}
		if above := f.above(i, all); len(above) > 0 && e.Kind != KindCover {
			var there bool
			if e, there = f.uncovered(e, above); !there {
				continue
			}
		}
		seen.Prepared = append(seen.Prepared, e)
	}
	return seen
}

// on lists the covers that lie on the frame and are not lifted.
func (f Frame) on(lifted []string) []Element {
	var covers []Element
	for _, e := range f.Prepared {
		if e.Kind == KindCover && e.OnFrame() && !slices.Contains(lifted, e.ID) {
			covers = append(covers, e)
		}
	}
	return covers
}

// above lists those covers that touch the mark with an index and lie above it.
func (f Frame) above(at int, covers []Element) []Element {
	var above []Element
	e := f.Prepared[at]
	if e.Tray {
		return nil
	}
	for i, c := range f.Prepared {
		if i > at && c.Kind == KindCover && slices.ContainsFunc(covers, func(o Element) bool { return o.ID == c.ID }) &&
			shared(c, e.Covers()) > 0 {
			above = append(above, c)
		}
	}
	return above
}

// uncovered gives what a class may see of a mark with covers on it.
func (f Frame) uncovered(e Element, above []Element) (Element, bool) {
	box := e.Covers()
	most := 0.0
	for _, c := range above {
		most += shared(c, box)
	}
	whole := most >= 0.999*box.W*box.H
	switch {
	case whole:
		return e, false
	case e.Kind == KindPicture:
		picture := *e.Picture
		picture.Picture, picture.Alt = f.blanked(picture.Picture, above), ""
		e.Picture = &picture
		return e, true
	case e.Kind == KindTable:
		e.Table = e.Table.uncovered(e, above)
		return e, true
	case e.Kind == KindStroke, e.Kind == KindConnector, e.Kind == KindShape && e.Shape.Text == "":
		return e, most < box.W*box.H/2
	}
	return e, false
}

// shared is the area that a cover shares with a box. A rim of a unit does not
// count, so that what only touches is not taken for covered.
func shared(cover Element, b place.Box) float64 {
	w := min(cover.X+cover.W, b.X+b.W) - max(cover.X, b.X)
	h := min(cover.Y+cover.H, b.Y+b.H) - max(cover.Y, b.Y)
	if w <= 1 || h <= 1 {
		return 0
	}
	return w * h
}

// uncovered empties the cells that covers touch.
func (t *Table) uncovered(e Element, covers []Element) *Table {
	wide, high := t.columns(e.W), t.rows(e.W, e.H, letters.Count)
	seen := &Table{}
	y := e.Y
	for i, row := range t.Rows {
		cells, x := slices.Clone(row), e.X
		for j := range cells {
			if slices.ContainsFunc(covers, func(c Element) bool {
				return shared(c, place.Box{X: x, Y: y, W: wide[j], H: high[i]}) > 0
			}) {
				cells[j] = ""
			}
			x += wide[j]
		}
		seen.Rows = append(seen.Rows, cells)
		y += high[i]
	}
	return seen
}

// blanked is the name under which a class gets a picture with parts of it
// blank: the picture's id, the frame's and those of the covers.
func (f Frame) blanked(picture string, covers []Element) string {
	if picture == "" || len(covers) == 0 {
		return picture
	}
	parts := []string{picture, f.ID}
	for _, c := range covers {
		parts = append(parts, c.ID)
	}
	return strings.Join(parts, ".")
}

// Pictures lists the names of the pictures that a frame needs.
func (f Frame) Pictures() []string {
	var names []string
	add := func(name string) {
		if name != "" && !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	if f.Paper.Kind == paper.Picture {
		add(f.Paper.Picture)
	}
	for _, e := range f.Prepared {
		switch {
		case e.Picture != nil:
			add(e.Picture.Picture)
		case e.Poll != nil:
			for _, p := range e.Poll.Pictures() {
				add(p)
			}
		}
	}
	return names
}

// Blank is a part of a picture that covers hide: a box with its corner and
// size in parts of the picture's width and height, turned with it.
type Blank struct{ X, Y, W, H float64 }

// BlankIn says which parts of a picture the covers with the ids hide, on the
// mark or the paper that shows it. width and height are the picture's.
func (f Frame) BlankIn(picture string, covers []string, width, height int) []Blank {
	var blanks []Blank
	for _, c := range f.Prepared {
		if c.Kind != KindCover || !slices.Contains(covers, c.ID) {
			continue
		}
		if f.Paper.Kind == paper.Picture && f.Paper.Picture == picture {
			blanks = append(blanks, blank(c, contained(width, height), 0))
		}
		for _, e := range f.Prepared {
			if e.Kind == KindPicture && e.Picture.Picture == picture {
				blanks = append(blanks, blank(c, place.Box{X: e.X, Y: e.Y, W: e.W, H: e.H}, e.Turn))
			}
		}
	}
	return blanks
}

// contained is where a picture lies that fills the frame as far as its
// proportions let it.
func contained(width, height int) place.Box {
	k := min(FrameWidth/float64(width), FrameHeight/float64(height))
	w, h := k*float64(width), k*float64(height)
	return place.Box{X: (FrameWidth - w) / 2, Y: (FrameHeight - h) / 2, W: w, H: h}
}

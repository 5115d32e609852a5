package paint

import (
	"fmt"
	"slices"

	"alpenglow/core/columns"
	"alpenglow/core/lesson"
	"alpenglow/core/letters"
	"alpenglow/core/place"
)

// How the heading of a column stands, in units.
const (
	headSize, headPrompt = 32, 24
	headRule             = columns.Heading - 8
	moreSize             = 24
)

// columns paints the headings of columns, and gives the marks with the notes where they stand in these.
func (p *painter) columns(f lesson.Frame, fixed, lying []lesson.Element) []lesson.Element {
	var notes, others []lesson.Element
	for _, e := range lying {
		if e.Note != nil && e.Layer == lesson.Fixed {
			notes = append(notes, e)
		} else {
			others = append(others, e)
		}
	}
	name := func(author string) string {
		if p.names == nil {
			return ""
		}
		return p.names(author)
	}
	notes = columns.InOrder(f.Layout, notes, name)
	room := roomOn(f, fixed)
	prompts, in := false, f.Layout.Columns
	for _, c := range in {
		prompts = prompts || c.Prompt != ""
	}
	stand := make([]columns.Note, len(notes))
	for i, n := range notes {
		stand[i] = columns.Note{Column: f.Layout.Of(n), Tall: func(size, width float64) float64 {
			return inSize(n, size, width).Tall()
		}}
	}
	laid := columns.Lay(room, len(in), prompts, stand, nil)
	wide := columns.Width(room, len(in))
	for i, c := range in {
		p.heading(c, room.X+float64(i)*(wide+columns.Gap), room.Y, wide, room.H, laid.Beyond[i])
	}
	for i, n := range notes {
		if spot := laid.Spots[i]; !spot.Beyond {
			n = inSize(n, laid.Letters, spot.W)
			n.X, n.Y = spot.X, spot.Y
			others = append(others, n)
		}
	}
	return others
}

// inSize gives a note with letters of a size on a card of a width.
func inSize(e lesson.Element, size, width float64) lesson.Element {
	n := *e.Note
	n.Size = size
	e.Note, e.W, e.H, e.Turn = &n, width, 60, 0
	return e
}

// roomOn is where notes may stand: below the task, clear of what was prepared.
func roomOn(f lesson.Frame, fixed []lesson.Element) place.Box {
	const rim, task = 20, promptY + 2*promptSize
	top := float64(rim)
	if f.Prompt != "" {
		top = task
	}
	var taken []place.Box
	prepared := slices.Clone(fixed)
	for _, e := range f.Prepared {
		if e.Layer != lesson.Fixed && !e.Tray {
			prepared = append(prepared, e)
		}
	}
	for _, e := range prepared {
		if e.Kind != lesson.KindConnector && e.Kind != lesson.KindStroke {
			b := e.Bounds()
			taken = append(taken, place.Box{X: b.X - columns.Gap, Y: b.Y - columns.Gap, W: b.W + 2*columns.Gap,
				H: b.H + 2*columns.Gap})
		}
	}
	return columns.Room(place.Box{X: rim, Y: top, W: lesson.FrameWidth - 2*rim, H: lesson.FrameHeight - rim - top},
		taken)
}

// heading paints a column's heading and its prompt, and how many notes are beyond what is seen.
func (p *painter) heading(c lesson.Column, x, y, w, h float64, beyond int) {
	ink := p.of("on-ground")
	s := letters.Style{Size: headSize, Weight: letters.SemiBold, Display: true}
	if c.Title != "" {
		title, wide := cut(c.Title, w, s)
		line := float64(headRule-3) / headSize
		at := x
		if letters.Leftwards(c.Title) {
			at = x + w - wide
		}
		p.lines([]string{title}, c.Title, at, y, wide, line, s, ink, start)
	}
	p.fill(box(x, y+headRule-3, w, 3, even(0)), p.of("edge"))
	if c.Prompt != "" {
		small := reading(headPrompt)
		lines := letters.Lines(c.Prompt, w, small)
		p.lines(lines[:min(2, len(lines))], c.Prompt, x, y+headRule+4, w, 1.2, small, ink, start)
	}
	if beyond > 0 {
		p.rows(fmt.Sprintf("+%d", beyond), x, y+h-24, w, 1, strong(moreSize), ink, middle)
	}
}

package paint

import (
	"fmt"
	"math"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/letters"
)

// How a note stands, in units: its letters, its edge and what is between both; the tab with a name above it.
const (
	noteSize    = 28
	noteEdge    = 1
	noteRim     = 19
	tabHigh     = 30
	tabRim      = 12
	tabSize     = 25
	tabLeast    = 20
	tabCorner   = 10
	listIndent  = 1.2 // letter sizes
	shadowSteps = 4
)

// note paints a card with words; above it, where names are asked for, the name of its author.
func (p *painter) note(e lesson.Element) {
	size := e.Note.Size
	if size == 0 {
		size = noteSize
	}
	tall := e.Tall()
	p.shadow(e.W, tall)
	rim := [4]float64{4, 4, 12, 12}
	p.fill(box(0, 0, e.W, tall, rim), p.of("line"))
	for i := range rim {
		rim[i] -= noteEdge
	}
	p.fill(box(noteEdge, noteEdge, e.W-2*noteEdge, tall-2*noteEdge, rim), e.Note.Tint.Colour())
	p.rows(e.Note.Text, noteRim, noteRim, e.W-2*noteRim, lineHeight, reading(size), p.of("night"), start)
	beside := float64(tabSize)
	if size < tabSize {
		beside = tabLeast
	}
	if p.names != nil && e.Layer == lesson.Fixed {
		p.name(e, beside)
	}
	if n := len(e.Agreed); n > 0 {
		p.agreed(n, beside, tall)
	}
}

// shadow is what a card throws: 2 below it, soft over 5 units.
func (p *painter) shadow(w, h float64) {
	c := p.of("night")
	for i := range shadowSteps {
		out := 3.5 - 1.75*float64(i)
		p.put(Item{Path: box(-out, 2-out, w+2*out, h+2*out, even(6+max(0, out))), Fill: &c, Alpha: 0.05})
	}
}

// name paints a tab with the author's name, no wider than the note.
func (p *painter) name(e lesson.Element, size float64) {
	name := p.names(e.Author)
	if e.Author == "" || name == "" {
		return
	}
	s := strong(size)
	shown, wide := cut(name, e.W-2*tabRim, s)
	p.fill(box(0, -tabHigh, wide+2*tabRim, tabHigh, [4]float64{tabCorner, tabCorner, 0, 0}), p.hue(e.Author))
	p.lines([]string{shown}, name, tabRim, -tabHigh+(tabHigh-size*lineHeight)/2, wide, lineHeight, s, p.of("paper"),
		start)
}

// cut shortens words to a width, with dots in the place of what is left away.
func cut(text string, width float64, s letters.Style) (string, float64) {
	wide := letters.Width(text, s)
	if wide <= width {
		return text, wide
	}
	runes := []rune(text)
	for n := len(runes) - 1; n > 0; n-- {
		short := strings.TrimSpace(string(runes[:n])) + "…"
		if wide = letters.Width(short, s); wide <= width {
			return short, wide
		}
	}
	return "…", letters.Width("…", s)
}

// thumb is a hand that agrees, on a ground of 24 x 24.
const thumb = "M7 10v12M15 5.88 14 10h5.83a2 2 0 0 1 1.92 2.56l-2.33 8A2 2 0 0 1 17.5 22H4a2 2 0 0 1-2-2v-8a2 2 0 0 1 " +
	"2-2h2.76a2 2 0 0 0 1.79-1.11L12 2a3.13 3.13 0 0 1 3 3.88Z"

// agreed paints how many agree with a note, on its lower edge.
func (p *painter) agreed(count int, size, tall float64) {
	text, s := fmt.Sprint(count), strong(size)
	sign, wide := 0.85*size, letters.Width(text, s)
	w, h := sign+6+wide+22, size+6
	y := tall + 16 - h
	p.fill(box(8, y, w, h, even(h/2)), p.of("line"))
	p.fill(box(9, y+1, w-2, h-2, even(h/2-1)), p.of("paper"))
	p.put(Item{At: scaled(sign / 24).then(moved(19, y+(h-sign)/2)), Path: read(thumb),
		Line: &Line{Colour: p.of("slate"), Width: 2, Round: true}})
	p.lines([]string{text}, text, 19+sign+6, y+3, wide, 1, s, p.of("night"), start)
}

// text paints words on the ground itself, as a list where they are one.
func (p *painter) text(e lesson.Element) {
	t := e.Text
	s, c := reading(t.Size), p.ink(t.Ink)
	if t.Bold {
		s.Weight = letters.Bold
	}
	at := map[lesson.Align]align{lesson.AlignCentre: middle, lesson.AlignEnd: end}[t.Align]
	if t.List == lesson.ListNone {
		p.rows(t.Text, 0, 0, e.W, lineHeight, s, c, at)
		return
	}
	y, indent := 0.0, listIndent*t.Size
	left := letters.Leftwards(t.Text)
	x := indent
	if left {
		x = 0
	}
	for i, line := range strings.Split(t.Text, "\n") {
		p.bullet(e, i, y, left, s, c)
		y += p.rows(line, x, y, e.W-indent, lineHeight, s, c, at)
	}
}

// bullet paints the sign or number of a list's line.
func (p *painter) bullet(e lesson.Element, i int, y float64, left bool, s letters.Style, c lesson.Colour) {
	indent := listIndent * s.Size
	if e.Text.List == lesson.ListNumbers {
		number := fmt.Sprintf("%d. ", i+1)
		wide := letters.Width(number, s)
		x := indent - wide
		if left {
			x = e.W - indent
		}
		p.lines([]string{number}, e.Text.Text, x, y, wide, lineHeight, s, c, start)
		return
	}
	// A filled dot of a third of what letters reach up, half as high as these (read off Chromium).
	up := math.Round(letters.Ascent(s))
	part := math.Floor(up * 2 / 3)
	dot := math.Floor((part + 1) / 2)
	x := indent - part - 9
	if left {
		x = e.W - indent + part + 9 - dot
	}
	top := y + base(lineHeight, s) - letters.Ascent(s) + math.Floor(3*(up-part)/2)
	p.fill(oval(x, top, dot, dot), c)
}

// shapeSize is the size of letters in shapes, on covers and links.
const shapeSize = 28

// inside sets words in the middle of a box.
func (p *painter) inside(text string, x, y, w, h float64, c lesson.Colour) {
	if text == "" {
		return
	}
	s := reading(shapeSize)
	lines := letters.Lines(text, w, s)
	top := y + (h-float64(len(lines))*lineHeight*shapeSize)/2
	p.lines(lines, text, x, top, w, lineHeight, s, c, middle)
}

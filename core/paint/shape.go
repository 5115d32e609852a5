package paint

import (
	"math"

	"alpenglow/core/lesson"
	"alpenglow/core/place"
)

// shape paints a figure with words in it.
func (p *painter) shape(e lesson.Element) {
	s := e.Shape
	path := figure(s.Form, e.W, e.H, s.Lean)
	item := Item{Path: path, Line: &Line{Colour: p.ink(s.Ink), Width: s.Width}}
	if s.Dash {
		item.Line.Dash = []float64{14, 12}
	}
	ink := p.ink("night")
	if s.Fill != "" {
		c := lesson.Tint(s.Fill).Colour()
		item.Fill, ink = &c, p.of("night")
	}
	p.put(item)
	if s.Text != "" {
		in, _ := s.Inside(e.W, e.H)
		p.inside(s.Text, in.X, in.Y, in.W, in.H, ink)
	}
}

// figure is the outline of a form in a box of w by h.
func figure(form lesson.Form, w, h, lean float64) Path {
	switch form {
	case lesson.FormRounded:
		return box(0, 0, w, h, even(min(w, h)*0.2))
	case lesson.FormEllipse:
		return oval(0, 0, w, h)
	case lesson.FormTriangle:
		return closed(straight(w*(0.5+lean), 0, w, h, 0, h))
	case lesson.FormDiamond:
		return closed(straight(w/2, 0, w, h/2, w/2, h, 0, h/2))
	case lesson.FormBubble:
		return bubble(w, h)
	case lesson.FormStar:
		return star(w, h)
	case lesson.FormLine:
		return straight(0, 0, w, h)
	}
	return box(0, 0, w, h, even(0))
}

func closed(p Path) Path {
	p.add(closing)
	return p
}

// bubble is a rounded box with a point at its lower left that somebody says it with.
func bubble(w, h float64) Path {
	body := box(0, 0, w, h*0.8, even(min(w, h)*0.2))
	var p Path
	for _, s := range body {
		p = append(p, s)
		// The point leaves the lower edge, which is drawn leftwards, before its second corner.
		if s.Op == cubicTo && s.Points[2][1] == h*0.8 && s.Points[2][0] > w/2 {
			p.add(lineTo, w*0.42, h*0.8)
			p.add(lineTo, w*0.18, h)
			p.add(lineTo, w*0.22, h*0.8)
		}
	}
	return p
}

// star has five points on the largest ellipse that the box holds, the upper one plumb.
func star(w, h float64) Path {
	var tips []float64
	for i := range 10 {
		r := 1.0
		if i%2 == 1 {
			r = 0.42
		}
		sin, cos := math.Sincos(-math.Pi/2 + float64(i)*math.Pi/5)
		tips = append(tips, w/2+w/2*r*cos/0.951, h*(1+r*sin)/1.809)
	}
	return closed(straight(tips...))
}

// connector paints a line, or an arrow, from one mark to another, or from place to place.
func (p *painter) connector(e lesson.Element) {
	p.at = still // its places are on the frame
	c := e.Connector
	from, to := p.boxAt(c.From), p.boxAt(c.To)
	ax, ay := middleOf(from, c.From)
	bx, by := middleOf(to, c.To)
	x1, y1, x2, y2 := ax, ay, bx, by
	if from != nil {
		x1, y1 = edge(*from, bx, by)
	}
	if to != nil {
		x2, y2 = edge(*to, ax, ay)
	}
	l := Line{Colour: p.ink(c.Ink), Width: c.Width, Round: true}
	path := straight(x1, y1, x2, y2)
	if c.Heads != lesson.HeadsNone {
		path = append(path, head(x1, y1, x2, y2, c.Width)...)
	}
	if c.Heads == lesson.HeadsBoth {
		path = append(path, head(x2, y2, x1, y1, c.Width)...)
	}
	if c.Dash {
		l.Dash = []float64{2.4 * c.Width, 2.4 * c.Width}
	}
	p.draw(path, l)
}

// boxAt is the box of the mark that an end is attached to; nil for none.
func (p *painter) boxAt(a lesson.Anchor) *place.Box {
	if a.Mark == "" {
		return nil
	}
	e, ok := p.find(a.Mark)
	if !ok || !e.OnFrame() {
		return nil
	}
	b := e.Bounds()
	return &b
}

func middleOf(b *place.Box, a lesson.Anchor) (x, y float64) {
	if b == nil {
		return a.X, a.Y
	}
	return b.X + b.W/2, b.Y + b.H/2
}

// edge is where the way from the middle of a box to a place leaves it, a little outside.
func edge(b place.Box, x, y float64) (float64, float64) {
	const gap = 8
	cx, cy := b.X+b.W/2, b.Y+b.H/2
	dx, dy := x-cx, y-cy
	if dx == 0 && dy == 0 {
		return cx, cy
	}
	t := 1.0
	if dx != 0 {
		t = min(t, (b.W/2+gap)/math.Abs(dx))
	}
	if dy != 0 {
		t = min(t, (b.H/2+gap)/math.Abs(dy))
	}
	return cx + t*dx, cy + t*dy
}

// head is the head of an arrow with its tip at (x, y) that comes from (fx, fy).
func head(fx, fy, x, y, width float64) Path {
	length, angle := 14+2.6*width, math.Atan2(y-fy, x-fx)
	barb := func(side float64) (float64, float64) {
		sin, cos := math.Sincos(angle + side*0.48)
		return x - length*cos, y - length*sin
	}
	ax, ay := barb(1)
	bx, by := barb(-1)
	return straight(ax, ay, x, y, bx, by)
}

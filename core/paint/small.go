package paint

import (
	"net/url"

	"alpenglow/core/lesson"
	"alpenglow/core/letters"
)

// sign is a stamp: the colour of its ground, and what is drawn on it, on a ground of 48 x 48.
type sign struct{ ground, fill, line string }

var signs = map[lesson.Sign]sign{
	"right":  {"fern", "", "M13 25l8 8 15-18"},
	"unsure": {"slate", "", "M12 27c4-7 8-7 12-2s8 5 12-2"},
	"question": {"dusk", "M24 34a2.6 2.6 0 1 1 0 5.2 2.6 2.6 0 0 1 0-5.2Z",
		"M17 18c0-9 14-9 14 0 0 6-7 5-7 11"},
	"idea":  {"amber", "", "M20 37h8M19 32c0-4-5-6-5-12a10 10 0 0 1 20 0c0 6-5 8-5 12Z"},
	"star":  {"dusk", "M24 10l4.2 9.3 10.1 1-7.6 6.7 2.2 10-8.9-5.2-8.9 5.2 2.2-10-7.6-6.7 10.1-1Z", ""},
	"heart": {"rose", "M24 38C8 28 10 12 19 13c3 .3 4.5 2.5 5 4.5.5-2 2-4.2 5-4.5 9-1 11 15-5 25Z", ""},
	"pin": {"glow", "M24 9a10 10 0 0 1 10 10c0 8-10 20-10 20S14 27 14 19A10 10 0 0 1 24 9Z" +
		"M24 15a4 4 0 1 0 0 8 4 4 0 0 0 0-8Z", ""},
	"alert": {"rose", "M24 33a2.8 2.8 0 1 1 0 5.6 2.8 2.8 0 0 1 0-5.6Z", "M24 11v17"},
}

// stamp paints a sign on its round ground.
func (p *painter) stamp(e lesson.Element) {
	s := signs[e.Stamp.Sign]
	k := min(e.W, e.H) / 48
	p.at = scaled(k).then(moved((e.W-48*k)/2, (e.H-48*k)/2)).then(p.at)
	white := p.of("paper")
	p.fill(oval(1.5, 1.5, 45, 45), p.of(s.ground))
	p.draw(oval(4.5, 4.5, 39, 39), Line{Colour: white, Width: 1.5, Dash: []float64{2.6, 2.6}})
	if s.fill != "" {
		p.fill(read(s.fill), white)
	}
	if s.line != "" {
		p.draw(read(s.line), Line{Colour: white, Width: 4, Round: true})
	}
}

// picture paints an uploaded picture.
func (p *painter) picture(e lesson.Element) {
	p.put(Item{Picture: &Picture{Name: e.Picture.Picture, W: e.W, H: e.H, Stretch: true}})
}

// out is the sign for a way out of the house, on a ground of 24 x 24.
const out = "M15 3h6v6M10 14 21 3M18 13v6a2 2 0 0 1-2 2H5a2 2 0 0 1-2-2V8a2 2 0 0 1 2-2h6"

// How a link stands, in units.
const (
	linkRim, linkHigh = 22, 14 // between the card's edge and its words
	linkGap           = 16
	linkSign          = 64
	linkLine          = 1.2 // letter sizes
)

// link paints a card with a title and the host that it leads to.
func (p *painter) link(e lesson.Element) {
	host := e.Link.URL
	if u, err := url.Parse(host); err == nil && u.Host != "" {
		host = u.Host
	}
	width := e.W - 2*linkRim - linkGap - linkSign
	title, plain := strong(shapeSize), reading(shapeSize)
	lines := 0.0
	if e.Link.Title != "" {
		lines = float64(len(letters.Lines(e.Link.Title, width, title)))
	}
	lines += float64(len(letters.Lines(host, width, plain)))
	words := lines * linkLine * shapeSize
	tall := max(e.H, max(words, linkSign)+2*linkHigh)
	p.fill(box(0, 0, e.W, tall, even(16)), p.of("edge"))
	white := p.of("paper")
	p.put(Item{Path: box(2, 2, e.W-4, tall-4, even(14)), Fill: &white, Link: e.Link.URL})
	y := (tall - words) / 2
	if e.Link.Title != "" {
		y += p.rows(e.Link.Title, linkRim, y, width, linkLine, title, p.of("night"), start)
	}
	p.rows(host, linkRim, y, width, linkLine, plain, p.of("slate"), start)
	x, top := e.W-linkRim-linkSign, (tall-linkSign)/2
	p.fill(box(x, top, linkSign, linkSign, even(12)), p.of("mist"))
	const size = 34
	p.put(Item{At: scaled(size / 24.0).then(moved(x+(linkSign-size)/2, top+(linkSign-size)/2)), Path: read(out),
		Line: &Line{Colour: p.of("dusk"), Width: 2, Round: true}})
}

// cover paints what hides a part of the frame.
func (p *painter) cover(e lesson.Element) {
	p.fill(box(0, 0, e.W, e.H, even(0)), p.of("edge"))
	p.fill(box(3, 3, e.W-6, e.H-6, even(0)), e.Cover.Tint.Colour())
	const rim = 19
	p.inside(e.Cover.Text, rim, rim, e.W-2*rim, e.H-2*rim, p.of("night"))
}

package paint

import (
	"fmt"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/letters"
)

// How a question stands on its card, in units.
const (
	askedSize, askedLine = 44, 56
	offeredSize          = 38
	offeredTop           = 150
	pictureSide          = 220
)

// heavy is the weight of what is asked and chosen.
func heavy(size float64) letters.Style { return letters.Style{Size: size, Weight: letters.Heading} }

// poll paints a question with what it offers, and what was chosen of it.
func (p *painter) poll(e lesson.Element) {
	q, chosen := *e.Poll, p.answers[e.ID]
	p.fill(box(0, 0, e.W, e.H, even(0)), p.of("paper"))
	s := heavy(askedSize)
	asked := p.rows(q.Text, 30, 30-(askedLine-askedSize)/2.0, e.W-60, askedLine/float64(askedSize), s, p.of("night"),
		start)
	offered, top := q.Offers(), max(offeredTop, asked+40)
	if len(offered) == 0 {
		if says := q.Says(chosen); chosen.Kind != "" {
			s := heavy(offeredSize)
			words := float64(len(letters.Lines(says, e.W-100, s))) * lineHeight * offeredSize
			p.fill(box(30, top, e.W-60, words+24, even(16)), p.of("dusk-soft"))
			p.rows(says, 50, top+12, e.W-100, lineHeight, s, p.of("night"), start)
		}
		return
	}
	step := (e.H - top - 20) / float64(len(offered))
	for i, o := range offered {
		y := top + float64(i)*step
		mine, sign := chosen.Choice != nil && chosen.Choice.Option == o.ID, ""
		if chosen.Several != nil {
			mine = slices.Contains(chosen.Several.Options, o.ID)
		}
		if chosen.Rank != nil {
			if at := slices.Index(chosen.Rank.Order, o.ID); at >= 0 {
				sign = fmt.Sprintf("%d. ", at+1)
			}
		}
		ground, ink, s := p.of("mist"), p.of("night"), reading(offeredSize)
		dot := 0.0
		if mine {
			ground, ink, s, dot = p.of("dusk"), p.of("paper"), heavy(offeredSize), chosenDot
		}
		p.fill(box(30, y, e.W-60, step-18, even(16)), ground)
		p.dot(60, y+(step-18)/2, dot, ink)
		side := 0.0
		if o.Picture != "" {
			side = max(0, min(step-30, pictureSide))
			p.put(Item{At: moved(45, y+6), Picture: &Picture{Name: o.Picture, W: side, H: side}})
		}
		width := e.W - 150 - side
		line := first(sign+o.Text, width, s)
		if dot > 0 {
			side += dot + 14
		}
		p.lines([]string{line}, o.Text, 60+side, y+(step-18-offeredSize)/2, width, 1, s, ink, start)
	}
}

// chosenDot is how wide the sign is of what was chosen or answered.
const chosenDot = 20

// dot paints a sign that begins at x, in the middle of a line at y; none where it has no width.
func (p *painter) dot(x, y, wide float64, c lesson.Colour) {
	if wide > 0 {
		p.fill(oval(x, y-wide/2, wide, wide), c)
	}
}

// inRow paints questions that are asked in a row, each on a line with its number; those that are answered have a sign.
func (p *painter) inRow(all []lesson.Element) {
	polls := slices.DeleteFunc(slices.Clone(all), func(e lesson.Element) bool { return e.Kind != lesson.KindPoll })
	const x, top, w = 120.0, 190.0, lesson.FrameWidth - 240.0
	step := min(130, (lesson.FrameHeight-top-40)/float64(max(1, len(polls))))
	s := heavy(min(44, step*0.5))
	for i, e := range polls {
		y := top + float64(i)*step
		ground, number, dot := p.of("paper"), fmt.Sprintf("%d. ", i+1), 0.0
		if _, answered := p.answers[e.ID]; answered {
			ground, dot = p.of("dusk-soft"), chosenDot
		}
		p.fill(box(x, y, w, step*0.86, even(16)), ground)
		p.dot(x+w-60, y+step*0.43, dot, p.of("dusk"))
		line := first(number+e.Poll.Text, w-60, s)
		p.lines([]string{line}, e.Poll.Text, x+30, y+(step*0.86-s.Size)/2, w-60, 1, s, p.of("night"), start)
	}
}

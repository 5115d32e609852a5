package paint

import (
	"fmt"
	"slices"
	"unicode/utf16"

	"alpenglow/core/lesson"
	"alpenglow/core/letters"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
)

// Where the task stands on a frame, and its letters, in units.
const (
	promptX, promptY = 60, 48
	promptWidth      = 1480
	promptSize       = 50
	promptLine       = 1.15
	lineHeight       = 1.35 // of all other words, in letter sizes
)

// Names gives the name that stands on a note of an author; empty for none.
type Names func(author string) string

// Frame paints a frame with the marks of a sheet, in the order in which they lie,
// as far as they are given: who may see what is asked before. A nil names leaves
// names away.
func Frame(f lesson.Frame, marks []lesson.Element, names Names) Painting {
	p := &painter{look: look{f.Paper.Dark}, names: names, answers: map[string]poll.Value{},
		out: Painting{W: lesson.FrameWidth, H: lesson.FrameHeight, Title: f.Title}}
	p.paper(f.Paper)
	p.rows(f.Prompt, promptX, promptY, promptWidth, promptLine,
		letters.Style{Size: promptSize, Weight: letters.Heading, Display: true}, p.of("on-ground"), start)
	rounds := map[string]int{}
	for _, m := range marks {
		// Of several rounds the last answer is shown.
		if m.Answer != nil && m.OnFrame() && m.Answer.Round >= rounds[m.Answer.Poll] {
			rounds[m.Answer.Poll], p.answers[m.Answer.Poll] = m.Answer.Round, m.Answer.Value
		}
	}
	lying := f.Lying(marks)
	var fixed []lesson.Element
	for _, e := range f.Prepared {
		if e.Layer == lesson.Fixed && e.OnFrame() {
			fixed = append(fixed, e)
		}
	}
	if f.Layout.InColumns() {
		lying = p.columns(f, fixed, lying)
	}
	all := slices.Concat(fixed, lying)
	p.find = func(id string) (lesson.Element, bool) {
		i := slices.IndexFunc(all, func(e lesson.Element) bool { return e.ID == id })
		if i < 0 {
			return lesson.Element{}, false
		}
		return all[i], true
	}
	if f.Set != nil {
		p.inRow(all)
	}
	for _, e := range all {
		if f.Set != nil && e.Kind == lesson.KindPoll || e.Tray {
			continue
		}
		p.mark(e)
	}
	return p.out
}

// painter gathers what is painted.
type painter struct {
	look
	names   Names
	answers map[string]poll.Value
	find    func(id string) (lesson.Element, bool)
	at      Matrix // of what is painted now
	alpha   float64
	out     Painting
}

// kinds is how each kind of mark is painted that lies on a frame, at (0, 0). Marks without a place are not here.
var kinds = map[lesson.Kind]func(*painter, lesson.Element){
	lesson.KindNote: (*painter).note, lesson.KindText: (*painter).text, lesson.KindStroke: (*painter).stroke,
	lesson.KindShape: (*painter).shape, lesson.KindConnector: (*painter).connector, lesson.KindStamp: (*painter).stamp,
	lesson.KindPicture: (*painter).picture, lesson.KindLink: (*painter).link, lesson.KindTable: (*painter).table,
	lesson.KindPoll: (*painter).poll, lesson.KindCover: (*painter).cover,
}

// faint is how dense a mark is that the class does not see.
const faint = 0.5

func (p *painter) mark(e lesson.Element) {
	paint := kinds[e.Kind]
	if paint == nil || !e.OnFrame() {
		return
	}
	p.at, p.alpha = moved(e.X, e.Y), 1
	if e.Stands() == lesson.Hidden {
		p.alpha = faint
	}
	if e.Turn != 0 {
		p.at = p.at.then(turned(e.Turn, e.X+e.W/2, e.Y+e.Tall()/2))
	}
	paint(p, e)
	p.at, p.alpha = still, 1
}

// put adds an item where the painter is.
func (p *painter) put(i Item) {
	if p.at == (Matrix{}) {
		p.at = still
	}
	if i.At == (Matrix{}) {
		i.At = still
	}
	i.At = i.At.then(p.at)
	if i.Alpha == 0 {
		i.Alpha = 1
	}
	if p.alpha > 0 {
		i.Alpha *= p.alpha
	}
	p.out.Items = append(p.out.Items, i)
}

func (p *painter) fill(path Path, c lesson.Colour) { p.put(Item{Path: path, Fill: &c}) }

func (p *painter) draw(path Path, l Line) { p.put(Item{Path: path, Line: &l}) }

// align says where words stand in a width.
type align int

const (
	start align = iota
	middle
	end
)

// rows sets words from a place downwards in lines no wider than a width, each so many letter sizes high, and says
// how high they stand. Words that run leftwards start at the right.
func (p *painter) rows(text string, x, y, width, line float64, s letters.Style, c lesson.Colour, at align) float64 {
	return p.lines(letters.Lines(text, width, s), text, x, y, width, line, s, c, at)
}

// lines sets lines that are broken already.
func (p *painter) lines(lines []string, text string, x, y, width, line float64, s letters.Style, c lesson.Colour,
	at align) float64 {
	w := Words{Colour: c, Text: text}
	for i, l := range lines {
		clusters, wide := letters.Set(l, letters.Leftwards(text), s)
		left := x
		switch {
		case at == middle:
			left += (width - wide) / 2
		case at == end != letters.Leftwards(text):
			left += width - wide
		}
		if len(clusters) > 0 {
			w.Rows = append(w.Rows, Row{left, y + float64(i)*line*s.Size + base(line, s), s.Size, clusters})
		}
	}
	if len(w.Rows) > 0 {
		p.put(Item{Words: &w})
	}
	return float64(len(lines)) * line * s.Size
}

// base is how far below the top of a line its letters stand: what a line is higher than the letters reach lies
// half above and half below (CSS 2.1, 10.8.1).
func base(line float64, s letters.Style) float64 {
	up, down := letters.Ascent(s), letters.Descent(s)
	return (line*s.Size-up-down)/2 + up
}

// first gives the first line of words.
func first(text string, width float64, s letters.Style) string {
	return letters.Lines(text, width, s)[0]
}

func reading(size float64) letters.Style { return letters.Style{Size: size, Weight: letters.Regular} }

func strong(size float64) letters.Style { return letters.Style{Size: size, Weight: letters.SemiBold} }

// hue is the colour of a person, as everywhere: from the letters of their id.
func (p *painter) hue(id string) lesson.Colour {
	var sum uint32
	for _, c := range utf16.Encode([]rune(id)) {
		sum = sum*31 + uint32(c)
	}
	return p.of(fmt.Sprintf("who-%d", sum%whoColours))
}

// paper paints the ground.
func (p *painter) paper(of paper.Paper) {
	p.fill(box(0, 0, lesson.FrameWidth, lesson.FrameHeight, even(0)), p.of("ground"))
	if of.Kind == paper.Picture {
		p.put(Item{Picture: &Picture{Name: of.Picture, W: lesson.FrameWidth, H: lesson.FrameHeight}})
		return
	}
	drawing := of.Draw()
	for _, l := range drawing.Lines {
		path := read(l.Path)
		switch l.Weight {
		case paper.Dots:
			p.fill(path, p.of("line"))
		case paper.Firm:
			p.draw(path, Line{Colour: p.of("on-ground"), Width: 3})
		case paper.Guide:
			p.draw(path, Line{Colour: p.of("grid"), Width: 2, Dash: []float64{14, 10}})
		case paper.Base:
			p.draw(path, Line{Colour: p.of("rule"), Width: 2})
		default:
			p.draw(path, Line{Colour: p.of("grid"), Width: 2})
		}
	}
	for _, l := range drawing.Labels {
		s := reading(l.Size)
		wide := letters.Width(l.Text, s)
		x := map[paper.Anchor]float64{paper.Start: l.X, paper.Middle: l.X - wide/2, paper.End: l.X - wide}[l.Anchor]
		clusters, _ := letters.Set(l.Text, false, s)
		y := l.Y + (letters.Ascent(s)-letters.Descent(s))/2
		p.put(Item{Words: &Words{Colour: p.of("on-ground"), Text: l.Text, Rows: []Row{{x, y, l.Size, clusters}}}})
	}
}

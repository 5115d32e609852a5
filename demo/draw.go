package demo

import (
	"strconv"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
)

// page is a frame in the making, with ids of its own on its board.
type page struct{ lesson.Frame }

// newPage begins one, shared as said, to which students add.
func newPage(id, title, prompt string, shared lesson.Arrangement) *page {
	return &page{lesson.Frame{ID: id, Title: title, Prompt: prompt, Paper: paper.Paper{Kind: paper.Plain},
		Arrangement: shared, Permission: lesson.Add, Prepared: []lesson.Element{}}}
}

func (p *page) put(x, y, w, h float64, b lesson.Body) *lesson.Element {
	p.Prepared = append(
		p.Prepared,
		lesson.Element{ID: p.ID + "-" + strconv.Itoa(len(p.Prepared)+1), X: x, Y: y, W: w, H: h,
			Body: b},
	)
	return &p.Prepared[len(p.Prepared)-1]
}

func (p *page) text(words string, x, y, w, size float64) *page {
	p.put(
		x,
		y,
		w,
		size*1.4,
		lesson.Body{Kind: lesson.KindText, Text: &lesson.Text{Text: words, Size: size, Ink: "night"}},
	)
	return p
}

func (p *page) shape(form lesson.Form, x, y, w, h float64, ink lesson.Ink, fill lesson.Fill) *page {
	p.put(
		x,
		y,
		w,
		h,
		lesson.Body{Kind: lesson.KindShape, Shape: &lesson.Shape{Form: form, Ink: ink, Fill: fill, Width: 4}},
	)
	return p
}

func (p *page) line(x, y, w, h float64, ink lesson.Ink) *page {
	p.put(
		x,
		y,
		w,
		h,
		lesson.Body{Kind: lesson.KindShape, Shape: &lesson.Shape{Form: lesson.FormLine, Ink: ink, Width: 4}},
	)
	return p
}

func (p *page) table(x, y, w, h float64, rows ...[]string) *page {
	p.put(x, y, w, h, lesson.Body{Kind: lesson.KindTable, Table: &lesson.Table{Rows: rows}})
	return p
}

// cards are notes in the tray, to be put where they belong.
func (p *page) cards(tint lesson.Tint, words ...string) *page {
	for _, text := range words {
		card := p.put(60, 160, 250, 76, lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: tint}})
		card.Layer, card.Tray = lesson.Piece, true
	}
	return p
}

// supply is a stamp of which students take as many as they like.
func (p *page) supply(sign lesson.Sign) *page {
	s := p.put(60, 160, 80, 80, lesson.Body{Kind: lesson.KindStamp, Stamp: &lesson.Stamp{Sign: sign}})
	s.Layer, s.Tray = lesson.Supply, true
	return p
}

func (p *page) cover(x, y, w, h float64, words string) *page {
	p.put(x, y, w, h, lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "glacier", Text: words}})
	return p
}

func (p *page) columns(titles ...string) *page {
	for i, title := range titles {
		p.Layout.Columns = append(p.Layout.Columns, lesson.Column{ID: p.ID + "-c" + strconv.Itoa(i+1), Title: title})
	}
	return p
}

// ask puts a question in the middle; those of the answers are right that begin with *.
func (p *page) ask(question string, answers ...string) *page {
	var options []poll.Option
	for i, text := range answers {
		right := text[0] == '*'
		if right {
			text = text[1:]
		}
		options = append(options, poll.Option{ID: p.ID + "-a" + strconv.Itoa(i+1), Text: text, Right: right})
	}
	p.put(260, 220, 1080, 160+90*float64(len(answers)), lesson.Body{Kind: lesson.KindPoll,
		Poll: &poll.Question{Text: question, Body: poll.Offer(options...)}})
	p.Permission = lesson.Look
	return p
}

// on lays the page on a paper.
func (p *page) on(paper paper.Paper) *page {
	p.Paper = paper
	return p
}

// noted gives it lesson notes and a time.
func (p *page) noted(notes string, seconds int) *page {
	p.Notes, p.Seconds = notes, seconds
	return p
}

// serving names the objectives that it serves.
func (p *page) serving(objectives ...string) *page {
	p.Objectives = objectives
	return p
}

// bound makes a board of pages.
func bound(title string, objectives []lesson.Objective, pages ...*page) lesson.Board {
	b := lesson.Board{Title: title, Objectives: objectives}
	for _, p := range pages {
		b.Frames = append(b.Frames, p.Settled())
	}
	return b
}

package report

import (
	"fmt"
	"io"
	"strings"
	"time"

	"alpenglow/core/letters"
	"alpenglow/core/measure"
	"alpenglow/core/paint"
	"alpenglow/core/settings"
)

// A page in points: A4, upright.
const (
	wide, high = 595.28, 841.89
	margin     = 42
	room       = wide - 2*margin
	bar        = 96 // how long the bar of a whole share is
	gap        = 12 // between a bar and its words
)

var (
	huge  = letters.Style{Size: 20, Weight: letters.Heading, Display: true}
	large = letters.Style{Size: 13, Weight: letters.Heading, Display: true}
	plain = letters.Style{Size: 9.5, Weight: letters.Regular}
	bold  = letters.Style{Size: 9.5, Weight: letters.SemiBold}
	small = letters.Style{Size: 8, Weight: letters.Regular}
)

// sheets are pages that are filled from the top.
type sheets struct {
	words
	all   []*paint.Canvas
	cells map[*paint.Canvas][]paint.Cell // frames that are painted on a page
	y     float64
}

// PDF writes a report as pages: how the lesson went, and then student by student. Times are shown as the clock of a
// place shows them.
func (r Report) PDF(to io.Writer, l settings.Language, at *time.Location) error {
	s := &sheets{words: speak(l)}
	s.page()
	s.put(r.Title, huge, "night")
	s.put(strings.Join(r.about(s.words, at), " · "), plain, "slate")
	if len(r.Questions) > 0 {
		s.heading("questions")
		for _, q := range r.Questions {
			s.question(q)
		}
	}
	if a := r.Set; a != nil && a.Alpha != nil && a.AlphaSpan != nil {
		s.put(s.say("reliability", "alpha", two(*a.Alpha), "low", two(a.AlphaSpan.Low), "high", two(a.AlphaSpan.High)),
			small, "slate")
	}
	s.heading("frames")
	for _, f := range r.Frames {
		s.line(fmt.Sprintf("%d. %s", f.N, f.Title), s.say("worked", "count", f.Worked, "of", r.Here), f.Worked, r.Here)
	}
	r.rest(s)
	s.students(r.Students)
	return s.write(to, r.Title)
}

func two(v float64) string { return fmt.Sprintf("%.2f", v) }

// about says when the lesson was and who took part.
func (r Report) about(w words, at *time.Location) []string {
	parts := []string{w.say("title")}
	if r.Class != "" {
		parts = append(parts, r.Class)
	}
	parts = append(parts, time.UnixMilli(r.Began).In(at).Format("2006-01-02 15:04"))
	here := w.say("here", "count", r.Here)
	if r.Listed > 0 {
		here += " " + w.say("ofList", "count", r.Listed)
	}
	return append(parts, here)
}

// rest says what follows from the figures.
func (r Report) rest(s *sheets) {
	if len(r.Mistakes) > 0 {
		s.heading("mistakes")
		for _, m := range r.Mistakes {
			s.put("– "+s.say("times", "what", m.Name, "count", m.Count), plain, "night")
		}
	}
	if len(r.Objectives) > 0 {
		s.heading("objectives")
		for _, o := range r.Objectives {
			s.put("– "+s.say("objective", "text", o.Text, "share", percent(o.Mean), "answers", o.Answers), plain,
				"night")
		}
	}
	s.heading("sought")
	if len(r.Sought) == 0 {
		s.put(s.say("nobodySought"), plain, "night")
	}
	for _, one := range r.Sought {
		s.put("– "+one.Name+": "+s.say(string(one.Why), "right", one.Right, "of", one.Of), plain, "night")
	}
	s.heading("next")
	again := r.Again()
	if len(again) == 0 {
		s.put(s.say("allWell"), plain, "night")
	}
	for _, a := range again {
		s.put("– "+s.say("again")+": "+a.Text, plain, "night")
	}
}

func (s *sheets) page() {
	s.all = append(s.all, paint.NewCanvas(wide, high))
	s.y = margin
}

func (s *sheets) now() *paint.Canvas { return s.all[len(s.all)-1] }

// need begins a page where so much does not fit on this one.
func (s *sheets) need(tall float64) {
	if s.y+tall > high-margin-20 {
		s.page()
	}
}

func (s *sheets) put(text string, style letters.Style, colour string) {
	s.need(paint.Tall(text, room, style))
	s.y += s.now().Words(text, margin, s.y, room, style, colour, paint.AtStart, 0) + 2
}

func (s *sheets) heading(key string) {
	s.need(60)
	s.y += 12
	s.put(s.say(key), large, "night")
	s.now().Box(margin, s.y, room, 0.75, 0, "line")
	s.y += 6
}

// share is a line with a bar, and over it the span that it may be; first what it is of, then in words.
func (s *sheets) share(of, says string, part, whole int, span measure.Interval, more string) {
	left := float64(margin + bar + gap)
	text := float64(room - bar - gap)
	spanned := ""
	if whole > 0 {
		spanned = s.say("span", "low", percent(span.Low), "high", percent(span.High))
	}
	lines := []struct {
		text, colour string
		style        letters.Style
	}{{of, "night", bold}, {says, "night", plain}, {spanned, "slate", small}, {more, "night", plain}}
	tall := 4.0
	for _, l := range lines {
		if l.text != "" {
			tall += paint.Tall(l.text, text, l.style)
		}
	}
	s.need(tall)
	c := s.now()
	c.Box(margin, s.y+3, bar, 9, 2, "mist")
	if whole > 0 {
		c.Box(margin, s.y+3, bar*float64(part)/float64(whole), 9, 2, "dusk")
		// From where to where it may be: a thin line below with ends.
		from, to := margin+bar*span.Low, margin+bar*span.High
		c.Box(from, s.y+15.5, to-from, 1, 0, "slate")
		c.Box(from, s.y+13.5, 1, 5, 0, "slate")
		c.Box(to-1, s.y+13.5, 1, 5, 0, "slate")
	}
	y := s.y
	for _, l := range lines {
		if l.text != "" {
			y += c.Words(l.text, left, y, text, l.style, l.colour, paint.AtStart, 0)
		}
	}
	s.y = max(y, s.y+22) + 5
}

// line is a short line with a bar.
func (s *sheets) line(of, says string, part, whole int) {
	s.need(15)
	c, left := s.now(), float64(margin+bar+gap)
	c.Box(margin, s.y+3, bar, 6, 2, "mist")
	if whole > 0 {
		c.Box(margin, s.y+3, bar*float64(part)/float64(whole), 6, 2, "dusk")
	}
	c.Words(of, left, s.y, 260, bold, "night", paint.AtStart, 1)
	c.Words(says, left+266, s.y, room-bar-gap-266, plain, "slate", paint.AtEnd, 1)
	s.y += 15
}

// question is a share with what might come next, and what was answered instead.
func (s *sheets) question(q Question) {
	a := q.Advice
	if a == nil {
		s.share(q.Text, s.say("nobody"), 0, 0, measure.Interval{}, "")
		return
	}
	says := s.say("right", "right", a.Right, "of", a.Of) + " · " + s.say(string(a.Is))
	var or []string
	for _, other := range a.Or {
		or = append(or, s.say(string(other)))
	}
	if len(or) > 0 {
		says += " (" + s.say("orElse", "what", strings.Join(or, ", ")) + ")"
	}
	var wrong []string
	for _, w := range q.Wrong {
		wrong = append(wrong, s.say("times", "what", w.Text, "count", w.Count))
	}
	more := ""
	if len(wrong) > 0 {
		more = s.say("instead", "what", strings.Join(wrong, ", "))
	}
	s.share(fmt.Sprintf("%d. %s", q.N, q.Text), says, a.Right, a.Of, a.Span, more)
}

func percent(share float64) string { return fmt.Sprintf("%.0f", 100*share) }

// students is a table, a line each.
func (s *sheets) students(all []Student) {
	if len(all) == 0 {
		return
	}
	s.page()
	columns := []struct {
		key string
		x   float64
	}{{"name", 0}, {"onFrames", 250}, {"answered", 320}, {"rightOf", 380}, {"share", 430}}
	head := func() {
		s.put(s.say("students"), large, "night")
		for _, c := range columns {
			s.now().Words(s.say(c.key), margin+c.x, s.y, 240, bold, "slate", paint.AtStart, 1)
		}
		s.y += 16
	}
	head()
	for _, one := range all {
		if s.y+16 > high-margin-20 {
			s.page()
			head()
		}
		cells := []string{one.Name, fmt.Sprint(one.Frames), fmt.Sprint(one.Answered), fmt.Sprint(one.Right), "–"}
		if one.Answered > 0 {
			cells[4] = fmt.Sprintf("%s %% (%s–%s)", percent(one.Share), percent(one.Span.Low), percent(one.Span.High))
		}
		for i, c := range columns {
			s.now().Words(cells[i], margin+c.x, s.y, 240, plain, "night", paint.AtStart, 1)
		}
		s.y += 15
		s.now().Box(margin, s.y-2, room, 0.5, 0, "line")
	}
}

func (s *sheets) write(to io.Writer, title string) error {
	p := paint.NewPDF(to, nil)
	s.add(p, "")
	return p.Close(title)
}

// add puts the pages into a file: under a title, which stands at the foot of each; the first has it in the list of
// pages.
func (s *sheets) add(p *paint.PDF, title string) {
	for i, c := range s.all {
		c.Words(title, margin, high-margin, room-80, small, "slate", paint.AtStart, 1)
		c.Words(s.say("page", "n", i+1, "of", len(s.all)), margin, high-margin, room, small, "slate", paint.AtEnd, 1)
		page := paint.Page{W: wide, H: high, Cells: append([]paint.Cell{{K: 1, Painting: c.Painting()}}, s.cells[c]...)}
		if i == 0 {
			page.Title = title
		}
		p.Add(page)
	}
}

// frame paints a frame over the whole width.
func (s *sheets) frame(painting paint.Painting) {
	k := room / painting.W
	tall := painting.H * k
	s.need(tall + 8)
	c := s.now()
	c.Box(margin-0.75, s.y-0.75, room+1.5, tall+1.5, 3, "line")
	if s.cells == nil {
		s.cells = map[*paint.Canvas][]paint.Cell{}
	}
	s.cells[c] = append(s.cells[c], paint.Cell{X: margin, Y: s.y, K: k, Painting: painting})
	s.y += tall + 8
}

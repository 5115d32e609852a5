package template

import (
	"strconv"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
)

// layouts are the templates in the order in which they are shown.
var layouts = []struct {
	id          string
	group       Group
	arrangement lesson.Arrangement
	draw        func(d *drawer)
}{
	{"see-think-wonder", Think, lesson.WholeClass, func(d *drawer) { d.columns("see", "think", "wonder") }},
	{"kwl", Think, lesson.Individual, func(d *drawer) { d.columns("know", "want", "learned") }},
	{"claim-evidence-reasoning", Think, lesson.Individual,
		func(d *drawer) { d.rows("claim", "evidence", "reasoning") }},
	{"peer-feedback", Think, lesson.WholeClass, func(d *drawer) {
		d.frame.Replies = true
		d.columns("works", "ask", "next")
	}},
	{"four-square", Arrange, lesson.Individual, fourSquare},
	{"compare-two", Arrange, lesson.WholeClass, compareTwo},
	{"compare-three", Arrange, lesson.WholeClass, compareThree},
	{"cause-effect", Arrange, lesson.Individual, causeEffect},
	{"timeline", Arrange, lesson.WholeClass, timeline},
	{"storyboard", Arrange, lesson.Individual, storyboard},
	{"concept-map", Arrange, lesson.Individual, conceptMap},
	{"sorting", Arrange, lesson.Individual, sorting},
	{"ranking", Arrange, lesson.Individual, ranking},
	{"number-line", Measure, lesson.Individual, numberLine},
	{"plane", Measure, lesson.Individual, plane},
	{"bell-ringer", Check, lesson.Individual, bellRinger},
	{"exit-ticket", Check, lesson.Individual, func(d *drawer) { d.columns("learned", "example", "unsure") }},
	{"quick-check", Check, lesson.WholeClass, quickCheck},
}

// columns lets the notes lie by themselves under headings.
func (d *drawer) columns(keys ...string) {
	for _, key := range keys {
		d.frame.Layout.Columns = append(d.frame.Layout.Columns, lesson.Column{ID: key, Title: d.say(key)})
	}
}

// fields are boxes side by side, into which pieces are put.
func (d *drawer) fields(fill lesson.Fill, keys ...string) {
	w := (1480 - 30*float64(len(keys)-1)) / float64(len(keys))
	for i, key := range keys {
		f := fill
		if i%2 == 1 {
			f = "snow"
		}
		d.box(key, 60+float64(i)*(w+30), 150, w, 800, f)
	}
}

func (d *drawer) rows(keys ...string) {
	fills := []lesson.Fill{"apricot", "snow", "glacier"}
	h := (800 - 25*float64(len(keys)-1)) / float64(len(keys))
	for i, key := range keys {
		d.box(key, 60, 150+float64(i)*(h+25), 1480, h, fills[i%3])
	}
}

func fourSquare(d *drawer) {
	for i, key := range []string{"meaning", "features", "examples", "against"} {
		fill := []lesson.Fill{"glacier", "snow", "moss", "rose"}[i]
		x, y := 60+float64(i%2)*750, 150+float64(i/2)*405
		d.box("", x, y, 730, 395, fill)
		// The lower headings stand at the lower edge, clear of the word in the middle.
		d.heading(key, x+24, y+18+float64(i/2)*312, 682)
	}
	d.shape(lesson.FormEllipse, 610, 450, 380, 190, "night", "snow").Shape.Text = d.say("word")
}

func compareTwo(d *drawer) {
	d.shape(lesson.FormEllipse, 130, 210, 800, 740, "lake", "")
	d.shape(lesson.FormEllipse, 670, 210, 800, 740, "ember", "")
	d.text("left", 230, 150, 400, 36, true, lesson.AlignStart)
	d.text("both", 660, 150, 280, 36, true, lesson.AlignCentre)
	d.text("right", 970, 150, 400, 36, true, lesson.AlignEnd)
}

func compareThree(d *drawer) {
	d.shape(lesson.FormEllipse, 500, 150, 600, 500, "lake", "")
	d.shape(lesson.FormEllipse, 300, 450, 600, 500, "ember", "")
	d.shape(lesson.FormEllipse, 700, 450, 600, 500, "fern", "")
	d.text("one", 180, 190, 300, 36, true, lesson.AlignEnd)
	d.text("two", 60, 690, 230, 36, true, lesson.AlignEnd)
	d.text("three", 1310, 690, 230, 36, true, lesson.AlignStart)
}

func causeEffect(d *drawer) {
	for i := range 3 {
		d.shape(lesson.FormRounded, 60, 170+float64(i)*265, 440, 240, "lake", "glacier")
	}
	d.shape(lesson.FormDiamond, 600, 390, 400, 340, "night", "snow").Shape.Text = d.say("event")
	for i := range 3 {
		d.shape(lesson.FormRounded, 1100, 170+float64(i)*265, 440, 240, "ember", "apricot")
	}
	for i := range 3 {
		d.arrow("m"+strconv.Itoa(i+1), "m4")
		d.arrow("m4", "m"+strconv.Itoa(i+5))
	}
	d.text("causes", 84, 122, 400, 32, true, lesson.AlignStart)
	d.text("effects", 1124, 122, 400, 32, true, lesson.AlignStart)
}

func timeline(d *drawer) {
	d.line(60, 560, 1540, 560)
	for i := range 5 {
		x := 80 + float64(i)*300
		d.line(x+120, 540, x+120, 580)
		if i%2 == 0 {
			d.shape(lesson.FormRounded, x, 190, 240, 320, "night", "snow")
		} else {
			d.shape(lesson.FormRounded, x, 610, 240, 320, "night", "snow")
		}
	}
	d.text("before", 60, 590, 200, 30, false, lesson.AlignStart)
	d.text("after", 1340, 590, 200, 30, false, lesson.AlignEnd)
}

func storyboard(d *drawer) {
	for i := range 6 {
		x, y := 60+float64(i%3)*500, 150+float64(i/3)*410
		d.shape(lesson.FormRect, x, y, 480, 290, "night", "snow")
		d.line(x, y+372, x+480, y+372)
		d.put(x+12, y+10, 60, 44, lesson.Body{Kind: lesson.KindText,
			Text: &lesson.Text{Text: strconv.Itoa(i + 1), Size: 30, Ink: "night", Bold: true}})
	}
}

func conceptMap(d *drawer) {
	d.shape(lesson.FormEllipse, 590, 430, 420, 200, "night", "apricot").Shape.Text = d.say("idea")
	for i, at := range [][2]float64{{120, 190}, {1160, 190}, {120, 720}, {1160, 720}} {
		d.shape(lesson.FormRounded, at[0], at[1], 320, 150, "night", "snow")
		d.arrow("m1", "m"+strconv.Itoa(2+2*i))
	}
}

func sorting(d *drawer) {
	d.fields("glacier", "first", "second", "third")
	for i := range 6 {
		d.piece("card"+strconv.Itoa(i+1), lesson.Tints[i], lesson.Piece)
	}
}

func ranking(d *drawer) {
	d.line(340, 150, 340, 960)
	d.line(1260, 150, 1260, 960)
	for i := range 5 {
		y := 190 + float64(i)*155
		d.line(340, y+110, 1260, y+110)
		d.put(240, y+40, 80, 60, lesson.Body{Kind: lesson.KindText,
			Text: &lesson.Text{Text: strconv.Itoa(i + 1), Size: 44, Ink: "night", Bold: true, Align: lesson.AlignEnd}})
	}
	d.text("most", 60, 238, 170, 30, false, lesson.AlignEnd)
	d.text("least", 60, 858, 170, 30, false, lesson.AlignEnd)
	for i := range 5 {
		d.piece("card"+strconv.Itoa(i+1), lesson.Tints[i+1], lesson.Piece)
	}
}

func numberLine(d *drawer) {
	d.frame.Paper = paper.Paper{Kind: paper.NumberLine, X: &paper.Axis{From: -10, To: 10, Step: 1}}
	for range 1 {
		e := d.put(60, 200, 80, 80, lesson.Body{Kind: lesson.KindStamp, Stamp: &lesson.Stamp{Sign: "pin"}})
		e.Layer, e.Tray = lesson.Supply, true
	}
}

func plane(d *drawer) {
	d.frame.Paper = paper.Paper{Kind: paper.Axes, X: &paper.Axis{From: -10, To: 10, Step: 1, Label: "x"},
		Y: &paper.Axis{From: -5, To: 5, Step: 1, Label: "y"}}
	e := d.put(60, 200, 26, 26, lesson.Body{Kind: lesson.KindShape,
		Shape: &lesson.Shape{Form: lesson.FormEllipse, Ink: "ember", Fill: "apricot", Width: 5}})
	e.Layer, e.Tray = lesson.Supply, true
}

func bellRinger(d *drawer) {
	d.frame.Seconds = 300
	d.frame.Paper = paper.Paper{Kind: paper.Ruled, Step: 60}
	d.shape(lesson.FormBubble, 60, 150, 900, 260, "night", "apricot").Shape.Text = d.say("question")
}

func quickCheck(d *drawer) {
	d.frame.Paper = paper.Paper{Kind: paper.Dotted}
	d.frame.Permission = lesson.Look
	var options []poll.Option
	for i := range 4 {
		options = append(options, poll.Option{ID: "c" + strconv.Itoa(i+1),
			Text: d.say("answer" + strconv.Itoa(i+1))})
	}
	q := &poll.Question{Text: d.say("question"), Body: poll.Offer(options...)}
	d.put(260, 200, 1080, 500, lesson.Body{Kind: lesson.KindPoll, Poll: q})
}

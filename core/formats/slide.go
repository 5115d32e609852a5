package formats

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/lesson"
)

const emuPerPoint = 12700

// slideReader turns what is on one slide into marks.
type slideReader struct {
	deck    *Deck
	links   map[string]link
	id      func() string
	places  map[string]*node // of placeholders, by type and index
	frame   lesson.Frame
	said    []spoken // the texts, in the order they came
	leftOut []string

	k         float64 // frame units of an EMU
	left, top float64
}

// fit maps places inside a group to places on the slide, in EMU.
type fit struct{ x, y, sx, sy float64 }

func (p *slideReader) plain() fit { return fit{sx: 1, sy: 1} }

// tree goes through a slide's shapes, or a group's, from the lowest to the highest.
func (p *slideReader) tree(tree *node, f fit) {
	if tree == nil {
		return
	}
	for _, n := range tree.nodes {
		if len(p.frame.Prepared) >= 300 {
			p.leave("more")
			return
		}
		switch n.name {
		case "sp":
			p.shape(n, f)
		case "pic":
			p.picture(n, f)
		case "cxnSp":
			p.line(n, f)
		case "graphicFrame":
			p.graphic(n, f)
		case "grpSp":
			p.tree(n, f.inside(n.at("grpSpPr", "xfrm")))
		case "AlternateContent":
			p.tree(n.at("Fallback"), f)
		}
	}
}

// inside goes into a group, which has coordinates of its own.
func (f fit) inside(x *node) fit {
	if x == nil {
		return f
	}
	off, ext, chOff, chExt := x.at("off"), x.at("ext"), x.at("chOff"), x.at("chExt")
	sx := ext.number("cx", 1) / math.Max(1, chExt.number("cx", 1))
	sy := ext.number("cy", 1) / math.Max(1, chExt.number("cy", 1))
	return fit{
		x:  f.x + f.sx*(off.number("x", 0)-sx*chOff.number("x", 0)),
		y:  f.y + f.sy*(off.number("y", 0)-sy*chOff.number("y", 0)),
		sx: f.sx * sx, sy: f.sy * sy,
	}
}

// place puts a new mark where a transform says, moved onto the frame where it
// sticks out. It reports whether there is such a place.
func (p *slideReader) place(x *node, f fit, least float64) (lesson.Element, bool) {
	off, ext := x.at("off"), x.at("ext")
	if off == nil || ext == nil {
		return lesson.Element{}, false
	}
	tenth := func(v float64) float64 { return math.Round(v*10) / 10 }
	w := min(max(least, ext.number("cx", 0)*f.sx*p.k), lesson.FrameWidth)
	h := min(max(least, ext.number("cy", 0)*f.sy*p.k), lesson.FrameHeight)
	e := lesson.Element{ID: p.id(), W: tenth(w), H: tenth(h)}
	e.X = tenth(max(0, min(p.left+(f.x+f.sx*off.number("x", 0))*p.k, lesson.FrameWidth-e.W)))
	e.Y = tenth(max(0, min(p.top+(f.y+f.sy*off.number("y", 0))*p.k, lesson.FrameHeight-e.H)))
	// Turns are in sixty-thousandths of a degree.
	e.Turn = math.Mod(math.Mod(math.Round(x.number("rot", 0)/60000), 360)+360, 360)
	return e, true
}

func (p *slideReader) put(e lesson.Element, b lesson.Body) {
	e.Body = b
	if e.Check() != nil {
		p.leave("drawing")
		return
	}
	p.frame.Prepared = append(p.frame.Prepared, e)
}

func (p *slideReader) shape(n *node, f fit) {
	ph := n.at("nvSpPr", "nvPr", "ph")
	x := n.at("spPr", "xfrm")
	if x == nil && ph != nil {
		x = p.places["idx "+ph.attr("idx")]
		if x == nil || ph.attr("idx") == "" {
			x = p.places["type "+kindOf(ph)]
		}
	}
	switch ph.attr("type") {
	case "dt", "ftr", "sldNum":
		return // date, foot line and number of the slide
	}
	said := paragraphs(n.at("txBody"))
	text, size := said.text, said.size
	if ph != nil && kindOf(ph) == "title" {
		p.frame.Title = cut(strings.Join(strings.Fields(text), " "), lesson.MaxTitle)
		size = cmp.Or(size, 40)
	}
	e, ok := p.place(x, f, 8)
	if ok {
		p.said = append(p.said, spoken{said, e.Y})
	}
	if !ok {
		if text != "" {
			p.leave("text")
		}
		return
	}
	form, drawn := p.form(n)
	if drawn {
		text = said.withSigns()
		if len([]rune(text)) > lesson.MaxNote {
			text = cut(text, lesson.MaxNote)
			p.leave("text")
		}
		ink, width := lesson.Ink("night"), 3.0
		if line := n.at("spPr", "ln"); line != nil {
			ink = nearestInk(colour(line))
			width = min(20, max(1, line.number("w", emuPerPoint)*p.k))
		}
		p.put(e, lesson.Body{Kind: lesson.KindShape,
			Shape: &lesson.Shape{Form: form, Ink: ink, Fill: nearestTint(colour(n.at("spPr"))), Width: width,
				Text: text}})
		return
	}
	if strings.TrimSpace(text) == "" {
		return
	}
	if len([]rune(text)) > lesson.MaxText {
		text = cut(text, lesson.MaxText)
		p.leave("text")
	}
	list := said.list
	if list == lesson.ListNone {
		text = said.withSigns()
	}
	if said.plain && ph != nil && kindOf(ph) == "body" && strings.Contains(text, "\n") {
		list = lesson.ListBullets
	}
	letters := min(120, max(16, math.Round(cmp.Or(size, 18)*emuPerPoint*p.k)))
	p.put(e, lesson.Body{Kind: lesson.KindText,
		Text: &lesson.Text{Text: text, Size: letters, Ink: nearestInk(colour(n.at("txBody"))), List: list,
			Bold: ph != nil && kindOf(ph) == "title"}})
}

// form is what a shape looks like, and whether anything of it is drawn: text
// boxes have neither line nor fill.
func (p *slideReader) form(n *node) (lesson.Form, bool) {
	pr := n.at("spPr")
	line, filled := pr.at("ln"), pr.at("solidFill") != nil || pr.at("gradFill") != nil
	lined := line != nil && line.at("noFill") == nil
	styled := n.at("style") != nil && pr.at("noFill") == nil && n.at("nvSpPr", "cNvSpPr").attr("txBox") == ""
	if pr.at("custGeom") != nil {
		p.leave("drawing")
	}
	forms := map[string]lesson.Form{"rect": lesson.FormRect, "roundRect": lesson.FormRounded,
		"ellipse": lesson.FormEllipse, "triangle": lesson.FormTriangle,
		"diamond": lesson.FormDiamond, "star5": lesson.FormStar, "wedgeRoundRectCallout": lesson.FormBubble,
		"wedgeRectCallout": lesson.FormBubble}
	form, known := forms[pr.at("prstGeom").attr("prst")]
	if !known {
		form = lesson.FormRect
	}
	return form, filled || lined || styled
}

func (p *slideReader) picture(n *node, f fit) {
	about := n.at("nvPicPr", "nvPr")
	if about.at("videoFile") != nil || about.at("audioFile") != nil {
		p.leave("video")
	}
	to, ok := p.links[n.at("blipFill", "blip").attr("embed")]
	e, placed := p.place(n.at("spPr", "xfrm"), f, 8)
	if !ok || !placed {
		p.leave("picture")
		return
	}
	if strings.HasSuffix(to.part, ".emf") || strings.HasSuffix(to.part, ".wmf") {
		p.leave("drawing")
		return
	}
	// The name of the part stands for the picture until it is read; see Slide.
	e.Body = lesson.Body{Kind: lesson.KindPicture,
		Picture: &lesson.Picture{Picture: p.deck.named(to.part),
			Alt: cut(n.at("nvPicPr", "cNvPr").attr("descr"), lesson.MaxNote)}}
	p.frame.Prepared = append(p.frame.Prepared, e)
}

func (p *slideReader) line(n *node, f fit) {
	x := n.at("spPr", "xfrm")
	e, ok := p.place(x, f, 0)
	if !ok {
		return
	}
	from, to := lesson.Anchor{X: e.X, Y: e.Y}, lesson.Anchor{X: e.X + e.W, Y: e.Y + e.H}
	if x.attr("flipH") == "1" {
		from.X, to.X = to.X, from.X
	}
	if x.attr("flipV") == "1" {
		from.Y, to.Y = to.Y, from.Y
	}
	line := n.at("spPr", "ln")
	heads := lesson.HeadsNone
	if t := line.at("tailEnd").attr("type"); t != "" && t != "none" {
		heads = lesson.HeadsTo
	}
	e.Turn = 0
	p.put(e, lesson.Body{Kind: lesson.KindConnector,
		Connector: &lesson.Connector{From: from, To: to, Ink: nearestInk(colour(line)), Heads: heads,
			Width: min(20, max(2, line.number("w", emuPerPoint)*p.k))}})
}

func (p *slideReader) graphic(n *node, f fit) {
	data := n.at("graphic", "graphicData")
	table := data.at("tbl")
	e, ok := p.place(n.at("xfrm"), f, 16)
	if table == nil || !ok {
		p.leave(map[bool]string{true: "chart", false: "drawing"}[data.has("chart")])
		return
	}
	var rows [][]string
	for _, tr := range table.all("tr") {
		var row []string
		for _, tc := range tr.all("tc") {
			row = append(row, cut(paragraphs(tc.at("txBody")).withSigns(), lesson.MaxNote))
		}
		rows = append(rows, row)
	}
	e.Turn = 0
	p.put(e, lesson.Body{Kind: lesson.KindTable, Table: &lesson.Table{Rows: rows}})
}

// colour finds the first plain colour in a part of a shape; ok is false where
// it follows from a theme.
func colour(n *node) (rgb [3]float64, ok bool) {
	fill := n.at("solidFill")
	if fill == nil {
		for _, name := range []string{"p", "r", "rPr"} {
			n = n.at(name)
		}
		fill = n.at("solidFill")
	}
	v, err := strconv.ParseUint(fill.at("srgbClr").attr("val"), 16, 32)
	if err != nil {
		return rgb, false
	}
	return [3]float64{float64(v >> 16 & 255), float64(v >> 8 & 255), float64(v & 255)}, true
}

func nearestInk(rgb [3]float64, ok bool) lesson.Ink {
	if !ok {
		return "night"
	}
	dark := slices.DeleteFunc(slices.Clone(lesson.Inks), func(i lesson.Ink) bool { return i == "snow" })
	return nearest(dark, rgb)
}

func nearestTint(rgb [3]float64, ok bool) lesson.Fill {
	if !ok {
		return ""
	}
	return lesson.Fill(nearest(lesson.Tints, rgb))
}

// nearest is the one whose colour has the least distance, the first of equal ones.
func nearest[N interface{ Colour() lesson.Colour }](all []N, rgb [3]float64) N {
	var best N
	least := math.Inf(1)
	for _, one := range all {
		c, d := one.Colour().RGB(), 0.0
		for i := range c {
			d += (c[i] - rgb[i]) * (c[i] - rgb[i])
		}
		if d < least {
			best, least = one, d
		}
	}
	return best
}

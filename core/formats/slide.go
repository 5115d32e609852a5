package formats

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/xmltree"
)

const emuPerPoint = 12700

// slideReader turns what is on one slide into marks.
type slideReader struct {
	deck    *Deck
	links   map[string]link
	id      func() string
	places  map[string]*xmltree.Node // of placeholders, by type and index
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
func (p *slideReader) tree(tree *xmltree.Node, f fit) {
	if tree == nil {
		return
	}
	for _, n := range tree.Nodes {
		if len(p.frame.Prepared) >= 300 {
			p.leave("more")
			return
		}
		switch n.Name {
		case "sp":
			p.shape(n, f)
		case "pic":
			p.picture(n, f)
		case "cxnSp":
			p.line(n, f)
		case "graphicFrame":
			p.graphic(n, f)
		case "grpSp":
			p.tree(n, f.inside(n.At("grpSpPr", "xfrm")))
		case "AlternateContent":
			p.tree(n.At("Fallback"), f)
		}
	}
}

// inside goes into a group, which has coordinates of its own.
func (f fit) inside(x *xmltree.Node) fit {
	if x == nil {
		return f
	}
	off, ext, chOff, chExt := x.At("off"), x.At("ext"), x.At("chOff"), x.At("chExt")
	sx := ext.Number("cx", 1) / math.Max(1, chExt.Number("cx", 1))
	sy := ext.Number("cy", 1) / math.Max(1, chExt.Number("cy", 1))
	return fit{
		x:  f.x + f.sx*(off.Number("x", 0)-sx*chOff.Number("x", 0)),
		y:  f.y + f.sy*(off.Number("y", 0)-sy*chOff.Number("y", 0)),
		sx: f.sx * sx, sy: f.sy * sy,
	}
}

// place puts a new mark where a transform says, moved onto the frame where it
// sticks out. It reports whether there is such a place.
func (p *slideReader) place(x *xmltree.Node, f fit, least float64) (lesson.Element, bool) {
	off, ext := x.At("off"), x.At("ext")
	if off == nil || ext == nil {
		return lesson.Element{}, false
	}
	tenth := func(v float64) float64 { return math.Round(v*10) / 10 }
	w := min(max(least, ext.Number("cx", 0)*f.sx*p.k), lesson.FrameWidth)
	h := min(max(least, ext.Number("cy", 0)*f.sy*p.k), lesson.FrameHeight)
	e := lesson.Element{ID: p.id(), W: tenth(w), H: tenth(h)}
	e.X = tenth(max(0, min(p.left+(f.x+f.sx*off.Number("x", 0))*p.k, lesson.FrameWidth-e.W)))
	e.Y = tenth(max(0, min(p.top+(f.y+f.sy*off.Number("y", 0))*p.k, lesson.FrameHeight-e.H)))
	// Turns are in sixty-thousandths of a degree.
	e.Turn = math.Mod(math.Mod(math.Round(x.Number("rot", 0)/60000), 360)+360, 360)
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

func (p *slideReader) shape(n *xmltree.Node, f fit) {
	ph := n.At("nvSpPr", "nvPr", "ph")
	x := n.At("spPr", "xfrm")
	if x == nil && ph != nil {
		x = p.places["idx "+ph.Attr("idx")]
		if x == nil || ph.Attr("idx") == "" {
			x = p.places["type "+kindOf(ph)]
		}
	}
	switch ph.Attr("type") {
	case "dt", "ftr", "sldNum":
		return // date, foot line and number of the slide
	}
	said := paragraphs(n.At("txBody"))
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
		if line := n.At("spPr", "ln"); line != nil {
			ink = nearestInk(colour(line))
			width = min(20, max(1, line.Number("w", emuPerPoint)*p.k))
		}
		p.put(e, lesson.Body{Kind: lesson.KindShape,
			Shape: &lesson.Shape{Form: form, Ink: ink, Fill: nearestTint(colour(n.At("spPr"))), Width: width,
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
		Text: &lesson.Text{Text: text, Size: letters, Ink: nearestInk(colour(n.At("txBody"))), List: list,
			Bold: ph != nil && kindOf(ph) == "title"}})
}

// form is what a shape looks like, and whether anything of it is drawn: text
// boxes have neither line nor fill.
func (p *slideReader) form(n *xmltree.Node) (lesson.Form, bool) {
	pr := n.At("spPr")
	line, filled := pr.At("ln"), pr.At("solidFill") != nil || pr.At("gradFill") != nil
	lined := line != nil && line.At("noFill") == nil
	styled := n.At("style") != nil && pr.At("noFill") == nil && n.At("nvSpPr", "cNvSpPr").Attr("txBox") == ""
	if pr.At("custGeom") != nil {
		p.leave("drawing")
	}
	forms := map[string]lesson.Form{"rect": lesson.FormRect, "roundRect": lesson.FormRounded,
		"ellipse": lesson.FormEllipse, "triangle": lesson.FormTriangle,
		"diamond": lesson.FormDiamond, "star5": lesson.FormStar, "wedgeRoundRectCallout": lesson.FormBubble,
		"wedgeRectCallout": lesson.FormBubble}
	form, known := forms[pr.At("prstGeom").Attr("prst")]
	if !known {
		form = lesson.FormRect
	}
	return form, filled || lined || styled
}

func (p *slideReader) picture(n *xmltree.Node, f fit) {
	about := n.At("nvPicPr", "nvPr")
	if about.At("videoFile") != nil || about.At("audioFile") != nil {
		p.leave("video")
	}
	to, ok := p.links[n.At("blipFill", "blip").Attr("embed")]
	e, placed := p.place(n.At("spPr", "xfrm"), f, 8)
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
			Alt: cut(n.At("nvPicPr", "cNvPr").Attr("descr"), lesson.MaxNote)}}
	p.frame.Prepared = append(p.frame.Prepared, e)
}

func (p *slideReader) line(n *xmltree.Node, f fit) {
	x := n.At("spPr", "xfrm")
	e, ok := p.place(x, f, 0)
	if !ok {
		return
	}
	from, to := lesson.Anchor{X: e.X, Y: e.Y}, lesson.Anchor{X: e.X + e.W, Y: e.Y + e.H}
	if x.Attr("flipH") == "1" {
		from.X, to.X = to.X, from.X
	}
	if x.Attr("flipV") == "1" {
		from.Y, to.Y = to.Y, from.Y
	}
	line := n.At("spPr", "ln")
	heads := lesson.HeadsNone
	if t := line.At("tailEnd").Attr("type"); t != "" && t != "none" {
		heads = lesson.HeadsTo
	}
	e.Turn = 0
	p.put(e, lesson.Body{Kind: lesson.KindConnector,
		Connector: &lesson.Connector{From: from, To: to, Ink: nearestInk(colour(line)), Heads: heads,
			Width: min(20, max(2, line.Number("w", emuPerPoint)*p.k))}})
}

func (p *slideReader) graphic(n *xmltree.Node, f fit) {
	data := n.At("graphic", "graphicData")
	table := data.At("tbl")
	e, ok := p.place(n.At("xfrm"), f, 16)
	if table == nil || !ok {
		p.leave(map[bool]string{true: "chart", false: "drawing"}[data.Has("chart")])
		return
	}
	var rows [][]string
	for _, tr := range table.All("tr") {
		var row []string
		for _, tc := range tr.All("tc") {
			row = append(row, cut(paragraphs(tc.At("txBody")).withSigns(), lesson.MaxNote))
		}
		rows = append(rows, row)
	}
	e.Turn = 0
	p.put(e, lesson.Body{Kind: lesson.KindTable, Table: &lesson.Table{Rows: rows}})
}

// colour finds the first plain colour in a part of a shape; ok is false where
// it follows from a theme.
func colour(n *xmltree.Node) (rgb [3]float64, ok bool) {
	fill := n.At("solidFill")
	if fill == nil {
		for _, name := range []string{"p", "r", "rPr"} {
			n = n.At(name)
		}
		fill = n.At("solidFill")
	}
	v, err := strconv.ParseUint(fill.At("srgbClr").Attr("val"), 16, 32)
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

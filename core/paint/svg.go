package paint

import (
	"bytes"
	"encoding/base64"
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"strconv"

	"alpenglow/core/letters"
)

// SVG writes a painting as one SVG file (SVG 2, W3C) that needs nothing else: letters are outlines, each drawn once,
// and say in words what they are; pictures are in it.
func (p Painting) SVG(to io.Writer, pictures Pictures) error {
	w := &svg{glyphs: map[glyphKey]int{}}
	for _, i := range p.Items {
		w.item(i, pictures)
	}
	var head bytes.Buffer
	fmt.Fprintf(
		&head,
		`<svg xmlns="http://www.w3.org/2000/svg" width="%s" height="%s" viewBox="0 0 %[1]s %[2]s" role="img">`,
		num(p.W),
		num(p.H),
	)
	head.WriteString("<title>")
	escape(&head, p.Title)
	head.WriteString("</title><defs>")
	head.Write(w.defs.Bytes())
	head.WriteString("</defs>")
	for _, part := range [][]byte{head.Bytes(), w.body.Bytes(), []byte("</svg>\n")} {
		if _, err := to.Write(part); err != nil {
			return err
		}
	}
	return nil
}

type svg struct {
	defs, body bytes.Buffer
	glyphs     map[glyphKey]int
}

type glyphKey struct {
	face letters.Face
	id   uint32
}

// em is in how many parts an outline's letter size is written.
const em = 1000

func (w *svg) item(i Item, pictures Pictures) {
	w.body.WriteString("<g")
	if i.At != still {
		fmt.Fprintf(&w.body, ` transform="matrix(%s %s %s %s %s %s)"`, fine(i.At.A), fine(i.At.B), fine(i.At.C),
			fine(i.At.D), num(i.At.E), num(i.At.F))
	}
	if i.Alpha < 1 {
		fmt.Fprintf(&w.body, ` opacity="%s"`, fine(i.Alpha))
	}
	if i.Mix != Over {
		fmt.Fprintf(&w.body, ` style="mix-blend-mode:%s"`, [...]string{Multiply: "multiply", Screen: "screen"}[i.Mix])
	}
	if i.Words != nil {
		w.words(*i.Words)
		return
	}
	w.body.WriteString(">")
	if i.Link != "" {
		w.body.WriteString(`<a href="`)
		escape(&w.body, i.Link)
		w.body.WriteString(`">`)
	}
	if len(i.Path) > 0 {
		w.path(i)
	}
	if i.Link != "" {
		w.body.WriteString("</a>")
	}
	if i.Picture != nil {
		w.picture(*i.Picture, pictures)
	}
	w.body.WriteString("</g>\n")
}

func (w *svg) path(i Item) {
	fmt.Fprintf(&w.body, `<path d="%s"`, i.Path.String())
	if i.Fill == nil {
		w.body.WriteString(` fill="none"`)
	} else {
		fmt.Fprintf(&w.body, ` fill="%s"`, *i.Fill)
	}
	if l := i.Line; l != nil {
		fmt.Fprintf(&w.body, ` stroke="%s" stroke-width="%s" stroke-linejoin="round"`, l.Colour, num(l.Width))
		if l.Round {
			w.body.WriteString(` stroke-linecap="round"`)
		}
		if len(l.Dash) > 0 {
			fmt.Fprintf(&w.body, ` stroke-dasharray="%s %s"`, num(l.Dash[0]), num(l.Dash[1]))
		}
	}
	w.body.WriteString("/>")
}

func (w *svg) words(words Words) {
	fmt.Fprintf(&w.body, ` fill="%s" role="img" aria-label="`, words.Colour)
	escape(&w.body, words.Text)
	w.body.WriteString(`">`)
	for _, row := range words.Rows {
		k := row.Size / em
		fmt.Fprintf(&w.body, `<g transform="translate(%s %s) scale(%s)">`, num(row.X), num(row.Y), fine(k))
		for _, c := range row.Clusters {
			for _, g := range c.Glyphs {
				id, ok := w.glyph(g)
				if !ok {
					continue
				}
				fmt.Fprintf(&w.body, `<use href="#g%d" `, id)
				if x, y := (c.X+g.X)/k, g.Y/k; g.Size == row.Size {
					fmt.Fprintf(&w.body, `x="%.0f" y="%.0f"/>`, x, y)
				} else {
					fmt.Fprintf(&w.body, `transform="translate(%.0f %.0f) scale(%s)"/>`, x, y, fine(g.Size/row.Size))
				}
			}
		}
		w.body.WriteString("</g>")
	}
	w.body.WriteString("</g>\n")
}

// glyph gives the number of a glyph's outline; none for one without ink.
func (w *svg) glyph(g letters.Glyph) (int, bool) {
	outline := Path(g.Face.Outline(g.ID))
	if len(outline) == 0 {
		return 0, false
	}
	key := glyphKey{g.Face, g.ID}
	id, known := w.glyphs[key]
	if !known {
		id = len(w.glyphs)
		w.glyphs[key] = id
		fmt.Fprintf(&w.defs, `<path id="g%d" d="%s"/>`, id, outline.mapped(scaled(em)).String())
	}
	return id, true
}

func (w *svg) picture(p Picture, pictures Pictures) {
	up := pictures.get(p.Name)
	if up == nil {
		fmt.Fprintf(&w.body, `<rect width="%s" height="%s" fill="%s"/>`, num(p.W), num(p.H), colours["mist"])
		return
	}
	x, y, wide, high := p.place(up.Width, up.Height)
	fmt.Fprintf(
		&w.body,
		`<image x="%s" y="%s" width="%s" height="%s" preserveAspectRatio="none" href="data:%s;base64,%s"/>`,
		num(x),
		num(y),
		num(wide),
		num(high),
		up.Type,
		base64.StdEncoding.EncodeToString(up.Data),
	)
}

// get gives a picture; nil where there is none.
func (p Pictures) get(name string) *Uploaded {
	if p == nil {
		return nil
	}
	return p(name)
}

// String writes a path in SVG's notation, to a hundredth of a unit.
func (p Path) String() string {
	var b []byte
	for _, s := range p {
		b = append(b, s.Op)
		for i := range points(s.Op) {
			if i > 0 {
				b = append(b, ' ')
			}
			b = append(append(append(b, num(s.Points[i][0])...), ' '), num(s.Points[i][1])...)
		}
	}
	return string(b)
}

// mapped gives the path where a matrix maps it.
func (p Path) mapped(m Matrix) Path {
	to := make(Path, len(p))
	for i, s := range p {
		to[i].Op = s.Op
		for k := range points(s.Op) {
			to[i].Points[k][0], to[i].Points[k][1] = m.to(s.Points[k][0], s.Points[k][1])
		}
	}
	return to
}

// num writes a number to a hundredth, fine to a hundred thousandth.
func num(v float64) string  { return strconv.FormatFloat(math.Round(v*100)/100, 'f', -1, 64) }
func fine(v float64) string { return strconv.FormatFloat(math.Round(v*1e5)/1e5, 'f', -1, 64) }

func escape(to *bytes.Buffer, text string) { _ = xml.EscapeText(to, []byte(text)) } // a buffer takes all

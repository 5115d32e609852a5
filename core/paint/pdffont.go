package paint

import (
	"bytes"
	"fmt"
	"math"
	"strings"
	"unicode/utf16"

	"alpenglow/core/letters"
)

// fonts are the letters of a file. A letter is a cluster: what stands as one has one code, one drawing and
// one text, so that joined and stacked letters of every writing are read as they were written.
type fonts struct {
	all   []*font3
	codes map[string]code
}

// font3 is a font of type 3: up to 255 letters, each with how to draw it, how wide it is, in thousandths of the
// letter size, and what it says.
type font3 struct {
	object int
	drawn  [][]letters.Glyph // by the size 1
	wide   []int
	says   []string
}

type code struct {
	font int
	at   int
}

// mostCodes is how many letters a font of type 3 has, from 1 on.
const mostCodes = 255

// code gives the code of a cluster in letters of a size.
func (f *fonts) code(next func() int, c letters.Cluster, size float64) code {
	if f.codes == nil {
		f.codes = map[string]code{}
	}
	var key strings.Builder
	key.WriteString(c.Text)
	drawn := make([]letters.Glyph, len(c.Glyphs))
	for i, g := range c.Glyphs {
		g.X, g.Y, g.Size = g.X/size, g.Y/size, g.Size/size
		drawn[i] = g
		fmt.Fprintf(&key, "|%v %d %.3f %.3f %.3f", g.Face, g.ID, g.X, g.Y, g.Size)
	}
	if known, ok := f.codes[key.String()]; ok {
		return known
	}
	if n := len(f.all); n == 0 || len(f.all[n-1].says) == mostCodes {
		f.all = append(f.all, &font3{object: next()})
	}
	last := f.all[len(f.all)-1]
	last.drawn, last.says = append(last.drawn, drawn), append(last.says, c.Text)
	last.wide = append(last.wide, int(math.Round(em*c.Wide/size)))
	made := code{len(f.all) - 1, len(last.says)}
	f.codes[key.String()] = made
	return made
}

// apart parts clusters of several letters that run leftwards into one for each letter, the last letter at the left: in
// that order readers take what they find and turn it round. What is drawn stays with the first letter.
func apart(clusters []letters.Cluster) []letters.Cluster {
	var all []letters.Cluster
	for _, c := range clusters {
		said := []rune(c.Text)
		if len(said) < 2 || !letters.Leftwards(c.Text) {
			all = append(all, c)
			continue
		}
		wide := c.Wide / float64(len(said))
		for i := len(said) - 1; i >= 0; i-- {
			one := letters.Cluster{Text: string(said[i]), X: c.X + wide*float64(len(said)-1-i), Wide: wide}
			if i == 0 {
				for _, g := range c.Glyphs {
					g.X -= one.X - c.X
					one.Glyphs = append(one.Glyphs, g)
				}
			}
			all = append(all, one)
		}
	}
	return all
}

// words writes lines of letters, each where it was set.
func (f *fonts) words(b *bytes.Buffer, next func() int, w Words) {
	for _, row := range w.Rows {
		now, at, open := -1, 0.0, false
		end := func() {
			if open {
				b.WriteString("]TJ ")
			}
			open = false
		}
		fmt.Fprintf(b, "BT 1 0 0 -1 %s %s Tm ", num(row.X), num(row.Y))
		for _, c := range apart(row.Clusters) {
			k := f.code(next, c, row.Size)
			if k.font != now {
				end()
				fmt.Fprintf(b, "/F%d %s Tf ", k.font, num(row.Size))
				now = k.font
			}
			if !open {
				b.WriteByte('[')
				open = true
			}
			// What rounding and letters that draw near have moved, in thousandths.
			if off := math.Round(em * (at - c.X) / row.Size); math.Abs(off) >= 1 {
				fmt.Fprintf(b, "%.0f", off)
				at -= off * row.Size / em
			}
			fmt.Fprintf(b, "<%02X>", k.at)
			at += float64(f.all[k.font].wide[k.at-1]) * row.Size / em
		}
		end()
		b.WriteString("ET ")
	}
}

// font writes a font.
func (p *PDF) font(f *font3) {
	var procs, wide, differ strings.Builder
	for i, glyphs := range f.drawn {
		proc := p.next()
		p.stream(proc, "", drawing(glyphs, f.wide[i]), false)
		fmt.Fprintf(&procs, "/c%d %d 0 R", i+1, proc)
		fmt.Fprintf(&wide, "%d ", f.wide[i])
		fmt.Fprintf(&differ, "/c%d", i+1)
	}
	says := p.next()
	p.stream(says, "", toUnicode(f.says), false)
	p.object(f.object, fmt.Sprintf("<</Type/Font/Subtype/Type3/FontBBox[0 0 0 0]/FontMatrix[%s 0 0 %[1]s 0 0]"+
		"/FirstChar 1/LastChar %d/Widths[%s]/CharProcs<<%s>>/Encoding<</Type/Encoding/Differences[1 %s]>>"+
		"/ToUnicode %d 0 R/Resources<<>>>>", fine(1.0/em), len(f.says), wide.String(), procs.String(),
		differ.String(), says))
}

// drawing writes how a letter is drawn, Y upwards, in thousandths.
func drawing(glyphs []letters.Glyph, wide int) []byte {
	var path Path
	x0, y0, x1, y1 := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, g := range glyphs {
		one := Path(g.Face.Outline(g.ID)).mapped(scaled(g.Size).then(moved(g.X, g.Y)).then(Matrix{em, 0, 0, -em, 0, 0}))
		for _, s := range one {
			for _, q := range s.Points[:points(s.Op)] {
				x0, y0, x1, y1 = min(x0, q[0]), min(y0, q[1]), max(x1, q[0]), max(y1, q[1])
			}
			path = append(path, s)
		}
	}
	if len(path) == 0 {
		x0, y0, x1, y1 = 0, 0, 0, 0
	}
	var b bytes.Buffer
	fmt.Fprintf(&b, "%d 0 %.0f %.0f %.0f %.0f d1\n", wide, math.Floor(x0), math.Floor(y0), math.Ceil(x1), math.Ceil(y1))
	if len(path) > 0 {
		fmt.Fprintf(&b, "%sf\n", operators(path))
	}
	return b.Bytes()
}

// toUnicode says what each code of a font says (Adobe Technical Note 5411).
func toUnicode(says []string) []byte {
	var b bytes.Buffer
	b.WriteString("/CIDInit/ProcSet findresource begin 12 dict begin begincmap" +
		"/CIDSystemInfo<</Registry(Adobe)/Ordering(UCS)/Supplement 0>>def/CMapName/Says def/CMapType 2 def\n" +
		"1 begincodespacerange<00><FF>endcodespacerange\n")
	const most = 100 // in one list
	for from := 0; from < len(says); from += most {
		part := says[from:min(len(says), from+most)]
		fmt.Fprintf(&b, "%d beginbfchar\n", len(part))
		for i, text := range part {
			fmt.Fprintf(&b, "<%02X><", from+i+1)
			for _, u := range utf16.Encode([]rune(text)) {
				fmt.Fprintf(&b, "%04X", u)
			}
			b.WriteString(">\n")
		}
		b.WriteString("endbfchar\n")
	}
	b.WriteString("endcmap CMapName currentdict/CMap defineresource pop end end\n")
	return b.Bytes()
}

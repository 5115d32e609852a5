package formats

import (
	"strconv"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/prose"
	"alpenglow/core/xmltree"
)

// written is what a text body says.
type written struct {
	text  string
	size  float64     // of its first letters in points, 0 where it is not said
	list  lesson.List // where all of it is one list
	signs []string    // what stands before each line of a list, "" before others
	plain bool        // nothing is said about signs
}

// paragraphs reads a text body.
func paragraphs(body *xmltree.Node) written {
	w := written{plain: true}
	var lines []string
	number, bullets, numbers := 0, 0, 0
	for _, p := range body.All("p") {
		var line strings.Builder
		for _, r := range p.Nodes {
			switch r.Name {
			case "r", "fld":
				line.WriteString(words(r.At("t")))
				if s := r.At("rPr").Number("sz", 0); w.size == 0 && s > 0 {
					w.size = s / 100
				}
			case "br":
				line.WriteString("\n")
			}
		}
		sign := ""
		switch about := p.At("pPr"); {
		case line.Len() == 0:
		case about.At("buAutoNum") != nil:
			number++
			numbers++
			sign = strconv.Itoa(number) + ". "
		case about.At("buChar") != nil || about.At("buBlip") != nil:
			bullets++
			sign = "• "
		}
		if sign != "" || p.At("pPr").At("buNone") != nil {
			w.plain = false
		}
		lines, w.signs = append(lines, line.String()), append(w.signs, sign)
	}
	for len(lines) > 0 && lines[0] == "" {
		lines, w.signs = lines[1:], w.signs[1:]
	}
	for len(lines) > 0 && lines[len(lines)-1] == "" {
		lines, w.signs = lines[:len(lines)-1], w.signs[:len(lines)-1]
	}
	w.text = strings.Trim(strings.Join(lines, "\n"), "\n")
	switch len(lines) {
	case 0:
	case bullets:
		w.list = lesson.ListBullets
	case numbers:
		w.list = lesson.ListNumbers
	}
	return w
}

// withSigns gives the text with the signs of its lists written out, for marks
// that have no lists of their own.
func (w written) withSigns() string {
	var all strings.Builder
	for i, line := range strings.SplitAfter(w.text, "\n") {
		// A line break inside a paragraph leaves more lines than signs.
		if i < len(w.signs) && strings.Count(w.text, "\n")+1 == len(w.signs) {
			all.WriteString(w.signs[i])
		}
		all.WriteString(line)
	}
	return all.String()
}

// spoken is a text and how far down the slide it begins, in frame units.
type spoken struct {
	written
	y float64
}

// headline guesses the title of a slide that says of none of its texts that it
// is one, as slides do that were converted: the highest text, when that begins
// in the upper third, is one short paragraph, and no letters are larger.
func headline(said []spoken) string {
	best := -1
	for i, s := range said {
		if s.text != "" && (best < 0 || s.y < said[best].y) {
			best = i
		}
	}
	if best < 0 || said[best].y > lesson.FrameHeight/3 || said[best].list != lesson.ListNone {
		return ""
	}
	title := said[best].text
	if strings.Contains(title, "\n") || len([]rune(title)) > lesson.MaxTitle {
		return ""
	}
	for _, s := range said {
		if s.size > said[best].size {
			return ""
		}
	}
	return strings.Join(strings.Fields(title), " ")
}

func words(n *xmltree.Node) string {
	if n == nil {
		return ""
	}
	// What cannot be shown is left out, so that one such letter does not cost the slide.
	return strings.Map(func(r rune) rune {
		if r < ' ' && r != '\n' && r != '\t' || r == 0xFFFD || prose.Turns(r) {
			return -1
		}
		return r
	}, n.Text())
}

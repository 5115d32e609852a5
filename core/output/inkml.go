package output

import (
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"

	"alpenglow/core/ink"
	"alpenglow/core/lesson"
)

// inkFile is Ink Markup Language (InkML, W3C Recommendation of 20 September 2011): each drawn
// line is a trace of X, Y (frame units) and F (the pressure, 0 to 1).
type inkFile struct {
	XMLName xml.Name   `xml:"http://www.w3.org/2003/InkML ink"`
	About   []inkNote  `xml:"annotation"`
	Context inkContext `xml:"definitions>context"`
	Brushes []inkBrush `xml:"definitions>brush"`
	Traces  []inkTrace `xml:"trace"`
}

type inkNote struct {
	Type string `xml:"type,attr"`
	Text string `xml:",chardata"`
}

type inkContext struct {
	ID       string       `xml:"http://www.w3.org/XML/1998/namespace id,attr"`
	Channels []inkChannel `xml:"inkSource>traceFormat>channel"`
}

type inkChannel struct {
	Name string `xml:"name,attr"`
	Type string `xml:"type,attr"`
	Max  string `xml:"max,attr,omitempty"`
}

type inkBrush struct {
	ID         string        `xml:"http://www.w3.org/XML/1998/namespace id,attr"`
	Properties []inkProperty `xml:"brushProperty"`
}

type inkProperty struct {
	Name  string `xml:"name,attr"`
	Value string `xml:"value,attr"`
	Units string `xml:"units,attr,omitempty"`
}

type inkTrace struct {
	ID      string `xml:"http://www.w3.org/XML/1998/namespace id,attr"`
	Brush   string `xml:"brushRef,attr"`
	Context string `xml:"contextRef,attr"`
	Points  string `xml:",chardata"`
}

// inkML writes the drawn lines of a leaf.
func (l Leaf) inkML(to io.Writer) error {
	file := inkFile{About: []inkNote{{"title", l.Title()}}, Context: inkContext{ID: "frame", Channels: []inkChannel{
		{"X", "decimal", fmt.Sprint(lesson.FrameWidth)}, {"Y", "decimal", fmt.Sprint(lesson.FrameHeight)},
		{"F", "decimal", "1"}}}}
	brushes := map[string]string{}
	for _, e := range l.Frame.Lying(l.Marks) {
		s := e.Stroke
		if s == nil {
			continue
		}
		key := fmt.Sprint(s.Ink, s.Width, s.Nib)
		if brushes[key] == "" {
			brushes[key] = fmt.Sprintf("brush%d", len(brushes)+1)
			b := inkBrush{ID: brushes[key], Properties: []inkProperty{{"color", s.Ink.Colour().String(), ""},
				{"width", fmt.Sprint(s.Width), ""}, {"tip", "ellipse", ""}}}
			if s.Nib == lesson.NibHighlighter {
				b.Properties = append(b.Properties, inkProperty{"transparency", "0.6", ""},
					inkProperty{"rasterOp", "maskPen", ""})
			}
			file.Brushes = append(file.Brushes, b)
		}
		file.Traces = append(
			file.Traces,
			inkTrace{fmt.Sprintf("trace%d", len(file.Traces)+1), "#" + brushes[key], "#frame",
				trace(e)},
		)
	}
	if _, err := io.WriteString(to, xml.Header); err != nil {
		return err
	}
	return xml.NewEncoder(to).Encode(file)
}

// trace writes the places of a line where it lies on the frame.
func trace(e lesson.Element) string {
	var b strings.Builder
	for i, v := range e.Drawn() {
		if i%ink.Per == 0 && i > 0 {
			b.WriteString(", ")
		} else if i > 0 {
			b.WriteByte(' ')
		}
		b.WriteString(strconv.FormatFloat(math.Round(v*100)/100, 'f', -1, 64))
	}
	return b.String()
}

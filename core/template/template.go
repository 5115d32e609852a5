// Package template answers: which ready layouts can a frame begin with?
//
// They are the trade's common routines and organisers, drawn from ordinary
// marks, so that everything on them can be changed. What is written on them
// comes from message files, one for each language.
package template

import (
	"embed"
	"encoding/json"
	"fmt"
	"strconv"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
)

//go:embed words/*.json
var files embed.FS

// Group is what a template is for.
type Group string

// The groups.
const (
	Think   Group = "think"   // routines for thinking aloud
	Arrange Group = "arrange" // organisers
	Measure Group = "measure" // numbers and planes
	Check   Group = "check"   // beginnings, ends and checks of a lesson
)

// Groups lists the groups.
var Groups = []Group{Think, Arrange, Measure, Check}

// Template is a ready layout. Its frame needs ids of its own before it is put
// on a board; see lesson.Frame.Copy.
type Template struct {
	ID    string       `json:"id"`
	Name  string       `json:"name"`
	Group Group        `json:"group"`
	Frame lesson.Frame `json:"frame"`
}

// All lists the templates with the words of a language: "en" or "de".
func All(language string) ([]Template, error) {
	text, err := files.ReadFile("words/" + language + ".json")
	if err != nil {
		return nil, fmt.Errorf("templates: %w", err)
	}
	var words map[string]map[string]string
	if err := json.Unmarshal(text, &words); err != nil {
		return nil, fmt.Errorf("templates: %w", err)
	}
	list := make([]Template, len(layouts))
	for i, l := range layouts {
		d := &drawer{words: words[l.id]}
		d.frame = lesson.Frame{ID: l.id, Title: d.say("name"), Prompt: d.say("prompt"),
			Paper:       paper.Paper{Kind: paper.Plain},
			Arrangement: l.arrangement, Permission: lesson.Add}
		l.draw(d)
		if d.missing != "" {
			return nil, fmt.Errorf("templates: %s has no words for %q in %s", l.id, d.missing, language)
		}
		list[i] = Template{ID: l.id, Name: d.say("name"), Group: l.group, Frame: d.frame.Settled()}
	}
	return list, nil
}

// drawer puts marks on the frame of a template.
type drawer struct {
	words   map[string]string
	missing string
	frame   lesson.Frame
}

// say gives the words for a key.
func (d *drawer) say(key string) string {
	text, ok := d.words[key]
	if !ok {
		d.missing = key
	}
	return text
}

func (d *drawer) put(x, y, w, h float64, b lesson.Body) *lesson.Element {
	d.frame.Prepared = append(d.frame.Prepared,
		lesson.Element{ID: "m" + strconv.Itoa(len(d.frame.Prepared)+1), X: x, Y: y, W: w, H: h, Body: b})
	return &d.frame.Prepared[len(d.frame.Prepared)-1]
}

func (d *drawer) shape(form lesson.Form, x, y, w, h float64, ink lesson.Ink, fill lesson.Fill) *lesson.Element {
	return d.put(x, y, w, h, lesson.Body{Kind: lesson.KindShape,
		Shape: &lesson.Shape{Form: form, Ink: ink, Fill: fill, Width: 3}})
}

// box is a field with a heading inside its upper edge.
func (d *drawer) box(key string, x, y, w, h float64, fill lesson.Fill) {
	d.shape(lesson.FormRect, x, y, w, h, "night", fill)
	if key != "" {
		d.heading(key, x+24, y+18, w-48)
	}
}

func (d *drawer) heading(key string, x, y, w float64) *lesson.Element {
	return d.text(key, x, y, w, 36, true, lesson.AlignStart)
}

func (d *drawer) text(key string, x, y, w, size float64, bold bool, align lesson.Align) *lesson.Element {
	return d.put(x, y, w, size*1.35, lesson.Body{Kind: lesson.KindText,
		Text: &lesson.Text{Text: d.say(key), Size: size, Ink: "night", Bold: bold, Align: align}})
}

func (d *drawer) arrow(from, to string) {
	d.put(0, 0, 0, 0, lesson.Body{Kind: lesson.KindConnector,
		Connector: &lesson.Connector{Ink: "night", Width: 5, Heads: lesson.HeadsTo,
			From: lesson.Anchor{Mark: from}, To: lesson.Anchor{Mark: to}}})
	c := &d.frame.Prepared[len(d.frame.Prepared)-1]
	for _, end := range []*lesson.Anchor{&c.Connector.From, &c.Connector.To} {
		for _, e := range d.frame.Prepared {
			if e.ID == end.Mark {
				end.X, end.Y = e.X+e.W/2, e.Y+e.H/2
			}
		}
	}
	// Check sets the box of the ends; the connector is sound by construction.
	_ = c.Check()
}

func (d *drawer) line(x1, y1, x2, y2 float64) {
	d.put(0, 0, 0, 0, lesson.Body{Kind: lesson.KindConnector, Connector: &lesson.Connector{Ink: "night", Width: 5,
		From: lesson.Anchor{X: x1, Y: y1}, To: lesson.Anchor{X: x2, Y: y2}}})
	_ = d.frame.Prepared[len(d.frame.Prepared)-1].Check()
}

// piece is a note that students move, in the tray.
func (d *drawer) piece(key string, tint lesson.Tint, layer lesson.Layer) {
	e := d.put(40, 150, 260, 76, lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: d.say(key), Tint: tint}})
	e.Layer, e.Tray = layer, true
}

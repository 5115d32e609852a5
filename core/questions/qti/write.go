package qti

import (
	"archive/zip"
	"encoding/xml"
	"fmt"
	"io"
	"strconv"
	"strings"

	"alpenglow/core/picture"
	"alpenglow/core/poll"
	"alpenglow/core/questions"
)

// el is an element that is written: by its name in version 2.1, with attributes by name and
// value, and elements (*el) and texts (string) in it.
type el struct {
	name  string
	attrs []string
	in    []any
}

func e(name string, attrs []string, in ...any) *el { return &el{name, attrs, in} }

func (x *el) add(in ...any) *el { x.in = append(x.in, in...); return x }

// html are the elements of web pages, whose names no version changes.
var html = map[string]bool{"p": true, "div": true, "br": true, "img": true, "object": true}

func (x *el) write(b *strings.Builder, v Version) {
	name := x.name
	if v == V3 && !html[name] {
		name = "qti-" + dashed(name)
	}
	b.WriteString("<" + name)
	for i := 0; i+1 < len(x.attrs); i += 2 {
		attr := x.attrs[i]
		if v == V3 && !html[x.name] && !strings.Contains(attr, ":") {
			attr = dashed(attr)
		}
		b.WriteString(" " + attr + `="` + escaped(x.attrs[i+1]) + `"`)
	}
	if len(x.in) == 0 {
		b.WriteString("/>")
		return
	}
	b.WriteString(">")
	for _, in := range x.in {
		switch in := in.(type) {
		case *el:
			in.write(b, v)
		case string:
			for i, line := range strings.Split(in, "\n") {
				if i > 0 {
					b.WriteString("<br/>")
				}
				b.WriteString(escaped(line))
			}
		}
	}
	b.WriteString("</" + name + ">")
}

func escaped(text string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(text)) // a builder takes everything
	return b.String()
}

// item is an item in the making.
type item struct {
	questions.Item
	// names gives for a picture its path in the package as an item sees it, with its size.
	names map[string]pictured

	declared   []any
	body       []any
	processing *el
}

type pictured struct {
	path string
	picture.Picture
}

const scoreTemplate = "match_correct"

// respond declares the response RESPONSE: its cardinality, what a value is, what is right, and a
// mapping, if any.
func (w *item) respond(id, cardinality, baseType string, right []string, more ...any) {
	d := e("responseDeclaration", []string{"identifier", id, "cardinality", cardinality, "baseType", baseType})
	if len(right) > 0 {
		correct := e("correctResponse", nil)
		for _, r := range right {
			correct.add(e("value", nil, r))
		}
		d.add(correct)
	}
	w.declared = append(w.declared, d.add(more...))
}

// image gives the picture with an id, or nothing.
func (w *item) image(id, alt string) []any {
	p, known := w.names[id]
	if id == "" {
		return nil
	}
	if !known {
		w.Lose(questions.LossPicture)
		return nil
	}
	return []any{
		e("img", []string{"src", p.path, "alt", alt, "width", strconv.Itoa(p.Width), "height", strconv.Itoa(p.Height)}),
	}
}

// prompt gives the question's words and picture as an interaction has them.
func (w *item) prompt() *el {
	return e("prompt", nil, append([]any{w.Asked.Text}, w.image(w.Asked.Picture, "")...)...)
}

// put puts a block with the question's words into the body.
func (w *item) put(interaction *el) {
	interaction.in = append([]any{w.prompt()}, interaction.in...)
	w.body = append(w.body, interaction)
}

// ask puts the question's words before what follows.
func (w *item) ask() {
	w.body = append(w.body, e("p", nil, append([]any{w.Asked.Text}, w.image(w.Asked.Picture, "")...)...))
}

func (w *item) shuffle() string { return strconv.FormatBool(w.Asked.Shuffle) }

var spaces = map[Version]string{
	V3:  "http://www.imsglobal.org/xsd/imsqtiasi_v3p0",
	V21: "http://www.imsglobal.org/xsd/imsqti_v2p1",
}

func template(v Version, name string) string {
	if v == V3 {
		return "https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/" + name + ".xml"
	}
	return "http://www.imsglobal.org/question/qti_v2p1/rptemplates/" + name
}

// xml gives the whole item.
func (w *item) xml(id, title string, v Version) string {
	root := e("assessmentItem", []string{"xmlns", spaces[v], "identifier", id, "title", title, "adaptive", "false",
		"timeDependent", "false"}, w.declared...)
	root.add(e("outcomeDeclaration", []string{"identifier", "SCORE", "cardinality", "single", "baseType", "float"},
		e("defaultValue", nil, e("value", nil, "0"))))
	if w.Asked.Why != "" {
		root.add(
			e(
				"outcomeDeclaration",
				[]string{"identifier", "FEEDBACK", "cardinality", "single", "baseType", "identifier"},
			),
		)
	}
	root.add(e("itemBody", nil, w.body...))
	if w.processing != nil {
		root.add(w.processing)
	} else if w.Asked.HasRight() {
		root.add(e("responseProcessing", []string{"template", template(v, scoreTemplate)}))
	}
	if w.Asked.Why != "" {
		in := []any{e("p", nil, w.Asked.Why)}
		if v == V3 {
			in = []any{e("contentBody", nil, in...)}
		}
		root.add(
			e(
				"modalFeedback",
				[]string{"outcomeIdentifier", "FEEDBACK", "identifier", "WHY", "showHide", "hide"},
				in...),
		)
	}
	return document(root, v)
}

func document(root *el, v Version) string {
	var b strings.Builder
	b.WriteString(xml.Header)
	root.write(&b, v)
	return b.String() + "\n"
}

// Write writes a package: a manifest, a test, an item for each question that has a place there, and
// the pictures, by the ids that questions have for them. It gives back what was lost of each.
func Write(to io.Writer, s questions.Sheet, v Version, pictures map[string]picture.Picture) ([]questions.Item, error) {
	out := zip.NewWriter(to)
	put := func(name, data string) error {
		w, err := out.Create(name)
		if err == nil {
			_, err = io.WriteString(w, data)
		}
		return err
	}
	names := map[string]pictured{}
	for _, i := range s.Items {
		for _, id := range i.Asked.Pictures() {
			p, known := pictures[id]
			if _, done := names[id]; done || !known || id == i.Asked.Sound {
				continue
			}
			end := ".png"
			if p.Type == "image/jpeg" {
				end = ".jpg"
			}
			path := fmt.Sprint("pictures/p", len(names)+1, end)
			names[id] = pictured{"../" + path, p}
			if err := put(path, string(p.Data)); err != nil {
				return nil, fmt.Errorf("write questions: %w", err)
			}
		}
	}
	var told []questions.Item
	var files []string
	for n, i := range s.Items {
		w := &item{Item: questions.Item{At: n + 1, Asked: i.Asked}, names: names}
		if written := w.fill(); written {
			id := fmt.Sprint("q", n+1)
			title := []rune(strings.ReplaceAll(i.Asked.Text, "\n", " "))
			if err := put("items/"+id+".xml", w.xml(id, string(title[:min(len(title), 80)]), v)); err != nil {
				return nil, fmt.Errorf("write questions: %w", err)
			}
			files = append(files, id)
		}
		told = append(told, w.Item)
	}
	if err := put("test.xml", test(s.Title, files, v)); err != nil {
		return nil, fmt.Errorf("write questions: %w", err)
	}
	if err := put("imsmanifest.xml", manifest(files, names, v)); err != nil {
		return nil, fmt.Errorf("write questions: %w", err)
	}
	if err := out.Close(); err != nil {
		return nil, fmt.Errorf("write questions: %w", err)
	}
	return told, nil
}

// fill writes the question into the item; false where no item can hold it.
func (w *item) fill() bool {
	for _, f := range forms() {
		if f.kind == w.Asked.Kind {
			lost(&w.Item)
			f.write(w)
			return len(w.body) > 0
		}
	}
	w.Lose(questions.LossKind)
	return false
}

func test(title string, files []string, v Version) string {
	section := e("assessmentSection", []string{"identifier", "s1", "title", title, "visible", "true"})
	for _, f := range files {
		section.add(e("assessmentItemRef", []string{"identifier", f, "href", "items/" + f + ".xml"}))
	}
	return document(e(
		"assessmentTest",
		[]string{"xmlns", spaces[v], "identifier", "test", "title", title},
		e(
			"testPart",
			[]string{"identifier", "p1", "navigationMode", "nonlinear", "submissionMode", "individual"},
			section,
		),
	), v)
}

// manifest lists what is in the package. Its elements are named alike in both versions.
func manifest(files []string, names map[string]pictured, v Version) string {
	space, kind := "http://www.imsglobal.org/xsd/imscp_v1p1", "xmlv2p1"
	if v == V3 {
		space, kind = "http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1", "xmlv3p0"
	}
	resource := func(id, kind, href string) *el {
		return e("resource", []string{"identifier", id, "type", kind, "href", href}, e("file", []string{"href", href}))
	}
	all := e("resources", nil, resource("test", "imsqti_test_"+kind, "test.xml"))
	for _, f := range files {
		all.add(resource("r"+f, "imsqti_item_"+kind, "items/"+f+".xml"))
	}
	n := 0
	for _, p := range names {
		n++
		all.add(resource(fmt.Sprint("picture", n), "webcontent", strings.TrimPrefix(p.path, "../")))
	}
	return document(e("manifest", []string{"xmlns", space, "identifier", "questions"},
		e("metadata", nil, e("schema", nil, "QTI Package"), e("schemaversion", nil, string(v)+".0")),
		e("organizations", nil), all), V21)
}

// choices gives things as choices with identifiers from a letter on.
func (w *item) choices(name, letter string, all []poll.Option, attrs ...string) []any {
	var out []any
	for i, o := range all {
		in := []any{}
		if o.Text != "" {
			in = append(in, o.Text)
		}
		in = append(in, w.image(o.Picture, o.Text)...)
		out = append(out, e(name, append([]string{"identifier", letter + strconv.Itoa(i+1)}, attrs...), in...))
	}
	return out
}

// named gives the identifier of a thing among others.
func named(letter string, all []poll.Option, id string) string {
	for i, o := range all {
		if o.ID == id {
			return letter + strconv.Itoa(i+1)
		}
	}
	return ""
}

package formats

import (
	"archive/zip"
	"bytes"
	"cmp"
	"fmt"
	"path"
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/refusal"
	"alpenglow/core/xmltree"
)

// Limits of a file of slides.
const (
	MaxSlides   = 200
	maxPart     = 20 << 20  // bytes of one part, unpacked
	maxUnpacked = 300 << 20 // bytes of all parts together
)

// Slide is one slide as a frame. Its pictures are named by the
// file; what could not be brought along is in Left, in words of the message
// file ("chart", "video", "animation", "drawing", "text", "more").
type Slide struct {
	Frame  lesson.Frame
	Left   []string
	Failed bool
}

// Deck is a file of slides that is being read.
type Deck struct {
	parts    map[string]*zip.File
	pictures []string // the parts that slides name, in the order they came
	slides   []string
	w, h     float64 // of a slide, in EMU
	unpacked int64
}

// OpenDeck opens a presentation in Office Open XML (ISO/IEC 29500). Parts are
// only ever looked up by their names in the zip.
func OpenDeck(data []byte) (*Deck, error) {
	if len(data) > MaxBoardFile {
		return nil, refusal.New(refusal.FileHuge)
	}
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return nil, refusal.New(refusal.FileUnreadable)
	}
	d := &Deck{parts: map[string]*zip.File{}}
	for _, f := range archive.File {
		d.parts[strings.TrimPrefix(f.Name, "/")] = f
	}
	const main = "ppt/presentation.xml"
	deck, err := d.xml(main)
	if err != nil {
		return nil, err
	}
	links, err := d.links(main)
	if err != nil {
		return nil, err
	}
	size := deck.At("sldSz")
	d.w, d.h = max(1, size.Number("cx", 9144000)), max(1, size.Number("cy", 6858000))
	for _, s := range deck.At("sldIdLst").All("sldId") {
		// Two attributes are called id; the relation's has letters.
		for name, value := range s.Attrs {
			if to, ok := links[value]; name == "id" && ok {
				d.slides = append(d.slides, to.part)
			}
		}
	}
	if len(d.slides) == 0 {
		return nil, refusal.New(refusal.FileEmpty)
	}
	return d, nil
}

// Len is how many slides there are; More is how many are beyond the limit.
func (d *Deck) Len() int  { return min(len(d.slides), MaxSlides) }
func (d *Deck) More() int { return len(d.slides) - d.Len() }

const pictureName = "picture-"

// named gives the name by which slides know a part that is a picture.
func (d *Deck) named(part string) string {
	at := slices.Index(d.pictures, part)
	if at < 0 {
		at, d.pictures = len(d.pictures), append(d.pictures, part)
	}
	return pictureName + strconv.Itoa(at)
}

// Picture unpacks a picture that a slide names.
func (d *Deck) Picture(name string) ([]byte, error) {
	at, err := strconv.Atoi(strings.TrimPrefix(name, pictureName))
	if err != nil || at < 0 || at >= len(d.pictures) {
		return nil, refusal.New(refusal.FileUnreadable)
	}
	return d.part(d.pictures[at])
}

func (d *Deck) part(name string) ([]byte, error) {
	f, ok := d.parts[name]
	if !ok {
		return nil, refusal.New(refusal.FileUnreadable)
	}
	data, err := unpack(&zip.Reader{File: []*zip.File{f}}, f.Name, maxPart)
	if d.unpacked += int64(len(data)); err == nil && d.unpacked > maxUnpacked {
		err = refusal.New(refusal.FileHuge)
	}
	return data, err
}

func (d *Deck) xml(name string) (*xmltree.Node, error) {
	data, err := d.part(name)
	if err != nil {
		return nil, err
	}
	return xmltree.Parse(data)
}

// link is where a relation of a part leads.
type link struct{ kind, part string }

func (d *Deck) links(of string) (map[string]link, error) {
	links := map[string]link{}
	name := path.Join(path.Dir(of), "_rels", path.Base(of)+".rels")
	if d.parts[name] == nil {
		return links, nil
	}
	doc, err := d.xml(name)
	if err != nil {
		return nil, err
	}
	for _, r := range doc.All("Relationship") {
		if r.Attr("TargetMode") == "External" {
			continue
		}
		to := r.Attr("Target")
		if !strings.HasPrefix(to, "/") {
			to = path.Join(path.Dir(of), to)
		}
		links[r.Attr("Id")] = link{path.Base(r.Attr("Type")), strings.TrimPrefix(path.Clean(to), "/")}
	}
	return links, nil
}

// related is the first part of a kind that a part leads to.
func related(links map[string]link, kind string) string {
	for _, l := range links {
		if l.kind == kind {
			return l.part
		}
	}
	return ""
}

// Slide reads one slide, counted from 0. A broken one is Failed; only what
// concerns the whole file is an error.
func (d *Deck) Slide(n int, id func() string) (Slide, error) {
	slide, err := d.slide(d.slides[n], id)
	if r := refusal.Of(err); r != nil && r.Code == refusal.FileHuge {
		return Slide{}, err
	}
	if err != nil {
		return Slide{Failed: true}, nil
	}
	return slide, nil
}

func (d *Deck) slide(name string, id func() string) (Slide, error) {
	doc, err := d.xml(name)
	if err != nil {
		return Slide{}, err
	}
	links, err := d.links(name)
	if err != nil {
		return Slide{}, err
	}
	p := &slideReader{deck: d, links: links, id: id, places: map[string]*xmltree.Node{}}
	p.k = min(lesson.FrameWidth/d.w, lesson.FrameHeight/d.h)
	p.left, p.top = (lesson.FrameWidth-d.w*p.k)/2, (lesson.FrameHeight-d.h*p.k)/2
	p.inherit(related(links, "slideLayout"))
	p.frame = lesson.Frame{ID: id(), Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.WholeClass,
		Permission: lesson.Add, Prepared: []lesson.Element{}}
	p.tree(doc.At("cSld", "spTree"), p.plain())
	if p.frame.Title == "" {
		p.frame.Title = headline(p.said)
	}
	if t := doc.At("timing"); t.Has("anim") || t.Has("animEffect") || t.Has("animMotion") || t.Has("set") {
		p.leave("animation")
	}
	if notes := related(links, "notesSlide"); notes != "" {
		p.notes(notes)
	}
	frame := p.frame.Settled()
	return Slide{Frame: frame, Left: p.leftOut}, frame.Check()
}

// inherit notes where the layout of a slide, and the master of that, put
// placeholders that the slide itself does not place.
func (p *slideReader) inherit(layout string) {
	if layout == "" {
		return
	}
	links, err := p.deck.links(layout)
	if err != nil {
		return
	}
	for _, part := range []string{related(links, "slideMaster"), layout} {
		if part == "" {
			continue
		}
		doc, err := p.deck.xml(part)
		if err != nil {
			continue
		}
		for _, sp := range doc.At("cSld", "spTree").All("sp") {
			ph, xfrm := sp.At("nvSpPr", "nvPr", "ph"), sp.At("spPr", "xfrm")
			if ph == nil || xfrm == nil {
				continue
			}
			p.places["type "+kindOf(ph)] = xfrm
			if ph.Attr("idx") != "" {
				p.places["idx "+ph.Attr("idx")] = xfrm
			}
		}
	}
}

// kindOf is what a placeholder is for; titles of both kinds are one.
func kindOf(ph *xmltree.Node) string {
	if ph.Attr("type") == "ctrTitle" {
		return "title"
	}
	return cmp.Or(ph.Attr("type"), "body")
}

func (p *slideReader) notes(part string) {
	doc, err := p.deck.xml(part)
	if err != nil {
		return
	}
	for _, sp := range doc.At("cSld", "spTree").All("sp") {
		if sp.At("nvSpPr", "nvPr", "ph").Attr("type") == "body" {
			text := paragraphs(sp.At("txBody")).text
			p.frame.Notes = cut(text, lesson.MaxNotes)
		}
	}
}

func (p *slideReader) leave(what string) {
	if !slices.Contains(p.leftOut, what) {
		p.leftOut = append(p.leftOut, what)
	}
}

func cut(text string, most int) string {
	if letters := []rune(text); len(letters) > most {
		return string(letters[:most])
	}
	return text
}

// String names a deck by its size, for logs.
func (d *Deck) String() string { return fmt.Sprintf("%d slides", len(d.slides)) }

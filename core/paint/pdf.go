package paint

import (
	"bytes"
	"compress/zlib"
	"fmt"
	"image"
	"image/color"
	"io"
	"math"
	"slices"
	"strings"
	"unicode/utf16"
)

// Page is a page of a PDF: its size in points (72 to an inch), what lies on it, and its name in the list of pages.
type Page struct {
	W, H  float64
	Title string
	Cells []Cell
}

// Cell is a painting on a page: where its upper left corner is, in points from that of the page, and how many points
// a unit of it is long. What would stick out is cut off.
type Cell struct {
	X, Y, K  float64
	Painting Painting
}

// PDF writes pages one after the other (ISO 32000-1) as they are made; what is on
// them is forgotten but for its letters and the names of its pictures. Letters are fonts of type 3, with the outlines
// of those that occur and what each says, so that they can be searched and read out in every writing.
type PDF struct {
	to       io.Writer
	pictures Pictures
	wrote    int64
	places   []int64 // of each object, by its number less 1
	pages    []int
	titles   []string
	fonts    fonts
	states   map[state]int
	images   map[string]placed
	err      error
}

// state is how what is painted lies on what is below.
type state struct {
	alpha float64
	mix   Mix
}

// placed is a picture that is in the file: the number of its object, and its pixels.
type placed struct{ object, width, height int }

// The objects that every file begins with.
const (
	catalogue = 1 + iota
	tree
	resources
	about
	contents
)

// NewPDF begins a file.
func NewPDF(to io.Writer, pictures Pictures) *PDF {
	p := &PDF{
		to:       to,
		pictures: pictures,
		states:   map[state]int{},
		images:   map[string]placed{},
		places:   make([]int64, contents),
	}
	p.write("%%PDF-1.7\n%%\xe2\xe3\xcf\xd3\n")
	return p
}

func (p *PDF) write(format string, args ...any) {
	if p.err != nil {
		return
	}
	n, err := fmt.Fprintf(p.to, format, args...)
	p.wrote, p.err = p.wrote+int64(n), err
}

// next gives the number of a new object.
func (p *PDF) next() int {
	p.places = append(p.places, 0)
	return len(p.places)
}

// object writes an object.
func (p *PDF) object(number int, body string) {
	p.places[number-1] = p.wrote
	p.write("%d 0 obj\n%s\nendobj\n", number, body)
}

// stream writes an object of bytes, packed where that is not done already.
func (p *PDF) stream(number int, dict string, data []byte, packed bool) {
	if !packed {
		var b bytes.Buffer
		z := zlib.NewWriter(&b)
		_, _ = z.Write(data) // a buffer takes all
		_ = z.Close()
		data, dict = b.Bytes(), dict+"/Filter/FlateDecode"
	}
	p.places[number-1] = p.wrote
	p.write("%d 0 obj\n<<%s/Length %d>>\nstream\n", number, dict, len(data))
	p.write("%s\nendstream\nendobj\n", data)
}

// Add writes a page.
func (p *PDF) Add(page Page) {
	var b bytes.Buffer
	var links []string
	for _, c := range page.Cells {
		fmt.Fprintf(&b, "q %s 0 0 -%[1]s %s %s cm 0 0 %s %s re W n\n", fine(c.K), num(c.X), num(page.H-c.Y),
			num(c.Painting.W), num(c.Painting.H))
		for _, i := range c.Painting.Items {
			p.item(&b, i)
			if i.Link != "" {
				links = append(links, leads(i, scaled(c.K).then(moved(c.X, c.Y)), page.H))
			}
		}
		b.WriteString("Q\n")
	}
	content, number := p.next(), p.next()
	p.stream(content, "", b.Bytes(), false)
	p.object(number, fmt.Sprintf("<</Type/Page/Parent %d 0 R/MediaBox[0 0 %s %s]/Resources %d 0 R/Contents %d 0 R"+
		"/Group<</S/Transparency/CS/DeviceRGB>>/Annots[%s]>>", tree, num(page.W), num(page.H), resources, content,
		strings.Join(links, "")))
	p.pages, p.titles = append(p.pages, number), append(p.titles, page.Title)
}

// leads writes that the box round a path leads to an address.
func leads(i Item, m Matrix, high float64) string {
	x0, y0, x1, y1 := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, s := range i.Path {
		for _, q := range s.Points[:points(s.Op)] {
			x, y := i.At.then(m).to(q[0], q[1])
			x0, y0, x1, y1 = min(x0, x), min(y0, y), max(x1, x), max(y1, y)
		}
	}
	address := strings.NewReplacer(`\`, `\\`, "(", `\(`, ")", `\)`).Replace(i.Link)
	return fmt.Sprintf("<</Type/Annot/Subtype/Link/Rect[%s %s %s %s]/Border[0 0 0]/A<</S/URI/URI(%s)>>>>", num(x0),
		num(high-y1), num(x1), num(high-y0), address)
}

func (p *PDF) item(b *bytes.Buffer, i Item) {
	b.WriteString("q ")
	if i.At != still {
		fmt.Fprintf(b, "%s %s %s %s %s %s cm ", fine(i.At.A), fine(i.At.B), fine(i.At.C), fine(i.At.D), num(i.At.E),
			num(i.At.F))
	}
	if s := (state{i.Alpha, i.Mix}); s != (state{1, Over}) {
		if p.states[s] == 0 {
			p.states[s] = len(p.states) + 1
		}
		fmt.Fprintf(b, "/G%d gs ", p.states[s])
	}
	if i.Fill != nil {
		fmt.Fprintf(b, "%s rg %s f\n", rgb(i.Fill.RGB()), operators(i.Path))
	}
	if l := i.Line; l != nil {
		ends := 0
		if l.Round {
			ends = 1
		}
		fmt.Fprintf(b, "%s RG %s w %d J 1 j ", rgb(l.Colour.RGB()), num(l.Width), ends)
		if len(l.Dash) > 0 {
			fmt.Fprintf(b, "[%s %s] 0 d ", num(l.Dash[0]), num(l.Dash[1]))
		}
		fmt.Fprintf(b, "%s S\n", operators(i.Path))
	}
	if i.Words != nil {
		fmt.Fprintf(b, "%s rg ", rgb(i.Words.Colour.RGB()))
		p.fonts.words(b, p.next, *i.Words)
	}
	if i.Picture != nil {
		p.picture(b, *i.Picture)
	}
	b.WriteString("Q\n")
}

func rgb(c [3]float64) string {
	return fmt.Sprintf("%s %s %s", fine(c[0]/255), fine(c[1]/255), fine(c[2]/255))
}

// operators writes a path; bends of two handles are all that PDF knows.
func operators(path Path) string {
	var b strings.Builder
	x, y := 0.0, 0.0
	for _, s := range path {
		q := s.Points
		switch s.Op {
		case moveTo:
			fmt.Fprintf(&b, "%s %s m ", num(q[0][0]), num(q[0][1]))
		case lineTo:
			fmt.Fprintf(&b, "%s %s l ", num(q[0][0]), num(q[0][1]))
		case quadTo:
			fmt.Fprintf(&b, "%s %s %s %s %s %s c ", num(x+2*(q[0][0]-x)/3), num(y+2*(q[0][1]-y)/3),
				num(q[1][0]+2*(q[0][0]-q[1][0])/3), num(q[1][1]+2*(q[0][1]-q[1][1])/3), num(q[1][0]), num(q[1][1]))
		case cubicTo:
			fmt.Fprintf(&b, "%s %s %s %s %s %s c ", num(q[0][0]), num(q[0][1]), num(q[1][0]), num(q[1][1]),
				num(q[2][0]), num(q[2][1]))
		case closing:
			b.WriteString("h ")
		}
		if n := points(s.Op); n > 0 {
			x, y = q[n-1][0], q[n-1][1]
		}
	}
	return b.String()
}

// picture paints an uploaded picture, which is in the file once.
func (p *PDF) picture(b *bytes.Buffer, of Picture) {
	image, known := p.images[of.Name]
	if !known {
		image = p.upload(of.Name)
		p.images[of.Name] = image
	}
	if image.object == 0 {
		fmt.Fprintf(b, "%s rg 0 0 %s %s re f\n", rgb(colours["mist"].RGB()), num(of.W), num(of.H))
		return
	}
	x, y, w, h := of.place(image.width, image.height)
	fmt.Fprintf(b, "%s 0 0 -%s %s %s cm /I%d Do ", num(w), num(h), num(x), num(y+h), image.object)
}

// upload writes a picture: as it is where it is a photograph, else its colours and how dense they are.
func (p *PDF) upload(name string) placed {
	up := p.pictures.get(name)
	if up == nil {
		return placed{}
	}
	dict := "/Type/XObject/Subtype/Image/BitsPerComponent 8"
	img, err := up.Pixels()
	if err != nil {
		return placed{}
	}
	size := img.Bounds().Size()
	dict += fmt.Sprintf("/Width %d/Height %d", size.X, size.Y)
	number := p.next()
	if _, colour := img.(*image.YCbCr); colour && up.Type == "image/jpeg" {
		p.stream(number, dict+"/ColorSpace/DeviceRGB/Filter/DCTDecode", up.Data, true)
		return placed{number, size.X, size.Y}
	}
	colours, dense := make([]byte, 0, 3*size.X*size.Y), make([]byte, 0, size.X*size.Y)
	for y := img.Bounds().Min.Y; y < img.Bounds().Max.Y; y++ {
		for x := img.Bounds().Min.X; x < img.Bounds().Max.X; x++ {
			c := color.NRGBAModel.Convert(img.At(x, y)).(color.NRGBA)
			colours, dense = append(colours, c.R, c.G, c.B), append(dense, c.A)
		}
	}
	mask := p.next()
	p.stream(mask, dict+"/ColorSpace/DeviceGray", dense, false)
	p.stream(number, dict+fmt.Sprintf("/ColorSpace/DeviceRGB/SMask %d 0 R", mask), colours, false)
	return placed{number, size.X, size.Y}
}

// Close writes what all pages share, and ends the file. Its error is the first of all.
func (p *PDF) Close(title string) error {
	var b strings.Builder
	b.WriteString("<</Font<<")
	for i, f := range p.fonts.all {
		p.font(f)
		fmt.Fprintf(&b, "/F%d %d 0 R", i, f.object)
	}
	b.WriteString(">>/XObject<<")
	for _, i := range p.images {
		if i.object > 0 {
			fmt.Fprintf(&b, "/I%d %[1]d 0 R", i.object)
		}
	}
	b.WriteString(">>/ExtGState<<")
	for s, n := range p.states {
		fmt.Fprintf(&b, "/G%d<</ca %s/CA %[2]s/BM/%s>>", n, fine(s.alpha),
			[...]string{"Normal", "Multiply", "Screen"}[s.mix])
	}
	b.WriteString(">>>>")
	p.object(resources, b.String())
	b.Reset()
	for _, n := range p.pages {
		fmt.Fprintf(&b, "%d 0 R ", n)
	}
	p.object(tree, fmt.Sprintf("<</Type/Pages/Count %d/Kids[%s]>>", len(p.pages), b.String()))
	p.object(about, fmt.Sprintf("<</Title %s>>", hex(title)))
	p.outline()
	p.object(
		catalogue,
		fmt.Sprintf("<</Type/Catalog/Pages %d 0 R/Outlines %d 0 R/ViewerPreferences<</DisplayDocTitle true>>>>",
			tree, contents),
	)
	from := p.wrote
	p.write("xref\n0 %d\n0000000000 65535 f \n", len(p.places)+1)
	for _, at := range p.places {
		p.write("%010d 00000 n \n", at)
	}
	p.write("trailer\n<</Size %d/Root %d 0 R/Info %d 0 R>>\nstartxref\n%d\n%%%%EOF\n", len(p.places)+1, catalogue,
		about, from)
	return p.err
}

// outline writes the list of pages by name.
func (p *PDF) outline() {
	named := slices.DeleteFunc(slices.Collect(indices(p.titles)), func(i int) bool { return p.titles[i] == "" })
	first := len(p.places) + 1
	for range named {
		p.next()
	}
	for k, i := range named {
		links := ""
		if k > 0 {
			links += fmt.Sprintf("/Prev %d 0 R", first+k-1)
		}
		if k < len(named)-1 {
			links += fmt.Sprintf("/Next %d 0 R", first+k+1)
		}
		p.object(
			first+k,
			fmt.Sprintf("<</Title %s/Parent %d 0 R/Dest[%d 0 R/Fit]%s>>", hex(p.titles[i]), contents, p.pages[i],
				links),
		)
	}
	if len(named) == 0 {
		p.object(contents, "<</Type/Outlines>>")
		return
	}
	p.object(contents,
		fmt.Sprintf("<</Type/Outlines/Count %d/First %d 0 R/Last %d 0 R>>", len(named), first, first+len(named)-1))
}

func indices[T any](all []T) func(func(int) bool) {
	return func(yield func(int) bool) {
		for i := range all {
			if !yield(i) {
				return
			}
		}
	}
}

// hex writes a text as PDF has it: UTF-16 with a mark of its order.
func hex(text string) string {
	var b strings.Builder
	b.WriteString("<FEFF")
	for _, u := range utf16.Encode([]rune(text)) {
		fmt.Fprintf(&b, "%04X", u)
	}
	b.WriteString(">")
	return b.String()
}

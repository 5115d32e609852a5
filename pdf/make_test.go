package pdf_test

import (
	"bytes"
	"compress/zlib"
	"fmt"
	"image"
	"image/jpeg"
	"strings"
	"testing"

	"golang.org/x/image/font"
	"golang.org/x/image/font/gofont/goregular"
	"golang.org/x/image/font/opentype"
)

// maker writes a PDF file object by object (ISO 32000-1, 7.5). Objects 1 and 2
// are the catalogue and the list of pages.
type maker struct {
	objects []string
	pages   []string
}

func newMaker() *maker { return &maker{objects: make([]string, 2)} }

// object adds an object and returns how others refer to it.
func (m *maker) object(body string) string {
	m.objects = append(m.objects, body)
	return fmt.Sprintf("%d 0 R", len(m.objects))
}

// stream adds a compressed stream whose dictionary has the entries given.
func (m *maker) stream(entries string, data []byte) string {
	var packed bytes.Buffer
	w, _ := zlib.NewWriterLevel(&packed, zlib.BestSpeed)
	w.Write(data)
	w.Close()
	return m.packed(entries, packed.Bytes())
}

// packed adds a stream of what is packed already.
func (m *maker) packed(entries string, data []byte) string {
	return m.object(fmt.Sprintf("<< %s /Filter /FlateDecode /Length %d >>\nstream\n%s\nendstream", entries,
		len(data), data))
}

// page adds a page that draws a content with resources; entries may say more
// about it, as a box or a turn.
func (m *maker) page(content, resources, entries string) {
	drawn := m.stream("", []byte(content))
	if !strings.Contains(entries, "/MediaBox") {
		entries += " /MediaBox [0 0 595 842]"
	}
	m.pages = append(
		m.pages,
		m.object(
			fmt.Sprintf(
				"<< /Type /Page /Parent 2 0 R /Contents %s /Resources << %s >> %s >>",
				drawn,
				resources,
				entries,
			),
		),
	)
}

// font embeds a font with the letters of ASCII, so that every renderer draws the same.
func (m *maker) font(t testing.TB) string {
	t.Helper()
	parsed, err := opentype.Parse(goregular.TTF)
	if err != nil {
		t.Fatal(err)
	}
	face, err := opentype.NewFace(parsed, &opentype.FaceOptions{Size: 1000, DPI: 72, Hinting: font.HintingNone})
	if err != nil {
		t.Fatal(err)
	}
	var widths strings.Builder
	for r := rune(32); r < 127; r++ {
		advance, _ := face.GlyphAdvance(r)
		fmt.Fprintf(&widths, "%d ", advance.Round())
	}
	program := m.stream(fmt.Sprintf("/Length1 %d", len(goregular.TTF)), goregular.TTF)
	described := m.object(
		"<< /Type /FontDescriptor /FontName /GoRegular /Flags 32 /FontBBox [-440 -432 2160 1075] /ItalicAngle 0 /Ascent 945 /Descent -211 /CapHeight 700 /StemV 80 /FontFile2 " + program + " >>",
	)
	return m.object(
		"<< /Type /Font /Subtype /TrueType /BaseFont /GoRegular /Encoding /WinAnsiEncoding /FirstChar 32 /LastChar 126 /Widths [" + widths.String() + "] /FontDescriptor " + described + " >>",
	)
}

func (m *maker) bytes() []byte {
	m.objects[0] = "<< /Type /Catalog /Pages 2 0 R >>"
	m.objects[1] = fmt.Sprintf("<< /Type /Pages /Kids [%s] /Count %d >>", strings.Join(m.pages, " "), len(m.pages))
	var out strings.Builder
	out.WriteString("%PDF-1.4\n")
	var at []int
	for i, body := range m.objects {
		at = append(at, out.Len())
		fmt.Fprintf(&out, "%d 0 obj\n%s\nendobj\n", i+1, body)
	}
	table := out.Len()
	fmt.Fprintf(&out, "xref\n0 %d\n0000000000 65535 f \n", len(at)+1)
	for _, a := range at {
		fmt.Fprintf(&out, "%010d 00000 n \n", a)
	}
	fmt.Fprintf(&out, "trailer\n<< /Size %d /Root 1 0 R >>\nstartxref\n%d\n%%%%EOF\n", len(at)+1, table)
	return []byte(out.String())
}

// file writes a PDF with a page for each content, which may write in F.
func file(contents ...string) []byte {
	m := newMaker()
	helvetica := m.object("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>")
	for _, c := range contents {
		m.page(c, "/Font << /F "+helvetica+" >>", "")
	}
	return m.bytes()
}

func words(text string) string { return "BT /F 24 Tf 72 700 Td (" + text + ") Tj ET" }

// scans writes a PDF as a scanner does: each page a JPEG of A4 with 200 dots an inch.
func scans(t testing.TB, pages int) []byte {
	t.Helper()
	const width, height = 1654, 2339
	m := newMaker()
	for n := range pages {
		paper := image.NewGray(image.Rect(0, 0, width, height))
		for i := range paper.Pix {
			x, y := i%width, i/width
			paper.Pix[i] = byte(235 + (x*7+y*13+n)%20)
			if y%60 < 22 && (x/9+y/60+n)%3 > 0 && x > 150 && x < width-150 {
				paper.Pix[i] = byte(40 + x%30) // something like lines of writing
			}
		}
		var packed bytes.Buffer
		if err := jpeg.Encode(&packed, paper, nil); err != nil {
			t.Fatal(err)
		}
		scan := m.object(
			fmt.Sprintf(
				"<< /Type /XObject /Subtype /Image /Width %d /Height %d /ColorSpace /DeviceGray /BitsPerComponent 8 /Filter /DCTDecode /Length %d >>\nstream\n%s\nendstream",
				width,
				height,
				packed.Len(),
				packed.String(),
			),
		)
		m.page("q 595 0 0 842 0 0 cm /I Do Q", "/XObject << /I "+scan+" >>", "")
	}
	return m.bytes()
}

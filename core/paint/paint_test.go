package paint_test

import (
	"bytes"
	"encoding/json"
	"encoding/xml"
	"image"
	"image/color"
	"image/png"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paint"
	"alpenglow/core/paper"

	"golang.org/x/text/unicode/norm"
)

// shown is a frame of testdata/frames.json, which the browser's tests show as well.
type shown struct {
	Name   string           `json:"name"`
	Paper  paper.Paper      `json:"paper"`
	Prompt string           `json:"prompt"`
	Marks  []lesson.Element `json:"marks"`
}

func frames(t testing.TB) []shown {
	text, err := os.ReadFile("testdata/frames.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []shown
	if err := json.Unmarshal(text, &all); err != nil {
		t.Fatal(err)
	}
	return all
}

func (s shown) painting() paint.Painting {
	f := lesson.Frame{ID: s.Name, Title: s.Name, Prompt: s.Prompt, Paper: s.Paper, Prepared: s.Marks}
	return paint.Frame(f, nil, nil)
}

// photo is a picture of two halves, as it is kept.
func photo(t testing.TB) paint.Pictures {
	img := image.NewRGBA(image.Rect(0, 0, 40, 30))
	for x := range 40 {
		for y := range 30 {
			img.Set(x, y, color.RGBA{uint8(6 * x), 80, uint8(8 * y), 255})
		}
	}
	data := encoded(t, img)
	return func(name string) *paint.Uploaded {
		if name != "PICTURE" {
			return nil
		}
		return &paint.Uploaded{Type: "image/png", Data: data, Width: 40, Height: 30,
			Pixels: func() (image.Image, error) { img, _, err := image.Decode(bytes.NewReader(data)); return img, err }}
	}
}

// Each kind of mark and of paper is read by readers of others: SVG by an XML parser, PDF by poppler, which finds
// every word that is on it, in every writing.
func TestPaintings(t *testing.T) {
	var pdf bytes.Buffer
	out := paint.NewPDF(&pdf, photo(t))
	kinds := map[lesson.Kind]bool{}
	var said []string
	for _, s := range frames(t) {
		for _, e := range s.Marks {
			kinds[e.Kind] = true
		}
		p := s.painting()
		var svg bytes.Buffer
		if err := p.SVG(&svg, photo(t)); err != nil {
			t.Fatal(err)
		}
		labels := 0
		for read := xml.NewDecoder(&svg); ; {
			token, err := read.Token()
			if err == io.EOF {
				break
			}
			if err != nil {
				t.Fatalf("%s: %v", s.Name, err)
			}
			if e, ok := token.(xml.StartElement); ok {
				for _, a := range e.Attr {
					if a.Name.Local == "aria-label" {
						labels++
					}
				}
			}
		}
		if want := len(words(s)); labels < want {
			t.Errorf("%s: %d words are said in the SVG, %d are on it", s.Name, labels, want)
		}
		if img := p.Pixels(800, photo(t)); img.Rect != image.Rect(0, 0, 800, 500) || blank(img) && s.Name != "plain" {
			t.Errorf("%s: %v, blank %v", s.Name, img.Rect, blank(img))
		}
		out.Add(paint.Page{W: 842, H: 595, Title: s.Name, Cells: []paint.Cell{{X: 21, Y: 20, K: 0.5, Painting: p}}})
		said = append(said, words(s)...)
	}
	for _, k := range []lesson.Kind{lesson.KindNote, lesson.KindText, lesson.KindStroke, lesson.KindShape,
		lesson.KindConnector,
		lesson.KindStamp, lesson.KindPicture, lesson.KindLink, lesson.KindTable, lesson.KindCover} {
		if !kinds[k] {
			t.Errorf("no frame shows a mark of kind %s", k)
		}
	}
	if err := out.Close("All kinds – alle Arten"); err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), "all.pdf")
	if err := os.WriteFile(file, pdf.Bytes(), 0o644); err != nil {
		t.Fatal(err)
	}
	if info := run(t, "pdfinfo", file); !strings.Contains(info, "All kinds – alle Arten") ||
		!regexp.MustCompile(`Pages: +`+strconv.Itoa(len(frames(t)))+`\n`).MatchString(info) {
		t.Error(info)
	}
	text := run(t, "pdftotext", file, "-")
	got := map[string]bool{}
	for _, w := range strings.Fields(plain(text)) {
		got[w] = true
	}
	for _, want := range said {
		for _, w := range strings.Fields(strings.ReplaceAll(plain(want), "،", " ")) {
			if !got[w] && !strings.Contains(strings.ReplaceAll(plain(text), " ", ""), w) {
				t.Errorf("pdftotext does not read %q of %q", w, want)
			}
		}
	}
	if t.Failed() {
		t.Log(text)
	}
}

// A line of each writing is read out of a PDF as it was written, whole and in order.
func TestTextOfEveryWriting(t *testing.T) {
	for language, want := range map[string]string{
		"latin": "The Moon: 29.53 days, naïve żółw thủy triều fi ffl AVATAR", "cyrillic": "Прилив наступает позже",
		"greek": "Η παλίρροια έρχεται αργότερα", "arabic": "المدّ العالي يتأخر كل يوم", "numbers": "يوم نحو 50 دقيقة",
		"hebrew": "הגאות מתאחרת בכל יום", "devanagari": "चंद्रमा पृथ्वी के चारों ओर घूमता है श्रृंखला",
		"chinese": "满月和新月时潮水涨得最高",
		"emoji":   "🌕 🌊 👍🏽 🇺🇦 🐟", "both": "the word المدّ means tide", "joined": "لا يتأخر",
	} {
		mark := lesson.Element{ID: "1", X: 20, Y: 20, W: 1500, H: 60,
			Body: lesson.Body{Kind: lesson.KindText, Text: &lesson.Text{Text: want, Size: 40, Ink: "night"}}}
		f := lesson.Frame{ID: "f", Paper: paper.Paper{Kind: paper.Plain}, Prepared: []lesson.Element{mark}}
		var pdf bytes.Buffer
		out := paint.NewPDF(&pdf, nil)
		out.Add(paint.Page{W: 842, H: 595, Cells: []paint.Cell{{K: 0.5, Painting: paint.Frame(f, nil, nil)}}})
		if err := out.Close(language); err != nil {
			t.Fatal(err)
		}
		file := filepath.Join(t.TempDir(), language+".pdf")
		if err := os.WriteFile(file, pdf.Bytes(), 0o644); err != nil {
			t.Fatal(err)
		}
		got, want := plain(run(t, "pdftotext", file, "-")), plain(want)
		// Blanks and signs above letters, between words of both ways, go to the wrong side in poppler, of Chromium's
		// own PDF as well.
		if language == "both" || language == "numbers" {
			gone := strings.NewReplacer(" ", "", "\u0651", "")
			got, want = gone.Replace(got), gone.Replace(want)
		}
		if got != want {
			t.Errorf("%s: %q instead of %q", language, got, want)
		}
	}
}

// words are what stands on a frame.
func words(s shown) []string {
	var all []string
	if s.Prompt != "" {
		all = append(all, s.Prompt)
	}
	for _, e := range s.Marks {
		w := e.Words()
		if e.Link != nil {
			w = e.Link.Title
		}
		// Poppler takes turned words to pieces.
		if w != "" && e.Kind != lesson.KindPicture && e.Turn == 0 {
			all = append(all, w)
		}
	}
	return all
}

// plain is a text without signs of direction, in one spelling, its blanks as one.
func plain(text string) string {
	text = strings.Map(func(r rune) rune {
		if r >= 0x200e && r <= 0x200f || r >= 0x202a && r <= 0x202e || r >= 0x2066 && r <= 0x2069 {
			return -1
		}
		return r
	}, text)
	return strings.Join(strings.Fields(norm.NFKC.String(text)), " ")
}

func blank(img *image.RGBA) bool {
	for i := 4; i < len(img.Pix); i += 4 {
		if !bytes.Equal(img.Pix[i:i+4], img.Pix[:4]) {
			return false
		}
	}
	return true
}

func encoded(t testing.TB, img image.Image) []byte {
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// run gives what a program of Debian's package poppler-utils says.
func run(t *testing.T, program string, args ...string) string {
	t.Helper()
	out, err := exec.Command(program, args...).Output()
	if err != nil {
		t.Fatalf("%s: %v; it is in Debian's package poppler-utils", program, err)
	}
	return string(out)
}

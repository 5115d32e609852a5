package pdf_test

import (
	"bytes"
	"fmt"
	"image"
	"image/draw"
	_ "image/jpeg"
	_ "image/png"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"alpenglow/pdf"
)

// How far our picture of a page may be from another renderer's: the mean
// difference in lightness, and the share of pixels that differ by more than a
// quarter of the way from black to white. Both smooth edges, each its own way,
// and ours are JPEG; measured are 0.1 to 0.5 % and 0 to 0.8 %.
const (
	mayDiffer = 0.010
	mayBeOff  = 0.015
)

// outside draws a page of a file with poppler's pdftoppm, from Debian's
// package poppler-utils, with its longer side as long as ours.
func outside(t *testing.T, data []byte, page int) *image.Gray {
	t.Helper()
	dir := t.TempDir()
	if err := os.WriteFile(filepath.Join(dir, "in.pdf"), data, 0o600); err != nil {
		t.Fatal(err)
	}
	n := strconv.Itoa(page)
	said, err := exec.Command("pdftoppm", "-png", "-cropbox", "-f", n, "-l", n, "-singlefile", "-scale-to", "1600",
		filepath.Join(dir, "in.pdf"), filepath.Join(dir, "out")).CombinedOutput()
	if err != nil {
		t.Fatalf("pdftoppm (install it with scripts/tools.sh poppler-utils): %v %s", err, said)
	}
	drawn, err := os.ReadFile(filepath.Join(dir, "out.png"))
	if err != nil {
		t.Fatal(err)
	}
	picture, _, err := image.Decode(bytes.NewReader(drawn))
	if err != nil {
		t.Fatal(err)
	}
	return grey(picture)
}

// grey gives a picture in lightness alone.
func grey(of image.Image) *image.Gray {
	to := image.NewGray(image.Rect(0, 0, of.Bounds().Dx(), of.Bounds().Dy()))
	draw.Draw(to, to.Bounds(), of, of.Bounds().Min, draw.Src)
	return to
}

// mirrored exchanges left and right.
func mirrored(of *image.Gray) *image.Gray {
	to := image.NewGray(of.Bounds())
	for y := range of.Rect.Dy() {
		row := of.Pix[y*of.Stride : y*of.Stride+of.Rect.Dx()]
		for x, light := range row {
			to.Pix[y*to.Stride+of.Rect.Dx()-1-x] = light
		}
	}
	return to
}

// apart gives the mean difference in lightness of two pictures, from 0 to 1,
// and the share of pixels that differ by more than a quarter. Pictures of
// different size (but for a pixel, where renderers round) are wholly apart.
func apart(a, b *image.Gray) (mean, off float64) {
	width, height := min(a.Rect.Dx(), b.Rect.Dx()), min(a.Rect.Dy(), b.Rect.Dy())
	if width < max(a.Rect.Dx(), b.Rect.Dx())-1 || height < max(a.Rect.Dy(), b.Rect.Dy())-1 {
		return 1, 1
	}
	var sum, beyond int
	for y := range height {
		for x := range width {
			d := int(a.Pix[y*a.Stride+x]) - int(b.Pix[y*b.Stride+x])
			d = max(d, -d)
			sum += d
			if d > 255/4 {
				beyond++
			}
		}
	}
	all := float64(width * height)
	return float64(sum) / 255 / all, float64(beyond) / all
}

// worksheet is a file with what worksheets are made of: text in an embedded
// font, lines and areas, a photograph, a page turned and one cut to its box;
// its six pages come as often as wanted.
func worksheet(t testing.TB, times int) ([]byte, []string) {
	t.Helper()
	m := newMaker()
	fonts := "/Font << /F " + m.font(t) + " >>"
	var text strings.Builder
	for i, line := range []string{"Moon and tides", "How long is it from one new moon to the next?",
		"Monday 07:24   Tuesday 08:14   Wednesday 09:04", "At half moon the tide is a neap tide."} {
		fmt.Fprintf(&text, "BT /F %d Tf 60 %d Td (%s) Tj ET\n", 34-6*i, 760-60*i, line)
	}
	text.WriteString("BT /F 22 Tf 0.8 0.6 -0.6 0.8 150 250 Tm (turned by a hand) Tj ET")
	shapes := `0.2 0.27 0.56 rg 60 600 200 150 re f
0.77 0.26 0.1 RG 6 w 320 600 m 380 800 520 800 560 600 c S
[14 8] 0 d 3 w 60 560 m 540 560 l S [] 0 d
0.14 0.44 0.25 rg 150 300 m 300 500 l 450 300 l h 220 340 m 300 450 l 380 340 l h f*
q 0.7 0.7 -0.7 0.7 300 120 cm 1 0.9 0.8 rg 0 0 120 80 re B Q
q 60 60 150 150 re W n 0.54 0.35 0 rg 0 0 400 130 re f Q`
	pixels := make([]byte, 0, 200*150*3)
	for y := range 150 {
		for x := range 200 {
			pixels = append(pixels, byte(x), byte(y), byte(128+100*math.Sin(float64(x)/12)*math.Cos(float64(y)/15)))
		}
	}
	photo := m.stream(
		"/Type /XObject /Subtype /Image /Width 200 /Height 150 /ColorSpace /DeviceRGB /BitsPerComponent 8 /Interpolate true",
		pixels,
	)
	m.page(text.String(), fonts, "")
	m.page(shapes, "", "")
	m.page("q 480 0 0 360 60 400 cm /I Do Q", "/XObject << /I "+photo+" >>", "")
	m.page(text.String(), fonts, "/Rotate 90")
	m.page(shapes, "", "/CropBox [50 280 545 842]")
	m.page("1 0 0 1 0 -250 cm "+text.String(), fonts, "/MediaBox [0 0 842 595]")
	pages := m.pages
	for range times - 1 {
		m.pages = append(m.pages, pages...)
	}
	return m.bytes(), []string{"text", "lines and areas", "a photograph", "turned", "cut to a box", "landscape"}
}

// Pages look as another renderer draws them: nothing is missing, mirrored,
// shifted or cut. That the measure would notice is seen on the mirrored page.
func TestAgainstAnotherRenderer(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("takes long")
	}
	data, names := worksheet(t, 1)
	var ours []*image.Gray
	err := reader(t).Read(t.Context(), data, func(int) {}, func(p pdf.Page) error {
		picture, _, err := image.Decode(bytes.NewReader(p.JPEG))
		if err == nil {
			ours = append(ours, grey(picture))
		}
		return err
	})
	if err != nil || len(ours) != len(names) {
		t.Fatalf("%d pages, %v", len(ours), err)
	}
	for i, name := range names {
		theirs := outside(t, data, i+1)
		mean, off := apart(ours[i], theirs)
		t.Logf("%s: mean difference %.2f %%, %.2f %% of the pixels off", name, 100*mean, 100*off)
		if mean > mayDiffer || off > mayBeOff {
			t.Errorf("%s: the pictures differ by %.2f %% in the mean, %.2f %% of the pixels are off", name, 100*mean,
				100*off)
		}
		mean, off = apart(mirrored(ours[i]), theirs)
		if mean <= 2*mayDiffer && off <= 2*mayBeOff {
			t.Errorf("%s: mirrored it differs by no more than %.2f %%, %.2f %%", name, 100*mean, 100*off)
		}
	}
}

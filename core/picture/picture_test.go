package picture

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"errors"
	"fmt"
	"hash/crc32"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"strings"
	"testing"

	"alpenglow/core/refusal"
)

// halves is a picture with a red left half and a blue right half.
func halves(w, h int) *image.NRGBA {
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.NRGBA{200, 0, 0, 255}
			if x >= w/2 {
				c = color.NRGBA{0, 0, 200, 255}
			}
			img.Set(x, y, c)
		}
	}
	return img
}

func asPNG(img image.Image) []byte {
	var b bytes.Buffer
	_ = png.Encode(&b, img)
	return b.Bytes()
}

// asJPEG is a JPEG with an Exif block that gives its orientation.
func asJPEG(img image.Image, orientation uint16, order binary.AppendByteOrder, mark string) []byte {
	var b bytes.Buffer
	_ = jpeg.Encode(&b, img, nil)
	tiff := order.AppendUint32([]byte(mark), 8)
	tiff = order.AppendUint16(tiff, 1)
	tiff = order.AppendUint16(tiff, 0x0112)
	tiff = order.AppendUint16(tiff, 3)
	tiff = order.AppendUint32(tiff, 1)
	tiff = order.AppendUint16(tiff, orientation)
	tiff = append(tiff, 0, 0, 0, 0, 0, 0)
	block := append([]byte("Exif\x00\x00"), tiff...)
	out := append([]byte{0xff, 0xd8, 0xff, 0xe1}, binary.BigEndian.AppendUint16(nil, uint16(len(block)+2))...)
	out = append(out, block...)
	return append(out, b.Bytes()[2:]...)
}

func svg(inside string) []byte {
	return []byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 20">` + inside + `</svg>`)
}

// bomb is a PNG that says it is w x h and holds next to nothing.
func bomb(w, h uint32) []byte {
	chunk := func(kind string, data []byte) []byte {
		out := binary.BigEndian.AppendUint32(nil, uint32(len(data)))
		body := append([]byte(kind), data...)
		return binary.BigEndian.AppendUint32(append(out, body...), crc32.ChecksumIEEE(body))
	}
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, w), h)
	var packed bytes.Buffer
	z := zlib.NewWriter(&packed)
	_, _ = z.Write(make([]byte, 100))
	_ = z.Close()
	out := append([]byte("\x89PNG\r\n\x1a\n"), chunk("IHDR", append(head, 8, 6, 0, 0, 0))...)
	return append(append(out, chunk("IDAT", packed.Bytes())...), chunk("IEND", nil)...)
}

func TestRead(t *testing.T) {
	var moving bytes.Buffer
	frame := image.NewPaletted(image.Rect(0, 0, 30, 20),
		color.Palette{color.NRGBA{200, 0, 0, 255}, color.NRGBA{0, 0, 200, 255}})
	second := image.NewPaletted(frame.Rect, frame.Palette)
	for i := range second.Pix {
		second.Pix[i] = 1
	}
	_ = gif.EncodeAll(&moving, &gif.GIF{Image: []*image.Paletted{frame, second}, Delay: []int{1, 1}})
	clear := image.NewNRGBA(image.Rect(0, 0, 30, 20))
	for name, c := range map[string]struct {
		data []byte
		w, h int
		kind string
		red  image.Point // where the picture is red
	}{
		"png":                      {asPNG(halves(30, 20)), 30, 20, "image/jpeg", image.Pt(3, 10)},
		"png that is seen through": {asPNG(clear), 30, 20, "image/png", image.Pt(-1, -1)},
		"jpeg": {asJPEG(halves(32, 16), 1, binary.BigEndian, "MM\x00*"), 32, 16, "image/jpeg",
			image.Pt(3, 8)},
		"jpeg that lies on its side": {asJPEG(halves(32, 16), 6, binary.BigEndian, "MM\x00*"), 16, 32, "image/jpeg",
			image.Pt(8, 3)},
		"jpeg that lies the other way": {asJPEG(halves(32, 16), 8, binary.LittleEndian, "II*\x00"), 16, 32,
			"image/jpeg", image.Pt(8, 28)},
		"jpeg that is upside down": {asJPEG(halves(32, 16), 3, binary.LittleEndian, "II*\x00"), 32, 16,
			"image/jpeg", image.Pt(28, 8)},
		"the first picture of a gif": {moving.Bytes(), 30, 20, "image/jpeg", image.Pt(15, 10)},
		"a large one is scaled":      {asPNG(halves(3200, 800)), 1600, 400, "image/jpeg", image.Pt(200, 200)},
		"svg": {svg(`<rect width="20" height="20" fill="#c80000"/>`), 800, 400, "image/png",
			image.Pt(100, 200)},
	} {
		p, err := Read(c.data)
		if err != nil || p.Width != c.w || p.Height != c.h || p.Type != c.kind {
			t.Errorf("%s: %s %d x %d, %v", name, p.Type, p.Width, p.Height, err)
			continue
		}
		img, _, err := image.Decode(bytes.NewReader(p.Data))
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if c.red.X >= 0 {
			if r, _, b, _ := img.At(c.red.X, c.red.Y).RGBA(); r < 0x9000 || b > 0x5000 {
				t.Errorf("%s: at %v it is not red: %x %x", name, c.red, r, b)
			}
		}
		if bytes.Contains(p.Data, []byte("Exif")) {
			t.Errorf("%s: metadata is left", name)
		}
	}
}

func TestRefused(t *testing.T) {
	whole := asPNG(halves(300, 200))
	entities := `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>`
	for name, c := range map[string]struct {
		data []byte
		want refusal.Code
	}{
		"nothing":                 {nil, refusal.PictureBad},
		"a text":                  {[]byte("a sentence about the Moon"), refusal.PictureBad},
		"cut off":                 {whole[:len(whole)/2], refusal.PictureBad},
		"called what it is not":   {append([]byte("\x89PNG\r\n\x1a\n"), "GIF89a"...), refusal.PictureBad},
		"a bomb of pixels":        {bomb(60000, 60000), refusal.PictureHuge},
		"a bomb that overflows":   {bomb(1<<31-1, 1<<31-1), refusal.PictureBad},
		"large beyond reason":     {make([]byte, MaxBytes+1), refusal.PictureHuge},
		"svg with a script":       {svg(`<script>alert(1)</script>`), refusal.PictureBad},
		"svg that listens":        {svg(`<rect onload="alert(1)" width="1" height="1"/>`), refusal.PictureBad},
		"svg that loads":          {svg(`<image href="https://evil.example/x.png"/>`), refusal.PictureBad},
		"svg that loads a style":  {svg(`<rect style="fill:url(https://evil.example/#a)"/>`), refusal.PictureBad},
		"svg of entities":         {append([]byte(entities), svg(`<title>&b;</title>`)...), refusal.PictureBad},
		"svg that repeats itself": {svg(`<g id="a"/><use href="#a"/>`), refusal.PictureBad},
		"svg of too many parts":   {svg(strings.Repeat(`<g/>`, maxParts+1)), refusal.PictureBad},
		"svg without a size":      {[]byte(`<svg xmlns="http://www.w3.org/2000/svg"/>`), refusal.PictureBad},
		"svg not closed":          {[]byte(`<svg viewBox="0 0 1 1"><g>`), refusal.PictureBad},
	} {
		if _, err := Read(c.data); !errors.Is(err, refusal.New(c.want)) {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

// Whatever bytes come, they are read or refused.
func FuzzRead(f *testing.F) {
	f.Add(asPNG(halves(8, 8)))
	f.Add(asJPEG(halves(8, 8), 6, binary.BigEndian, "MM\x00*"))
	f.Add(svg(`<path d="M0 0L10 10Z" stroke="red"/>`))
	f.Add(bomb(10, 10))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := Read(data)
		if err != nil {
			if refusal.Of(err) == nil {
				t.Fatal(fmt.Errorf("an error that is no refusal: %w", err))
			}
			return
		}
		if p.Width < 1 || p.Height < 1 || max(p.Width, p.Height) > Side {
			t.Fatalf("%d x %d", p.Width, p.Height)
		}
	})
}

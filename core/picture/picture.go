// Package picture answers: how does a picture from outside become one that is
// safe to keep and show? It is decoded within limits, turned upright, scaled
// down, and encoded anew, so that nothing but its pixels is left of it.
package picture

import (
	"bytes"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"io"

	"alpenglow/core/refusal"

	"golang.org/x/image/draw"
	"golang.org/x/image/webp"
)

// The limits of a picture that comes in, and the longest side of one that is kept.
const (
	MaxBytes  = 10 << 20
	MaxPixels = 40_000_000
	Side      = 1600 // pixels
)

// A progressive JPEG comes in scans, each of which goes over the whole picture;
// cameras and programs make some ten (common practice).
const maxScans = 50

// startOfScan is the marker SOS of ITU-T T.81; within the coded data, 0xFF is
// always followed by 0.
var startOfScan = []byte{0xff, 0xda}

// Picture is a picture as it is kept: PNG where it can be seen through, JPEG otherwise.
type Picture struct {
	Type          string // media type
	Data          []byte
	Width, Height int // pixels
}

// Read reads a PNG, JPEG or WebP picture, the first picture of a GIF, or an
// SVG drawing. What the file calls itself does not matter; what it is does.
// The size is checked before the pixels are decoded.
func Read(data []byte) (Picture, error) {
	if len(data) > MaxBytes {
		return Picture{}, refusal.New(refusal.PictureHuge)
	}
	var img image.Image
	var err error
	turn := 1
	switch {
	case bytes.HasPrefix(data, []byte("\x89PNG\r\n\x1a\n")):
		img, err = decode(data, png.DecodeConfig, png.Decode)
	case bytes.HasPrefix(data, []byte("\xff\xd8\xff")):
		if bytes.Count(data, startOfScan) > maxScans {
			return Picture{}, refusal.New(refusal.PictureBad)
		}
		turn = orientation(data)
		img, err = decode(data, jpeg.DecodeConfig, jpeg.Decode)
	case bytes.HasPrefix(data, []byte("GIF87a")), bytes.HasPrefix(data, []byte("GIF89a")):
		img, err = decode(data, gif.DecodeConfig, gif.Decode)
	case len(data) > 12 && string(data[:4]) == "RIFF" && string(data[8:12]) == "WEBP":
		img, err = decode(data, webp.DecodeConfig, webp.Decode)
	default:
		img, err = drawSVG(data)
	}
	if err != nil {
		return Picture{}, err
	}
	return encode(upright(scaled(img), turn))
}

func decode(data []byte, config func(io.Reader) (image.Config, error),
	all func(io.Reader) (image.Image, error)) (image.Image, error) {
	c, err := config(bytes.NewReader(data))
	if err != nil || c.Width <= 0 || c.Height <= 0 {
		return nil, refusal.New(refusal.PictureBad)
	}
	pixels := int64(c.Width) * int64(c.Height)
	switch c.ColorModel {
	case color.NRGBA64Model, color.RGBA64Model, color.Gray16Model:
		pixels *= 2 // takes twice the memory
	}
	if pixels > MaxPixels {
		return nil, refusal.New(refusal.PictureHuge)
	}
	img, err := all(bytes.NewReader(data))
	if err != nil {
		return nil, refusal.New(refusal.PictureBad)
	}
	return img, nil
}

// scaled brings a picture down to Side pixels on its longer side.
func scaled(img image.Image) image.Image {
	b := img.Bounds()
	long := max(b.Dx(), b.Dy())
	if long <= Side {
		return img
	}
	w, h := max(1, b.Dx()*Side/long), max(1, b.Dy()*Side/long)
	small := image.NewNRGBA(image.Rect(0, 0, w, h))
	draw.BiLinear.Scale(small, small.Bounds(), img, b, draw.Src, nil)
	return small
}

// upright turns and mirrors a picture as its Exif orientation, 1 to 8, says.
func upright(img image.Image, orientation int) image.Image {
	if orientation < 2 || orientation > 8 {
		return img
	}
	b := img.Bounds()
	w, h := b.Dx(), b.Dy()
	if orientation >= 5 {
		w, h = h, w
	}
	out := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			sx, sy := x, y
			switch orientation {
			case 2:
				sx = w - 1 - x
			case 3:
				sx, sy = w-1-x, h-1-y
			case 4:
				sy = h - 1 - y
			case 5:
				sx, sy = y, x
			case 6:
				sx, sy = y, w-1-x
			case 7:
				sx, sy = h-1-y, w-1-x
			case 8:
				sx, sy = h-1-y, x
			}
			out.Set(x, y, img.At(b.Min.X+sx, b.Min.Y+sy))
		}
	}
	return out
}

func encode(img image.Image) (Picture, error) {
	p := Picture{Type: "image/jpeg", Width: img.Bounds().Dx(), Height: img.Bounds().Dy()}
	var out bytes.Buffer
	var err error
	if solid, ok := img.(interface{ Opaque() bool }); ok && solid.Opaque() {
		err = jpeg.Encode(&out, img, &jpeg.Options{Quality: 85})
	} else {
		p.Type = "image/png"
		err = png.Encode(&out, img)
	}
	if err != nil {
		return Picture{}, refusal.New(refusal.PictureBad)
	}
	p.Data = out.Bytes()
	return p, nil
}

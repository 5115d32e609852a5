package picture

import (
	"bytes"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	"image/png"
	"math"

	"alpenglow/core/refusal"
)

// Part is a box of a picture: its corner and size in parts of the picture's
// width and height.
type Part struct{ X, Y, W, H float64 }

// cloud is what a blank part is filled with.
var cloud = image.NewUniform(color.NRGBA{0xeb, 0xee, 0xf5, 0xff})

// Blank gives a kept picture with parts of it blank. Nothing of what was there
// is left: the pixels are replaced before the picture is encoded.
func Blank(p Picture, parts []Part) (Picture, error) {
	read := png.Decode
	if p.Type == "image/jpeg" {
		read = jpeg.Decode
	}
	img, err := read(bytes.NewReader(p.Data))
	if err != nil {
		return Picture{}, refusal.New(refusal.PictureBad)
	}
	b := img.Bounds()
	out := image.NewNRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
	draw.Draw(out, out.Bounds(), img, b.Min, draw.Src)
	w, h := float64(b.Dx()), float64(b.Dy())
	for _, part := range parts {
		// A pixel that is covered in part is blank as a whole.
		box := image.Rect(int(math.Floor(part.X*w)), int(math.Floor(part.Y*h)), int(math.Ceil((part.X+part.W)*w)),
			int(math.Ceil((part.Y+part.H)*h)))
		draw.Draw(out, box.Intersect(out.Bounds()), cloud, image.Point{}, draw.Src)
	}
	return encode(out)
}

package picture

import (
	"bytes"
	"encoding/xml"
	"image"
	"io"
	"slices"
	"strings"

	"alpenglow/core/refusal"

	"github.com/srwiley/oksvg"
	"github.com/srwiley/rasterx"
)

// The limits of a drawing: its file, and the parts it has.
const (
	maxSVG   = 1 << 20
	maxParts = 5000
)

// parts are the elements that a drawing may have. What runs, loads, repeats or
// moves something is not among them.
var parts = []string{"svg", "g", "defs", "path", "rect", "circle", "ellipse", "line", "polyline", "polygon",
	"linearGradient", "radialGradient", "stop", "title", "desc", "metadata"}

// drawSVG draws an SVG file to pixels. A file with a document type, and with
// that its entities, with a script, or with a reference to something outside
// of it is refused as a whole.
func drawSVG(data []byte) (img image.Image, err error) {
	if len(data) > maxSVG {
		return nil, refusal.New(refusal.PictureHuge)
	}
	if err := checkSVG(data); err != nil {
		return nil, err
	}
	defer func() {
		if recover() != nil { // the library trusts numbers more than we do
			img, err = nil, refusal.New(refusal.PictureBad)
		}
	}()
	// Dashes can be made to take hours; a drawing is as good without them.
	data = bytes.ReplaceAll(data, []byte("stroke-dash"), []byte("stroke-none"))
	icon, err := oksvg.ReadIconStream(bytes.NewReader(data), oksvg.IgnoreErrorMode)
	if err != nil || !(icon.ViewBox.W > 0 && icon.ViewBox.H > 0) {
		return nil, refusal.New(refusal.PictureBad)
	}
	const side = Side / 2
	k := side / max(icon.ViewBox.W, icon.ViewBox.H)
	w, h := max(1, int(icon.ViewBox.W*k)), max(1, int(icon.ViewBox.H*k))
	icon.SetTarget(0, 0, float64(w), float64(h))
	canvas := image.NewRGBA(image.Rect(0, 0, w, h))
	icon.Draw(rasterx.NewDasher(w, h, rasterx.NewScannerGV(w, h, canvas, canvas.Bounds())), 1)
	return canvas, nil
}

func checkSVG(data []byte) error {
	bad := refusal.New(refusal.PictureBad)
	read := xml.NewDecoder(bytes.NewReader(data))
	count, first := 0, true
	for {
		token, err := read.Token()
		if err == io.EOF && !first {
			return nil
		}
		if err != nil {
			return bad
		}
		switch t := token.(type) {
		case xml.Directive:
			return bad
		case xml.StartElement:
			if first && t.Name.Local != "svg" {
				return bad
			}
			first = false
			if count++; count > maxParts || !slices.Contains(parts, t.Name.Local) &&
				t.Name.Space != "http://www.w3.org/1999/02/22-rdf-syntax-ns#" {
				return bad
			}
			for _, a := range t.Attr {
				value := strings.ToLower(a.Value)
				outside := a.Name.Local == "href" && !strings.HasPrefix(value, "#") ||
					strings.Contains(value, "url(") && !strings.Contains(value, "url(#")
				if outside || strings.HasPrefix(strings.ToLower(a.Name.Local), "on") {
					return bad
				}
			}
		}
	}
}

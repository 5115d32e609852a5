package qti

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"alpenglow/core/poll"
	"alpenglow/core/questions"
)

func writePlaces(w *item) {
	p := w.Asked.Places
	image, known := w.names[p.Picture]
	if !known {
		w.Lose(questions.LossKind)
		return
	}
	mapping := e("areaMapping", []string{"defaultValue", "0"})
	for _, a := range p.Areas {
		if a.Name != "" {
			w.Lose(questions.LossEnds)
		}
		if a.Mistake != "" {
			w.Lose(questions.LossMistakes)
		}
		var coords []string
		for _, c := range a.Corners {
			coords = append(coords, fmt.Sprintf("%.0f,%.0f", c.X*float64(image.Width), c.Y*float64(image.Height)))
		}
		value := "0"
		if a.Right {
			value = "1"
		}
		mapping.add(
			e("areaMapEntry", []string{"shape", "poly", "coords", strings.Join(coords, ","), "mappedValue", value}),
		)
	}
	w.respond("RESPONSE", "multiple", "point", nil, mapping)
	w.put(e("selectPointInteraction", []string{"responseIdentifier", "RESPONSE", "maxChoices", strconv.Itoa(p.Most)},
		e("object", []string{"data", image.path, "type", image.Type, "width", strconv.Itoa(image.Width),
			"height", strconv.Itoa(image.Height)})))
}

func isPlaces(_ *reading, at *node) bool {
	return at.Name == "selectPointInteraction" || at.Name == "hotspotInteraction"
}

// readPlaces reads points that areas are mapped for, and hotspots.
func readPlaces(r *reading, at *node) poll.Body {
	p := &poll.Places{Most: max(1, min(poll.MaxPoints, int(at.Number("maxChoices", 1))))}
	image := at.At("object")
	if image == nil {
		image = at.At("img")
	}
	p.Picture = r.see(image.Attr("data") + image.Attr("src"))
	width, height := image.Number("width", 0), image.Number("height", 0)
	add := func(n *node, name string, right bool) {
		corners, ok := corners(n.Attr("shape"), n.Attr("coords"), width, height)
		if !ok {
			r.Lose(questions.LossRight)
			return
		}
		p.Areas = append(p.Areas, poll.Area{ID: r.id(), Name: name, Corners: corners, Right: right})
	}
	for _, m := range first(r.declaration(at.Attr("responseIdentifier")).At("areaMapping").All("areaMapEntry")) {
		add(m, "", m.Number("mappedValue", 0) > 0)
	}
	right := r.right(at)
	for _, h := range first(at.All("hotspotChoice")) {
		is := false
		for _, name := range right {
			is = is || name == h.Attr("identifier")
		}
		add(h, clean(h.Attr("hotspotLabel")), is)
	}
	return poll.Body{Kind: poll.KindPlaces, Places: p}
}

// round is how many corners stand for a circle.
const round = 24

// corners gives the corners of an area in shares of the picture; a circle gets so many.
func corners(shape, coords string, width, height float64) ([]poll.Point, bool) {
	var at []float64
	for _, c := range strings.Split(coords, ",") {
		v, err := strconv.ParseFloat(strings.TrimSpace(c), 64)
		if err != nil || math.IsNaN(v) || math.Abs(v) > 1e6 {
			return nil, false
		}
		at = append(at, v)
	}
	var all []poll.Point
	add := func(x, y float64) { all = append(all, poll.Point{X: whole(x, width), Y: whole(y, height)}) }
	switch {
	case width <= 0 || height <= 0:
		return nil, false
	case shape == "rect" && len(at) == 4:
		add(at[0], at[1])
		add(at[2], at[1])
		add(at[2], at[3])
		add(at[0], at[3])
	case shape == "circle" && len(at) == 3, shape == "ellipse" && len(at) == 4:
		for i := range round {
			sin, cos := math.Sincos(2 * math.Pi * float64(i) / round)
			add(at[0]+at[2]*cos, at[1]+at[len(at)-1]*sin)
		}
	case shape == "poly" && len(at) >= 6 && len(at)%2 == 0 && len(at) <= 2*poll.MaxCorners:
		for i := 0; i < len(at); i += 2 {
			add(at[i], at[i+1])
		}
	default:
		return nil, false
	}
	return all, true
}

func writeDraw(w *item) {
	w.respond("RESPONSE", "single", "file", nil)
	w.put(e("uploadInteraction", []string{"responseIdentifier", "RESPONSE"}))
}

func isDraw(_ *reading, at *node) bool {
	return at.Name == "uploadInteraction" || at.Name == "drawingInteraction"
}

func readDraw(*reading, *node) poll.Body { return poll.Body{Kind: poll.KindDraw, Draw: &poll.Draw{}} }

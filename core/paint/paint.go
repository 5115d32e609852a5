// Package paint answers: what does a frame look like?
//
// A frame with what lies on it becomes a Painting: a list of filled and drawn
// paths, set letters and pictures, in frame units, from the lowest to the
// highest. It is the same for everybody who reads it, and is written as SVG, as
// pages of a PDF, or as pixels.
package paint

import (
	"image"

	"alpenglow/core/lesson"
	"alpenglow/core/letters"
)

// Painting is what is painted on a sheet of W by H units.
type Painting struct {
	W, H  float64
	Title string
	Items []Item
}

// Item is one thing that is painted: a path, words or a picture. Its places are
// its own; At says where they are on the sheet.
type Item struct {
	At Matrix
	// Alpha is how dense it is, above 0 to 1.
	Alpha float64
	Mix   Mix
	// Path is filled with a colour, drawn as a line, or both.
	Path Path
	Fill *lesson.Colour
	Line *Line
	// Words are set letters.
	Words *Words
	// Picture is an uploaded picture.
	Picture *Picture
	// Link is where the path leads to that is filled; empty for nowhere.
	Link string
}

// Mix says how a colour lies on what is below it.
type Mix int

// A colour covers what is below; lets it shine through as ink does; or as chalk does.
const (
	Over Mix = iota
	Multiply
	Screen
)

// Line is how a path is drawn. Its corners are round; its ends are where Round says so.
type Line struct {
	Colour lesson.Colour
	Width  float64
	Dash   []float64
	Round  bool
}

// Words are lines of letters of one colour, and what they say.
type Words struct {
	Colour lesson.Colour
	Text   string
	Rows   []Row
}

// Row is one line of words: where it begins at the left, on its base line, and the size of its letters.
type Row struct {
	X, Y, Size float64
	Clusters   []letters.Cluster
}

// Picture is an uploaded picture in a box of W by H: as large as fits, or stretched to it.
type Picture struct {
	Name    string
	W, H    float64
	Stretch bool
}

// Pictures gives an uploaded picture by its name; nil where it is gone.
type Pictures func(name string) *Uploaded

// Uploaded is a picture as it is kept, and decoded once it is needed.
type Uploaded struct {
	Type          string // image/jpeg or image/png
	Data          []byte
	Width, Height int
	Pixels        func() (image.Image, error)
}

// place gives where a picture of some pixels lies in its box.
func (p Picture) place(width, height int) (x, y, w, h float64) {
	if p.Stretch || width <= 0 || height <= 0 {
		return 0, 0, p.W, p.H
	}
	k := min(p.W/float64(width), p.H/float64(height))
	w, h = k*float64(width), k*float64(height)
	return (p.W - w) / 2, (p.H - h) / 2, w, h
}

package lesson

import "fmt"

// Colour is a colour of the screen as 0xRRGGBB (sRGB).
type Colour uint32

// String gives the colour as style sheets write it.
func (c Colour) String() string { return fmt.Sprintf("#%06x", uint32(c)) }

// RGB gives its red, green and blue, 0 to 255.
func (c Colour) RGB() [3]float64 {
	return [3]float64{float64(c >> 16 & 255), float64(c >> 8 & 255), float64(c & 255)}
}

// Tint is the paper colour of a note, by name.
type Tint string

// Tints are the six note papers, told apart by lightness too.
var Tints = []Tint{"snow", "apricot", "rose", "lilac", "glacier", "moss"}

var tints = map[Tint]Colour{"snow": 0xffffff, "apricot": 0xfde3cc, "rose": 0xf9d3de, "lilac": 0xdfd8f5,
	"glacier": 0xcde8f1, "moss": 0xd9e8c6}

func (t Tint) known() bool { return tints[t] != 0 }

// Colour is what a tint looks like.
func (t Tint) Colour() Colour { return tints[t] }

// Ink is the colour of a line or of text, by name.
type Ink string

// Inks are the six inks.
var Inks = []Ink{"night", "ember", "fern", "lake", "plum", "snow"}

// inks are what the inks look like on a light ground, and as chalk on a dark one.
var inks = map[Ink][2]Colour{
	"night": {0x1a2140, 0xeef1fa}, "ember": {0xc4421a, 0xff9d7a}, "fern": {0x23703f, 0x84d3a0},
	"lake": {0x1f6fa8, 0x84c5f2}, "plum": {0x7a2e7f, 0xe2a6e6}, "snow": {0xffffff, 0xffffff},
}

func (i Ink) known() bool { return inks[i][0] != 0 }

// Colour is what an ink looks like on a light ground.
func (i Ink) Colour() Colour { return inks[i][0] }

// Chalk is what an ink looks like on a dark ground.
func (i Ink) Chalk() Colour { return inks[i][1] }

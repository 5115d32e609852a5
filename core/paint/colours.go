package paint

import "alpenglow/core/lesson"

// The colours of the interface on a light ground, by the names that ui/src/styles.css gives them.
var colours = map[string]lesson.Colour{
	"paper": 0xffffff, "mist": 0xebeef5, "line": 0xcfd5e3, "edge": 0x7d88a8, "night": 0x1a2140, "slate": 0x4b5472,
	"dusk": 0x33448f, "dusk-soft": 0xe3e7f6, "glow": 0xc4421a, "fern": 0x23703f, "amber": 0x8a5a00, "rose": 0xa82a5a,
	"grid": 0xdfe5f1, "rule": 0xb3bdd3, "ground": 0xffffff, "on-ground": 0x1a2140,
	"who-0": 0x33448f, "who-1": 0x23703f, "who-2": 0x7a2e7f, "who-3": 0x0e6e77, "who-4": 0xa8452a, "who-5": 0x1f6299,
	"who-6": 0x4b5472, "who-7": 0x8a2a52,
}

// dark are those that a dark frame has of its own.
var dark = map[string]lesson.Colour{"ground": 0x1f2848, "on-ground": 0xf7f8fb, "grid": 0x36416b, "rule": 0x5d699a}

// whoColours is how many colours people have.
const whoColours = 8

// look is how a frame's colours are.
type look struct{ dark bool }

// of gives a colour by its name.
func (l look) of(name string) lesson.Colour {
	if c, ok := dark[name]; ok && l.dark {
		return c
	}
	return colours[name]
}

func (l look) ink(i lesson.Ink) lesson.Colour {
	if l.dark {
		return i.Chalk()
	}
	return i.Colour()
}

// shine is how a highlighter lies on what is below.
func (l look) shine() Mix {
	if l.dark {
		return Screen
	}
	return Multiply
}

package letters

import (
	"bytes"
	"embed"
	"fmt"
	"sync"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
)

// The fonts that ship (scripts/fonts.sh makes them). In the order of their names
// a letter is looked for in them: display holds those of headings, own those for
// letters that every device shows in a font of its own.
//
//go:embed fonts/*.ttf fonts/display/*.ttf fonts/own/*.ttf
var files embed.FS

// fonts gives those for everything that people read, displayFonts those of
// headings before them, ownFonts what is painted where none of these has a letter;
// each is read once.
var (
	fonts        = sync.OnceValue(func() []*font.Font { return readAll("fonts") })
	displayFonts = sync.OnceValue(func() []*font.Font { return append(readAll("fonts/display"), fonts()...) })
	ownFonts     = sync.OnceValue(func() []*font.Font { return readAll("fonts/own") })
)

func readAll(folder string) []*font.Font {
	entries, err := files.ReadDir(folder)
	if err != nil {
		panic(err)
	}
	var all []*font.Font
	for _, e := range entries {
		if e.IsDir() {
			continue
		}
		f, err := read(folder + "/" + e.Name())
		if err != nil {
			panic(fmt.Sprintf("%s: %v", e.Name(), err)) // a broken build
		}
		all = append(all, f)
	}
	return all
}

// plain gives the width of a glyph in the font's regular letters, in letter sizes.
func plain(f *font.Font, g font.GID) float32 {
	return font.NewFace(f).HorizontalAdvance(g) / float32(f.Upem())
}

func read(name string) (*font.Font, error) {
	text, err := files.ReadFile(name)
	if err != nil {
		return nil, err
	}
	loader, err := opentype.NewLoader(bytes.NewReader(text))
	if err != nil {
		return nil, err
	}
	return font.NewFont(loader)
}

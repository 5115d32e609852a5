package letters

import (
	"bytes"
	"embed"
	"fmt"
	"sync"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
)

// The fonts that ship, without their outlines (scripts/fonts.sh makes them). In
// the order of their names a letter is looked for in them.
//
//go:embed fonts/*.ttf
var files embed.FS

// fonts gives them, read once.
var fonts = sync.OnceValue(func() []*font.Font {
	entries, err := files.ReadDir("fonts")
	if err != nil {
		panic(err)
	}
	var all []*font.Font
	for _, e := range entries {
		f, err := read("fonts/" + e.Name())
		if err != nil {
			panic(fmt.Sprintf("%s: %v", e.Name(), err)) // a broken build
		}
		all = append(all, f)
	}
	return all
})

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

package standin

import (
	"embed"
	"encoding/json"
	"slices"
	"strings"

	"alpenglow/web"
)

//go:embed illustrations
var drawings embed.FS

// Illustrations stands in for a picture search on the web: a small set of
// drawings made for this project, found by their words.
type Illustrations struct {
	words map[string]illustration
	ids   []string
}

type illustration struct {
	Name  string `json:"name"`
	Words string `json:"words"`
}

// illustrationSide is the width and height of a drawing, in pixels.
const illustrationSide = 800

// NewIllustrations reads the drawings that ship with the program.
func NewIllustrations() (Illustrations, error) {
	var all Illustrations
	text, err := drawings.ReadFile("illustrations/words.json")
	if err == nil {
		err = json.Unmarshal(text, &all.words)
	}
	for id := range all.words {
		all.ids = append(all.ids, id)
	}
	slices.Sort(all.ids)
	return all, err
}

// Search lists the drawings whose words begin with all of those given; without
// any, all drawings.
func (all Illustrations) Search(words []string) []web.LibraryItem {
	found := []web.LibraryItem{}
	for _, id := range all.ids {
		own := strings.Fields(all.words[id].Name + " " + all.words[id].Words)
		fits := !slices.ContainsFunc(words, func(w string) bool {
			return !slices.ContainsFunc(own, func(o string) bool { return strings.HasPrefix(o, w) })
		})
		if fits {
			found = append(found, web.LibraryItem{ID: id, Name: all.words[id].Name, Width: illustrationSide,
				Height: illustrationSide})
		}
	}
	return found
}

// Drawing gives a drawing as SVG.
func (all Illustrations) Drawing(id string) ([]byte, bool) {
	if _, ok := all.words[id]; !ok {
		return nil, false
	}
	data, err := drawings.ReadFile("illustrations/" + id + ".svg")
	return data, err == nil
}

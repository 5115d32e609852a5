package lesson

import (
	"slices"
	"strings"
)

// Words are what can be read on a mark; empty for one without words.
func (b Body) Words() string {
	switch {
	case b.Note != nil:
		return b.Note.Text
	case b.Text != nil:
		return b.Text.Text
	case b.Shape != nil:
		return b.Shape.Text
	case b.Picture != nil:
		return b.Picture.Alt
	case b.Cover != nil:
		return b.Cover.Text
	case b.Link != nil:
		return strings.TrimSpace(b.Link.Title + " " + b.Link.URL)
	case b.Table != nil:
		return strings.Join(slices.Concat(b.Table.Rows...), " ")
	case b.Poll != nil:
		words := []string{b.Poll.Text}
		for _, c := range b.Poll.Choices {
			words = append(words, c.Text)
		}
		return strings.Join(words, " ")
	}
	return ""
}

// Words are all that can be read on a frame or about it by its teacher: title,
// prompt, lesson notes, the text of a page that lies on it, and its marks.
func (f Frame) Words() string {
	words := []string{f.Title, f.Prompt, f.Notes, f.Paper.Alt}
	for _, e := range f.Prepared {
		if e.OnFrame() {
			words = append(words, e.Words())
		}
	}
	return strings.Join(words, " ")
}

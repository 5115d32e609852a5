package lesson

import "strings"

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

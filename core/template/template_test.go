package template_test

import (
	"strconv"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/settings"
	"alpenglow/core/template"
)

// Every template is a sound frame, keeps within the frame, and can be copied
// many times onto one board.
func TestTemplatesAreSound(t *testing.T) {
	for _, language := range settings.Languages {
		sound(t, string(language))
	}
	if _, err := template.All("xx"); err == nil {
		t.Error("a language without words was given")
	}
}

func sound(t *testing.T, language string) {
	list, err := template.All(language)
	if err != nil {
		t.Fatal(err)
	}
	if len(list) < 16 {
		t.Errorf("%d templates, want 16 at least", len(list))
	}
	n := 0
	id := func() string { n++; return "id" + strconv.Itoa(n) }
	board := lesson.Board{Title: "all"}
	for _, one := range list {
		if one.Name == "" || one.Frame.Prompt == "" {
			t.Errorf("%s has no name or prompt", one.ID)
		}
		board.Frames = append(board.Frames, one.Frame.Copy(id, nil), one.Frame.Copy(id, nil))
	}
	if err := board.Check(); err != nil {
		t.Error(err)
	}
}

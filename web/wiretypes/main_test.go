package main

import (
	"encoding/json"
	"maps"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
	"alpenglow/core/sheet"
	"alpenglow/live"
)

func TestTypesAndColoursAreCurrent(t *testing.T) {
	for name, want := range files() {
		written, err := os.ReadFile("../../" + name)
		if err != nil {
			t.Fatal(err)
		}
		if string(written) != want {
			t.Errorf("%s is stale: run make types", name)
		}
	}
}

// Every refusal has a sentence in Go and one in the interface's message files.
func TestEveryRefusalHasItsSentences(t *testing.T) {
	// What only teachers are told, and what windows tell, comes with these.
	sentences := map[string]string{}
	for _, file := range []string{"en.json", "en.teaching.json", "en.windows.json"} {
		text, err := os.ReadFile("../../ui/src/words/" + file)
		if err != nil {
			t.Fatal(err)
		}
		var words struct {
			Refusal map[string]string `json:"refusal"`
		}
		if err := json.Unmarshal(text, &words); err != nil {
			t.Fatal(err)
		}
		maps.Copy(sentences, words.Refusal)
	}
	for _, code := range refusal.Codes() {
		if !strings.HasSuffix(refusal.New(code).Sentence(), ".") {
			t.Errorf("%s: the sentence of the server is %q", code, refusal.New(code).Sentence())
		}
		if sentences[string(code)] == "" {
			t.Errorf("%s: no sentence in ui/src/words", code)
		}
	}
	if len(sentences) != len(refusal.Codes()) {
		t.Errorf("%d sentences for %d refusals", len(sentences), len(refusal.Codes()))
	}
}

// Every language has the wording of every screen: the same keys, with the same names in
// them, so that nobody reads a key or a hole.
func TestEveryLanguageIsWhole(t *testing.T) {
	gap := regexp.MustCompile(`\{\{\w+\}\}`)
	for _, screens := range []string{"", ".teaching", ".windows", ".prepare"} {
		english := wording(t, "en"+screens)
		for _, language := range settings.Languages {
			said := wording(t, string(language)+screens)
			for key, words := range english {
				want, got := gap.FindAllString(words, -1), gap.FindAllString(said[key], -1)
				slices.Sort(want)
				slices.Sort(got)
				if said[key] == "" || !slices.Equal(want, got) {
					t.Errorf("%s: %s is %q", language+settings.Language(screens), key, said[key])
				}
			}
			if len(said) != len(english) {
				t.Errorf("%s: %d sentences for %d", language+settings.Language(screens), len(said), len(english))
			}
		}
	}
}

// wording reads a message file with its keys written out.
func wording(t *testing.T, name string) map[string]string {
	text, err := os.ReadFile("../../ui/src/words/" + name + ".json")
	if err != nil {
		t.Fatal(err)
	}
	var tree map[string]any
	if err := json.Unmarshal(text, &tree); err != nil {
		t.Fatal(err)
	}
	flat := map[string]string{}
	var walk func(at string, tree map[string]any)
	walk = func(at string, tree map[string]any) {
		for key, v := range tree {
			switch v := v.(type) {
			case string:
				flat[at+key] = v
			case map[string]any:
				walk(at+key+".", v)
			}
		}
	}
	walk("", tree)
	return flat
}

// The JSON that the TypeScript types promise.
func TestGolden(t *testing.T) {
	element := lesson.Element{ID: "m", Author: "noor", Z: 1, At: 2, X: 3, Y: 4, W: 5, H: 6,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "hi", Tint: "moss"}}}
	for want, value := range map[string]any{
		`{"id":"m","author":"noor","z":1,"at":2,"x":3,"y":4,"w":5,"h":6,"kind":"note","note":{"text":"hi","tint":"moss"}}`: element,
		`{"id":"o","sheet":"s","kind":"hide","hide":{"mark":"m"}}`:                                                         sheet.Op{ID: "o", Sheet: "s", Step: sheet.Step{Kind: sheet.KindHide, Hide: &sheet.Hide{Mark: "m"}}},
		`{"seq":7}`: audience.Class().Change(sheet.New("class"),
			sheet.Change{Seq: 7, Op: "o", By: "staff", At: 1,
				Put: []lesson.Element{{ID: "m", Standing: &lesson.Standing{Is: lesson.Hidden}}}}),
		`{"kind":"changes","changes":{"sheet":"s","frame":"f","owner":"class","seq":7,"changes":[{"seq":7}]}}`: live.News{Kind: live.NewsChanges,
			Changes: &live.SheetChanges{Sheet: "s", Frame: "f", Owner: "class", Seq: 7,
				Changes: []sheet.Change{{Seq: 7}}}},
	} {
		if got, err := json.Marshal(value); err != nil || string(got) != want {
			t.Errorf("got %s\nwant %s (%v)", got, want, err)
		}
	}
}

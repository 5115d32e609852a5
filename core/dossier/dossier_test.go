package dossier_test

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"alpenglow/core/dossier"
)

const noor = "01936f2e-0000-7000-8000-000000000001"

// Whatever has somebody in it has not afterwards, and has all that is of others.
func TestScrub(t *testing.T) {
	for text, want := range map[string]string{
		`{"put":[{"id":"a","author":"N","by":"staff"},{"id":"b","author":"K","agreed":["N","K"]}]}`: `{"put":[{"agreed":["K"],"author":"K","id":"b"}]}`,
		`{"put":[{"id":"b","author":"K","by":"N"}],"by":"N"}`:                                       `{"by":"gone","put":[{"author":"K","by":"gone","id":"b"}]}`,
		`{"groups":[["N","K"],["N"]],"locks":{"students":["N"]},"atBoard":{"student":"N"}}`:         `{"atBoard":{"student":"gone"},"groups":[["K"],[]],"locks":{"students":[]}}`,
		`{"questions":[{"id":"q","by":"N","text":"x"},{"id":"r","by":"K","agreed":["N"]}]}`:         `{"questions":[{"agreed":[],"by":"K","id":"r"}]}`,
		`{"help":[{"student":"N","at":5}],"done":{"one":["N","K"]}}`:                                `{"done":{"one":["K"]},"help":[]}`,
		`[{"id":"N","name":"Noor"},{"id":"K","name":"Kenji"}]`:                                      `[{"id":"K","name":"Kenji"}]`,
		`{"N":{"x":1},"K":{"x":2}}`: `{"K":{"x":2}}`,
	} {
		got, was := dossier.Scrub([]byte(strings.ReplaceAll(text, `"N"`, `"`+noor+`"`)), noor)
		if !was || string(got) != want {
			t.Errorf("%s: %s, want %s", text, got, want)
		}
		if again, was := dossier.Scrub(got, noor); was || !bytes.Equal(again, got) {
			t.Errorf("%s: there still", got)
		}
	}
	for _, same := range []string{`{"author":"K"}`, `no JSON`, `[]`, `{"text":"` + noor + ` is here"}`} {
		if got, was := dossier.Scrub([]byte(same), noor); was || string(got) != same {
			t.Errorf("%s: %s", same, got)
		}
	}
}

func FuzzScrub(f *testing.F) {
	f.Add(`{"put":[{"author":"N"},["N",{"N":["N"]}]]}`)
	f.Fuzz(func(t *testing.T, text string) {
		text = strings.ReplaceAll(text, `"N"`, `"`+noor+`"`)
		got, _ := dossier.Scrub([]byte(text), noor)
		if _, still := dossier.Scrub(got, noor); still {
			t.Errorf("%s: there still in %s", text, got)
		}
	})
}

// The page shows what people wrote as words, never as markup.
func TestPage(t *testing.T) {
	var page bytes.Buffer
	d := dossier.Dossier{Made: time.Unix(0, 0), Classes: []dossier.Class{{Class: "8 Rowan", Name: "Noor <b>"}},
		Lessons: []dossier.Lesson{
			{Title: "Tides", Work: []dossier.Work{{Frame: "One", What: "note", Words: "<script>alert(1)</script>"}}},
		}}
	if err := d.WritePage(&page); err != nil {
		t.Fatal(err)
	}
	if text := page.String(); strings.Contains(text, "<script>") || !strings.Contains(text, "&lt;script&gt;alert(1)") ||
		!strings.Contains(text, "Noor &lt;b&gt;") {
		t.Error(text)
	}
}

package alike_test

import (
	"fmt"
	"slices"
	"testing"

	"alpenglow/core/alike"
)

// Each idea once: the largest group first, nobody twice, and what nobody else says too.
func TestVaried(t *testing.T) {
	owners := map[string]string{"1": "a", "2": "b", "3": "c", "4": "a", "5": "d", "6": "b", "7": "", "8": "e"}
	texts := []string{"1", "2", "3", "4", "5", "6", "7", "8"}
	groups := []alike.Group{{Texts: []string{"4", "5"}}, {Texts: []string{"1", "2", "3"}}, {Texts: []string{"2", "6"}}}
	// Of the group of three a; of the others d, for a is taken, and b; then e, for 7 is nobody's.
	if got := fmt.Sprint(alike.Varied(groups, texts, owners)); got != "[a d b e]" {
		t.Error(got)
	}
	if got := alike.Varied(nil, nil, nil); got == nil || len(got) != 0 {
		t.Errorf("of nothing: %v", got)
	}
}

// A class that writes in four languages, one that says the same in one voice, and one
// that has said nothing: groups are there, and none has notes of two languages.
func TestFourLanguages(t *testing.T) {
	say := map[string][]string{
		"en": {"the Moon pulls the water", "the moon is pulling at the water"},
		"de": {"der Mond zieht das Wasser an", "der Mond zieht am Wasser"},
		"fr": {"la Lune attire l'eau de la mer", "la lune attire l'eau"},
		"ar": {"القمر يجذب الماء", "القمر يجذب ماء البحر"},
	}
	var texts []alike.Text
	for language, all := range say {
		for i, words := range all {
			texts = append(texts, alike.Text{ID: fmt.Sprint(language, i), Words: words})
		}
	}
	slices.SortFunc(texts, func(a, b alike.Text) int { return len(a.Words) - len(b.Words) })
	found := 0
	for _, language := range []string{"en", "de", "fr", "ar", "xx"} {
		for _, g := range alike.Groups(texts, language) {
			found++
			for _, id := range g.Texts {
				if id[:2] != g.Texts[0][:2] {
					t.Errorf("as %s: %v in one group", language, g.Texts)
				}
			}
		}
	}
	if found < 5 {
		t.Errorf("only %d groups found", found)
	}
	same := make([]alike.Text, 200)
	for i := range same {
		same[i] = alike.Text{ID: fmt.Sprint(i), Words: "two tides"}
	}
	if g := alike.Groups(same, "en"); len(g) != 1 || len(g[0].Texts) != 200 || g[0].Unsure {
		t.Errorf("two hundred times the same: %d groups", len(g))
	}
	if g := alike.Groups(nil, "en"); len(g) != 0 {
		t.Errorf("nothing said: %v", g)
	}
}

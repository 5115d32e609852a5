package words_test

import (
	"testing"
	"testing/quick"

	"alpenglow/core/words"
)

func TestFinds(t *testing.T) {
	own := words.Watch{Languages: []string{"en", "de"}, Own: []string{"Blobfish", "two left feet"}}
	for _, c := range []struct {
		text string
		held bool
	}{
		{"a blobfish", true}, {"BLOBFISH!!!", true}, {"bl0bf1sh", true}, {"b l o b f i s h", true},
		{"b.l.o.b.f.i.s.h", true},
		{"blooooobfish", true}, {"ｂｌｏｂｆｉｓｈ", true}, {"blоbfish", true}, // with a Cyrillic o
		{"blob\u00adfish", true}, {"blob\u200bfish", true}, {"blöbfish", true}, {"he has two  LEFT feet", true},
		{"fuck", true}, {"f*ck", false}, {"Arschloch", true}, {"A R S C H", true}, {"$h1t", true},
		// Words of the list inside of other words, numbers, and what a class writes in its lessons.
		{"blobfishes", false}, {"Scunthorpe", false}, {"classic analysis", false}, {"assess the cockpit", false},
		{"left two feet", false}, {"1 2 3 4 5", false}, {"The tide rises 4.5 m in 6 h", false}, {"a b c", false},
		{"", false}, {"!!!", false}, {"الماء يتبخر", false}, {"水は蒸発する", false},
	} {
		if got := own.Finds(c.text); len(got) > 0 != c.held {
			t.Errorf("%q: %v", c.text, got)
		}
	}
	if (words.Watch{}).Finds("fuck") != nil {
		t.Error("held without a list")
	}
	for _, l := range words.Languages {
		if len((words.Watch{Languages: []string{l}}).Finds("the moon and the tides")) > 0 {
			t.Errorf("%s holds plain words", l)
		}
	}
}

func TestAnyText(t *testing.T) {
	w := words.Watch{Languages: words.Languages, Own: []string{"blobfish"}}
	if err := quick.Check(func(before, after string) bool {
		return len(w.Finds(before+" blobfish "+after)) > 0
	}, nil); err != nil {
		t.Error(err)
	}
}

func BenchmarkFinds(b *testing.B) {
	w := words.Watch{Languages: []string{"en", "de"}, Own: []string{"blobfish"}}
	for b.Loop() {
		w.Finds("The Moon pulls at the water on both sides of the Earth, and that is why there are two tides a day.")
	}
}

package find_test

import (
	"fmt"
	"testing"

	"alpenglow/core/find"
)

func TestPlain(t *testing.T) {
	for _, same := range [][]string{
		{"maré", "MARÉ", "mare\u0301", "Mare", "ma\u00ADre"},
		{"straße", "STRASSE", "strasse"},
		{"ﬁve tides", "Five\u00A0 tides", "\tfive\ntides "},
		{"Σελήνη", "σεληνης"[:len("σεληνη")], "ΣΕΛΗΝΗ"},
		{"Việt", "viet"},
		{"e\u200Bbb", "ebb"},
		{"مَدّ", "مد"}, {"יָם", "ים"},
	} {
		for _, other := range same[1:] {
			if find.Plain(other) != find.Plain(same[0]) {
				t.Errorf("%q and %q: %q and %q", same[0], other, find.Plain(same[0]), find.Plain(other))
			}
		}
	}
	// The dots of Arabic and the vowel signs of Hindi and Thai tell words apart.
	for _, c := range [][2]string{{"ب", "ت"}, {"की", "का"}, {"कु", "कू"}, {"จี", "จิ"}} {
		if find.Plain(c[0]) == find.Plain(c[1]) {
			t.Errorf("%q is taken for %q", c[0], c[1])
		}
	}
}

// What is plain stays as it is: texts are stored so.
func FuzzPlain(f *testing.F) {
	for _, seed := range []string{"", "Maré", "ﬁ", "ǰ", "\u1E9B\u0323", "İstanbul", "ᾳ", "\xff", "a\u0301\u00ADb",
		"Ⅷ½ ㎏", "ꭸ", "\xf0Ġ"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		plain := find.Plain(text)
		if again := find.Plain(plain); again != plain {
			t.Errorf("%q becomes %q, and that %q", text, plain, again)
		}
		if words := find.Words(text); !find.In(plain, words) || len(words) > find.MaxWords {
			t.Errorf("%q does not find itself: %q", text, words)
		}
	})
}

func ExampleIn() {
	page := find.Plain("Why are there two high tides a day? MARÉ ALTA")
	fmt.Println(find.In(page, find.Words("tide mare")), find.In(page, find.Words("tide neap")))
	// Output: true false
}

package spelling

import (
	"encoding/json"
	"math/rand/v2"
	"os"
	"strings"
	"testing"
)

// Cases that other libraries computed (testdata/checks.json names them): NFKC with case
// folded, and optimal string alignment.
func TestChecks(t *testing.T) {
	text, err := os.ReadFile("testdata/checks.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []struct {
		ID              string
		Input, Expected json.RawMessage
	}
	if err := json.Unmarshal(text, &all); err != nil || len(all) == 0 {
		t.Fatal(err)
	}
	for _, c := range all {
		var in struct{ Text, A, B string }
		var forms []string
		var distances struct{ OSA int }
		if err := json.Unmarshal(c.Input, &in); err != nil {
			t.Fatal(c.ID, err)
		}
		switch {
		case json.Unmarshal(c.Expected, &forms) == nil:
			// What is folded here also has single spaces and no punctuation at its ends.
			if got, want := Fold(in.Text), Fold(forms[1]); got != want {
				t.Errorf("%s: %q, want %q", c.ID, got, want)
			}
		case json.Unmarshal(c.Expected, &distances) == nil:
			if got := Distance(in.A, in.B); got != distances.OSA || got != Distance(in.B, in.A) {
				t.Errorf("%s: %d, want %d", c.ID, got, distances.OSA)
			}
		default:
			t.Errorf("%s is not checked", c.ID)
		}
	}
}

// What a student types for an accepted answer, and what they do not get away with.
func TestAccepted(t *testing.T) {
	for _, c := range []struct {
		text, right string
		slips       int
		withCase    bool
		want        bool
	}{
		{"new moon", "New Moon", 0, false, true}, {" New  moon. ", "new moon", 0, false, true},
		{"new moon", "New Moon", 0, true, false}, {"New Moon", "New Moon", 0, true, true},
		{"STRASSE", "Straße", 0, false, true}, {"ﬁsh", "fish", 0, false, true}, {"mo\u00adon", "moon", 0, false, true},
		{"mo\u200bon", "moon", 0, false, true}, {"cafe\u0301", "café", 0, false, true},
		{"cafe", "café", 0, false, false},
		{"gravty", "gravity", 0, false, false}, {"gravty", "gravity", 1, false, true},
		{"garvity", "gravity", 1, false, true},
		{"grvty", "gravity", 1, false, false}, {"grvty", "gravity", 2, false, true},
		{"gravittty", "gravity", 1, false, false},
		{"on", "of", 1, false, false}, {"sun", "son", 1, false, true}, {"it", "at", 3, false, false},
		{"", "moon", 3, false, false}, {"moon", "", 3, false, false}, {"!", "!", 0, false, true},
		{"?", "!", 0, false, false},
		{"القمر", "القمر", 0, false, true}, {"चाँद", "चाँद", 0, false, true},
	} {
		if got := Accepted(c.text, []string{"never this one", c.right}, c.slips, c.withCase); got != c.want {
			t.Errorf("%q for %q with %d slips: %v", c.text, c.right, c.slips, got)
		}
	}
}

// Up to a bound slips are the same as without one.
func TestSlipsUpTo(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 3))
	word := func() []string {
		w := make([]string, r.IntN(12))
		for i := range w {
			w[i] = string(rune('a' + r.IntN(3)))
		}
		return w
	}
	for range 20_000 {
		x, y := word(), word()
		all := slips(x, y, 12)
		for most := range 5 {
			if got, want := slips(x, y, most), min(all, most+1); got != want {
				t.Fatalf("%v and %v: %d up to %d, want %d", x, y, got, most, want)
			}
		}
	}
}

func BenchmarkAccepted(b *testing.B) {
	long := strings.Repeat("gravity pulls ", 20)
	for b.Loop() {
		Accepted(long+"x", []string{long}, 3, false)
	}
}

package ui_test

import (
	"encoding/json"
	"math"
	"os"
	"regexp"
	"strconv"
	"strings"
	"testing"
)

// luminance is the relative luminance of a colour #rrggbb, and contrast the
// ratio of two (WCAG 2.2, definitions recalled from memory, threshold 0.04045).
func luminance(colour string) float64 {
	n, _ := strconv.ParseUint(strings.TrimPrefix(colour, "#"), 16, 32)
	part := func(shift uint) float64 {
		c := float64(n>>shift&0xff) / 255
		if c <= 0.04045 {
			return c / 12.92
		}
		return math.Pow((c+0.055)/1.055, 2.4)
	}
	return 0.2126*part(16) + 0.7152*part(8) + 0.0722*part(0)
}

func contrast(a, b string) float64 {
	la, lb := luminance(a), luminance(b)
	return (max(la, lb) + 0.05) / (min(la, lb) + 0.05)
}

// The cases are the project's check values for contrast; each names its source.
func TestContrastFormula(t *testing.T) {
	text, err := os.ReadFile("testdata/contrast.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []struct {
		ID    string
		Input struct{ Foreground, Background string }
		Want  float64 `json:"expected"`
	}
	if err := json.Unmarshal(text, &cases); err != nil || len(cases) < 10 {
		t.Fatal(len(cases), err)
	}
	for _, c := range cases {
		if got := contrast(c.Input.Foreground, c.Input.Background); math.Abs(got/c.Want-1) > 1e-9 {
			t.Errorf("%s: %v, want %v", c.ID, got, c.Want)
		}
	}
}

var tokenLine = regexp.MustCompile(`--color-([a-z0-9-]+): (#[0-9a-f]{6});`)

// Text meets 4.5:1 on every ground it stands on, edges of controls 3:1
// (WCAG 2.2, 1.4.3 and 1.4.11, from memory).
func TestTokens(t *testing.T) {
	token := map[string]string{}
	for _, file := range []string{"src/styles.css", "src/colours.gen.css"} {
		css, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		light, dark, found := strings.Cut(string(css), "[data-dark] {")
		dark, _, _ = strings.Cut(dark, "}")
		if !found {
			t.Fatal("no colours of dark frames in " + file)
		}
		for _, m := range tokenLine.FindAllStringSubmatch(light, -1) {
			token[m[1]] = m[2]
		}
		for _, m := range tokenLine.FindAllStringSubmatch(dark, -1) {
			token["dark-"+m[1]] = m[2]
		}
	}
	pairs := []struct {
		fore, grounds string
		least         float64
	}{
		{
			"night",
			"snow paper mist dusk-soft glow-soft fern-soft amber-soft rose-soft note-snow note-apricot note-rose note-lilac note-glacier note-moss",
			4.5,
		},
		{"slate", "snow paper mist glow-soft note-apricot note-rose note-lilac note-glacier note-moss", 4.5},
		{"dusk", "paper snow dusk-soft", 4.5}, {"glow-deep", "glow-soft paper", 4.5},
		{"fern-deep", "fern-soft paper", 4.5},
		{"amber", "amber-soft paper", 4.5}, {"rose", "rose-soft paper", 4.5},
		{"paper", "dusk night glow glow-deep slate who-0 who-1 who-2 who-3 who-4 who-5 who-6 who-7", 4.5},
		{"edge", "paper snow", 3}, {"dusk", "paper mist note-apricot", 3},
		{"ink-night", "paper", 3}, {"ink-ember", "paper", 3}, {"ink-fern", "paper", 3}, {"ink-lake", "paper", 3},
		{"ink-plum", "paper", 3},
		{"on-ground", "ground", 4.5}, {"dark-on-ground", "dark-ground", 4.5},
		{"dark-ink-night", "dark-ground", 4.5}, {"dark-ink-ember", "dark-ground", 4.5},
		{"dark-ink-fern", "dark-ground", 4.5},
		{"dark-ink-lake", "dark-ground", 4.5}, {"dark-ink-plum", "dark-ground", 4.5},
	}
	for _, p := range pairs {
		for ground := range strings.FieldsSeq(p.grounds) {
			if token[p.fore] == "" || token[ground] == "" {
				t.Fatalf("no token %s or %s", p.fore, ground)
			}
			if got := contrast(token[p.fore], token[ground]); got < p.least {
				t.Errorf("%s on %s: %.2f, at least %.1f", p.fore, ground, got, p.least)
			}
		}
	}
}

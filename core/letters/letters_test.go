package letters

import (
	"slices"
	"strings"
	"testing"
)

func TestLines(t *testing.T) {
	usual := Style{Size: 28, Weight: Regular}
	for name, c := range map[string]struct {
		text  string
		width float64
		want  []string
	}{
		"nothing is one empty line":             {"", 200, []string{""}},
		"line feeds end lines":                  {"low\n\nhigh", 200, []string{"low", "", "high"}},
		"between words":                         {"high tide again", 150, []string{"high tide ", "again"}},
		"blanks hang over":                      {"tide     ", 60, []string{"tide     "}},
		"after a hyphen":                        {"new-moon", 80, []string{"new-", "moon"}},
		"not before a full stop":                {"moon .", 70, []string{"moon ", "."}},
		"a word longer than a line":             {"a tidetable", 90, []string{"a ", "tidetab", "le"}},
		"ideographs break anywhere":             {"月亮和潮汐", 60, []string{"月亮", "和潮", "汐"}},
		"not before their full stop":            {"月亮。", 60, []string{"月", "亮。"}},
		"a letter narrower than a line is kept": {"wide", 1, []string{"w", "i", "d", "e"}},
	} {
		if got := Lines(c.text, c.width, usual); !slices.Equal(got, c.want) {
			t.Errorf("%s: %q, want %q", name, got, c.want)
		}
	}
}

// Whatever is broken into lines is whole when put together again, no line but
// one of a single letter is too wide, and lines do not get more when there is more room.
func FuzzLines(f *testing.F) {
	for _, text := range []string{"", "tide", "المد والجزر\nمرتين", "ज्वार-भाटा दो बार", "👩‍🚀🇺🇦👍🏽 moon", "a\tb  c ",
		"é̂x"} {
		f.Add(text, 120.0)
	}
	f.Fuzz(func(t *testing.T, text string, width float64) {
		text = strings.ToValidUTF8(text, "")
		if len(text) > 2000 || !(width > 0 && width < 1e4) {
			t.Skip()
		}
		s := Style{Size: 20, Weight: Regular}
		lines := Lines(text, width, s)
		if got := strings.Join(lines, ""); got != strings.ReplaceAll(text, "\n", "") {
			t.Fatalf("%q became %q", text, got)
		}
		if more := Lines(text, 2*width, s); len(more) > len(lines) {
			t.Fatalf("%d lines in %g, %d in %g", len(lines), width, len(more), 2*width)
		}
	})
}

func BenchmarkLines(b *testing.B) {
	for name, text := range map[string]string{
		"note":    "High tide is about fifty minutes later every day, because the Moon has moved on.",
		"arabic":  "المد العالي يتأخر كل يوم نحو خمسين دقيقة لأن القمر يتحرك",
		"longest": strings.Repeat("High tide is about fifty minutes later every day. ", 80),
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				Lines(text, 264, Style{Size: 28, Weight: Regular})
			}
		})
	}
}

func BenchmarkAbout(b *testing.B) {
	text := strings.Repeat("ज्वार हर दिन देर से आता है ", 150)
	for b.Loop() {
		About(text, 264, Style{Size: 28, Weight: Regular})
	}
}

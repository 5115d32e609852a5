package roster_test

import (
	"errors"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
)

func TestReadCode(t *testing.T) {
	for typed, want := range map[string]string{
		"K7M2QX": "K7M2QX", "k7m 2qx": "K7M2QX", " K7M-2QX ": "K7M2QX", "k7m\u00A02q\u2013x": "K7M2QX",
		"K7M2QX\u200B": "K7M2QX", "Ｋ７Ｍ２ＱＸ": "K7M2QX",
	} {
		if got, err := roster.ReadCode(typed); err != nil || got != want {
			t.Errorf("%q: %q, %v", typed, got, err)
		}
	}
	for _, typed := range []string{"", "K7M2Q", "K7M2QXX", "K7M2Q0", "K7M2QO", "K7M2Q1", "K7M2QI", "K7M2QL", "K7M2Q!",
		"k7m2qé", strings.Repeat("K", 1000)} {
		if _, err := roster.ReadCode(typed); !errors.Is(err, refusal.New(refusal.CodeMistyped)) {
			t.Errorf("%q: %v", typed, err)
		}
	}
}

// 31 symbols in 6 places are 31^6 = 887,503,681 codes.
func TestCode(t *testing.T) {
	if math.Abs(math.Exp2(roster.Bits())-887503681) > 1 {
		t.Errorf("bits: %v", roster.Bits())
	}
	if strings.ContainsAny(roster.Alphabet, "0O1IL") {
		t.Error("look-alikes in the alphabet")
	}
	seen := map[string]bool{}
	for range 1000 {
		code := roster.Code(rand.IntN)
		if read, err := roster.ReadCode(strings.ToLower(code[:3] + "-" + code[3:])); err != nil || read != code {
			t.Fatalf("%q does not read back: %q, %v", code, read, err)
		}
		seen[code] = true
	}
	if len(seen) < 999 {
		t.Errorf("%d different codes of 1000", len(seen))
	}
}

func TestReadName(t *testing.T) {
	for typed, want := range map[string]string{
		"Noor": "Noor", "  Mary   Ann ": "Mary Ann", "Toma\u0301s": "Tomás", "李 小龍": "李 小龍", "نور": "نور", "🦊 7": "🦊 7",
		strings.Repeat("é", 40): strings.Repeat("é", 40),
	} {
		if got, err := roster.ReadName(typed); err != nil || got != want {
			t.Errorf("%q: %q, %v", typed, got, err)
		}
	}
	for typed, want := range map[string]refusal.Code{
		"": refusal.NameEmpty, " \t ": refusal.NameEmpty, "...": refusal.NameEmpty, "\u200B": refusal.NameControl,
		"\u3164": refusal.NameControl, "\u2800": refusal.NameControl,
		"\u115F": refusal.NameControl, "No\u200Bor": refusal.NameControl, "Noor\u00AD": refusal.NameControl,
		"N" + strings.Repeat("\u0301", 20): refusal.NameControl,
		strings.Repeat("x", 200):           refusal.NameTooLong, strings.Repeat("x", 41): refusal.NameTooLong,
		"a" + strings.Repeat("\u0301", 10000): refusal.NameTooLong,
		"No\x07or":                            refusal.NameControl, "No\u202Eor": refusal.NameControl,
		"No\xffor": refusal.NameControl,
	} {
		if _, err := roster.ReadName(typed); !errors.Is(err, refusal.New(want)) {
			t.Errorf("%.20q: got %v, want %s", typed, err, want)
		}
	}
}

func TestApart(t *testing.T) {
	taken := []string{}
	for _, step := range []struct{ name, want string }{
		{"Noor", "Noor"}, {"noor", "noor 2"}, {"NOOR", "NOOR 3"}, {"Noor 2", "Noor 2 2"}, {"Straße", "Straße"},
		{"STRASSE", "STRASSE 2"},
		{"Amara", "Amara"}, {"Аmаrа", "Аmаrа 2"}, {"Lena", "Lena"}, {"Ｌｅｎａ", "Ｌｅｎａ 2"}, {"Ali", "Ali"},
		{"AIi", "AIi 2"},
	} {
		got := roster.Apart(step.name, taken)
		if got != step.want {
			t.Errorf("%q beside %v: %q, want %q", step.name, taken, got, step.want)
		}
		taken = append(taken, got)
	}
}

package roster_test

import (
	"testing"

	"alpenglow/core/roster"
)

func TestDoubtful(t *testing.T) {
	list := []roster.Listed{{ID: "1", Name: "Noor Haddad"}, {ID: "2", Name: "Kenji Mori"}, {ID: "3", Name: "王"}}
	in := []string{"Amara", "Kenji Mori"}
	for name, want := range map[string]roster.Doubt{
		"Noor Haddad": "", "noor haddad": "", "Noor": "", "Nour Haddad": "", "Zofia Novak": roster.DoubtStranger,
		"Kenji Mori": roster.DoubtTwice, "KENJI MORI": roster.DoubtTwice, "Аmara": roster.DoubtTwice, // a Cyrillic A
		"Ines Okafor": roster.DoubtTeacher, "ines okafor": roster.DoubtTeacher,
		"shit": roster.DoubtWord, "sh1t": roster.DoubtWord, "123": roster.DoubtLetters, "★": roster.DoubtLetters,
		"J 007": roster.DoubtLetters, "王": "",
	} {
		if got := roster.Doubtful(name, list, in, "Ines Okafor"); got != want {
			t.Errorf("%s: %q, want %q", name, got, want)
		}
	}
	// Without a list nobody is a stranger; one letter of a script that has words of one is a name.
	for _, name := range []string{"Zofia", "李", "Ó", "Noor-Lin van den Berg"} {
		if got := roster.Doubtful(name, nil, nil, ""); got != "" {
			t.Errorf("%s without a list: %q", name, got)
		}
	}
}

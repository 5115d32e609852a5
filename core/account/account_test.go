package account_test

import (
	"strings"
	"testing"

	"alpenglow/core/account"
	"alpenglow/core/refusal"
)

func code(err error) refusal.Code {
	if r := refusal.Of(err); r != nil {
		return r.Code
	}
	return ""
}

func TestCheckPassword(t *testing.T) {
	for _, c := range []struct {
		password string
		want     refusal.Code
	}{
		{"moon and tides", ""},
		{"грязь и пыль", ""},
		{"correcthorse", refusal.PasswordCommon},
		{"kettle-otter-7", ""},
		{"short", refusal.PasswordShort},
		{"elevenchars", refusal.PasswordShort},
		{strings.Repeat("x", 201), refusal.PasswordShort},
		{"bad\xffbytes are here", refusal.PasswordShort},
		{"password1234", refusal.PasswordCommon},
		{"123456789012", refusal.PasswordCommon},
		{"qwertyuiopas", refusal.PasswordCommon},
		{"aaaaaaaaaaaa", refusal.PasswordCommon},
		{"inesaldana12", refusal.PasswordCommon},
		{"alpenglow2026", refusal.PasswordCommon},
	} {
		if got := code(account.CheckPassword(c.password, "Ines Aldana", "ines.aldana@tern-harbour.example")); got != c.want {
			t.Errorf("%q: %q, want %q", c.password, got, c.want)
		}
	}
}

// A password as long as one may be, and as many words as may be known.
func BenchmarkCheckPassword(b *testing.B) {
	password, known := strings.Repeat("a1B2 qwerty ", 16), strings.Repeat("word ", 100)
	for b.Loop() {
		account.CheckPassword(password, known)
	}
}

func TestCheckEmailAndName(t *testing.T) {
	for email, want := range map[string]string{
		" Ines.Aldana@Tern-Harbour.example ":   "ines.aldana@tern-harbour.example",
		"Ines <ines@tern-harbour.example>":     "",
		"ines":                                 "",
		"ines@@tern":                           "",
		"a@" + strings.Repeat("x", 260):        "",
		"ines\u202e@tern-harbour.example":      "",
		"two@tern.example, three@tern.example": "",
	} {
		if got, err := account.CheckEmail(email); got != want || (err == nil) == (want == "") {
			t.Errorf("%q is kept as %q, %v", email, got, err)
		}
	}
	for name, want := range map[string]refusal.Code{"  Ines   Aldana ": "", "": refusal.NameEmpty, " \t": refusal.NameEmpty,
		strings.Repeat("é", 81): refusal.NameTooLong, "a\u202eb": refusal.NameControl, "علا": ""} {
		got, err := account.CheckName(name)
		if code(err) != want || want == "" && got != strings.Join(strings.Fields(name), " ") {
			t.Errorf("%q: %q, %v", name, got, err)
		}
	}
	if account.CheckRole("owner") == nil || account.CheckRole(account.Teacher) != nil {
		t.Error("roles")
	}
}

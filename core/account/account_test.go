package account_test

import (
	"encoding/base32"
	"strings"
	"testing"
	"time"

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
		if got := code(account.CheckPassword(false, c.password, "Ines Aldana",
			"ines.aldana@tern-harbour.example")); got != c.want {
			t.Errorf("%q: %q, want %q", c.password, got, c.want)
		}
	}
}

// A password as long as one may be, and as many words as may be known.
func BenchmarkCheckPassword(b *testing.B) {
	password, known := strings.Repeat("a1B2 qwerty ", 16), strings.Repeat("word ", 100)
	for b.Loop() {
		account.CheckPassword(false, password, known)
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
	for name, want := range map[string]refusal.Code{"  Ines   Aldana ": "", "": refusal.NameEmpty,
		" \t":                   refusal.NameEmpty,
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

// RFC 6238, appendix B, SHA-1: the secret is "12345678901234567890"; its eight digits
// end in the six that are asked for here.
func TestTimeCodes(t *testing.T) {
	secret := base32.StdEncoding.EncodeToString([]byte("12345678901234567890"))
	for at, code := range map[int64]string{59: "94287082", 1111111109: "07081804", 1111111111: "14050471",
		1234567890: "89005924", 2000000000: "69279037", 20000000000: "65353130"} {
		typed := code[2:5] + " " + code[5:]
		step, ok := account.CheckCode(secret, typed, time.Unix(at, 0), 0)
		if !ok || step != at/30 {
			t.Errorf("%s at %d: step %d, %v", typed, at, step, ok)
		}
		for off, want := range map[int64]bool{-30: true, 30: true, 61: false, -61: false} {
			if _, ok := account.CheckCode(secret, typed, time.Unix(at+off, 0), 0); ok != want && at+off >= 0 {
				t.Errorf("%s, %d s off: %v", typed, off, ok)
			}
		}
		if _, ok := account.CheckCode(secret, typed, time.Unix(at, 0), step); ok {
			t.Errorf("%s counts twice", typed)
		}
	}
	for _, wrong := range []string{"", "000000", "94287082", "９４２８７０８"} {
		if _, ok := account.CheckCode(secret, wrong, time.Unix(59, 0), 0); ok {
			t.Errorf("%q is right", wrong)
		}
	}
}

func TestRecoveryCodes(t *testing.T) {
	code := account.Recovery(func(n int) int { return n - 1 })
	for typed, want := range map[string]string{code: code, "ZZZZZ-zzzzz": code, " zzzzz zzzzz": code, "zzzz": "",
		"zzzzzzzzz0": "", "zzzzzzzzzzz": ""} {
		if got := account.ReadRecovery(typed); got != want {
			t.Errorf("%q: %q, want %q", typed, got, want)
		}
	}
}

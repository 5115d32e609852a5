package id_test

import (
	"strings"
	"testing"

	"alpenglow/core/id"
)

// One id in all the spellings that a UUID library or PostgreSQL reads as the same.
func TestOneSpelling(t *testing.T) {
	const v7 = "01939f5c-8c1e-7d2a-9a3b-0123456789ab"
	for s, want := range map[string]bool{
		v7:                                     true,
		strings.ToUpper(v7):                    false,
		"{" + v7 + "}":                         false,
		"urn:uuid:" + v7:                       false,
		strings.ReplaceAll(v7, "-", ""):        false,
		" " + v7:                               false,
		v7 + "\x00":                            false,
		strings.Replace(v7, "7d2a", "4d2a", 1): false,
		"":                                     false,
	} {
		if id.IsV7(s) != want {
			t.Errorf("%q as version 7: %v", s, !want)
		}
		if uuid := want || strings.Contains(s, "4d2a"); id.IsUUID(s) != uuid {
			t.Errorf("%q as UUID: %v", s, !uuid)
		}
	}
	for s, want := range map[string]bool{"tide-1_A": true, "": false, "a b": false, "é": false, "a\x00": false,
		"../a":                  false,
		strings.Repeat("x", 64): true, strings.Repeat("x", 65): false} {
		if id.IsPlain(s) != want {
			t.Errorf("%q as plain: %v", s, !want)
		}
	}
}

package strict_test

import (
	"testing"

	"alpenglow/core/strict"
)

func TestRead(t *testing.T) {
	for text, want := range map[string]bool{
		`{"a":"tide"}`:             true,
		` {"a":"tide"} `:           true,
		`{"a":"\\u0000"}`:          true, // a backslash, and letters
		`{"a":"\u0000"}`:           false,
		`{"a":"x\\\u0000"}`:        false,
		"{\"a\":\"\xff\"}":         false,
		`{"a":"tide","b":1}`:       false,
		`{"a":"tide"}{"a":"tide"}`: false,
		`{"a":`:                    false,
		``:                         false,
	} {
		var into struct{ A string }
		if err := strict.Read([]byte(text), &into); (err == nil) != want {
			t.Errorf("%s: %v", text, err)
		}
	}
}

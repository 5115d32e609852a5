// Package strict reads JSON as it comes over the wire: nothing that does not
// belong there, and nothing that the database cannot keep.
package strict

import (
	"bytes"
	"encoding/json"
	"io"
	"regexp"
	"unicode/utf8"

	"alpenglow/core/refusal"
)

// nul is an escaped NUL: a backslash that is not itself escaped, and u0000.
var nul = regexp.MustCompile(`(^|[^\\])(\\\\)*\\u0000`)

// Read reads one JSON value. Fields that the target does not have, anything
// behind the value, broken UTF-8, and the character NUL are refused.
func Read(data []byte, into any) error {
	// The expression is slow, and what it looks for is hardly ever there.
	if !utf8.Valid(data) || bytes.Contains(data, []byte(`\u0000`)) && nul.Match(data) {
		return refusal.About(refusal.Malformed, "characters that cannot be kept")
	}
	reader := json.NewDecoder(bytes.NewReader(data))
	reader.DisallowUnknownFields()
	if err := reader.Decode(into); err != nil {
		return refusal.New(refusal.Malformed)
	}
	if _, err := reader.Token(); err != io.EOF {
		return refusal.New(refusal.Malformed)
	}
	return nil
}

// Package prose answers: may a text stand on a page as somebody wrote it?
package prose

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"alpenglow/core/refusal"
)

// maxCombining is how many combining marks may stand on one letter; more
// than a few pile up over the lines around. Common practice.
const maxCombining = 8

// Check refuses overlong text and characters that would garble the page:
// control characters except line feed and tab, the marks that turn the
// direction of the text around them, and piles of combining marks.
func Check(text string, limit int) error {
	pile := 0
	for _, r := range text {
		if unicode.Is(unicode.M, r) {
			pile++
		} else {
			pile = 0
		}
		if r == utf8.RuneError || unicode.IsControl(r) && r != '\n' && r != '\t' || Turns(r) || pile > maxCombining {
			return refusal.New(refusal.TextControl)
		}
	}
	if n := utf8.RuneCountInString(text); n > limit {
		return refusal.About(refusal.TextTooLong, "%d characters, at most %d", n, limit)
	}
	return nil
}

// Turns reports whether r overrides or embeds the direction of text
// (Unicode Standard Annex 9, explicit directional formatting characters).
// The isolates are harmless and stay allowed.
func Turns(r rune) bool { return r >= 0x202A && r <= 0x202E }

// IsBlank reports whether there is nothing to read in a text.
func IsBlank(text string) bool { return strings.TrimSpace(text) == "" }

package lesson

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"alpenglow/core/refusal"
)

// Limits of the words on one mark (see docs/architecture.md for all limits).
const (
	MaxNote = 600  // characters on a sticky note, in a shape, under a picture
	MaxText = 4000 // characters in a text
	// maxCombining is how many combining marks may stand on one letter; more
	// than a few pile up over the lines around. Common practice.
	maxCombining = 8
)

// CheckWords refuses overlong text and characters that would garble the page.
func CheckWords(text string, limit int) error { return checkWords(text, limit) }

// checkText refuses text without words, and what checkWords refuses.
func checkText(text string, limit int) error {
	if strings.TrimSpace(text) == "" {
		return refusal.New(refusal.EmptyNote)
	}
	return checkWords(text, limit)
}

// CheckText refuses what a person writes if it is blank, longer than so many
// characters, or would garble the page.
func CheckText(text string, limit int) error { return checkText(text, limit) }

// checkWords refuses overlong text and characters that would garble the page:
// control characters except line feed and tab, the marks that turn the
// direction of the text around them, and piles of combining marks.
func checkWords(text string, limit int) error {
	pile := 0
	for _, r := range text {
		if unicode.Is(unicode.M, r) {
			pile++
		} else {
			pile = 0
		}
		if r == utf8.RuneError || unicode.IsControl(r) && r != '\n' && r != '\t' || TurnsText(r) ||
			pile > maxCombining {
			return refusal.New(refusal.TextControl)
		}
	}
	if n := utf8.RuneCountInString(text); n > limit {
		return refusal.About(refusal.TextTooLong, "%d characters, at most %d", n, limit)
	}
	return nil
}

// TurnsText reports whether r overrides or embeds the direction of text
// (Unicode Standard Annex 9, explicit directional formatting characters).
// The isolates are harmless and stay allowed.
func TurnsText(r rune) bool { return r >= 0x202A && r <= 0x202E }

// Package find answers: do the words that somebody types occur in a text?
//
// Case, accents and the forms in which Unicode writes the same letter make no
// difference: "MARE" finds "maré", and "ebbe" finds "Eb\u00ADbe" with a soft
// hyphen in it.
package find

import (
	"strings"
	"unicode"

	"golang.org/x/text/cases"
	"golang.org/x/text/unicode/norm"
)

// MaxWords is how many of the words that somebody types are looked for.
const MaxWords = 8

// accents are the marks that people leave out when they type in a hurry: on
// Latin, Greek and Cyrillic letters, and the vowel points of Hebrew and Arabic.
// The vowel signs of Indian and Thai writing are none: they tell words apart.
var accents = &unicode.RangeTable{R16: []unicode.Range16{
	{Lo: 0x0300, Hi: 0x036F, Stride: 1}, {Lo: 0x0591, Hi: 0x05C7, Stride: 1}, {Lo: 0x0610, Hi: 0x061A, Stride: 1},
	{Lo: 0x064B, Hi: 0x065F, Stride: 1}, {Lo: 0x0670, Hi: 0x0670, Stride: 1}, {Lo: 0x1AB0, Hi: 0x1AFF, Stride: 1},
	{Lo: 0x1DC0, Hi: 0x1DFF, Stride: 1}, {Lo: 0x20D0, Hi: 0x20FF, Stride: 1}, {Lo: 0xFE20, Hi: 0xFE2F, Stride: 1},
}}

// Plain gives a text as it is compared: in compatibility form, without case,
// accents and what cannot be seen, with single blanks.
func Plain(text string) string {
	// Folding may compose letters, so it comes between two decompositions;
	// of some letters (Cherokee) it changes the case, so all are small before.
	text = strings.ToValidUTF8(text, " ")
	text = norm.NFKD.String(cases.Fold().String(strings.ToLower(norm.NFKD.String(text))))
	text = strings.Map(func(r rune) rune {
		if unicode.Is(accents, r) || unicode.Is(unicode.Cf, r) {
			return -1
		}
		return r
	}, text)
	return strings.Join(strings.Fields(text), " ")
}

// Words reads what somebody types into a search field: its words in plain form.
func Words(typed string) []string {
	// Nobody types more than this, and no letter is cut in two by Plain.
	words := strings.Fields(Plain(typed[:min(len(typed), 1000)]))
	return words[:min(len(words), MaxWords)]
}

// In says whether each of the words occurs in a plain text, anywhere in its
// words. No words occur in every text.
func In(plain string, words []string) bool {
	for _, w := range words {
		if !strings.Contains(plain, w) {
			return false
		}
	}
	return true
}

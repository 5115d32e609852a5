package alike

import (
	"strings"
	"unicode"

	"github.com/kljensen/snowball/english"
	"github.com/kljensen/snowball/french"
	"github.com/kljensen/snowball/hungarian"
	"github.com/kljensen/snowball/norwegian"
	"github.com/kljensen/snowball/russian"
	"github.com/kljensen/snowball/spanish"
	"github.com/kljensen/snowball/swedish"
	"github.com/rivo/uniseg"
	"golang.org/x/text/cases"
	"golang.org/x/text/unicode/norm"
)

// stemmer is what is known of a language: the stem of a word, and which words say
// nothing by themselves.
type stemmer struct {
	stem func(word string, stemStopWords bool) string
	stop func(word string) bool
}

// stemmers are the languages whose stems are known (Snowball).
var stemmers = map[string]stemmer{
	"en": {english.Stem, english.IsStopWord}, "es": {spanish.Stem, spanish.IsStopWord},
	"fr": {french.Stem, french.IsStopWord}, "hu": {hungarian.Stem, hungarian.IsStopWord},
	"no": {norwegian.Stem, norwegian.IsStopWord}, "ru": {russian.Stem, russian.IsStopWord},
	"sv": {swedish.Stem, swedish.IsStopWord},
}

// folded gives a text by which it is compared: in one Unicode form, without case and
// without signs that nobody sees.
func folded(text string) string {
	return strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Cf, r) || r == '\u00ad' {
			return -1
		}
		return r
	}, cases.Fold().String(norm.NFKC.String(text)))
}

// spoken gives the words of a text as they are written, by the boundaries of Unicode's
// annex 29: what has a letter or a digit is one.
func spoken(text string) []string {
	var words []string
	state := -1
	for len(text) > 0 {
		var word string
		word, text, state = uniseg.FirstWordInString(text, state)
		if strings.IndexFunc(word, func(r rune) bool { return unicode.IsLetter(r) || unicode.IsDigit(r) }) >= 0 {
			words = append(words, word)
		}
	}
	return words
}

// empty reports whether a word says nothing by itself in a language.
func empty(word, language string) bool {
	s, ok := stemmers[language]
	return ok && s.stop(strings.ToLower(word))
}

// Tokens gives what a text is compared by: the stems of its words without those that
// say nothing by themselves, or in a language whose stems are not known, its runs of three
// letters within words. A text that would have none keeps its words.
func Tokens(text, language string) []string {
	words := spoken(folded(text))
	s, ok := stemmers[language]
	var tokens []string
	for _, w := range words {
		switch {
		case !ok:
			tokens = append(tokens, trigrams(w)...)
		case !s.stop(w):
			tokens = append(tokens, s.stem(strings.TrimSuffix(w, "'s"), true))
		}
	}
	if len(tokens) == 0 {
		return words
	}
	return tokens
}

// trigrams gives the runs of three letters of a word, with its ends marked.
func trigrams(word string) []string {
	r := []rune(" " + word + " ")
	var all []string
	for i := range len(r) - 2 {
		all = append(all, string(r[i:i+3]))
	}
	return all
}

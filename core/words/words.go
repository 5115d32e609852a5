// Package words answers: does a text hold a word that a class should not read unasked?
// It compares whole words, as people read them: in any case and Unicode form, with
// letters that look alike, with digits and signs for letters, drawn out or spaced.
package words

import (
	"embed"
	"slices"
	"strings"
	"sync"
	"unicode"

	"github.com/mtibben/confusables"
	"golang.org/x/text/cases"
	"golang.org/x/text/unicode/norm"
)

//go:embed lists/*.txt
var lists embed.FS

// Languages lists those of which words are known, by their BCP 47 tags.
var Languages = []string{"ar", "cs", "da", "de", "en", "es", "fi", "fr", "hu", "it", "nl", "no", "pl", "pt", "ru", "sv",
	"tr"}

// MaxOwn is how many words of their own a teacher may add, MaxWord how many
// characters one of them may have.
const (
	MaxOwn  = 100
	MaxWord = 40
)

// longest is how many words a phrase of a list has at most, spaced how many letters
// that stand alone make a word.
const (
	longest = 5
	spaced  = 3
)

type list struct {
	once    sync.Once
	phrases map[string]bool
}

var known = func() map[string]*list {
	all := map[string]*list{}
	for _, l := range Languages {
		all[l] = &list{}
	}
	return all
}()

func (l *list) of(language string) map[string]bool {
	l.once.Do(func() {
		text, _ := lists.ReadFile("lists/" + language + ".txt")
		l.phrases = folded(strings.Split(string(text), "\n"))
	})
	return l.phrases
}

func folded(words []string) map[string]bool {
	phrases := map[string]bool{}
	for _, w := range words {
		if p := strings.Join(tokens(w), " "); p != "" {
			phrases[p] = true
		}
	}
	return phrases
}

// Watch is which words are looked for: those of some languages, and others.
type Watch struct {
	Languages []string
	Own       []string
}

// Finds lists the words of a text for which it should be read first, as they are
// compared; none for a text that has none.
func (w Watch) Finds(text string) []string {
	sets := []map[string]bool{folded(w.Own)}
	for _, l := range w.Languages {
		if k, ok := known[l]; ok {
			sets = append(sets, k.of(l))
		}
	}
	var found []string
	look := func(phrase string) {
		for _, set := range sets {
			if set[phrase] && !slices.Contains(found, phrase) {
				found = append(found, phrase)
			}
		}
	}
	for _, read := range [][]string{tokens(text), tokens(shorter(text, 2)), tokens(shorter(text, 1))} {
		for i := range read {
			for n := 1; n <= longest && i+n <= len(read); n++ {
				look(strings.Join(read[i:i+n], " "))
			}
		}
		for _, word := range together(read) {
			look(word)
		}
	}
	return found
}

// tokens gives the words of a text, folded: what looks alike or reads alike is the same.
func tokens(text string) []string {
	text = strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Cf, r) || r == '\u00ad' || unicode.Is(unicode.Mn, r) {
			return -1 // signs that nobody sees, and marks on letters
		}
		return r
	}, norm.NFKD.String(cases.Fold().String(norm.NFKC.String(text))))
	words := strings.FieldsFunc(text, func(r rune) bool {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r) && !strings.ContainsRune("@$!", r)
	})
	out := words[:0]
	for _, w := range words {
		if w = strings.TrimRight(w, "!"); w != "" {
			out = append(out, letters(w))
		}
	}
	return out
}

var instead = strings.NewReplacer("@", "a", "$", "s", "!", "i", "0", "o", "1", "i", "3", "e", "4", "a", "5", "s",
	"7", "t")

// letters reads digits and signs in a word as the letters that they look like; what
// is a number stays one.
func letters(word string) string {
	if strings.IndexFunc(word, unicode.IsLetter) < 0 {
		return word
	}
	return confusables.Skeleton(cases.Fold().String(instead.Replace(word)))
}

// shorter cuts letters that are repeated more than twice to so many.
func shorter(text string, to int) string {
	var b strings.Builder
	run := []rune{}
	end := func() {
		if len(run) > 2 {
			run = run[:to]
		}
		b.WriteString(string(run))
		run = run[:0]
	}
	for _, r := range text {
		if len(run) > 0 && unicode.ToLower(run[0]) != unicode.ToLower(r) {
			end()
		}
		run = append(run, r)
	}
	end()
	return b.String()
}

// together gives the words that letters make which stand alone one after the other.
func together(words []string) []string {
	var found []string
	var run strings.Builder
	n := 0
	end := func() {
		if n >= spaced {
			found = append(found, run.String())
		}
		run.Reset()
		n = 0
	}
	for _, w := range words {
		if len([]rune(w)) != 1 {
			end()
			continue
		}
		run.WriteString(w)
		n++
	}
	end()
	return found
}

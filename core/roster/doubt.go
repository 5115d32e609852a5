package roster

import (
	"slices"
	"strings"
	"unicode"

	"alpenglow/core/words"
)

// Doubt is why a name may not be what somebody is called.
type Doubt string

// It holds a word that a class should not read unasked; it looks like the teacher's;
// somebody who is in has one that looks the same; it has hardly a letter; nobody on the
// class list is called like that.
const (
	DoubtWord     Doubt = "word"
	DoubtTeacher  Doubt = "teacher"
	DoubtTwice    Doubt = "twice"
	DoubtLetters  Doubt = "letters"
	DoubtStranger Doubt = "stranger"
)

// Doubts lists them.
var Doubts = []Doubt{DoubtWord, DoubtTeacher, DoubtTwice, DoubtLetters, DoubtStranger}

// Doubtful gives what speaks against a name, given those of the class list, which may be
// empty, the names of those who are in, and the teacher's; "" for nothing. It is no
// verdict: real names have been found doubtful, so that they are asked about and no more.
func Doubtful(name string, list []Listed, in []string, teacher string) Doubt {
	_, listed := Find(list, name)
	same := func(other string) bool {
		return slices.ContainsFunc(forms(name), func(f string) bool { return slices.Contains(forms(other), f) })
	}
	switch {
	case slices.ContainsFunc(in, same):
		return DoubtTwice
	case listed:
		return ""
	case same(teacher):
		return DoubtTeacher
	case len(words.Watch{Languages: words.Languages}.Finds(name)) > 0:
		return DoubtWord
	case letters(name) < 2 && letters(name) < len([]rune(strings.ReplaceAll(name, " ", ""))):
		return DoubtLetters
	case len(list) > 0 && len(Likely(list, name)) == 0:
		return DoubtStranger
	}
	return ""
}

// letters counts them; in some scripts one letter is a name.
func letters(name string) (n int) {
	for _, r := range name {
		if unicode.IsLetter(r) {
			n++
		}
	}
	return n
}

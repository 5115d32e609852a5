// Package roster answers: who is in the class, by what code do they come in,
// and by what name are they known?
package roster

import (
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"alpenglow/core/prose"
	"alpenglow/core/refusal"

	"github.com/mtibben/confusables"
	"github.com/rivo/uniseg"
	"golang.org/x/text/cases"
	"golang.org/x/text/unicode/norm"
)

// Alphabet is what join codes are made of: the digits and capital letters
// without those that are mistaken for each other (0 O, 1 I L).
const Alphabet = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"

// CodeLength is how many symbols a join code has: 29.7 bits.
const CodeLength = 6

// MaxName is how many characters a reader sees at most in a name.
const MaxName = 40

// FrontLength is how many symbols the code has that a front screen shows while it
// waits: 19.8 bits for the minutes in which it counts, once.
const FrontLength = 4

// Code makes a join code from random numbers; random(n) gives one in 0..n-1.
func Code(random func(n int) int) string { return codeOf(CodeLength, random) }

// FrontCode makes the code of a front screen.
func FrontCode(random func(n int) int) string { return codeOf(FrontLength, random) }

func codeOf(length int, random func(n int) int) string {
	var code strings.Builder
	for range length {
		code.WriteByte(Alphabet[random(len(Alphabet))])
	}
	return code.String()
}

// CardLength is how many symbols the code of a name card has: 39.6 bits, because it is
// good for the whole year.
const CardLength = 8

// Card makes the code of a name card.
func Card(random func(n int) int) string { return codeOf(CardLength, random) }

// ReadCard reads the code of a name card as people type it, as ReadCode does.
func ReadCard(typed string) (string, error) {
	code, err := read(typed, CardLength)
	if err != nil {
		return "", refusal.New(refusal.CardMistyped)
	}
	return code, nil
}

// ShownCard gives the code of a name card in two halves, to be read and typed.
func ShownCard(code string) string { return code[:len(code)/2] + " " + code[len(code)/2:] }

// Bits gives the information in a join code.
func Bits() float64 { return CodeLength * math.Log2(float64(len(Alphabet))) }

// ReadCode reads a code as people type it: in any case, with blanks, hyphens
// and dashes anywhere.
func ReadCode(typed string) (string, error) { return read(typed, CodeLength) }

// ReadFrontCode reads the code of a front screen, as ReadCode does.
func ReadFrontCode(typed string) (string, error) { return read(typed, FrontLength) }

func read(typed string, length int) (string, error) {
	var code strings.Builder
	for _, r := range norm.NFKC.String(typed) {
		if unicode.IsSpace(r) || unicode.Is(unicode.Pd, r) || unicode.Is(unicode.Cf, r) {
			continue
		}
		r = unicode.ToUpper(r)
		if !strings.ContainsRune(Alphabet, r) || code.Len() == length {
			return "", refusal.New(refusal.CodeMistyped)
		}
		code.WriteRune(r)
	}
	if code.Len() != length {
		return "", refusal.New(refusal.CodeMistyped)
	}
	return code.String(), nil
}

// ReadName reads a name as a student types it: normalised, without blanks
// around it and with single ones inside.
func ReadName(typed string) (string, error) {
	if !utf8.ValidString(typed) {
		return "", refusal.New(refusal.NameControl)
	}
	// No name needs this many bytes; do not normalise a megabyte.
	if len(typed) > 64*MaxName {
		return "", refusal.New(refusal.NameTooLong)
	}
	name := strings.Join(strings.Fields(norm.NFC.String(typed)), " ")
	for _, r := range name {
		if prose.Turns(r) || unseen(r) {
			return "", refusal.New(refusal.NameControl)
		}
	}
	if err := prose.Check(name, 4*MaxName); err != nil && refusal.Of(err).Code == refusal.TextControl {
		return "", refusal.New(refusal.NameControl)
	}
	if strings.IndexFunc(name, func(r rune) bool {
		return unicode.IsLetter(r) || unicode.IsNumber(r) ||
			unicode.Is(unicode.So, r)
	}) < 0 {
		return "", refusal.New(refusal.NameEmpty)
	}
	if uniseg.GraphemeClusterCount(name) > MaxName || utf8.RuneCountInString(name) > 4*MaxName {
		return "", refusal.New(refusal.NameTooLong)
	}
	return name, nil
}

// unseen reports whether r shows nothing: format signs, but for the two that
// join and part letters in some scripts, and fillers that count as letters.
func unseen(r rune) bool {
	const zeroWidthNonJoiner, zeroWidthJoiner = 0x200C, 0x200D
	if unicode.Is(unicode.Cf, r) {
		return r != zeroWidthJoiner && r != zeroWidthNonJoiner
	}
	return unicode.Is(unicode.Other_Default_Ignorable_Code_Point, r) || r == 0x2800 // a Braille pattern without dots
}

// Apart gives a name that tells its bearer apart from those who are there:
// the second Noor becomes "Noor 2". Names count as the same when they look so
// (UTS 39, skeletons), or differ in case or in Unicode form alone.
func Apart(name string, taken []string) string {
	there := newTaken(len(taken))
	for _, t := range taken {
		there.add(t)
	}
	return there.apart(name)
}

// takenNames are the forms of the names that are taken.
type takenNames map[string]bool

func newTaken(names int) takenNames { return make(takenNames, 2*names) }

func (t takenNames) add(name string) {
	for _, form := range forms(name) {
		t[form] = true
	}
}

// apart gives a name that is not taken, and takes it.
func (t takenNames) apart(name string) string {
	candidate := name
	for n := 2; slices.ContainsFunc(forms(candidate), func(form string) bool { return t[form] }); n++ {
		candidate = name + " " + strconv.Itoa(n)
	}
	t.add(candidate)
	return candidate
}

// forms gives what a name looks like as it is written, and what it looks like in
// small letters: names that share one of the two can be taken for each other.
func forms(name string) []string {
	plain := strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Cf, r) {
			return -1
		}
		return r
	}, norm.NFKC.String(name))
	fold := cases.Fold()
	return []string{"written " + fold.String(confusables.Skeleton(plain)),
		"small " + confusables.Skeleton(fold.String(plain))}
}

// Package number answers: which number did somebody type, in which unit, and is it near
// enough to another? It reads as a class's language writes, exactly, and never guesses.
package number

import (
	"math/big"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"unicode"
	"unicode/utf8"

	"alpenglow/core/refusal"

	"golang.org/x/text/language"
	"golang.org/x/text/message"
	"golang.org/x/text/number"
)

// Bounds of a number: how many characters and digits it may have, and the largest power
// of ten, either way.
const (
	MaxText   = 80
	maxDigits = 40
	maxPower  = 30
)

// Typed is a number that was read, exactly, with the unit behind it as it was written.
type Typed struct {
	Value *big.Rat
	Unit  string
}

// signs are how a language writes numbers.
type signs struct {
	decimal, group string
	// indian: groups of two before the last three.
	indian bool
}

// known are the signs of languages that were asked for, at most mostKnown.
var (
	known     sync.Map
	knownSize atomic.Int64
)

const mostKnown = 200

// signsOf gives them, looked up once for each language.
func signsOf(tag string) signs {
	if s, ok := known.Load(tag); ok {
		return s.(signs)
	}
	s := lookUpSigns(tag)
	if knownSize.Add(1) <= mostKnown {
		known.Store(tag, s)
	}
	return s
}

// lookUpSigns takes them from the Unicode data for languages (CLDR).
func lookUpSigns(tag string) signs {
	lang, err := language.Parse(tag)
	if err != nil {
		lang = language.English
	}
	p := message.NewPrinter(lang)
	// What stands between the digits of a number that has both signs.
	parts := strings.FieldsFunc(p.Sprint(number.Decimal(12345678.5)), unicode.IsDigit)
	s := signs{decimal: ".", group: ","}
	if len(parts) > 0 {
		s.decimal = parts[len(parts)-1]
	}
	if len(parts) > 1 {
		s.group = parts[0]
	}
	s.indian = len(parts) == 4
	return s
}

const factors = `[\p{L}\p{M}°%‰$€£¥'"]+(\^?[-+]?[0-9])?`

var (
	// Fractions that are one sign, and digits that stand high.
	vulgar = map[rune]string{'½': "1/2", '⅓': "1/3", '⅔': "2/3", '¼': "1/4", '¾': "3/4", '⅕': "1/5", '⅖': "2/5",
		'⅗': "3/5", '⅘': "4/5", '⅙': "1/6", '⅚': "5/6", '⅐': "1/7", '⅛': "1/8", '⅜': "3/8", '⅝': "5/8", '⅞': "7/8",
		'⅑': "1/9", '⅒': "1/10"}
	high = map[rune]rune{'⁰': '0', '¹': '1', '²': '2', '³': '3', '⁴': '4', '⁵': '5', '⁶': '6', '⁷': '7', '⁸': '8',
		'⁹': '9', '⁻': '-', '⁺': '+'}

	// A number in plain signs: a sign, a whole part with groups, decimals of which the
	// last ones may come again and again, a fraction, a power of ten.
	shape = regexp.MustCompile(`^([-+]?) ?(?:` +
		`([0-9]+) ([0-9]+)/([0-9]+)|` + // 1-3: a whole number and a fraction
		`([0-9]+)/([0-9]+)|` + // 4, 5: a fraction
		`([0-9_]*)(?:\.([0-9]*)(?:\(([0-9]+)\))?)?` + // 6-8: a decimal number
		`(?: ?(?:[eE]|[*x]10\^)([-+]?[0-9]+))?|` + // 9: times a power of ten
		`10\^([-+]?[0-9]+)` + // 10: a power of ten alone
		`)$`)
	western = regexp.MustCompile(`^[0-9]{1,3}(_[0-9]{3})+$`)
	indian  = regexp.MustCompile(`^[0-9]{1,2}(_[0-9]{2})*_[0-9]{3}$`)
	times   = regexp.MustCompile(` ?[*x] ?10 ?\^ ?`)
	slash   = regexp.MustCompile(` ?/ ?`)
	// One or more units, with powers, multiplied and divided.
	units = regexp.MustCompile(`^/?` + factors + `([ */]` + factors + `)*$`)
	// What a number is made of, in plain signs; what follows is its unit.
	digits = regexp.MustCompile(`^[-+]? ?[0-9._/()+^* -]*(?:[x*] ?10\^[-+]?[0-9]+|[eE][-+]?[0-9]+)?`)
)

// Read gives the number that a text is in a language (a BCP 47 tag), and the unit
// behind it. It takes digits of every script, the language's signs for decimals and
// groups, thin and other spaces and apostrophes between groups of three, fractions,
// decimals that come again as 1.(3), and powers of ten. What could be two numbers in
// other languages is the one that it is in this. What is no number is refused.
func Read(text, tag string) (Typed, error) {
	if utf8.RuneCountInString(text) > MaxText {
		return Typed{}, refusal.About(refusal.NotANumber, "at most %d characters", MaxText)
	}
	plain := plainly(text, signsOf(tag))
	said := strings.TrimSpace(digits.FindString(plain))
	unit := strings.TrimSpace(plain[len(digits.FindString(plain)):])
	// A power of ten may end in what looks like a unit's first letters: take the longest that is a number.
	for cut := len(said); cut > 0; cut-- {
		m := shape.FindStringSubmatch(strings.TrimSpace(said[:cut]))
		if m == nil {
			continue
		}
		if rest := strings.TrimSpace(said[cut:]); rest != "" {
			if rest[0] != '/' && rest[0] != '*' {
				break // more digits or signs: not a unit
			}
			unit = rest + unit
		}
		value, ok := valueOf(m, signsOf(tag).indian)
		if !ok || unit != "" && !units.MatchString(unit) {
			break
		}
		return Typed{value, unit}, nil
	}
	return Typed{}, refusal.New(refusal.NotANumber)
}

// plainly writes a text with ASCII digits and signs: decimals after a point, groups
// parted by _.
func plainly(text string, s signs) string {
	var b strings.Builder
	var before rune // the last letter that was written
	write := func(r rune) {
		b.WriteRune(r)
		before = r
	}
	runes := []rune(strings.TrimSpace(text))
	digitAt := func(i int) bool { return i >= 0 && i < len(runes) && unicode.IsDigit(runes[i]) }
	raised := false
	for i, r := range runes {
		h, isHigh := high[r]
		if isHigh && !raised && (unicode.IsDigit(before) || before == ')') {
			write('^')
		}
		raised = isHigh
		between := digitAt(i-1) && digitAt(i+1)
		switch {
		case isHigh:
			write(h)
		case unicode.IsDigit(r):
			write('0' + digit(r))
		case vulgar[r] != "":
			if unicode.IsDigit(before) {
				write(' ')
			}
			b.WriteString(vulgar[r])
			before = '1'
		case unicode.Is(unicode.Cf, r): // marks of direction, and what joins
		case r == '−' || r == '–' || r == '﹣' || r == '－':
			write('-')
		case r == '⁄' || r == '∕':
			write('/')
		case r == '×' || r == '·' || r == '⋅' || r == '∙':
			write('*')
		case string(r) == s.decimal || r == '٫' || s.decimal == "٫" && r == '.':
			write('.')
		case between && (string(r) == s.group || isGroup(r) || s.decimal == "٫" && r == ','):
			write('_')
		case between && unicode.IsSpace(r) && threeFollow(runes[i+1:]):
			write('_')
		case unicode.IsSpace(r):
			write(' ')
		case r == '.' || r == ',' || r == '_':
			// Signs of another language: no number here.
			write('?')
		default:
			write(r)
		}
	}
	said := times.ReplaceAllString(b.String(), "*10^")
	return slash.ReplaceAllString(said, "/")
}

// isGroup: an apostrophe, a narrow or thin space, the Arabic sign for thousands.
func isGroup(r rune) bool { return strings.ContainsRune("'’\u00a0\u202f\u2009٬", r) }

// threeFollow says whether exactly three digits come next, as in a group, and no fraction.
func threeFollow(rest []rune) bool {
	n := 0
	for n < len(rest) && unicode.IsDigit(rest[n]) {
		n++
	}
	return n == 3 && (len(rest) == 3 || rest[3] != '/' && rest[3] != '⁄')
}

// digit gives the value of a decimal digit of any script: they stand in rows of ten, from 0.
func digit(r rune) rune {
	first := r
	for unicode.IsDigit(first - 1) {
		first--
	}
	return (r - first) % 10
}

// valueOf computes what the parts of the shape are.
func valueOf(m []string, twos bool) (*big.Rat, bool) {
	n := 0
	for _, r := range m[0] {
		if unicode.IsDigit(r) {
			n++
		}
	}
	if n == 0 || n > maxDigits {
		return nil, false
	}
	value := new(big.Rat)
	switch {
	case m[2] != "": // a whole number and a fraction
		value = fraction(m[3], m[4])
		if value == nil {
			return nil, false
		}
		value.Add(value, whole(m[2]))
	case m[5] != "":
		if value = fraction(m[5], m[6]); value == nil {
			return nil, false
		}
	case m[11] != "":
		return power(value.SetInt64(1), m[11], m[1])
	default:
		if m[7]+m[8]+m[9] == "" || strings.HasSuffix(m[0], ".") {
			return nil, false
		}
		if strings.Contains(m[7], "_") && !western.MatchString(m[7]) && !(twos && indian.MatchString(m[7])) {
			return nil, false
		}
		value = whole("0" + strings.ReplaceAll(m[7], "_", ""))
		value.Add(value, new(big.Rat).Quo(whole("0"+m[8]), tens(len(m[8]))))
		if m[9] != "" { // again and again: over as many nines
			nines := new(big.Rat).Sub(tens(len(m[9])), big.NewRat(1, 1))
			part := new(big.Rat).Quo(whole(m[9]), nines)
			value.Add(value, part.Quo(part, tens(len(m[8]))))
		}
		if m[10] != "" {
			return power(value, m[10], m[1])
		}
	}
	if m[1] == "-" {
		value.Neg(value)
	}
	return value, true
}

func whole(digits string) *big.Rat {
	n, _ := new(big.Int).SetString(digits, 10)
	return new(big.Rat).SetInt(n)
}

func tens(n int) *big.Rat {
	return new(big.Rat).SetInt(new(big.Int).Exp(big.NewInt(10), big.NewInt(int64(n)), nil))
}

func fraction(above, below string) *big.Rat {
	b := whole(below)
	if b.Sign() == 0 {
		return nil
	}
	return new(big.Rat).Quo(whole(above), b)
}

func power(value *big.Rat, exponent, sign string) (*big.Rat, bool) {
	n, err := strconv.Atoi(exponent)
	if err != nil || n > maxPower || n < -maxPower {
		return nil, false
	}
	if n >= 0 {
		value.Mul(value, tens(n))
	} else {
		value.Quo(value, tens(-n))
	}
	if sign == "-" {
		value.Neg(value)
	}
	return value, true
}

// Plainly writes a number that was read in a language's own signs, so that somebody
// sees how it was read: whole or with decimals where it ends, else as a fraction.
func Plainly(t Typed, tag string) string {
	text := t.Value.RatString()
	if places, ends := t.Value.FloatPrec(); ends && places <= maxDigits {
		lang, err := language.Parse(tag)
		if err != nil {
			lang = language.English
		}
		// The library takes floating point numbers; what these cannot hold stays as it is.
		f, _ := t.Value.Float64()
		text = message.NewPrinter(lang).
			Sprint(number.Decimal(f, number.MaxFractionDigits(places), number.MinFractionDigits(places)))
		if back, err := Read(text, tag); err != nil || back.Value.Cmp(t.Value) != 0 {
			text = t.Value.FloatString(places)
		}
	}
	if t.Unit != "" {
		text += " " + t.Unit
	}
	return text
}

package number

import (
	"maps"
	"math/big"
	"regexp"
	"strconv"
	"strings"
)

// Unit is a unit of measure: so many of its base units, from a zero of its own.
type Unit struct {
	factor *big.Rat
	zero   *big.Rat // how many base units its zero is; of temperatures
	of     map[string]int
}

// base is one named unit: its factor and what it measures, as powers of base units.
type base struct {
	factor string
	zero   string
	of     string // as "m:1 s:-1"
	prefix bool   // takes kilo, milli and so on
}

// Named units: SI and what is accepted beside it (SI Brochure, 9th edition), and others by
// the agreement of 1959 and as commonly defined; from memory.
var named = map[string]base{
	"m": {"1", "", "m:1", true}, "g": {"1/1000", "", "kg:1", true}, "s": {"1", "", "s:1", true},
	"A": {"1", "", "A:1", true}, "K": {"1", "", "K:1", true}, "mol": {"1", "", "mol:1", true},
	"cd": {"1", "", "cd:1", true}, "rad": {"1", "", "", true},
	"Hz": {"1", "", "s:-1", true}, "N": {"1", "", "m:1 kg:1 s:-2", true}, "Pa": {"1", "", "m:-1 kg:1 s:-2", true},
	"J": {"1", "", "m:2 kg:1 s:-2", true}, "W": {"1", "", "m:2 kg:1 s:-3", true}, "C": {"1", "", "A:1 s:1", true},
	"V": {"1", "", "m:2 kg:1 s:-3 A:-1", true}, "Ω": {"1", "", "m:2 kg:1 s:-3 A:-2", true},
	"F": {"1", "", "m:-2 kg:-1 s:4 A:2", true}, "T": {"1", "", "kg:1 s:-2 A:-1", true},
	"L": {"1/1000", "", "m:3", true}, "l": {"1/1000", "", "m:3", true}, "t": {"1000", "", "kg:1", true},
	"bar": {"100000", "", "m:-1 kg:1 s:-2", true}, "atm": {"101325", "", "m:-1 kg:1 s:-2", false},
	"eV": {"1.602176634e-19", "", "m:2 kg:1 s:-2", true}, "Wh": {"3600", "", "m:2 kg:1 s:-2", true},
	"cal": {"4.184", "", "m:2 kg:1 s:-2", true}, "B": {"8", "", "bit:1", true}, "bit": {"1", "", "bit:1", true},
	"min": {"60", "", "s:1", false}, "h": {"3600", "", "s:1", false}, "d": {"86400", "", "s:1", false},
	"day": {"86400", "", "s:1", false}, "days": {"86400", "", "s:1", false}, "hour": {"3600", "", "s:1", false},
	"hours": {"3600", "", "s:1", false}, "week": {"604800", "", "s:1", false}, "weeks": {"604800", "", "s:1", false},
	"ha": {"10000", "", "m:2", false}, "hectare": {"10000", "", "m:2", false},
	"in": {"0.0254", "", "m:1", false}, "inch": {"0.0254", "", "m:1", false}, "ft": {"0.3048", "", "m:1", false},
	"yd": {"0.9144", "", "m:1", false}, "mi": {"1609.344", "", "m:1", false}, "mile": {"1609.344", "", "m:1", false},
	"lb": {"0.45359237", "", "kg:1", false}, "oz": {"0.028349523125", "", "kg:1", false},
	"au": {"149597870700", "", "m:1", false}, "kn": {"1852/3600", "", "m:1 s:-1", false},
	"°C": {"1", "273.15", "K:1", false}, "degC": {"1", "273.15", "K:1", false},
	"°F": {"5/9", "45967/180", "K:1", false}, "degF": {"5/9", "45967/180", "K:1", false},
	"%": {"1/100", "", "", false}, "‰": {"1/1000", "", "", false},
	"°": {"1", "", "degree:1", false}, "deg": {"1", "", "degree:1", false},
}

var prefixes = map[string]string{"p": "1e-12", "n": "1e-9", "µ": "1e-6", "μ": "1e-6", "u": "1e-6", "m": "1/1000",
	"c": "1/100", "d": "1/10", "h": "100", "k": "1000", "M": "1000000", "G": "1000000000", "T": "1000000000000"}

var part = regexp.MustCompile(`([*/ ]?)([\p{L}\p{M}°%‰$€£¥'"]+)(?:\^?([-+]?[0-9]))?`)

// UnitOf reads a unit: named ones with their prefixes and powers, multiplied and divided. A
// word that names none, such as apples, is a unit of its own.
func UnitOf(text string) Unit {
	u := Unit{big.NewRat(1, 1), new(big.Rat), map[string]int{}}
	found := part.FindAllStringSubmatch(strings.TrimSpace(plainly(text, signs{".", ",", false})), -1)
	for _, m := range found {
		power := 1
		if m[3] != "" {
			power, _ = strconv.Atoi(m[3])
		}
		if m[1] == "/" {
			power = -power
		}
		b, factor := lookUp(m[2])
		for range max(power, -power) {
			if power > 0 {
				u.factor.Mul(u.factor, factor)
			} else {
				u.factor.Quo(u.factor, factor)
			}
		}
		for _, measured := range strings.Fields(b.of) {
			name, n, _ := strings.Cut(measured, ":")
			times, _ := strconv.Atoi(n)
			if u.of[name] += times * power; u.of[name] == 0 {
				delete(u.of, name)
			}
		}
		// A zero of its own has a temperature, not what is measured per degree.
		if b.zero != "" && len(found) == 1 && power == 1 {
			u.zero = rat(b.zero)
		}
	}
	return u
}

// lookUp gives what is known of one unit, with a prefix or without.
func lookUp(name string) (base, *big.Rat) {
	if b, ok := named[name]; ok {
		return b, rat(b.factor)
	}
	for prefix, times := range prefixes {
		if b, ok := named[strings.TrimPrefix(name, prefix)]; ok && b.prefix && strings.HasPrefix(name, prefix) {
			return b, new(big.Rat).Mul(rat(times), rat(b.factor))
		}
	}
	return base{of: strings.ToLower(name) + "!:1"}, big.NewRat(1, 1)
}

func rat(text string) *big.Rat {
	r, _ := new(big.Rat).SetString(text)
	return r
}

// To converts a number in this unit into another; false where they measure something else.
func (u Unit) To(v Unit, x *big.Rat) (*big.Rat, bool) {
	if !maps.Equal(u.of, v.of) {
		return nil, false
	}
	y := new(big.Rat).Mul(x, u.factor)
	y.Add(y, u.zero)
	y.Sub(y, v.zero)
	return y.Quo(y, v.factor), true
}

// Is says whether two units are the same, however they are written.
func (u Unit) Is(v Unit) bool {
	return maps.Equal(u.of, v.of) && u.factor.Cmp(v.factor) == 0 && u.zero.Cmp(v.zero) == 0
}

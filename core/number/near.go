package number

import (
	"math/big"

	"alpenglow/core/refusal"
)

// Nearness says how near a number must be to another.
type Nearness string

// Exactly it; by so much above or below; by so many percent of it; the same when both
// are rounded to so many significant figures, or to so many decimals, halves away from
// zero.
const (
	Exact    Nearness = "exact"
	Absolute Nearness = "absolute"
	Relative Nearness = "relative"
	Figures  Nearness = "figures"
	Decimals Nearness = "decimals"
)

// Nearnesses lists them.
var Nearnesses = []Nearness{Exact, Absolute, Relative, Figures, Decimals}

// Tolerance is how near is near enough, all in exact decimals.
type Tolerance struct {
	Is Nearness `json:"is"`
	// Below and Above are how much may be missing and how much too many: of Relative in
	// percent. Places is how many figures or decimals are compared.
	Below  string `json:"below,omitempty"`
	Above  string `json:"above,omitempty"`
	Places int    `json:"places,omitempty"`
	// WithoutLow and WithoutHigh leave the very edge out.
	WithoutLow  bool `json:"withoutLow,omitempty"`
	WithoutHigh bool `json:"withoutHigh,omitempty"`
}

// MaxPlaces is how many figures or decimals are compared at most.
const MaxPlaces = 15

// Decimal reads a decimal number in plain signs, as 0.05; false for anything else.
func Decimal(text string) (*big.Rat, bool) {
	t, err := Read(text, "en")
	if err != nil || t.Unit != "" {
		return nil, false
	}
	return t.Value, true
}

// Check reports what is wrong with a tolerance.
func (t Tolerance) Check() error {
	switch t.Is {
	case Exact:
		return nil
	case Absolute, Relative:
		for _, amount := range []string{t.Below, t.Above} {
			if r, ok := Decimal(amount); !ok || r.Sign() < 0 {
				return refusal.About(refusal.NotANumber, "a tolerance is a number, 0 or more")
			}
		}
		return nil
	case Figures, Decimals:
		if t.Places < 0 || t.Places > MaxPlaces || t.Is == Figures && t.Places == 0 {
			return refusal.About(refusal.Malformed, "places of a tolerance are at most %d", MaxPlaces)
		}
		return nil
	}
	return refusal.About(refusal.Malformed, "kind of tolerance")
}

// Near says whether a number is near enough to what it should be.
func (t Tolerance) Near(key, got *big.Rat) bool {
	switch t.Is {
	case Figures:
		return Rounded(key, t.Places).Cmp(Rounded(got, t.Places)) == 0
	case Decimals:
		return decimals(key, t.Places).Cmp(decimals(got, t.Places)) == 0
	}
	low, high := t.Span(key)
	below, above := got.Cmp(low), got.Cmp(high)
	return (below > 0 || below == 0 && !t.WithoutLow) && (above < 0 || above == 0 && !t.WithoutHigh)
}

// Span gives from where to where a number is near enough to a key. Of rounding it is
// from one edge to the other, though one of them is rounded away.
func (t Tolerance) Span(key *big.Rat) (low, high *big.Rat) {
	low, high = new(big.Rat).Set(key), new(big.Rat).Set(key)
	switch t.Is {
	case Absolute, Relative:
		below, _ := Decimal(t.Below)
		above, _ := Decimal(t.Above)
		if below == nil || above == nil {
			return low, high
		}
		if t.Is == Relative {
			part := new(big.Rat).Mul(new(big.Rat).Abs(key), big.NewRat(1, 100))
			below, above = below.Mul(below, part), above.Mul(above, part)
		}
		return low.Sub(low, below), high.Add(high, above)
	case Decimals:
		mid, half := decimals(key, t.Places), new(big.Rat).Quo(big.NewRat(1, 2), scale(t.Places))
		return low.Sub(mid, half), high.Add(mid, half)
	case Figures:
		mid := Rounded(key, t.Places)
		if mid.Sign() == 0 {
			return mid, mid
		}
		m := magnitude(mid)
		out := new(big.Rat).Quo(big.NewRat(1, 2), scale(t.Places-1-m))
		in := new(big.Rat).Set(out)
		if new(big.Rat).Abs(mid).Cmp(scale(m)) == 0 { // what is less than a power of ten has finer steps
			in.Quo(in, big.NewRat(10, 1))
		}
		if mid.Sign() < 0 {
			in, out = out, in
		}
		return low.Sub(mid, in), high.Add(mid, out)
	}
	return low, high
}

// Rounded rounds to so many significant figures, halves away from zero.
func Rounded(x *big.Rat, figures int) *big.Rat {
	if x.Sign() == 0 {
		return new(big.Rat)
	}
	return decimals(x, figures-1-magnitude(x))
}

// decimals rounds to so many decimals, halves away from zero; to tens, hundreds with a
// negative count.
func decimals(x *big.Rat, places int) *big.Rat {
	scaled := new(big.Rat).Mul(new(big.Rat).Abs(x), scale(places))
	scaled.Add(scaled, big.NewRat(1, 2))
	n := new(big.Int).Quo(scaled.Num(), scaled.Denom())
	r := new(big.Rat).Quo(new(big.Rat).SetInt(n), scale(places))
	if x.Sign() < 0 {
		r.Neg(r)
	}
	return r
}

func scale(places int) *big.Rat {
	if places < 0 {
		return new(big.Rat).Inv(tens(-places))
	}
	return tens(places)
}

// magnitude gives the power of ten of the first figure of a number that is not 0.
func magnitude(x *big.Rat) int {
	a := new(big.Rat).Abs(x)
	m := 0
	if a.Sign() == 0 {
		return 0
	}
	for a.Cmp(scale(m+1)) >= 0 {
		m++
	}
	for a.Cmp(scale(m)) < 0 {
		m--
	}
	return m
}

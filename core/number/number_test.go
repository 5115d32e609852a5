package number

import (
	"encoding/json"
	"errors"
	"math"
	"math/big"
	"os"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/refusal"
)

// Cases that other libraries read and computed (testdata/checks.json names the sources;
// those whose certainty is B were recalled from memory).
func TestChecks(t *testing.T) {
	text, err := os.ReadFile("testdata/checks.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []struct {
		ID, Function    string
		Input, Expected json.RawMessage
	}
	if err := json.Unmarshal(text, &all); err != nil {
		t.Fatal(err)
	}
	read := func(id string, raw json.RawMessage, into any) {
		t.Helper()
		if err := json.Unmarshal(raw, into); err != nil {
			t.Fatal(id, err)
		}
	}
	known := 0
	for _, c := range all {
		known++
		switch name := c.Function; {
		case strings.HasPrefix(name, "QTI equal"):
			var in struct {
				X, Y          string
				ToleranceMode Nearness
				Tolerance     []string
				Low           bool `json:"includeLowerBound"`
				High          bool `json:"includeUpperBound"`
			}
			var want bool
			read(c.ID, c.Input, &in)
			read(c.ID, c.Expected, &want)
			tol := Tolerance{Is: in.ToleranceMode, WithoutLow: !in.Low, WithoutHigh: !in.High}
			if len(in.Tolerance) > 0 {
				tol.Below, tol.Above = in.Tolerance[0], in.Tolerance[len(in.Tolerance)-1]
			}
			if err := tol.Check(); err != nil {
				t.Errorf("%s: %v", c.ID, err)
			}
			if got := tol.Near(exact(t, in.X), exact(t, in.Y)); got != want {
				t.Errorf("%s: %v", c.ID, got)
			}
		case strings.HasPrefix(name, "round to n"):
			var in [][2]any
			var want []string
			read(c.ID, c.Input, &in)
			read(c.ID, c.Expected, &want)
			for i, pair := range in {
				x, places := exact(t, pair[0].(string)), int(pair[1].(float64))
				got := decimals(x, places)
				if strings.Contains(name, "significant") {
					got = Rounded(x, places)
				}
				if got.Cmp(exact(t, want[i])) != 0 {
					t.Errorf("%s: %v is rounded to %s, want %s", c.ID, pair, got.FloatString(6), want[i])
				}
			}
		case strings.HasPrefix(name, "parse localised"):
			var in struct{ Text, Locale string }
			var want float64
			read(c.ID, c.Input, &in)
			read(c.ID, c.Expected, &want)
			got, err := Read(in.Text, in.Locale)
			if err != nil || !near(got.Value, want) || got.Unit != "" {
				t.Errorf("%s: %+v, %v", c.ID, got, err)
			}
		case strings.HasPrefix(name, "how ICU"):
			var want [][3]any
			read(c.ID, c.Expected, &want)
			for _, row := range want {
				for i, locale := range []string{"en-US", "de-DE"} {
					got, err := Read(row[0].(string), locale)
					switch {
					case row[0] == "1,2345": // groups of another size than three are refused here
						if i == 0 && err == nil {
							t.Errorf("%v is read as %v", row[0], got.Value)
						}
					case (err != nil) != (row[i+1] == nil), err == nil && !near(got.Value, row[i+1].(float64)):
						t.Errorf("%v in %s: %+v, %v", row[0], locale, got, err)
					}
				}
			}
		case strings.HasPrefix(name, "fraction and"):
			var want map[string][2]any
			read(c.ID, c.Expected, &want)
			for text, value := range want {
				if got, err := Read(text, "en"); err != nil || got.Value.Cmp(exact(t, value[0].(string))) != 0 {
					t.Errorf("%s: %+v, %v", text, got, err)
				}
			}
		case strings.HasPrefix(name, "what NFKC"):
			for text, want := range map[string]string{"1½": "3/2", "½": "1/2", "10³": "1000", "−5": "-5", "１２": "12"} {
				if got, err := Read(text, "en"); err != nil || got.Value.Cmp(exact(t, want)) != 0 {
					t.Errorf("%s: %+v, %v", text, got, err)
				}
			}
			for _, text := range []string{"2⁵", "x²"} {
				if got, err := Read(text, "en"); err == nil {
					t.Errorf("%s is read as %v", text, got.Value)
				}
			}
		case strings.HasPrefix(name, "unit conversion"):
			var in struct{ Quantity, To string }
			var want float64
			read(c.ID, c.Input, &in)
			read(c.ID, c.Expected, &want)
			typed, err := Read(in.Quantity, "en")
			if err != nil {
				t.Fatal(c.ID, err)
			}
			got, same := UnitOf(typed.Unit).To(UnitOf(in.To), typed.Value)
			if !same || !near(got, want) {
				t.Errorf("%s: %v, %v, want %v", c.ID, got, same, want)
			}
		case strings.HasPrefix(name, "strings that Go"):
			var in []string
			read(c.ID, c.Input, &in)
			for _, text := range in {
				if got, err := Read(text, "en"); err == nil {
					t.Errorf("%q is read as %v %s", text, got.Value, got.Unit)
				}
			}
		default:
			known--
			t.Errorf("%s: nothing checks %q", c.ID, name)
		}
	}
	if known != len(all) || known == 0 {
		t.Errorf("%d of %d checked", known, len(all))
	}
}

func exact(t *testing.T, text string) *big.Rat {
	t.Helper()
	r, ok := new(big.Rat).SetString(text)
	if !ok {
		t.Fatal(text)
	}
	return r
}

func near(r *big.Rat, want float64) bool {
	got, _ := r.Float64()
	return math.Abs(got-want) <= 1e-12*math.Abs(want)
}

// What students type in earnest and in jest: read rightly, or refused.
func TestRead(t *testing.T) {
	for _, c := range []struct{ text, tag, value, unit string }{
		{"29,53 Tage", "de", "29.53", "Tage"}, {"29.53 days", "en", "29.53", "days"}, {"5km", "en", "5", "km"},
		{"5 m/s", "en", "5", "m/s"}, {"9.81 m/s²", "en", "9.81", "m/s2"}, {"9.81 m / s^2", "en", "9.81", "m/s^2"},
		{"3 × 10⁸ m/s", "en", "300000000", "m/s"}, {"3x10^8", "en", "300000000", ""}, {"1.5e3", "en", "1500", ""},
		{"2,5·10⁻³", "de", "1/400", ""}, {"-10³", "en", "-1000", ""}, {"- 5", "en", "-5", ""}, {"+5", "en", "5", ""},
		{"50 %", "de", "50", "%"}, {"20°C", "en", "20", "°C"}, {"1 000 m", "fr", "1000", "m"}, {".5", "en", ".5", ""},
		{"0,(3)", "de", "1/3", ""}, {"0.1(6)", "en", "1/6", ""}, {"3 1/4", "en", "13/4", ""},
		{"2½ h", "en", "2.5", "h"},
		{"٢٩٫٥٣", "ar", "29.53", ""}, {"29.53", "ar", "29.53", ""}, {"२९.५३", "hi", "29.53", ""},
		{"12,34,567", "hi", "1234567", ""},
		{"𝟚𝟡", "en", "29", ""}, {"\u200f-7\u200e", "he", "-7", ""}, {"7\u00ad", "en", "7", ""},
		{"29.53", "no tag at all", "29.53", ""}, {"29.53", "", "29.53", ""},
		{"", "en", "", ""}, {" ", "en", "", ""}, {"nan", "en", "", ""}, {"Infinity", "en", "", ""}, {"∞", "en", "", ""},
		{"1/0", "en", "", ""}, {"0/0", "en", "", ""}, {"1e400", "en", "", ""}, {"1e31", "en", "", ""},
		{"--5", "en", "", ""},
		{"5-3", "en", "", ""}, {"1.2.3", "en", "", ""}, {"1,2,3", "en", "", ""}, {"12,34,567", "en", "", ""},
		{"5.", "en", "", ""}, {".", "en", "", ""}, {"five", "en", "", ""}, {"🌙", "en", "", ""}, {"5 🌙", "en", "", ""},
		{"5 ft 3 in", "en", "", ""}, {"10:30", "en", "", ""}, {"1 23", "en", "", ""}, {"0,5", "en", "", ""},
		{"0.5", "de", "", ""},
		{"3,14", "en", "", ""}, {"1_000", "en", "", ""}, {strings.Repeat("9", 41), "en", "", ""},
		{strings.Repeat("9", 400), "en", "", ""}, {"5" + strings.Repeat(" ", 80), "en", "", ""}, {"(3)", "en", "", ""},
	} {
		got, err := Read(c.text, c.tag)
		switch {
		case c.value == "":
			if !errors.Is(err, refusal.New(refusal.NotANumber)) {
				t.Errorf("%q in %s: %+v, %v", c.text, c.tag, got, err)
			}
		case err != nil || got.Value.Cmp(exact(t, c.value)) != 0 || got.Unit != c.unit:
			t.Errorf("%q in %s: %+v, %v", c.text, c.tag, got, err)
		}
	}
}

// What measures something else is not converted; a word that is no unit is one of its own.
func TestUnits(t *testing.T) {
	one := big.NewRat(1, 1)
	for _, pair := range [][2]string{{"km/h", "m"}, {"m^2", "m"}, {"J", "W"}, {"apples", "pears"}, {"apples", "m"},
		{"", "m"}, {"°C", "m"}, {"km", "kg"}} {
		if _, same := UnitOf(pair[0]).To(UnitOf(pair[1]), one); same {
			t.Errorf("%s are %s", pair[0], pair[1])
		}
	}
	for _, c := range [][3]string{{"apples", "Apples", "1"}, {"N m", "J", "1"}, {"J/s", "W", "1"},
		{"kg m/s^2", "N", "1"},
		{"g/cm³", "kg/m³", "1000"}, {"m/s", "km/h", "3.6"}, {"h", "min", "60"}, {"mm²", "m²", "1/1000000"},
		{"%", "", "1/100"}, {"L", "dm³", "1"}, {"kWh", "MJ", "3.6"}, {"days", "h", "24"}, {"m/m", "", "1"}} {
		if got, same := UnitOf(c[0]).To(UnitOf(c[1]), one); !same || got.Cmp(exact(t, c[2])) != 0 {
			t.Errorf("1 %s is %v %s, %v", c[0], got, c[1], same)
		}
	}
	// A difference of a degree is a kelvin, though 0 °C is not 0 K.
	if got, same := UnitOf("J/°C").To(UnitOf("J/K"), one); !same || got.Cmp(one) != 0 {
		t.Errorf("a joule for each degree is %v for each kelvin", got)
	}
}

// The span of a tolerance is where it takes numbers: its edges it takes, what is a
// little outside it does not.
func TestSpan(t *testing.T) {
	for _, tol := range []Tolerance{{Is: Exact}, {Is: Absolute, Below: "0.5", Above: "1"},
		{Is: Relative, Below: "5", Above: "10"}, {Is: Figures, Places: 3}, {Is: Decimals, Places: 1}, {Is: Decimals}} {
		if err := tol.Check(); err != nil {
			t.Error(tol, err)
		}
		for _, text := range []string{"29.53", "-29.53", "0.8", "1000", "0.00123456", "0", "-5"} {
			key := exact(t, text)
			low, high := tol.Span(key)
			little := big.NewRat(1, 1_000_000_000_000)
			inside := []*big.Rat{new(big.Rat).Add(low, little), new(big.Rat).Sub(high, little)}
			if low.Cmp(high) == 0 {
				inside = []*big.Rat{low}
			}
			if tol.Is == Figures && key.Sign() == 0 {
				inside = []*big.Rat{key}
			}
			for _, x := range inside {
				if !tol.Near(key, x) {
					t.Errorf("%+v of %s does not take %s", tol, text, x.FloatString(15))
				}
			}
			for _, x := range []*big.Rat{new(big.Rat).Sub(low, little), new(big.Rat).Add(high, little)} {
				if tol.Near(key, x) {
					t.Errorf("%+v of %s takes %s", tol, text, x.FloatString(15))
				}
			}
		}
	}
	for _, bad := range []Tolerance{{}, {Is: "about"}, {Is: Absolute}, {Is: Absolute, Below: "-1", Above: "1"},
		{Is: Relative, Below: "x", Above: "1"}, {Is: Figures}, {Is: Figures, Places: 16}, {Is: Decimals, Places: -1}} {
		if bad.Check() == nil {
			t.Errorf("%+v is taken", bad)
		}
	}
	if !slices.Contains(Nearnesses, Relative) {
		t.Error("a nearness is not listed")
	}
}

// Whatever is typed is read or refused, quickly, and what is read in one language
// as a plain number has not more digits than were typed.
func FuzzRead(f *testing.F) {
	for _, text := range []string{"1.234,5", "3 1/4", "1½ m", "٢٩٫٥٣", "1e30", "-10⁻³⁰ km", "1.(3)", "((((",
		"5 m^9/s^9"} {
		f.Add(text, "de-CH")
	}
	f.Fuzz(func(t *testing.T, text, tag string) {
		got, err := Read(text, tag)
		if (err == nil) != (got.Value != nil) {
			t.Errorf("%q: %+v, %v", text, got, err)
		}
		if err == nil {
			UnitOf(got.Unit).To(UnitOf("m"), got.Value)
		}
	})
}

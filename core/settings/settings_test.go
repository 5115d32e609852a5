package settings_test

import (
	"strings"
	"testing"
	"time"

	"alpenglow/core/outcome"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
)

func TestOwn(t *testing.T) {
	if err := settings.Usual().Check(); err != nil {
		t.Fatal(err)
	}
	for name, change := range map[string]func(o *settings.Own){
		"no language":        func(o *settings.Own) { o.Language = "" },
		"another language":   func(o *settings.Own) { o.Language = "xx" },
		"the class's":        func(o *settings.Own) { o.ClassLanguage = "xx" },
		"a region of no one": func(o *settings.Own) { o.Region = "xx-YY" },
		"a pace":             func(o *settings.Own) { o.Pace = "quick" },
		"bands upside down":  func(o *settings.Own) { o.Bands = outcome.Bands{From: 70, To: 30} },
	} {
		o := settings.Usual()
		change(&o)
		if err := o.Check(); refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
	o := settings.Usual()
	if o.ForClass() != settings.English {
		t.Error("the class's language is not the teacher's")
	}
	if o.ClassLanguage = settings.German; o.ForClass() != settings.German {
		t.Error("the class's language is the teacher's")
	}
}

func TestHouse(t *testing.T) {
	if _, err := settings.Usually().Check(); err != nil {
		t.Fatal(err)
	}
	two, many := 2, settings.MaxPoints+1
	for name, c := range map[string]struct {
		change func(h *settings.House)
		want   refusal.Code
	}{
		"one level":    {func(h *settings.House) { h.Scale = h.Scale[:1] }, refusal.Malformed},
		"seven levels": {func(h *settings.House) { h.Scale = make([]settings.Level, 7) }, refusal.Malformed},
		"two of one name": {func(h *settings.House) { h.Scale[1].Name = " " + h.Scale[0].Name },
			refusal.LevelTwice},
		"two of one sign":    {func(h *settings.House) { h.Scale[1].Sign = h.Scale[0].Sign }, refusal.Malformed},
		"no sign":            {func(h *settings.House) { h.Scale[1].Sign = "" }, refusal.Malformed},
		"a colour of no one": {func(h *settings.House) { h.Scale[1].Tint = "red" }, refusal.Malformed},
		"points for some":    {func(h *settings.House) { h.Scale[1].Points = &two }, refusal.Malformed},
		"too many points":    {func(h *settings.House) { h.Scale[0].Points = &many }, refusal.Malformed},
		"a name of 31": {func(h *settings.House) { h.Scale[0].Name = strings.Repeat("x", 31) },
			refusal.NameTooLong},
		"kept for minus one":  {func(h *settings.House) { h.KeepMonths = -1 }, refusal.Malformed},
		"a school's bad name": {func(h *settings.House) { h.School = "a\u202eb" }, refusal.NameControl},
	} {
		h := settings.Usually()
		c.change(&h)
		if _, err := h.Check(); refusal.Of(err) == nil || refusal.Of(err).Code != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

func TestGoesAt(t *testing.T) {
	ended := time.Date(2026, 11, 26, 10, 0, 0, 0, time.UTC)
	if at, goes := settings.GoesAt(ended, 24); !goes || !at.Equal(time.Date(2028, 11, 26, 10, 0, 0, 0, time.UTC)) {
		t.Errorf("after 24 months: %v, %v", at, goes)
	}
	if _, goes := settings.GoesAt(ended, 0); goes {
		t.Error("what is kept for ever goes")
	}
}

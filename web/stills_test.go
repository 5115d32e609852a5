package web_test

import (
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/web"
)

// A moment is given a name while the lesson runs; afterwards it is found, compared and forgotten,
// and no colleague reads or names one.
func TestStills(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	run := ines.teaches(ines.class("8 Rowan", "Noor").ID, true)
	at := "/api/sessions/" + run + "/stills"
	keep := func(v *visitor, name string) refusal.Code { return v.post(at, web.KeepStill{Name: name}, nil) }
	for _, c := range []struct {
		who  *visitor
		name string
		want refusal.Code
	}{{ines, "before the  discussion", ""}, {ines, " ", refusal.NameEmpty}, {ines, "a\u202eb", refusal.NameControl},
		{other, "mine", refusal.NotFound}, {ines, "after", ""}} {
		if got := keep(c.who, c.name); got != c.want {
			t.Errorf("%q: %q, want %q", c.name, got, c.want)
		}
	}
	var all web.Stills
	if ines.get(at, &all); len(all.Stills) != 2 || all.Stills[0].Name != "before the discussion" ||
		all.Stills[0].At > all.Stills[1].At {
		t.Fatalf("%+v", all)
	}
	for range 58 {
		keep(ines, "more")
	}
	if got := keep(ines, "too many"); got != refusal.TooMany {
		t.Errorf("the sixty-first: %q", got)
	}
	for query, want := range map[string]refusal.Code{"?frame=&one=1&other=2": refusal.NoSuchFrame,
		"?frame=x&one=nan&other=2": refusal.Malformed, "?frame=x&one=1&other=2&from=-1": refusal.Malformed,
		"?frame=x&one=1&other=2": "",
		"?frame=x&one=-9223372036854775808&other=9223372036854775807&from=9223372036854775807": ""} {
		if got := ines.get("/api/sessions/"+run+"/between"+query, nil); got != want {
			t.Errorf("%s: %q, want %q", query, got, want)
		}
	}
	if got := other.remove(at + "/" + all.Stills[0].ID); got != refusal.NotFound {
		t.Errorf("a colleague forgets it: %q", got)
	}
	if got := ines.remove(at + "/" + all.Stills[0].ID); got != "" {
		t.Error(got)
	}
	ines.post("/api/sessions/"+run+"/end", struct{}{}, nil)
	if got := keep(ines, "late"); got != refusal.Ended {
		t.Errorf("after the end: %q", got)
	}
	if ines.get(at, &all); len(all.Stills) != 59 {
		t.Errorf("%d are left", len(all.Stills))
	}
}

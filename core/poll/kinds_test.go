package poll_test

import (
	"encoding/json"
	"errors"
	"math/rand/v2"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"

	"alpenglow/core/number"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

func opt(id, text string) poll.Option { return poll.Option{ID: id, Text: text} }
func right(id, text string) poll.Option {
	return poll.Option{ID: id, Text: text, Right: true}
}
func mistaken(id, text string) poll.Option {
	return poll.Option{ID: id, Text: text, Mistake: "SECRET " + id}
}

func typed(kind poll.Kind, text string) poll.Value {
	w := &poll.Written{Text: text}
	return map[poll.Kind]poll.Value{poll.KindNumber: {Kind: kind, Number: w}, poll.KindShort: {Kind: kind, Short: w},
		poll.KindOpen: {Kind: kind, Open: w}}[kind]
}

func num(text string) poll.Value { return typed(poll.KindNumber, text) }

func corner(x, y, w, h float64) []poll.Point {
	return []poll.Point{{X: x, Y: y}, {X: x + w, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}
}

type judged struct {
	value poll.Value
	want  poll.Judgement
	no    refusal.Code // it is no answer
}

type example struct {
	poll.Question
	// right is what is right in words; told are words that a class may see only then.
	right, told string
	cases       []judged
}

var (
	yes   = poll.Judgement{Verdict: poll.Right, Share: 1}
	not   = poll.Judgement{Verdict: poll.Wrong}
	slips = poll.Judgement{Verdict: poll.Right, Share: 1, Reason: poll.Slips}
)

func known(name string) poll.Judgement { return poll.Judgement{Verdict: poll.Wrong, Mistake: name} }
func partly(share float64, mistake string) poll.Judgement {
	return poll.Judgement{Verdict: poll.Partly, Share: share, Mistake: mistake}
}

// cards gives a game of these words, two and two of which belong together.
func cards(words ...string) poll.Body {
	m := &poll.Memory{}
	for i := 0; i < len(words); i += 2 {
		m.Pairs = append(m.Pairs, poll.CardPair{One: opt(strconv.Itoa(i), words[i]),
			Other: mistaken(strconv.Itoa(i+1), words[i+1])})
	}
	return poll.Body{Kind: poll.KindMemory, Memory: m}
}

// One question of each kind, from the unit on the Moon and tides, with answers of all sorts.
func examples() map[poll.Kind]example {
	several := func(ids ...string) poll.Value {
		return poll.Value{Kind: poll.KindSeveral, Several: &poll.Picked{Options: ids}}
	}
	truth := func(is poll.Holds) poll.Value { return poll.Value{Kind: poll.KindTruth, Truth: &poll.Held{Is: is}} }
	step := func(n int) poll.Value { return poll.Value{Kind: poll.KindScale, Scale: &poll.Stepped{Step: n}} }
	ordered := func(ids string) poll.Value {
		return poll.Value{Kind: poll.KindOrder, Order: &poll.Ranked{Order: strings.Split(ids, "")}}
	}
	pairs := func(all ...string) poll.Value {
		m := &poll.Matched{}
		for _, p := range all {
			m.Pairs = append(m.Pairs, poll.Pair{Left: p[:1], Right: p[1:]})
		}
		return poll.Value{Kind: poll.KindMatch, Match: m}
	}
	boxed := func(all ...string) poll.Value {
		s := &poll.Sorted{}
		for _, p := range all {
			s.In = append(s.In, poll.InBox{Thing: p[:1], Box: p[1:]})
		}
		return poll.Value{Kind: poll.KindBoxes, Boxes: s}
	}
	filled := func(all ...string) poll.Value {
		f := &poll.Filled{}
		for _, p := range all {
			f.In = append(f.In, poll.InBlank{Blank: p[:1], Text: p[1:]})
		}
		return poll.Value{Kind: poll.KindBlanks, Blanks: f}
	}
	at := func(places ...float64) poll.Value {
		p := &poll.Pointed{}
		for i := 0; i < len(places); i += 2 {
			p.At = append(p.At, poll.Point{X: places[i], Y: places[i+1]})
		}
		return poll.Value{Kind: poll.KindPlaces, Places: p}
	}
	turned := func(turns int, found ...string) poll.Value {
		return poll.Value{Kind: poll.KindMemory, Memory: &poll.Turned{Found: found, Turns: turns}}
	}
	return map[poll.Kind]example{
		poll.KindChoice: {
			poll.Question{Body: poll.Offer(mistaken("a", "7 days"), right("b", "29.53 days"), opt("c", "a year"))},
			"29.53 days",
			`"right":true`,
			[]judged{{poll.Choose("b"), yes, ""}, {poll.Choose("a"), known("SECRET a"), ""},
				{poll.Choose("c"), not, ""}, {poll.Choose("d"), not, refusal.NoSuchChoice}},
		},
		poll.KindSeveral: {poll.Question{Body: poll.Body{Kind: poll.KindSeveral, Several: &poll.Several{
			Options: []poll.Option{right("a", "Moon"), right("b", "Sun"), mistaken("c", "wind"), opt("d", "fish")}}}},
			"Moon, Sun", `"right":true`, []judged{{several("a", "b"), yes, ""}, {several("b", "a"), yes, ""},
				{several("a"), partly(.5, ""), ""}, {several("a", "c"), known("SECRET c"), ""},
				{
					several("a", "b", "c"),
					partly(.5, "SECRET c"),
					"",
				}, {several("a", "b", "c", "d"), known("SECRET c"), ""},
				{
					several("d"),
					not,
					"",
				}, {several(), not, refusal.AnswerEmpty}, {several("a", "a"), not, refusal.NoSuchChoice},
				{several("x"), not, refusal.NoSuchChoice}}},
		poll.KindTruth: {
			poll.Question{Body: poll.Body{Kind: poll.KindTruth, Truth: &poll.Truth{Is: poll.IsFalse, NotSure: true,
				Mistake: "SECRET far side"}}},
			"false",
			`"is":"false"`,
			[]judged{{truth(poll.IsFalse), yes, ""},
				{truth(poll.IsTrue), known("SECRET far side"), ""}, {truth(poll.NotSure), not, ""},
				{truth("maybe"), not, refusal.NoSuchChoice}},
		},
		poll.KindNumber: {poll.Question{Body: poll.Body{Kind: poll.KindNumber, Number: &poll.Number{Language: "de",
			Answer: "29,53", Tolerance: number.Tolerance{Is: number.Absolute, Below: "0.03", Above: "0.05"},
			Unit:     "days",
			UnitRule: poll.MayUnit, Mistakes: []poll.NumberMistake{{Name: "SECRET half", From: "14,77"},
				{
					Name: "SECRET year",
					From: "360",
					To:   "370",
				}}}}}, "29,53 days", "29,53", []judged{{num("29,53"), yes, ""},
			{num("29,5"), yes, ""}, {num("29,49"), not, ""}, {num("29,58 days"), yes, ""}, {num("708,72 h"), yes, ""},
			{num("14,77"), known("SECRET half"), ""}, {num("14,8"), known("SECRET half"), ""},
			{
				num("365,24"),
				known("SECRET year"),
				"",
			}, {num("29,53 m"), poll.Judgement{Verdict: poll.Wrong, Reason: poll.OtherUnit}, ""},
			{num("29 1/2"), yes, ""}, {num("29.5"), not, refusal.NotANumber}, {num("nan"), not, refusal.NotANumber},
			{num(" "), not, refusal.AnswerEmpty}, {num(strings.Repeat("9", 400)), not, refusal.NotANumber}}},
		poll.KindShort: {poll.Question{Body: poll.Body{Kind: poll.KindShort, Short: &poll.Short{
			Accepted: []string{"gravity", "gravitation"}, Slips: 1, Mistakes: []poll.TextMistake{{Name: "SECRET push",
				Texts: []string{"gravy", "wind"}}}}}}, "gravity / gravitation", "gravit", []judged{
			{
				typed("short", "Gravity."),
				yes,
				"",
			}, {typed("short", "gravty"), slips, ""}, {typed("short", "gravy"), known("SECRET push"), ""},
			{typed("short", "WIND"), known("SECRET push"), ""}, {typed("short", "the Moon"), not, ""},
			{
				typed("short", "\u200b"),
				not,
				refusal.AnswerEmpty,
			}, {typed("short", "🌙🌙"), not, ""}, {typed("short", "جاذبية"), not, ""},
			{typed("short", strings.Repeat("x", 10_000)), not, refusal.TextTooLong},
			{typed("short", "a\u202eb"), not, refusal.TextControl}}},
		poll.KindOpen: {poll.Question{Body: poll.Body{Kind: poll.KindOpen, Open: &poll.Free{}}}, "", "", []judged{
			{
				typed("open", "because it turns\nwith us"),
				poll.Judgement{},
				"",
			}, {typed("open", " "), not, refusal.AnswerEmpty},
			{typed("open", strings.Repeat("x", 10_000)), not, refusal.TextTooLong}}},
		poll.KindScale: {poll.Question{Body: poll.Body{Kind: poll.KindScale, Scale: &poll.Scale{Steps: 5, Low: "lost",
			High: "all clear"}}}, "", "", []judged{{step(1), poll.Judgement{}, ""}, {step(5), poll.Judgement{}, ""},
			{step(0), not, refusal.NoSuchChoice}, {step(6), not, refusal.NoSuchChoice}}},
		poll.KindRank: {poll.Question{Body: poll.ByPreference(opt("a", "A"), opt("b", "B"))}, "", "", []judged{
			{poll.InOrder("b", "a"), poll.Judgement{}, ""}, {poll.InOrder("a"), not, refusal.Malformed}}},
		poll.KindOrder: {poll.Question{Body: poll.Body{Kind: poll.KindOrder, Order: &poll.Order{Options: []poll.Option{
			opt("z", "new"), opt("c", "first quarter"), opt("y", "full"), opt("a", "last quarter")},
			Mistakes: []poll.OrderMistake{{Name: "SECRET round", Order: strings.Split("aycz", "")}}}}},
			"1. new, 2. first quarter, 3. full, 4. last quarter", "SECRET", []judged{{ordered("zcya"), yes, ""},
				{ordered("czya"), partly(2./3, ""), ""}, {ordered("aycz"), known("SECRET round"), ""},
				{ordered("zca"), not, refusal.Malformed}, {ordered("zcyy"), not, refusal.NoSuchChoice}}},
		poll.KindMatch: {poll.Question{Body: poll.Body{Kind: poll.KindMatch, Match: &poll.Match{
			Left: []poll.Option{
				opt("a", "new Moon"),
				opt("b", "full Moon"),
			}, Right: []poll.Option{opt("1", "dark"), opt("2", "round"),
				opt(
					"3",
					" DARK ",
				), opt("4", "half")}, Pairs: []poll.Pair{{Left: "a", Right: "1"}, {Left: "b", Right: "2"}},
			Mistakes: []poll.PairMistake{{Name: "SECRET swapped", Pair: poll.Pair{Left: "a", Right: "2"}}}}}},
			"new Moon – dark, full Moon – round", `"pairs"`, []judged{{pairs("a1", "b2"), yes, ""},
				{pairs("b2", "a3"), yes, ""},
				{
					pairs("a1"),
					partly(.5, ""),
					"",
				}, {pairs("a2", "b1"), known("SECRET swapped"), ""}, {pairs("b4"), not, ""},
				{pairs(), not, refusal.AnswerEmpty}, {pairs("a1", "a2"), not, refusal.NoSuchChoice},
				{pairs("c1"), not, refusal.NoSuchChoice}, {pairs("1a"), not, refusal.NoSuchChoice}}},
		poll.KindBlanks: {
			poll.Question{Body: poll.Body{Kind: poll.KindBlanks, Blanks: &poll.Blanks{Slips: 1, Parts: []poll.TextPart{
				{
					Text: "The ",
				}, {Blank: &poll.Blank{ID: "a", Accepted: []string{"Moon"},
					Mistakes: []poll.TextMistake{{Name: "SECRET sun",
						Texts: []string{
							"Sun",
						}}}}}, {Text: " pulls the "}, {Blank: &poll.Blank{ID: "b", Accepted: []string{"water"},
					Offered: []string{
						"water",
						"air",
					}}}}}}},
			"Moon, water",
			`"accepted"`,
			[]judged{{filled("amoon", "bwater"), yes, ""},
				{filled("amon", "bwater"), slips, ""}, {filled("aSun", "bwater"), partly(.5, "SECRET sun"), ""},
				{
					filled("bair"),
					not,
					"",
				}, {filled("bfire"), not, refusal.NoSuchChoice}, {filled(), not, refusal.AnswerEmpty},
				{filled("amoon", "aSun"), not, refusal.NoSuchChoice}, {filled("a"), not, refusal.AnswerEmpty}},
		},
		poll.KindBoxes: {poll.Question{Body: poll.Body{Kind: poll.KindBoxes, Boxes: &poll.Boxes{
			Boxes: []poll.Option{
				opt("1", "shines"),
				opt("2", "is lit"),
			}, Things: []poll.Option{opt("a", "Sun"), opt("b", "Moon"),
				opt("c", "a song")}, Homes: []poll.InBox{{Thing: "a", Box: "1"}, {Thing: "b", Box: "2"}},
			Mistakes: []poll.BoxMistake{{Name: "SECRET lamp", InBox: poll.InBox{Thing: "b", Box: "1"}}}}}},
			"shines: Sun; is lit: Moon", `"homes"`, []judged{{boxed("a1", "b2"), yes, ""},
				{boxed("a1", "b1"), partly(.5, "SECRET lamp"), ""},
				{
					boxed("a1", "b2", "c1"),
					partly(.5, ""),
					"",
				}, {boxed("c1"), not, ""}, {boxed(), not, refusal.AnswerEmpty},
				{boxed("a1", "a2"), not, refusal.NoSuchChoice}, {boxed("a3"), not, refusal.NoSuchChoice}}},
		poll.KindPlaces: {
			poll.Question{Body: poll.Body{Kind: poll.KindPlaces, Places: &poll.Places{Picture: "sky", Most: 2,
				Areas: []poll.Area{{ID: "a", Name: "north bay", Corners: corner(.1, .1, .3, .3), Right: true},
					{ID: "b", Name: "south bay", Corners: corner(.6, .6, .3, .3), Right: true},
					{
						ID:      "c",
						Name:    "harbour",
						Corners: corner(.3, .3, .2, .2),
						Mistake: "SECRET shallow",
					}}}}},
			"north bay, south bay",
			`"areas"`,
			[]judged{
				{at(.2, .2, .7, .7), yes, ""},
				{at(.2, .2), partly(.5, ""), ""},
				{at(.35, .35), partly(.5, ""), ""},
				{
					at(.45, .45),
					known("SECRET shallow"),
					"",
				},
				{at(.2, .2, .21, .21), partly(.5, ""), ""},
				{at(.2, .2, 0, 1), not, ""},
				{at(), not, refusal.AnswerEmpty},
				{at(.2, .2, .3, .3, .4, .4), not, refusal.NoSuchChoice},
				{at(1.01, 0), not, refusal.OutOfFrame},
			},
		},
		poll.KindDraw: {poll.Question{Body: poll.Body{Kind: poll.KindDraw, Draw: &poll.Draw{}}}, "", "", []judged{
			{poll.Value{Kind: poll.KindDraw, Draw: &poll.Drawn{Done: true}}, poll.Judgement{}, ""},
			{poll.Value{Kind: poll.KindDraw, Draw: &poll.Drawn{}}, not, refusal.AnswerEmpty}}},
		poll.KindMemory: {poll.Question{Body: cards("new Moon", "dark", "full Moon", "round")}, "", "", []judged{
			{turned(5, "0"), poll.Judgement{}, ""}, {turned(2, "0", "2"), poll.Judgement{}, ""},
			{turned(9), not, refusal.AnswerEmpty}, {turned(1, "0", "2"), not, refusal.Malformed},
			{turned(1000, "0"), not, refusal.Malformed}, {turned(5, "0", "0"), not, refusal.NoSuchChoice},
			{turned(5, "1"), not, refusal.NoSuchChoice}, {turned(5, "full Moon"), not, refusal.NoSuchChoice}}},
	}
}

func TestExamples(t *testing.T) {
	all := examples()
	for kind := range reflect.TypeFor[poll.Body]().Fields() {
		if name := poll.Kind(strings.Split(kind.Tag.Get("json"), ",")[0]); name != "kind" && len(all[name].cases) == 0 {
			t.Errorf("%s has no example", name)
		}
	}
	for kind, e := range all {
		if err := e.Check(); err != nil || e.Kind != kind {
			t.Errorf("%s: %v", kind, err)
		}
		if e.Right() != e.right || e.HasRight() != (e.right != "") {
			t.Errorf("%s: %q is right", kind, e.Right())
		}
		for _, c := range e.cases {
			text, _ := json.Marshal(c.value)
			text = text[:min(len(text), 120)]
			switch err := e.Takes(c.value); {
			case c.no != "":
				if !errors.Is(err, refusal.New(c.no)) {
					t.Errorf("%s %s: %v, want %s", kind, text, err, c.no)
				}
				if e.Judge(c.value) != (poll.Judgement{}) || e.Says(c.value) != "" ||
					e.Tally([]poll.Value{c.value}).Answered != 0 {
					t.Errorf("%s %s counts", kind, text)
				}
			case err != nil || e.Judge(c.value) != c.want:
				t.Errorf("%s %s: %+v, %v, want %+v", kind, text, e.Judge(c.value), err, c.want)
			case e.Says(c.value) == "" && kind != poll.KindDraw:
				t.Errorf("%s %s says nothing", kind, text)
			}
		}
	}
	if got := all[poll.KindNumber].Read(num("29 1/2 days")); got != "29,5 days" {
		t.Errorf("it was read as %q", got)
	}
}

// What is right, and why, a class sees only when it is revealed; what a mistake is called, and
// what the question is for, never. It takes the same answers as the whole question.
func TestNothingTold(t *testing.T) {
	for kind, e := range examples() {
		e.Why, e.Objectives = "SECRETLY because", []string{"SECRET objective"}
		for _, phase := range []poll.Phase{"", poll.Open, poll.Closed, poll.Revealed} {
			seen := e.ForClass(phase)
			text, err := json.Marshal(seen)
			if err != nil {
				t.Fatal(err)
			}
			told := string(text)
			if phase == poll.Revealed {
				if !strings.Contains(told, "SECRETLY") || seen.Right() != e.Right() {
					t.Errorf("%s is not revealed: %s", kind, told)
				}
				told = strings.ReplaceAll(told, "SECRETLY", "")
			} else if e.told != "" && strings.Contains(told, e.told) {
				t.Errorf("%s %s tells %s: %s", kind, phase, e.told, told)
			}
			if strings.Contains(told, "SECRET") {
				t.Errorf("%s %s: %s", kind, phase, told)
			}
			var values []poll.Value
			for _, c := range e.cases {
				if (e.Takes(c.value) == nil) != (seen.Takes(c.value) == nil) && kind != poll.KindNumber {
					t.Errorf("%s %s takes other answers", kind, phase)
				}
				values = append(values, c.value)
			}
			tally, err := json.Marshal(e.Tally(values).ForClass(phase))
			if err != nil || strings.Contains(string(tally), "SECRET") ||
				phase != poll.Revealed &&
					(strings.Contains(string(tally), `"right":true`) || strings.Contains(string(tally), "verdict") ||
						strings.Contains(string(tally), "band") || strings.Contains(string(tally), "place\"") ||
						strings.Contains(string(tally), "areas")) {
				t.Errorf("%s %s tells by its tally: %s", kind, phase, tally)
			}
		}
		if e.Objectives == nil || e.Why == "" {
			t.Errorf("%s was changed", kind)
		}
	}
}

// The order of a question in a class's eyes does not depend on the right one.
func TestMixed(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	e := examples()[poll.KindOrder]
	before, _ := json.Marshal(e.ForClass(poll.Open))
	for range 50 {
		q := e.Question
		order := *q.Order
		order.Options = slices.Clone(order.Options)
		r.Shuffle(len(order.Options), func(i, j int) {
			order.Options[i], order.Options[j] = order.Options[j], order.Options[i]
		})
		q.Order = &order
		if now, _ := json.Marshal(q.ForClass(poll.Closed)); string(now) != string(before) {
			t.Fatalf("%s, and %s", before, now)
		}
	}
}

// Tallies do not depend on the order in which answers came; and whatever a device puts
// together from what it knows is an answer or none, and nothing falls over.
func TestTallies(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	all := examples()
	var values []poll.Value
	for _, e := range all {
		for _, c := range e.cases {
			values = append(values, c.value)
		}
	}
	for kind, e := range all {
		var some []poll.Value
		for range 60 {
			v := values[r.IntN(len(values))]
			if r.IntN(3) > 0 {
				v = e.cases[r.IntN(len(e.cases))].value
			}
			if r.IntN(10) == 0 {
				v.Kind = kind // with the body of another
			}
			some = append(some, v)
		}
		before, err := json.Marshal(e.Tally(some))
		if err != nil {
			t.Fatal(kind, err)
		}
		for range 20 {
			r.Shuffle(len(some), func(i, j int) { some[i], some[j] = some[j], some[i] })
			if now, _ := json.Marshal(e.Tally(some)); string(now) != string(before) {
				t.Fatalf("%s: %s, and %s", kind, before, now)
			}
		}
		tally := e.Tally(some)
		if v := tally.Verdicts; v != nil && v.Right+v.Partly+v.Wrong != tally.Answered {
			t.Errorf("%s: %+v of %d", kind, v, tally.Answered)
		}
	}
}

// What no question may be.
func TestNoQuestions(t *testing.T) {
	many := func(n int) []poll.Option {
		all := make([]poll.Option, n)
		for i := range all {
			all[i] = opt(string(rune('a'+i)), "x")
		}
		return all
	}
	corners := corner(0, 0, 1, 1)
	for name, b := range map[string]poll.Body{
		"a scale of two":     {Kind: poll.KindScale, Scale: &poll.Scale{Steps: 2}},
		"a scale of eleven":  {Kind: poll.KindScale, Scale: &poll.Scale{Steps: 11}},
		"a truth of neither": {Kind: poll.KindTruth, Truth: &poll.Truth{Is: poll.NotSure}},
		"a number of words": {Kind: poll.KindNumber, Number: &poll.Number{Answer: "five",
			Tolerance: number.Tolerance{Is: number.Exact}}},
		"no tolerance": {Kind: poll.KindNumber, Number: &poll.Number{Answer: "5"}},
		"a unit without a name": {Kind: poll.KindNumber, Number: &poll.Number{Answer: "5", UnitRule: poll.MustUnit,
			Tolerance: number.Tolerance{Is: number.Exact}}},
		"a mistake without a name": {Kind: poll.KindNumber,
			Number: &poll.Number{Tolerance: number.Tolerance{Is: number.Exact},
				Mistakes: []poll.NumberMistake{{From: "5"}}}},
		"four slips":           {Kind: poll.KindShort, Short: &poll.Short{Slips: 4}},
		"an empty answer":      {Kind: poll.KindShort, Short: &poll.Short{Accepted: []string{" "}}},
		"nine to put in order": {Kind: poll.KindOrder, Order: &poll.Order{Options: many(9)}},
		"a pair of strangers": {Kind: poll.KindMatch, Match: &poll.Match{Left: many(2), Right: many(2),
			Pairs: []poll.Pair{{Left: "a", Right: "z"}}}},
		"two homes": {Kind: poll.KindBoxes, Boxes: &poll.Boxes{Boxes: many(2), Things: many(2),
			Homes: []poll.InBox{{Thing: "a", Box: "a"}, {Thing: "a", Box: "b"}}}},
		"no blanks": {Kind: poll.KindBlanks, Blanks: &poll.Blanks{Parts: []poll.TextPart{{Text: "x"}}}},
		"one offered": {Kind: poll.KindBlanks, Blanks: &poll.Blanks{Parts: []poll.TextPart{{Blank: &poll.Blank{ID: "a",
			Offered: []string{"x"}}}}}},
		"one pair of cards":              cards("a", "b"),
		"thirteen pairs of cards":        cards(make([]string, 26)...),
		"a card in two pairs":            cards("dark", "new", " DARK", "old"),
		"no picture":                     {Kind: poll.KindPlaces, Places: &poll.Places{Most: 1}},
		"a picture's name that is a way": {Kind: poll.KindPlaces, Places: &poll.Places{Picture: "../x", Most: 1}},
		"two corners": {Kind: poll.KindPlaces, Places: &poll.Places{Picture: "p", Most: 1,
			Areas: []poll.Area{{ID: "a", Corners: corners[:2]}}}},
		"a corner outside": {Kind: poll.KindPlaces, Places: &poll.Places{Picture: "p", Most: 1,
			Areas: []poll.Area{{ID: "a", Corners: append(slices.Clone(corners), poll.Point{X: 2})}}}},
	} {
		if err := (poll.Question{Body: b}).Check(); refusal.Of(err) == nil {
			t.Errorf("%s is taken: %v", name, err)
		}
	}
	if err := (poll.Question{Seconds: 3601, Body: poll.Offer(many(2)...)}).Check(); refusal.Of(err) == nil {
		t.Error("a time limit of more than an hour")
	}
}

// A chart that a class may see does not tell by the order of its rows and columns what
// belongs to what: in whatever order pairs were written, it looks the same.
func TestNothingToldByOrder(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 14))
	e := examples()[poll.KindMatch]
	var values []poll.Value
	for _, c := range e.cases {
		values = append(values, c.value)
	}
	columns := func(q poll.Question) []string { return q.Tally(values).ForClass(poll.Closed).Chart.Grid.Columns }
	before := columns(e.Question)
	for range 20 {
		q, m := e.Question, *e.Match
		m.Right = slices.Clone(m.Right)
		r.Shuffle(len(m.Right), func(i, j int) { m.Right[i], m.Right[j] = m.Right[j], m.Right[i] })
		q.Match = &m
		if now := columns(q); !slices.Equal(now, before) {
			t.Fatalf("%v, and %v", before, now)
		}
	}
}

// However much a class writes, what is told of it is short.
func TestChartsAreShort(t *testing.T) {
	long := strings.Repeat("ebb and flood ", 140)
	var open, blanks []poll.Value
	for i := range 400 {
		text := strings.Repeat("x", i+1) + " " + long
		open = append(open, typed(poll.KindOpen, text[:min(len(text), poll.MaxOpen)]))
		blanks = append(blanks, poll.Value{Kind: poll.KindBlanks, Blanks: &poll.Filled{In: []poll.InBlank{{Blank: "a",
			Text: text[:poll.MaxShort]}}}})
	}
	for kind, values := range map[poll.Kind][]poll.Value{poll.KindOpen: open, poll.KindBlanks: blanks} {
		tally := examples()[kind].Tally(values)
		text, err := json.Marshal(tally)
		if err != nil || tally.Answered != 400 || len(text) > 50_000 {
			t.Errorf("%s: %d bytes of %d answers, %v", kind, len(text), tally.Answered, err)
		}
	}
	if texts := examples()[poll.KindOpen].Tally(open).Chart.Texts; len(texts.Texts)+texts.More != 400 {
		t.Errorf("%d texts and %d more", len(texts.Texts), texts.More)
	}
}

// A game says how far all have come together; a pair of cards may look alike.
func TestMemory(t *testing.T) {
	q := poll.Question{Body: cards("tide", "tide", "Moon", "Luna", "", "")}
	if err := q.Check(); err != nil {
		t.Fatal(err)
	}
	turned := func(turns int, found ...string) poll.Value {
		return poll.Value{Kind: poll.KindMemory, Memory: &poll.Turned{Found: found, Turns: turns}}
	}
	tally := q.Tally([]poll.Value{turned(7, "0", "2", "4"), turned(3, "2"), turned(9, "4", "0", "2")})
	want := poll.Finds{Students: []int{1, 0, 2}, Pairs: 7, Turns: 19}
	if got := *tally.Chart.Finds; !reflect.DeepEqual(got, want) || tally.Verdicts != nil {
		t.Errorf("%+v, want %+v", got, want)
	}
	if q.Says(turned(7, "0", "2", "4")) != "3/3 (7)" || q.HasRight() {
		t.Error(q.Says(turned(7, "0", "2", "4")))
	}
}

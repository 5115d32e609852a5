package script_test

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/poll"
	"alpenglow/core/questions"
	"alpenglow/core/questions/sample"
	"alpenglow/core/questions/script"
	"alpenglow/core/refusal"
)

func ids() func() string {
	n := 0
	return func() string { n++; return fmt.Sprint("new", n) }
}

// What is written is read back as the same question, whatever its words are.
func TestThereAndBack(t *testing.T) {
	m := &sample.Maker{Chance: rand.New(rand.NewPCG(11, 12))}
	for n := range 3000 {
		asked := m.Question(sample.Kinds[n%len(sample.Kinds)])
		var text bytes.Buffer
		told, err := script.Write(
			&text,
			questions.Sheet{Title: "= My # set", Items: []questions.Item{{Asked: asked}, {Asked: asked}}},
		)
		if err != nil {
			t.Fatal(err)
		}
		if asked.Kind == poll.KindPlaces {
			if !slices.Contains(told[0].Lost, questions.LossKind) {
				t.Fatalf("%+v", told)
			}
			continue
		}
		back, err := script.Read(text.Bytes(), "de", ids())
		if err != nil || back.Title != "= My # set" || len(back.Items) != 2 || back.Items[1].Failed != nil {
			t.Fatalf("%v: %+v\n%s", err, back, text.String())
		}
		if got, want := sample.Plain(back.Items[1].Asked), sample.Plain(asked); got != want {
			t.Fatalf("\n%s\n%s\n%s", want, got, text.String())
		}
	}
}

// As somebody types it.
func TestTyped(t *testing.T) {
	text := `# Tides
// for Friday
choose: How long is a month?
+ 29.53 days
- 7 days
- 14.77 days = took new moon to full moon

Number: How far?
is: 12,42
unit: h, may
near: 2 %
mistake: a whole day = 24 to 24,9
why: it moves on
match: What belongs to what?
spring tide = in one line
neap tide = at a right angle
= far away
boxes: Sort
[shines]
- the Sun
- a lamp
[is lit]
- the Moon
blanks: Fill in
text: The tides follow the {Moon / moon}, and are {+higher / -lower}.
short: What pulls?
is: gravity / gravitation
slips: 2
`
	s, err := script.Read([]byte(text), "de", ids())
	if err != nil || s.Title != "Tides" || len(s.Items) != 6 {
		t.Fatalf("%v: %+v", err, s)
	}
	for _, i := range s.Items {
		if i.Failed != nil {
			t.Errorf("line %d: %v", i.At, i.Failed)
		}
	}
	value := func(kind poll.Kind, text string) poll.Value {
		return poll.Value{Kind: kind, Number: &poll.Written{Text: text}}
	}
	if v := s.Items[1].Asked.Judge(value(poll.KindNumber, "12,5 h")); v.Verdict != poll.Right {
		t.Errorf("%+v", v)
	}
	if v := s.Items[1].Asked.Judge(value(poll.KindNumber, "24,5")); v.Mistake != "a whole day" {
		t.Errorf("%+v", v)
	}
	if m := s.Items[2].Asked.Match; len(m.Pairs) != 2 || len(m.Right) != 3 {
		t.Errorf("%+v", m)
	}
	if b := s.Items[3].Asked.Boxes; len(b.Homes) != 3 || len(b.Boxes) != 2 {
		t.Errorf("%+v", b)
	}
}

// What cannot be read is told with its line, and costs no other question.
func TestUnreadable(t *testing.T) {
	for name, below := range map[string]string{
		"an answer without its sign":             "choose: ?\n+ a\nb",
		"one answer":                             "choose: ?\n+ a",
		"said twice":                             "number: ?\nis: 1\nis: 2",
		"no number":                              "number: ?\nis: many",
		"said of another kind":                   "choose: ?\n+ a\n- b\nslips: 2",
		"a step too many":                        "scale: ?\nsteps: 11",
		"a mistake of a thing that is not there": "order: ?\n1. a\n2. b\nmistake: x = 1 3",
		"a brace that stays open":                "blanks: ?\ntext: a {b",
		"a text that is too long":                "short: ?\nis: " + strings.Repeat("x", 10_000),
		"time for ever":                          "open: ?\ntime: 99999",
		"before any question":                    "hello",
	} {
		s, err := script.Read([]byte(below+"\nopen: And this?\n"), "en", ids())
		if err != nil || len(s.Items) < 2 {
			t.Errorf("%s: %v, %+v", name, err, s)
			continue
		}
		if r := refusal.Of(s.Items[0].Failed); r == nil || s.Items[0].At != 1 {
			t.Errorf("%s: %+v", name, s.Items[0])
		}
		if last := s.Items[len(s.Items)-1]; last.Failed != nil || last.Asked.Text != "And this?" {
			t.Errorf("%s: %+v", name, last)
		}
	}
	if _, err := script.Read(bytes.Repeat([]byte("open: ?\n"), questions.MaxItems+1), "en", ids()); refusal.Of(
		err,
	) == nil {
		t.Error("too many")
	}
}

func FuzzRead(f *testing.F) {
	m := &sample.Maker{Chance: rand.New(rand.NewPCG(1, 2))}
	for _, k := range sample.Kinds {
		var text bytes.Buffer
		_, _ = script.Write(&text, questions.Sheet{Items: []questions.Item{{Asked: m.Question(k)}}})
		f.Add(text.String())
	}
	f.Add("blanks: ?\ntext: {{}}{\\\nmistake: =\n")
	f.Fuzz(func(t *testing.T, text string) {
		s, err := script.Read([]byte(text), "en", ids())
		if err != nil && refusal.Of(err) == nil {
			t.Fatal(err)
		}
		for _, i := range s.Items {
			if i.Failed == nil && i.Asked.Check() != nil {
				t.Fatalf("%+v", i.Asked)
			}
		}
	})
}

// Package sample makes questions up, of every kind, for tests of what is written and read back.
package sample

import (
	"cmp"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/number"
	"alpenglow/core/poll"
)

// words are texts that are hard to write down: signs that mean something in a format, spaces at
// ends, lines, other scripts.
var words = []string{
	"the Moon",
	"= 3 / 4",
	"+1",
	"-2 °C",
	`back\slash`,
	"a: b",
	"{x}",
	"[y]",
	"1. first",
	"a\nb",
	"حَرَكَة",
	"<b>&amp;</b>",
	"# no title",
	"// no comment",
	"why: not",
	"yes",
	"ﬁ",
	"月",
	"2",
	"q]]>",
	"is: it",
	"a, b",
	`"quoted"`,
	"'",
	"😀",
}

// Chance gives numbers in 0..n-1 and orders of so many things, as math/rand/v2 does.
type Chance interface {
	IntN(n int) int
	Perm(n int) []int
}

// Maker makes questions up.
type Maker struct {
	Chance
	ids int
}

func (m *Maker) id() string { m.ids++; return fmt.Sprint("x", m.ids) }

// text gives a text that no other of a question is, with a number so that it is not.
func (m *Maker) text() string {
	m.ids++
	return words[m.IntN(len(words))] + " " + strconv.Itoa(m.ids)
}

func (m *Maker) maybe(text string) string {
	if m.IntN(3) == 0 {
		return text
	}
	return ""
}

func (m *Maker) options(least, most int) []poll.Option {
	var all []poll.Option
	for range least + m.IntN(most-least+1) {
		all = append(all, poll.Option{ID: m.id(), Text: m.text()})
	}
	return all
}

func (m *Maker) judged(all []poll.Option) []poll.Option {
	for i := range all {
		if all[i].Right = m.IntN(2) == 0; !all[i].Right {
			all[i].Mistake = m.maybe("took " + m.text())
		}
	}
	return all
}

func (m *Maker) texts() []string {
	var all []string
	for range 1 + m.IntN(3) {
		all = append(all, strings.ReplaceAll(m.text(), "\n", " "))
	}
	return all
}

func (m *Maker) mistakes() []poll.TextMistake {
	var all []poll.TextMistake
	for range m.IntN(3) {
		all = append(all, poll.TextMistake{Name: "took " + m.text(), Texts: m.texts()})
	}
	return all
}

// Kinds lists the kinds of questions that Question makes.
var Kinds = []poll.Kind{
	poll.KindChoice,
	poll.KindSeveral,
	poll.KindTruth,
	poll.KindNumber,
	poll.KindShort,
	poll.KindOpen,
	poll.KindScale,
	poll.KindOrder,
	poll.KindRank,
	poll.KindMatch,
	poll.KindBlanks,
	poll.KindBoxes,
	poll.KindPlaces,
	poll.KindDraw,
	poll.KindMemory,
}

// Question makes up a question of a kind that passes its check.
func (m *Maker) Question(k poll.Kind) poll.Question {
	q := poll.Question{Text: m.text(), Why: m.maybe(m.text()), Sure: m.IntN(3) == 0, Shuffle: m.IntN(3) == 0,
		Seconds: m.IntN(3) * 30, Body: m.body(k)}
	if m.IntN(4) == 0 {
		q.Link = "https://harbour.example/tides?a=b&c=d"
	}
	if err := q.Check(); err != nil {
		panic(fmt.Sprintf("%v: %+v", err, q))
	}
	return q
}

func (m *Maker) body(k poll.Kind) poll.Body {
	b := poll.Body{Kind: k}
	switch k {
	case poll.KindChoice:
		b.Choice = &poll.Choice{Options: m.judged(m.options(2, 5))}
	case poll.KindSeveral:
		b.Several = &poll.Several{Options: m.judged(m.options(2, 5))}
	case poll.KindTruth:
		b.Truth = &poll.Truth{Is: []poll.Holds{"", poll.IsTrue, poll.IsFalse}[m.IntN(3)], NotSure: m.IntN(2) == 0,
			Mistake: m.maybe(m.text())}
	case poll.KindNumber:
		b.Number = m.number()
	case poll.KindShort:
		b.Short = &poll.Short{Accepted: m.texts(), Slips: m.IntN(3), WithCase: m.IntN(2) == 0, Mistakes: m.mistakes()}
	case poll.KindOpen:
		b.Open = &poll.Free{}
	case poll.KindScale:
		b.Scale = &poll.Scale{Steps: 3 + m.IntN(8), Low: m.maybe(m.text()), High: m.maybe(m.text())}
	case poll.KindRank:
		b.Rank = &poll.Rank{Options: m.options(2, 6)}
	case poll.KindOrder:
		o := &poll.Order{Options: m.options(2, 6)}
		if m.IntN(2) == 0 {
			mistake := poll.OrderMistake{Name: m.text()}
			for _, at := range m.Perm(len(o.Options)) {
				mistake.Order = append(mistake.Order, o.Options[at].ID)
			}
			o.Mistakes = append(o.Mistakes, mistake)
		}
		b.Order = o
	case poll.KindMatch:
		x := &poll.Match{Left: m.options(1, 5), Right: m.options(2, 6)}
		for _, l := range x.Left {
			if m.IntN(4) > 0 {
				x.Pairs = append(x.Pairs, poll.Pair{Left: l.ID, Right: x.Right[m.IntN(len(x.Right))].ID})
			}
		}
		b.Match = x
	case poll.KindBlanks:
		b.Blanks = m.blanks()
	case poll.KindBoxes:
		x := &poll.Boxes{Boxes: m.options(2, 4), Things: m.options(1, 6)}
		for _, thing := range x.Things {
			if m.IntN(4) > 0 {
				x.Homes = append(x.Homes, poll.InBox{Thing: thing.ID, Box: x.Boxes[m.IntN(len(x.Boxes))].ID})
			}
		}
		b.Boxes = x
	case poll.KindPlaces:
		from := m.IntN(50)
		at, to := float64(from)/100, float64(from+25)/100 // whole pixels of most pictures
		b.Places = &poll.Places{Picture: "picture", Most: 1 + m.IntN(2), Areas: []poll.Area{{ID: m.id(), Name: "here",
			Right: true, Corners: []poll.Point{{X: at, Y: .1}, {X: to, Y: .1}, {X: to, Y: .5}, {X: at, Y: .5}}}}}
	case poll.KindDraw:
		b.Draw = &poll.Draw{}
	case poll.KindMemory:
		x := &poll.Memory{}
		for i := range 2 + m.IntN(5) {
			card := func(side string) poll.Option { // no two pairs have the same one
				return poll.Option{ID: m.id(), Text: m.text() + " " + strconv.Itoa(i) + side}
			}
			x.Pairs = append(x.Pairs, poll.CardPair{One: card("a"), Other: card("b")})
		}
		b.Memory = x
	}
	return b
}

func (m *Maker) number() *poll.Number {
	n := &poll.Number{Language: "en", Answer: strconv.FormatFloat(float64(m.IntN(2000)-1000)/8, 'f', -1, 64),
		Tolerance: number.Tolerance{Is: number.Nearnesses[m.IntN(len(number.Nearnesses))]}}
	switch n.Tolerance.Is {
	case number.Absolute, number.Relative:
		n.Tolerance.Below, n.Tolerance.Above = "0.5", strconv.Itoa(m.IntN(3))
		n.Tolerance.WithoutLow, n.Tolerance.WithoutHigh = m.IntN(3) == 0, m.IntN(3) == 0
	case number.Figures, number.Decimals:
		n.Tolerance.Places = 1 + m.IntN(4)
	}
	if m.IntN(2) == 0 {
		n.Unit, n.UnitRule = "km/h", poll.UnitRules[m.IntN(3)]
	}
	if m.IntN(2) == 0 {
		n.Mistakes = []poll.NumberMistake{{Name: m.text(), From: "2000"}, {Name: m.text(), From: "3000", To: "3001.5"}}
	}
	return n
}

func (m *Maker) blanks() *poll.Blanks {
	b := &poll.Blanks{Slips: m.IntN(3)}
	for range 1 + m.IntN(3) {
		b.Parts = append(b.Parts, poll.TextPart{Text: m.text()})
		blank := &poll.Blank{ID: m.id(), Accepted: m.texts(), Mistakes: m.mistakes()}
		if m.IntN(2) == 0 {
			blank.Offered = append(slices.Clone(blank.Accepted), m.texts()...)
			if len(blank.Offered) < 2 {
				blank.Offered = nil
			}
		}
		b.Parts = append(b.Parts, poll.TextPart{Blank: blank})
	}
	return b
}

// Plain gives a question as text by which two are the same that differ in nothing that anybody
// would see: ids by their first place, what has no order sorted.
func Plain(q poll.Question) string {
	data, err := json.Marshal(q)
	if err != nil {
		panic(err)
	}
	if err := json.Unmarshal(data, &q); err != nil { // a copy
		panic(err)
	}
	if m := q.Match; m != nil {
		slices.SortFunc(
			m.Pairs,
			func(a, b poll.Pair) int { return cmp.Compare(at(m.Left, a.Left), at(m.Left, b.Left)) },
		)
	}
	if b := q.Boxes; b != nil {
		slices.SortFunc(
			b.Homes,
			func(x, y poll.InBox) int { return cmp.Compare(at(b.Things, x.Thing), at(b.Things, y.Thing)) },
		)
	}
	if q.Blanks != nil {
		for _, p := range q.Blanks.Parts {
			if p.Blank != nil {
				slices.Sort(p.Blank.Accepted)
			}
		}
	}
	data, _ = json.Marshal(q)
	text := string(data)
	n := 0
	for _, id := range ids(q) {
		n++
		text = strings.ReplaceAll(text, `"`+id+`"`, `"#`+strconv.Itoa(n)+`"`)
	}
	return text
}

func at(all []poll.Option, id string) int {
	return slices.IndexFunc(all, func(o poll.Option) bool { return o.ID == id })
}

func ids(q poll.Question) []string {
	var all []string
	for _, o := range things(q) {
		all = append(all, o.ID)
	}
	if q.Blanks != nil {
		for _, p := range q.Blanks.Parts {
			if p.Blank != nil {
				all = append(all, p.Blank.ID)
			}
		}
	}
	if q.Places != nil {
		for _, a := range q.Places.Areas {
			all = append(all, a.ID)
		}
	}
	return all
}

// things gives what a question of any kind offers, in one list.
func things(q poll.Question) []poll.Option {
	switch {
	case q.Choice != nil:
		return q.Choice.Options
	case q.Several != nil:
		return q.Several.Options
	case q.Rank != nil:
		return q.Rank.Options
	case q.Order != nil:
		return q.Order.Options
	case q.Match != nil:
		return slices.Concat(q.Match.Left, q.Match.Right)
	case q.Boxes != nil:
		return slices.Concat(q.Boxes.Boxes, q.Boxes.Things)
	case q.Memory != nil:
		var all []poll.Option
		for _, p := range q.Memory.Pairs {
			all = append(all, p.One, p.Other)
		}
		return all
	}
	return nil
}

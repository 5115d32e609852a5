package script

import (
	"strconv"
	"strings"

	"alpenglow/core/number"
	"alpenglow/core/poll"
)

func writeNumber(q poll.Question, p *pen) {
	n := q.Number
	p.say("is", n.Answer)
	unit := escape(n.Unit, ",")
	if n.UnitRule != poll.NoUnit {
		unit += ", " + string(n.UnitRule)
	}
	if n.Unit != "" {
		p.line("unit: " + unit)
	}
	t := n.Tolerance
	switch t.Is {
	case number.Figures, number.Decimals:
		p.say("near", strconv.Itoa(t.Places)+" "+string(t.Is))
	case number.Absolute, number.Relative:
		near := t.Below + " below, " + t.Above + " above"
		if t.Is == number.Relative {
			near = t.Below + " % below, " + t.Above + " % above"
		}
		if t.WithoutLow {
			near += ", without the low end"
		}
		if t.WithoutHigh {
			near += ", without the high end"
		}
		p.say("near", near)
	}
	p.say("in", n.Language)
	for _, m := range n.Mistakes {
		what := m.From
		if m.To != "" {
			what += " to " + m.To
		}
		p.mistake(m.Name, what)
	}
}

func readNumber(r *reading) poll.Body {
	n := &poll.Number{
		Answer:    unescape(r.one("is")),
		Language:  r.language,
		Tolerance: number.Tolerance{Is: number.Exact},
	}
	if r.has("in") {
		n.Language = r.one("in")
	}
	if r.has("unit") {
		unit, rule, _ := cut(r.one("unit"), ',')
		n.Unit, n.UnitRule = unescape(unit), poll.UnitRule(rule)
	}
	if r.has("near") {
		n.Tolerance = r.near(r.one("near"))
	}
	r.mistakes(func(name, what string) {
		from, to, _ := strings.Cut(what, " to ")
		n.Mistakes = append(n.Mistakes, poll.NumberMistake{Name: name, From: strings.TrimSpace(from),
			To: strings.TrimSpace(to)})
	})
	return poll.Body{Kind: poll.KindNumber, Number: n}
}

// near reads "0.5", "2 %", "3 figures", "2 decimals", or "0.1 below, 0.2 above" with ends left out.
func (r *reading) near(text string) number.Tolerance {
	t := number.Tolerance{Is: number.Absolute}
	for _, part := range strings.Split(text, ",") {
		words := strings.Fields(strings.ReplaceAll(part, "%", " % "))
		if strings.Join(words, " ") == "without the low end" {
			t.WithoutLow = true
			continue
		}
		if strings.Join(words, " ") == "without the high end" {
			t.WithoutHigh = true
			continue
		}
		if len(words) == 0 {
			r.fail(true)
			return t
		}
		amount, rest := words[0], words[1:]
		if len(rest) > 0 && rest[0] == "%" {
			t.Is, rest = number.Relative, rest[1:]
		}
		switch strings.Join(rest, " ") {
		case "":
			t.Below, t.Above = amount, amount
		case "below":
			t.Below = amount
		case "above":
			t.Above = amount
		case string(number.Figures), string(number.Decimals):
			t.Is, t.Places = number.Nearness(rest[0]), r.count(amount)
		default:
			r.fail(true)
		}
	}
	if t.Is == number.Absolute || t.Is == number.Relative {
		t.Below, t.Above = orNothing(t.Below), orNothing(t.Above)
	}
	return t
}

func orNothing(amount string) string {
	if amount == "" {
		return "0"
	}
	return amount
}

func writeShort(q poll.Question, p *pen) {
	if len(q.Short.Accepted) > 0 {
		p.line("is: " + joined(q.Short.Accepted))
	}
	if q.Short.Slips > 0 {
		p.say("slips", itoa(q.Short.Slips))
	}
	if q.Short.WithCase {
		p.say("capitals", "yes")
	}
	for _, m := range q.Short.Mistakes {
		p.mistake(m.Name, joined(m.Texts))
	}
}

func readShort(r *reading) poll.Body {
	s := &poll.Short{}
	for _, line := range r.all("is") {
		s.Accepted = append(s.Accepted, split(line, '/')...)
	}
	if r.has("slips") {
		s.Slips = r.number("slips")
	}
	s.WithCase = r.yes("capitals")
	r.mistakes(func(name, what string) {
		s.Mistakes = append(s.Mistakes, poll.TextMistake{Name: name, Texts: split(what, '/')})
	})
	return poll.Body{Kind: poll.KindShort, Short: s}
}

// writeBlanks writes the text with what is right in braces: typed {Moon / moon}, chosen
// {+higher / -lower}.
func writeBlanks(q poll.Question, p *pen) {
	var text strings.Builder
	n := 0
	var mistakes []func()
	for _, part := range q.Blanks.Parts {
		b := part.Blank
		if b == nil {
			text.WriteString(escape(part.Text, "{}"))
			continue
		}
		n++
		at := itoa(n)
		text.WriteString("{" + inBlank(*b) + "}")
		for _, m := range b.Mistakes {
			mistakes = append(mistakes, func() { p.mistake(m.Name, at+" "+joined(m.Texts)) })
		}
	}
	p.line("text: " + text.String())
	if q.Blanks.Slips > 0 {
		p.say("slips", itoa(q.Blanks.Slips))
	}
	for _, write := range mistakes {
		write()
	}
}

func inBlank(b poll.Blank) string {
	signs := "/{}+-"
	var all []string
	right := map[string]bool{}
	for _, t := range b.Accepted {
		right[t] = true
	}
	for _, t := range b.Offered {
		sign := "-"
		if right[t] {
			sign = "+"
		}
		delete(right, t)
		all = append(all, sign+escape(t, signs))
	}
	for _, t := range b.Accepted { // right, and not offered
		if len(b.Offered) == 0 || right[t] {
			all = append(all, escape(t, signs))
		}
	}
	return strings.Join(all, " / ")
}

func readBlanks(r *reading) poll.Body {
	b := &poll.Blanks{}
	text := r.one("text")
	var blanks []*poll.Blank
	for text != "" {
		before, rest, more := cutAt(text, '{')
		if before != "" {
			b.Parts = append(b.Parts, poll.TextPart{Text: unescape(before)})
		}
		if !more {
			break
		}
		inside, after, closed := cutAt(rest, '}')
		r.fail(!closed)
		blank := &poll.Blank{ID: r.id()}
		for _, one := range parts(inside, '/') {
			switch {
			case one == "":
			case one[0] == '+':
				blank.Offered, blank.Accepted = append(
					blank.Offered,
					unescape(one[1:]),
				), append(
					blank.Accepted,
					unescape(one[1:]),
				)
			case one[0] == '-':
				blank.Offered = append(blank.Offered, unescape(one[1:]))
			default:
				blank.Accepted = append(blank.Accepted, unescape(one))
			}
		}
		blanks = append(blanks, blank)
		b.Parts = append(b.Parts, poll.TextPart{Blank: blank})
		text = after
	}
	if r.has("slips") {
		b.Slips = r.number("slips")
	}
	r.mistakes(func(name, what string) {
		at, texts, _ := strings.Cut(what, " ")
		n := r.count(at)
		if n < 1 || n > len(blanks) {
			r.fail(true)
			return
		}
		blanks[n-1].Mistakes = append(blanks[n-1].Mistakes, poll.TextMistake{Name: name, Texts: split(texts, '/')})
	})
	return poll.Body{Kind: poll.KindBlanks, Blanks: b}
}

// cutAt takes a text apart at a sign without a backslash before it; nothing is trimmed.
func cutAt(text string, sign byte) (before, after string, found bool) {
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '\\':
			i++
		case sign:
			return text[:i], text[i+1:], true
		}
	}
	return text, "", false
}

// parts takes a text apart at a sign, each part as it was written.
func parts(text string, sign byte) []string {
	var all []string
	for {
		one, rest, more := cut(text, sign)
		all = append(all, one)
		if !more {
			return all
		}
		text = rest
	}
}

package qti

import (
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/number"
	"alpenglow/core/poll"
	"alpenglow/core/questions"
)

// A number's decimals where it does not end by itself.
const decimals = 15

func writeNumber(w *item) {
	n := w.Asked.Number
	if n.Unit != "" {
		w.Lose(questions.LossUnit)
	}
	if len(n.Mistakes) > 0 {
		w.Lose(questions.LossMistakes)
	}
	w.ask()
	w.body = append(w.body, e("p", nil, e("textEntryInteraction", []string{"responseIdentifier", "RESPONSE"})))
	typed, err := number.Read(n.Answer, n.Language)
	if n.Answer == "" || err != nil {
		w.respond("RESPONSE", "single", "float", nil)
		return
	}
	places, ends := typed.Value.FloatPrec()
	if !ends {
		places = decimals
		w.Lose(questions.LossNear)
	}
	w.respond("RESPONSE", "single", "float", []string{typed.Value.FloatString(places)})
	if n.Tolerance.Is != number.Exact {
		w.processing = near(n.Tolerance)
	}
}

// near gives how a response is judged that need not be exactly it. A relative tolerance is in
// percent there, too.
func near(t number.Tolerance) *el {
	test := e("equal", []string{"toleranceMode", string(t.Is), "tolerance", t.Below + " " + t.Above,
		"includeLowerBound", strconv.FormatBool(!t.WithoutLow), "includeUpperBound",
		strconv.FormatBool(!t.WithoutHigh)})
	switch t.Is {
	case number.Figures:
		test = e("equalRounded", []string{"roundingMode", "significantFigures", "figures", strconv.Itoa(t.Places)})
	case number.Decimals:
		test = e("equalRounded", []string{"roundingMode", "decimalPlaces", "figures", strconv.Itoa(t.Places)})
	}
	test.add(e("variable", []string{"identifier", "RESPONSE"}), e("correct", []string{"identifier", "RESPONSE"}))
	return e("responseProcessing", nil, e("responseCondition", nil, e("responseIf", nil, test,
		e("setOutcomeValue", []string{"identifier", "SCORE"}, e("baseValue", []string{"baseType", "float"}, "1")))))
}

func isNumber(r *reading, at *node) bool {
	kind := r.declaration(at.Attr("responseIdentifier")).Attr("baseType")
	return at.Name == "textEntryInteraction" && (kind == "float" || kind == "integer")
}

func readNumber(r *reading, at *node) poll.Body {
	n := &poll.Number{Language: r.language, Tolerance: number.Tolerance{Is: number.Exact}}
	if right := r.right(at); len(right) > 0 {
		if value, ok := number.Decimal(right[0]); ok {
			n.Answer = number.Plainly(number.Typed{Value: value}, r.language)
		} else {
			r.Lose(questions.LossRight)
		}
		if len(right) > 1 {
			r.Lose(questions.LossRight)
		}
	}
	if t, ok := tolerance(r.root.At("responseProcessing")); ok {
		n.Tolerance = t
	}
	if n.Tolerance.Check() != nil {
		r.Lose(questions.LossNear)
		n.Tolerance = number.Tolerance{Is: number.Exact}
	}
	return poll.Body{Kind: poll.KindNumber, Number: n}
}

// tolerance finds how near is near enough.
func tolerance(n *node) (number.Tolerance, bool) {
	if n == nil {
		return number.Tolerance{}, false
	}
	switch n.Name {
	case "equalRounded":
		t := number.Tolerance{Is: number.Figures, Places: int(n.Number("figures", 0))}
		if n.Attr("roundingMode") == "decimalPlaces" {
			t.Is = number.Decimals
		}
		return t, true
	case "equal":
		mode := number.Nearness(n.Attr("toleranceMode"))
		if mode != number.Absolute && mode != number.Relative {
			return number.Tolerance{}, false
		}
		amounts := strings.Fields(n.Attr("tolerance"))
		if len(amounts) == 0 {
			return number.Tolerance{Is: mode}, true
		}
		return number.Tolerance{Is: mode, Below: amounts[0], Above: amounts[len(amounts)-1],
			WithoutLow: n.Attr(
				"includeLowerBound",
			) == "false", WithoutHigh: n.Attr("includeUpperBound") == "false"}, true
	}
	for _, child := range n.Nodes {
		if t, ok := tolerance(child); ok {
			return t, true
		}
	}
	return number.Tolerance{}, false
}

func writeShort(w *item) {
	s := w.Asked.Short
	if s.Slips > 0 {
		w.Lose(questions.LossSlips)
	}
	if len(s.Mistakes) > 0 {
		w.Lose(questions.LossMistakes)
	}
	w.ask()
	w.body = append(w.body, e("p", nil, e("textEntryInteraction", []string{"responseIdentifier", "RESPONSE"})))
	w.typed("RESPONSE", s.Accepted, s.WithCase)
}

// typed declares a response that is typed, with all that is accepted.
func (w *item) typed(id string, accepted []string, withCase bool) {
	var right []string
	var mapping []any
	if len(accepted) > 0 {
		m := e("mapping", []string{"defaultValue", "0"})
		for _, text := range accepted {
			m.add(
				e(
					"mapEntry",
					[]string{"mapKey", text, "mappedValue", "1", "caseSensitive", strconv.FormatBool(withCase)},
				),
			)
		}
		right, mapping = accepted[:1], []any{m}
	}
	w.respond(id, "single", "string", right, mapping...)
}

func readShort(r *reading, at *node) poll.Body {
	s := &poll.Short{Accepted: cleaned(r.right(at))}
	for _, m := range r.declaration(at.Attr("responseIdentifier")).At("mapping").All("mapEntry") {
		s.WithCase = s.WithCase || m.Attr("caseSensitive") == "true"
	}
	return poll.Body{Kind: poll.KindShort, Short: s}
}

func cleaned(texts []string) []string {
	var all []string
	for _, t := range texts {
		all = append(all, strings.TrimSpace(flat(t)))
	}
	return all
}

func writeOpen(w *item) {
	w.respond("RESPONSE", "single", "string", nil)
	w.put(e("extendedTextInteraction", []string{"responseIdentifier", "RESPONSE"}))
}

func readOpen(*reading, *node) poll.Body { return poll.Body{Kind: poll.KindOpen, Open: &poll.Free{}} }

// writeBlanks puts the text into one paragraph, below that of the question.
func writeBlanks(w *item) {
	b := w.Asked.Blanks
	if b.Slips > 0 {
		w.Lose(questions.LossSlips)
	}
	w.ask()
	p := e("p", []string{"class", "blanks"})
	n := 0
	for _, part := range b.Parts {
		if part.Blank == nil {
			p.add(part.Text)
			continue
		}
		n++
		id := "RESPONSE" + strconv.Itoa(n)
		if len(part.Blank.Mistakes) > 0 {
			w.Lose(questions.LossMistakes)
		}
		if len(part.Blank.Offered) == 0 {
			w.typed(id, part.Blank.Accepted, false)
			p.add(e("textEntryInteraction", []string{"responseIdentifier", id}))
			continue
		}
		x := e("inlineChoiceInteraction", []string{"responseIdentifier", id, "shuffle", "false"})
		m, right := e("mapping", []string{"defaultValue", "0"}), []string{}
		for i, text := range part.Blank.Offered {
			name := "a" + strconv.Itoa(i+1)
			x.add(e("inlineChoice", []string{"identifier", name}, text))
			if slices.Contains(part.Blank.Accepted, text) {
				m.add(e("mapEntry", []string{"mapKey", name, "mappedValue", "1"}))
				right = append(right, name)
			}
		}
		if len(right) > 1 {
			w.respond(id, "single", "identifier", right[:1], m)
		} else {
			w.respond(id, "single", "identifier", right)
		}
		p.add(x)
	}
	w.body = append(w.body, p)
}

// isBlanks: all that is to do stands within words, and there is more than one of it, or words
// beside it.
func isBlanks(r *reading, _ *node) bool {
	for _, x := range r.interactions {
		if x.Name != "textEntryInteraction" && x.Name != "inlineChoiceInteraction" {
			return false
		}
	}
	if len(r.interactions) > 1 || r.interactions[0].Name == "inlineChoiceInteraction" {
		return true
	}
	for _, block := range r.root.At("itemBody").Nodes {
		if len(interactions(block)) > 0 && (block.Attr("class") == "blanks" ||
			saysMore(block) && !isNumber(r, r.interactions[0])) {
			return true
		}
	}
	return false
}

// saysMore reports whether there are words in a block beside what is to do.
func saysMore(n *node) bool {
	return strings.TrimSpace(n.Text()) != "" || slices.ContainsFunc(n.Nodes, func(child *node) bool {
		return !strings.HasSuffix(child.Name, "Interaction") && saysMore(child)
	})
}

func readBlanks(r *reading, _ *node) poll.Body {
	b := &poll.Blanks{}
	say := func(text string) {
		if n := len(b.Parts); n > 0 && b.Parts[n-1].Blank == nil {
			b.Parts[n-1].Text += text
		} else if text != "" {
			b.Parts = append(b.Parts, poll.TextPart{Text: text})
		}
	}
	var walk func(n *node)
	walk = func(n *node) {
		for _, child := range n.Nodes {
			say(squeezed(child.Lead))
			switch {
			case slices.Contains(r.interactions, child):
				b.Parts = append(b.Parts, poll.TextPart{Blank: r.blank(child)})
			case child.Name == "br":
				say("\n")
			case hidden[child.Name]:
				r.Lose(questions.LossMarkup)
			default:
				if !known[child.Name] {
					r.Lose(questions.LossMarkup)
				}
				walk(child)
			}
		}
		say(squeezed(n.Tail))
	}
	for _, block := range r.root.At("itemBody").Nodes {
		if len(interactions(block)) == 0 {
			continue
		}
		if len(b.Parts) > 0 {
			say("\n")
		}
		walk(block)
	}
	return poll.Body{Kind: poll.KindBlanks, Blanks: b}
}

// squeezed gives a text with single spaces, also at its ends.
func squeezed(text string) string {
	text = flat(text)
	if strings.TrimSpace(text) == "" {
		return text[:min(len(text), 1)]
	}
	out := strings.Join(strings.Fields(text), " ")
	if text[0] == ' ' {
		out = " " + out
	}
	if text[len(text)-1] == ' ' {
		out += " "
	}
	return out
}

func (r *reading) blank(at *node) *poll.Blank {
	b := &poll.Blank{ID: r.id()}
	right := r.right(at)
	if at.Name == "textEntryInteraction" {
		b.Accepted = cleaned(right)
		return b
	}
	for _, c := range first(at.All("inlineChoice")) {
		text := r.text(c, false)
		b.Offered = append(b.Offered, text)
		if slices.Contains(right, c.Attr("identifier")) {
			b.Accepted = append(b.Accepted, text)
		}
	}
	return b
}

// whole gives a number as its share of another.
func whole(n, of float64) float64 {
	if of <= 0 {
		return 0
	}
	return min(1, max(0, n/of))
}

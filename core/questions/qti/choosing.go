package qti

import (
	"slices"
	"strconv"

	"alpenglow/core/poll"
	"alpenglow/core/questions"
)

// judged gives the identifiers of those options that are right.
func (w *item) judged(all []poll.Option) []string {
	var right []string
	for i, o := range all {
		if o.Right {
			right = append(right, "a"+strconv.Itoa(i+1))
		}
		if o.Mistake != "" {
			w.Lose(questions.LossMistakes)
		}
	}
	return right
}

func writeChoice(w *item) {
	all := w.Asked.Choice.Options
	right := w.judged(all)
	// Of several right ones any is: that is told by a mapping.
	var mapping []any
	if len(right) > 1 {
		m := e("mapping", []string{"defaultValue", "0"})
		for _, r := range right {
			m.add(e("mapEntry", []string{"mapKey", r, "mappedValue", "1"}))
		}
		mapping, right = []any{m}, right[:1]
	}
	w.respond("RESPONSE", "single", "identifier", right, mapping...)
	w.put(e("choiceInteraction", []string{"responseIdentifier", "RESPONSE", "shuffle", w.shuffle(), "maxChoices", "1"},
		w.choices("simpleChoice", "a", all)...))
}

func isChoice(r *reading, at *node) bool {
	return at.Name == "choiceInteraction" &&
		r.declaration(at.Attr("responseIdentifier")).Attr("cardinality") == "single"
}

func readChoice(r *reading, at *node) poll.Body {
	all, _ := r.options(at, "simpleChoice", r.right(at)...)
	return poll.Body{Kind: poll.KindChoice, Choice: &poll.Choice{Options: all}}
}

func writeSeveral(w *item) {
	all := w.Asked.Several.Options
	right := w.judged(all)
	w.respond("RESPONSE", "multiple", "identifier", right)
	w.put(e("choiceInteraction", []string{"responseIdentifier", "RESPONSE", "shuffle", w.shuffle(), "maxChoices", "0"},
		w.choices("simpleChoice", "a", all)...))
}

func readSeveral(r *reading, at *node) poll.Body {
	all, _ := r.options(at, "simpleChoice", r.right(at)...)
	return poll.Body{Kind: poll.KindSeveral, Several: &poll.Several{Options: all}}
}

// truths are the identifiers of true and false, by which such a choice is known again.
var truths = []string{string(poll.IsTrue), string(poll.IsFalse), string(poll.NotSure)}

func writeTruth(w *item) {
	t := w.Asked.Truth
	if t.Mistake != "" {
		w.Lose(questions.LossMistakes)
	}
	var right []string
	if t.Is != "" {
		right = []string{string(t.Is)}
	}
	w.respond("RESPONSE", "single", "identifier", right)
	x := e("choiceInteraction", []string{"responseIdentifier", "RESPONSE", "shuffle", w.shuffle(), "maxChoices", "1"})
	words := []string{"True", "False", "Not sure"}
	for i, id := range truths {
		if id != string(poll.NotSure) || t.NotSure {
			x.add(e("simpleChoice", []string{"identifier", id}, words[i]))
		}
	}
	w.put(x)
}

func isTruth(r *reading, at *node) bool {
	all := at.All("simpleChoice")
	return isChoice(r, at) && (len(all) == 2 || len(all) == 3) && !slices.ContainsFunc(all, func(c *node) bool {
		return !slices.Contains(truths, c.Attr("identifier"))
	})
}

func readTruth(r *reading, at *node) poll.Body {
	t := &poll.Truth{NotSure: len(at.All("simpleChoice")) == 3}
	if right := r.right(at); len(right) > 0 {
		t.Is = poll.Holds(right[0])
	}
	return poll.Body{Kind: poll.KindTruth, Truth: t}
}

func writeScale(w *item) {
	s := w.Asked.Scale
	if s.Low != "" || s.High != "" {
		w.Lose(questions.LossEnds)
	}
	w.respond("RESPONSE", "single", "integer", nil)
	w.put(e("sliderInteraction", []string{"responseIdentifier", "RESPONSE", "lowerBound", "1", "upperBound",
		strconv.Itoa(s.Steps), "step", "1"}))
}

func isScale(_ *reading, at *node) bool {
	return at.Name == "sliderInteraction" && at.Number("step", 1) == 1 && at.Number("lowerBound", 0) == 1
}

func readScale(r *reading, at *node) poll.Body {
	if len(r.right(at)) > 0 {
		r.Lose(questions.LossRight)
	}
	return poll.Body{Kind: poll.KindScale, Scale: &poll.Scale{Steps: int(at.Number("upperBound", 0))}}
}

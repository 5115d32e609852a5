package qti

import (
	"slices"
	"strings"

	"alpenglow/core/poll"
	"alpenglow/core/questions"
)

func writeRank(w *item) { w.order(w.Asked.Rank.Options, nil) }

// order lets things be put in order, of which one is right, if any.
func (w *item) order(all []poll.Option, right []string) {
	w.respond("RESPONSE", "ordered", "identifier", right)
	w.put(e("orderInteraction", []string{"responseIdentifier", "RESPONSE", "shuffle", w.shuffle()},
		w.choices("simpleChoice", "a", all)...))
}

func isRank(r *reading, at *node) bool { return at.Name == "orderInteraction" && len(r.right(at)) == 0 }

func readRank(r *reading, at *node) poll.Body {
	all, _ := r.options(at, "simpleChoice")
	return poll.Body{Kind: poll.KindRank, Rank: &poll.Rank{Options: all}}
}

func writeOrder(w *item) {
	o := w.Asked.Order
	if len(o.Mistakes) > 0 {
		w.Lose(questions.LossMistakes)
	}
	var right []string
	for _, one := range o.Options {
		right = append(right, named("a", o.Options, one.ID))
	}
	w.order(o.Options, right)
}

// readOrder lays the options in the order that is right.
func readOrder(r *reading, at *node) poll.Body {
	all, ids := r.options(at, "simpleChoice")
	sorted := []poll.Option{}
	for _, name := range r.right(at) {
		for _, o := range all {
			if o.ID == ids[name] {
				sorted = append(sorted, o)
			}
		}
	}
	if len(sorted) != len(all) {
		r.Lose(questions.LossRight)
		sorted = all
	}
	return poll.Body{Kind: poll.KindOrder, Order: &poll.Order{Options: sorted}}
}

func writeMatch(w *item) {
	m := w.Asked.Match
	if len(m.Mistakes) > 0 {
		w.Lose(questions.LossMistakes)
	}
	var pairs []string
	for _, p := range m.Pairs {
		pairs = append(pairs, named("a", m.Left, p.Left)+" "+named("b", m.Right, p.Right))
	}
	w.pair("pairs", pairs, m.Left, m.Right)
}

func writeBoxes(w *item) {
	b := w.Asked.Boxes
	if len(b.Mistakes) > 0 {
		w.Lose(questions.LossMistakes)
	}
	var pairs []string
	for _, in := range b.Homes {
		pairs = append(pairs, named("a", b.Things, in.Thing)+" "+named("b", b.Boxes, in.Box))
	}
	w.pair("boxes", pairs, b.Things, b.Boxes)
}

// pair lets things be put to others, each to one at most.
func (w *item) pair(class string, pairs []string, left, right []poll.Option) {
	w.respond("RESPONSE", "multiple", "directedPair", pairs)
	w.put(e("matchInteraction", []string{"class", class, "responseIdentifier", "RESPONSE", "shuffle", w.shuffle(),
		"maxAssociations", "0"},
		e("simpleMatchSet", nil, w.choices("simpleAssociableChoice", "a", left, "matchMax", "1")...),
		e("simpleMatchSet", nil, w.choices("simpleAssociableChoice", "b", right, "matchMax", "0")...)))
}

// isBoxes: it says so, or there are more things than what they go to, of which some take several.
func isBoxes(_ *reading, at *node) bool {
	sets := at.All("simpleMatchSet")
	if at.Name != "matchInteraction" || len(sets) != 2 {
		return false
	}
	if class := at.Attr("class"); class == "boxes" || class == "pairs" {
		return class == "boxes"
	}
	left, right := sets[0].All("simpleAssociableChoice"), sets[1].All("simpleAssociableChoice")
	return len(left) > len(right) && len(right) <= poll.MaxBoxes && right[0].Attr("matchMax") != "1"
}

// paired gives the two sides and what belongs to what; nothing of things that belong twice.
func (r *reading) paired(at *node) (left, right []poll.Option, pairs [][2]string) {
	sets := at.All("simpleMatchSet")
	if len(sets) != 2 {
		r.Lose(questions.LossRight)
		return nil, nil, nil
	}
	var lefts, rights map[string]string
	left, lefts = r.options(sets[0], "simpleAssociableChoice")
	right, rights = r.options(sets[1], "simpleAssociableChoice")
	seen := map[string]bool{}
	for _, value := range r.right(at) {
		from, to, _ := strings.Cut(value, " ")
		l, r1 := lefts[from], rights[to]
		if l == "" || r1 == "" || seen[l] {
			r.Lose(questions.LossRight)
			continue
		}
		seen[l] = true
		pairs = append(pairs, [2]string{l, r1})
	}
	return left, right, pairs
}

func readMatch(r *reading, at *node) poll.Body {
	left, right, pairs := r.paired(at)
	m := &poll.Match{Left: left, Right: right}
	for _, p := range pairs {
		m.Pairs = append(m.Pairs, poll.Pair{Left: p[0], Right: p[1]})
	}
	return poll.Body{Kind: poll.KindMatch, Match: m}
}

func readBoxes(r *reading, at *node) poll.Body {
	things, boxes, pairs := r.paired(at)
	b := &poll.Boxes{Boxes: boxes, Things: things}
	for _, p := range pairs {
		b.Homes = append(b.Homes, poll.InBox{Thing: p[0], Box: p[1]})
	}
	return poll.Body{Kind: poll.KindBoxes, Boxes: b}
}

// writeMemory writes a game as things to match, which it is for others.
func writeMemory(w *item) {
	var ones, others []poll.Option
	var pairs []string
	for _, p := range w.Asked.Memory.Pairs {
		ones, others = append(ones, p.One), append(others, p.Other)
		pairs = append(pairs, named("a", ones, p.One.ID)+" "+named("b", others, p.Other.ID))
	}
	w.pair("memory", pairs, ones, others)
}

func isMemory(_ *reading, at *node) bool {
	return at.Name == "matchInteraction" && at.Attr("class") == "memory"
}

func readMemory(r *reading, at *node) poll.Body {
	ones, others, pairs := r.paired(at)
	m := &poll.Memory{}
	for _, p := range pairs {
		one := slices.IndexFunc(ones, func(o poll.Option) bool { return o.ID == p[0] })
		other := slices.IndexFunc(others, func(o poll.Option) bool { return o.ID == p[1] })
		m.Pairs = append(m.Pairs, poll.CardPair{One: ones[one], Other: others[other]})
	}
	return poll.Body{Kind: poll.KindMemory, Memory: m}
}

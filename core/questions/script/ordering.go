package script

import (
	"strconv"
	"strings"

	"alpenglow/core/poll"
)

func itoa(n int) string { return strconv.Itoa(n) }

// numbered writes things in their order.
func (p *pen) numbered(all []poll.Option) {
	for i, o := range all {
		p.line(itoa(i+1) + ". " + escape(o.Text, ""))
	}
}

func (r *reading) numbered() []poll.Option {
	all := []poll.Option{}
	for _, line := range r.take() {
		n, text, is := strings.Cut(line, ".")
		if _, err := strconv.Atoi(n); !is || err != nil {
			r.fail(true)
			continue
		}
		all = append(all, poll.Option{ID: r.id(), Text: unescape(strings.TrimSpace(text))})
	}
	return all
}

func writeRank(q poll.Question, p *pen) { p.numbered(q.Rank.Options) }

func readRank(r *reading) poll.Body {
	return poll.Body{Kind: poll.KindRank, Rank: &poll.Rank{Options: r.numbered()}}
}

func writeOrder(q poll.Question, p *pen) {
	p.numbered(q.Order.Options)
	for _, m := range q.Order.Mistakes {
		var at []string
		for _, id := range m.Order {
			at = append(at, place(q.Order.Options, id))
		}
		p.mistake(m.Name, strings.Join(at, " "))
	}
}

func readOrder(r *reading) poll.Body {
	o := &poll.Order{Options: r.numbered()}
	r.mistakes(func(name, what string) {
		m := poll.OrderMistake{Name: name}
		for _, n := range strings.Fields(what) {
			m.Order = append(m.Order, r.at(o.Options, n))
		}
		o.Mistakes = append(o.Mistakes, m)
	})
	return poll.Body{Kind: poll.KindOrder, Order: o}
}

func writeMatch(q poll.Question, p *pen) {
	m := q.Match
	of := map[string]string{}
	for _, pair := range m.Pairs {
		of[pair.Left] = pair.Right
	}
	// The right side stands in its own order where that is not the left side's.
	for _, l := range m.Left {
		p.line(escape(l.Text, "=:") + " = " + pointed(m.Right, of[l.ID]))
	}
	for i, r := range m.Right {
		p.line("= " + itoa(i+1) + ". " + escape(r.Text, ""))
	}
	for _, x := range m.Mistakes {
		p.mistake(x.Name, place(m.Left, x.Left)+" > "+place(m.Right, x.Right))
	}
}

// pointed gives the number of what something belongs to, if to anything.
func pointed(all []poll.Option, id string) string {
	if id == "" {
		return ""
	}
	return place(all, id)
}

// readMatch reads "left = right", or "left = 2" with "= 2. right" below.
func readMatch(r *reading) poll.Body {
	m := &poll.Match{}
	type pair struct{ left, to string }
	var pairs []pair
	for _, line := range r.take() {
		left, right, is := cut(line, '=')
		r.fail(!is)
		if left != "" {
			o := poll.Option{ID: r.id(), Text: unescape(left)}
			m.Left = append(m.Left, o)
			if right != "" {
				pairs = append(pairs, pair{o.ID, right})
			}
			continue
		}
		if n, text, numbered := strings.Cut(right, ". "); numbered && n == itoa(len(m.Right)+1) {
			right = text
		}
		m.Right = append(m.Right, poll.Option{ID: r.id(), Text: unescape(strings.TrimSpace(right))})
	}
	listed := len(m.Right)
	for _, p := range pairs {
		if n, err := strconv.Atoi(p.to); err == nil && n >= 1 && n <= listed {
			m.Pairs = append(m.Pairs, poll.Pair{Left: p.left, Right: m.Right[n-1].ID})
			continue
		}
		o := poll.Option{ID: r.id(), Text: unescape(p.to)}
		m.Right = append(m.Right, o)
		m.Pairs = append(m.Pairs, poll.Pair{Left: p.left, Right: o.ID})
	}
	r.mistakes(func(name, what string) {
		left, right, _ := strings.Cut(what, ">")
		m.Mistakes = append(m.Mistakes, poll.PairMistake{Name: name,
			Pair: poll.Pair{Left: r.at(m.Left, left), Right: r.at(m.Right, right)}})
	})
	return poll.Body{Kind: poll.KindMatch, Match: m}
}

func writeBoxes(q poll.Question, p *pen) {
	b := q.Boxes
	home := map[string]string{}
	for _, in := range b.Homes {
		home[in.Thing] = in.Box
	}
	for _, one := range b.Boxes {
		p.line("[" + escape(one.Text, "]") + "]")
	}
	for _, thing := range b.Things {
		p.line("- " + escape(thing.Text, "=") + " = " + pointed(b.Boxes, home[thing.ID]))
	}
	for _, m := range b.Mistakes {
		p.mistake(m.Name, place(b.Things, m.Thing)+" > "+place(b.Boxes, m.Box))
	}
}

// readBoxes reads boxes, and things with the number of their box or below it.
func readBoxes(r *reading) poll.Body {
	b := &poll.Boxes{}
	at := ""
	homes := map[string]string{}
	for _, line := range r.take() {
		switch {
		case strings.HasPrefix(line, "["):
			name, rest, is := cut(line[1:], ']')
			r.fail(!is || rest != "")
			o := poll.Option{ID: r.id(), Text: unescape(name)}
			b.Boxes, at = append(b.Boxes, o), o.ID
		case strings.HasPrefix(line, "-"):
			text, box, numbered := cut(line[1:], '=')
			o := poll.Option{ID: r.id(), Text: unescape(text)}
			b.Things = append(b.Things, o)
			if !numbered {
				homes[o.ID] = at
			} else if box != "" {
				homes[o.ID] = "=" + box
			}
		default:
			r.fail(true)
		}
	}
	for _, thing := range b.Things {
		home, is := homes[thing.ID]
		if number, later := strings.CutPrefix(home, "="); later {
			home = r.at(b.Boxes, number)
		}
		if is && home != "" {
			b.Homes = append(b.Homes, poll.InBox{Thing: thing.ID, Box: home})
		}
	}
	r.mistakes(func(name, what string) {
		thing, box, _ := strings.Cut(what, ">")
		b.Mistakes = append(b.Mistakes, poll.BoxMistake{Name: name,
			InBox: poll.InBox{Thing: r.at(b.Things, thing), Box: r.at(b.Boxes, box)}})
	})
	return poll.Body{Kind: poll.KindBoxes, Boxes: b}
}

func writeMemory(q poll.Question, p *pen) {
	for _, pair := range q.Memory.Pairs {
		p.line(escape(pair.One.Text, "=:") + " = " + escape(pair.Other.Text, ""))
	}
}

// readMemory reads "one = other", a pair of cards in each line.
func readMemory(r *reading) poll.Body {
	m := &poll.Memory{}
	for _, line := range r.take() {
		one, other, is := cut(line, '=')
		r.fail(!is)
		m.Pairs = append(m.Pairs, poll.CardPair{One: poll.Option{ID: r.id(), Text: unescape(one)},
			Other: poll.Option{ID: r.id(), Text: unescape(other)}})
	}
	return poll.Body{Kind: poll.KindMemory, Memory: m}
}

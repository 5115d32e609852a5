package script

import (
	"strings"

	"alpenglow/core/poll"
)

func writeChoice(q poll.Question, p *pen)  { p.options(q.Choice.Options) }
func writeSeveral(q poll.Question, p *pen) { p.options(q.Several.Options) }

func readChoice(r *reading) poll.Body {
	return poll.Body{Kind: poll.KindChoice, Choice: &poll.Choice{Options: r.options()}}
}

func readSeveral(r *reading) poll.Body {
	return poll.Body{Kind: poll.KindSeveral, Several: &poll.Several{Options: r.options()}}
}

// options writes what is offered: right with +, other with -, and a known mistake behind it.
func (p *pen) options(all []poll.Option) {
	for _, o := range all {
		line := "- "
		if o.Right {
			line = "+ "
		}
		line += escape(o.Text, "=")
		if o.Mistake != "" {
			line += " = " + escape(o.Mistake, "")
		}
		p.line(line)
	}
}

func (r *reading) options() []poll.Option {
	all := []poll.Option{}
	for _, line := range r.take() {
		right := strings.HasPrefix(line, "+")
		if !right && !strings.HasPrefix(line, "-") {
			r.fail(true)
			continue
		}
		text, mistake, _ := cut(line[1:], '=')
		all = append(all, poll.Option{ID: r.id(), Text: unescape(text), Right: right, Mistake: unescape(mistake)})
	}
	return all
}

func writeTruth(q poll.Question, p *pen) {
	p.say("is", string(q.Truth.Is))
	if q.Truth.NotSure {
		p.say("or", "not sure")
	}
	p.say("mistake", q.Truth.Mistake)
}

func readTruth(r *reading) poll.Body {
	or := strings.ToLower(r.one("or"))
	r.fail(or != "" && or != "not sure")
	return poll.Body{Kind: poll.KindTruth, Truth: &poll.Truth{Is: poll.Holds(strings.ToLower(r.one("is"))),
		NotSure: or != "", Mistake: unescape(r.one("mistake"))}}
}

func writeScale(q poll.Question, p *pen) {
	p.line("steps: " + itoa(q.Scale.Steps))
	p.say("low", q.Scale.Low)
	p.say("high", q.Scale.High)
}

func readScale(r *reading) poll.Body {
	return poll.Body{Kind: poll.KindScale, Scale: &poll.Scale{Steps: r.number("steps"), Low: unescape(r.one("low")),
		High: unescape(r.one("high"))}}
}

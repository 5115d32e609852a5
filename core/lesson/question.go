package lesson

import (
	"strings"

	"alpenglow/core/poll"
	"alpenglow/core/prose"
)

// KindPoll is a question on a frame.
const KindPoll Kind = "poll"

// asked is a poll's question as the body of a mark.
type asked poll.Question

func (q *asked) check() error {
	for _, words := range poll.Question(*q).Words() {
		if err := prose.Check(words, poll.MaxQuestion); err != nil {
			return err
		}
	}
	return poll.Question(*q).Check()
}

func (q *asked) with(p, before *Properties) Body {
	c := poll.Question(*q)
	take(&c, &p.Poll, &before.Poll)
	c.Was = q.Was
	return Body{Kind: KindPoll, Poll: &c}
}

func (q *asked) words() string  { return strings.Join(poll.Question(*q).Words(), " ") }
func (q *asked) says() string   { return q.words() }
func (q *asked) manner() manner { return manner{least: minSide} }

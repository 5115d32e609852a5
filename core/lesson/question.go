package lesson

import (
	"strings"

	"alpenglow/core/id"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// KindPoll is a question on a frame.
const KindPoll Kind = "poll"

// asked is a poll's question as the body of a mark.
type asked poll.Question

func (q *asked) check() error {
	for _, c := range append([]poll.Choice{{Text: q.Text}}, q.Choices...) {
		if c.Picture != "" && !id.IsPlain(c.Picture) {
			return refusal.New(refusal.NoSuchPicture)
		}
		if err := checkWords(c.Text, poll.MaxQuestion); err != nil {
			return err
		}
	}
	return poll.Question(*q).Check()
}

func (q *asked) with(p, before *Properties) Body {
	c := poll.Question(*q)
	take(&c, &p.Poll, &before.Poll)
	return Body{Kind: KindPoll, Poll: &c}
}

func (q *asked) words() string {
	words := []string{q.Text}
	for _, c := range q.Choices {
		words = append(words, c.Text)
	}
	return strings.Join(words, " ")
}

func (q *asked) says() string   { return q.words() }
func (q *asked) manner() manner { return manner{least: minSide} }

package poll

import "alpenglow/core/refusal"

// KindChoice asks to choose one of several answers.
const KindChoice Kind = "choice"

// MaxOptions is how many answers a choice offers.
const MaxOptions = 12

// Choice is a question that offers answers: one of them is chosen.
type Choice struct {
	Options []Option `json:"options"`
}

// Chosen is an answer to a choice question.
type Chosen struct {
	Option string `json:"option"`
}

// Offer gives the body of a question that offers answers.
func Offer(options ...Option) Body { return Body{Kind: KindChoice, Choice: &Choice{options}} }

// Choose gives the answer that is an option.
func Choose(option string) Value { return Value{Kind: KindChoice, Choice: &Chosen{option}} }

func (c *Choice) of() options { return c.Options }

func (c *Choice) check() error       { return c.of().check(2, MaxOptions) }
func (c *Choice) words() []string    { return c.of().words() }
func (c *Choice) pictures() []string { return c.of().pictures() }
func (c *Choice) bare() Body         { return Offer(c.of().bare()...) }
func (c *Choice) nameless() Body     { return Offer(c.of().nameless()...) }
func (c *Choice) right() string      { return c.of().right() }

func (c *Choice) shown(rename func(string) string) Body { return Offer(c.of().shown(rename)...) }

func (c *Choice) takes(v Value) error {
	if c.of().at(v.Choice.Option) < 0 {
		return refusal.New(refusal.NoSuchChoice)
	}
	return nil
}

func (c *Choice) judge(v Value) Judgement {
	if c.right() == "" {
		return Judgement{}
	}
	chosen := c.Options[c.of().at(v.Choice.Option)]
	return whole(chosen.Right, chosen.Mistake)
}

func (c *Choice) says(v Value) string { return c.of().text(v.Choice.Option) }

func (c *Choice) chart(values []Value, _ []Judgement) Chart {
	counts := map[string]int{}
	for _, v := range values {
		counts[v.Choice.Option]++
	}
	return c.of().bars(func(option string) int { return counts[option] })
}

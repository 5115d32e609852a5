package poll

import (
	"slices"
	"unicode/utf8"

	"alpenglow/core/id"
	"alpenglow/core/refusal"
)

// KindChoice asks to choose one of several answers.
const KindChoice Kind = "choice"

// Bounds of a choice question: how many answers it offers, and how many
// characters each may have.
const (
	MaxOptions = 12
	MaxOption  = 300
)

// Choice is a question that offers answers: one of them is chosen.
type Choice struct {
	Options []Option `json:"options"`
}

// Option is one answer that a choice question offers.
type Option struct {
	ID   string `json:"id"`
	Text string `json:"text"`
	// Picture is the id of a picture that is shown with the text, or instead
	// of one; the text then says what is on it.
	Picture string `json:"picture,omitempty"`
	// Right marks a right answer. It is removed before a class sees the
	// question, until the teacher reveals it.
	Right bool `json:"right,omitempty"`
}

// Chosen is an answer to a choice question.
type Chosen struct {
	Option string `json:"option"`
}

// Offer gives the body of a question that offers answers.
func Offer(options ...Option) Body { return Body{Kind: KindChoice, Choice: &Choice{options}} }

// Choose gives the answer that is an option.
func Choose(option string) Value { return Value{Kind: KindChoice, Choice: &Chosen{option}} }

func (c *Choice) check() error {
	if len(c.Options) < 2 || len(c.Options) > MaxOptions {
		return refusal.About(refusal.BoardIncorrect, "a poll needs 2 to %d answers", MaxOptions)
	}
	seen := map[string]bool{}
	for _, o := range c.Options {
		if utf8.RuneCountInString(o.Text) > MaxOption {
			return refusal.About(refusal.TextTooLong, "an answer has at most %d characters", MaxOption)
		}
		if !id.IsPlain(o.ID) || seen[o.ID] {
			return refusal.About(refusal.BoardIncorrect, "each answer of a poll needs an id of its own")
		}
		seen[o.ID] = true
	}
	return nil
}

func (c *Choice) words() []string {
	words := make([]string, len(c.Options))
	for i, o := range c.Options {
		words[i] = o.Text
	}
	return words
}

func (c *Choice) pictures() []string {
	var all []string
	for _, o := range c.Options {
		if o.Picture != "" {
			all = append(all, o.Picture)
		}
	}
	return all
}

func (c *Choice) shown(rename func(string) string) Body {
	return c.each(func(o *Option) {
		if o.Picture != "" {
			o.Picture = rename(o.Picture)
		}
	})
}

func (c *Choice) bare() Body { return c.each(func(o *Option) { o.Right = false }) }

// each gives the question with its options changed.
func (c *Choice) each(change func(*Option)) Body {
	options := slices.Clone(c.Options)
	for i := range options {
		change(&options[i])
	}
	return Offer(options...)
}

func (c *Choice) at(v Value) int {
	return slices.IndexFunc(c.Options, func(o Option) bool { return o.ID == v.Choice.Option })
}

func (c *Choice) takes(v Value) error {
	if c.at(v) < 0 {
		return refusal.New(refusal.NoSuchChoice)
	}
	return nil
}

func (c *Choice) hasRight() bool {
	return slices.ContainsFunc(c.Options, func(o Option) bool { return o.Right })
}

func (c *Choice) judge(v Value) Verdict {
	switch {
	case !c.hasRight():
		return NoVerdict
	case c.Options[c.at(v)].Right:
		return Right
	}
	return Wrong
}

func (c *Choice) says(v Value) string { return c.Options[c.at(v)].Text }

func (c *Choice) tally(values []Value) []int {
	counts := make([]int, len(c.Options))
	for _, v := range values {
		counts[c.at(v)]++
	}
	return counts
}

package poll

import (
	"cmp"
	"hash/fnv"
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/id"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// MaxOption is how many characters one thing that a question offers may have.
const MaxOption = 300

// Option is one thing that a question offers: an answer, something to put in order.
type Option struct {
	ID   string `json:"id"`
	Text string `json:"text"`
	// Picture is the id of a picture that is shown with the text, or instead
	// of one; the text then says what is on it.
	Picture string `json:"picture,omitempty"`
	// Right marks a right answer. It is removed before a class sees the
	// question, until the teacher reveals it.
	Right bool `json:"right,omitempty"`
	// Mistake names what somebody took for something else who chooses this; only the
	// staff sees it.
	Mistake string `json:"mistake,omitempty"`
}

// options are some things that a question offers.
type options []Option

func (o options) check(least, most int) error {
	if len(o) < least || len(o) > most {
		return refusal.About(refusal.BoardIncorrect, "a question of this kind offers %d to %d things", least, most)
	}
	seen := map[string]bool{}
	for _, one := range o {
		err := cmp.Or(prose.Check(one.Text, MaxOption), prose.Check(one.Mistake, MaxMistake))
		if err != nil {
			return err
		}
		if !id.IsPlain(one.ID) || seen[one.ID] {
			return refusal.About(refusal.BoardIncorrect, "each answer of a poll needs an id of its own")
		}
		seen[one.ID] = true
	}
	return nil
}

func (o options) words() []string {
	words := make([]string, len(o))
	for i, one := range o {
		words[i] = one.Text
	}
	return words
}

func (o options) pictures() []string {
	var all []string
	for _, one := range o {
		if one.Picture != "" {
			all = append(all, one.Picture)
		}
	}
	return all
}

func (o options) each(change func(*Option)) options {
	all := slices.Clone(o)
	for i := range all {
		change(&all[i])
	}
	return all
}

func (o options) shown(rename func(string) string) options {
	return o.each(func(one *Option) {
		if one.Picture != "" {
			one.Picture = rename(one.Picture)
		}
	})
}

func (o options) bare() options {
	return o.each(func(one *Option) { one.Right, one.Mistake = false, "" })
}
func (o options) nameless() options { return o.each(func(one *Option) { one.Mistake = "" }) }

// mixed gives them in an order that says nothing of the one they were written in.
func (o options) mixed() options {
	key := func(one Option) uint64 {
		h := fnv.New64a()
		h.Write([]byte(one.ID + "\x00" + one.Text))
		return h.Sum64()
	}
	return slices.SortedFunc(slices.Values(o), func(a, b Option) int {
		return cmp.Or(cmp.Compare(key(a), key(b)), cmp.Compare(a.ID, b.ID))
	})
}

func (o options) at(option string) int {
	return slices.IndexFunc(o, func(one Option) bool { return one.ID == option })
}

func (o options) text(option string) string {
	if i := o.at(option); i >= 0 {
		return o[i].Text
	}
	return ""
}

// right says what is right among them; a picture without words by its place.
func (o options) right() string {
	var all []string
	for i, one := range o {
		if one.Right {
			all = append(all, cmp.Or(strings.TrimSpace(one.Text), "#"+strconv.Itoa(i+1)))
		}
	}
	return strings.Join(all, ", ")
}

// allOf reports why some ids are not all of the options, each once.
func (o options) allOf(order []string) error {
	known := map[string]bool{}
	for _, one := range o {
		known[one.ID] = true
	}
	for _, one := range order {
		if !known[one] {
			return refusal.New(refusal.NoSuchChoice)
		}
		delete(known, one)
	}
	if len(known) > 0 {
		return refusal.About(refusal.Malformed, "all of them are put in order")
	}
	return nil
}

// inWords says an order in words.
func (o options) inWords(order []string) string {
	words := make([]string, len(order))
	for i, one := range order {
		words[i] = numbered(i) + o.text(one)
	}
	return strings.Join(words, ", ")
}

// checkName reports what is wrong with the name of a known mistake.
func checkName(name string) error {
	if prose.IsBlank(name) {
		return refusal.New(refusal.NameEmpty)
	}
	return prose.Check(name, MaxMistake)
}

// bars counts how often each option was chosen.
func (o options) bars(count func(option string) int) Chart {
	bars := make([]Bar, len(o))
	for i, one := range o {
		bars[i] = Bar{ID: one.ID, Text: one.Text, Count: count(one.ID), Right: one.Right, Mistake: one.Mistake}
	}
	return Chart{Kind: ChartBars, Bars: &Bars{bars}}
}

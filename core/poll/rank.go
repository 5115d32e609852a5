package poll

import (
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/refusal"
)

// KindRank asks to put things into an order of one's own preference.
const KindRank Kind = "rank"

// MaxRanked is how many things there are to put in order at most.
const MaxRanked = 8

// Rank is a question that asks for an order of preference. None of its options is right.
type Rank struct {
	Options []Option `json:"options"`
}

// Ranked is an answer to it: all options, the one that is liked best first.
type Ranked struct {
	Order []string `json:"order"`
}

// Order gives the body of a question that asks for an order.
func Order(options ...Option) Body { return Body{Kind: KindRank, Rank: &Rank{options}} }

// InOrder gives the answer that puts options in an order.
func InOrder(options ...string) Value { return Value{Kind: KindRank, Rank: &Ranked{options}} }

func (r *Rank) choice() *Choice { return &Choice{r.Options} }

func (r *Rank) check() error {
	if len(r.Options) > MaxRanked {
		return refusal.About(refusal.BoardIncorrect, "2 to %d things are put in order", MaxRanked)
	}
	if r.choice().hasRight() {
		return refusal.About(refusal.BoardIncorrect, "an order of preference has nothing right")
	}
	return r.choice().check()
}

func (r *Rank) words() []string    { return r.choice().words() }
func (r *Rank) pictures() []string { return r.choice().pictures() }
func (r *Rank) bare() Body         { return Order(r.Options...) }
func (r *Rank) shown(rename func(string) string) Body {
	return Order(r.choice().shown(rename).Choice.Options...)
}

func (r *Rank) takes(v Value) error {
	known := map[string]bool{}
	for _, o := range r.Options {
		known[o.ID] = true
	}
	for _, id := range v.Rank.Order {
		if !known[id] {
			return refusal.New(refusal.NoSuchChoice)
		}
		delete(known, id)
	}
	if len(known) > 0 {
		return refusal.About(refusal.Malformed, "all of them are put in order")
	}
	return nil
}

func (r *Rank) judge(Value) Verdict { return NoVerdict }

func (r *Rank) says(v Value) string {
	words := make([]string, len(v.Rank.Order))
	for i, id := range v.Rank.Order {
		at := slices.IndexFunc(r.Options, func(o Option) bool { return o.ID == id })
		words[i] = strconv.Itoa(i+1) + ". " + r.Options[at].Text
	}
	return strings.Join(words, ", ")
}

// tally counts points: of n things the one that is liked best gets n-1, the next one
// less, the last none (the Borda count; Borda 1781, as commonly described, from memory).
func (r *Rank) tally(values []Value) []int {
	points := make([]int, len(r.Options))
	for _, v := range values {
		for i, o := range r.Options {
			points[i] += len(r.Options) - 1 - slices.Index(v.Rank.Order, o.ID)
		}
	}
	return points
}

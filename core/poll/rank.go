package poll

import (
	"strconv"

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

// Ranked is an order of all options, the first on top.
type Ranked struct {
	Order []string `json:"order"`
}

// ByPreference gives the body of a question that asks for an order of preference.
func ByPreference(options ...Option) Body { return Body{Kind: KindRank, Rank: &Rank{options}} }

// InOrder gives the answer that puts options in an order.
func InOrder(options ...string) Value { return Value{Kind: KindRank, Rank: &Ranked{options}} }

func (r *Rank) of() options { return r.Options }

func (r *Rank) check() error {
	if r.of().right() != "" {
		return refusal.About(refusal.BoardIncorrect, "an order of preference has nothing right")
	}
	return r.of().check(2, MaxRanked)
}

func (r *Rank) words() []string                       { return r.of().words() }
func (r *Rank) pictures() []string                    { return r.of().pictures() }
func (r *Rank) bare() Body                            { return ByPreference(r.of().bare()...) }
func (r *Rank) nameless() Body                        { return r.bare() }
func (r *Rank) shown(rename func(string) string) Body { return ByPreference(r.of().shown(rename)...) }
func (r *Rank) right() string                         { return "" }
func (r *Rank) takes(v Value) error                   { return r.of().allOf(v.Rank.Order) }
func (r *Rank) judge(Value) Judgement                 { return Judgement{} }
func (r *Rank) says(v Value) string                   { return r.of().inWords(v.Rank.Order) }

func (r *Rank) chart(values []Value, _ []Judgement) Chart {
	return r.of().ladder(values, func(v Value) []string { return v.Rank.Order })
}

// numbered gives the number of a place, as 1.
func numbered(i int) string { return strconv.Itoa(i+1) + ". " }

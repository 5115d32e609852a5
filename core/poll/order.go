package poll

import (
	"slices"

	"alpenglow/core/measure"
	"alpenglow/core/refusal"
)

// KindOrder asks to put things into the right order.
const KindOrder Kind = "order"

// Order is a question that asks for the right order; Options stand in it.
type Order struct {
	Options []Option `json:"options"`
	// Mistakes are known wrong orders, with a name.
	Mistakes []OrderMistake `json:"mistakes,omitempty"`
}

// OrderMistake is a known wrong order, by the ids of the options.
type OrderMistake struct {
	Name  string   `json:"name"`
	Order []string `json:"order"`
}

// MaxMistakes is how many known mistakes a question has.
const MaxMistakes = 12

func (q *Order) of() options { return q.Options }

func (q *Order) check() error {
	if err := q.of().check(2, MaxRanked); err != nil {
		return err
	}
	if len(q.Mistakes) > MaxMistakes {
		return refusal.About(refusal.BoardIncorrect, "at most %d known mistakes", MaxMistakes)
	}
	for _, m := range q.Mistakes {
		if err := checkName(m.Name); err != nil {
			return err
		}
		if err := q.of().allOf(m.Order); err != nil {
			return err
		}
	}
	return nil
}

func (q *Order) words() []string    { return q.of().words() }
func (q *Order) pictures() []string { return q.of().pictures() }
func (q *Order) shown(rename func(string) string) Body {
	return Body{Kind: KindOrder, Order: &Order{q.of().shown(rename), q.Mistakes}}
}
func (q *Order) bare() Body {
	return Body{Kind: KindOrder, Order: &Order{Options: q.of().bare().mixed()}}
}
func (q *Order) nameless() Body {
	return Body{Kind: KindOrder, Order: &Order{Options: q.of().nameless()}}
}

func (q *Order) key() []string {
	key := make([]string, len(q.Options))
	for i, o := range q.Options {
		key[i] = o.ID
	}
	return key
}

func (q *Order) right() string { return q.of().inWords(q.key()) }

func (q *Order) takes(v Value) error { return q.of().allOf(v.Order.Order) }

// judge: as much is right as pairs stand the right way round; half of them do by chance
// alone, so that half is nothing.
func (q *Order) judge(v Value) Judgement {
	places := make([]int, len(v.Order.Order))
	for i, one := range v.Order.Order {
		places[i] = q.of().at(one)
	}
	pairs, swapped := len(places)*(len(places)-1)/2, measure.Swapped(places)
	mistake := ""
	for _, m := range q.Mistakes {
		if slices.Equal(m.Order, v.Order.Order) {
			mistake = m.Name
		}
	}
	return part(pairs-2*swapped, pairs, mistake)
}

func (q *Order) says(v Value) string { return q.of().inWords(v.Order.Order) }

func (q *Order) chart(values []Value, _ []Judgement) Chart {
	chart := q.of().ladder(values, func(v Value) []string { return v.Order.Order })
	for i, rung := range chart.Ladder.Rungs {
		chart.Ladder.Rungs[i].Place = q.of().at(rung.ID) + 1
	}
	return chart
}

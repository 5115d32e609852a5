package poll

import (
	"math/big"
	"slices"

	"alpenglow/core/measure"
	"alpenglow/core/number"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// KindNumber asks for a number.
const KindNumber Kind = "number"

// UnitRule says what is done with a unit behind a number.
type UnitRule string

// Nobody writes one; it may be left out; it must be written.
const (
	NoUnit   UnitRule = ""
	MayUnit  UnitRule = "may"
	MustUnit UnitRule = "must"
)

// UnitRules lists them.
var UnitRules = []UnitRule{MayUnit, MustUnit, NoUnit}

// Number is a question for a number. All numbers in it, and those of the answers, are read
// as its Language writes them (a BCP 47 tag): what is right never depends on the language
// of somebody's screen.
type Number struct {
	Language string `json:"language"`
	// Answer is what is right; nothing where that is a matter of opinion.
	Answer    string           `json:"answer,omitempty"`
	Tolerance number.Tolerance `json:"tolerance"`
	// Unit is in what the answer is; others that measure the same are converted.
	Unit     string   `json:"unit,omitempty"`
	UnitRule UnitRule `json:"unitRule,omitempty"`
	// Mistakes are known wrong answers, with a name.
	Mistakes []NumberMistake `json:"mistakes,omitempty"`
}

// NumberMistake is a known wrong answer: a number, as near as the right one must be, or
// all from one number to another.
type NumberMistake struct {
	Name string `json:"name"`
	From string `json:"from"`
	To   string `json:"to,omitempty"`
}

// Written is an answer as somebody typed it.
type Written struct {
	Text string `json:"text"`
}

func (n *Number) read(text string) (*big.Rat, error) {
	typed, err := number.Read(text, n.Language)
	if err == nil && typed.Unit != "" {
		err = refusal.New(refusal.NotANumber)
	}
	return typed.Value, err
}

func (n *Number) check() error {
	if err := prose.Check(n.Unit, MaxLabel); err != nil {
		return err
	}
	if !slices.Contains(UnitRules, n.UnitRule) || n.UnitRule != NoUnit && prose.IsBlank(n.Unit) {
		return refusal.About(refusal.BoardIncorrect, "a unit that is asked for needs a name")
	}
	if len(n.Mistakes) > MaxMistakes {
		return refusal.About(refusal.BoardIncorrect, "at most %d known mistakes", MaxMistakes)
	}
	if len(n.Language) > 35 {
		return refusal.About(refusal.Malformed, "language")
	}
	if err := n.Tolerance.Check(); err != nil {
		return err
	}
	numbers := []string{}
	if n.Answer != "" {
		numbers = append(numbers, n.Answer)
	}
	for _, m := range n.Mistakes {
		if err := checkName(m.Name); err != nil {
			return err
		}
		numbers = append(numbers, m.From)
		if m.To != "" {
			numbers = append(numbers, m.To)
		}
	}
	for _, text := range numbers {
		if _, err := n.read(text); err != nil {
			return err
		}
	}
	return nil
}

func (n *Number) words() []string                { return []string{n.Unit} }
func (n *Number) pictures() []string             { return nil }
func (n *Number) shown(func(string) string) Body { return Body{Kind: KindNumber, Number: n} }

func (n *Number) bare() Body {
	return Body{Kind: KindNumber, Number: &Number{Language: n.Language, Unit: n.Unit, UnitRule: n.UnitRule,
		Tolerance: number.Tolerance{Is: number.Exact}}}
}

func (n *Number) nameless() Body {
	c := *n
	c.Mistakes = nil
	return Body{Kind: KindNumber, Number: &c}
}

func (n *Number) right() string {
	if n.Answer == "" || n.Unit == "" {
		return n.Answer
	}
	return n.Answer + " " + n.Unit
}

func (n *Number) takes(v Value) error {
	typed, err := number.Read(v.Number.Text, n.Language)
	switch {
	case prose.IsBlank(v.Number.Text):
		return refusal.New(refusal.AnswerEmpty)
	case err != nil:
		return err
	case typed.Unit != "" && n.UnitRule == NoUnit && number.UnitOf(typed.Unit).Is(number.UnitOf(n.Unit)):
		return nil // written though nobody asked
	case typed.Unit != "" && n.UnitRule == NoUnit:
		return refusal.New(refusal.UnitWrong)
	case typed.Unit == "" && n.UnitRule == MustUnit:
		return refusal.New(refusal.UnitMissing)
	}
	return prose.Check(v.Number.Text, number.MaxText)
}

// value gives an answer in the question's unit; false where it measures something else.
func (n *Number) value(v Value) (*big.Rat, bool) {
	typed, _ := number.Read(v.Number.Text, n.Language)
	if typed.Unit == "" {
		return typed.Value, true
	}
	return number.UnitOf(typed.Unit).To(number.UnitOf(n.Unit), typed.Value)
}

func (n *Number) judge(v Value) Judgement {
	if n.Answer == "" {
		return Judgement{}
	}
	value, same := n.value(v)
	if !same {
		return Judgement{Verdict: Wrong, Reason: OtherUnit}
	}
	if key, _ := n.read(n.Answer); n.Tolerance.Near(key, value) {
		return whole(true, "")
	}
	for _, m := range n.Mistakes {
		from, _ := n.read(m.From)
		if m.To == "" && n.Tolerance.Near(from, value) {
			return whole(false, m.Name)
		}
		if m.To != "" {
			if to, _ := n.read(m.To); value.Cmp(from) >= 0 && value.Cmp(to) <= 0 {
				return whole(false, m.Name)
			}
		}
	}
	return whole(false, "")
}

// says how an answer was read, in plain figures.
func (n *Number) says(v Value) string {
	typed, _ := number.Read(v.Number.Text, n.Language)
	return number.Plainly(typed, n.Language)
}

func (n *Number) chart(values []Value, _ []Judgement) Chart {
	chart := Numbers{Values: []float64{}, Bins: []measure.Bin{}, Unit: n.Unit}
	for _, v := range values {
		if value, same := n.value(v); same {
			x, _ := value.Float64()
			chart.Values = append(chart.Values, x)
		}
	}
	slices.Sort(chart.Values)
	if len(chart.Values) > 0 {
		chart.Bins = measure.Bins(chart.Values)
		chart.Median = measure.Quantile(chart.Values, .5)
		chart.Middle = &measure.Interval{
			Low:  measure.Quantile(chart.Values, .25),
			High: measure.Quantile(chart.Values, .75),
		}
	}
	if n.Answer != "" {
		key, _ := n.read(n.Answer)
		low, high := n.Tolerance.Span(key)
		band := measure.Interval{}
		band.Low, _ = low.Float64()
		band.High, _ = high.Float64()
		chart.Band = &band
	}
	return Chart{Kind: ChartNumbers, Numbers: &chart}
}

package poll

import (
	"slices"

	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// KindTruth asks whether something is true.
const KindTruth Kind = "truth"

// Truth is a question of true or false. Is is what is right, or nothing where that is a
// matter of opinion; NotSure offers to be not sure; Mistake names what those took for
// something else who are wrong.
type Truth struct {
	Is      Holds  `json:"is,omitempty"`
	NotSure bool   `json:"notSure,omitempty"`
	Mistake string `json:"mistake,omitempty"`
}

// Holds says whether something is held to be true.
type Holds string

// True, false, or not sure.
const (
	IsTrue  Holds = "true"
	IsFalse Holds = "false"
	NotSure Holds = "notSure"
)

// AllHolds lists them.
var AllHolds = []Holds{IsTrue, IsFalse, NotSure}

// Held is an answer to it.
type Held struct {
	Is Holds `json:"is"`
}

func (q *Truth) check() error {
	if q.Is != "" && q.Is != IsTrue && q.Is != IsFalse {
		return refusal.About(refusal.Malformed, "true, false or neither is right")
	}
	return prose.Check(q.Mistake, MaxMistake)
}

func (q *Truth) words() []string                { return nil }
func (q *Truth) pictures() []string             { return nil }
func (q *Truth) shown(func(string) string) Body { return Body{Kind: KindTruth, Truth: q} }
func (q *Truth) bare() Body                     { return Body{Kind: KindTruth, Truth: &Truth{NotSure: q.NotSure}} }
func (q *Truth) nameless() Body {
	return Body{Kind: KindTruth, Truth: &Truth{Is: q.Is, NotSure: q.NotSure}}
}
func (q *Truth) right() string { return string(q.Is) }

func (q *Truth) takes(v Value) error {
	if !slices.Contains(AllHolds, v.Truth.Is) || v.Truth.Is == NotSure && !q.NotSure {
		return refusal.New(refusal.NoSuchChoice)
	}
	return nil
}

func (q *Truth) judge(v Value) Judgement {
	switch {
	case q.Is == "":
		return Judgement{}
	case v.Truth.Is == NotSure: // who says so is not mistaken
		return whole(false, "")
	}
	return whole(v.Truth.Is == q.Is, q.Mistake)
}

func (q *Truth) says(v Value) string { return string(v.Truth.Is) }

// chart: the bars have no text of their own; their ids say what they are.
func (q *Truth) chart(values []Value, _ []Judgement) Chart {
	var bars []Bar
	for _, is := range AllHolds {
		if is == NotSure && !q.NotSure {
			continue
		}
		bar := Bar{ID: string(is), Right: is == q.Is}
		if q.Is != "" && is != q.Is && is != NotSure {
			bar.Mistake = q.Mistake
		}
		for _, v := range values {
			if v.Truth.Is == is {
				bar.Count++
			}
		}
		bars = append(bars, bar)
	}
	return Chart{Kind: ChartBars, Bars: &Bars{bars}}
}

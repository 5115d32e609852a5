package poll

import (
	"strconv"

	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// KindScale asks where on a scale somebody stands.
const KindScale Kind = "scale"

// Bounds of how many steps a scale has.
const (
	LeastSteps = 3
	MostSteps  = 10
)

// Scale is a question with steps from 1, and words at its ends. None of them is right.
type Scale struct {
	Steps int    `json:"steps"`
	Low   string `json:"low"`
	High  string `json:"high"`
}

// Stepped is an answer to it: a step from 1.
type Stepped struct {
	Step int `json:"step"`
}

func (s *Scale) check() error {
	if s.Steps < LeastSteps || s.Steps > MostSteps {
		return refusal.About(refusal.BoardIncorrect, "a scale has %d to %d steps", LeastSteps, MostSteps)
	}
	if err := prose.Check(s.Low, MaxLabel); err != nil {
		return err
	}
	return prose.Check(s.High, MaxLabel)
}

func (s *Scale) words() []string                { return []string{s.Low, s.High} }
func (s *Scale) pictures() []string             { return nil }
func (s *Scale) shown(func(string) string) Body { return s.bare() }
func (s *Scale) bare() Body                     { return Body{Kind: KindScale, Scale: s} }
func (s *Scale) right() string                  { return "" }

func (s *Scale) takes(v Value) error {
	if v.Scale.Step < 1 || v.Scale.Step > s.Steps {
		return refusal.New(refusal.NoSuchChoice)
	}
	return nil
}

func (s *Scale) judge(Value) Judgement { return Judgement{} }
func (s *Scale) says(v Value) string   { return strconv.Itoa(v.Scale.Step) }

func (s *Scale) chart(values []Value, _ []Judgement) Chart {
	bars := make([]Bar, s.Steps)
	for i := range bars {
		bars[i] = Bar{ID: strconv.Itoa(i + 1), Text: strconv.Itoa(i + 1)}
	}
	for _, v := range values {
		bars[v.Scale.Step-1].Count++
	}
	return Chart{Kind: ChartBars, Bars: &Bars{bars}}
}

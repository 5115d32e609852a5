package poll

import "alpenglow/core/refusal"

// KindDraw asks to draw something: the frame is the answer.
const KindDraw Kind = "draw"

// Draw is a question whose answer is what a student has drawn on their frame.
type Draw struct{}

// Drawn says that it is drawn.
type Drawn struct {
	Done bool `json:"done"`
}

func (d *Draw) check() error                     { return nil }
func (d *Draw) words() []string                  { return nil }
func (d *Draw) pictures() []string               { return nil }
func (d *Draw) shown(func(string) string) Body   { return d.bare() }
func (d *Draw) bare() Body                       { return Body{Kind: KindDraw, Draw: d} }
func (d *Draw) right() string                    { return "" }
func (d *Draw) judge(Value) Judgement            { return Judgement{} }
func (d *Draw) says(Value) string                { return "" }
func (d *Draw) chart([]Value, []Judgement) Chart { return Chart{} }

func (d *Draw) takes(v Value) error {
	if !v.Draw.Done {
		return refusal.New(refusal.AnswerEmpty)
	}
	return nil
}

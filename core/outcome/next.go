package outcome

import "alpenglow/core/measure"

// Advice is what a teacher might do after a question.
type Advice string

// Explain it again; let neighbours discuss and ask again; go on.
const (
	Explain Advice = "explain"
	Discuss Advice = "discuss"
	GoOn    Advice = "goOn"
)

// Advices lists them.
var Advices = []Advice{Explain, Discuss, GoOn}

// Bands are from where to where discussing helps, in percent of right answers, both
// included: below them it is explained again, above them one goes on.
type Bands struct {
	From int `json:"from"`
	To   int `json:"to"`
}

// UsualBands are those of Lasry, Mazur & Watkins 2008 (Am J Phys 76:1066-1069); Crouch &
// Mazur 2001 call 35 to 70 % most useful. Both from memory.
var UsualBands = Bands{30, 70}

// Or gives the usual bands in place of none, and of such as cannot be.
func (b Bands) Or() Bands {
	if b.From < 0 || b.To > 100 || b.From >= b.To {
		return UsualBands
	}
	return b
}

// Advised is an advice with what it rests on. Or lists what else it might be: it is not sure
// while the interval of the share crosses a band's edge.
type Advised struct {
	Is    Advice           `json:"is"`
	Or    []Advice         `json:"or,omitempty"`
	Right int              `json:"right"`
	Of    int              `json:"of"`
	Span  measure.Interval `json:"span"`
	Bands Bands            `json:"bands"`
}

// Advise says what to do when so many of all answers are right; nil of none.
func (b Bands) Advise(right, of int) *Advised {
	if of == 0 {
		return nil
	}
	a := Advised{Is: Discuss, Right: right, Of: of, Span: measure.Wilson(right, of), Bands: b}
	switch {
	case 100*right < b.From*of:
		a.Is = Explain
	case 100*right > b.To*of:
		a.Is = GoOn
	}
	low, high := float64(b.From)/100, float64(b.To)/100
	for _, other := range Advices {
		may := other == Explain && a.Span.Low < low || other == GoOn && a.Span.High > high ||
			other == Discuss && a.Span.Low <= high && a.Span.High >= low
		if may && other != a.Is {
			a.Or = append(a.Or, other)
		}
	}
	return &a
}

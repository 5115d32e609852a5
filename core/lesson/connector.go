package lesson

import (
	"math"
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/refusal"
)

// KindConnector is a line or an arrow, attached or not.
const KindConnector Kind = "connector"

// Anchor is one end of a connector: attached to a mark, or free at a point of the
// frame. An attached end has the point where it was drawn, for when its mark is
// not there.
type Anchor struct {
	Mark string  `json:"mark,omitempty"`
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
}

// Heads says at which ends a connector has arrow heads; empty for none.
type Heads string

// Where the heads are.
const (
	HeadsNone Heads = ""
	HeadsTo   Heads = "to"
	HeadsBoth Heads = "both"
)

// Connector is a straight line or an arrow from one end to the other.
type Connector struct {
	From  Anchor  `json:"from"`
	To    Anchor  `json:"to"`
	Ink   Ink     `json:"ink"`
	Width float64 `json:"width"`
	Dash  bool    `json:"dash,omitempty"`
	Heads Heads   `json:"heads,omitempty"`
}

func (c Connector) box() (x, y, w, h float64) {
	x, y = min(c.From.X, c.To.X), min(c.From.Y, c.To.Y)
	return x, y, math.Abs(c.To.X - c.From.X), math.Abs(c.To.Y - c.From.Y)
}

func (c *Connector) check() error {
	if !slices.Contains([]Heads{HeadsNone, HeadsTo, HeadsBoth}, c.Heads) {
		return refusal.About(refusal.BadStyle, "heads")
	}
	for _, end := range [...]string{c.From.Mark, c.To.Mark} {
		if end != "" && !id.IsPlain(end) {
			return refusal.New(refusal.BadID)
		}
	}
	if c.From.Mark != "" && c.From.Mark == c.To.Mark {
		return refusal.About(refusal.Malformed, "ends of a connector")
	}
	return checkLine(c.Ink, c.Width)
}

func (c *Connector) with(p, before *Properties) Body {
	n := *c
	take(&n.From, &p.From, &before.From)
	take(&n.To, &p.To, &before.To)
	take(&n.Ink, &p.Ink, &before.Ink)
	take(&n.Width, &p.Width, &before.Width)
	take(&n.Dash, &p.Dash, &before.Dash)
	take(&n.Heads, &p.Heads, &before.Heads)
	return Body{Kind: KindConnector, Connector: &n}
}

// moved gives the connector with both ends moved.
func (c Connector) moved(dx, dy float64) *Connector {
	c.From.X, c.From.Y, c.To.X, c.To.Y = c.From.X+dx, c.From.Y+dy, c.To.X+dx, c.To.Y+dy
	return &c
}

func (c *Connector) words() string { return "" }
func (c *Connector) says() string  { return "" }
func (c *Connector) manner() manner {
	return manner{inClass: true, counted: "arrows"}
}

package lesson

import (
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// KindCover hides a part of a frame.
const KindCover Kind = "cover"

// Cover hides what lies under it until the teacher lifts it. Text is what is
// written on it.
type Cover struct {
	Tint Tint   `json:"tint"`
	Text string `json:"text,omitempty"`
}

func (c *Cover) check() error {
	if !c.Tint.known() {
		return refusal.About(refusal.BadStyle, "tint")
	}
	return prose.Check(c.Text, MaxNote)
}

func (c *Cover) with(p, before *Properties) Body {
	n := *c
	take(&n.Text, &p.Text, &before.Text)
	take(&n.Tint, &p.Tint, &before.Tint)
	return Body{Kind: KindCover, Cover: &n}
}

func (c *Cover) words() string  { return c.Text }
func (c *Cover) says() string   { return c.Text }
func (c *Cover) manner() manner { return manner{straight: true, least: minSide} }

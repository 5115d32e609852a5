package lesson

import (
	"alpenglow/core/id"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// KindPicture is an uploaded picture.
const KindPicture Kind = "picture"

// Picture shows an uploaded picture; Alt says in words what is on it.
type Picture struct {
	Picture string `json:"picture"`
	Alt     string `json:"alt,omitempty"`
}

// check lets through a plain name, never a path: the interface makes an address of it.
func (p *Picture) check() error {
	if !id.IsPlain(p.Picture) {
		return refusal.New(refusal.NoSuchPicture)
	}
	return prose.Check(p.Alt, MaxNote)
}

func (p *Picture) with(set, before *Properties) Body {
	c := *p
	take(&c.Alt, &set.Alt, &before.Alt)
	return Body{Kind: KindPicture, Picture: &c}
}

func (p *Picture) words() string { return p.Alt }
func (p *Picture) says() string  { return p.Alt }
func (p *Picture) manner() manner {
	return manner{inClass: true, piece: true, least: minSide}
}

package lesson

import (
	"alpenglow/core/id"
)

// KindPlaced is a piece where people have put it.
const KindPlaced Kind = "placed"

// Placed is a piece where people have put it: the prepared piece with the id
// Piece, or a copy of it if the mark has another id. Its size and looks are
// the piece's.
type Placed struct {
	Piece string `json:"piece"`
}

func (p *Placed) check() error { return id.Plain(p.Piece) }

func (p *Placed) with(set, before *Properties) Body { return Body{Kind: KindPlaced, Placed: p} }
func (p *Placed) words() string                     { return "" }
func (p *Placed) says() string                      { return "" }
func (p *Placed) manner() manner                    { return manner{} }

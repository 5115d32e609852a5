package lesson

import (
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// Properties are what can be set on marks; those left out stay as they are.
type Properties struct {
	X      *float64       `json:"x,omitempty"`
	Y      *float64       `json:"y,omitempty"`
	W      *float64       `json:"w,omitempty"`
	H      *float64       `json:"h,omitempty"`
	Turn   *float64       `json:"turn,omitempty"`
	Z      *int64         `json:"z,omitempty"`
	Group  *string        `json:"group,omitempty"`
	Text   *string        `json:"text,omitempty"`
	Tint   *Tint          `json:"tint,omitempty"`
	Fill   *Fill          `json:"fill,omitempty"`
	Ink    *Ink           `json:"ink,omitempty"`
	Width  *float64       `json:"width,omitempty"`
	Dash   *bool          `json:"dash,omitempty"`
	Size   *float64       `json:"size,omitempty"`
	Margin *bool          `json:"margin,omitempty"`
	Column *string        `json:"column,omitempty"`
	Rank   *float64       `json:"rank,omitempty"`
	Bold   *bool          `json:"bold,omitempty"`
	Align  *Align         `json:"align,omitempty"`
	List   *List          `json:"list,omitempty"`
	Form   *Form          `json:"form,omitempty"`
	From   *Anchor        `json:"from,omitempty"`
	To     *Anchor        `json:"to,omitempty"`
	Heads  *Heads         `json:"heads,omitempty"`
	Alt    *string        `json:"alt,omitempty"`
	URL    *string        `json:"url,omitempty"`
	Stroke *Stroke        `json:"stroke,omitempty"`
	Layer  *Layer         `json:"layer,omitempty"`
	Tray   *bool          `json:"tray,omitempty"`
	Rows   *[][]string    `json:"rows,omitempty"`
	Poll   *poll.Question `json:"poll,omitempty"`
}

// Set gives the mark with the properties set, and those that it had before. A
// property that the mark's kind does not have is refused.
func (e Element) Set(p Properties) (set Element, before Properties, err error) {
	rest := p // what nobody has taken yet
	if e.Kind == KindConnector {
		if p.W != nil || p.H != nil || p.Turn != nil {
			return e, before, refusal.About(refusal.BadSize, "a connector's size follows from its ends")
		}
		e.moveEnds(p, &before)
		rest.X, rest.Y = nil, nil
	}
	take(&e.X, &rest.X, &before.X)
	take(&e.Y, &rest.Y, &before.Y)
	take(&e.W, &rest.W, &before.W)
	take(&e.H, &rest.H, &before.H)
	take(&e.Turn, &rest.Turn, &before.Turn)
	take(&e.Z, &rest.Z, &before.Z)
	take(&e.Group, &rest.Group, &before.Group)
	take(&e.Layer, &rest.Layer, &before.Layer)
	take(&e.Tray, &rest.Tray, &before.Tray)
	if k, ok := e.kind(); ok {
		e.Body = k.with(&rest, &before)
	}
	if rest != (Properties{}) {
		return e, before, refusal.About(refusal.BadStyle, "this kind of mark has no such property")
	}
	return e, before, nil
}

// moveEnds moves both ends of a connector so that its box lies at the new
// place. What takes it back are the ends themselves.
func (e *Element) moveEnds(p Properties, before *Properties) {
	if p.X == nil && p.Y == nil {
		return
	}
	from, to := e.Connector.From, e.Connector.To
	before.From, before.To = &from, &to
	dx, dy := 0.0, 0.0
	if p.X != nil {
		dx = *p.X - e.X
	}
	if p.Y != nil {
		dy = *p.Y - e.Y
	}
	e.Connector = e.Connector.moved(dx, dy)
}

// take moves a new value, if there is one, from the rest into place, and notes
// the one before.
func take[T any](value *T, rest **T, before **T) {
	if *rest == nil {
		return
	}
	old := *value
	*value, *before, *rest = **rest, &old, nil
}

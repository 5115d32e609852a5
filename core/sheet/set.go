package sheet

import (
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// onto brings the properties into the mark and returns those it had before.
// The mark's body is replaced, never written to: other copies of it share it.
// A property that the mark's kind does not have is refused.
func (set Set) onto(e *lesson.Element) (before Set, err error) {
	before.Mark = set.Mark
	rest := set // what nobody has taken yet
	if e.Kind == lesson.KindConnector {
		if set.W != nil || set.H != nil || set.Turn != nil {
			return before, refusal.About(refusal.BadSize, "a connector's size follows from its ends")
		}
		set.moveEnds(e, &before)
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

	switch e.Kind {
	case lesson.KindNote:
		note := *e.Note
		take(&note.Text, &rest.Text, &before.Text)
		take(&note.Tint, &rest.Tint, &before.Tint)
		take(&note.Size, &rest.Size, &before.Size)
		e.Note = &note
	case lesson.KindText:
		text := *e.Text
		take(&text.Text, &rest.Text, &before.Text)
		take(&text.Ink, &rest.Ink, &before.Ink)
		take(&text.Size, &rest.Size, &before.Size)
		take(&text.Bold, &rest.Bold, &before.Bold)
		take(&text.Align, &rest.Align, &before.Align)
		take(&text.List, &rest.List, &before.List)
		e.Text = &text
	case lesson.KindStroke:
		stroke := *e.Stroke
		take(&stroke, &rest.Stroke, &before.Stroke)
		take(&stroke.Ink, &rest.Ink, &before.Ink)
		take(&stroke.Width, &rest.Width, &before.Width)
		e.Stroke = &stroke
	case lesson.KindShape:
		shape := *e.Shape
		take(&shape.Form, &rest.Form, &before.Form)
		take(&shape.Text, &rest.Text, &before.Text)
		take(&shape.Ink, &rest.Ink, &before.Ink)
		take(&shape.Width, &rest.Width, &before.Width)
		take(&shape.Dash, &rest.Dash, &before.Dash)
		take(&shape.Fill, &rest.Fill, &before.Fill)
		e.Shape = &shape
	case lesson.KindConnector:
		c := *e.Connector
		take(&c.From, &rest.From, &before.From)
		take(&c.To, &rest.To, &before.To)
		take(&c.Ink, &rest.Ink, &before.Ink)
		take(&c.Width, &rest.Width, &before.Width)
		take(&c.Dash, &rest.Dash, &before.Dash)
		take(&c.Heads, &rest.Heads, &before.Heads)
		e.Connector = &c
	case lesson.KindPicture:
		picture := *e.Picture
		take(&picture.Alt, &rest.Alt, &before.Alt)
		e.Picture = &picture
	case lesson.KindLink:
		link := *e.Link
		take(&link.Title, &rest.Text, &before.Text)
		take(&link.URL, &rest.URL, &before.URL)
		e.Link = &link
	case lesson.KindTable:
		table := *e.Table
		take(&table.Rows, &rest.Rows, &before.Rows)
		e.Table = &table
	case lesson.KindPoll:
		question := *e.Poll
		take(&question, &rest.Poll, &before.Poll)
		e.Poll = &question
	case lesson.KindCover:
		cover := *e.Cover
		take(&cover.Text, &rest.Text, &before.Text)
		take(&cover.Tint, &rest.Tint, &before.Tint)
		e.Cover = &cover
	}
	if rest != (Set{Mark: set.Mark}) {
		return before, refusal.About(refusal.BadStyle, "this kind of mark has no such property")
	}
	return before, nil
}

// moveEnds moves both ends of a connector so that its box lies at the new
// place. What takes it back are the ends themselves.
func (set Set) moveEnds(e *lesson.Element, before *Set) {
	if set.X == nil && set.Y == nil {
		return
	}
	c := *e.Connector
	from, to := c.From, c.To
	before.From, before.To = &from, &to
	dx, dy := 0.0, 0.0
	if set.X != nil {
		dx = *set.X - e.X
	}
	if set.Y != nil {
		dy = *set.Y - e.Y
	}
	c.From.X, c.From.Y, c.To.X, c.To.Y = c.From.X+dx, c.From.Y+dy, c.To.X+dx, c.To.Y+dy
	e.Connector = &c
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

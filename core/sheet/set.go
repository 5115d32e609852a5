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
	swap(&e.X, set.X, &before.X)
	swap(&e.Y, set.Y, &before.Y)
	if e.Kind == lesson.KindStroke && (set.W != nil || set.H != nil) {
		return before, refusal.About(refusal.BadSize, "a drawn line keeps its size")
	}
	swap(&e.W, set.W, &before.W)
	swap(&e.H, set.H, &before.H)

	rest := Set{Mark: set.Mark, X: set.X, Y: set.Y, W: set.W, H: set.H}
	switch e.Kind {
	case lesson.KindNote:
		note := *e.Note
		swap(&note.Text, set.Text, &before.Text)
		swap(&note.Tint, set.Tint, &before.Tint)
		e.Note, rest.Text, rest.Tint = &note, set.Text, set.Tint
	case lesson.KindText:
		text := *e.Text
		swap(&text.Text, set.Text, &before.Text)
		swap(&text.Ink, set.Ink, &before.Ink)
		swap(&text.Size, set.Size, &before.Size)
		e.Text, rest.Text, rest.Ink, rest.Size = &text, set.Text, set.Ink, set.Size
	case lesson.KindStroke:
		stroke := *e.Stroke
		swap(&stroke.Ink, set.Ink, &before.Ink)
		swap(&stroke.Width, set.Width, &before.Width)
		e.Stroke, rest.Ink, rest.Width = &stroke, set.Ink, set.Width
	}
	if rest != set {
		return before, refusal.About(refusal.BadStyle, "this kind of mark has no such property")
	}
	return before, nil
}

// swap writes a new value, if there is one, and notes the one before.
func swap[T any](value *T, to *T, before **T) {
	if to == nil {
		return
	}
	old := *value
	*value, *before = *to, &old
}

package sheet

import (
	"slices"

	"alpenglow/core/lesson"
)

// awaits lets a mark whose words or picture have just become others wait for the
// teacher's yes, where what students write waits.
func (e *edit) awaits(m *lesson.Element) {
	t := e.terms
	if e.actor.Staff || t.Preparing || m.IsAnswer() || m.Stands() != lesson.Shown {
		return
	}
	text := m.Words()
	if text == "" && m.Picture == nil {
		return
	}
	shared := e.sheet.Owner != e.actor.ID && !e.atBoard(t, e.actor)
	if shared && (t.Hold || slices.Contains(t.HeldOf, e.actor.ID)) || len(t.Watch.Finds(text)) > 0 {
		m.Standing = &lesson.Standing{Is: lesson.Held, By: e.actor.author(), At: t.Now}
	}
}

// reads says what of a mark somebody reads.
func reads(m lesson.Element) string {
	if m.Picture != nil {
		return m.Picture.Picture + " " + m.Words()
	}
	return m.Words()
}

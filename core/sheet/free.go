package sheet

import (
	"alpenglow/core/lesson"
	"alpenglow/core/place"
)

const (
	promptTall = 140 // units that a prompt takes, about
	// packed is from how many marks on a sheet no place is looked for: there is
	// none, and looking would hold up others.
	packed = 400
)

// free moves a new mark to the nearest free place to where it was wished. On a
// packed sheet it stays where it was wished.
func (e *edit) free(m *lesson.Element) error {
	if e.count.marks > packed {
		return nil
	}
	taken := []place.Box{}
	if e.terms.Frame.Prompt != "" {
		taken = append(taken, place.Box{W: lesson.FrameWidth, H: promptTall})
	}
	for _, prepared := range e.terms.Frame.Prepared {
		if prepared.OnFrame() && !prepared.Tray {
			taken = append(taken, prepared.Covers())
		}
	}
	others, err := e.each(func(o lesson.Element) bool { return !o.IsAnswer() })
	if err != nil {
		return err
	}
	for _, other := range others {
		taken = append(taken, other.Covers())
	}
	// The grid has some hundred places for each unit of work.
	if err := e.spend(100 * len(taken)); err != nil {
		return err
	}
	own := m.Covers()
	room := place.Box{X: 10, Y: 10, W: lesson.FrameWidth - 20, H: lesson.FrameHeight - 20}
	x, y := place.Free(room, taken, own.W, own.H, own.X+own.W/2, own.Y+own.H/2)
	m.X, m.Y = x+m.X-own.X, y+m.Y-own.Y
	return nil
}

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
func (s *Sheet) free(f lesson.Frame, m *lesson.Element) {
	if s.there > packed {
		return
	}
	taken := []place.Box{}
	if f.Prompt != "" {
		taken = append(taken, place.Box{W: lesson.FrameWidth, H: promptTall})
	}
	for _, prepared := range f.Prepared {
		if prepared.OnFrame() && !prepared.Tray {
			taken = append(taken, prepared.Covers())
		}
	}
	for _, other := range s.marks {
		if other.OnFrame() && other.Kind != lesson.KindAnswer {
			taken = append(taken, other.Covers())
		}
	}
	own := m.Covers()
	room := place.Box{X: 10, Y: 10, W: lesson.FrameWidth - 20, H: lesson.FrameHeight - 20}
	x, y := place.Free(room, taken, own.W, own.H, own.X+own.W/2, own.Y+own.H/2)
	m.X, m.Y = x+m.X-own.X, y+m.Y-own.Y
}

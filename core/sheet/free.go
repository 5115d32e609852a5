package sheet

import (
	"alpenglow/core/lesson"
	"alpenglow/core/place"
)

const (
	promptTall = 140 // units that a prompt takes, about
	// packed is from how many marks on a sheet, wordy from how many bytes of words
	// on a frame, no place is looked for: there is none, and looking would hold up
	// others.
	packed = 400
	wordy  = 200_000
)

// free moves a new mark to the nearest free place to where it was wished. On a
// packed sheet it stays where it was wished.
func (e *edit) free(m *lesson.Element) error {
	if e.count.marks > packed {
		return nil
	}
	taken := []place.Box{}
	words := 0
	take := func(o lesson.Element) {
		if words += len(o.Words()); words <= wordy {
			taken = append(taken, o.LiesAbout())
		}
	}
	if e.terms.Frame.Prompt != "" {
		taken = append(taken, place.Box{W: lesson.FrameWidth, H: promptTall})
	}
	for _, prepared := range e.terms.Frame.Prepared {
		if prepared.OnFrame() && !prepared.Tray {
			take(prepared)
		}
	}
	others, err := e.each(func(o lesson.Element) bool { return !o.IsAnswer() })
	if err != nil {
		return err
	}
	for _, other := range others {
		take(other)
	}
	if words > wordy {
		return nil
	}
	// The grid has some hundred places for each unit of work; six bytes of words
	// are another.
	if err := e.spend(100*len(taken) + words/6); err != nil {
		return err
	}
	own := m.LiesAbout()
	room := place.Box{X: 10, Y: 10, W: lesson.FrameWidth - 20, H: lesson.FrameHeight - 20}
	x, y := place.Free(room, taken, own.W, own.H, own.X+own.W/2, own.Y+own.H/2)
	m.X, m.Y = x+m.X-own.X, y+m.Y-own.Y
	return nil
}

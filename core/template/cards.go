package template

import (
	"math"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
)

// Cards gives a frame with a note for each line, at most 100: laid out in rows
// as fixed notes, or as pieces in the tray for students to sort.
func Cards(lines []string, pieces bool, id func() string) lesson.Frame {
	f := lesson.Frame{ID: id(), Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.Individual,
		Permission: lesson.Add, Prepared: []lesson.Element{}}
	lines = lines[:min(len(lines), 100)]
	columns := math.Ceil(math.Sqrt(float64(len(lines)) * 1480 / 830 * 0.45))
	rows := math.Ceil(float64(len(lines)) / columns)
	w, h := math.Floor(1480/columns), math.Floor(830/rows)
	for i, line := range lines {
		if letters := []rune(line); len(letters) > lesson.MaxNote {
			line = string(letters[:lesson.MaxNote])
		}
		e := lesson.Element{ID: id(), X: 60 + w*math.Mod(float64(i), columns),
			Y: 150 + h*math.Floor(float64(i)/columns), W: max(100, w-16), H: max(40, min(120, h-16)),
			Body: lesson.Body{Kind: lesson.KindNote,
				Note: &lesson.Note{Text: line, Tint: lesson.Tints[i%len(lesson.Tints)]}}}
		e.X, e.Y = min(e.X, lesson.FrameWidth-e.W), min(e.Y, lesson.FrameHeight-e.H)
		if h < 80 {
			e.Note.Size = 22
		}
		if pieces {
			e.Layer, e.Tray = lesson.Piece, true
			e.W, e.H = 260, 76
			e.X, e.Y = 60, 150
		}
		f.Prepared = append(f.Prepared, e)
	}
	return f.Settled()
}

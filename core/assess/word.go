package assess

import (
	"alpenglow/core/id"
	"alpenglow/core/ink"
	"alpenglow/core/lesson"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// Bounds of a comment.
const (
	MaxComment = 2000  // characters
	MaxLines   = 200   // drawn on one piece of work
	MaxPoints  = 10000 // of them all
)

// Word is a comment: in writing, drawn on the work, spoken.
type Word struct {
	Comment string           `json:"comment,omitempty"`
	Ink     []lesson.Element `json:"ink,omitempty"`   // strokes, as they lie on the frame
	Voice   string           `json:"voice,omitempty"` // the id of a recording
}

// check reports what is wrong with a comment about a piece. Only on a frame can be drawn, and a level by a
// criterion says by itself what it says.
func (w Word) check(about Piece) error {
	if err := prose.Check(w.Comment, MaxComment); err != nil {
		return err
	}
	if about.Criterion != "" && !w.empty() {
		return refusal.About(refusal.Malformed, "words about a criterion")
	}
	if len(w.Ink) > 0 && (about.Frame == "" || !about.Whole()) {
		return refusal.About(refusal.Malformed, "ink on no frame")
	}
	if len(w.Ink) > MaxLines {
		return refusal.New(refusal.SheetFull)
	}
	points := 0
	for _, e := range w.Ink {
		if e.Stroke == nil || !id.IsPlain(e.ID) {
			return refusal.About(refusal.Malformed, "ink is strokes")
		}
		if points += len(e.Stroke.Points) / ink.Per; points > MaxPoints {
			return refusal.New(refusal.SheetFull)
		}
		if err := e.Check(); err != nil {
			return err
		}
	}
	if w.Voice != "" && !id.IsUUID(w.Voice) {
		return refusal.New(refusal.BadID)
	}
	return nil
}

// drawn gives strokes as they are kept: where they lie and what they look like, and nothing else.
func drawn(ink []lesson.Element) ([]lesson.Element, error) {
	kept := make([]lesson.Element, len(ink))
	for i, e := range ink {
		kept[i] = lesson.Element{ID: e.ID, X: e.X, Y: e.Y, Body: e.Body}
		if err := kept[i].Fit(); err != nil {
			return nil, err
		}
	}
	return kept, nil
}

func (w Word) empty() bool { return prose.IsBlank(w.Comment) && len(w.Ink) == 0 && w.Voice == "" }

package lesson

import (
	"unicode"
	"unicode/utf8"

	"alpenglow/core/ink"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// Limits of one mark (see docs/architecture.md for all limits).
const (
	MaxNote = 600  // characters on a sticky note
	MaxText = 4000 // characters in a text
	minSide = 8    // units; the shortest side a box may have
)

// Kind tells marks apart.
type Kind string

// The kinds of marks.
const (
	KindNote   Kind = "note"
	KindText   Kind = "text"
	KindStroke Kind = "stroke"
	KindShape  Kind = "shape"
	KindTable  Kind = "table"
	KindPoll   Kind = "poll"
	KindAnswer Kind = "answer"
)

// Note is a sticky note: a card that grows with its text.
type Note struct {
	Text string `json:"text"`
	Tint Tint   `json:"tint"`
}

// Text is words without a card. Size is the height of a letter line in frame units.
type Text struct {
	Text string  `json:"text"`
	Size float64 `json:"size"`
	Ink  Ink     `json:"ink"`
}

// Stroke is a drawn line; see package ink for its points. Width in frame units.
type Stroke struct {
	Points []float64 `json:"points"`
	Ink    Ink       `json:"ink"`
	Width  float64   `json:"width"`
}

// Form is the outline of a shape.
type Form string

// The forms; a line runs from the top left to the bottom right of its box.
const (
	FormRect    Form = "rect"
	FormEllipse Form = "ellipse"
	FormLine    Form = "line"
)

// Shape is a prepared figure. Fill may be empty for none.
type Shape struct {
	Form  Form    `json:"form"`
	Ink   Ink     `json:"ink"`
	Fill  Tint    `json:"fill,omitempty"`
	Width float64 `json:"width"`
	Dash  bool    `json:"dash,omitempty"`
}

// Table is prepared text in rows; its first row is the heading.
type Table struct {
	Rows [][]string `json:"rows"`
}

// Answer is one student's answer to the poll with the id Poll.
type Answer struct {
	Poll   string `json:"poll"`
	Choice string `json:"choice"`
}

// Body is what a mark is made of: exactly the field that its Kind names is set.
type Body struct {
	Kind   Kind           `json:"kind" oneof:"Note Text Stroke Shape Table Poll Answer"`
	Note   *Note          `json:"note,omitempty"`
	Text   *Text          `json:"text,omitempty"`
	Stroke *Stroke        `json:"stroke,omitempty"`
	Shape  *Shape         `json:"shape,omitempty"`
	Table  *Table         `json:"table,omitempty"`
	Poll   *poll.Question `json:"poll,omitempty"`
	Answer *Answer        `json:"answer,omitempty"`
}

// Element is one mark on a sheet or a frame: its place in frame units, its
// height in the stack (Z, higher lies on top) and its body.
type Element struct {
	ID string `json:"id"`
	// Author is a participant's id, Staff, or empty for what was prepared.
	Author string `json:"author,omitempty"`
	Z      int64  `json:"z"`
	// At is when it was made, in milliseconds since 1970.
	At int64   `json:"at"`
	X  float64 `json:"x"`
	Y  float64 `json:"y"`
	W  float64 `json:"w"`
	H  float64 `json:"h"`
	// Hidden marks are seen by the staff alone.
	Hidden bool `json:"hidden,omitempty"`
	// RemovedBy is who removed the mark; removed marks can be restored.
	RemovedBy string `json:"removedBy,omitempty"`
	Body
}

// Staff is the author of what teachers add.
const Staff = "staff"

// OnFrame reports whether the mark is there at all (it may still be hidden).
func (e Element) OnFrame() bool { return e.RemovedBy == "" }

// ClassSees reports whether students may see the mark.
func (e Element) ClassSees() bool { return e.OnFrame() && !e.Hidden }

// Check reports what is wrong with a mark: a body that does not fit its kind,
// a size or place that does not fit the frame, text over its limit. For strokes
// it also sets the size to the box of the points.
func (e *Element) Check() error {
	if err := e.Body.check(); err != nil {
		return err
	}
	if e.Kind == KindAnswer {
		return nil
	}
	if e.Kind == KindStroke {
		w, h, err := ink.Bounds(e.Stroke.Points)
		if err != nil {
			return err
		}
		e.W, e.H = w, h
	} else {
		least := float64(minSide)
		if e.Kind == KindShape && e.Shape.Form == FormLine {
			least = 0 // a level line has no height
		}
		if !(e.W >= least && e.W <= FrameWidth && e.H >= least && e.H <= FrameHeight) {
			return refusal.New(refusal.BadSize)
		}
	}
	// Sums of tenths may exceed the edge by a rounding error.
	const slack = 1e-6
	if !(e.X >= 0 && e.Y >= 0 && e.X+e.W <= FrameWidth+slack && e.Y+e.H <= FrameHeight+slack) {
		return refusal.New(refusal.OutOfFrame)
	}
	return nil
}

func (b *Body) check() error {
	bodies := 0
	for _, set := range []bool{b.Note != nil, b.Text != nil, b.Stroke != nil, b.Shape != nil, b.Table != nil, b.Poll != nil, b.Answer != nil} {
		if set {
			bodies++
		}
	}
	if bodies != 1 {
		return refusal.About(refusal.Malformed, "a mark has one body")
	}
	switch {
	case b.Kind == KindNote && b.Note != nil:
		if !b.Note.Tint.known() {
			return refusal.About(refusal.BadStyle, "tint")
		}
		return checkText(b.Note.Text, MaxNote)
	case b.Kind == KindText && b.Text != nil:
		if !b.Text.Ink.known() || !(b.Text.Size >= 16 && b.Text.Size <= 120) {
			return refusal.About(refusal.BadStyle, "ink or size")
		}
		return checkText(b.Text.Text, MaxText)
	case b.Kind == KindStroke && b.Stroke != nil:
		return checkLine(b.Stroke.Ink, b.Stroke.Width)
	case b.Kind == KindShape && b.Shape != nil:
		switch b.Shape.Form {
		case FormRect, FormEllipse, FormLine:
		default:
			return refusal.About(refusal.BadStyle, "form")
		}
		if b.Shape.Fill != "" && !b.Shape.Fill.known() {
			return refusal.About(refusal.BadStyle, "fill")
		}
		return checkLine(b.Shape.Ink, b.Shape.Width)
	case b.Kind == KindTable && b.Table != nil:
		for _, row := range b.Table.Rows {
			for _, cell := range row {
				if err := checkText(cell, MaxNote); err != nil {
					return err
				}
			}
		}
		return nil
	case b.Kind == KindPoll && b.Poll != nil:
		return b.Poll.Check()
	case b.Kind == KindAnswer && b.Answer != nil:
		return nil
	}
	return refusal.About(refusal.Malformed, "kind and body of a mark differ")
}

func checkLine(i Ink, width float64) error {
	if !i.known() || !(width >= 1 && width <= 60) {
		return refusal.About(refusal.BadStyle, "ink or width")
	}
	return nil
}

// checkText refuses empty and overlong text and characters that would garble
// the page: control characters except line feed and tab, and the marks that
// turn the direction of the text around them.
func checkText(text string, limit int) error {
	blank := true
	for _, r := range text {
		if r == utf8.RuneError || unicode.IsControl(r) && r != '\n' && r != '\t' || TurnsText(r) {
			return refusal.New(refusal.TextControl)
		}
		blank = blank && unicode.IsSpace(r)
	}
	if blank {
		return refusal.New(refusal.EmptyNote)
	}
	if n := utf8.RuneCountInString(text); n > limit {
		return refusal.About(refusal.TextTooLong, "%d characters, at most %d", n, limit)
	}
	return nil
}

// TurnsText reports whether r overrides or embeds the direction of text
// (Unicode Standard Annex 9, explicit directional formatting characters).
// The isolates are harmless and stay allowed.
func TurnsText(r rune) bool { return r >= 0x202A && r <= 0x202E }

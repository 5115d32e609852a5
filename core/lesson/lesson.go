// Package lesson answers: what is on a board?
//
// A board is an ordered list of frames, each 1600 x 1000 units. What the
// teacher prepared on a frame is fixed; what people add in class lives on
// sheets (package sheet) and never here.
package lesson

import (
	"slices"

	"alpenglow/core/refusal"
)

// A frame's fixed size, in units, and how many frames a board may have.
const (
	FrameWidth  = 1600
	FrameHeight = 1000
	MaxFrames   = 60
)

// Paper is the ground of a frame.
type Paper string

// The papers.
const (
	PaperPlain   Paper = "plain"
	PaperDotted  Paper = "dotted"
	PaperRuled   Paper = "ruled"
	PaperSquared Paper = "squared"
)

// Arrangement says who shares a frame.
type Arrangement string

// One sheet for all, or one for each student.
const (
	WholeClass Arrangement = "class"
	Individual Arrangement = "individual"
)

// Permission says what students may do on a frame. Answering a poll is always
// possible while the poll is open.
type Permission string

// Look at it; add and change own work; move and edit anybody's work.
const (
	Look          Permission = "look"
	Add           Permission = "add"
	BuildTogether Permission = "together"
)

// Tint is the paper colour of a note, by name.
type Tint string

// Tints are the six note papers, told apart by lightness too.
var Tints = []Tint{"snow", "apricot", "rose", "lilac", "glacier", "moss"}

func (t Tint) known() bool { return slices.Contains(Tints, t) }

// Ink is the colour of a line or of text, by name.
type Ink string

// Inks are the six inks.
var Inks = []Ink{"night", "ember", "fern", "lake", "plum", "snow"}

func (i Ink) known() bool { return slices.Contains(Inks, i) }

// Frame is one page of a board.
type Frame struct {
	ID          string      `json:"id"`
	Title       string      `json:"title"`
	Prompt      string      `json:"prompt"`
	Paper       Paper       `json:"paper"`
	Arrangement Arrangement `json:"arrangement"`
	Permission  Permission  `json:"permission"`
	// Fixed is what was prepared; nobody moves it in class.
	Fixed []Element `json:"fixed"`
}

// Board is what a teacher prepares.
type Board struct {
	Title  string  `json:"title"`
	Frames []Frame `json:"frames"`
}

// Check reports what is wrong with a board before it is stored or run.
func (b Board) Check() error {
	if len(b.Frames) == 0 || len(b.Frames) > MaxFrames {
		return refusal.About(refusal.BoardIncorrect, "a board has 1 to %d frames", MaxFrames)
	}
	ids := map[string]bool{}
	for _, f := range b.Frames {
		if err := f.check(ids); err != nil {
			return err
		}
	}
	return nil
}

func (f Frame) check(ids map[string]bool) error {
	if f.ID == "" || ids[f.ID] {
		return refusal.About(refusal.BoardIncorrect, "each frame needs an id of its own")
	}
	ids[f.ID] = true
	if !slices.Contains([]Paper{PaperPlain, PaperDotted, PaperRuled, PaperSquared}, f.Paper) ||
		!slices.Contains([]Arrangement{WholeClass, Individual}, f.Arrangement) ||
		!slices.Contains([]Permission{Look, Add, BuildTogether}, f.Permission) {
		return refusal.About(refusal.BoardIncorrect, "paper, arrangement or permission of a frame")
	}
	for i := range f.Fixed {
		e := f.Fixed[i]
		if e.ID == "" || ids[e.ID] {
			return refusal.About(refusal.BoardIncorrect, "each mark needs an id of its own")
		}
		ids[e.ID] = true
		if err := e.Check(); err != nil {
			return err
		}
	}
	return nil
}

// Frame finds a frame and its place by its id.
func (b Board) Frame(id string) (Frame, int, error) {
	for i, f := range b.Frames {
		if f.ID == id {
			return f, i, nil
		}
	}
	return Frame{}, 0, refusal.New(refusal.NoSuchFrame)
}

// Polls lists the polls on a frame.
func (f Frame) Polls() []Element {
	var polls []Element
	for _, e := range f.Fixed {
		if e.Kind == KindPoll {
			polls = append(polls, e)
		}
	}
	return polls
}

// Poll finds a poll on the frame by its id.
func (f Frame) Poll(id string) (Element, error) {
	for _, e := range f.Polls() {
		if e.ID == id {
			return e, nil
		}
	}
	return Element{}, refusal.New(refusal.NoSuchPoll)
}

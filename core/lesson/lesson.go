// Package lesson answers: what is on a board?
//
// A board is an ordered list of frames, each 1600 x 1000 units. What the
// teacher prepared on a frame is fixed or a piece that students move; what
// people add in class lives on sheets (package sheet) and never here.
package lesson

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/paper"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// A frame's fixed size, in units, and how many frames a board may have.
const (
	FrameWidth  = 1600
	FrameHeight = 1000
	MaxFrames   = 60
)

// Arrangement says who shares a frame.
type Arrangement string

// One sheet for all, one for each group, or one for each student.
const (
	WholeClass Arrangement = "class"
	Groups     Arrangement = "groups"
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

// Limits of what is written about a frame and a board.
const (
	MaxTitle      = 120  // characters
	MaxPrompt     = 600  // characters
	MaxNotes      = 4000 // characters of lesson notes
	MaxSeconds    = 5400 // of a frame's timer
	MaxObjectives = 30   // of a board
	MaxPrepared   = 2000 // marks on a frame
)

// Frame is one page of a board.
type Frame struct {
	ID          string      `json:"id"`
	Title       string      `json:"title"`
	Prompt      string      `json:"prompt"`
	Paper       paper.Paper `json:"paper"`
	Arrangement Arrangement `json:"arrangement"`
	Permission  Permission  `json:"permission"`
	Layout      Layout      `json:"layout"`
	// Replies says that notes may be answered.
	Replies bool `json:"replies,omitempty"`
	// Notes are lesson notes: for the teacher alone.
	Notes string `json:"notes,omitempty"`
	// Seconds is how long the timer runs unless somebody says otherwise.
	Seconds int `json:"seconds,omitempty"`
	// Objectives are the ids of the board's learning objectives it serves.
	Objectives []string `json:"objectives,omitempty"`
	// Criteria are what its work is judged by, besides one level for all of it.
	Criteria []Criterion `json:"criteria,omitempty"`
	// Set says that its questions are asked in a row.
	Set *Set `json:"set,omitempty"`
	// Prepared is what was prepared, from the lowest to the highest: fixed
	// marks, which nobody moves in class, and pieces (see Layer).
	Prepared []Element `json:"prepared"`
}

// Objective is a learning objective, named by the teacher.
type Objective struct {
	ID   string `json:"id"`
	Text string `json:"text"`
}

// Board is what a teacher prepares.
type Board struct {
	Title      string      `json:"title"`
	Objectives []Objective `json:"objectives,omitempty"`
	// Criteria are what a student's whole lesson is judged by, besides one level.
	Criteria []Criterion `json:"criteria,omitempty"`
	Frames   []Frame     `json:"frames"`
}

// Check reports what is wrong with a board before it is stored or run.
func (b Board) Check() error {
	if len(b.Frames) == 0 || len(b.Frames) > MaxFrames {
		return refusal.About(refusal.BoardIncorrect, "a board has 1 to %d frames", MaxFrames)
	}
	if err := CheckObjectives(b.Objectives); err != nil {
		return err
	}
	if err := CheckCriteria(b.Criteria); err != nil {
		return err
	}
	if err := CheckTitle(b.Title); err != nil {
		return err
	}
	// Ids are told apart on the whole board, because a session knows polls
	// and covers by theirs alone.
	ids := map[string]bool{}
	for _, f := range b.Frames {
		for _, id := range append([]string{f.ID}, f.ids()...) {
			if ids[id] {
				return refusal.About(refusal.BoardIncorrect, "each frame and mark needs an id of its own")
			}
			ids[id] = true
		}
		if err := f.Check(); err != nil {
			return err
		}
	}
	return nil
}

// CheckTitle reports what is wrong with the title of a board or frame.
func CheckTitle(title string) error { return prose.Check(title, MaxTitle) }

// CheckObjectives reports what is wrong with a board's learning objectives.
func CheckObjectives(list []Objective) error {
	if len(list) > MaxObjectives {
		return refusal.About(refusal.BoardIncorrect, "at most %d learning objectives", MaxObjectives)
	}
	seen := map[string]bool{}
	for _, o := range list {
		if !id.IsPlain(o.ID) || seen[o.ID] {
			return refusal.About(refusal.BoardIncorrect, "each learning objective needs an id of its own")
		}
		seen[o.ID] = true
		if err := checkText(o.Text, 300); err != nil {
			return err
		}
	}
	return nil
}

// Check reports what is wrong with a frame.
func (f Frame) Check() error {
	if !id.IsPlain(f.ID) {
		return refusal.New(refusal.BadID)
	}
	if !slices.Contains([]Arrangement{WholeClass, Groups, Individual}, f.Arrangement) ||
		!slices.Contains([]Permission{Look, Add, BuildTogether}, f.Permission) {
		return refusal.About(refusal.BoardIncorrect, "arrangement or permission of a frame")
	}
	if err := f.Paper.Check(); err != nil {
		return err
	}
	if err := f.Layout.Check(); err != nil {
		return err
	}
	for _, t := range []struct {
		text  string
		limit int
	}{{f.Title, MaxTitle}, {f.Prompt, MaxPrompt}, {f.Notes, MaxNotes}} {
		if err := prose.Check(t.text, t.limit); err != nil {
			return err
		}
	}
	if f.Seconds < 0 || f.Seconds > MaxSeconds {
		return refusal.About(refusal.BoardIncorrect, "a timer runs at most %d minutes", MaxSeconds/60)
	}
	if len(f.Objectives) > MaxObjectives || len(f.Prepared) > MaxPrepared {
		return refusal.About(refusal.BoardIncorrect, "too much on a frame")
	}
	if err := CheckCriteria(f.Criteria); err != nil {
		return err
	}
	if err := f.Set.check(); err != nil {
		return err
	}
	for i := range f.Prepared {
		e := f.Prepared[i]
		if !id.IsPlain(e.ID) {
			return refusal.New(refusal.BadID)
		}
		if e.IsNowhere() || e.Kind == KindPlaced || e.InMargin() {
			return refusal.About(refusal.BoardIncorrect,
				"an answer, a moved piece or a note beside the frame is not prepared")
		}
		if err := e.Check(); err != nil {
			return err
		}
	}
	return nil
}

// IDs has the ids of everything on a board: frames, marks, pieces, covers, polls.
func (b Board) IDs() map[string]bool {
	ids := map[string]bool{}
	for _, f := range b.Frames {
		for _, id := range append(f.ids(), f.ID) {
			ids[id] = true
		}
	}
	return ids
}

func (f Frame) ids() []string {
	ids := make([]string, len(f.Prepared))
	for i, e := range f.Prepared {
		ids[i] = e.ID
	}
	return ids
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

// Piece finds a piece of the frame by its id.
func (f Frame) Piece(id string) (Element, bool) {
	for _, e := range f.Prepared {
		if e.ID == id && e.Layer != Fixed && e.OnFrame() {
			return e, true
		}
	}
	return Element{}, false
}

// Polls lists the polls on a frame.
func (f Frame) Polls() []Element {
	var polls []Element
	for _, e := range f.Prepared {
		if e.Kind == KindPoll && e.OnFrame() {
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

package web

import (
	"encoding/json"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/template"
	"alpenglow/live"
)

// What goes over HTTP while boards are prepared.

// BoardReply is a board that is prepared, with the number of its last change.
// The marks of its frames include those that were removed.
type BoardReply struct {
	ID      string          `json:"id"`
	Rev     int64           `json:"rev"`
	Lesson  bool            `json:"lesson,omitempty"` // it is that of a lesson, with the same id
	Outline prepare.Outline `json:"outline"`
	Frames  []lesson.Frame  `json:"frames"`
}

// NewBoard asks for a board with a title.
type NewBoard struct {
	Title string `json:"title"`
}

// BoardMade is the board that was made.
type BoardMade struct {
	Board string `json:"board"`
}

// Found lists the frames on which the searched words were found, board by board.
type Found struct {
	Frames []FoundFrame `json:"frames"`
	// Said are words of students in lessons, the latest first; Lessons are those by whose title or class they were
	// found.
	Said    []FoundSaid   `json:"said"`
	Lessons []SessionItem `json:"lessons"`
}

// FoundSaid is something that a student wrote or answered, and where.
type FoundSaid struct {
	Session string    `json:"session"`
	Lesson  string    `json:"lesson"`
	Class   string    `json:"class"`
	At      time.Time `json:"at"`
	Frame   string    `json:"frame"`
	Author  string    `json:"author"`
	Name    string    `json:"name"`
	Words   string    `json:"words"`
}

// FoundFrame is a frame with its place on its board, from 1.
type FoundFrame struct {
	Board  string `json:"board"`
	Frame  string `json:"frame"`
	Title  string `json:"title"`
	Number int    `json:"number"`
}

// SetCard changes a board's card; what is left out stays.
type SetCard struct {
	Folder   *string `json:"folder,omitempty"`
	Archived *bool   `json:"archived,omitempty"`
	Deleted  *bool   `json:"deleted,omitempty"`
}

// Shared is a link by which colleagues take a copy.
type Shared struct {
	Link string `json:"link"`
}

// SharedBoard is what such a link leads to.
type SharedBoard struct {
	Title  string       `json:"title"`
	Frames int          `json:"frames"`
	First  lesson.Frame `json:"first"`
}

// Edits are changes of a board; Since is the last change that the sender knows.
type Edits struct {
	Since int64             `json:"since"`
	Edits []json.RawMessage `json:"edits"`
}

// EditResult is what became of an edit: its number and what takes it back, or
// why it was refused.
type EditResult struct {
	Rev     int64         `json:"rev,omitempty"`
	Back    *prepare.Step `json:"back,omitempty"`
	Problem *live.Problem `json:"problem,omitempty"`
}

// EditsReply answers edits, with all changes that the sender does not know.
type EditsReply struct {
	Results []EditResult      `json:"results"`
	Changes []prepare.Changed `json:"changes"`
}

// AddFrames puts new frames on a board at a place counted from 0.
type AddFrames struct {
	ID    string      `json:"id"`
	Since int64       `json:"since"`
	At    int         `json:"at"`
	From  FrameSource `json:"from"`
}

// FrameSource says where new frames come from.
type FrameSource struct {
	Kind     SourceKind    `json:"kind"               oneof:"Blank Double Template Board Intake Question"`
	Blank    *Blank        `json:"blank,omitempty"`
	Double   *SomeFrames   `json:"double,omitempty"`
	Template *FromTemplate `json:"template,omitempty"`
	Board    *FromBoard    `json:"board,omitempty"`
	Intake   *FromIntake   `json:"intake,omitempty"`
	Question *NewQuestion  `json:"question,omitempty"`
}

// SourceKind tells the sources apart.
type SourceKind string

// Blank is a frame with nothing on it.
type Blank struct{}

// NewQuestion is a question that is asked on the spot.
type NewQuestion struct {
	Asked poll.Question `json:"asked"`
}

// SomeFrames names frames of the same board.
type SomeFrames struct {
	Frames []string `json:"frames"`
}

// FromTemplate names a template.
type FromTemplate struct {
	Template string `json:"template"`
}

// FromBoard names frames of another board of the teacher's.
type FromBoard struct {
	Board  string   `json:"board"`
	Frames []string `json:"frames"`
}

// FromIntake names pages, counted from 0, of a file that was brought in.
type FromIntake struct {
	Intake string `json:"intake"`
	Pages  []int  `json:"pages"`
	// Row makes one frame of questions, which are asked in a row.
	Row bool `json:"row,omitempty"`
}

// Templates lists the house's templates and the teacher's own.
type Templates struct {
	Ready []template.Template `json:"ready"`
	Own   []OwnTemplate       `json:"own"`
}

// OwnTemplate is a frame that the teacher has saved for use again.
type OwnTemplate struct {
	ID    string       `json:"id"`
	Name  string       `json:"name"`
	Frame lesson.Frame `json:"frame"`
}

// NewTemplate asks to save a frame of a board as a template.
type NewTemplate struct {
	Frame string `json:"frame"`
	Name  string `json:"name"`
}

// Library lists pictures of the school's library, and illustrations that are
// not in it yet.
type Library struct {
	Pictures []LibraryItem `json:"pictures"`
	Found    []LibraryItem `json:"found"`
}

// LibraryItem is one of them.
type LibraryItem struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Width  int    `json:"width"`
	Height int    `json:"height"`
}

// IntakeState says how far the reading of a file is.
type IntakeState string

// The states.
const (
	IntakeReading IntakeState = "reading"
	IntakeDone    IntakeState = "done"
	IntakeFailed  IntakeState = "failed"
)

// Intake is a file that is brought in: its pages as far as they are read. More
// counts those beyond the limit.
type Intake struct {
	ID      string       `json:"id"`
	Name    string       `json:"name"`
	Kind    string       `json:"kind"`
	State   IntakeState  `json:"state"`
	Done    int          `json:"done"`
	Of      int          `json:"of"`
	More    int          `json:"more,omitempty"`
	Title   string       `json:"title,omitempty"`
	Pages   []IntakePage `json:"pages"`
	Problem refusal.Code `json:"problem,omitempty"`
}

// IntakePage is one page as a frame, with what could not be brought along, or
// why there is none.
type IntakePage struct {
	Frame   *lesson.Frame `json:"frame,omitempty"`
	Left    []string      `json:"left,omitempty"`
	Problem refusal.Code  `json:"problem,omitempty"`
	// At is where it stands in the file: a line, or a number.
	At int `json:"at,omitempty"`
}

// Rehearse asks for a practice session with so many simulated students.
type Rehearse struct {
	Students int `json:"students"`
}

// Rehearsing pauses the simulated class of a practice session, or lets it go on.
type Rehearsing struct {
	Paused bool `json:"paused"`
}

// TakeIllustration puts an illustration into the library.
type TakeIllustration struct {
	ID string `json:"id"`
}

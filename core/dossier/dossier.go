// Package dossier answers: what is there about one person, as they have a right to
// have it, and how is it taken out of what others have done?
package dossier

import (
	_ "embed"
	"html/template"
	"io"
	"time"

	"alpenglow/core/lesson"
)

// Version is that of the format (docs/formats/person.md).
const Version = 1

// Dossier is everything about one student.
type Dossier struct {
	Format  string    `json:"format"` // "person"
	Version int       `json:"version"`
	Made    time.Time `json:"made"`
	School  string    `json:"school,omitempty"`
	// Names are those under which the person is, or was, a student of classes.
	Classes []Class `json:"classes"`
	// Card says that there is a name card, and since when; its code is not told.
	Card    *time.Time `json:"card,omitempty"`
	Lessons []Lesson   `json:"lessons"`
}

// Class is a class that the person is, or was, a student of.
type Class struct {
	Class string     `json:"class"`
	Name  string     `json:"name"`
	Left  *time.Time `json:"left,omitempty"`
	// Groups are those that are kept for the class and have them, Seat where they sit,
	// row and place from 1, and Apart with whom they should not be together, counted:
	// who that is concerns the other one.
	Groups []string `json:"groups,omitempty"`
	Seat   []int    `json:"seat,omitempty"`
	Apart  int      `json:"apart,omitempty"`
}

// Lesson is a lesson that the person was in, under a name.
type Lesson struct {
	Title   string     `json:"title"`
	Class   string     `json:"class,omitempty"`
	Began   time.Time  `json:"began"`
	Ended   *time.Time `json:"ended,omitempty"`
	Name    string     `json:"name"`
	Joined  time.Time  `json:"joined"`
	Devices int        `json:"devices"`
	Work    []Work     `json:"work"`
	// Asked are the questions that they sent to the teacher.
	Asked []Asked `json:"asked,omitempty"`
	// Agreed is with how much of others they have agreed, Done on how many frames they
	// said that they were done.
	Agreed int `json:"agreed,omitempty"`
	Done   int `json:"done,omitempty"`
	// Told are the teacher's words to them alone that they have not put away; Picked
	// is how often they were drawn, Looked when the teacher looked at their work last.
	Told   []Asked    `json:"told,omitempty"`
	Picked int        `json:"picked,omitempty"`
	Looked *time.Time `json:"looked,omitempty"`
	// Steered is what teachers told the lesson about them alone: that they only look, what
	// they write waits, they are moved to another group, called to the board, sent out or
	// let in again. Remarks are what others said about their work.
	Steered []Asked `json:"steered,omitempty"`
	Remarks []Asked `json:"remarks,omitempty"`
	// Judged are levels and comments that teachers gave to their work.
	Judged []Asked `json:"judged,omitempty"`
	// Pictures are the names of the files that they brought in.
	Pictures []string `json:"pictures,omitempty"`
	// Changes are when they changed something, each time.
	Changes []time.Time `json:"changes,omitempty"`
}

// Work is one thing that they have made: whole as it is kept, and in words. Owner says
// on whose sheet it lies: the class's, a group's, or their own.
type Work struct {
	Frame   string         `json:"frame"`
	Owner   string         `json:"owner"`
	At      time.Time      `json:"at"`
	What    string         `json:"what"`
	Words   string         `json:"words,omitempty"`
	Removed bool           `json:"removed,omitempty"`
	Mark    lesson.Element `json:"mark"`
}

// Asked is a question that somebody sent.
type Asked struct {
	At   time.Time `json:"at"`
	Text string    `json:"text"`
}

//go:embed page.html
var pageText string

var page = template.Must(template.New("page").Funcs(template.FuncMap{
	"day": func(t time.Time) string { return t.UTC().Format("2006-01-02 15:04 UTC") },
}).Parse(pageText))

// WritePage writes it as a page that people read.
func (d Dossier) WritePage(to io.Writer) error { return page.Execute(to, d) }

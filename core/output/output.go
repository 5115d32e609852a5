// Package output answers: what is taken out of a board or a lesson, in which form,
// and what lies on which page?
package output

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// What is taken out.
type What string

// The frames as they were prepared; the frames with the work of the class, each sheet once; each
// student's own work, frame by frame; all that was written, as a list.
const (
	Board    What = "board"
	Sheets   What = "sheets"
	Students What = "students"
	Notes    What = "notes"
)

// Whats lists them.
var Whats = []What{Board, Sheets, Students, Notes}

// Form is how it is written.
type Form string

// Pages; pictures as pixels and as outlines; drawn lines; photos and other pictures as they were brought in; and for
// lists a table, Markdown and an outline.
const (
	PDF      Form = "pdf"
	PNG      Form = "png"
	SVG      Form = "svg"
	InkML    Form = "inkml"
	Photos   Form = "photos"
	CSV      Form = "csv"
	Markdown Form = "markdown"
	OPML     Form = "opml"
)

// form is what there is to know of a form: the end of its files' names, their type, and whether
// it is for lists.
type form struct {
	end, mime string
	list      bool
}

var forms = map[Form]form{
	PDF: {".pdf", "application/pdf", false}, PNG: {".png", "image/png", false}, SVG: {".svg", "image/svg+xml", false},
	InkML:  {".inkml", "application/inkml+xml", false},
	Photos: {".zip", "application/zip", false}, CSV: {".csv", "text/csv; charset=utf-8", true},
	Markdown: {".md", "text/markdown; charset=utf-8", true}, OPML: {".opml", "text/x-opml", true},
}

// Forms lists the forms.
var Forms = []Form{PDF, PNG, SVG, InkML, Photos, CSV, Markdown, OPML}

// Paper is the size of a page.
type Paper string

// The sizes (ISO 216; ANSI/ASME Y14.1).
const (
	A4     Paper = "a4"
	A3     Paper = "a3"
	Letter Paper = "letter"
)

// Papers lists them.
var Papers = []Paper{A4, A3, Letter}

// papers are their shorter and longer sides in points: 210 x 297 mm, 297 x 420 mm, 8.5 x 11 inches.
var papers = map[Paper][2]float64{A4: {595.28, 841.89}, A3: {841.89, 1190.55}, Letter: {612, 792}}

// PerPages lists how many frames may lie on a page.
var PerPages = []int{1, 2, 4, 6}

// Widths lists how many pixels wide pictures may be.
var Widths = []int{1600, 2560, 3840}

// Wish is what somebody wants to take out.
type Wish struct {
	What What `json:"what"`
	Form Form `json:"form"`
	// Frames and Students are those alone with these ids; all where none is named.
	Frames   []string `json:"frames,omitempty"`
	Students []string `json:"students,omitempty"`
	// Names leaves students' names on it, Judged adds the levels and comments of who takes it out.
	Names  bool `json:"names,omitempty"`
	Judged bool `json:"judged,omitempty"`
	// AsClass shows frames as the class may see them, and not as the teacher does.
	AsClass bool `json:"asClass,omitempty"`
	// Paper and PerPage are for pages, Width is for pictures.
	Paper   Paper `json:"paper,omitempty"`
	PerPage int   `json:"perPage,omitempty"`
	Width   int   `json:"width,omitempty"`
}

// Check reports what is wrong with a wish.
func (w *Wish) Check() error {
	bad := refusal.About(refusal.Malformed, "what is to be taken out")
	if w.Paper == "" {
		w.Paper = A4
	}
	if w.PerPage == 0 {
		w.PerPage = 1
	}
	if w.Width == 0 {
		w.Width = Widths[0]
	}
	f, known := forms[w.Form]
	if !known || !slices.Contains(Whats, w.What) || f.list != (w.What == Notes) ||
		!slices.Contains(Papers, w.Paper) || !slices.Contains(PerPages, w.PerPage) ||
		!slices.Contains(Widths, w.Width) {
		return bad
	}
	if len(w.Frames) > lesson.MaxFrames || len(w.Students) > mostStudents {
		return bad
	}
	for _, one := range append(slices.Clone(w.Frames), w.Students...) {
		if !id.IsPlain(one) {
			return refusal.New(refusal.BadID)
		}
	}
	return nil
}

// mostStudents is how many may be named at once.
const mostStudents = 400

// End is how the name of a file of so many leaves ends, and its type: several pictures come in one ZIP file.
func (w Wish) End(leaves int) (end, mime string) {
	if f := forms[w.Form]; f.list || w.Form == PDF || leaves == 1 {
		return f.end, f.mime
	}
	return ".zip", "application/zip"
}

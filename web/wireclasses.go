package web

import (
	"time"

	"alpenglow/core/formats"
	"alpenglow/core/roster"
)

// What goes over HTTP about classes.

// ClassBook lists one's classes with their students, and with whom of the staff a
// class can be taught.
type ClassBook struct {
	Classes    []ClassPage `json:"classes"`
	Colleagues []Colleague `json:"colleagues"`
}

// Colleague is somebody of the staff.
type Colleague struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// ClassPage is a class; Archived says that it is put away. Teachers are those who
// teach it together with whoever asks.
type ClassPage struct {
	ID       string         `json:"id"`
	Name     string         `json:"name"`
	Archived bool           `json:"archived,omitempty"`
	Students []ClassStudent `json:"students"`
	Teachers []Colleague    `json:"teachers"`
	Plan     roster.Plan    `json:"plan"`
	// Keep is for how many months records are kept; left out as the school says.
	Keep *int `json:"keep,omitempty"`
}

// SetKeep says for how many months the records of a class are kept; left out as the
// school says.
type SetKeep struct {
	Months *int `json:"months,omitempty"`
}

// Receipt says what was erased, and where it was.
type Receipt struct {
	At       time.Time `json:"at"`
	Classes  int       `json:"classes"`
	Lessons  int       `json:"lessons"`
	Marks    int       `json:"marks"`
	Changes  int       `json:"changes"`
	Pictures int       `json:"pictures"`
	Mentions int       `json:"mentions"`
	Card     bool      `json:"card,omitempty"`
}

// Persons are students over all classes, as administrators find them.
type Persons struct {
	Persons []PersonItem `json:"persons"`
}

// PersonItem is one of them.
type PersonItem struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	Classes []string `json:"classes"`
}

// ClassStudent is a student of a class, or one who has left it. Apart is the name by
// which they are told apart in lessons, where it is another one.
type ClassStudent struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Apart string `json:"apart,omitempty"`
	Left  bool   `json:"left,omitempty"`
}

// NameList is a list of names as it was typed, pasted or read from a file, for a class
// that is there or for a new one. Columns say where the names stand; left out, they are
// found.
type NameList struct {
	Class   string          `json:"class,omitempty"`
	List    string          `json:"list"`
	Columns *roster.Columns `json:"columns,omitempty"`
}

// NameRows says what becomes of each line, and shows the first lines in their columns.
type NameRows struct {
	Rows    []roster.Row   `json:"rows"`
	Columns roster.Columns `json:"columns"`
	Head    [][]string     `json:"head"`
}

// ListText is what a file says, as a list to look through.
type ListText struct {
	List string `json:"list"`
}

// NewClass asks for a class with a list of names.
type NewClass struct {
	Name    string          `json:"name"`
	List    string          `json:"list"`
	Columns *roster.Columns `json:"columns,omitempty"`
}

// ClassMade is the class that was made.
type ClassMade struct {
	Class string `json:"class"`
}

// SetClass renames a class, or puts it away or brings it back.
type SetClass struct {
	Name     *string `json:"name,omitempty"`
	Archived *bool   `json:"archived,omitempty"`
}

// NextYear puts a class away and makes the next one, under a name, with its list.
type NextYear struct {
	Name string `json:"name"`
}

// TeachTogether lets a colleague teach a class too, or no more.
type TeachTogether struct {
	Teacher string `json:"teacher"`
	Teaches bool   `json:"teaches"`
}

// SetStudent renames a student, or lets them leave or come back.
type SetStudent struct {
	Name *string `json:"name,omitempty"`
	Left *bool   `json:"left,omitempty"`
}

// MoveStudent moves a student to another class.
type MoveStudent struct {
	To string `json:"to"`
}

// MergeStudents says that another student of the class is the same person.
type MergeStudents struct {
	With string `json:"with"`
}

// Cards are the name cards of a class; Link is the address without the code.
type Cards struct {
	Class string     `json:"class"`
	Cards []NameCard `json:"cards"`
}

// NameCard is the card of a student: their code in two halves, the address that the QR
// code leads to, and the code as the path of an SVG picture of so many units.
type NameCard struct {
	Student string `json:"student"`
	Name    string `json:"name"`
	Code    string `json:"code"`
	QR      string `json:"qr"`
	Units   int    `json:"units"`
}

// RegisterLook is what a register holds, before any of it is taken.
type RegisterLook struct {
	Classes  []RegisterItem            `json:"classes"`
	Problems []formats.RegisterProblem `json:"problems"`
}

// RegisterItem is a class of it; There says that it was taken before and would be
// brought up to date.
type RegisterItem struct {
	ID       string `json:"id"`
	Name     string `json:"name"`
	Students int    `json:"students"`
	There    bool   `json:"there,omitempty"`
}

// ByCard comes into a lesson with a name card; Session says which one where there are
// several.
type ByCard struct {
	Card    string `json:"card"`
	Session string `json:"session,omitempty"`
}

// CameIn is the seat that a card gives, or the lessons to choose from.
type CameIn struct {
	Seat    *Seat        `json:"seat,omitempty"`
	Lessons []CardLesson `json:"lessons,omitempty"`
}

// CardLesson is a lesson that somebody's card opens.
type CardLesson struct {
	Session string `json:"session"`
	Title   string `json:"title"`
}

// RenamePerson gives a participant another name.
type RenamePerson struct {
	Name string `json:"name"`
}

// TieStudent says which student of the class a participant is; empty for none.
type TieStudent struct {
	Student string `json:"student"`
}

// LikelyStudents are the students of the class who have not come under their own name,
// those first whom a typed name may mean.
type LikelyStudents struct {
	Likely []roster.Listed `json:"likely"`
	Others []roster.Listed `json:"others"`
}

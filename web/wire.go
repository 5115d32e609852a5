package web

import (
	"time"

	"alpenglow/core/account"
	"alpenglow/core/lesson"
	"alpenglow/core/prepare"
	"alpenglow/core/record"
	"alpenglow/core/session"
	"alpenglow/core/settings"
)

// What goes over HTTP. The interface's types are generated from these structs.

// SignIn asks to sign a teacher in.
type SignIn struct {
	Email    string `json:"email"`
	Password string `json:"password"`
	// Code is one of the second factor, or a recovery code.
	Code string `json:"code,omitempty"`
}

// Me says who the cookies belong to: a teacher, a student's seat, both or nobody.
type Me struct {
	Teacher *TeacherMe `json:"teacher,omitempty"`
	Seat    *Seat      `json:"seat,omitempty"`
	House   HouseMe    `json:"house"`
}

// TeacherMe is the teacher who is signed in. Held says that they have to set up a
// second factor first. GoesAt is when a guest goes.
type TeacherMe struct {
	Name     string       `json:"name"`
	Role     account.Role `json:"role"`
	Held     bool         `json:"held,omitempty"`
	GoesAt   *time.Time   `json:"goesAt,omitempty"`
	Settings settings.Own `json:"settings"`
	// Scale are the levels of the school.
	Scale []settings.Level `json:"scale"`
}

// HouseMe is what anybody may know about the house: the school's name, whether one may
// begin without an account, whether it sends mail, and whether its mail is a made-up
// one that anybody may read.
type HouseMe struct {
	School  string `json:"school"`
	Guests  bool   `json:"guests"`
	Mail    bool   `json:"mail"`
	Mailbox bool   `json:"mailbox,omitempty"`
}

// Seat is a student's place in a session.
type Seat struct {
	Session string `json:"session"`
	Name    string `json:"name"`
	Title   string `json:"title"`
	Ended   bool   `json:"ended,omitempty"`
	// Language is that of the lesson.
	Language settings.Language `json:"language"`
}

// AtDoor says how it stands with somebody at a closed door: they wait, or have
// their seat.
type AtDoor struct {
	Waiting bool  `json:"waiting,omitempty"`
	Seat    *Seat `json:"seat,omitempty"`
}

// Differences are what was changed in a lesson and is not on the board that it began
// with, and the id of that board. Each is taken into it by being sent back.
type Differences struct {
	Board       string               `json:"board"`
	Differences []prepare.Difference `json:"differences"`
}

// FrontStands says how it stands with a front screen: it waits with a code, or
// shows a session.
type FrontStands struct {
	Code    string `json:"code,omitempty"`
	Session string `json:"session,omitempty"`
}

// FrontCode is the code of a front screen that a lesson is to be shown on.
type FrontCode struct {
	Code string `json:"code"`
}

// Boards lists a teacher's boards, class lists and sessions.
type Boards struct {
	Boards   []BoardItem   `json:"boards"`
	Classes  []ClassItem   `json:"classes"`
	Sessions []SessionItem `json:"sessions"`
}

// BoardItem is a board in the list, with its first frame to paint.
type BoardItem struct {
	ID        string       `json:"id"`
	Title     string       `json:"title"`
	Frames    int          `json:"frames"`
	Folder    string       `json:"folder"`
	ChangedAt time.Time    `json:"changedAt"`
	OpenedAt  *time.Time   `json:"openedAt,omitempty"`
	Archived  bool         `json:"archived,omitempty"`
	First     lesson.Frame `json:"first"`
}

// ClassItem is a class list in the list.
type ClassItem struct {
	ID       string `json:"id"`
	Name     string `json:"name"`
	Students int    `json:"students"`
}

// SessionItem is a session in the list.
type SessionItem struct {
	ID        string     `json:"id"`
	Title     string     `json:"title"`
	ClassName string     `json:"className"`
	Students  int        `json:"students"`
	StartedAt time.Time  `json:"startedAt"`
	EndedAt   *time.Time `json:"endedAt,omitempty"`
	Practice  bool       `json:"practice,omitempty"`
	LeftOpen  bool       `json:"leftOpen,omitempty"` // goes on, probably forgotten
	// Due is until when it is homework, in milliseconds since 1970.
	Due *int64 `json:"due,omitempty"`
	// By is who started it, where that is a colleague.
	By string `json:"by,omitempty"`
	// Class is its class by id; Away says that it is put away.
	Class string `json:"class,omitempty"`
	Away  bool   `json:"away,omitempty"`
	// GoesAt is when its record goes, where that is soon.
	GoesAt *time.Time `json:"goesAt,omitempty"`
}

// StartSession starts a session of a board with a class list, or with none.
// Listed says that students choose their names from the list, Nameless that they do
// not learn each other's names.
type StartSession struct {
	Class    string       `json:"class"`
	Listed   bool         `json:"listed,omitempty"`
	Nameless bool         `json:"nameless,omitempty"`
	Pace     session.Pace `json:"pace"`
}

// Started is the session that was started.
type Started struct {
	Session string `json:"session"`
}

// Invitation is what a class needs to come in.
type Invitation struct {
	Code string `json:"code"`
	Link string `json:"link"`
}

// JoinCode asks what lesson a code belongs to.
type JoinCode struct {
	Code string `json:"code"`
}

// JoinFound is the lesson that a code belongs to.
type JoinFound struct {
	Title     string `json:"title"`
	ClassName string `json:"className"`
	// Language is that of the lesson.
	Language settings.Language `json:"language"`
	// Names are those to choose from; left out where any name may be given.
	Names []string `json:"names,omitempty"`
}

// Join asks to come into the lesson with a code under a name.
type Join struct {
	Code string `json:"code"`
	Name string `json:"name"`
}

// RecordReply is the record of a session.
type RecordReply struct {
	Session SessionItem   `json:"session"`
	Record  record.Record `json:"record"`
	// Tied says which student of the class each participant is; left out where there was
	// no class list.
	Tied map[string]string `json:"tied,omitzero"`
	// Days are the parts of a lesson that was taken up again.
	Days []session.Day `json:"days,omitempty"`
}

// FrameRecord is what each student left on one frame of a session.
type FrameRecord struct {
	Students []record.Kept `json:"students"`
}

// Uploaded is a picture that was taken in: its id, and its size in pixels.
type Uploaded struct {
	Picture string `json:"picture"`
	Width   int    `json:"width"`
	Height  int    `json:"height"`
}

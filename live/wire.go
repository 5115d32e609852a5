package live

import (
	"encoding/json"

	"alpenglow/core/insight"
	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/core/settings"
	"alpenglow/core/sheet"
	"alpenglow/core/voices"
)

// What goes over a realtime connection. A client connects with Connect, is
// subscribed to its channels by the server, and calls the methods below; each
// answers with its reply or with a Failure. The interface's types are
// generated from these structs (web/wiretypes).

// The methods of a connection.
const (
	MethodHello   = "hello"   // Hello -> StudentHello, StaffHello or FrontHello
	MethodOpen    = "open"    // Open -> Opened
	MethodSince   = "since"   // Since -> sheet.Part
	MethodOps     = "ops"     // Ops -> OpsReply
	MethodCommand = "command" // session.Command -> CommandReply
	MethodTidy    = "tidy"    // Tidy -> Tidied
	MethodMove    = "move"    // Move -> Moved
	MethodTime    = "time"    // {} -> Time
	MethodSay     = "say"     // voices.Word -> Said
	MethodSight   = "sight"   // Sight -> {}
	MethodWalk    = "walk"    // WalkTo -> AtStop
	MethodOutcome = "outcome" // AskOutcome -> Outcomes
	MethodVerdict = "verdict" // AskVerdict -> Verdict
	MethodResults = "results" // AskResults -> Results
)

// Role is what somebody is in a session.
type Role string

// The roles.
const (
	RoleStaff   Role = "staff"
	RoleStudent Role = "student"
	RoleFront   Role = "front" // a front screen: it reads what it shows, and nothing else
)

// Connect says which session a connection is for, and in which role.
type Connect struct {
	Session string `json:"session"`
	As      Role   `json:"as"`
	// Looks says that a front screen is none, but a teacher's small picture of one.
	Looks bool `json:"looks,omitempty"`
}

// Problem is a refusal on the wire, with the fields of RFC 9457. Code is the
// key of the sentence in the interface's message files.
type Problem struct {
	Type   string       `json:"type"`
	Title  string       `json:"title"`
	Status int          `json:"status"`
	Detail string       `json:"detail,omitempty"`
	Code   refusal.Code `json:"code"`
}

// Failure answers a call that was refused.
type Failure struct {
	Problem *Problem `json:"problem,omitempty"`
}

// Person is a participant as others see them. Here, and At, the frame that they
// have gone to at their own pace, are told to the staff alone.
type Person struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Here bool   `json:"here,omitempty"`
	At   string `json:"at,omitempty"`
	// Away says that their device sleeps, or shows something else; told to the staff alone.
	Away bool `json:"away,omitempty"`
	// Removed says that the teacher has taken the seat away.
	Removed bool `json:"removed,omitempty"`
	// Student is which student of the class they are; told to the staff alone.
	Student string `json:"student,omitempty"`
}

// SheetView is a sheet as its reader may see it, or its first part: the rest is
// asked for with Since.
type SheetView struct {
	Sheet string `json:"sheet"`
	Frame string `json:"frame"`
	Owner string `json:"owner"`
	sheet.Part
}

// Hello asks where the session stands. Known are names of contents that the
// student's device has, Board is the edition of the board that the teacher's has,
// if any: these are not sent again. Have says how far it has sheets, by their ids: of these it is
// sent what has changed since.
type Hello struct {
	Known []string                `json:"known,omitempty"`
	Have  map[string]sheet.Cursor `json:"have,omitempty"`
	Board *int64                  `json:"board,omitempty"`
	// Show asks for what a front screen would show, before it is shown. Only a
	// teacher's device may ask.
	Show *session.Front `json:"show,omitempty"`
}

// StudentHello tells a student where the class is and what is there.
type StudentHello struct {
	Me     Person        `json:"me"`
	Stage  session.Stage `json:"stage"`
	People []Person      `json:"people"`
	Sheets []SheetView   `json:"sheets"`
	// Worked lists the frames on which the student has done something.
	Worked []string `json:"worked"`
	Said   Said     `json:"said"`
}

// FrontHello tells a front screen what it shows.
type FrontHello struct {
	Front  session.FrontStage `json:"front"`
	People []Person           `json:"people"`
	Sheets []SheetView        `json:"sheets"`
	// Past is the sheet as it was, where that is shown beside how it is.
	Past *Past `json:"past,omitempty"`
	// Language is that of the lesson; Dark says that its teacher wants a dark screen.
	Language settings.Language `json:"language"`
	Dark     bool              `json:"dark,omitempty"`
}

// GroupSet is one way in which the class is divided into groups.
type GroupSet struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// StaffHello tells a teacher all about a running session. Its board is left out
// for who has this edition of it.
type StaffHello struct {
	Board     *lesson.Board `json:"board,omitempty"`
	State     session.State `json:"state"`
	Code      string        `json:"code"`
	ClassName string        `json:"className"`
	// Expected is the class list, Sets the groups that are kept for the class, and
	// Seats lists, row by row, who of them sits where.
	Expected []roster.Listed `json:"expected"`
	Sets     []GroupSet      `json:"sets,omitempty"`
	Seats    []string        `json:"seats,omitempty"`
	People   []Person        `json:"people"`
	Work     []Work          `json:"work"`
	Next     Next            `json:"next"`
	Queue    Queue           `json:"queue"`
	Sheets   []SheetView     `json:"sheets"`
	// Practice says that this is a rehearsal.
	Practice bool `json:"practice,omitempty"`
	// Fronts is how many front screens are connected.
	Fronts int  `json:"fronts"`
	Said   Said `json:"said"`
}

// Work is how much an author has on a frame, and when they last did something
// there (milliseconds since 1970).
type Work struct {
	Author string `json:"author"`
	Frame  string `json:"frame"`
	Marks  int    `json:"marks"`
	At     int64  `json:"at"`
}

// Open asks for the sheets of a frame.
type Open struct {
	Frame string `json:"frame"`
}

// Opened holds the sheets of a frame that the asker may see.
type Opened struct {
	Sheets []SheetView `json:"sheets"`
}

// Move takes a student to a frame that is open at own pace; without one they
// stay. Known are as in Hello.
type Move struct {
	Frame string                  `json:"frame"`
	Known []string                `json:"known,omitempty"`
	Have  map[string]sheet.Cursor `json:"have,omitempty"`
}

// Moved is where the student is now: on the frame they asked for, or where
// they were if it is not open.
type Moved struct {
	Stage  session.Stage `json:"stage"`
	Sheets []SheetView   `json:"sheets"`
}

// Since asks what has changed on a sheet since a cursor.
type Since struct {
	Sheet string `json:"sheet"`
	sheet.Cursor
}

// Ops sends operations, at most MaxOps at once; they are taken in order.
type Ops struct {
	Ops []json.RawMessage `json:"ops"`
}

// OpsReply says for each operation what became of it.
type OpsReply struct {
	Results []OpResult `json:"results"`
}

// OpResult is the number that an operation was saved under and the operation
// that takes it back, or why it was refused.
type OpResult struct {
	Seq     int64     `json:"seq,omitempty"`
	Undo    *sheet.Op `json:"undo,omitempty"`
	Problem *Problem  `json:"problem,omitempty"`
}

// CommandReply gives the state after a command.
type CommandReply struct {
	State session.State `json:"state"`
}

// Sight says whether the lesson is in sight on a student's device.
type Sight struct {
	Away bool `json:"away"`
}

// WalkTo takes a student to a stop of the class's walk, by its owner; with none to the
// first one of theirs. Known and Have are as in Hello.
type WalkTo struct {
	Owner string                  `json:"owner,omitempty"`
	Known []string                `json:"known,omitempty"`
	Have  map[string]sheet.Cursor `json:"have,omitempty"`
}

// AtStop is a stop of the class's walk: the frame as the stage of who looks at it, and
// the sheet of its owner.
type AtStop struct {
	Owner string        `json:"owner"`
	Stage session.Stage `json:"stage"`
	Sheet SheetView     `json:"sheet"`
}

// Next is what is known of every student, those first who may need the teacher
// first. Told to the staff alone.
type Next struct {
	Rows []insight.Row `json:"rows"`
}

// Waiting is a mark that waits for the teacher's yes, and the words of the lists in
// it; told to the staff alone.
type Waiting struct {
	Sheet string         `json:"sheet"`
	Frame string         `json:"frame"`
	Mark  lesson.Element `json:"mark"`
	Words []string       `json:"words,omitempty"`
}

// Queue is what waits in a lesson, the longest waiting first: the first of them, and
// how many there are.
type Queue struct {
	First []Waiting `json:"first"`
	Count int       `json:"count"`
}

// AskOutcome asks what the answers to the questions of a frame say; the staff may.
type AskOutcome struct {
	Frame string `json:"frame"`
}

// Outcomes are what answers say, question by question. Told without being asked, they have
// of the answers those alone that are sure and wrong.
type Outcomes struct {
	Outcomes []outcome.Outcome `json:"outcomes"`
	// Sets are how the sets on those frames stand, told without being asked without their rows.
	Sets []outcome.Set `json:"sets,omitempty"`
}

// AskVerdict asks a student's own verdict on their answer to a question in a round.
type AskVerdict struct {
	Sheet string `json:"sheet"`
	Poll  string `json:"poll"`
	Round int    `json:"round"`
}

// AskResults asks a student's own verdicts on all their answers on a frame, by their own sheet
// of it.
type AskResults struct {
	Sheet string `json:"sheet"`
}

// Results are the verdicts that a student may know, by the questions' ids: how many of the
// questions that have a right answer were answered rightly, or partly.
type Results struct {
	Verdicts map[string]Verdict `json:"verdicts"`
	Right    int                `json:"right"`
	Partly   int                `json:"partly"`
	Of       int                `json:"of"`
}

// Verdict is what is thought of a student's own answer, what is right in words, and why, and
// how many tries are left.
type Verdict struct {
	Verdict poll.Verdict `json:"verdict"`
	Reason  poll.Reason  `json:"reason,omitempty"`
	Share   float64      `json:"share"`
	Right   string       `json:"right"`
	Why     string       `json:"why,omitempty"`
	Left    int          `json:"left,omitempty"`
	// Tries is which of the student's answers to the question it is about, from 1; 0 for none.
	Tries int `json:"tries,omitempty"`
}

// News is what the server tells without being asked.
type News struct {
	Kind    NewsKind            `json:"kind"              oneof:"news"`
	Changes *SheetChanges       `json:"changes,omitempty"`
	Stage   *session.Stage      `json:"stage,omitempty"`
	State   *session.State      `json:"state,omitempty"`
	Board   *Reworked           `json:"board,omitempty"`
	People  *People             `json:"people,omitempty"`
	Front   *session.FrontStage `json:"front,omitempty"`
	Fronts  *Fronts             `json:"fronts,omitempty"`
	Voices  *Said               `json:"voices,omitempty"`
	Next    *Next               `json:"next,omitempty"`
	Queue   *Queue              `json:"queue,omitempty"`
	Outcome *Outcomes           `json:"outcome,omitempty"`
	Passing *Passing            `json:"passing,omitempty"`
	Walk    *SheetChanges       `json:"walk,omitempty"`
}

// NewsKind tells news apart.
type NewsKind string

// The kinds of news.
const (
	NewsChanges NewsKind = "changes"
	NewsStage   NewsKind = "stage"
	NewsState   NewsKind = "state"
	NewsBoard   NewsKind = "board"
	NewsPeople  NewsKind = "people"
	NewsFront   NewsKind = "front"
	NewsFronts  NewsKind = "fronts"
	NewsVoices  NewsKind = "voices"
	NewsNext    NewsKind = "next"
	NewsQueue   NewsKind = "queue"
	NewsOutcome NewsKind = "outcome"
	NewsPassing NewsKind = "passing"
	NewsWalk    NewsKind = "walk"
)

// SheetChanges are saved changes of one sheet, in order, up to the number Seq.
// Where they are too long to be told, they are left out, and the reader asks.
// Work is told to the staff alone.
type SheetChanges struct {
	Sheet   string         `json:"sheet"`
	Frame   string         `json:"frame"`
	Owner   string         `json:"owner"`
	Seq     int64          `json:"seq"`
	Changes []sheet.Change `json:"changes"`
	Work    []Work         `json:"work,omitempty"`
}

// Reworked tells the staff that the board of the lesson has changed, with the state
// since: its title, its frames in order, and those of them that are new or other
// than before.
type Reworked struct {
	State  session.State  `json:"state"`
	Title  string         `json:"title"`
	Order  []string       `json:"order"`
	Frames []lesson.Frame `json:"frames"`
}

// People are participants who are new or whose presence has changed; with All, they
// are all whom the reader may know, besides themselves.
type People struct {
	People []Person `json:"people"`
	All    bool     `json:"all,omitempty"`
}

// Fronts is how many front screens are connected; the staff is told.
type Fronts struct {
	Count int `json:"count"`
}

// Time is the server's time, in milliseconds since 1970. Timers run by it.
type Time struct {
	Now int64 `json:"now"`
}

// Said is what a class has said beside its work, as far as somebody may know it:
// the staff all of it, a student what is shared and what is their own.
type Said struct {
	All    *voices.Voices `json:"all,omitempty"`
	Shared *voices.Shared `json:"shared,omitempty"`
	Own    *voices.Own    `json:"own,omitempty"`
}

// Tidy asks what clean shape a drawn stroke means.
type Tidy struct {
	Sheet string `json:"sheet"`
	Mark  string `json:"mark"`
}

// Tidied offers a clean shape for a stroke, where that is sure enough, and the
// stroke without its tremor.
type Tidied struct {
	Clean      *Tidier `json:"clean,omitempty"`
	Confidence float64 `json:"confidence,omitempty"`
	Smooth     *Tidier `json:"smooth,omitempty"`
}

// Tidier is a mark that may take the place of a drawn stroke.
type Tidier struct {
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
	W    float64 `json:"w"`
	H    float64 `json:"h"`
	Turn float64 `json:"turn,omitempty"`
	lesson.Body
}

// PassKind tells passing things apart.
type PassKind string

// The passing things.
const (
	PassDraw  PassKind = "draw"
	PassPoint PassKind = "point"
	PassEdit  PassKind = "edit"
)

// Pass is something on a sheet that need not last: a stroke while it is drawn,
// the pointer, who is writing where. Clients send it as a message without an
// answer; it is told to the others and never stored. By is set by the server.
type Pass struct {
	Sheet string   `json:"sheet,omitempty"`
	By    string   `json:"by,omitempty"`
	Kind  PassKind `json:"kind"            oneof:"passing"`
	Draw  *Draw    `json:"draw,omitempty"`
	Point *Point   `json:"point,omitempty"`
	Edit  *Edit    `json:"edit,omitempty"`
}

// Draw adds points, on the frame and with their pressure, to a growing stroke;
// Stroke is the id of the mark that it will be.
type Draw struct {
	Stroke string     `json:"stroke"`
	Points []float64  `json:"points"`
	Ink    lesson.Ink `json:"ink"`
	Width  float64    `json:"width"`
	Nib    lesson.Nib `json:"nib,omitempty"`
}

// Point is where somebody points.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Edit says which mark somebody is writing in; empty when they have stopped.
type Edit struct {
	Mark string `json:"mark"`
}

// Passing is what passed on a sheet in a moment, in order.
type Passing struct {
	Sheet  string `json:"sheet"`
	Passes []Pass `json:"passes"`
}

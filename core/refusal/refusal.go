// Package refusal answers: why was something refused, and what should the
// person do now?
//
// Every rule of the house that says no says it with a Refusal. Its code is the
// key of the sentence in the interface's message files; its sentence here is
// for programs that talk to the server without the interface.
package refusal

import (
	"errors"
	"fmt"
)

// Code names one reason for saying no.
type Code string

// The reasons. Each has its sentence in sentences below and in the message
// files of the interface.
const (
	Malformed        Code = "malformed"
	UnknownOp        Code = "unknown-operation"
	BadID            Code = "bad-id"
	NotYours         Code = "not-yours"
	NoSuchSheet      Code = "no-such-sheet"
	NoSuchMark       Code = "no-such-mark"
	NoSuchFrame      Code = "no-such-frame"
	NoSuchLevel      Code = "no-such-level"
	NoSuchCriterion  Code = "no-such-criterion"
	NoSuchWork       Code = "no-such-work"
	NotGiven         Code = "not-given"
	DatePast         Code = "date-past"
	NoHomework       Code = "no-homework"
	HomeworkOver     Code = "homework-over"
	HomeworkIn       Code = "homework-in"
	LessonRuns       Code = "lesson-runs"
	NothingToTakeOut Code = "nothing-to-take-out"
	NoSuchPoll       Code = "no-such-poll"
	NoSuchChoice     Code = "no-such-choice"
	NotANumber       Code = "not-a-number"
	UnitMissing      Code = "unit-missing"
	UnitWrong        Code = "unit-wrong"
	AnswerEmpty      Code = "answer-empty"
	MarkExists       Code = "mark-exists"
	PutAway          Code = "put-away"
	LookOnly         Code = "look-only"
	PollClosed       Code = "poll-closed"
	PollRevealed     Code = "poll-revealed"
	RoundOver        Code = "round-over"
	PollOpen         Code = "poll-open"
	AnswerFinal      Code = "answer-final"
	HandedIn         Code = "handed-in"
	NoSuchSet        Code = "no-such-set"
	NoQuestion       Code = "no-question"
	CardsAlike       Code = "cards-alike"
	// What is heard.
	SoundUnreadable Code = "sound-unreadable"
	SoundLong       Code = "sound-long"
	NotLed          Code = "not-led"
	TooManyRounds   Code = "too-many-rounds"
	Ended           Code = "session-ended"
	EmptyNote       Code = "empty-note"
	TextTooLong     Code = "text-too-long"
	TextControl     Code = "text-control"
	StrokeInvalid   Code = "stroke-invalid"
	OutOfFrame      Code = "out-of-frame"
	BadSize         Code = "bad-size"
	BadStyle        Code = "bad-style"
	SheetFull       Code = "sheet-full"
	ShareFull       Code = "share-full"
	ChangedSince    Code = "changed-since"
	OwnNote         Code = "own-note"
	BadLink         Code = "bad-link"
	NoSuchPicture   Code = "no-such-picture"
	PictureBad      Code = "picture-unreadable"
	PictureHuge     Code = "picture-too-large"
	NameEmpty       Code = "name-empty"
	NameTooLong     Code = "name-too-long"
	NameControl     Code = "name-control"
	CodeMistyped    Code = "code-mistyped"
	CodeUnknown     Code = "code-unknown"
	SessionFull     Code = "session-full"
	TooMany         Code = "too-many"
	TooLarge        Code = "too-large"
	TooManyTabs     Code = "too-many-tabs"
	DoorClosed      Code = "door-closed"
	DoorShut        Code = "door-shut"
	NameWaits       Code = "name-waits"
	SentOut         Code = "sent-out"
	NotLetIn        Code = "not-let-in"
	NoTimer         Code = "no-timer"
	NoReplies       Code = "no-replies"
	NotShared       Code = "not-shared"
	NoSuchQuestion  Code = "no-such-question"
	QuestionsOff    Code = "questions-off"
	QuestionsWait   Code = "questions-wait"
	NobodyToPick    Code = "nobody-to-pick"
	FrontUnknown    Code = "front-unknown"
	FrontGone       Code = "front-gone"
	TooManyFronts   Code = "too-many-fronts"
	Locked          Code = "locked"
	SignInNeeded    Code = "sign-in-needed"
	SignInWrong     Code = "sign-in-wrong"
	JoinNeeded      Code = "join-needed"
	PasswordShort   Code = "password-short"
	PasswordCommon  Code = "password-common"
	PasswordWrong   Code = "password-wrong"
	EmailBad        Code = "email-bad"
	EmailTaken      Code = "email-taken"
	InvitationGone  Code = "invitation-gone"
	NotForYou       Code = "administrators-only"
	LastOfAdmins    Code = "last-administrator"
	SecondNeeded    Code = "second-needed"
	SecondWrong     Code = "second-wrong"
	SecondMissing   Code = "second-missing"
	NoGuests        Code = "no-guests"
	NotForGuests    Code = "not-for-guests"
	NoMail          Code = "no-mail"
	LevelTwice      Code = "level-twice"
	StillThere      Code = "still-there"
	LessonRunning   Code = "lesson-running"
	NotAllTheirs    Code = "other-teachers"
	WrongOrigin     Code = "wrong-origin"
	NotFound        Code = "not-found"
	NoSuchClass     Code = "no-such-class"
	LastTeacher     Code = "last-teacher"
	CardMistyped    Code = "card-mistyped"
	CardUnknown     Code = "card-unknown"
	NoLessonNow     Code = "no-lesson-now"
	BoardIncorrect  Code = "board-incorrect"
	BadPaper        Code = "bad-paper"
	FrameDropped    Code = "frame-deleted"
	FrameThere      Code = "frame-exists"
	LastFrame       Code = "last-frame"
	FrameInUse      Code = "frame-in-use"
	PollAnswered    Code = "poll-answered"
	BoardFull       Code = "board-full"
	NoSuchPiece     Code = "no-such-piece"
	NoSuchCover     Code = "no-such-cover"
	FileUnreadable  Code = "file-unreadable"
	FileHuge        Code = "file-too-large"
	FileNewer       Code = "file-newer"
	FileEmpty       Code = "file-empty"
	FileLocked      Code = "file-locked"
	FileKind        Code = "file-kind"
	TooSlow         Code = "too-slow"
	PageFailed      Code = "page-failed"
	NameNotListed   Code = "name-not-listed"
	NoRehearsal     Code = "no-rehearsal"
	RehearsalsFull  Code = "rehearsals-full"
	Failed          Code = "failed"
	Unavailable     Code = "unavailable"
)

var sentences = map[Code]string{
	Malformed:        "This message could not be read. Reload the page and try again.",
	UnknownOp:        "This version of the page asks for something the server does not know. Reload the page.",
	BadID:            "This message has an id that is not a version 7 UUID. Reload the page.",
	NotYours:         "This belongs to somebody else. You can change only your own work here.",
	NoSuchSheet:      "This frame is not open to you. Go back to the frame that is on now.",
	NoSuchMark:       "This is no longer on the frame. Somebody may have removed it.",
	NoSuchCriterion:  "This criterion is no longer in the grid. Reload the page.",
	NoSuchLevel:      "The school has other levels now. Reload the page and choose one of them.",
	DatePast:         "Choose a day and a time that are still to come, within a year.",
	NoHomework:       "This lesson is no homework any more, so there is nothing to hand in.",
	HomeworkOver:     "The time for this homework is over. Ask your teacher for more time.",
	HomeworkIn:       "You have handed this in. Take it back to change something.",
	LessonRuns:       "This lesson is running. It can be taken up again once it has ended.",
	NothingToTakeOut: "There is nothing on these frames that could be taken out. Choose others.",
	NotGiven:         "Your teacher has given nothing back of this lesson. Look again later.",
	NoSuchWork:       "This student's work is no longer there. Reload the page.",
	NoSuchFrame:      "There is no such frame on this board. Reload the page.",
	NoSuchPoll:       "There is no such poll on this frame. Reload the page.",
	NoSuchChoice:     "This poll has no such answer. Choose one of those shown.",
	NotANumber:       "This cannot be read as a number. Write figures, as 12 or 1/2, and decimals as your class writes them.",
	UnitMissing:      "A unit is missing. Write it behind the number, as 5 km.",
	UnitWrong:        "This unit does not fit the question. Look at what is asked and write another one.",
	AnswerEmpty:      "There is no answer yet. Give one first.",
	MarkExists:       "Something with this id is on the frame already. Reload the page.",
	PutAway:          "Your teacher has put this away for now. Ask if you want it back.",
	LookOnly:         "You can look here, but not write. Wait for your teacher.",
	PollClosed:       "The poll is closed, so your answer stays as it was.",
	RoundOver:        "The question has been asked again meanwhile. Answer it anew.",
	PollRevealed:     "The right answer has been shown, so the poll cannot be opened again.",
	CardsAlike:       "The same card is in two pairs. Each card may be in one pair only.",
	AnswerFinal:      "You know already whether that was right, so the answer stays.",
	HandedIn:         "You have handed this in, so your answers stay.",
	NoSuchSet:        "These questions are not asked in a row. Look at the frame again.",
	NoQuestion:       "This question cannot be read. Compare it with the description of the format.",
	SoundUnreadable:  "This cannot be heard here. Record it anew, or choose another file.",
	SoundLong:        "A recording has at most two minutes. Make it shorter.",
	NotLed:           "Everybody goes on by themselves here. Close the questions when it is time.",
	PollOpen:         "The poll is open: close it before you ask again.",
	TooManyRounds:    "This question has been asked often enough. Make a new poll to ask again.",
	Ended:            "This lesson has ended. Nothing more can be added.",
	EmptyNote:        "Write something first: an empty note is not kept.",
	TextTooLong:      "This text is too long. Shorten it and try again.",
	TextControl:      "This text has characters that cannot be shown. Remove them and try again.",
	StrokeInvalid:    "This line could not be read. Draw it again.",
	OutOfFrame:       "This would lie outside the frame. Move it back in.",
	BadSize:          "This size is not possible. Choose a larger or smaller one.",
	BadStyle:         "There is no such ink, tint or width. Choose one of those shown.",
	SheetFull:        "This frame is full. Remove something before you add more.",
	ShareFull:        "You have as much on this frame as one person may. Remove something of yours before you add more.",
	ChangedSince:     "Somebody else has changed this since, so it stays as it is now.",
	OwnNote:          "This note is yours. Agree with somebody else's.",
	BadLink:          "This is no web address. It begins with https:// and has no name or password in it.",
	NoSuchPicture:    "This picture is not there. Add it again.",
	PictureBad:       "This picture cannot be read. Use a PNG, JPEG, WebP, GIF or SVG file that opens on your device.",
	PictureHuge:      "This picture is too large. Use one of at most 10 MB.",
	NameEmpty:        "Type your name, so that your teacher knows who you are.",
	NameTooLong:      "This name is too long. Use at most 40 letters.",
	NameControl:      "This name has characters that cannot be shown. Type it again.",
	CodeMistyped:     "A code has six letters and digits. Look at it again.",
	CodeUnknown:      "No lesson has this code now. Check it, or ask your teacher.",
	SessionFull:      "This lesson is full. Ask your teacher.",
	TooMany:          "That was too much at once. Wait a moment and try again.",
	TooLarge:         "This is too large to send. Make it smaller.",
	TooManyTabs:      "This lesson is open in too many windows. Go on in the newest one, or close some and reload this one.",
	DoorClosed:       "Nobody new can come in now. Ask your teacher.",
	DoorShut:         "The door is closed. Nobody new can come in.",
	NameWaits:        "Your teacher looks at this name first. Knock, and wait until you are let in.",
	SentOut:          "Your teacher took your place in this lesson. Talk to your teacher.",
	FrontUnknown:     "No screen waits with this code. Look at it again.",
	FrontGone:        "This screen shows no lesson now.",
	TooManyFronts:    "This lesson is on as many screens as it may be. Take it off those that you no longer need.",
	NoSuchQuestion:   "This question is not there any more.",
	QuestionsOff:     "Questions are not being taken now. Ask your teacher.",
	NobodyToPick:     "Nobody can be picked: nobody is here, or all are left out.",
	QuestionsWait:    "Wait until your questions are answered, then ask the next one.",
	NotShared:        "Somebody comes to the board on a frame that the whole class shares. Go to one, or let the class share this one.",
	NoReplies:        "Notes are not answered on this frame.",
	NoTimer:          "No timer is running.",
	Locked:           "Your teacher lets you only look now. What you did before is kept.",
	NotLetIn:         "You were not let in. Talk to your teacher, or knock again.",
	SignInNeeded:     "Sign in first.",
	SignInWrong:      "E-mail or password is not right. Try again.",
	JoinNeeded:       "Join the lesson with its code first.",
	WrongOrigin:      "This request came from another page. Open the lesson again from the start page.",
	NotFound:         "There is nothing here. Check the address.",
	NoSuchClass:      "There is no such class list. Reload the page and choose again.",
	LastTeacher:      "Somebody has to teach this class. Let a colleague teach it first.",
	CardMistyped:     "The code on a name card has eight letters and digits. Look at it again.",
	CardUnknown:      "No name card has this code now. Ask your teacher for a new one.",
	NoLessonNow:      "No lesson of your class is going on now. Come back when it has begun.",
	BoardIncorrect:   "This board cannot be used as it is.",
	BadPaper:         "There is no such paper, or its numbers do not fit. Choose one of those shown.",
	FrameDropped:     "This frame was deleted, perhaps in another window. Bring it back to go on with it.",
	FrameThere:       "A frame with this id is on the board already. Reload the page.",
	FrameInUse:       "The class has been on this frame, so it stays for this lesson.",
	PollAnswered:     "This poll has answers already. Close it and make a new one, or change its words only.",
	PasswordShort:    "This password has fewer than 12 characters, or more than 200.",
	PasswordCommon:   "This password is among the first that somebody would try. Choose another one.",
	PasswordWrong:    "This is not your present password.",
	EmailBad:         "This is no e-mail address.",
	EmailTaken:       "There is an account with this e-mail address already.",
	InvitationGone:   "This link was used already, or is too old. Ask for a new one.",
	NotForYou:        "Only administrators may do this.",
	LastOfAdmins:     "Somebody has to look after the accounts. Make another person an administrator first.",
	SecondNeeded:     "Type the code of your second factor too.",
	SecondWrong:      "This code is not right, or was used already. Wait for the next one and type that.",
	SecondMissing:    "Your school asks for a second factor. Set it up under your name first.",
	NoGuests:         "Your school lets nobody begin without an account. Ask for one.",
	NotForGuests:     "This needs an account. Sign in, and what you have begun comes along.",
	NoMail:           "This school's server sends no mail. Ask an administrator for a link.",
	LevelTwice:       "Two levels have the same name. Give each one its own.",
	StillThere:       "This account is in use. Let its owner leave first.",
	LessonRunning:    "A lesson goes on in which they are. Finish it first.",
	NotAllTheirs:     "They are in classes of other teachers too. Ask an administrator.",
	LastFrame:        "A board has at least one frame. Add another one before you delete this.",
	BoardFull:        "A board has at most 60 frames. Delete one, or begin another board.",
	NoSuchPiece:      "This piece is not on the frame. Take one of those shown.",
	NoSuchCover:      "There is no such cover on this frame. Reload the page.",
	FileUnreadable:   "This file cannot be read. Open it on your device and save it again, then bring it in.",
	FileHuge:         "This file is too large. Use one of at most 100 MB.",
	FileNewer:        "This board was saved by a newer version of the program. Update this one, or save the board in the older form.",
	FileEmpty:        "There is nothing in this file that could be brought in.",
	FileLocked:       "This file is locked with a password. Save it without one and bring it in again.",
	FileKind:         "This kind of file cannot be brought in. Use PDF, PPTX, CSV, text, a picture or a board file.",
	TooSlow:          "This file took too long to read and was stopped. Use a smaller one, or fewer pages.",
	PageFailed:       "This page could not be read; the others are there.",
	NameNotListed:    "Choose your name from the list.",
	NoRehearsal:      "Rehearsals are not set up on this server.",
	RehearsalsFull:   "So many rehearsals are going on already. End one first.",
	Failed:           "This did not work, and it is not your doing. Try it another way; if it happens again, tell your teacher.",
	Unavailable:      "The server cannot save right now. Your work is kept on this device; try again soon.",
}

// Refusal is the error that every rule returns. About may name what it is
// about (a field, a limit); it never quotes what a person wrote.
type Refusal struct {
	Code  Code
	About string
}

// New makes a Refusal without detail.
func New(code Code) *Refusal { return &Refusal{Code: code} }

// About makes a Refusal that says what it is about.
func About(code Code, format string, args ...any) *Refusal {
	return &Refusal{Code: code, About: fmt.Sprintf(format, args...)}
}

// Error gives the code and what it is about, for logs.
func (r *Refusal) Error() string {
	if r.About == "" {
		return string(r.Code)
	}
	return string(r.Code) + ": " + r.About
}

// Sentence says in plain English what happened and what to do.
func (r *Refusal) Sentence() string {
	return sentences[r.Code]
}

// Is reports whether another refusal has the same code, so that
// errors.Is(err, refusal.New(refusal.Ended)) reads as it sounds.
func (r *Refusal) Is(target error) bool {
	other, ok := target.(*Refusal)
	return ok && other.Code == r.Code
}

// Of finds the Refusal in err, or nil when err is some other failure.
func Of(err error) *Refusal {
	var r *Refusal
	if errors.As(err, &r) {
		return r
	}
	return nil
}

// Codes lists every code that has a sentence.
func Codes() []Code {
	codes := make([]Code, 0, len(sentences))
	for code := range sentences {
		codes = append(codes, code)
	}
	return codes
}

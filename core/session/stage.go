package session

import (
	"slices"

	"alpenglow/core/homework"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
)

// Stage is what a student may know of a session: the frame they are on,
// without what is not yet revealed, and never the frames that are not open.
type Stage struct {
	Rev   int64  `json:"rev"`
	Title string `json:"title"`
	// Frame is the frame with what was prepared on it, or, with Change, without:
	// the reader makes it from a content they have. Content is its name.
	Frame   lesson.Frame   `json:"frame"`
	Content string         `json:"content"`
	Change  *ContentChange `json:"change,omitempty"`

	Number int                   `json:"number"` // from 1
	Of     int                   `json:"of"`
	Polls  map[string]poll.State `json:"polls"`
	Pace   Pace                  `json:"pace"`
	// Trail lists the frames that the student may move to, at own pace.
	Trail []Station `json:"trail,omitempty"`
	// Group is the student's, on a frame that groups share.
	Group *Group `json:"group,omitempty"`
	// Timer is the timer that runs, or is over. Locked says that the student may
	// only look, whatever the frame allows; a timer may add to that.
	Timer  *Timer `json:"timer,omitempty"`
	Locked bool   `json:"locked,omitempty"`
	// LockedUntil is until when the student may only look, in milliseconds since 1970.
	LockedUntil int64 `json:"lockedUntil,omitempty"`
	// AtBoard is who works on the class's frame, seen by all, whatever others may do.
	AtBoard *AtBoard `json:"atBoard,omitempty"`
	// Walk is the walk that the class is on.
	Walk *Walking `json:"walk,omitempty"`
	// Talk is with whom the student talks about a question now.
	Talk *TalkWith `json:"talk,omitempty"`
	// Paused says that the screen rests.
	Paused bool `json:"paused,omitempty"`
	Ended  bool `json:"ended"`
	// Home is the homework that the lesson is, with the student's own date.
	Home *homework.Homework `json:"home,omitempty"`
}

// TalkWith is with whom a student talks about a question, by ids; nobody who found none.
type TalkWith struct {
	Poll string   `json:"poll"`
	With []string `json:"with"`
}

// Station is a frame on a student's trail.
type Station struct {
	Frame string `json:"frame"`
	Title string `json:"title"`
}

// Group is a group with its number, from 1, and the ids of its students.
type Group struct {
	Number  int      `json:"number"`
	Members []string `json:"members"`
}

// Same says that the stage is the same for every student.
func (s State) Same(board lesson.Board) bool {
	on, _, err := board.Frame(s.Frame)
	return err == nil && s.Pace == Led && s.Home == nil && on.Arrangement != lesson.Groups && s.Talk == nil &&
		len(s.Locks.Students)+len(s.Locks.Until) == 0
}

// For gives the stage of a session as a student may see it.
func (s State) For(board lesson.Board, student Student) (Stage, error) {
	v, err := s.View(board, s.Place(board, student), View{})
	if err != nil {
		return Stage{}, err
	}
	return s.Stage(board, student, v), nil
}

// Stage gives a student's stage, with the view of the frame that they are on.
func (s State) Stage(board lesson.Board, student Student, v View) Stage {
	_, at, _ := board.Frame(v.Frame.ID)
	stage := Stage{Rev: s.Rev, Title: board.Title, Frame: v.Frame, Content: v.Content, Number: at + 1,
		Of: len(board.Frames), Polls: v.Polls, Pace: s.Pace, Timer: s.Timer,
		Locked:      s.FrameLocked(v.Frame.ID, 0) || slices.Contains(s.Locks.Students, student.ID),
		LockedUntil: s.Locks.Until[student.ID], Walk: s.walking(), Paused: s.Paused, Ended: s.Ended,
		Home: s.Home.Of(student.ID)}
	if v.Frame.ID == s.Frame {
		stage.AtBoard = s.AtBoard
	}
	if with, talks := s.TalksWith(student.ID); talks {
		stage.Talk = &TalkWith{s.Talk.Poll, with}
	}
	for _, f := range s.open(board) {
		stage.Trail = append(stage.Trail, Station{f.ID, f.Title})
	}
	if n := s.GroupOf(student.ID); n > 0 && v.Frame.Arrangement == lesson.Groups {
		stage.Group = &Group{n, s.Groups[n-1]}
	}
	return stage
}

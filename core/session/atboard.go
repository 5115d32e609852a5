package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindBoard lets a student come to the board.
const KindBoard CommandKind = "board"

// MaxAtBoard is how many seconds somebody is at the board at most, if it is said.
const MaxAtBoard = 60 * 60

// AtBoard is the student who works on the class's frame for a while, seen by all,
// whatever the others may do there. Until is when that ends by itself, in
// milliseconds since 1970; 0 for when the teacher says so.
type AtBoard struct {
	Student string `json:"student"`
	Until   int64  `json:"until,omitempty"`
}

// ToBoard lets a student come to the board, for so many Seconds if that is said, or
// with none calls back who is there.
type ToBoard struct {
	Student string `json:"student,omitempty"`
	Seconds int    `json:"seconds,omitempty"`
}

func (c *ToBoard) do(s *State, board lesson.Board, with With) error {
	if c.Student == "" {
		s.AtBoard = nil
		return nil
	}
	on, _, err := board.Frame(s.Frame)
	switch {
	case err != nil:
		return err
	case !slices.Contains(with.Students, c.Student) || !s.Seated(c.Student):
		return refusal.About(refusal.Malformed, "no such student")
	case c.Seconds < 0 || c.Seconds > MaxAtBoard:
		return refusal.About(refusal.Malformed, "at most %d seconds", MaxAtBoard)
	case on.Arrangement != lesson.WholeClass:
		return refusal.New(refusal.NotShared)
	}
	s.AtBoard = &AtBoard{Student: c.Student}
	if c.Seconds > 0 {
		s.AtBoard.Until = with.Now + int64(c.Seconds)*1000
	}
	return nil
}

// WhoIsAtBoard gives the student who is at the board at a time, where a frame is the
// one that the class is on; empty for nobody.
func (s State) WhoIsAtBoard(frame string, now int64) string {
	if a := s.AtBoard; a != nil && frame == s.Frame && (a.Until == 0 || now < a.Until) && s.Seated(a.Student) {
		return a.Student
	}
	return ""
}

func (a *AtBoard) same(o *AtBoard) bool { return a == o || a != nil && o != nil && *a == *o }

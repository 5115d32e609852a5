package session

import (
	"maps"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindLock lets students only look, or work again.
const KindLock CommandKind = "lock"

// Locks say where students may only look, whatever a frame allows them: on every
// frame, on some, or some students on all.
type Locks struct {
	All      bool     `json:"all,omitempty"`
	Frames   []string `json:"frames,omitempty"`
	Students []string `json:"students,omitempty"`
	// Until says until when some students may only look, in milliseconds since 1970.
	Until map[string]int64 `json:"until,omitempty"`
}

// MaxLocked is for how many seconds a student may be locked for a while.
const MaxLocked = 60 * 60

// Lock locks or unlocks one frame, one student, or with neither all frames.
// What has been done by then stays; polls that are open are answered all the same.
// A student may be locked for so many Seconds.
type Lock struct {
	Frame   string `json:"frame,omitempty"`
	Student string `json:"student,omitempty"`
	On      bool   `json:"on"`
	Seconds int    `json:"seconds,omitempty"`
}

func (l *Lock) do(s *State, board lesson.Board, with With) error {
	switch {
	case l.Frame != "" && l.Student != "":
		return refusal.New(refusal.Malformed)
	case l.Seconds != 0 && (l.Student == "" || !l.On || l.Seconds < 0 || l.Seconds > MaxLocked):
		return refusal.About(refusal.Malformed, "a student, for at most %d seconds", MaxLocked)
	case l.Frame != "":
		if _, _, err := board.Frame(l.Frame); err != nil {
			return err
		}
		s.Locks.Frames = switched(s.Locks.Frames, l.Frame, l.On)
	case l.Student != "":
		if !slices.Contains(with.Students, l.Student) {
			return refusal.About(refusal.Malformed, "no such student")
		}
		s.Locks.Students = switched(s.Locks.Students, l.Student, l.On && l.Seconds == 0)
		s.Locks.Until = maps.Clone(s.Locks.Until)
		maps.DeleteFunc(s.Locks.Until, func(student string, until int64) bool {
			return student == l.Student || until <= with.Now
		})
		if l.Seconds > 0 {
			if s.Locks.Until == nil {
				s.Locks.Until = map[string]int64{}
			}
			s.Locks.Until[l.Student] = with.Now + int64(l.Seconds)*1000
		}
	default:
		s.Locks.All = l.On
	}
	return nil
}

// switched gives a list with one that is on it, or not.
func switched(list []string, one string, on bool) []string {
	others := slices.DeleteFunc(slices.Clone(list), func(o string) bool { return o == one })
	if on {
		others = append(others, one)
	}
	return others
}

// Locked reports whether a student may only look on a frame at a time.
func (s State) Locked(frame, student string, now int64) bool {
	return s.FrameLocked(frame, now) || slices.Contains(s.LockedOut(now), student)
}

// LockedOut lists the students who may only look at a time, wherever they are.
func (s State) LockedOut(now int64) []string {
	out := s.Locks.Students
	for student, until := range s.Locks.Until {
		if now < until {
			out = append(slices.Clip(out), student)
		}
	}
	return out
}

// FrameLocked reports whether every student may only look on a frame at a time.
func (s State) FrameLocked(frame string, now int64) bool {
	return s.Locks.All || slices.Contains(s.Locks.Frames, frame) || s.Timer.over(now)
}

func (l Locks) same(o Locks) bool {
	return l.All == o.All && slices.Equal(l.Frames, o.Frames) && slices.Equal(l.Students, o.Students) &&
		maps.Equal(l.Until, o.Until)
}

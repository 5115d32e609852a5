// Package insight answers: what does a class's work say to its teacher? It knows
// operations and time alone, and says nothing that a person could not check by
// looking. docs/insight.md has its formulas.
package insight

// State is what is known of a student on the frame that they are on.
type State string

// The states. AtWork has changed something lately, Quiet has not for longer than
// this class's pauses last on this frame.
const (
	NotBegun State = "notBegun"
	AtWork   State = "atWork"
	Quiet    State = "quiet"
	Done     State = "done"
	Help     State = "help"
	Away     State = "away" // the device sleeps, or shows something else
	Gone     State = "gone"
	Removed  State = "removed"
)

// States lists all of them.
var States = []State{NotBegun, AtWork, Quiet, Done, Help, Away, Gone, Removed}

// Work is what a student has done on a frame. Times are in milliseconds since 1970.
type Work struct {
	Marks int   // what they have there
	At    int64 // when they changed something last; 0 for never
	Pause int64 // the longest time between two changes of theirs, in milliseconds
}

// Then is the work after somebody changed something at a time and has so many
// marks. Changes may come in any order.
func (w Work) Then(at int64, marks int) Work {
	if w.At > 0 && at > w.At {
		w.Pause = max(w.Pause, at-w.At)
	}
	return Work{marks, max(w.At, at), w.Pause}
}

// Student is one student, as far as who next depends on it.
type Student struct {
	ID, Name      string
	Here, Away    bool
	Removed       bool
	Frame         string // the one that they are on
	Since         int64  // when they came to it
	Work          Work   // on it
	Done          bool   // they have said that they are done with it
	Help          int64  // when they asked for help; 0 if they did not
	Coming        bool   // the teacher has said that they are coming
	Looked        int64  // when the teacher looked at their work last; 0 for never
	Wrong         string // what their answer says, the same for all who are wrong in the same way; empty if not
	WrongAt       int64
	Picked        int   // how often they were drawn
	PresenceSince int64 // when they came, went or turned away
}

// state says how it is with a student, where a pause is usual up to a limit, and
// since when.
func (s Student) state(limit, now int64) (State, int64) {
	switch {
	case s.Removed:
		return Removed, 0
	case !s.Here:
		return Gone, s.PresenceSince
	case s.Help > 0:
		return Help, s.Help
	case s.Done:
		return Done, s.Work.At
	case s.Away:
		return Away, s.PresenceSince
	case s.Work.Marks == 0:
		return NotBegun, s.Since
	case now-s.Work.At > limit:
		return Quiet, s.Work.At
	}
	return AtWork, 0
}

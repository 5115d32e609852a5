// Package insight answers: what does a class's work say to its teacher?
package insight

import "time"

// Doing is what a student seems to be doing on a frame.
type Doing string

// What a student may be doing, those first who may need the teacher first.
const (
	NotBegun Doing = "notBegun"
	Stopped  Doing = "stopped"
	Working  Doing = "working"
	Gone     Doing = "gone"
	Removed  Doing = "removed"
)

// StoppedAfter is how long a student who had begun changes nothing before they
// have stopped.
const StoppedAfter = 3 * time.Minute

// Seen is what is known of a student on a frame.
type Seen struct {
	Here    bool
	Removed bool      // their seat was taken away
	Marks   int       // what they have there
	At      time.Time // when they changed anything of it last
}

// Doing says what the student seems to be doing. The interface says the same of
// what it hears (ui/src/run/doing.ts); testdata/doing.json holds both to it.
func (s Seen) Doing(now time.Time) Doing {
	switch {
	case s.Removed:
		return Removed
	case !s.Here:
		return Gone
	case s.Marks == 0:
		return NotBegun
	case now.Sub(s.At) > StoppedAfter:
		return Stopped
	}
	return Working
}

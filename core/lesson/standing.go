package lesson

// Stand says how a mark stands for the class.
type Stand string

// Shown to all who may see its sheet; held until the teacher says yes, seen by
// its author and the staff; hidden, seen by the staff alone; removed from the
// frame, but not lost.
const (
	Shown   Stand = "shown"
	Held    Stand = "held"
	Hidden  Stand = "hidden"
	Removed Stand = "removed"
)

// Stands lists them.
var Stands = []Stand{Shown, Held, Hidden, Removed}

// Standing is how a mark that is not shown stands, who made it so, and when (in
// milliseconds since 1970).
type Standing struct {
	Is Stand  `json:"is"`
	By string `json:"by"`
	At int64  `json:"at"`
	// In is the operation that removed the mark, Was how it stood before.
	In  string    `json:"in,omitempty"`
	Was *Standing `json:"was,omitempty"`
}

// Stands gives how the mark stands.
func (e Element) Stands() Stand {
	if e.Standing == nil {
		return Shown
	}
	return e.Standing.Is
}

// OnFrame reports whether the mark is there at all, for whomever.
func (e Element) OnFrame() bool { return e.Stands() != Removed }

// Remove makes the mark a removed one: by whom, when, and in which operation.
func (e *Element) Remove(by string, at int64, in string) {
	e.Standing = &Standing{Is: Removed, By: by, At: at, In: in, Was: e.Standing}
}

// Restore gives a removed mark the standing that it had before.
func (e *Element) Restore() { e.Standing = e.Standing.Was }

package lesson

import "cmp"

// Beneath gives the ids of the notes that lie in a stack and not on top of it. On
// top is the one that was made first of those that the class sees, or of all where
// it sees none; where that one goes, the next is on top.
func Beneath(marks []Element) map[string]bool {
	tops := map[string]Element{}
	for _, m := range marks {
		if !m.stacked() {
			continue
		}
		if top, ok := tops[m.Note.Stack]; !ok || m.above(top) {
			tops[m.Note.Stack] = m
		}
	}
	beneath := map[string]bool{}
	for _, m := range marks {
		if m.stacked() && tops[m.Note.Stack].ID != m.ID {
			beneath[m.ID] = true
		}
	}
	return beneath
}

func (e Element) stacked() bool { return e.Note != nil && e.Note.Stack != "" && e.OnFrame() }

// above reports whether a note lies above another of its stack.
func (e Element) above(o Element) bool {
	if shown, other := e.Stands() == Shown, o.Stands() == Shown; shown != other {
		return shown
	}
	return cmp.Or(cmp.Compare(e.At, o.At), cmp.Compare(e.ID, o.ID)) < 0
}

package sheet

import (
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// hide takes a mark out of the class's sight, or brings it back.
func (e *edit) hide(t Target, hidden bool) error {
	m, err := e.find(t.Mark)
	if err == nil && (!m.OnFrame() || m.Kind == lesson.KindAnswer || original(m)) {
		err = refusal.New(refusal.NoSuchMark)
	}
	if err != nil {
		return err
	}
	back := Step{Kind: KindShow, Show: &t}
	if m.Hidden {
		back = Step{Kind: KindHide, Hide: &t}
	}
	m.Hidden = hidden
	e.changed(&m)
	e.put(m, back)
	return nil
}

// clear removes what one author, or everybody, has on the sheet. What is not
// there to clear is refused, so that undo is not offered for nothing.
func (e *edit) clear(c Clear) error {
	for _, m := range e.sheet.Marks() {
		if m.OnFrame() && m.Kind != lesson.KindAnswer && !original(m) && (c.Author == "" || m.Author == c.Author) {
			e.remove(m)
		}
	}
	if len(e.back) == 0 {
		return refusal.New(refusal.NoSuchMark)
	}
	// One short step takes it back, however much it was.
	e.back = []Step{{Kind: KindRestore, Restore: &Restore{In: e.op.ID}}}
	return nil
}

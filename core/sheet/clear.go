package sheet

import (
	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindClear removes the work of an author or of all.
const KindClear Kind = "clear"

// Clear removes the work of one author, or of everybody if Author is empty; of it that
// alone which was written or drawn since a time, in milliseconds since 1970, if one is given.
type Clear struct {
	Author string `json:"author,omitempty"`
	Since  int64  `json:"since,omitempty"`
}

func (c *Clear) right() right { return right{staff: true} }

func (c *Clear) check() error {
	if c.Author == "" {
		return nil
	}
	return id.Plain(c.Author)
}

// do removes what one author, or everybody, has on the sheet. What is not
// there to clear is refused, so that undo is not offered for nothing.
func (c *Clear) do(e *edit) error {
	work, err := e.each(func(m lesson.Element) bool {
		return !m.IsAnswer() && !original(m) && (c.Author == "" || m.Author == c.Author) && m.At >= c.Since
	})
	if err != nil {
		return err
	}
	if len(work) == 0 {
		return refusal.New(refusal.NoSuchMark)
	}
	for _, m := range work {
		e.remove(m)
	}
	// One short step takes it back, however much it was.
	e.back = []Step{{Kind: KindRestore, Restore: &Restore{In: e.op.ID}}}
	return nil
}

package sheet

import (
	"alpenglow/core/id"
	"alpenglow/core/lesson"
)

// KindRemove takes a mark off the frame.
const KindRemove Kind = "remove"

// Remove takes a mark off the frame. Connectors keep hold of it: until it is
// restored they lie where they were drawn.
type Remove struct {
	Mark string `json:"mark"`
}

func (r *Remove) right() right { return right{one: true, visiting: true} }
func (r *Remove) check() error { return id.Plain(r.Mark) }

func (r *Remove) do(e *edit) error {
	m, err := e.mayChange(r.Mark)
	if err == nil {
		e.remove(m)
	}
	return err
}

func (e *edit) remove(m lesson.Element) {
	m.Remove(e.actor.author(), e.terms.Now, e.op.ID)
	e.changed(&m)
	e.put(m, Step{Kind: KindRestore, Restore: &Restore{Mark: m.ID}})
}

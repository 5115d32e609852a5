package sheet

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindRestore brings back what was removed.
const KindRestore Kind = "restore"

// Restore brings back a removed mark, or with In all that one operation removed.
type Restore struct {
	Mark string `json:"mark,omitempty"`
	In   string `json:"in,omitempty"`
}

func (r *Restore) right() right { return right{one: true, visiting: true} }

func (r *Restore) check() error {
	if r.In != "" {
		return id.V7(r.In)
	}
	return id.Plain(r.Mark)
}

func (r *Restore) do(e *edit) error {
	ids := []string{r.Mark}
	if r.In != "" {
		var err error
		if ids, err = e.removedBy(r.In); err != nil {
			return err
		}
	}
	for _, id := range ids {
		m, err := e.find(id)
		switch {
		case err != nil:
		case m.IsAnswer():
			err = refusal.New(refusal.NotYours)
		case m.OnFrame():
			err = refusal.New(refusal.MarkExists)
		case !e.actor.Staff && m.Remark == nil && !e.actor.Shares(e.sheet.Owner):
			err = refusal.New(refusal.NotYours)
		case !e.actor.Staff && m.Standing.By != e.actor.ID:
			err = refusal.New(refusal.NoSuchMark)
		case !e.actor.Shares(e.sheet.Owner):
			err = e.mayRemark()
		}
		if err == nil {
			err = e.room(m, of(m))
		}
		if err != nil {
			return err
		}
		m.Restore()
		e.changed(&m)
		e.put(m, Step{Kind: KindRemove, Remove: &Remove{Mark: m.ID}})
	}
	return nil
}

// removedBy lists the marks that one operation removed, in one order on every server.
func (e *edit) removedBy(op string) ([]string, error) {
	is := func(id string) bool {
		m, ok := e.mark(id)
		return ok && !m.OnFrame() && m.Standing.In == op
	}
	ids := map[string]lesson.Element{}
	for _, id := range e.sheet.removedIn[op] {
		ids[id] = lesson.Element{}
	}
	if _, here := e.Draft.done[op]; here {
		for id := range e.over {
			ids[id] = lesson.Element{}
		}
	}
	if err := e.spend(len(ids)); err != nil {
		return nil, err
	}
	var found []string
	for id := range ids {
		if is(id) {
			found = append(found, id)
		}
	}
	if len(found) == 0 {
		return nil, refusal.New(refusal.NoSuchMark)
	}
	slices.Sort(found)
	return found, nil
}

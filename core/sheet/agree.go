package sheet

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/refusal"
)

// KindAgree agrees with a note.
const KindAgree Kind = "agree"

// Agree agrees with somebody else's note, or takes that back.
type Agree struct {
	Mark string `json:"mark"`
	Yes  bool   `json:"yes"`
}

func (a *Agree) right() right { return right{inClass: true} }
func (a *Agree) check() error { return id.Plain(a.Mark) }

func (a *Agree) do(e *edit) error {
	m, err := e.find(a.Mark)
	me := e.actor.author()
	switch {
	case err != nil:
		return err
	case !m.OnFrame() || m.Note == nil && m.Reply == nil:
		return refusal.New(refusal.NoSuchMark)
	case m.Author == me:
		return refusal.New(refusal.OwnNote)
	}
	already := slices.Contains(m.Agreed, me)
	m.Agreed = slices.DeleteFunc(slices.Clone(m.Agreed), func(id string) bool { return id == me })
	if a.Yes {
		m.Agreed = append(m.Agreed, me)
	}
	if len(m.Agreed) == 0 {
		m.Agreed = nil
	}
	e.put(m, Step{Kind: KindAgree, Agree: &Agree{Mark: a.Mark, Yes: already}})
	return nil
}

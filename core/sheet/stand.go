package sheet

import (
	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// The operations by which the staff says how a mark stands for the class.
const (
	KindHide Kind = "hide"
	KindHold Kind = "hold"
	KindShow Kind = "show"
)

// Hide takes a mark out of everybody's sight but the staff's.
type Hide struct {
	Mark string `json:"mark"`
}

// Hold takes a mark out of sight of all but its author and the staff, until it is shown.
type Hold struct {
	Mark string `json:"mark"`
}

// Show shows a hidden or held mark to all who may see its sheet. With Read, it does
// so only as long as its words are those that were read.
type Show struct {
	Mark string  `json:"mark"`
	Read *string `json:"read,omitempty"`
}

func (h *Hide) check() error { return id.Plain(h.Mark) }
func (h *Hold) check() error { return id.Plain(h.Mark) }
func (s *Show) check() error { return id.Plain(s.Mark) }

func (h *Hide) right() right { return right{staff: true, inClass: true} }
func (h *Hold) right() right { return right{staff: true, inClass: true} }
func (s *Show) right() right { return right{staff: true, inClass: true} }

func (h *Hide) do(e *edit) error { return e.stand(h.Mark, lesson.Hidden) }
func (h *Hold) do(e *edit) error { return e.stand(h.Mark, lesson.Held) }
func (s *Show) do(e *edit) error {
	if m, ok := e.mark(s.Mark); ok && s.Read != nil && *s.Read != m.Words() {
		return refusal.New(refusal.ChangedSince)
	}
	return e.stand(s.Mark, lesson.Shown)
}

// stand makes a mark that is there stand like this for the class.
func (e *edit) stand(mark string, as lesson.Stand) error {
	m, err := e.find(mark)
	if err == nil && (!m.OnFrame() || m.IsAnswer() || original(m)) {
		err = refusal.New(refusal.NoSuchMark)
	}
	if err != nil {
		return err
	}
	back := standStep(mark, m.Stands())
	m.Standing = nil
	if as != lesson.Shown {
		m.Standing = &lesson.Standing{Is: as, By: e.actor.author(), At: e.terms.Now}
	}
	e.changed(&m)
	e.put(m, back)
	if m.Note == nil || as == lesson.Shown {
		return nil
	}
	// What was answered to it may repeat it: it leaves with the note.
	replies, err := e.each(func(o lesson.Element) bool {
		return o.Reply != nil && o.Reply.To == mark && o.Stands() == lesson.Shown
	})
	for _, r := range replies {
		if err == nil {
			err = e.stand(r.ID, as)
		}
	}
	return err
}

func standStep(mark string, as lesson.Stand) Step {
	switch as {
	case lesson.Hidden:
		return Step{Kind: KindHide, Hide: &Hide{mark}}
	case lesson.Held:
		return Step{Kind: KindHold, Hold: &Hold{mark}}
	}
	return Step{Kind: KindShow, Show: &Show{Mark: mark}}
}

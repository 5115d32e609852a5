package sheet

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindStack makes one of notes that say the same.
const KindStack Kind = "stack"

// Stack lays notes on one stack, where that lies which comes to be on top, or with no name of a
// stack takes notes off theirs, each to the nearest free place. Nobody loses a note:
// authors and words stay, and the card on top shows how many there are.
//
// With To it lays notes as they are said to lie. That takes it back.
type Stack struct {
	Stack string    `json:"stack,omitempty"`
	Marks []string  `json:"marks,omitempty"`
	To    []InStack `json:"to,omitempty"`
}

// InStack is where a note lies, and in which stack.
type InStack struct {
	Spot
	Stack string `json:"stack,omitempty"`
}

func (s *Stack) right() right { return right{staff: true, inClass: true} }

func (s *Stack) check() error {
	if n := max(len(s.Marks), len(s.To)); n > MaxSpread || n == 0 {
		return refusal.About(refusal.TooMany, "%d notes, 1 to %d", n, MaxSpread)
	}
	if s.Stack != "" && !id.IsV7(s.Stack) {
		return refusal.New(refusal.BadID)
	}
	for _, m := range s.Marks {
		if err := id.Plain(m); err != nil {
			return err
		}
	}
	for _, to := range s.To {
		if err := id.Plain(to.Mark); err != nil {
			return err
		}
		if to.Stack != "" && !id.IsPlain(to.Stack) {
			return refusal.New(refusal.BadID)
		}
	}
	return nil
}

func (s *Stack) do(e *edit) error {
	to, was := s.To, map[string]InStack{}
	for _, of := range s.Marks {
		if m, ok := e.mark(of); ok && m.Note != nil {
			was[of] = inStack(m)
		}
	}
	if len(to) == 0 {
		var err error
		if to, err = e.stack(s.Stack, s.Marks); err != nil {
			return err
		}
	}
	var before []InStack
	for _, spot := range to {
		m, ok := e.mark(spot.Mark)
		if !ok || !m.OnFrame() || m.Note == nil {
			continue
		}
		now, known := was[spot.Mark]
		if !known {
			now = inStack(m)
		}
		if now == spot {
			continue
		}
		before = append(before, now)
		n := *m.Note
		n.Size, n.Margin, n.Stack = spot.Size, spot.Margin, spot.Stack
		m.X, m.Y, m.W, m.H, m.Note = spot.X, spot.Y, spot.W, spot.H, &n
		if err := m.Check(); err != nil {
			return err
		}
		e.put(m, Step{})
	}
	if len(before) == 0 {
		return refusal.New(refusal.NoSuchMark)
	}
	e.back = []Step{{Kind: KindStack, Stack: &Stack{To: before}}}
	return nil
}

func inStack(m lesson.Element) InStack { return InStack{spotOf(m), m.Note.Stack} }

// stack gives where notes lie once they are one stack, or taken off theirs.
func (e *edit) stack(name string, marks []string) ([]InStack, error) {
	if err := e.spend(len(marks)); err != nil {
		return nil, err
	}
	if len(marks) == 0 {
		return nil, refusal.New(refusal.NoSuchMark)
	}
	var notes []lesson.Element
	for _, of := range marks {
		m, err := e.find(of)
		if err != nil {
			return nil, err
		}
		if !m.OnFrame() || m.Note == nil || original(m) {
			return nil, refusal.New(refusal.NoSuchMark)
		}
		notes = append(notes, m)
	}
	var to []InStack
	if name != "" {
		for i, m := range notes {
			n := *m.Note
			n.Stack = name
			notes[i].Note = &n
		}
		beneath := lesson.Beneath(notes)
		top := slices.IndexFunc(notes, func(m lesson.Element) bool { return !beneath[m.ID] })
		where := spotOf(notes[top])
		for _, m := range notes {
			spot := where
			spot.Mark = m.ID
			to = append(to, InStack{spot, name})
		}
		return to, nil
	}
	all, err := e.each(func(lesson.Element) bool { return true })
	if err != nil {
		return nil, err
	}
	beneath := lesson.Beneath(all)
	for _, m := range notes {
		n := *m.Note
		n.Stack = ""
		m.Note = &n
		if beneath[m.ID] {
			if err := e.free(&m); err != nil {
				return nil, err
			}
			// What is taken off next keeps clear of it.
			e.put(m, Step{})
		}
		to = append(to, inStack(m))
	}
	return to, nil
}

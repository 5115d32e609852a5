package sheet

import (
	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindSet changes properties of a mark.
const KindSet Kind = "set"

// Set changes some properties of a mark; those left out stay.
type Set struct {
	Mark string `json:"mark"`
	lesson.Properties
}

func (s *Set) right() right { return right{one: true} }

func (s *Set) check() error {
	if !id.IsPlain(s.Mark) || s.Group != nil && *s.Group != "" && !id.IsV7(*s.Group) {
		return refusal.New(refusal.BadID)
	}
	return nil
}

func (s *Set) do(e *edit) error {
	if piece, ok := e.unmoved(s.Mark); ok {
		return e.move(piece, *s)
	}
	m, err := e.mayChange(s.Mark)
	if err != nil {
		return err
	}
	if err := e.maySet(m, *s); err != nil {
		return err
	}
	// Just above or below what is there, so that nobody can take the last height.
	if z := s.Z; z != nil && (*z > e.top+MaxSteps+1 || *z < e.sheet.under-MaxSteps-1) {
		return refusal.About(refusal.BadSize, "place in the stack")
	}
	if err := e.spend(1 + pointsOf(m)/10); err != nil {
		return err
	}
	before, read := pointsOf(m), reads(m)
	m, back, err := m.Set(s.Properties)
	if err == nil {
		err = m.Check()
	}
	if err == nil {
		err = e.room(m, tally{points: pointsOf(m) - before})
	}
	if err != nil {
		return err
	}
	if reads(m) != read {
		e.awaits(&m)
	}
	e.changed(&m)
	e.put(m, Step{Kind: KindSet, Set: &Set{Mark: s.Mark, Properties: back}})
	return nil
}

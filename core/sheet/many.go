package sheet

import "alpenglow/core/refusal"

// KindMany does several steps as one.
const KindMany Kind = "many"

// MaxSteps is how many steps one operation may have.
const MaxSteps = 500

// Many does several steps as one: all of them or none. They may be add, set,
// remove and restore.
type Many struct {
	Steps []Step `json:"steps"`
}

func (m *Many) right() right { return right{} }

func (m *Many) check() error {
	if len(m.Steps) == 0 || len(m.Steps) > MaxSteps {
		return refusal.About(refusal.TooMany, "%d steps, at most %d", len(m.Steps), MaxSteps)
	}
	for i := range m.Steps {
		d, err := m.Steps[i].deed()
		if err != nil {
			return err
		}
		if !d.right().one {
			return refusal.About(refusal.Malformed, "this cannot be one of many steps")
		}
		if err := d.check(); err != nil {
			return err
		}
	}
	return nil
}

func (m *Many) do(e *edit) error {
	for i := range m.Steps {
		if err := e.spend(workPerStep); err != nil {
			return err
		}
		d, err := m.Steps[i].deed()
		if err == nil {
			err = d.do(e)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// workPerStep is what one small step counts; twenty of them are as much as one
// operation of a student's rate.
const workPerStep = workPerCharge / 20

// Package homework answers: until when may the work of a lesson that is left open be
// done, and how does each student stand with it?
//
// Times are in milliseconds since 1970, so that time zones and changes of the clock
// are nothing to them: a screen shows them as the clock of its place says.
package homework

import (
	"maps"

	"alpenglow/core/refusal"
)

// most is how far away a date may be: 366 days.
const most = 366 * 24 * 60 * 60 * 1000

// Homework is a lesson that is left open until a date. Since is when it was given.
type Homework struct {
	Since int64 `json:"since"`
	Until int64 `json:"until"`
	// Closes says that nothing may be changed after the date; without it, what comes late is marked.
	Closes bool `json:"closes,omitempty"`
	// Longer are the dates of those who have until another, by student.
	Longer map[string]int64 `json:"longer,omitempty"`
}

// Check reports a date that is not still to come, or too far away.
func Check(until, now int64) error {
	if until <= now || until > now+most {
		return refusal.New(refusal.DatePast)
	}
	return nil
}

// Due is until when a student has time.
func (h Homework) Due(student string) int64 {
	if longer, ok := h.Longer[student]; ok {
		return longer
	}
	return h.Until
}

// Over reports that a student may change nothing any more.
func (h *Homework) Over(student string, now int64) bool {
	return h != nil && h.Closes && now > h.Due(student)
}

// In gives when a student handed in, 0 for not: what was handed in before the homework was given is of one before it.
func (h *Homework) In(handed int64) int64 {
	if h == nil || handed < h.Since {
		return 0
	}
	return handed
}

// For gives one student another date; 0 gives them everybody's again.
func (h Homework) For(student string, until int64) *Homework {
	h.Longer = maps.Clone(h.Longer)
	delete(h.Longer, student)
	if until != 0 {
		if h.Longer == nil {
			h.Longer = map[string]int64{}
		}
		h.Longer[student] = until
	}
	return &h
}

// Of is the homework as one student may know it: their own date, and nobody else's.
func (h *Homework) Of(student string) *Homework {
	if h == nil {
		return nil
	}
	return &Homework{Since: h.Since, Until: h.Due(student), Closes: h.Closes}
}

// Same reports whether two are the same.
func (h *Homework) Same(o *Homework) bool {
	if h == nil || o == nil {
		return h == o
	}
	return h.Since == o.Since && h.Until == o.Until && h.Closes == o.Closes && maps.Equal(h.Longer, o.Longer)
}

// Stand says how a student stands with homework.
type Stand string

// Nothing done yet; at work; handed in, in time or late; and once the date is past, not handed
// in, with something done or nothing.
const (
	NotBegun   Stand = "not-begun"
	AtWork     Stand = "at-work"
	HandedIn   Stand = "handed-in"
	HandedLate Stand = "handed-late"
	NotHanded  Stand = "not-handed"
	Missing    Stand = "missing"
)

// Stands lists them.
var Stands = []Stand{NotBegun, AtWork, HandedIn, HandedLate, NotHanded, Missing}

// Stand says how a student stands who has handed in at a time, 0 for not, and has or has not done
// something.
func (h Homework) Stand(student string, handed int64, worked bool, now int64) Stand {
	due, handed := h.Due(student), h.In(handed)
	switch {
	case handed > due:
		return HandedLate
	case handed > 0:
		return HandedIn
	case now > due && worked:
		return NotHanded
	case now > due:
		return Missing
	case worked:
		return AtWork
	}
	return NotBegun
}

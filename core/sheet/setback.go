package sheet

import (
	"maps"
	"reflect"
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindSetBack sets the sheet back to how it was.
const KindSetBack Kind = "setBack"

// SetBack sets the sheet back to how it was after the change with the number To; what
// came since is removed, what was removed or changed since is as it was. Answers stay,
// and what the teacher has hidden or holds stays so. With Of, it gives those marks that
// one operation changed the state before it, as far as nobody else has changed them
// since: that takes setting back back.
//
// How it was is given by Given: a sheet in memory does not remember.
type SetBack struct {
	To int64  `json:"to,omitempty"`
	Of string `json:"of,omitempty"`

	then map[string]lesson.Element
	only []string
}

// Given gives an operation how the sheet was, its removed marks too, and with Of which
// marks that operation changed.
func (s *SetBack) Given(then []lesson.Element, only []string) {
	s.then, s.only = make(map[string]lesson.Element, len(then)), only
	for _, m := range then {
		s.then[m.ID] = m
	}
}

func (s *SetBack) right() right { return right{staff: true, inClass: true} }

func (s *SetBack) check() error {
	if (s.Of == "") != (s.To > 0) || s.To < 0 {
		return refusal.About(refusal.Malformed, "back to a number, or what an operation did")
	}
	if s.Of != "" {
		return id.V7(s.Of)
	}
	return nil
}

func (s *SetBack) do(e *edit) error {
	if s.then == nil {
		return refusal.About(refusal.Malformed, "nobody has said how it was")
	}
	ids := s.only
	if s.Of == "" {
		here, err := e.each(func(m lesson.Element) bool { return !m.IsAnswer() })
		if err != nil {
			return err
		}
		ids = slices.Collect(maps.Keys(s.then))
		for _, m := range here {
			if _, was := s.then[m.ID]; !was {
				ids = append(ids, m.ID)
			}
		}
	}
	if err := e.spend(len(ids)/8 + 1); err != nil {
		return err
	}
	slices.Sort(ids)
	changed := false
	for _, id := range ids {
		now, there := e.mark(id)
		then, was := s.then[id]
		switch {
		case there && now.IsAnswer() || was && then.IsAnswer():
			continue
		case s.Of != "" && (!there || now.LastBy() != e.actor.author()):
			continue
		case !was || s.Of == "" && !then.OnFrame():
			if !there || !now.OnFrame() {
				continue
			}
			e.remove(now)
		default:
			if s.Of == "" && there {
				then.Standing = stillAway(now, then)
			}
			if there && same(now, then) {
				continue
			}
			e.changed(&then)
			e.put(then, Step{})
		}
		changed = true
	}
	if !changed {
		return refusal.New(refusal.NoSuchMark)
	}
	if e.count.marks > MaxMarks || e.count.points > MaxPoints {
		return refusal.About(refusal.SheetFull, "%d marks", MaxMarks)
	}
	// One short step takes it back, however much it was.
	e.back = []Step{{Kind: KindSetBack, SetBack: &SetBack{Of: e.op.ID}}}
	return nil
}

// stillAway gives the standing of a mark as it was, unless it is out of the class's
// sight by now: then it stays so.
func stillAway(now, then lesson.Element) *lesson.Standing {
	for s := now.Standing; s != nil; s = s.Was {
		if s.Is == lesson.Hidden || s.Is == lesson.Held {
			return &lesson.Standing{Is: s.Is, By: s.By, At: s.At}
		}
	}
	return then.Standing
}

// same reports whether two marks are the same but for who changed them last.
func same(a, b lesson.Element) bool {
	a.By, b.By = "", ""
	return reflect.DeepEqual(a, b)
}

package sheet

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// agree notes that the actor agrees with somebody else's note, or takes that back.
func (e *edit) agree(a Agree) error {
	m, err := e.find(a.Mark)
	me := e.actor.author()
	switch {
	case err != nil:
		return err
	case !m.OnFrame() || m.Kind != lesson.KindNote:
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

// answer keeps one mark for each poll on the student's own sheet, with the
// poll's id as its own.
func (e *edit) answer(set SetAnswer) error {
	question, err := e.asked(set.Poll)
	if err != nil {
		return err
	}
	if e.rules.Polls[set.Poll] != poll.Open {
		return refusal.New(refusal.PollClosed)
	}
	m, answered := e.sheet.marks[set.Poll]
	back := SetAnswer{Poll: set.Poll}
	if answered && m.OnFrame() {
		back.Choice = m.Answer.Choice
	}
	undo := Step{Kind: KindAnswer, Answer: &back}
	if set.Choice == "" {
		if !answered {
			return refusal.New(refusal.NoSuchMark)
		}
		m.RemovedBy = e.actor.author()
		e.put(m, undo)
		return nil
	}
	if _, err := question.Poll.Choice(set.Choice); err != nil {
		return err
	}
	if !answered {
		m = lesson.Element{ID: set.Poll, Author: e.actor.author(), Z: e.top + 1, At: e.rules.Now}
	}
	m.RemovedBy = ""
	m.Body = lesson.Body{Kind: lesson.KindAnswer, Answer: &lesson.Answer{Poll: set.Poll, Choice: set.Choice}}
	e.put(m, undo)
	return nil
}

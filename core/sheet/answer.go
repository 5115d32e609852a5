package sheet

import (
	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// KindAnswer answers a poll.
const KindAnswer Kind = "answer"

// SetAnswer answers a poll; an empty choice takes the answer back. Answers lie
// on the student's own sheet, whoever shares the frame: one mark for each poll,
// with the poll's id as its own.
type SetAnswer struct {
	Poll   string `json:"poll"`
	Choice string `json:"choice"`
}

func (a *SetAnswer) right() right { return right{students: true, inClass: true, looking: true} }

func (a *SetAnswer) check() error {
	if a.Choice == "" {
		return id.Plain(a.Poll)
	}
	return id.Plain(a.Poll, a.Choice)
}

func (a *SetAnswer) do(e *edit) error {
	if e.sheet.Owner != e.actor.ID {
		return refusal.New(refusal.NoSuchSheet)
	}
	question, err := e.asked(a.Poll)
	if err != nil {
		return err
	}
	if e.terms.Polls[a.Poll] != poll.Open {
		return refusal.New(refusal.PollClosed)
	}
	m, answered := e.mark(a.Poll)
	if answered && !m.IsAnswer() {
		return refusal.New(refusal.MarkExists)
	}
	back := SetAnswer{Poll: a.Poll}
	if answered && m.OnFrame() {
		back.Choice = m.Answer.Choice
	}
	undo := Step{Kind: KindAnswer, Answer: &back}
	if a.Choice == "" {
		if !answered || !m.OnFrame() {
			return refusal.New(refusal.NoSuchMark)
		}
		m.Remove(e.actor.author(), e.terms.Now, e.op.ID)
		e.put(m, undo)
		return nil
	}
	if _, err := question.Poll.Choice(a.Choice); err != nil {
		return err
	}
	if !answered {
		m = lesson.Element{ID: a.Poll, Author: e.actor.author(), Z: e.top + 1}
	}
	m.Standing, m.At = nil, e.terms.Now
	m.Body = lesson.Body{Kind: lesson.KindAnswer, Answer: &lesson.Answer{Poll: a.Poll, Choice: a.Choice}}
	e.put(m, undo)
	return nil
}

package sheet

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// KindAnswer answers a poll.
const KindAnswer Kind = "answer"

// SetAnswer answers a poll in the round that it is in; without a value it takes
// the answer back. Answers lie on the student's own sheet, whoever shares the
// frame: one mark for each poll and round (poll.AnswerID).
type SetAnswer struct {
	Poll  string      `json:"poll"`
	Round int         `json:"round"`
	Value *poll.Value `json:"value,omitempty"`
	// Sure is whether the student is sure, where that is asked.
	Sure poll.Sureness `json:"sure,omitempty"`
	// Offline says that it was given without network.
	Offline bool `json:"offline,omitempty"`
}

func (a *SetAnswer) right() right { return right{students: true, inClass: true, looking: true} }

func (a *SetAnswer) check() error { return id.Plain(a.Poll) }

func (a *SetAnswer) do(e *edit) error {
	if e.sheet.Owner != e.actor.ID {
		return refusal.New(refusal.NoSuchSheet)
	}
	question, err := e.asked(a.Poll)
	if err != nil {
		return err
	}
	now := e.terms.Polls[a.Poll].At(e.terms.Now)
	if a.Round < 1 || a.Round > now.Round {
		return refusal.New(refusal.PollClosed)
	}
	at := poll.AnswerID(a.Poll, a.Round)
	late := now.Phase != poll.Open || a.Round < now.Round
	m, answered := e.mark(at)
	if answered && !m.IsAnswer() {
		return refusal.New(refusal.MarkExists)
	}
	// What comes too late is kept, and marked, where there is no answer that came in time.
	if late && (a.Value == nil || answered && m.OnFrame() && !m.Answer.Late) {
		if a.Round < now.Round {
			return refusal.New(refusal.RoundOver)
		}
		return refusal.New(refusal.PollClosed)
	}
	if e.handedIn(a.Round) {
		return refusal.New(refusal.HandedIn)
	}
	var before []poll.Value
	if answered && m.OnFrame() {
		var same bool
		if before, same, err = e.inSet(question.Poll.In(a.Round), *m.Answer, a.Value); err != nil {
			return err
		} else if same {
			return nil
		}
	}
	back := SetAnswer{Poll: a.Poll, Round: a.Round}
	if answered && m.OnFrame() {
		value := m.Answer.Value
		back.Value, back.Sure, back.Offline = &value, m.Answer.Sure, m.Answer.Offline
	}
	undo := Step{Kind: KindAnswer, Answer: &back}
	if a.Value == nil {
		if !answered || !m.OnFrame() {
			return refusal.New(refusal.NoSuchMark)
		}
		m.Remove(e.actor.author(), e.terms.Now, e.op.ID)
		e.put(m, undo)
		return nil
	}
	asked := question.Poll.In(a.Round)
	if err := asked.Takes(*a.Value); err != nil {
		return err
	}
	if !slices.Contains(poll.Surenesses, a.Sure) || a.Sure != "" && !asked.Sure {
		return refusal.About(refusal.Malformed, "it was not asked who is sure")
	}
	if !answered {
		m = lesson.Element{ID: at, Author: e.actor.author(), Z: e.top + 1}
	}
	m.Standing, m.At = nil, e.terms.Now
	m.Body = lesson.Body{Kind: lesson.KindAnswer, Answer: &lesson.Answer{
		Poll: a.Poll, Round: a.Round, Value: *a.Value, Before: before, Sure: a.Sure,
		Read: asked.Read(*a.Value), Late: late, Offline: a.Offline}}
	e.put(m, undo)
	return nil
}

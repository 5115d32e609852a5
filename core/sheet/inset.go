package sheet

import (
	"reflect"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// inSet decides an answer to a question of a set that follows another in time: what was
// answered before it, and whether it is the same answer once more, which costs no try.
func (e *edit) inSet(q poll.Question, was lesson.Answer, now *poll.Value) (before []poll.Value, same bool, err error) {
	set := e.terms.Frame.Set
	if set == nil || set.Feedback != lesson.FeedbackAtOnce || was.Late || q.Judge(was.Value).Verdict == poll.NoVerdict {
		return nil, false, nil
	}
	switch {
	case now != nil && reflect.DeepEqual(*now, was.Value):
		return was.Before, true, nil
	case now == nil || set.Final(q, was):
		return nil, false, refusal.New(refusal.AnswerFinal)
	}
	return append(append([]poll.Value{}, was.Before...), was.Value), false, nil
}

// KindHandIn hands in a set.
const KindHandIn Kind = "handIn"

// HandIn hands in the set of the sheet's frame, the Round-th time that it is asked: from then
// on its student learns what is right and changes no answer. It is not taken back.
type HandIn struct {
	Round int `json:"round"`
}

func (h *HandIn) right() right { return right{students: true, inClass: true, looking: true} }

func (h *HandIn) check() error { return nil }

func (h *HandIn) do(e *edit) error {
	frame := e.terms.Frame
	switch {
	case e.sheet.Owner != e.actor.ID:
		return refusal.New(refusal.NoSuchSheet)
	case !frame.Set.HandsIn() || h.Round < 1 || h.Round > frame.RoundOf(e.terms.Polls):
		return refusal.New(refusal.NoSuchSet)
	case h.Round < frame.RoundOf(e.terms.Polls):
		return refusal.New(refusal.RoundOver)
	case e.handedIn(h.Round):
		return refusal.New(refusal.HandedIn)
	}
	e.put(
		lesson.Element{ID: lesson.HandedID(frame.ID, h.Round), Author: e.actor.author(), Z: e.top + 1, At: e.terms.Now,
			Body: lesson.Body{Kind: lesson.KindHanded, Handed: &lesson.Handed{Round: h.Round}}},
		Step{Kind: KindMany, Many: &Many{}},
	)
	return nil
}

// handedIn reports whether the student whose sheet it is has handed in the set of a round.
func (e *edit) handedIn(round int) bool {
	_, is := e.mark(lesson.HandedID(e.terms.Frame.ID, round))
	return is && e.terms.Frame.Set.HandsIn()
}

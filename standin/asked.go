package standin

import (
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
)

// asked answers a question that is open: one that the student has not answered, now and then one
// that they have, and of a set one that is not right yet, as long as there are tries. Who is
// through with a set that is handed in does so.
func (s *student) asked(stage session.Stage) (sheet.Step, bool) {
	f := stage.Frame
	through := len(f.Polls()) > 0
	for _, q := range f.Polls() {
		at := stage.Polls[q.ID]
		if at.Phase != poll.Open {
			through = false
			continue
		}
		first := s.answered[q.ID] < at.Round
		if !first && !s.again(f, q) {
			continue
		}
		if first {
			s.tries[q.ID] = 0
		}
		s.tries[q.ID]++
		s.answered[q.ID] = at.Round
		value, sure := s.answer(q, at.Round+s.tries[q.ID]-1)
		s.right[q.ID] = s.judge(q, value) == poll.Right
		return sheet.Step{Kind: sheet.KindAnswer,
			Answer: &sheet.SetAnswer{Poll: q.ID, Round: at.Round, Value: &value, Sure: sure}}, true
	}
	round := f.RoundOf(stage.Polls)
	if !f.Set.HandsIn() || !through || s.answered[f.ID] >= round || s.random.IntN(4) > 0 {
		return sheet.Step{}, false
	}
	s.answered[f.ID] = round
	return sheet.Step{Kind: sheet.KindHandIn, HandIn: &sheet.HandIn{Round: round}}, true
}

// again reports whether a student answers a question once more.
func (s *student) again(f lesson.Frame, q lesson.Element) bool {
	switch {
	case f.Set == nil:
		return s.random.IntN(25) == 0
	case f.Set.Feedback == lesson.FeedbackAtOnce:
		return !s.right[q.ID] && s.tries[q.ID] < f.Set.Most() && s.random.IntN(2) == 0
	}
	return false
}

// judge gives what a student is told of an answer.
func (s *student) judge(q lesson.Element, value poll.Value) poll.Verdict {
	if full, known := s.Asked[q.ID]; known {
		return full.Judge(value).Verdict
	}
	return poll.NoVerdict
}

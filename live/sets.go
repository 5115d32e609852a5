package live

import (
	"context"

	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
)

// setOf gives how a frame's set stands, by what is known of the answers; false of a frame
// that has none or that the class has not reached.
func (r *running) setOf(state session.State, board *edition, frame string) (outcome.Set, bool) {
	f, _, err := board.Frame(frame)
	if err != nil || f.Set == nil || f.RoundOf(state.Polls) == 0 {
		return outcome.Set{}, false
	}
	var takers []outcome.Taker
	r.mu.RLock()
	for _, student := range r.order {
		if state.Seated(student) {
			takers = append(takers, outcome.Taker{Student: student, Group: state.GroupOf(student),
				Here: r.people[student].connections > 0})
		}
	}
	r.mu.RUnlock()
	k := &r.know
	k.mu.Lock()
	defer k.mu.Unlock()
	for i := range takers {
		t := &takers[i]
		t.Given = map[string]outcome.Taken{}
		_, t.Handed = k.handed[on{t.Student, lesson.HandedID(frame, f.RoundOf(state.Polls))}]
		for _, a := range k.assess(on{t.Student, frame}, board) {
			if a.is && a.Round == state.Polls[a.Poll].Round {
				t.Given[a.Poll] = outcome.Taken{Answer: a.Answer, Verdict: a.as.Verdict}
			}
		}
	}
	return outcome.SetOf(f, state.Polls, takers), true
}

// verdict tells a student what is thought of their own answer, and what is right, as far as
// the teacher or the set lets them know.
func (h *Hub) verdict(ctx context.Context, s seat, ask AskVerdict) (any, error) {
	at, state, frame, err := h.ownSheet(ctx, s, ask.Sheet)
	if err != nil {
		return nil, err
	}
	question, err := frame.Poll(ask.Poll)
	if err != nil {
		return nil, err
	}
	if state.Polls[ask.Poll].Round != ask.Round {
		return nil, refusal.New(refusal.NotYours)
	}
	var told Verdict
	tells := false
	if err := at.with(func(on *sheet.Sheet) { told, tells = verdictOn(on, frame, state, question) }); err != nil {
		return nil, err
	}
	if !tells {
		return nil, refusal.New(refusal.NotYours)
	}
	return told, nil
}

// questionsPerRead is how many questions are judged at the cost of one read.
const questionsPerRead = 20

// results tells a student what is thought of all their answers to a frame's questions, as far
// as they may know.
func (h *Hub) results(ctx context.Context, s seat, ask AskResults) (any, error) {
	at, state, frame, err := h.ownSheet(ctx, s, ask.Sheet)
	if err != nil {
		return nil, err
	}
	// Many questions take as long as many reads.
	if !s.may(len(frame.Polls()) / questionsPerRead) {
		return nil, refusal.New(refusal.TooMany)
	}
	all := Results{Verdicts: map[string]Verdict{}}
	err = at.with(func(on *sheet.Sheet) {
		for _, question := range frame.Polls() {
			told, tells := verdictOn(on, frame, state, question)
			if !tells {
				continue
			}
			all.Verdicts[question.ID] = told
			if question.Poll.HasRight() {
				all.Of++
			}
			switch told.Verdict {
			case poll.Right:
				all.Right++
			case poll.Partly:
				all.Partly++
			}
		}
	})
	return all, err
}

// ownSheet finds a student's own sheet of a frame that is open, with the frame as the class
// may see it.
func (h *Hub) ownSheet(ctx context.Context, s seat, id string) (*held, session.State, lesson.Frame, error) {
	at, err := h.hold(ctx, id)
	if err != nil {
		return nil, session.State{}, lesson.Frame{}, err
	}
	state, board := s.session.snapshot()
	if at.key.Session != s.session.kept.ID || at.key.Owner != s.actor.ID || !state.IsOpen(at.key.Frame) {
		return nil, state, lesson.Frame{}, refusal.New(refusal.NoSuchSheet)
	}
	frame, _, err := board.Frame(at.key.Frame)
	return at, state, state.AsAsked(frame.ForClass(state.Lifted)), err
}

// verdictOn gives what a student may learn of an answer on their own sheet; false of nothing.
func verdictOn(on *sheet.Sheet, f lesson.Frame, state session.State, question lesson.Element) (Verdict, bool) {
	now := state.Polls[question.ID]
	var answer *lesson.Answer
	m, ok := on.Mark(poll.AnswerID(question.ID, now.Round))
	if ok && m.OnFrame() && m.Kind == lesson.KindAnswer {
		answer = m.Answer
	}
	_, handedIn := on.Mark(lesson.HandedID(f.ID, f.RoundOf(state.Polls)))
	verdict, right := f.Set.Tells(*question.Poll, now, answer, handedIn)
	var told Verdict
	if verdict && answer != nil {
		j := question.Poll.Judge(answer.Value)
		told = Verdict{Verdict: j.Verdict, Reason: j.Reason, Share: j.Share, Tries: len(answer.Before) + 1}
		if f.Set.Most() > 1 {
			told.Left = max(0, f.Set.Most()-1-len(answer.Before))
		}
	}
	if right {
		told.Right, told.Why, told.Left = question.Poll.Right(), question.Poll.Why, 0
	}
	return told, verdict
}

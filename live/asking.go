package live

import (
	"cmp"
	"slices"
	"time"

	"alpenglow/core/outcome"
	"alpenglow/core/poll"
)

// outcomeEvery is how often at most the staff is told what answers say.
const outcomeEvery = 200 * time.Millisecond

// restful gives when something is computed again that took so long the last time: at most
// every so often, and so that most of the time goes to others.
func restful(every, took time.Duration) time.Duration { return max(every, 9*took) }

// hear lets the staff be told soon what answers say that have changed, if any of them is here.
func (h *Hub) hear(r *running) {
	r.mu.RLock()
	staff := r.staff
	r.mu.RUnlock()
	k := &r.know
	k.mu.Lock()
	defer k.mu.Unlock()
	if staff == 0 || k.hears || len(k.asked) == 0 {
		return
	}
	k.hears = true
	time.AfterFunc(restful(outcomeEvery, k.took), func() { h.guard("outcome", func() { h.tellOutcomes(r) }) })
}

func (h *Hub) tellOutcomes(r *running) {
	k := &r.know
	k.mu.Lock()
	k.hears = false
	asked := k.asked
	k.asked = map[string]string{}
	k.mu.Unlock()
	began := time.Now()
	all := []outcome.Outcome{}
	frames := map[string]bool{}
	for id, frame := range asked {
		frames[frame] = true
		if o, ok := r.outcome(frame, id); ok {
			o.Answers = confident(o.Answers)
			all = append(all, o)
		}
	}
	var sets []outcome.Set
	state, board := r.snapshot()
	for frame := range frames {
		if set, ok := r.setOf(state, board, frame); ok {
			set.Rows = nil
			sets = append(sets, set)
		}
	}
	k.mu.Lock()
	k.took = time.Since(began)
	k.mu.Unlock()
	if len(all)+len(sets) == 0 {
		return
	}
	slices.SortFunc(all, func(a, b outcome.Outcome) int { return cmp.Compare(a.Poll, b.Poll) })
	h.tell(r, telling{[]string{staffChannel(r.kept.ID)}, News{Kind: NewsOutcome, Outcome: &Outcomes{all, sets}}})
}

// confident lists who is sure and wrong, without what they said.
func confident(answers []outcome.Answer) []outcome.Answer {
	who := []outcome.Answer{}
	for _, a := range answers {
		if a.Verdict == poll.Wrong && a.Sure == poll.Sure && !a.Late {
			who = append(who, outcome.Answer{Student: a.Student, Value: poll.Value{Kind: a.Value.Kind}, Sure: a.Sure,
				Judgement: poll.Judgement{Verdict: a.Verdict}})
		}
	}
	return who
}

// outcomes gives what the answers to all questions of a frame say.
func (h *Hub) outcomes(r *running, ask AskOutcome) (any, error) {
	state, board := r.snapshot()
	frame, _, err := board.Frame(ask.Frame)
	if err != nil {
		return nil, err
	}
	all := []outcome.Outcome{}
	for _, p := range frame.Polls() {
		if o, ok := r.outcome(frame.ID, p.ID); ok {
			all = append(all, o)
		}
	}
	told := Outcomes{Outcomes: all}
	if set, ok := r.setOf(state, board, frame.ID); ok {
		told.Sets = []outcome.Set{set}
	}
	return told, nil
}

// outcome computes what the answers to a question say; false of one that was not asked.
func (r *running) outcome(frame, id string) (outcome.Outcome, bool) {
	state, board := r.snapshot()
	at, asked := state.Polls[id]
	f, _, err := board.Frame(frame)
	if err != nil || !asked {
		return outcome.Outcome{}, false
	}
	mark, err := f.Poll(id)
	if err != nil {
		return outcome.Outcome{}, false
	}
	var here []outcome.Present
	r.mu.RLock()
	students := slices.Clone(r.order)
	for _, student := range students {
		p := r.people[student]
		if !state.Seated(student) {
			continue
		}
		present := outcome.Present{Student: student, Since: p.since}
		if p.connections == 0 {
			present.Left = p.turned
		}
		here = append(here, present)
	}
	r.mu.RUnlock()
	bands := outcome.UsualBands
	if state.Bands != nil {
		bands = state.Bands.Or()
	}
	given := r.given(students, board, frame, id)
	if before, is := state.Polls[mark.Poll.InsteadOf]; is && at.Round == 1 {
		for _, g := range r.given(students, board, frame, mark.Poll.InsteadOf) {
			if g.Round == before.Round {
				g.Round = 0
				given = append(given, g)
			}
		}
	}
	return outcome.Of(id, *mark.Poll, at, given, here, bands, now()), true
}

// given lists the answers of some students to a question, in all its rounds.
func (r *running) given(students []string, board *edition, frame, id string) []outcome.Given {
	var given []outcome.Given
	k := &r.know
	k.mu.Lock()
	defer k.mu.Unlock()
	for _, student := range students {
		for _, a := range k.assess(on{student, frame}, board) {
			if a.is && a.Poll == id {
				given = append(
					given,
					outcome.Given{Student: student, Round: a.Round, Assessed: a.as, Sure: a.Sure, At: a.at,
						Late: a.Late, Offline: a.Offline},
				)
			}
		}
	}
	return given
}

// saidTo gives for the students who are here what they answered to a question in the round
// that it is in, as something to compare by.
func (r *running) saidTo(id string) map[string]string {
	state, board := r.snapshot()
	said := map[string]string{}
	var students []string
	r.mu.RLock()
	for _, student := range r.order {
		if r.people[student].connections > 0 {
			students = append(students, student)
			said[student] = ""
		}
	}
	r.mu.RUnlock()
	for _, f := range board.Frames {
		for _, g := range r.given(students, board, f.ID, id) {
			if g.Round == state.Polls[id].Round && !g.Late {
				// Who are wrong in the same known way think alike; so do all who are right.
				said[g.Student] = cmp.Or(g.Mistake, onlyRight(g.Judgement), g.Says)
			}
		}
	}
	return said
}

func onlyRight(j poll.Judgement) string {
	if j.Verdict == poll.Right {
		return string(poll.Right)
	}
	return ""
}

// Package outcome answers: what do the answers to a question say, who is to be asked
// about them, and what might a teacher do next?
package outcome

import (
	"cmp"
	"slices"

	"alpenglow/core/measure"
	"alpenglow/core/poll"
)

// Given is one student's answer in a round, as the question has assessed it; in round 0 that to the
// question in whose place this one is asked.
type Given struct {
	Student string
	Round   int
	poll.Assessed
	Sure    poll.Sureness
	At      int64 // milliseconds since 1970, when it was given or changed last
	Late    bool
	Offline bool
}

// Present is a student who could answer: since when, and until when if they left.
type Present struct {
	Student string
	Since   int64
	Left    int64 // 0 while they are here
}

// Outcome is what the answers to a question say in one round.
type Outcome struct {
	Poll  string `json:"poll"`
	Round int    `json:"round"`
	poll.Tally
	// Of is how many were asked: all who are here or have answered. Waiting are those of
	// them who have not.
	Of      int      `json:"of"`
	Waiting []string `json:"waiting"`
	// Late counts answers that came too late and count nowhere, Offline those in time that
	// were given without network.
	Late    int `json:"late"`
	Offline int `json:"offline"`
	// HalfMS is by when half had answered, in milliseconds since it was asked, by an
	// estimate that counts those without an answer; nil where fewer have.
	HalfMS *int64 `json:"halfMs,omitempty"`
	// Percent is the whole percents of right, partly and wrong, which sum to 100.
	Percent []int    `json:"percent,omitempty"`
	Sure    *Sure    `json:"sure,omitempty"`
	Next    *Advised `json:"next,omitempty"`
	Moved   *Moved   `json:"moved,omitempty"`
	// Answers are all answers, first those that are sure and wrong, then the other wrong ones.
	Answers []Answer `json:"answers"`
}

// Answer is one student's answer, with what is thought of it.
type Answer struct {
	Student string     `json:"student"`
	Value   poll.Value `json:"value"`
	Says    string     `json:"says"`
	poll.Judgement
	Sure    poll.Sureness `json:"sure,omitempty"`
	At      int64         `json:"at"`
	Late    bool          `json:"late,omitempty"`
	Offline bool          `json:"offline,omitempty"`
}

// Sure counts answers by whether students are sure and whether they are right.
type Sure struct {
	SureRight   int `json:"sureRight"`
	SureWrong   int `json:"sureWrong"`
	UnsureRight int `json:"unsureRight"`
	UnsureWrong int `json:"unsureWrong"`
}

// Of gives what the answers to a question say in the round that its state names; now is the
// time, in milliseconds since 1970.
func Of(id string, q poll.Question, state poll.State, given []Given, here []Present, bands Bands, now int64) Outcome {
	state = state.At(now)
	o := Outcome{Poll: id, Round: state.Round, Waiting: []string{}, Answers: []Answer{}}
	inTime := map[string]Given{}
	for _, g := range inRound(given, state.Round) {
		o.Answers = append(o.Answers, Answer{g.Student, g.Value, g.Says, g.Judgement, g.Sure, g.At, g.Late, g.Offline})
		switch {
		case g.Late:
			o.Late++
		case g.Offline:
			o.Offline++
		}
		if !g.Late {
			inTime[g.Student] = g
		}
	}
	slices.SortStableFunc(o.Answers, func(a, b Answer) int {
		return cmp.Or(cmp.Compare(a.place(), b.place()), cmp.Compare(a.Student, b.Student))
	})
	var all []poll.Assessed
	for _, g := range inTime {
		all = append(all, g.Assessed)
	}
	o.Tally = q.TallyOf(all)
	o.Of = len(inTime)
	for _, p := range here {
		if _, answered := inTime[p.Student]; !answered && p.Left == 0 {
			o.Waiting = append(o.Waiting, p.Student)
			o.Of++
		}
	}
	slices.Sort(o.Waiting)
	o.half(state, inTime, here, now)
	if v := o.Verdicts; v != nil {
		o.Percent = measure.Percent([]int{v.Right, v.Partly, v.Wrong})
		o.Next = bands.Advise(v.Right, o.Answered)
	}
	if q.Sure {
		o.Sure = &Sure{}
		for _, a := range o.Answers {
			o.Sure.count(a)
		}
	}
	if state.Round > 1 || len(inRound(given, 0)) > 0 {
		o.Moved = moved(q.HasRight(), given, state.Round)
	}
	return o
}

// inRound lists the answers of a round.
func inRound(given []Given, round int) []Given {
	return slices.DeleteFunc(slices.Clone(given), func(g Given) bool { return g.Round != round })
}

// place: who is sure and wrong comes first, late answers last.
func (a Answer) place() int {
	switch {
	case a.Late:
		return 5
	case a.Verdict == poll.Wrong && a.Sure == poll.Sure:
		return 0
	case a.Verdict == poll.Wrong:
		return 1
	case a.Verdict == poll.Partly:
		return 2
	case a.Sure == poll.Unsure:
		return 3
	}
	return 4
}

func (s *Sure) count(a Answer) {
	right := a.Verdict == poll.Right
	switch {
	case a.Late || a.Verdict == poll.NoVerdict || a.Sure == poll.NotAsked:
	case a.Sure == poll.Sure && right:
		s.SureRight++
	case a.Sure == poll.Sure:
		s.SureWrong++
	case right:
		s.UnsureRight++
	default:
		s.UnsureWrong++
	}
}

// half computes by when half had answered. Who came after it was asked is counted from
// then; who left without an answer, until then.
func (o *Outcome) half(state poll.State, inTime map[string]Given, here []Present, now int64) {
	end := now
	if state.ClosedAt > 0 {
		end = state.ClosedAt
	}
	since := map[string]int64{}
	var waits []measure.Wait
	for _, p := range here {
		since[p.Student] = p.Since
		if _, answered := inTime[p.Student]; !answered {
			until := end
			if p.Left > 0 {
				until = min(end, p.Left)
			}
			if from := max(p.Since, state.OpenedAt); until > from {
				waits = append(waits, measure.Wait{For: until - from})
			}
		}
	}
	for _, g := range inTime {
		waits = append(waits, measure.Wait{For: max(0, g.At-max(since[g.Student], state.OpenedAt)), Answered: true})
	}
	if at, reached := measure.Reached(measure.Waiting(waits), .5); reached {
		o.HalfMS = &at
	}
}

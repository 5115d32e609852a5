package outcome

import (
	"cmp"
	"slices"

	"alpenglow/core/measure"
	"alpenglow/core/poll"
)

// Moved is how the same students answered before and after: those who answered in both
// rounds, in time.
type Moved struct {
	Of    int    `json:"of"`
	Flows []Flow `json:"flows"`
	// Learned is how many came from wrong to right, Lost from right to wrong, Kept stayed
	// right; nothing is counted where nothing is right.
	Kept    int `json:"kept"`
	Learned int `json:"learned"`
	Lost    int `json:"lost"`
	// Chance is how likely it is that at least so uneven a change comes by chance alone
	// (McNemar's exact test).
	Chance *float64 `json:"chance,omitempty"`
	// ClassGain is what the class gained of what it could (Hake), with its band; MeanGain
	// the mean of the students' own gains, and of how many: who was right before has none.
	ClassGain *float64     `json:"classGain,omitempty"`
	Band      measure.Band `json:"band,omitempty"`
	MeanGain  *float64     `json:"meanGain,omitempty"`
	MeanOf    int          `json:"meanOf,omitempty"`
}

// Flow is how many went from one answer to another.
type Flow struct {
	From  End `json:"from"`
	To    End `json:"to"`
	Count int `json:"count"`
}

// End is what answers are taken together as: an option, or else whether they are right,
// and by which mistake not.
type End struct {
	Key     string       `json:"key"`
	Text    string       `json:"text"`
	Verdict poll.Verdict `json:"verdict,omitempty"`
}

// end gives what an answer is taken together with; of other questions, what is thought of it.
func end(a poll.Assessed, other bool) End {
	switch {
	case other && a.Verdict == poll.NoVerdict:
		return End{}
	case other:
		return End{string(a.Verdict) + " " + a.Mistake, a.Mistake, a.Verdict}
	case a.Value.Choice != nil:
		return End{a.Value.Choice.Option, a.Says, a.Verdict}
	case a.Value.Truth != nil || a.Value.Scale != nil:
		return End{a.Says, a.Says, a.Verdict}
	case a.Verdict == poll.NoVerdict:
		return End{}
	}
	return End{string(a.Verdict) + " " + a.Mistake, a.Mistake, a.Verdict}
}

// moved compares a round with the one before it; judged says that something is right.
func moved(judged bool, given []Given, round int) *Moved {
	other := round == 1 // the round before it is another question's
	m := Moved{Flows: []Flow{}}
	last := map[string]Given{}
	for _, g := range inRound(given, round-1) {
		if !g.Late {
			last[g.Student] = g
		}
	}
	flows := map[[2]End]int{}
	var before, after []float64
	for _, g := range inRound(given, round) {
		was, both := last[g.Student]
		if !both || g.Late {
			continue
		}
		m.Of++
		flows[[2]End{end(was.Assessed, other), end(g.Assessed, other)}]++
		before, after = append(before, whole(was.Judgement)), append(after, whole(g.Judgement))
		switch a, b := was.Verdict == poll.Right, g.Verdict == poll.Right; {
		case a && b:
			m.Kept++
		case b:
			m.Learned++
		case a:
			m.Lost++
		}
	}
	for ends, n := range flows {
		m.Flows = append(m.Flows, Flow{ends[0], ends[1], n})
	}
	slices.SortFunc(m.Flows, func(a, b Flow) int {
		return cmp.Or(
			cmp.Compare(b.Count, a.Count),
			cmp.Compare(a.From.Key, b.From.Key),
			cmp.Compare(a.To.Key, b.To.Key),
		)
	})
	if judged && m.Of > 0 {
		m.gained(before, after)
	}
	return &m
}

// whole: of one question an answer is right or not.
func whole(j poll.Judgement) float64 {
	if j.Verdict == poll.Right {
		return 1
	}
	return 0
}

func (m *Moved) gained(before, after []float64) {
	chance, _ := measure.McNemar(m.Lost, m.Learned)
	m.Chance = &chance
	mean := func(of []float64) float64 {
		sum := 0.
		for _, x := range of {
			sum += x
		}
		return sum / float64(len(of))
	}
	if gain, ok := measure.ClassGain(mean(before), mean(after)); ok {
		m.ClassGain, m.Band = &gain, measure.BandOf(gain)
	}
	if gain, of := measure.MeanGain(before, after); of > 0 {
		m.MeanGain, m.MeanOf = &gain, of
	}
}

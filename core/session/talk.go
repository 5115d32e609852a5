package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/pairs"
	"alpenglow/core/refusal"
)

// KindTalk lets neighbours talk about a question.
const KindTalk CommandKind = "talk"

// SetTalk pairs neighbours who answered a question differently, as many as can be, and shows
// everybody with whom to talk; with no question it is over.
type SetTalk struct {
	Poll string `json:"poll,omitempty"`
}

// Talk is who talks with whom about a question: by ids, with those who found nobody.
type Talk struct {
	Poll   string     `json:"poll"`
	Groups [][]string `json:"groups"`
	Alone  []string   `json:"alone,omitempty"`
}

// maxTalked is how many pairs are remembered, so that they do not come together again.
const maxTalked = 450

func (c *SetTalk) do(s *State, _ lesson.Board, with With) error {
	if c.Poll == "" {
		s.Talk = nil
		return nil
	}
	if _, reached := s.Polls[c.Poll]; !reached {
		return refusal.New(refusal.NoSuchPoll)
	}
	class := pairs.Class{Near: s.near(with), Before: s.Talked}
	for _, pair := range with.Plan.Apart {
		class.Apart = append(class.Apart, [2]string(pair))
	}
	for _, id := range s.seated(with.Students) {
		if answer, here := with.Said[id]; here {
			class.Students = append(class.Students, pairs.Student{ID: id, Answer: answer})
		}
	}
	made := pairs.Make(class)
	s.Talk = &Talk{Poll: c.Poll, Groups: made.Groups, Alone: made.Alone}
	talked := slices.Clone(s.Talked)
	for _, g := range made.Groups {
		for i, a := range g {
			for _, b := range g[:i] {
				talked = append(talked, [2]string{b, a})
			}
		}
	}
	s.Talked = talked[max(0, len(talked)-maxTalked):]
	return nil
}

// near says who can talk: who sit side by side, before or behind each other, also across;
// without seats those of one group; anybody where there are no groups either. Who has no
// seat, or no group, may talk with anybody.
func (s State) near(with With) func(a, b string) bool {
	seats := with.Plan.Seats
	if seats.Columns > 0 && len(seats.Seated()) > 0 {
		at := map[string][2]int{}
		for i, id := range seats.At {
			if id != "" {
				at[id] = [2]int{i % seats.Columns, i / seats.Columns}
			}
		}
		return func(a, b string) bool {
			x, seatedA := at[a]
			y, seatedB := at[b]
			return !seatedA || !seatedB || max(x[0]-y[0], y[0]-x[0]) <= 1 && max(x[1]-y[1], y[1]-x[1]) <= 1
		}
	}
	if len(s.Groups) > 0 {
		return func(a, b string) bool {
			x, y := s.GroupOf(a), s.GroupOf(b)
			return x == 0 || y == 0 || x == y
		}
	}
	return nil
}

// TalksWith lists with whom a student talks, and says whether anybody talks at all.
func (s State) TalksWith(student string) ([]string, bool) {
	if s.Talk == nil {
		return nil, false
	}
	for _, g := range s.Talk.Groups {
		if slices.Contains(g, student) {
			return without(g, []string{student}), true
		}
	}
	return []string{}, true
}

package poll

import (
	"slices"
	"strings"

	"alpenglow/core/refusal"
)

// KindSeveral asks to choose all answers that fit.
const KindSeveral Kind = "several"

// Several is a question that offers answers: any number of them is chosen.
type Several struct {
	Options []Option `json:"options"`
}

// Picked is an answer to it: at least one of the options.
type Picked struct {
	Options []string `json:"options"`
}

func (s *Several) of() options { return s.Options }

func (s *Several) body(o options) Body { return Body{Kind: KindSeveral, Several: &Several{o}} }

func (s *Several) check() error       { return s.of().check(2, MaxOptions) }
func (s *Several) words() []string    { return s.of().words() }
func (s *Several) pictures() []string { return s.of().pictures() }
func (s *Several) bare() Body         { return s.body(s.of().bare()) }
func (s *Several) nameless() Body     { return s.body(s.of().nameless()) }
func (s *Several) right() string      { return s.of().right() }

func (s *Several) shown(rename func(string) string) Body { return s.body(s.of().shown(rename)) }

func (s *Several) takes(v Value) error {
	if len(v.Several.Options) == 0 {
		return refusal.New(refusal.AnswerEmpty)
	}
	seen := map[string]bool{}
	for _, one := range v.Several.Options {
		if s.of().at(one) < 0 || seen[one] {
			return refusal.New(refusal.NoSuchChoice)
		}
		seen[one] = true
	}
	return nil
}

// judge: each right one that was chosen counts, each wrong one takes one of them away.
func (s *Several) judge(v Value) Judgement {
	rights, hits, mistake := 0, 0, ""
	for _, one := range s.Options {
		chosen := slices.Contains(v.Several.Options, one.ID)
		switch {
		case one.Right && chosen:
			rights++
			hits++
		case one.Right:
			rights++
		case chosen:
			hits--
			if mistake == "" {
				mistake = one.Mistake
			}
		}
	}
	if rights == 0 {
		return Judgement{}
	}
	return part(hits, rights, mistake)
}

func (s *Several) says(v Value) string {
	var words []string
	for _, one := range s.Options {
		if slices.Contains(v.Several.Options, one.ID) {
			words = append(words, one.Text)
		}
	}
	return strings.Join(words, ", ")
}

func (s *Several) chart(values []Value, _ []Judgement) Chart {
	counts := map[string]int{}
	for _, v := range values {
		for _, one := range v.Several.Options {
			counts[one]++
		}
	}
	return s.of().bars(func(option string) int { return counts[option] })
}

package poll

import (
	"slices"
	"strings"

	"alpenglow/core/prose"
	"alpenglow/core/refusal"
	"alpenglow/core/spelling"
)

// KindShort asks for a short text.
const KindShort Kind = "short"

// Bounds of texts that are asked for: how many characters a short one may have, how many
// of them are accepted, and how many slips are forgiven at most.
const (
	MaxShort    = 200
	MaxAccepted = 20
	MaxTexts    = 60 // with those of known mistakes
	MaxSlips    = 3
)

// Short is a question for a short text. Accepted are all that are right, none where that is
// a matter of opinion; Slips is how many slips of spelling are forgiven.
type Short struct {
	Accepted []string      `json:"accepted,omitempty"`
	Slips    int           `json:"slips,omitempty"`
	WithCase bool          `json:"withCase,omitempty"`
	Mistakes []TextMistake `json:"mistakes,omitempty"`
}

// TextMistake is a known wrong answer: any of some texts.
type TextMistake struct {
	Name  string   `json:"name"`
	Texts []string `json:"texts"`
}

func (s *Short) check() error {
	if s.Slips < 0 || s.Slips > MaxSlips {
		return refusal.About(refusal.Malformed, "at most %d slips are forgiven", MaxSlips)
	}
	return checkTexts(s.Accepted, s.Mistakes)
}

// checkTexts reports what is wrong with accepted texts and known mistakes.
func checkTexts(accepted []string, mistakes []TextMistake) error {
	if len(mistakes) > MaxMistakes {
		return refusal.About(refusal.BoardIncorrect, "at most %d known mistakes", MaxMistakes)
	}
	lists, all := [][]string{accepted}, len(accepted)
	for _, m := range mistakes {
		all += len(m.Texts)
		if err := checkName(m.Name); err != nil {
			return err
		}
		lists = append(lists, m.Texts)
	}
	if all > MaxTexts {
		return refusal.About(refusal.BoardIncorrect, "at most %d texts are right or known mistakes", MaxTexts)
	}
	for _, list := range lists {
		if len(list) > MaxAccepted {
			return refusal.About(refusal.BoardIncorrect, "at most %d texts are accepted", MaxAccepted)
		}
		for _, text := range list {
			if err := checkWritten(text, MaxShort); err != nil {
				return err
			}
		}
	}
	return nil
}

// checkWritten refuses what somebody wrote if there is nothing to read in it, and what
// would garble a page.
func checkWritten(text string, limit int) error {
	if prose.IsBlank(spelling.Plain(text)) {
		return refusal.New(refusal.AnswerEmpty)
	}
	return prose.Check(text, limit)
}

func (s *Short) words() []string                { return nil }
func (s *Short) pictures() []string             { return nil }
func (s *Short) shown(func(string) string) Body { return Body{Kind: KindShort, Short: s} }
func (s *Short) bare() Body                     { return Body{Kind: KindShort, Short: &Short{}} }
func (s *Short) nameless() Body {
	c := *s
	c.Mistakes = nil
	return Body{Kind: KindShort, Short: &c}
}
func (s *Short) right() string { return strings.Join(s.Accepted, " / ") }

func (s *Short) takes(v Value) error { return checkWritten(v.Short.Text, MaxShort) }

func (s *Short) judge(v Value) Judgement {
	if len(s.Accepted) == 0 {
		return Judgement{}
	}
	return judgeText(v.Short.Text, s.Accepted, s.Mistakes, s.Slips, s.WithCase)
}

// judgeText: what is right without slips is that; a known mistake comes before what is
// right but for slips, so that a word that is nearly right and another word is that other.
func judgeText(text string, accepted []string, mistakes []TextMistake, slips int, withCase bool) Judgement {
	given := spelling.Read(text, withCase)
	read := func(all []string) []spelling.Text {
		texts := make([]spelling.Text, len(all))
		for i, one := range all {
			texts[i] = spelling.Read(one, withCase)
		}
		return texts
	}
	is := func(all []spelling.Text, slips int) bool {
		return slices.ContainsFunc(all, func(one spelling.Text) bool { return one.Accepts(given, slips) })
	}
	right := read(accepted)
	if is(right, 0) {
		return whole(true, "")
	}
	wrong := make([][]spelling.Text, len(mistakes))
	for i, m := range mistakes {
		if wrong[i] = read(m.Texts); is(wrong[i], 0) {
			return whole(false, m.Name)
		}
	}
	if slips > 0 && is(right, slips) {
		return Judgement{Verdict: Right, Share: 1, Reason: Slips}
	}
	for i, m := range mistakes {
		if slips > 0 && is(wrong[i], slips) {
			return whole(false, m.Name)
		}
	}
	return whole(false, "")
}

func (s *Short) says(v Value) string { return v.Short.Text }

func (s *Short) chart(values []Value, judged []Judgement) Chart {
	written, as := make([]string, len(values)), map[string]Judgement{}
	for i, v := range values {
		written[i] = v.Short.Text
		as[v.Short.Text] = judged[i]
	}
	return textsChart(written, func(text string) Judgement { return as[text] })
}

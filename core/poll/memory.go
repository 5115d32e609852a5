package poll

import (
	"fmt"

	"alpenglow/core/refusal"
	"alpenglow/core/spelling"
)

// KindMemory is a game: cards lie face down, and what belongs together is found by turning
// two at a time.
const KindMemory Kind = "memory"

// Bounds of a game: its pairs, and how often two cards are turned.
const (
	LeastCards = 2
	MostCards  = 12
	MaxTurns   = 999
)

// Memory is a game for fun: nothing in it is right or wrong, and nobody is before another.
// What belongs together is with the class from the beginning, so that cards turn without a
// network; what ought to stay unknown is asked with pairs to match.
type Memory struct {
	Pairs []CardPair `json:"pairs"`
}

// CardPair is two cards that belong together, by the id of the one.
type CardPair struct {
	One   Option `json:"one"`
	Other Option `json:"other"`
}

// Turned is how far somebody is: the pairs that were found, by their ids, and how often two
// cards were turned for it.
type Turned struct {
	Found []string `json:"found"`
	Turns int      `json:"turns"`
}

func (m *Memory) cards() options {
	var all options
	for _, p := range m.Pairs {
		all = append(all, p.One, p.Other)
	}
	return all
}

// check: what looks alike would be two right places for one card, unless it is its own pair.
func (m *Memory) check() error {
	if err := m.cards().check(2*LeastCards, 2*MostCards); err != nil {
		return err
	}
	if m.cards().right() != "" {
		return refusal.About(refusal.BoardIncorrect, "a game has nothing right")
	}
	in := map[string]int{}
	for i, p := range m.Pairs {
		for _, card := range []Option{p.One, p.Other} {
			face := card.Picture + "\x00" + spelling.Fold(card.Text)
			if pair, is := in[face]; is && pair != i && face != "\x00" {
				return refusal.New(refusal.CardsAlike)
			}
			in[face] = i
		}
	}
	return nil
}

func (m *Memory) words() []string    { return m.cards().words() }
func (m *Memory) pictures() []string { return m.cards().pictures() }

// paired gives a game of cards, two and two of which belong together.
func paired(cards options) Body {
	m := &Memory{}
	for i := 0; i < len(cards); i += 2 {
		m.Pairs = append(m.Pairs, CardPair{cards[i], cards[i+1]})
	}
	return Body{Kind: KindMemory, Memory: m}
}

func (m *Memory) shown(rename func(string) string) Body { return paired(m.cards().shown(rename)) }
func (m *Memory) bare() Body                            { return paired(m.cards().bare()) }
func (m *Memory) nameless() Body                        { return m.bare() }

func (m *Memory) right() string { return "" }

func (m *Memory) takes(v Value) error {
	found := v.Memory.Found
	if len(found) == 0 {
		return refusal.New(refusal.AnswerEmpty)
	}
	seen := map[string]bool{}
	for _, pair := range found {
		if seen[pair] || !m.has(pair) {
			return refusal.New(refusal.NoSuchChoice)
		}
		seen[pair] = true
	}
	if v.Memory.Turns < len(found) || v.Memory.Turns > MaxTurns {
		return refusal.About(refusal.Malformed, "a pair is found by a turn, and there are at most %d", MaxTurns)
	}
	return nil
}

func (m *Memory) has(pair string) bool {
	for _, p := range m.Pairs {
		if p.One.ID == pair {
			return true
		}
	}
	return false
}

func (m *Memory) judge(Value) Judgement { return Judgement{} }

// says: pairs found of those there are, and turns.
func (m *Memory) says(v Value) string {
	return fmt.Sprintf("%d/%d (%d)", len(v.Memory.Found), len(m.Pairs), v.Memory.Turns)
}

func (m *Memory) chart(values []Value, _ []Judgement) Chart {
	f := &Finds{Students: make([]int, len(m.Pairs))}
	for _, v := range values {
		f.Students[len(v.Memory.Found)-1]++
		f.Pairs += len(v.Memory.Found)
		f.Turns += v.Memory.Turns
	}
	return Chart{Kind: ChartFinds, Finds: f}
}

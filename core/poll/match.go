package poll

import (
	"slices"
	"strings"

	"alpenglow/core/refusal"
	"alpenglow/core/spelling"
)

// KindMatch asks what belongs to what.
const KindMatch Kind = "match"

// MaxMatched is how many things stand on each side at most.
const MaxMatched = 10

// Match is a question with two sides: to each thing on the left belongs one on the right,
// which may have more. Pairs are the right ones; Mistakes are known wrong ones.
type Match struct {
	Left     []Option      `json:"left"`
	Right    []Option      `json:"right"`
	Pairs    []Pair        `json:"pairs,omitempty"`
	Mistakes []PairMistake `json:"mistakes,omitempty"`
}

// Pair puts together what is left and right, by their ids.
type Pair struct {
	Left  string `json:"left"`
	Right string `json:"right"`
}

// PairMistake is a known wrong pair.
type PairMistake struct {
	Name string `json:"name"`
	Pair
}

// Matched is an answer to it: some pairs, each left thing in one at most.
type Matched struct {
	Pairs []Pair `json:"pairs"`
}

func (m *Match) of() options { return m.Left }

func (m *Match) check() error {
	if err := options(m.Left).check(1, MaxMatched); err != nil {
		return err
	}
	if err := options(m.Right).check(2, MaxMatched); err != nil {
		return err
	}
	if len(m.Mistakes) > MaxMistakes {
		return refusal.About(refusal.BoardIncorrect, "at most %d known mistakes", MaxMistakes)
	}
	for _, known := range m.Mistakes {
		if err := checkName(known.Name); err != nil {
			return err
		}
		if err := m.checkPairs([]Pair{known.Pair}); err != nil {
			return err
		}
	}
	return m.checkPairs(m.Pairs)
}

func (m *Match) checkPairs(pairs []Pair) error {
	seen := map[string]bool{}
	for _, p := range pairs {
		if seen[p.Left] || options(m.Left).at(p.Left) < 0 || options(m.Right).at(p.Right) < 0 {
			return refusal.New(refusal.NoSuchChoice)
		}
		seen[p.Left] = true
	}
	return nil
}

func (m *Match) words() []string {
	return slices.Concat(options(m.Left).words(), options(m.Right).words())
}
func (m *Match) pictures() []string {
	return slices.Concat(options(m.Left).pictures(), options(m.Right).pictures())
}

func (m *Match) shown(rename func(string) string) Body {
	return Body{Kind: KindMatch, Match: &Match{options(m.Left).shown(rename), options(m.Right).shown(rename), m.Pairs,
		m.Mistakes}}
}

func (m *Match) bare() Body {
	return Body{Kind: KindMatch, Match: &Match{Left: options(m.Left).bare(), Right: options(m.Right).bare().mixed()}}
}

func (m *Match) nameless() Body {
	return Body{Kind: KindMatch, Match: &Match{Left: options(m.Left).bare(), Right: options(m.Right).bare().mixed(),
		Pairs: m.Pairs}}
}

func (m *Match) inWords(pairs []Pair) string {
	var words []string
	for _, left := range m.Left {
		for _, p := range pairs {
			if p.Left == left.ID {
				words = append(words, left.Text+" – "+options(m.Right).text(p.Right))
			}
		}
	}
	return strings.Join(words, ", ")
}

func (m *Match) right() string       { return m.inWords(m.Pairs) }
func (m *Match) takes(v Value) error { return m.some(v.Match.Pairs) }

func (m *Match) some(pairs []Pair) error {
	if len(pairs) == 0 {
		return refusal.New(refusal.AnswerEmpty)
	}
	return m.checkPairs(pairs)
}

// fits says whether a thing on the right is the right one: it, or another that reads
// and looks the same.
func (m *Match) fits(p Pair) bool {
	for _, right := range m.Pairs {
		if right.Left != p.Left {
			continue
		}
		a, b := m.Right[options(m.Right).at(right.Right)], m.Right[options(m.Right).at(p.Right)]
		return a.ID == b.ID || a.Picture == b.Picture && spelling.Fold(a.Text) == spelling.Fold(b.Text)
	}
	return false
}

func (m *Match) judge(v Value) Judgement {
	if len(m.Pairs) == 0 {
		return Judgement{}
	}
	right, mistake := 0, ""
	for _, p := range v.Match.Pairs {
		if m.fits(p) {
			right++
			continue
		}
		for _, known := range m.Mistakes {
			if known.Pair == p && mistake == "" {
				mistake = known.Name
			}
		}
	}
	return part(right, len(m.Pairs), mistake)
}

func (m *Match) says(v Value) string { return m.inWords(v.Match.Pairs) }

// chart: the columns stand mixed, as a class sees them; as they were written, what belongs
// together would stand in the diagonal.
func (m *Match) chart(values []Value, _ []Judgement) Chart {
	columns := options(m.Right).mixed()
	grid := &Grid{Columns: columns.words()}
	for _, left := range m.Left {
		row := GridRow{Text: left.Text, Cells: make([]GridCell, len(m.Right))}
		for j, right := range columns {
			p := Pair{left.ID, right.ID}
			row.Cells[j].Right = m.fits(p)
			for _, known := range m.Mistakes {
				if known.Pair == p {
					row.Cells[j].Mistake = known.Name
				}
			}
			for _, v := range values {
				if slices.Contains(v.Match.Pairs, p) {
					row.Cells[j].Count++
				}
			}
		}
		grid.Rows = append(grid.Rows, row)
	}
	return Chart{Kind: ChartGrid, Grid: grid}
}

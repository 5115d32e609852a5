package poll

import (
	"slices"
	"strings"

	"alpenglow/core/id"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
	"alpenglow/core/spelling"
)

// KindBlanks asks to fill the blanks of a text.
const KindBlanks Kind = "blanks"

// Bounds of a text with blanks.
const (
	MaxBlanks     = 15
	MaxBlankTexts = 31
)

// Blanks is a question with a text that has blanks: parts that are read, and parts that
// are filled, in their order.
type Blanks struct {
	Parts []TextPart `json:"parts"`
	// Slips is how many slips of spelling are forgiven in a blank that is typed.
	Slips int `json:"slips,omitempty"`
}

// TextPart is a piece of the text, or a blank.
type TextPart struct {
	Text  string `json:"text,omitempty"`
	Blank *Blank `json:"blank,omitempty"`
}

// Blank is one blank: what is right in it, known mistakes, and what is offered to choose
// from; with nothing offered it is typed.
type Blank struct {
	ID       string        `json:"id"`
	Accepted []string      `json:"accepted,omitempty"`
	Offered  []string      `json:"offered,omitempty"`
	Mistakes []TextMistake `json:"mistakes,omitempty"`
}

// Filled is an answer to it: what stands in some of the blanks.
type Filled struct {
	In []InBlank `json:"in"`
}

// InBlank is what stands in a blank, by its id.
type InBlank struct {
	Blank string `json:"blank"`
	Text  string `json:"text"`
}

func (b *Blanks) blanks() []*Blank {
	var all []*Blank
	for _, p := range b.Parts {
		if p.Blank != nil {
			all = append(all, p.Blank)
		}
	}
	return all
}

func (b *Blanks) find(blank string) *Blank {
	for _, one := range b.blanks() {
		if one.ID == blank {
			return one
		}
	}
	return nil
}

func (b *Blanks) check() error {
	n := len(b.blanks())
	if n < 1 || n > MaxBlanks || len(b.Parts) > MaxBlankTexts {
		return refusal.About(refusal.BoardIncorrect, "a text has 1 to %d blanks", MaxBlanks)
	}
	if b.Slips < 0 || b.Slips > MaxSlips {
		return refusal.About(refusal.Malformed, "at most %d slips are forgiven", MaxSlips)
	}
	seen := map[string]bool{}
	for _, p := range b.Parts {
		if p.Blank == nil {
			if err := prose.Check(p.Text, MaxWhy); err != nil {
				return err
			}
			continue
		}
		if !id.IsPlain(p.Blank.ID) || seen[p.Blank.ID] || p.Text != "" {
			return refusal.About(refusal.BoardIncorrect, "each blank needs an id of its own")
		}
		seen[p.Blank.ID] = true
		if err := checkTexts(p.Blank.Accepted, p.Blank.Mistakes); err != nil {
			return err
		}
		if len(p.Blank.Offered) == 1 || len(p.Blank.Offered) > MaxOptions {
			return refusal.About(refusal.BoardIncorrect, "a blank offers 2 to %d texts", MaxOptions)
		}
		for _, text := range p.Blank.Offered {
			if err := checkWritten(text, MaxShort); err != nil {
				return err
			}
		}
	}
	return nil
}

func (b *Blanks) words() []string {
	var words []string
	for _, p := range b.Parts {
		if p.Blank != nil {
			words = append(words, p.Blank.Offered...)
		} else {
			words = append(words, p.Text)
		}
	}
	return words
}

func (b *Blanks) pictures() []string             { return nil }
func (b *Blanks) shown(func(string) string) Body { return Body{Kind: KindBlanks, Blanks: b} }

func (b *Blanks) each(change func(*Blank)) Body {
	c := Blanks{Parts: slices.Clone(b.Parts), Slips: b.Slips}
	for i, p := range c.Parts {
		if p.Blank != nil {
			blank := *p.Blank
			change(&blank)
			c.Parts[i].Blank = &blank
		}
	}
	return Body{Kind: KindBlanks, Blanks: &c}
}

// bare offers what there is to choose from by the alphabet.
func (b *Blanks) bare() Body {
	return b.each(func(blank *Blank) {
		blank.Accepted, blank.Mistakes = nil, nil
		if len(blank.Offered) > 0 {
			blank.Offered = slices.Sorted(slices.Values(blank.Offered))
		}
	})
}

func (b *Blanks) nameless() Body { return b.each(func(blank *Blank) { blank.Mistakes = nil }) }

func (b *Blanks) right() string {
	var words []string
	for _, blank := range b.blanks() {
		if len(blank.Accepted) > 0 {
			words = append(words, blank.Accepted[0])
		}
	}
	return strings.Join(words, ", ")
}

func (b *Blanks) takes(v Value) error {
	if len(v.Blanks.In) == 0 {
		return refusal.New(refusal.AnswerEmpty)
	}
	seen := map[string]bool{}
	for _, in := range v.Blanks.In {
		blank := b.find(in.Blank)
		if blank == nil || seen[in.Blank] || len(blank.Offered) > 0 && !slices.Contains(blank.Offered, in.Text) {
			return refusal.New(refusal.NoSuchChoice)
		}
		if err := checkWritten(in.Text, MaxShort); err != nil {
			return err
		}
		seen[in.Blank] = true
	}
	return nil
}

// in judges what stands in one blank; a blank that is chosen is spelt rightly.
func (b *Blanks) in(blank *Blank, text string) Judgement {
	if len(blank.Accepted) == 0 {
		return Judgement{}
	}
	slips := b.Slips
	if len(blank.Offered) > 0 {
		slips = 0
	}
	return judgeText(text, blank.Accepted, blank.Mistakes, slips, false)
}

func (b *Blanks) judge(v Value) Judgement {
	of, right, mistake, slips := 0, 0, "", false
	for _, blank := range b.blanks() {
		if len(blank.Accepted) == 0 {
			continue
		}
		of++
		for _, in := range v.Blanks.In {
			if in.Blank != blank.ID {
				continue
			}
			j := b.in(blank, in.Text)
			if j.Verdict == Right {
				right++
				slips = slips || j.Reason == Slips
			} else if mistake == "" {
				mistake = j.Mistake
			}
		}
	}
	if of == 0 {
		return Judgement{}
	}
	j := part(right, of, mistake)
	if j.Verdict == Right && slips {
		j.Reason = Slips
	}
	return j
}

// says the whole text, with … in what is not filled.
func (b *Blanks) says(v Value) string {
	var text strings.Builder
	for _, p := range b.Parts {
		if p.Blank == nil {
			text.WriteString(p.Text)
			continue
		}
		filled := "…"
		for _, in := range v.Blanks.In {
			if in.Blank == p.Blank.ID {
				filled = in.Text
			}
		}
		text.WriteString("[" + filled + "]")
	}
	return spelling.Plain(text.String())
}

func (b *Blanks) chart(values []Value, _ []Judgement) Chart {
	grid := &Grid{}
	for i, blank := range b.blanks() {
		var written []string
		for _, v := range values {
			for _, in := range v.Blanks.In {
				if in.Blank == blank.ID {
					written = append(written, in.Text)
				}
			}
		}
		row := GridRow{Text: strings.TrimSuffix(numbered(i), ". "), Cells: []GridCell{}}
		first, more := some(texts(written), func(text string) Judgement { return b.in(blank, text) }, MostBlankTexts)
		row.More = more
		for _, t := range first {
			row.Cells = append(row.Cells, GridCell{t.Text, t.Count, t.Verdict == Right, t.Mistake})
		}
		grid.Rows = append(grid.Rows, row)
	}
	return Chart{Kind: ChartGrid, Grid: grid}
}

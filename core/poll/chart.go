package poll

import (
	"cmp"
	"maps"
	"slices"

	"alpenglow/core/measure"
	"alpenglow/core/spelling"
)

// ChartKind tells charts apart.
type ChartKind string

// The kinds of charts: counts of what is offered; numbers on a line; a ladder of what
// stands before what; texts with how often they were given; a grid of who-to-what; points
// on a picture; how far a game has come. A question whose answer is a frame has none.
const (
	ChartNone    ChartKind = ""
	ChartBars    ChartKind = "bars"
	ChartNumbers ChartKind = "numbers"
	ChartLadder  ChartKind = "ladder"
	ChartTexts   ChartKind = "texts"
	ChartGrid    ChartKind = "grid"
	ChartPoints  ChartKind = "points"
	ChartFinds   ChartKind = "finds"
)

// Chart is how answers stand, as a picture: the field that its kind names is set.
type Chart struct {
	Kind    ChartKind `json:"kind"              oneof:"charts"`
	Bars    *Bars     `json:"bars,omitempty"`
	Numbers *Numbers  `json:"numbers,omitempty"`
	Ladder  *Ladder   `json:"ladder,omitempty"`
	Texts   *Texts    `json:"texts,omitempty"`
	Grid    *Grid     `json:"grid,omitempty"`
	Points  *Points   `json:"points,omitempty"`
	Finds   *Finds    `json:"finds,omitempty"`
}

// Bars are counts of what is offered, in the order of the question.
type Bars struct {
	Bars []Bar `json:"bars"`
}

// Bar counts one thing, and says of all who answered between what shares that may be.
type Bar struct {
	ID      string           `json:"id"`
	Text    string           `json:"text"`
	Count   int              `json:"count"`
	Span    measure.Interval `json:"span"`
	Right   bool             `json:"right,omitempty"`
	Mistake string           `json:"mistake,omitempty"`
}

// Numbers are numbers on a line: in bins, with where right ones lie.
type Numbers struct {
	Bins   []measure.Bin     `json:"bins"`
	Values []float64         `json:"values"` // in ascending order
	Median float64           `json:"median"`
	Middle *measure.Interval `json:"middle,omitempty"` // from the first to the third quartile
	Band   *measure.Interval `json:"band,omitempty"`
	Unit   string            `json:"unit,omitempty"`
}

// Ladder is in what order things were put by all, best first, and how well their orders
// agree: Kendall's W, from 0 to 1.
type Ladder struct {
	Rungs []Rung   `json:"rungs"`
	W     *float64 `json:"w,omitempty"`
}

// Rung is one thing: its points (the Borda count: of n things n-1 for the first place, none
// for the last; Borda 1781, as commonly described, from memory), the mean of its places, how
// often it came first, and its right place from 1.
type Rung struct {
	ID     string  `json:"id"`
	Text   string  `json:"text"`
	Points int     `json:"points"`
	Mean   float64 `json:"mean"`
	First  int     `json:"first"`
	Place  int     `json:"place,omitempty"`
}

// Bounds of what was written in a chart: how many texts, in all and in one blank, and how many
// characters of each; who wants to read all of it asks for the answers.
const (
	MostTexts      = 100
	MostBlankTexts = 12
	MostLetters    = 300
)

// Texts are what was written, with how often, most often first; More is how many other texts
// there are.
type Texts struct {
	Texts []TextCount `json:"texts"`
	More  int         `json:"more,omitempty"`
}

// some gives as many of the texts as a chart holds, judged, and how many there are besides.
func some(all []TextCount, judge func(string) Judgement, most int) ([]TextCount, int) {
	n := min(len(all), most)
	for i := range all[:n] {
		j := judge(all[i].Text)
		all[i].Verdict, all[i].Mistake = j.Verdict, j.Mistake
		if letters := []rune(all[i].Text); len(letters) > MostLetters {
			all[i].Text = string(letters[:MostLetters]) + "…"
		}
	}
	return all[:n], len(all) - n
}

// textsChart gives the chart of some texts.
func textsChart(written []string, judge func(string) Judgement) Chart {
	first, more := some(texts(written), judge, MostTexts)
	return Chart{Kind: ChartTexts, Texts: &Texts{first, more}}
}

// TextCount is one text, as it was written most often.
type TextCount struct {
	Text    string  `json:"text"`
	Count   int     `json:"count"`
	Verdict Verdict `json:"verdict,omitempty"`
	Mistake string  `json:"mistake,omitempty"`
}

// Grid is who-to-what: for each row how often each column was taken.
type Grid struct {
	Rows    []GridRow `json:"rows"`
	Columns []string  `json:"columns,omitempty"` // empty where each row has its own texts
}

// GridRow is one row: its text, and its cells in the order of the columns, or as many as a
// chart holds, and how many there are besides.
type GridRow struct {
	Text  string     `json:"text"`
	Cells []GridCell `json:"cells"`
	More  int        `json:"more,omitempty"`
}

// GridCell counts one column of a row, which may be the right one. Text stands where
// the grid has no columns.
type GridCell struct {
	Text    string `json:"text,omitempty"`
	Count   int    `json:"count"`
	Right   bool   `json:"right,omitempty"`
	Mistake string `json:"mistake,omitempty"`
}

// Points are places on a picture, as shares of its width and height, with the areas.
type Points struct {
	Picture string      `json:"picture"`
	At      []Point     `json:"at"`
	Areas   []AreaCount `json:"areas,omitempty"`
}

// AreaCount counts who pointed into an area.
type AreaCount struct {
	Area
	Count int `json:"count"`
}

// Finds is how far all have come in a game: how many students have found one pair, two and so
// on, and how many pairs all of them found together in how many turns.
type Finds struct {
	Students []int `json:"students"`
	Pairs    int   `json:"pairs"`
	Turns    int   `json:"turns"`
}

// Named counts a known mistake by its name.
type Named struct {
	Name  string `json:"name"`
	Count int    `json:"count"`
}

// Judged counts answers by whether they are right, and says between what shares the
// right ones may be.
type Judged struct {
	Right  int              `json:"right"`
	Partly int              `json:"partly"`
	Wrong  int              `json:"wrong"`
	Span   measure.Interval `json:"span"`
}

// Tally is how the answers to a question stand.
type Tally struct {
	Answered int     `json:"answered"`
	Verdicts *Judged `json:"verdicts,omitempty"` // nil of a question of opinion
	Mistakes []Named `json:"mistakes,omitempty"` // most often first
	Chart    *Chart  `json:"chart,omitempty"`
}

// Tally counts answers. What is no answer is not counted; the order in which they came
// plays no part.
func (q Question) Tally(values []Value) Tally {
	var all []Assessed
	for _, v := range values {
		if a, ok := q.Assess(v); ok {
			all = append(all, a)
		}
	}
	return q.TallyOf(all)
}

// TallyOf counts answers that the question has assessed.
func (q Question) TallyOf(all []Assessed) Tally {
	var t Tally
	answers, thought := make([]Value, len(all)), make([]Judgement, len(all))
	judged := Judged{}
	mistakes := map[string]int{}
	for i, a := range all {
		answers[i], thought[i] = a.Value, a.Judgement
		switch a.Verdict {
		case Right:
			judged.Right++
		case Partly:
			judged.Partly++
		case Wrong:
			judged.Wrong++
		}
		if a.Mistake != "" {
			mistakes[a.Mistake]++
		}
	}
	t.Answered = len(answers)
	if q.HasRight() {
		judged.Span = measure.Wilson(judged.Right, t.Answered)
		t.Verdicts = &judged
	}
	for name, n := range mistakes {
		t.Mistakes = append(t.Mistakes, Named{name, n})
	}
	slices.SortFunc(t.Mistakes, func(a, b Named) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Name, b.Name))
	})
	if k, ok := q.kind(); ok {
		if chart := k.chart(answers, thought); chart.Kind != ChartNone {
			t.Chart = &chart
		}
		if t.Chart != nil && t.Chart.Bars != nil {
			for i := range t.Chart.Bars.Bars {
				bar := &t.Chart.Bars.Bars[i]
				bar.Span = measure.Wilson(bar.Count, t.Answered)
			}
		}
	}
	return t
}

// ForClass gives a tally as a class may see it: what is right only once that is
// revealed, names of mistakes never, and texts not while more may come unread.
func (t Tally) ForClass(p Phase) Tally {
	t.Mistakes = nil
	shown := p == Revealed
	if !shown {
		t.Verdicts = nil
	}
	if t.Chart == nil {
		return t
	}
	c := *t.Chart
	t.Chart = &c
	switch {
	case c.Bars != nil:
		bars := slices.Clone(c.Bars.Bars)
		for i := range bars {
			bars[i].Mistake, bars[i].Right = "", bars[i].Right && shown
		}
		c.Bars = &Bars{bars}
	case c.Numbers != nil && !shown:
		n := *c.Numbers
		n.Band = nil
		c.Numbers = &n
	case c.Ladder != nil && !shown:
		l := Ladder{W: c.Ladder.W, Rungs: slices.Clone(c.Ladder.Rungs)}
		for i := range l.Rungs {
			l.Rungs[i].Place = 0
		}
		// Equal ones stood in the right order.
		slices.SortFunc(l.Rungs, func(a, b Rung) int {
			return cmp.Or(cmp.Compare(b.Points, a.Points), cmp.Compare(a.ID, b.ID))
		})
		c.Ladder = &l
	case c.Texts != nil:
		texts := slices.Clone(c.Texts.Texts)
		if p == Open || p == "" {
			texts = []TextCount{}
		}
		for i := range texts {
			texts[i].Mistake = ""
			if !shown {
				texts[i].Verdict = NoVerdict
			}
		}
		c.Texts = &Texts{Texts: texts, More: c.Texts.More}
	case c.Grid != nil:
		c.Grid = c.Grid.forClass(p)
	case c.Points != nil:
		at := Points{Picture: c.Points.Picture, At: c.Points.At}
		if shown {
			for _, a := range c.Points.Areas {
				if a.Mistake = ""; a.Right {
					at.Areas = append(at.Areas, a)
				}
			}
		}
		c.Points = &at
	}
	return t
}

func (g *Grid) forClass(p Phase) *Grid {
	seen := Grid{Columns: g.Columns, Rows: slices.Clone(g.Rows)}
	for i := range seen.Rows {
		cells := slices.Clone(seen.Rows[i].Cells)
		if g.Columns == nil && (p == Open || p == "") {
			cells = []GridCell{} // written by students, and not read yet
		}
		for j := range cells {
			cells[j].Mistake, cells[j].Right = "", cells[j].Right && p == Revealed
		}
		seen.Rows[i].Cells = cells
	}
	return &seen
}

// ladder counts orders; right are the places of a question that has a right order.
func (o options) ladder(values []Value, of func(Value) []string) Chart {
	rungs := make([]Rung, len(o))
	rows := make([][]float64, len(values))
	for i, one := range o {
		rungs[i] = Rung{ID: one.ID, Text: one.Text}
		for j, v := range values {
			place := slices.Index(of(v), one.ID)
			rungs[i].Points += len(o) - 1 - place
			rungs[i].Mean += float64(place + 1)
			if place == 0 {
				rungs[i].First++
			}
			rows[j] = append(rows[j], float64(place))
		}
		rungs[i].Mean /= max(1, float64(len(values)))
	}
	slices.SortStableFunc(rungs, func(a, b Rung) int { return cmp.Compare(b.Points, a.Points) })
	ladder := &Ladder{Rungs: rungs}
	if w, ok := measure.Concordance(rows); ok {
		ladder.W = &w
	}
	return Chart{Kind: ChartLadder, Ladder: ladder}
}

// texts counts what was written; what folds to the same is the same, and stands as
// it was written most often.
func texts(written []string) []TextCount {
	forms := map[string]map[string]int{}
	for _, text := range written {
		fold := spelling.Fold(text)
		if forms[fold] == nil {
			forms[fold] = map[string]int{}
		}
		forms[fold][text]++
	}
	all := []TextCount{}
	for _, spelt := range forms {
		count := TextCount{}
		most := 0
		for _, text := range slices.Sorted(maps.Keys(spelt)) {
			count.Count += spelt[text]
			if spelt[text] > most {
				most, count.Text = spelt[text], text
			}
		}
		all = append(all, count)
	}
	slices.SortFunc(all, func(a, b TextCount) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Text, b.Text))
	})
	return all
}

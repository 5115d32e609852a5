package record

import (
	"cmp"
	"maps"
	"slices"
	"strings"

	"alpenglow/core/measure"
	"alpenglow/core/poll"
	"alpenglow/core/spelling"
)

// Compared are the questions that two lessons have in common, in the order of the first; Only and
// OnlyOther count those that one has alone.
type Compared struct {
	Questions []QuestionCompared `json:"questions"`
	Only      int                `json:"only"`
	OnlyOther int                `json:"onlyOther"`
}

// QuestionCompared is how a question did in each of two lessons, by the answers that students
// gave first.
type QuestionCompared struct {
	Text  string  `json:"text"`
	Here  RightOf `json:"here"`
	There RightOf `json:"there"`
	// Difference is by how much more of them were right there, with its interval; it is sure that
	// it is one where that does not hold 0. Both lack where nobody answered in one of the lessons.
	Difference *measure.Interval `json:"difference,omitempty"`
	By         float64           `json:"by"`
	Sure       bool              `json:"sure,omitempty"`
	// Mistakes are known ones that were made in either, by name.
	Mistakes []MistakeCompared `json:"mistakes"`
}

// RightOf is how many of those who answered were right, with the interval of their share.
type RightOf struct {
	Right    int              `json:"right"`
	Answered int              `json:"answered"`
	Span     measure.Interval `json:"span"`
}

// MistakeCompared is how many made a known mistake in each of two lessons.
type MistakeCompared struct {
	Name  string `json:"name"`
	Here  int    `json:"here"`
	There int    `json:"there"`
}

// Compare compares the questions of a lesson with the same ones of another: those with the same
// id, or else those that ask the same and have the same right answer.
func (r Record) Compare(other Record) Compared {
	c := Compared{Questions: []QuestionCompared{}}
	here, there := r.judged(), other.judged()
	used := map[int]bool{}
	for _, q := range here {
		at := slices.IndexFunc(there, func(o judgedQuestion) bool { return o.id == q.id })
		if at < 0 || used[at] {
			at = -1
			for i, o := range there {
				if !used[i] && o.asked.Same(*q.asked) && o.asked.Right() == q.asked.Right() {
					at = i
					break
				}
			}
		}
		if at < 0 {
			c.Only++
			continue
		}
		used[at] = true
		c.Questions = append(c.Questions, compared(q, there[at]))
	}
	c.OnlyOther = len(there) - len(used)
	return c
}

func (q judgedQuestion) did() (d RightOf, mistakes map[string]int) {
	mistakes = map[string]int{}
	for _, a := range q.first {
		if a.Round == 0 {
			continue
		}
		d.Answered++
		if a.Verdict == poll.Right {
			d.Right++
		}
		if a.Mistake != "" {
			mistakes[a.Mistake]++
		}
	}
	d.Span = measure.Wilson(d.Right, d.Answered)
	return d, mistakes
}

func compared(a, b judgedQuestion) QuestionCompared {
	q := QuestionCompared{Text: a.asked.Text, Mistakes: []MistakeCompared{}}
	var here, there map[string]int
	q.Here, here = a.did()
	q.There, there = b.did()
	if q.Here.Answered > 0 && q.There.Answered > 0 {
		q.By = float64(q.There.Right)/float64(q.There.Answered) - float64(q.Here.Right)/float64(q.Here.Answered)
		span := measure.Difference(q.There.Right, q.There.Answered, q.Here.Right, q.Here.Answered)
		q.Difference, q.Sure = &span, span.Low > 0 || span.High < 0
	}
	names := maps.Clone(here)
	maps.Copy(names, there)
	for _, name := range slices.Sorted(maps.Keys(names)) {
		q.Mistakes = append(q.Mistakes, MistakeCompared{name, here[name], there[name]})
	}
	return q
}

// Held is a lesson that was held, when (milliseconds since 1970).
type Held struct {
	ID     string
	Title  string
	At     int64
	Record Record
}

// Mistaken is a known mistake over some lessons, under the name that it had last: in how many
// lessons it was made, and how often in each.
type Mistaken struct {
	Name    string       `json:"name"`
	Count   int          `json:"count"`
	Lessons []MistakenIn `json:"lessons"`
}

// MistakenIn is how often a mistake was made in a lesson, of how many who answered a question in
// which it is known.
type MistakenIn struct {
	Session string `json:"session"`
	Title   string `json:"title"`
	At      int64  `json:"at"`
	Count   int    `json:"count"`
	Of      int    `json:"of"`
}

// MistakesOver lists the known mistakes of some lessons: those that come in most lessons first. Names
// that differ in case and spaces alone are one.
func MistakesOver(lessons []Held) []Mistaken {
	all := map[string]*Mistaken{}
	inTime := slices.SortedFunc(slices.Values(lessons), func(a, b Held) int { return cmp.Compare(a.At, b.At) })
	for _, l := range inTime {
		in := map[string]*MistakenIn{}
		names := map[string]string{}
		for _, q := range l.Record.judged() {
			did, mistakes := q.did()
			for name, n := range mistakes {
				key := strings.Join(strings.Fields(spelling.Fold(name)), " ")
				if in[key] == nil {
					in[key] = &MistakenIn{Session: l.ID, Title: l.Title, At: l.At}
				}
				in[key].Count += n
				in[key].Of += did.Answered
				names[key] = name
			}
		}
		for key, one := range in {
			if all[key] == nil {
				all[key] = &Mistaken{}
			}
			m := all[key]
			m.Name, m.Count, m.Lessons = names[key], m.Count+one.Count, append(m.Lessons, *one)
		}
	}
	list := []Mistaken{}
	for _, m := range all {
		list = append(list, *m)
	}
	slices.SortFunc(list, func(a, b Mistaken) int {
		return cmp.Or(
			cmp.Compare(len(b.Lessons), len(a.Lessons)),
			cmp.Compare(b.Count, a.Count),
			cmp.Compare(a.Name, b.Name),
		)
	})
	return list
}

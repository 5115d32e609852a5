package progress

import (
	"cmp"
	"slices"

	"alpenglow/core/find"
	"alpenglow/core/outcome"
)

// Failed is a question after which one would not have gone on, in one lesson or several, under the words that it had
// last.
type Failed struct {
	Text    string     `json:"text"`
	Lessons []FailedIn `json:"lessons"`
}

// FailedIn is how it did in a lesson.
type FailedIn struct {
	Session string           `json:"session"`
	Title   string           `json:"title"`
	At      int64            `json:"at"`
	Advice  *outcome.Advised `json:"advice"`
}

// FailedOver lists the questions that failed over some lessons, those that failed most often first, then the latest
// ones. Texts that differ in case, accents and blanks alone are one question.
func FailedOver(lessons []Lesson, bands outcome.Bands) []Failed {
	all := []Failed{}
	byTime := func(a, b Lesson) int { return cmp.Compare(a.At, b.At) }
	for _, l := range slices.SortedFunc(slices.Values(lessons), byTime) {
		for _, q := range l.Kept.Questions().Questions {
			advice := bands.Or().Advise(q.Right, q.Answered)
			if advice == nil || advice.Is == outcome.GoOn {
				continue
			}
			at := slices.IndexFunc(all, func(f Failed) bool { return find.Plain(f.Text) == find.Plain(q.Text) })
			if at < 0 {
				at, all = len(all), append(all, Failed{})
			}
			all[at].Text = q.Text
			all[at].Lessons = append(all[at].Lessons, FailedIn{l.Session, l.Title, l.At, advice})
		}
	}
	slices.SortStableFunc(all, func(a, b Failed) int {
		return cmp.Or(cmp.Compare(len(b.Lessons), len(a.Lessons)),
			cmp.Compare(b.Lessons[len(b.Lessons)-1].At, a.Lessons[len(a.Lessons)-1].At))
	})
	return all
}

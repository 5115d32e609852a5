package template

import (
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
)

// Question gives a frame with a question on it, as it is asked on the spot. Ids of the
// frame and the mark are made by id.
func Question(q poll.Question, id func() string) lesson.Frame {
	q.Text = strings.TrimSpace(q.Text)
	title := []rune(strings.Join(strings.Fields(q.Text), " "))
	f := lesson.Frame{ID: id(), Title: string(title[:min(len(title), lesson.MaxTitle)]),
		Paper: paper.Paper{Kind: paper.Dotted}, Arrangement: lesson.WholeClass, Permission: lesson.Look}
	if q.Kind == poll.KindDraw { // the frame is the answer
		f.Arrangement, f.Permission = lesson.Individual, lesson.Add
	}
	// Much to read needs the whole frame.
	more := float64(min(8, max(0, len(q.Words())-5)))
	f.Prepared = []lesson.Element{
		{ID: id(), Z: 1, X: 260 - 20*more, Y: 200 - 20*more, W: 1080 + 40*more, H: 500 + 40*more,
			Body: lesson.Body{Kind: lesson.KindPoll, Poll: &q}},
	}
	return f
}

package template

import (
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
)

// Question gives a frame with a question on it, as it is asked on the spot: its words
// and the answers to choose from, of which none is right. Ids are made by id.
func Question(text string, answers []string, rank bool, id func() string) lesson.Frame {
	options := []poll.Option{}
	for _, a := range answers {
		options = append(options, poll.Option{ID: id(), Text: strings.TrimSpace(a)})
	}
	body := poll.Offer(options...)
	if rank {
		body = poll.ByPreference(options...)
	}
	text = strings.TrimSpace(text)
	title := []rune(strings.Join(strings.Fields(text), " "))
	f := lesson.Frame{ID: id(), Title: string(title[:min(len(title), lesson.MaxTitle)]),
		Paper: paper.Paper{Kind: paper.Dotted}, Arrangement: lesson.WholeClass, Permission: lesson.Look}
	// Many answers need the whole frame.
	more := float64(max(0, len(options)-4))
	f.Prepared = []lesson.Element{
		{ID: id(), Z: 1, X: 260 - 20*more, Y: 200 - 20*more, W: 1080 + 40*more, H: 500 + 40*more,
			Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{Text: text, Body: body}}},
	}
	return f
}

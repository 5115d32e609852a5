package demo

import (
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
)

// moonAndTides is the board of the lesson that the pictures show.
func moonAndTides() lesson.Board {
	shape := func(id string, x, y, w, h float64, s lesson.Shape) lesson.Element {
		return lesson.Element{ID: id, X: x, Y: y, W: w, H: h, Body: lesson.Body{Kind: lesson.KindShape, Shape: &s}}
	}
	text := func(id, words string, x, y, w, size float64) lesson.Element {
		return lesson.Element{ID: id, X: x, Y: y, W: w, H: size * 1.4,
			Body: lesson.Body{Kind: lesson.KindText, Text: &lesson.Text{Text: words, Size: size, Ink: "night"}}}
	}
	ray := lesson.Shape{Form: lesson.FormLine, Ink: "ember", Width: 4, Dash: true}
	return lesson.Board{Title: "Moon and tides", Frames: []lesson.Frame{
		{
			ID: "notice", Title: "What do you notice?", Prompt: "What do you notice in this tide table?",
			Paper: paper.Paper{Kind: paper.Squared}, Arrangement: lesson.WholeClass, Permission: lesson.Add,
			Prepared: []lesson.Element{{ID: "tide-table", X: 60, Y: 170, W: 660, H: 250,
				Body: lesson.Body{Kind: lesson.KindTable, Table: &lesson.Table{Rows: [][]string{
					{"Tern Harbour", "low", "high", "low", "high"},
					{"Monday", "01:12", "07:24", "13:37", "19:49"},
					{"Tuesday", "02:02", "08:14", "14:27", "20:39"},
					{"Wednesday", "02:52", "09:04", "15:17", "21:29"},
				}}}}},
		},
		{
			ID: "half-moon", Title: "Where is the Moon?",
			Prompt: "Draw the Moon where it stands at half moon, and label it.",
			Criteria: []lesson.Criterion{
				{ID: "place", Name: "The Moon stands in the right place", Words: map[string]string{
					"Beginning": "Sun, Earth and Moon are drawn.", "On the way": "The Moon is near the right place.",
					"Secure": "Sun, Earth and Moon make a right angle.", "Going further": "Both half moons are there."}},
				{ID: "labels", Name: "Labels say what is what", Words: map[string]string{
					"On the way": "Some things have a label.", "Secure": "Everything has a label."}},
			},
			Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.Individual, Permission: lesson.Add,
			Prepared: []lesson.Element{
				shape("sun", 80, 430, 220, 220,
					lesson.Shape{Form: lesson.FormEllipse, Ink: "ember", Fill: "apricot", Width: 5}),
				text("sun-name", "Sun", 158, 664, 120, 36),
				shape("ray-1", 350, 460, 150, 0, ray), shape("ray-2", 350, 536, 150, 0, ray),
				shape("ray-3", 350, 612, 150, 0, ray),
				shape("way", 700, 240, 600, 600,
					lesson.Shape{Form: lesson.FormEllipse, Ink: "night", Width: 3, Dash: true}),
				shape("earth", 930, 470, 140, 140,
					lesson.Shape{Form: lesson.FormEllipse, Ink: "lake", Fill: "glacier", Width: 5}),
				text("earth-name", "Earth", 953, 516, 140, 34),
				text("way-name", "the Moon's way", 1240, 800, 300, 30),
			},
		},
		{
			ID: "month", Title: "From new moon to new moon", Prompt: "One answer is right.",
			Paper: paper.Paper{Kind: paper.Dotted}, Arrangement: lesson.WholeClass, Permission: lesson.Look,
			Prepared: []lesson.Element{{ID: "month-poll", X: 260, Y: 220, W: 1080, H: 500,
				Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{
					Text: "How long is it from one new moon to the next?",
					Body: poll.Offer(
						poll.Option{ID: "week", Text: "7 days"}, poll.Option{ID: "fortnight", Text: "14.77 days"},
						poll.Option{ID: "synodic", Text: "29.53 days", Right: true},
						poll.Option{ID: "year", Text: "365.24 days"}),
				}}}},
		},
	}}
}

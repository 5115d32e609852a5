package demo

import (
	"strconv"

	"alpenglow/core/lesson"
	"alpenglow/core/number"
	"alpenglow/core/poll"
)

// question puts a question of any kind in the middle of a page.
func (p *page) question(q poll.Question) *page {
	p.put(180, 160, 1240, 700, lesson.Body{Kind: lesson.KindPoll, Poll: &q})
	p.Permission = lesson.Look
	return p
}

// offered makes options of words; those are right that begin with *.
func offered(id string, words ...string) []poll.Option {
	var all []poll.Option
	for i, text := range words {
		o := poll.Option{ID: id + strconv.Itoa(i+1), Text: text}
		if text[0] == '*' {
			o.Text, o.Right = text[1:], true
		}
		all = append(all, o)
	}
	return all
}

// knowledge asks questions of many kinds about the unit, with the mistakes that are known.
func knowledge() lesson.Board {
	goals := []lesson.Objective{{ID: "month", Text: "How long the Moon takes, and why that is not its way around once"},
		{ID: "tides", Text: "Why there are two high tides a day"}}
	month := offered("m", "7 days", "14.77 days", "*29.53 days", "365.24 days")
	month[1].Mistake, month[3].Mistake = "took new moon to full moon", "took the year"
	pull := offered("p", "*the Moon", "*the Sun", "the wind", "the fish")
	pull[2].Mistake = "took waves for tides"
	phases := offered("f", "new moon", "first quarter", "full moon", "last quarter")
	boxes := offered("b", "shines by itself", "is lit by something else")
	things := offered("t", "the Sun", "the Moon", "a lamp", "the Earth")
	left := offered("l", "spring tide", "neap tide", "ebb")
	right := offered("s", "Sun, Moon and Earth in one line", "Sun and Moon at a right angle", "the water goes down",
		"the Moon is far away")
	return bound("What do you know of the tides?", goals,
		newPage("month2", "The month", "Be honest about how sure you are.", whole).serving("month").
			question(poll.Question{Text: "How long is it from one new moon to the next?", Sure: true, Objectives: []string{"month"},
				Why:  "The Moon is around in 27.32 days, but the Earth has gone on meanwhile: it takes two days more.",
				Body: poll.Offer(month...)}),
		newPage("gap", "An hour later", "", whole).serving("tides").
			question(poll.Question{Text: "How long is it from one high tide to the next?", Objectives: []string{"tides"},
				Why: "Half of 24 hours and 50 minutes: the Moon has moved on while the Earth turned.",
				Body: poll.Body{Kind: poll.KindNumber, Number: &poll.Number{Language: "en", Answer: "12.42", Unit: "h",
					UnitRule:  poll.MayUnit,
					Tolerance: number.Tolerance{Is: number.Relative, Below: "2", Above: "2"},
					Mistakes: []poll.NumberMistake{{Name: "took the whole day", From: "24", To: "24.9"},
						{
							Name: "took half a day",
							From: "12",
						}, {Name: "took ebb for the next high tide", From: "6", To: "6.3"}}}}}),
		newPage("pull", "What pulls", "Choose all that fit.", whole).
			question(poll.Question{Text: "What makes the tides?", Shuffle: true,
				Body: poll.Body{Kind: poll.KindSeveral, Several: &poll.Several{Options: pull}}}),
		newPage("far", "The far side", "", whole).
			question(poll.Question{Text: "The far side of the Moon is always dark.", Sure: true,
				Body: poll.Body{Kind: poll.KindTruth, Truth: &poll.Truth{Is: poll.IsFalse, NotSure: true,
					Mistake: "took far for dark"}}}),
		newPage("word", "A word for it", "", whole).
			question(poll.Question{Text: "What is the force called with which the Moon pulls the water?",
				Body: poll.Body{
					Kind: poll.KindShort,
					Short: &poll.Short{Accepted: []string{"gravity", "gravitation"}, Slips: 2,
						Mistakes: []poll.TextMistake{
							{Name: "took magnets for it", Texts: []string{"magnetism", "magnetic force"}},
						}},
				}}),
		newPage("phases", "In order", "", whole).
			question(poll.Question{Text: "Put the phases in order, from new moon on.",
				Body: poll.Body{Kind: poll.KindOrder, Order: &poll.Order{Options: phases, Mistakes: []poll.OrderMistake{
					{Name: "took the quarters the wrong way round", Order: []string{"f1", "f4", "f3", "f2"}}}}}}),
		newPage("pairs", "What belongs to what", "", whole).
			question(poll.Question{Text: "What belongs to what?", Body: poll.Body{Kind: poll.KindMatch, Match: &poll.Match{
				Left: left, Right: right, Pairs: []poll.Pair{{Left: "l1", Right: "s1"}, {Left: "l2", Right: "s2"}, {Left: "l3", Right: "s3"}},
				Mistakes: []poll.PairMistake{
					{Name: "took spring for the season", Pair: poll.Pair{Left: "l1", Right: "s4"}},
				}}}}),
		newPage("blanks", "Fill in", "", whole).
			question(poll.Question{Text: "Fill the blanks.", Body: poll.Body{Kind: poll.KindBlanks, Blanks: &poll.Blanks{Slips: 1,
				Parts: []poll.TextPart{
					{Text: "The tides follow the "},
					{Blank: &poll.Blank{ID: "g1", Accepted: []string{"Moon"},
						Mistakes: []poll.TextMistake{{Name: "took the Sun", Texts: []string{"Sun"}}}}},
					{
						Text: ". At new moon and full moon they are ",
					},
					{Blank: &poll.Blank{ID: "g2", Accepted: []string{"higher"},
						Offered: []string{"higher", "lower", "the same"}}},
					{Text: "."},
				}}}}),
		newPage("lit", "Sort", "", whole).
			question(poll.Question{Text: "What shines by itself?", Body: poll.Body{Kind: poll.KindBoxes, Boxes: &poll.Boxes{
				Boxes: boxes, Things: things, Homes: []poll.InBox{{Thing: "t1", Box: "b1"}, {Thing: "t2", Box: "b2"},
					{Thing: "t3", Box: "b1"}, {Thing: "t4", Box: "b2"}},
				Mistakes: []poll.BoxMistake{
					{Name: "took the Moon for a lamp", InBox: poll.InBox{Thing: "t2", Box: "b1"}},
				}}}}),
		newPage("feel", "How was it?", "", whole).
			question(poll.Question{Text: "How well could you explain the tides to somebody at home?",
				Body: poll.Body{
					Kind:  poll.KindScale,
					Scale: &poll.Scale{Steps: 5, Low: "not at all", High: "very well"},
				}}),
		newPage("next", "What next?", "", whole).
			question(poll.Question{Text: "What shall we look at next? The most interesting on top.",
				Body: poll.ByPreference(
					offered("n", "eclipses", "tides in other places", "how to use a tide table")...)}),
		newPage("wonder", "One question left", "", whole).
			question(poll.Question{Text: "What do you still wonder about?", Body: poll.Body{Kind: poll.KindOpen, Open: &poll.Free{}}}),
	)
}

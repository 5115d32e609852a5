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
			question(poll.Question{Text: "How long is it from one new moon to the next?", Sure: true,
				Objectives: []string{"month"},
				Why:        "The Moon is around in 27.32 days, but the Earth has gone on meanwhile: it takes two days more.",
				Body:       poll.Offer(month...)}),
		newPage("gap", "An hour later", "", whole).serving("tides").
			question(poll.Question{Text: "How long is it from one high tide to the next?",
				Objectives: []string{"tides"},
				Why:        "Half of 24 hours and 50 minutes: the Moon has moved on while the Earth turned.",
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
			question(poll.Question{Text: "What belongs to what?", Body: poll.Body{Kind: poll.KindMatch,
				Match: &poll.Match{
					Left: left, Right: right, Pairs: []poll.Pair{{Left: "l1", Right: "s1"}, {Left: "l2", Right: "s2"},
						{Left: "l3", Right: "s3"}},
					Mistakes: []poll.PairMistake{
						{Name: "took spring for the season", Pair: poll.Pair{Left: "l1", Right: "s4"}},
					}}}}),
		newPage("blanks", "Fill in", "", whole).
			question(poll.Question{Text: "Fill the blanks.", Body: poll.Body{Kind: poll.KindBlanks,
				Blanks: &poll.Blanks{Slips: 1,
					Parts: []poll.TextPart{
						{Text: "The tides follow the "},
						{Blank: &poll.Blank{ID: "g1", Accepted: []string{"Moon"},
							Mistakes: []poll.TextMistake{{Name: "took the Sun", Texts: []string{"Sun"}}}}},
						{Text: ". At new moon and full moon they are "},
						{Blank: &poll.Blank{ID: "g2", Accepted: []string{"higher"},
							Offered: []string{"higher", "lower", "the same"}}},
						{Text: "."},
					}}}}),
		newPage("lit", "Sort", "", whole).
			question(poll.Question{Text: "What shines by itself?", Body: poll.Body{Kind: poll.KindBoxes,
				Boxes: &poll.Boxes{
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
			question(poll.Question{Text: "What do you still wonder about?", Body: poll.Body{Kind: poll.KindOpen,
				Open: &poll.Free{}}}),
	)
}

// game makes cards of words, two and two of which belong together.
func game(words ...string) poll.Body {
	cards := offered("w", words...)
	m := &poll.Memory{}
	for i := 0; i < len(cards); i += 2 {
		m.Pairs = append(m.Pairs, poll.CardPair{One: cards[i], Other: cards[i+1]})
	}
	return poll.Body{Kind: poll.KindMemory, Memory: m}
}

// row asks questions in a row.
func (p *page) row(s lesson.Set, questions ...poll.Question) *page {
	for _, q := range questions {
		p.question(q)
	}
	p.Set = &s
	return p
}

// parting asks a few questions before the class goes, each on their own.
func parting() lesson.Board {
	goals := []lesson.Objective{{ID: "why2", Text: "Why there are two high tides a day"}}
	turns := offered(
		"e",
		"because the sea is tired",
		"*because the Earth turns under two bulges",
		"because the Moon comes twice",
	)
	turns[2].Mistake = "lets the Moon go around twice a day"
	neap := offered("k", "at new moon", "*at the first quarter", "at full moon", "*at the last quarter")
	return bound("Before you go: tides", goals,
		newPage("row", "Five questions before you go", "Two tries for each. What is right comes at once.", whole).
			serving("why2").
			row(lesson.Set{OwnPace: true, Feedback: lesson.FeedbackAtOnce, Tries: 2, Race: true},
				poll.Question{
					Text:       "Why are there two high tides a day?",
					Body:       poll.Offer(turns...),
					Objectives: []string{"why2"},
					Why:        "There is a bulge towards the Moon and one away from it; we turn through both.",
				},
				poll.Question{Text: "High tide is at 06:10. About when is the next high tide?", Body: poll.Offer(
					offered("i", "12:10", "12:25", "*18:35", "06:10 the next day")...)},
				poll.Question{Text: "When is the difference between high and low water small?",
					Body: poll.Body{Kind: poll.KindSeveral, Several: &poll.Several{Options: neap}}},
				poll.Question{Text: "The Sun has no part in the tides.",
					Body: poll.Body{Kind: poll.KindTruth, Truth: &poll.Truth{Is: poll.IsFalse, NotSure: true}}},
				poll.Question{Text: "High water stands at 4.6 m, low water at 1.3 m. How large is the range?",
					Body: poll.Body{
						Kind: poll.KindNumber,
						Number: &poll.Number{Language: "en", Answer: "3.3", Unit: "m",
							UnitRule: poll.MayUnit, Tolerance: number.Tolerance{Is: number.Exact},
							Mistakes: []poll.NumberMistake{{Name: "added instead of taking away", From: "5.9"}}},
					}}),
		newPage("end", "Three at your own pace", "Look over them before you hand in.", whole).
			row(lesson.Set{OwnPace: true, Feedback: lesson.FeedbackAtEnd},
				poll.Question{
					Text: "What is the time between two high tides called?",
					Body: poll.Body{Kind: poll.KindShort,
						Short: &poll.Short{Accepted: []string{"tidal period", "period"}, Slips: 2}},
				},
				poll.Question{Text: "Tides are strongest at full moon and …", Body: poll.Offer(
					offered("y", "*new moon", "first quarter", "last quarter")...)},
				poll.Question{
					Text: "What did you find hardest today?",
					Body: poll.Body{Kind: poll.KindOpen, Open: &poll.Free{}},
				}),
		newPage("together", "Three together", "We go from one to the next.", whole).
			row(lesson.Set{},
				poll.Question{Text: "The far side of the Moon is always dark.",
					Body: poll.Body{Kind: poll.KindTruth, Truth: &poll.Truth{Is: poll.IsFalse, NotSure: true}}},
				poll.Question{Text: "Which is nearer to us on average?", Body: poll.Offer(
					offered("z", "the Sun", "*the Moon")...)},
				poll.Question{Text: "How sure are you now about the tides?", Body: poll.Body{Kind: poll.KindScale,
					Scale: &poll.Scale{Steps: 5, Low: "not at all", High: "very"}}}),
		newPage("cards", "For those who are done", "Two cards at a time.", whole).
			question(poll.Question{Text: "What belongs together?", Body: game(
				"spring tide", "Sun, Moon and Earth in one line", "neap tide", "Sun and Moon at a right angle",
				"ebb", "the water goes down", "flood", "the water comes up",
				"tidal range", "from low water to high water", "12 h 25 min", "from one high tide to the next")}),
	)
}

package demo

import (
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
)

// Whom a frame is for.
const (
	whole  = lesson.WholeClass
	groups = lesson.Groups
	own    = lesson.Individual
)

// boards lists for each of the staff what they have prepared.
func boards() [][]lesson.Board {
	return [][]lesson.Board{
		{moonAndTides(), knowledge(), parting(), foodWeb(), shadows()},
		{fractions(), straightLines()},
		{harbour(), shipwreck(), weekly()},
	}
}

// foodWeb lets pieces be sorted, tied together, and asks again after talking.
func foodWeb() lesson.Board {
	goals := []lesson.Objective{{ID: "roles", Text: "Living things can be sorted into makers, eaters and decomposers"},
		{ID: "chain", Text: "What happens to a food web when one kind is missing can be said with a reason"}}
	return bound(
		"Life on the shore",
		goals,
		newPage("seen", "What lives there?", "What have you seen on the shore? One note for each thing.", whole).
			columns("Plants", "Animals", "I am not sure").noted("Let them name what they know from home first.", 300),
		newPage(
			"sort",
			"Who eats whom?",
			"Put each card where it belongs. Two cards are hard: talk about them.",
			groups,
		).
			shape(lesson.FormRect, 60, 170, 470, 780, "fern", "moss").
			text("Makers", 90, 190, 400, 36).
			shape(lesson.FormRect, 565, 170, 470, 780, "lake", "glacier").
			text("Eaters", 595, 190, 400, 36).
			shape(lesson.FormRect, 1070, 170, 470, 780, "plum", "lilac").
			text("Decomposers", 1100, 190, 400, 36).
			cards("apricot", "kelp", "limpet", "shore crab", "gull", "bacteria", "barnacle", "plankton", "sea star",
				"lugworm").
			serving("roles").
			noted("Lugworm and plankton are the hard ones.", 480),
		newPage("missing", "If the limpets go", "Choose first on your own, then talk with your neighbour.", whole).
			ask("All limpets die. What happens first?", "*There is more seaweed", "There is less seaweed",
				"The gulls go hungry",
				"Nothing").
			serving("chain"),
		newPage("web", "Our food web", "Draw arrows from what is eaten to who eats it.", own).
			shape(lesson.FormEllipse, 640, 440, 320, 130, "lake", "glacier").text("rock pool", 720, 476, 240, 38).
			supply("question").serving("roles", "chain"),
	)
}

// shadows measures on a plane and keeps the answer under a cover.
func shadows() lesson.Board {
	return bound("Light and shadow", nil,
		newPage("guess", "A stick in the sun", "When is its shadow shortest? Write your guess and why.", whole).
			columns("Morning", "Noon", "Evening"),
		newPage("plot", "Measured today", "Put a pin for each hour: how long was the shadow?", own).
			on(paper.Paper{Kind: paper.Axes, X: &paper.Axis{From: 8, To: 18, Step: 1, Label: "hour"},
				Y: &paper.Axis{From: 0, To: 200, Step: 20, Label: "cm"}}).supply("pin"),
		newPage("why", "Why?", "Where does the sun stand at noon?", whole).
			shape(lesson.FormEllipse, 1180, 190, 170, 170, "ember", "apricot").line(300, 860, 1000, 0, "night").
			shape(lesson.FormRect, 790, 600, 18, 260, "night", "snow").
			text("The higher the sun, the shorter the shadow.", 180, 300, 620, 40).
			cover(160, 280, 660, 130, "The rule"))
}

// fractions works on number lines, alone and quickly.
func fractions() lesson.Board {
	goals := []lesson.Objective{{ID: "order", Text: "Fractions can be put in order on a number line"}}
	return bound("Fractions on a line", goals,
		newPage("warm", "Warm up", "Which of these is larger? Write how you know.", own).
			text("3/4", 380, 380, 260, 110).text("or", 740, 420, 120, 60).text("5/8", 980, 380, 260, 110).
			noted("Two minutes, no talking.", 120),
		newPage("line", "Where do they stand?", "Put a pin where each fraction stands: 1/2, 3/4, 5/8, 7/6.", own).
			on(paper.Paper{Kind: paper.NumberLine, X: &paper.Axis{From: 0, To: 2, Step: 0.25}}).
			supply("pin").serving("order"),
		newPage("equal", "The same number", "Choose one answer.", whole).
			ask("Which fraction is equal to 6/8?", "2/3", "*3/4", "5/7", "8/6").serving("order"),
		newPage("exit", "Before you go", "One thing that is clear now, one that is not.", own).
			columns("Clear now", "Not clear yet"))
}

// straightLines draws graphs and asks about them.
func straightLines() lesson.Board {
	plane := paper.Paper{Kind: paper.Axes, X: &paper.Axis{From: -6, To: 6, Step: 1, Label: "x"},
		Y: &paper.Axis{From: -4, To: 4, Step: 1, Label: "y"}}
	return bound("Straight lines", nil,
		newPage("draw", "Draw it", "Draw y = 2x - 1 and y = -x + 2. Where do they meet?", own).on(plane),
		newPage("slope", "How steep?", "Choose one answer.", whole).
			ask("Which line is the steepest?", "y = 2x + 5", "*y = -3x", "y = x - 9", "y = 0.5x + 20"),
		newPage("taxi", "Two taxis", "Write what each number in the table tells you.", groups).
			table(60, 170, 760, 300, []string{"", "start", "each km"}, []string{"Harbour taxi", "4.00", "1.50"},
				[]string{"Lighthouse cars", "2.50", "1.90"}))
}

// harbour reads a source together.
func harbour() lesson.Board {
	return bound(
		"The harbour in 1890",
		nil,
		newPage("source", "A page of the harbour master", "Read the list. What do you see, think, and wonder?", whole).
			columns("I see", "I think", "I wonder").noted("Ask who wrote it, and for whom.", 600),
		newPage("list", "Ships of one day", "Mark what surprises you with a stamp, and write why.", own).
			table(60, 170, 900, 420, []string{"Ship", "from", "carries", "people"},
				[]string{
					"Marigold",
					"the islands",
					"wool",
					"9",
				}, []string{"Two Sisters", "the north", "salt fish", "14"},
				[]string{
					"Perseverance",
					"over the sea",
					"tea, letters",
					"31",
				}, []string{"Little Auk", "the next bay", "nothing", "3"}).
			supply("question"),
		newPage("order", "What happened when?", "Put the events in order.", groups).
			line(100, 560, 1400, 0, "night").text("earlier", 100, 590, 200, 30).text("later", 1400, 590, 200, 30).
			cards("glacier", "the lighthouse is lit", "the railway comes", "the fish market opens", "the storm",
				"the new pier"),
		newPage(
			"today",
			"And today?",
			"What is carried through the harbour today? One note each.",
			whole,
		).columns("Goods", "People", "News"),
	)
}

// shipwreck tells a story in pictures and words.
func shipwreck() lesson.Board {
	tell := newPage("tell", "Six pictures", "Draw the story in six pictures. Write one line under each.", own)
	for i := range 6 {
		x, y := 70+500*float64(i%3), 180+390*float64(i/3)
		tell.shape(lesson.FormRect, x, y, 460, 260, "night", "snow").line(x, y+330, 460, 0, "lake")
	}
	return bound(
		"The night of the storm",
		nil,
		newPage(
			"words",
			"Words of the sea",
			"Which words make you hear the storm? Add your own.",
			whole,
		).columns("Hear", "See", "Feel"),
		tell,
		newPage("write", "The first sentence", "Write the first sentence of your story in your best hand.", own).
			on(paper.Paper{Kind: paper.Handwriting}),
		newPage("help", "Tell each other", "Read a story of somebody else. What works? What would you ask?", whole).
			columns("This works", "I would ask"),
	)
}

// weekly begins and ends a week.
func weekly() lesson.Board {
	ask := newPage("how", "How are you today?", "Choose one. Nobody else sees who chose what.", whole).
		ask("How do you come into this week?", "Full of wind", "Calm", "A bit foggy", "Stormy")
	end := newPage(
		"end",
		"The week",
		"What will you remember of this week?",
		whole,
	).columns("I learned", "I liked", "Next week I want to")
	end.Replies = true
	return bound("Begin and end the week", nil, ask,
		newPage("plan", "Plans", "What do you want to get done? Put your notes in order.", own), end)
}

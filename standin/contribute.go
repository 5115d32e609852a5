package standin

import (
	"math"
	"regexp"
	"slices"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"

	"github.com/google/uuid"
)

func newID() string { return uuid.Must(uuid.NewV7()).String() }

// enough is after how much on one frame a student has done what is asked.
const enough = 7

// contribute decides what to add or change on a frame.
func (s *student) contribute(f lesson.Frame, there []lesson.Element, me string) sheet.Step {
	if s.temper == fooling {
		return s.fool()
	}
	if step, ok := s.movePiece(f, there); ok && s.random.IntN(3) > 0 {
		return step
	}
	roll := s.random.IntN(10)
	var others []lesson.Element
	for _, e := range there {
		if e.Kind == lesson.KindNote && e.Author != me && !slices.Contains(e.Agreed, me) {
			others = append(others, e)
		}
	}
	switch {
	case roll < 2 && len(others) > 0:
		return sheet.Step{Kind: sheet.KindAgree,
			Agree: &sheet.Agree{Mark: others[s.random.IntN(len(others))].ID, Yes: true}}
	case (len(s.marks) >= enough || roll < 3 && len(s.marks) > 0) && !f.Layout.InColumns():
		x, y := s.place(240, 120)
		return sheet.Step{Kind: sheet.KindSet,
			Set: &sheet.Set{Mark: s.marks[s.random.IntN(len(s.marks))], Properties: lesson.Properties{X: &x, Y: &y}}}
	case roll < 7 || f.Arrangement != lesson.Individual:
		return s.note(f)
	}
	return s.draw()
}

// place is where something of a size goes, below the prompt.
func (s *student) place(w, h float64) (x, y float64) {
	tenth := func(v float64) float64 { return math.Round(v*10) / 10 }
	return tenth(30 + s.random.Float64()*(lesson.FrameWidth-w-60)),
		tenth(150 + s.random.Float64()*(lesson.FrameHeight-h-180))
}

func (s *student) add(w, h float64, free bool, b lesson.Body) sheet.Step {
	x, y := s.place(w, h)
	id := newID()
	// A piece that was copied is not moved again: marks holds what may be.
	s.marks = append(s.marks, id)
	return sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: id, X: x, Y: y, W: w, H: h, Free: free, Body: b}}
}

func (s *student) note(f lesson.Frame) sheet.Step {
	s.notes++
	note := &lesson.Note{Text: s.words(f), Tint: lesson.Tints[1+s.random.IntN(5)]}
	if n := len(f.Layout.Columns); n > 0 {
		note.Column = f.Layout.Columns[s.random.IntN(n)].ID
	}
	return s.add(260, 100, true, lesson.Body{Kind: lesson.KindNote, Note: note})
}

// draw draws a line as a hand does: an arc, a loop or a wave, with a tremble.
func (s *student) draw() sheet.Step {
	turn, wave := 1+2*s.random.Float64(), s.random.IntN(2) == 0
	points := make([]float64, 0, 120)
	for i := range 40 {
		t := float64(i) / 39
		x, y := 110+100*math.Cos(2*turn*t), 90+80*math.Sin(2*turn*t)
		if wave {
			x, y = 220*t, 90+50*math.Sin(6*t*turn)
		}
		points = append(points, math.Round((x+2*s.random.Float64())*10)/10, math.Round((y+2*s.random.Float64())*10)/10,
			math.Round((0.4+0.3*s.random.Float64())*100)/100)
	}
	return s.add(230, 190, false, lesson.Body{Kind: lesson.KindStroke,
		Stroke: &lesson.Stroke{Points: points, Ink: lesson.Inks[s.random.IntN(5)], Width: 8}})
}

// movePiece takes a piece to one of three columns, as when sorting.
func (s *student) movePiece(f lesson.Frame, there []lesson.Element) (sheet.Step, bool) {
	moved := map[string]bool{}
	for _, e := range there {
		if e.Placed != nil {
			moved[e.Placed.Piece] = true
		}
	}
	for _, p := range f.Prepared {
		if p.Layer == lesson.Fixed || moved[p.ID] && s.random.IntN(12) > 0 {
			continue
		}
		column := float64(s.random.IntN(3))
		x := math.Min(lesson.FrameWidth-p.W, 90+500*column+math.Round(120*s.random.Float64()))
		y := math.Min(lesson.FrameHeight-p.H, 220+math.Round(600*s.random.Float64()))
		if p.Layer == lesson.Supply {
			return sheet.Step{Kind: sheet.KindAdd,
				Add: &sheet.Add{Mark: newID(), X: x, Y: y,
					Body: lesson.Body{Kind: lesson.KindPlaced, Placed: &lesson.Placed{Piece: p.ID}}}}, true
		}
		return sheet.Step{Kind: sheet.KindSet,
			Set: &sheet.Set{Mark: p.ID, Properties: lesson.Properties{X: &x, Y: &y}}}, true
	}
	return sheet.Step{}, false
}

var nonsense = []string{"ha ha ha ha ha", "is it lunch yet???", "my tide pool has a shark in it", "aaaaaaaaaa",
	"pirates were here", "who moved my note >:("}

// fool does what somebody does who wants to be seen.
func (s *student) fool() sheet.Step {
	if len(s.marks) > 12 {
		gone := s.marks[0]
		s.marks = s.marks[1:]
		return sheet.Step{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: gone}}
	}
	switch s.random.IntN(3) {
	case 0:
		return s.add(96, 96, false, lesson.Body{Kind: lesson.KindStamp,
			Stamp: &lesson.Stamp{Sign: lesson.Signs[s.random.IntN(len(lesson.Signs))]}})
	case 1:
		return s.draw()
	}
	return s.add(300, 120, true, lesson.Body{Kind: lesson.KindNote,
		Note: &lesson.Note{Text: nonsense[s.random.IntN(len(nonsense))], Tint: "rose", Size: 40}})
}

// About some things the students have something to say: the first that the frame is
// about.
var sayings = []struct {
	topic string
	lines []string
}{
	{"tide", []string{"High tide comes about 50 minutes later every day.", "There are two high tides a day.",
		"It takes a bit more than 6 hours from low to high.",
		"I think the tide follows the Moon.", "Low tide is not at the same time each day.",
		"Why are there two and not one?"}},
	{"moon", []string{"At half moon we see the side that the Sun lights.",
		"The Moon goes once round the Earth in about a month.", "The Moon does not shine by itself.",
		"New moon is when it stands between Sun and Earth.", "It always shows us the same side."}},
	{"shadow", []string{"At noon it is shortest.", "It points away from the sun.", "In the morning it is very long.",
		"I think it also depends on the month.", "Ours was 43 cm at noon."}},
	{"fraction", []string{"The bottom number says into how many parts.", "One half is the same as two quarters.",
		"3/4 is 6/8, so it is more than 5/8.", "I compared them with one half first.", "7/6 is more than one whole."}},
	{
		"line",
		[]string{"The number before x says how steep it is.", "They meet at (1, 1).", "A minus goes down to the right.",
			"I made a table first.", "Where it crosses the y axis is the start."},
	},
	{"harbour", []string{"Most ships are quite small.", "Letters came by ship too.", "Why does one ship carry nothing?",
		"Thirty-one people is a lot for that time.", "I wonder who the people were.", "Tea must have been expensive."}},
	{"storm", []string{"The mast groaned like an old door.", "rain like gravel", "Nobody dared to speak.",
		"The light went out at midnight.", "salt on my lips", "The sea came through the floor."}},
	{
		"shore",
		[]string{
			"There are barnacles on every stone.",
			"Crabs hide under the weed.",
			"The limpets do not move when you touch them.",
			"I found a sea star with four arms.",
			"Gulls drop mussels on the stones.",
		},
	},
	{"food", []string{"Without makers nobody eats.", "Bacteria are decomposers.", "The gull eats almost everything."}},
	{
		"week",
		[]string{"I learned to ask for help.", "The trip to the pier was good.", "Next week I want to finish my story.",
			"I liked the tide table.", "More drawing, please."},
	},
	{"plant", []string{"Plants need light to grow.", "The roots take up the water."}},
}

// What can be said about anything; the gap is for a word of the frame.
var openings = []string{"I notice the %s.", "Maybe it is because of the %s.", "Is it always like that with the %s?",
	"The %s is different from the others.",
	"I do not understand the %s yet.", "We saw the %s last week.", "It reminds me of another %s."}

var longWords = regexp.MustCompile(`[\p{L}]{4,}`)

// common words say nothing about what a frame is about.
var common = strings.Fields(
	"what when where which with that this they them then from your have does notice draw each " +
		"here there " +
		"think write about their into only right left both most least first second third answer answers choose",
)

// words are a note that fits the frame.
func (s *student) words(f lesson.Frame) string {
	about := strings.ToLower(f.Title + " " + f.Prompt)
	for _, e := range f.Prepared {
		about += " " + strings.ToLower(e.Words())
	}
	for _, said := range sayings {
		if strings.Contains(about, said.topic) && s.random.IntN(3) > 0 {
			return said.lines[s.random.IntN(len(said.lines))]
		}
	}
	found := slices.DeleteFunc(longWords.FindAllString(about, 40),
		func(w string) bool { return slices.Contains(common, w) })
	if len(found) == 0 {
		found = []string{"example", "picture", "number"}
	}
	return strings.Replace(openings[s.random.IntN(len(openings))], "%s", found[s.random.IntN(len(found))], 1)
}

package record

import (
	"io"
	"slices"
	"strconv"
	"unicode"

	"alpenglow/core/insight"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"

	"github.com/rivo/uniseg"
)

// Coverage is who has done how much on which frame.
type Coverage struct {
	Frames   []Covered      `json:"frames"`
	Students []CoveredBy    `json:"students"`
	Spoken   insight.Spread `json:"spoken"`
}

// Covered is a frame of the lesson.
type Covered struct {
	ID    string `json:"id"`
	Title string `json:"title"`
}

// CoveredBy is what a student has done: a cell for each frame, in their order, nil
// for nothing.
type CoveredBy struct {
	Student
	Cells []*Cell `json:"cells"`
}

// Cell is what a student has done on a frame: how many things are there, and of
// which kinds; how many words they have; how many answers, of these how many are right
// and wrong in the last round; and whether they have said that they are done.
type Cell struct {
	Marks   int  `json:"marks,omitempty"`
	Notes   int  `json:"notes,omitempty"`
	Words   int  `json:"words,omitempty"`
	Ink     int  `json:"ink,omitempty"`
	Pieces  int  `json:"pieces,omitempty"`
	Answers int  `json:"answers,omitempty"`
	Right   int  `json:"right,omitempty"`
	Wrong   int  `json:"wrong,omitempty"`
	Done    bool `json:"done,omitempty"`
}

// Coverage says who has done how much on which frame; done lists for each frame those
// who have said that they are done with it.
func (r Record) Coverage(done map[string][]string) Coverage {
	c := Coverage{Frames: make([]Covered, len(r.Board.Frames)), Students: make([]CoveredBy, len(r.Students))}
	for i, f := range r.Board.Frames {
		c.Frames[i] = Covered{f.ID, f.Title}
	}
	amounts := make([]int, len(r.Students))
	for i, s := range r.Students {
		c.Students[i] = CoveredBy{s.Student, make([]*Cell, len(s.Frames))}
		for j, f := range s.Frames {
			cell := f.cell()
			cell.Done = slices.Contains(done[f.Frame], s.ID)
			amounts[i] += cell.Marks + cell.Answers
			if cell != (Cell{}) {
				c.Students[i].Cells[j] = &cell
			}
		}
	}
	c.Spoken = insight.Spoken(amounts)
	return c
}

func (f OnFrame) cell() Cell {
	c := Cell{Marks: len(f.Marks)}
	for _, m := range f.Marks {
		c.Words += words(m.Words())
		switch m.Kind {
		case lesson.KindNote, lesson.KindReply:
			c.Notes++
		case lesson.KindStroke:
			c.Ink++
		case lesson.KindPlaced:
			c.Pieces++
		}
	}
	// Of each question the answer of its last round counts.
	last := map[string]Answered{}
	for _, a := range f.Answers {
		if was, ok := last[a.Poll]; !a.Late && (!ok || a.Round > was.Round) {
			last[a.Poll] = a
		}
	}
	c.Answers = len(last)
	for _, a := range last {
		switch a.Verdict {
		case poll.Right:
			c.Right++
		case poll.Wrong:
			c.Wrong++
		}
	}
	return c
}

// words counts the words of a text, by the boundaries of Unicode's annex 29: what has a
// letter or a digit is one.
func words(text string) int {
	n, state := 0, -1
	for len(text) > 0 {
		var word string
		word, text, state = uniseg.FirstWordInString(text, state)
		for _, r := range word {
			if unicode.IsLetter(r) || unicode.IsDigit(r) {
				n++
				break
			}
		}
	}
	return n
}

// CSV writes a line for each student and frame; see docs/formats/coverage-csv.md.
func (c Coverage) CSV(w io.Writer) error {
	if _, err := io.WriteString(w, byteOrderMark); err != nil {
		return err
	}
	out := quoted{w}
	if err := out.line([]string{"student", "frame", "title", "things", "notes", "words", "lines", "pieces", "answers",
		"right", "wrong", "done"}); err != nil {
		return err
	}
	for _, s := range c.Students {
		for i, f := range c.Frames {
			cell := Cell{}
			if s.Cells[i] != nil {
				cell = *s.Cells[i]
			}
			row := []string{harmless(s.Name), strconv.Itoa(i + 1), harmless(f.Title)}
			for _, n := range []int{cell.Marks, cell.Notes, cell.Words, cell.Ink, cell.Pieces, cell.Answers, cell.Right,
				cell.Wrong} {
				row = append(row, strconv.Itoa(n))
			}
			done := "no"
			if cell.Done {
				done = "yes"
			}
			if err := out.line(append(row, done)); err != nil {
				return err
			}
		}
	}
	return nil
}

package output

import (
	"fmt"
	"slices"
	"strings"
	"unicode"

	"alpenglow/core/assess"
	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/paint"
	"alpenglow/core/record"
	"alpenglow/core/sheet"
)

// Source is from what something is taken out: a board, or a lesson with what was done in it.
type Source struct {
	Board lesson.Board
	// Lifted are the covers that the class has seen lifted.
	Lifted []string
	// On are the marks of each sheet, by frame and owner, from the lowest to the highest.
	On []Sheet
	// Kept is what each student left.
	Kept record.Record
	// Judged is what the one who takes it out thinks of the work.
	Judged []assess.Judged
	// GroupName names a group by its number.
	GroupName func(number int) string
}

// Sheet is a sheet of a frame.
type Sheet struct {
	Frame, Owner string
	Marks        []lesson.Element
}

// Leaf is one picture: a frame with marks, whose it is, and what is thought of it.
type Leaf struct {
	N     int // the frame's place on the board, from 1
	Frame lesson.Frame
	Marks []lesson.Element
	Who   string
	Level string
	Says  string
	names paint.Names
}

// Painting paints the leaf.
func (l Leaf) Painting() paint.Painting {
	p := paint.Frame(l.Frame, l.Marks, l.names)
	p.Title = l.Title()
	return p
}

// Title says which frame it is, and whose.
func (l Leaf) Title() string {
	title := strings.TrimSpace(fmt.Sprintf("%d. %s", l.N, l.Frame.Title))
	if l.Who != "" {
		return l.Who + " · " + title
	}
	return title
}

// File is a name for a file of the leaf, the at-th of all: no sign in it means anything to a file system.
func (l Leaf) File(at int) string {
	return fmt.Sprintf("%03d-%s", at+1, Plain(l.Title()))
}

// Plain makes a file's name of words: letters and digits of any writing, and hyphens between them.
func Plain(words string) string {
	const most = 60
	parts := strings.FieldsFunc(
		words,
		func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) && !unicode.IsMark(r) },
	)
	name := []rune(strings.ToLower(strings.Join(parts, "-")))
	if len(name) > most {
		name = name[:most]
	}
	if len(name) == 0 {
		return "frame"
	}
	return string(name)
}

// Leaves lists what is taken out, frame by frame of the board or student by student. Who may
// see what is asked here: nothing that the class may not see is on what is for the class, and names are on
// it only where they are wished for.
func (w Wish) Leaves(s Source) []Leaf {
	var leaves []Leaf
	add := func(i int, marks []lesson.Element, owner, student string) {
		f := s.Board.Frames[i]
		l := Leaf{N: i + 1, Frame: f, Marks: marks}
		if w.AsClass {
			l.Frame = f.ForClass(s.Lifted)
			l.Marks = slices.DeleteFunc(slices.Clone(marks), func(e lesson.Element) bool {
				return !audience.Class().Mark(e) && !(e.IsAnswer() && student != "")
			})
		}
		if w.Names {
			l.names, l.Who = s.name, s.who(owner, student)
		}
		if w.Judged && student != "" {
			var ink []lesson.Element
			l.Level, l.Says, ink = s.judged(student, f.ID)
			if w.Form != InkML { // which has what the student drew
				l.Marks = append(slices.Clip(l.Marks), ink...)
			}
		}
		leaves = append(leaves, l)
	}
	switch w.What {
	case Board:
		for i, f := range s.Board.Frames {
			if w.takes(f.ID) {
				add(i, nil, "", "")
			}
		}
	case Sheets:
		for i, f := range s.Board.Frames {
			on := s.on(f)
			for _, one := range on {
				if w.takes(f.ID) && (len(w.Students) == 0 || slices.Contains(w.Students, one.Owner)) {
					add(i, one.Marks, one.Owner, "")
				}
			}
		}
	case Students:
		for _, kept := range s.Kept.Students {
			if len(w.Students) > 0 && !slices.Contains(w.Students, kept.ID) {
				continue
			}
			for i, on := range kept.Frames {
				if w.takes(on.Frame) && len(on.Marks)+len(on.Answers) > 0 {
					add(i, withAnswers(on, kept.ID), "", kept.ID)
				}
			}
		}
	}
	return leaves
}

func (w Wish) takes(frame string) bool { return len(w.Frames) == 0 || slices.Contains(w.Frames, frame) }

// on lists the sheets of a frame that have something on them; where none has, the frame is there once.
func (s Source) on(f lesson.Frame) []Sheet {
	var all []Sheet
	for _, one := range s.On {
		if one.Frame == f.ID && slices.ContainsFunc(one.Marks, lesson.Element.OnFrame) {
			all = append(all, one)
		}
	}
	if len(all) == 0 {
		return []Sheet{{Frame: f.ID, Owner: sheet.ClassOwner}}
	}
	slices.SortStableFunc(all, func(a, b Sheet) int { return strings.Compare(s.order(a.Owner), s.order(b.Owner)) })
	return all
}

// order puts the class first, then groups by number, then students by name.
func (s Source) order(owner string) string {
	switch n := sheet.GroupNumber(owner); {
	case owner == sheet.ClassOwner:
		return "0"
	case n > 0:
		return fmt.Sprintf("1 %06d", n)
	}
	return "2 " + s.name(owner)
}

func (s Source) name(id string) string {
	for _, k := range s.Kept.Students {
		if k.ID == id {
			return k.Name
		}
	}
	return ""
}

func (s Source) who(owner, student string) string {
	if student != "" {
		return s.name(student)
	}
	if n := sheet.GroupNumber(owner); n > 0 && s.GroupName != nil {
		return s.GroupName(n)
	}
	return s.name(owner)
}

// withAnswers gives a student's marks on a frame with their answers as marks, as a sheet has them.
func withAnswers(on record.OnFrame, student string) []lesson.Element {
	marks := slices.Clone(on.Marks)
	for _, a := range on.Answers {
		marks = append(marks, lesson.Element{Author: student, At: a.At,
			Body: lesson.Body{
				Kind:   lesson.KindAnswer,
				Answer: &lesson.Answer{Poll: a.Poll, Round: a.Round, Value: a.Value},
			}})
	}
	return marks
}

// judged gives the level of a student's frame, the words about it with what was thought by each criterion, and what
// was drawn on it.
func (s Source) judged(student, frame string) (level, says string, ink []lesson.Element) {
	var words []string
	for _, j := range s.Judged {
		switch {
		case j.Student != student || j.Frame != frame || j.Mark != "":
		case j.Criterion != "" && j.Level != nil && j.Level.By != nil:
			words = append(words, j.Level.By.Name+": "+j.Level.Name())
		case j.Criterion == "":
			if j.Level != nil {
				level = j.Level.Name()
			}
			if j.Comment != "" {
				words = append(words, j.Comment)
			}
			ink = j.Ink
		}
	}
	return level, strings.Join(words, " · "), ink
}

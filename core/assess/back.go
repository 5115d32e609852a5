package assess

import (
	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/record"
	"alpenglow/core/session"
	"alpenglow/core/settings"
)

// Told is a level, words, or both, as a student gets them; Grid is what was thought by each criterion.
type Told struct {
	Level *Level `json:"level,omitempty"`
	Word
	Grid []Level `json:"grid,omitempty"`
}

// tell adds something that was noted of all of a lesson or a frame, or by a criterion.
func tell(to *Told, j Judged) *Told {
	if to == nil {
		to = &Told{}
	}
	if j.Criterion == "" {
		to.Level, to.Word = j.Level, j.Word
	} else if j.Level != nil && j.Level.By != nil {
		to.Grid = append(to.Grid, *j.Level)
	}
	return to
}

// Back is what goes back to a student of a lesson: their own work, what was right and why, and
// what the teacher thinks of it. There is nothing of others in it, and no name of a mistake.
type Back struct {
	Title  string      `json:"title"`
	Name   string      `json:"name"`
	At     int64       `json:"at"` // when the lesson began, in milliseconds since 1970
	Whole  *Told       `json:"whole,omitempty"`
	Frames []BackFrame `json:"frames"`
	// Language is that of the class.
	Language settings.Language `json:"language"`
}

// BackFrame is a frame on which the student has left something, or of which the teacher says
// something: as the class saw it, with what is right.
type BackFrame struct {
	N       int              `json:"n"` // its place on the board, from 1
	Frame   lesson.Frame     `json:"frame"`
	Marks   []lesson.Element `json:"marks"`
	Answers []BackAnswer     `json:"answers"`
	Judged  *Told            `json:"judged,omitempty"`
	// Marked is what is said of single marks and answers, by their ids.
	Marked map[string]Told `json:"marked,omitempty"`
}

// BackAnswer is an answer of the student's: what they said, what is thought of it, and what
// would be right.
type BackAnswer struct {
	Mark    string       `json:"mark"`
	Poll    string       `json:"poll"`
	Round   int          `json:"round"`
	Value   poll.Value   `json:"value"`
	Asked   string       `json:"asked"`
	Text    string       `json:"text"`
	Verdict poll.Verdict `json:"verdict,omitempty"`
	Reason  poll.Reason  `json:"reason,omitempty"`
	Late    bool         `json:"late,omitempty"`
	Right   string       `json:"right,omitempty"`
	Why     string       `json:"why,omitempty"`
}

// BackTo gives what goes back to a student, of what is kept of a lesson and what the teachers
// noted; teacher is the one whose lesson it was. False where the student was not there.
func BackTo(kept record.Record, state session.State, all []Judged, student, teacher string) (Back, bool) {
	b := Back{Title: kept.Board.Title, Frames: []BackFrame{}}
	for _, s := range kept.Students {
		if s.ID != student {
			continue
		}
		b.Name = s.Name
		given := Given(all, student, teacher, kept.Board)
		for i, on := range s.Frames {
			f := backFrame(kept.Board.Frames[i], on, state, student)
			f.N = i + 1
			for _, j := range given {
				switch {
				case j.Frame != on.Frame:
				case j.Mark == "":
					f.Judged = tell(f.Judged, j)
				default:
					if f.Marked == nil {
						f.Marked = map[string]Told{}
					}
					f.Marked[j.Mark] = *tell(nil, j)
				}
			}
			if len(f.Marks) > 0 || len(f.Answers) > 0 || f.Judged != nil {
				b.Frames = append(b.Frames, f)
			}
		}
		for _, j := range given {
			if j.Frame == "" {
				b.Whole = tell(b.Whole, j)
			}
		}
		return b, true
	}
	return b, false
}

func backFrame(f lesson.Frame, on record.OnFrame, state session.State, student string) BackFrame {
	b := BackFrame{Frame: state.AsAsked(f.ForClass(state.Lifted)), Marks: []lesson.Element{}, Answers: []BackAnswer{}}
	prepared := b.Frame.Prepared
	b.Frame.Prepared = make([]lesson.Element, len(prepared))
	for i, e := range prepared {
		if e.Poll != nil {
			asked := e.Poll.ForClass(poll.Revealed)
			e.Poll = &asked
		}
		b.Frame.Prepared[i] = e
	}
	own := audience.Student(student, 0)
	for _, m := range on.Marks {
		if own.Mark(m) {
			m.Agreed, m.By = nil, ""
			b.Marks = append(b.Marks, m)
		}
	}
	for _, a := range on.Answers {
		asked, err := f.Poll(a.Poll)
		if err != nil {
			continue
		}
		q := asked.Poll.In(a.Round)
		b.Answers = append(b.Answers, BackAnswer{Mark: poll.AnswerID(a.Poll, a.Round), Poll: a.Poll, Round: a.Round,
			Value: a.Value, Asked: q.Text, Text: a.Text, Verdict: a.Verdict, Reason: a.Reason, Late: a.Late,
			Right: q.Right(), Why: q.Why})
	}
	return b
}

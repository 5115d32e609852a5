// Package assess answers: what does a teacher think of somebody's work, how far do two
// teachers agree, and what of it goes back to the student?
package assess

import (
	"cmp"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
)

// Piece is what is judged: a student's whole lesson, or their frame, or one mark on it, which
// may be an answer; of a whole lesson or frame, all of it or by one criterion.
type Piece struct {
	Student   string `json:"student"`
	Frame     string `json:"frame,omitempty"`
	Mark      string `json:"mark,omitempty"`
	Criterion string `json:"criterion,omitempty"`
}

// Whole says that all of a lesson or frame is judged, not by one criterion, and not one mark.
func (p Piece) Whole() bool { return p.Mark == "" && p.Criterion == "" }

// In reports what is wrong with a piece of what is kept of a lesson.
func (p Piece) In(kept record.Record) error {
	at := slices.IndexFunc(kept.Students, func(s record.Kept) bool { return s.ID == p.Student })
	switch {
	case at < 0:
		return refusal.New(refusal.NoSuchWork)
	case p.Mark != "" && p.Criterion != "":
		return refusal.New(refusal.NoSuchMark)
	case p.Frame == "" && p.Mark == "":
		return nil
	}
	on := slices.IndexFunc(kept.Students[at].Frames, func(f record.OnFrame) bool { return f.Frame == p.Frame })
	if on < 0 {
		return refusal.New(refusal.NoSuchFrame)
	}
	if p.Mark != "" && !kept.Students[at].Frames[on].Has(p.Mark) {
		return refusal.New(refusal.NoSuchMark)
	}
	return nil
}

// Level is a level on a scale, as the scale was when it was given: by its place from 0, or none
// where only a comment was written.
type Level struct {
	At    int              `json:"at"`
	Scale []settings.Level `json:"scale"`
	// By is the criterion as it was when the level was given by one.
	By *lesson.Criterion `json:"by,omitempty"`
}

// Name is what the level is called.
func (l Level) Name() string { return l.Scale[l.At].Name }

// Describes gives what the criterion says that work of this level looks like.
func (l Level) Describes() string {
	if l.By == nil {
		return ""
	}
	return l.By.Words[l.Name()]
}

// Judged is what one teacher thinks of a piece.
type Judged struct {
	Piece
	By    string `json:"by"`
	Level *Level `json:"level,omitempty"`
	Word
	At int64 `json:"at"` // milliseconds since 1970
}

// Said is what a teacher wants to note of a piece: a level by its place on the school's scale, and
// words. Nothing of both takes back what was noted before.
type Said struct {
	Piece
	Level *int `json:"level,omitempty"`
	// Keeps leaves the level as it was noted before, whatever the scale was then.
	Keeps   bool   `json:"keeps,omitempty"`
	Comment string `json:"comment,omitempty"`
	// Ink is what is drawn on the work, Voice a recording; left out, each stays as it was.
	Ink   *[]lesson.Element `json:"ink,omitempty"`
	Voice *string           `json:"voice,omitempty"`
}

// Judge gives what is kept of what a teacher says of work on a board, by the scale as it is now, or
// what is wrong.
func Judge(s Said, board lesson.Board, scale []settings.Level, before *Judged, by string, at int64) (Judged, error) {
	j := Judged{Piece: s.Piece, By: by, At: at}
	if before != nil {
		j.Word = before.Word
	}
	j.Comment = s.Comment
	if s.Ink != nil {
		var err error
		if j.Ink, err = drawn(*s.Ink); err != nil {
			return Judged{}, err
		}
	}
	if s.Voice != nil {
		j.Voice = *s.Voice
	}
	if err := j.Word.check(s.Piece); err != nil {
		return Judged{}, err
	}
	switch {
	case s.Keeps && before != nil:
		j.Level = before.Level
	case s.Level != nil:
		if *s.Level < 0 || *s.Level >= len(scale) {
			return Judged{}, refusal.New(refusal.NoSuchLevel)
		}
		j.Level = &Level{At: *s.Level, Scale: slices.Clone(scale)}
		if s.Criterion == "" {
			break
		}
		c, ok := lesson.CriterionAmong(board.CriteriaOf(s.Frame), s.Criterion)
		if !ok {
			return Judged{}, refusal.New(refusal.NoSuchCriterion)
		}
		j.Level.By = &c
	}
	return j, nil
}

// Empty says that nothing is noted.
func (j Judged) Empty() bool { return j.Level == nil && j.Word.empty() }

// Check reports what is wrong with what is said to have been noted of work in a lesson.
func (j Judged) Check(kept record.Record) error {
	if err := j.In(kept); err != nil {
		return err
	}
	if err := j.Word.check(j.Piece); err != nil {
		return err
	}
	if j.Level == nil {
		return nil
	}
	house, err := settings.House{Scale: j.Level.Scale}.Check()
	if err != nil {
		return err
	}
	if j.Level.At < 0 || j.Level.At >= len(house.Scale) {
		return refusal.New(refusal.NoSuchLevel)
	}
	if by := j.Level.By; (by == nil) != (j.Criterion == "") || by != nil && by.ID != j.Criterion {
		return refusal.New(refusal.NoSuchCriterion)
	} else if by != nil {
		return lesson.CheckCriteria([]lesson.Criterion{*by})
	}
	return nil
}

// Seen gives what a teacher may see of what all noted. Blind, a teacher sees what others think
// of a piece only once they have given a level to it themselves.
func Seen(all []Judged, by string, blind bool) []Judged {
	mine := map[Piece]bool{}
	for _, j := range all {
		if j.By == by && j.Level != nil {
			mine[j.Piece] = true
		}
	}
	seen := []Judged{}
	for _, j := range all {
		if j.By == by || !blind || mine[j.Piece] {
			seen = append(seen, j)
		}
	}
	return seen
}

// Given is what goes back to a student: what the teacher of the lesson noted of their own work,
// in the order of the board, the whole lesson first. Nothing of others, and nothing of a second
// marker.
func Given(all []Judged, student, teacher string, board lesson.Board) []Judged {
	given := []Judged{}
	for _, j := range all {
		if j.Student == student && j.By == teacher && !j.Empty() {
			given = append(given, j)
		}
	}
	place := func(j Judged) int {
		_, i, err := board.Frame(j.Frame)
		if err != nil {
			return -1
		}
		return i
	}
	slices.SortStableFunc(given, func(a, b Judged) int {
		return cmp.Or(cmp.Compare(place(a), place(b)), cmp.Compare(a.Mark, b.Mark),
			cmp.Compare(onGrid(a, board), onGrid(b, board)))
	})
	return given
}

// onGrid is the place of the criterion by which something was judged: those that are gone come last.
func onGrid(j Judged, board lesson.Board) int {
	if j.Criterion == "" {
		return -1
	}
	all := board.CriteriaOf(j.Frame)
	if at := slices.IndexFunc(all, func(c lesson.Criterion) bool { return c.ID == j.Criterion }); at >= 0 {
		return at
	}
	return len(all)
}

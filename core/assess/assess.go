// Package assess answers: what does a teacher think of somebody's work, how far do two
// teachers agree, and what of it goes back to the student?
package assess

import (
	"cmp"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/prose"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
)

// MaxComment is how many characters a comment may have.
const MaxComment = 2000

// Piece is what is judged: a student's whole lesson, or their frame, or one mark on it, which
// may be an answer.
type Piece struct {
	Student string `json:"student"`
	Frame   string `json:"frame,omitempty"`
	Mark    string `json:"mark,omitempty"`
}

// In reports what is wrong with a piece of what is kept of a lesson.
func (p Piece) In(kept record.Record) error {
	at := slices.IndexFunc(kept.Students, func(s record.Kept) bool { return s.ID == p.Student })
	switch {
	case at < 0:
		return refusal.New(refusal.NoSuchWork)
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
}

// Name is what the level is called.
func (l Level) Name() string { return l.Scale[l.At].Name }

// Judged is what one teacher thinks of a piece.
type Judged struct {
	Piece
	By      string `json:"by"`
	Level   *Level `json:"level,omitempty"`
	Comment string `json:"comment,omitempty"`
	At      int64  `json:"at"` // milliseconds since 1970
}

// Said is what a teacher wants to note of a piece: a level by its place on the school's scale,
// a comment, or both. Nothing of both takes back what was noted before.
type Said struct {
	Piece
	Level *int `json:"level,omitempty"`
	// Keeps leaves the level as it was noted before, whatever the scale was then.
	Keeps   bool   `json:"keeps,omitempty"`
	Comment string `json:"comment,omitempty"`
}

// Judge gives what is kept of what a teacher says, by the scale as it is now, or what is wrong.
func Judge(s Said, scale []settings.Level, before *Judged, by string, at int64) (Judged, error) {
	if err := prose.Check(s.Comment, MaxComment); err != nil {
		return Judged{}, err
	}
	j := Judged{Piece: s.Piece, By: by, Comment: s.Comment, At: at}
	switch {
	case s.Keeps && before != nil:
		j.Level = before.Level
	case s.Level != nil:
		if *s.Level < 0 || *s.Level >= len(scale) {
			return Judged{}, refusal.New(refusal.NoSuchLevel)
		}
		j.Level = &Level{*s.Level, slices.Clone(scale)}
	}
	return j, nil
}

// Empty says that nothing is noted.
func (j Judged) Empty() bool { return j.Level == nil && prose.IsBlank(j.Comment) }

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
		return cmp.Or(cmp.Compare(place(a), place(b)), cmp.Compare(a.Mark, b.Mark))
	})
	return given
}

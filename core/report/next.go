package report

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// Wish is what the next lesson's board is to begin with, of a lesson: questions to be asked again, each on a frame of
// its own, and frames as they were prepared, clean of what the class did. Additions takes what the teacher added to
// these in the lesson along.
type Wish struct {
	Title     string   `json:"title"`
	Polls     []string `json:"polls"`
	Frames    []string `json:"frames"`
	Additions bool     `json:"additions,omitempty"`
}

// Unfinished lists the frames to carry over: those on which fewer than half of who took part have left something, and
// that are there to be worked on.
func (r Report) Unfinished(board lesson.Board) []string {
	left := []string{}
	for i, f := range r.Frames {
		if on := board.Frames[i]; 2*f.Worked < r.Here && (on.Permission != lesson.Look || len(on.Polls()) > 0) {
			left = append(left, f.ID)
		}
	}
	return left
}

// Next gives the board of the next lesson, in which everything has an id of its own. Added are marks that the
// teacher added in the lesson, by frame.
func (w Wish) Next(board lesson.Board, added map[string][]lesson.Element, newID func() string) (lesson.Board, error) {
	next := lesson.Board{Title: w.Title, Objectives: board.Objectives, Criteria: board.Criteria}
	for _, id := range w.Polls {
		i := slices.IndexFunc(board.Frames, func(f lesson.Frame) bool { _, err := f.Poll(id); return err == nil })
		if i < 0 {
			return next, refusal.New(refusal.NoSuchPoll)
		}
		next.Frames = append(next.Frames, alone(board.Frames[i], id))
	}
	for _, id := range w.Frames {
		f, _, err := board.Frame(id)
		if err != nil {
			return next, err
		}
		f.Prepared = slices.Clone(f.Prepared)
		for _, e := range added[id] {
			if w.Additions && e.OnFrame() && e.Author == lesson.Staff && !e.IsNowhere() && e.Placed == nil &&
				!e.InMargin() {
				e.Layer = lesson.Fixed
				f.Prepared = append(f.Prepared, e)
			}
		}
		next.Frames = append(next.Frames, f)
	}
	if len(next.Frames) > lesson.MaxFrames {
		next.Frames = next.Frames[:lesson.MaxFrames]
	}
	next = next.Copy(newID)
	return next, next.Check()
}

// alone gives a frame with one of its questions, and what was prepared beside it but other questions and covers.
func alone(f lesson.Frame, poll string) lesson.Frame {
	f.Set = nil
	f.Prepared = slices.DeleteFunc(slices.Clone(f.Prepared), func(e lesson.Element) bool {
		return e.Kind == lesson.KindPoll && e.ID != poll || e.Kind == lesson.KindCover
	})
	for i, e := range f.Prepared {
		if e.Poll != nil && e.Poll.InsteadOf != "" { // what it stood in for is not there
			q := *e.Poll
			q.InsteadOf = ""
			f.Prepared[i].Poll = &q
		}
	}
	return f
}

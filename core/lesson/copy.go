package lesson

import "alpenglow/core/poll"

// Settled gives a frame without what preparing it has left: marks that were
// removed, who made them and when.
func (f Frame) Settled() Frame {
	marks := []Element{}
	for _, e := range f.Prepared {
		if e.OnFrame() {
			e.Author, e.By, e.At, e.Agreed, e.Standing = "", "", 0, nil, nil
			e.Z = int64(len(marks) + 1)
			marks = append(marks, e)
		}
	}
	f.Prepared = marks
	return f
}

// Copy gives a settled copy of a frame in which everything has an id of its
// own, made by id. Of objectives it keeps those that rename knows.
func (f Frame) Copy(id func() string, rename map[string]string) Frame {
	f = f.Settled()
	f.ID = id()
	ids := map[string]string{}
	renamed := func(old string) string {
		if old == "" {
			return ""
		}
		if ids[old] == "" {
			ids[old] = id()
		}
		return ids[old]
	}
	for i, e := range f.Prepared {
		e.ID, e.Group = renamed(e.ID), renamed(e.Group)
		if e.Connector != nil {
			c := *e.Connector
			c.From.Mark, c.To.Mark = renamed(c.From.Mark), renamed(c.To.Mark)
			e.Connector = &c
		}
		if e.Poll != nil {
			e.Poll = copied(*e.Poll, rename)
			// What a question stands in for is on the same frame, or it is not copied with it.
			if _, err := f.Poll(e.Poll.InsteadOf); err == nil || ids[e.Poll.InsteadOf] != "" {
				e.Poll.InsteadOf = renamed(e.Poll.InsteadOf)
			} else {
				e.Poll.InsteadOf = ""
			}
		}
		f.Prepared[i] = e
	}
	f.Objectives = known(f.Objectives, rename)
	return f
}

func copied(q poll.Question, rename map[string]string) *poll.Question {
	q.Objectives, q.Was = known(q.Objectives, rename), nil
	return &q
}

func known(ids []string, rename map[string]string) []string {
	var kept []string
	for _, old := range ids {
		if rename[old] != "" {
			kept = append(kept, rename[old])
		}
	}
	return kept
}

// Copy gives a settled copy of a board in which everything has an id of its own.
func (b Board) Copy(id func() string) Board {
	rename := map[string]string{}
	objectives := make([]Objective, len(b.Objectives))
	for i, o := range b.Objectives {
		rename[o.ID] = id()
		objectives[i] = Objective{ID: rename[o.ID], Text: o.Text}
	}
	frames := make([]Frame, len(b.Frames))
	for i, f := range b.Frames {
		frames[i] = f.Copy(id, rename)
	}
	return Board{Title: b.Title, Objectives: objectives, Criteria: b.Criteria, Frames: frames}
}

package session

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
)

// View is a frame as a class may see it in a state.
type View struct {
	Frame lesson.Frame
	Polls map[string]poll.State
	// Content names what was prepared on it: the same marks, the same name.
	Content string

	marks []sum  // of the prepared marks, in order
	of    string // what the view depends on besides the board
}

// sum is a hash of a mark (SHA-256).
type sum [sha256.Size]byte

// View gives a frame as a class may see it now. Where nothing that it depends on
// has changed since a view before, that is it.
func (s State) View(board lesson.Board, frame string, before View) (View, error) {
	on, _, err := board.Frame(frame)
	if err != nil {
		return View{}, err
	}
	v := View{Polls: map[string]poll.State{}}
	lifted := []string{}
	for _, e := range on.Prepared {
		switch {
		case e.Kind == lesson.KindCover && slices.Contains(s.Lifted, e.ID):
			lifted = append(lifted, e.ID)
		case e.Kind == lesson.KindPoll:
			if at, asked := s.Polls[e.ID]; asked {
				v.Polls[e.ID] = at
			}
		}
	}
	v.of = fmt.Sprint(frame, s.Edition, lifted, v.Polls)
	if v.of == before.of {
		return before, nil
	}
	v.Frame = s.AsAsked(on.ForClass(lifted))
	all := sha256.New()
	for i, e := range v.Frame.Prepared {
		if e.Kind == lesson.KindPoll {
			question := e.Poll.ForClass(s.Polls[e.ID].Phase)
			v.Frame.Prepared[i].Poll = &question
		}
		text, err := json.Marshal(v.Frame.Prepared[i])
		if err != nil {
			return View{}, fmt.Errorf("view of a frame: %w", err)
		}
		of := sha256.Sum256(text)
		v.marks = append(v.marks, of)
		all.Write(of[:])
	}
	for id := range v.Polls {
		if !slices.ContainsFunc(v.Frame.Prepared, func(e lesson.Element) bool { return e.ID == id }) {
			delete(v.Polls, id) // it lies under a cover
		}
	}
	v.Content = hex.EncodeToString(all.Sum(nil)[:16])
	return v, nil
}

// AsAsked gives a frame without those of its questions that have not been asked: for a class
// they are not there yet.
func (s State) AsAsked(f lesson.Frame) lesson.Frame {
	asked := []lesson.Element{}
	for _, e := range f.Prepared {
		if _, is := s.Polls[e.ID]; is || e.Kind != lesson.KindPoll {
			asked = append(asked, e)
		}
	}
	f.Prepared = asked
	return f
}

// ContentChange makes the content From into another: what is gone leaves, then
// each of Put comes to its place, in order.
type ContentChange struct {
	From string   `json:"from"`
	Gone []string `json:"gone,omitempty"`
	Put  []MarkAt `json:"put,omitempty"`
}

// MarkAt is a prepared mark and its place among the others, from 0.
type MarkAt struct {
	At   int            `json:"at"`
	Mark lesson.Element `json:"mark"`
}

// Apply gives what old marks become.
func (c ContentChange) Apply(old []lesson.Element) []lesson.Element {
	marks := slices.DeleteFunc(slices.Clone(old), func(e lesson.Element) bool { return slices.Contains(c.Gone, e.ID) })
	for _, put := range c.Put {
		marks = slices.Insert(marks, min(put.At, len(marks)), put.Mark)
	}
	return marks
}

// Since gives what makes the content of an earlier view into this one's; nil for
// a view of another frame, and where marks have changed places.
func (v View) Since(before View) *ContentChange {
	if before.Frame.ID != v.Frame.ID || before.Content == "" {
		return nil
	}
	change := &ContentChange{From: before.Content}
	had, has := before.byID(), v.byID()
	stays := []string{} // in the order before
	for i, e := range before.Frame.Prepared {
		if now, ok := has[e.ID]; ok && now == before.marks[i] {
			stays = append(stays, e.ID)
		} else {
			change.Gone = append(change.Gone, e.ID)
		}
	}
	for at, e := range v.Frame.Prepared {
		switch was, ok := had[e.ID]; {
		case !ok || was != v.marks[at]:
			change.Put = append(change.Put, MarkAt{at, e})
		case stays[0] != e.ID:
			return nil
		default:
			stays = stays[1:]
		}
	}
	return change
}

func (v View) byID() map[string]sum {
	sums := make(map[string]sum, len(v.marks))
	for i, e := range v.Frame.Prepared {
		sums[e.ID] = v.marks[i]
	}
	return sums
}

// Changed gives the stage with a change of what was prepared in place of all of
// it; with none, the stage as it is.
func (s Stage) Changed(by *ContentChange) Stage {
	if by != nil {
		s.Frame.Prepared, s.Change = []lesson.Element{}, by
	}
	return s
}

// Knowing gives the stage for somebody who has contents by their names: without
// what was prepared, where they have it.
func (s Stage) Knowing(contents []string) Stage {
	if !slices.Contains(contents, s.Content) {
		return s
	}
	return s.Changed(&ContentChange{From: s.Content})
}

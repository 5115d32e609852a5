package session

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
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
}

// View gives a frame as a class may see it now.
func (s State) View(board lesson.Board, frame string) (View, error) {
	on, err := s.On(board, frame)
	if err != nil {
		return View{}, err
	}
	v := View{Frame: on.ForClass(s.Lifted), Polls: map[string]poll.State{}}
	for i, e := range v.Frame.Prepared {
		if e.Kind == lesson.KindPoll {
			question := e.Poll.ForClass(s.Polls[e.ID].Phase)
			v.Frame.Prepared[i].Poll = &question
			v.Polls[e.ID] = s.Polls[e.ID]
		}
	}
	v.Content = contentOf(v.Frame.Prepared)
	return v, nil
}

// contentOf is the name of marks: a hash of them (SHA-256, its first half).
func contentOf(marks []lesson.Element) string {
	text, err := json.Marshal(marks)
	if err != nil {
		panic(err) // numbers of marks are finite, and there is nothing else that cannot be written
	}
	sum := sha256.Sum256(text)
	return hex.EncodeToString(sum[:16])
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

// Since gives the stage for those who have another content of the same frame:
// with what has changed in place of what was prepared.
func (s Stage) Since(before View) Stage {
	if before.Frame.ID != s.Frame.ID || before.Content == "" {
		return s
	}
	change := ContentChange{From: before.Content}
	had, has := byID(before.Frame.Prepared), byID(s.Frame.Prepared)
	for id, was := range had {
		if is, ok := has[id]; !ok || !bytes.Equal(was, is) {
			change.Gone = append(change.Gone, id)
		}
	}
	slices.Sort(change.Gone)
	for at, e := range s.Frame.Prepared {
		if was, ok := had[e.ID]; !ok || !bytes.Equal(was, has[e.ID]) {
			change.Put = append(change.Put, MarkAt{at, e})
		}
	}
	next := s
	next.Frame.Prepared, next.Change = []lesson.Element{}, &change
	if contentOf(change.Apply(before.Frame.Prepared)) != s.Content {
		return s // marks have changed places
	}
	return next
}

// Knowing gives the stage for somebody who has contents by their names: without
// what was prepared, where they have it.
func (s Stage) Knowing(contents []string) Stage {
	if !slices.Contains(contents, s.Content) {
		return s
	}
	s.Frame.Prepared, s.Change = []lesson.Element{}, &ContentChange{From: s.Content}
	return s
}

func byID(marks []lesson.Element) map[string][]byte {
	texts := make(map[string][]byte, len(marks))
	for _, e := range marks {
		texts[e.ID], _ = json.Marshal(e)
	}
	return texts
}

package voices

import (
	"slices"
	"strings"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// The kinds of words: a student's, and the staff's.
const (
	KindAsk   Kind = "ask"
	KindAgree Kind = "agree"
	KindHelp  Kind = "help"
	KindDone  Kind = "done"
	KindTick  Kind = "tick"
	KindHide  Kind = "hide"
	KindCome  Kind = "come"
	KindLet   Kind = "let"
)

// Bounds of questions: characters of one, how many of a student's wait at the same
// time, and how many there are in a session.
const (
	MaxText      = 200
	MaxOfOne     = 5
	MaxQuestions = 400
)

func (*Ask) byStaff() bool      { return false }
func (*Agree) byStaff() bool    { return false }
func (*Help) byStaff() bool     { return false }
func (*Done) byStaff() bool     { return false }
func (*Tick) byStaff() bool     { return true }
func (*Hide) byStaff() bool     { return true }
func (*Come) byStaff() bool     { return true }
func (*Settings) byStaff() bool { return true }

// Ask asks a question, under an id that the device has made (UUID version 7).
type Ask struct {
	ID   string `json:"id"`
	Text string `json:"text"`
}

func (a *Ask) say(v *Voices, with With) error {
	text := strings.Join(strings.Fields(a.Text), " ") // one paragraph, however it was typed
	if err := lesson.CheckText(text, MaxText); err != nil {
		return err
	}
	if !id.IsV7(a.ID) {
		return refusal.New(refusal.BadID)
	}
	waiting := 0
	for _, q := range v.Questions {
		switch {
		case q.ID == a.ID && q.By == with.By:
			return nil // it was sent again
		case q.ID == a.ID:
			return refusal.New(refusal.MarkExists)
		case q.By == with.By && !q.Ticked:
			waiting++
		}
	}
	switch {
	case v.Off:
		return refusal.New(refusal.QuestionsOff)
	case waiting >= MaxOfOne:
		return refusal.New(refusal.QuestionsWait)
	case len(v.Questions) >= MaxQuestions:
		return refusal.New(refusal.TooMany)
	}
	v.Questions = append(v.Questions, Question{ID: a.ID, By: with.By, Text: text, At: with.Now})
	return nil
}

// Agree says that somebody would have asked the same as another, or not.
type Agree struct {
	Question string `json:"question"`
	Yes      bool   `json:"yes"`
}

func (a *Agree) say(v *Voices, with With) error {
	q, err := v.find(a.Question)
	if err != nil || !v.sees(*q, with.By) || q.By == with.By {
		return refusal.New(refusal.NoSuchQuestion)
	}
	q.Agreed = without(q.Agreed, with.By)
	if a.Yes {
		q.Agreed = append(q.Agreed, with.By)
	}
	return nil
}

// Help asks the teacher to come, or says that it is no longer needed.
type Help struct {
	Yes bool `json:"yes"`
}

func (h *Help) say(v *Voices, with With) error {
	waits := slices.ContainsFunc(v.Help, func(c Call) bool { return c.Student == with.By })
	switch {
	case h.Yes && !waits:
		v.Help = append(v.Help, Call{Student: with.By, At: with.Now})
	case !h.Yes:
		v.noHelp(with.By)
	}
	return nil
}

// Done says that somebody is done with a frame, or goes on.
type Done struct {
	Frame string `json:"frame"`
	Yes   bool   `json:"yes"`
}

func (d *Done) say(v *Voices, with With) error {
	if !slices.Contains(with.Open, d.Frame) {
		return refusal.New(refusal.NoSuchFrame)
	}
	done := without(v.Done[d.Frame], with.By)
	if d.Yes {
		if slices.Contains(v.Done[d.Frame], with.By) {
			return nil
		}
		done = append(done, with.By)
	}
	if v.Done == nil {
		v.Done = map[string][]string{}
	}
	v.Done[d.Frame] = done
	return nil
}

// Tick says that a question was answered, or waits again.
type Tick struct {
	Question string `json:"question"`
	Yes      bool   `json:"yes"`
}

func (t *Tick) say(v *Voices, _ With) error {
	q, err := v.find(t.Question)
	if err == nil {
		q.Ticked = t.Yes
	}
	return err
}

// Hide takes a question out of the class's sight, or brings it back.
type Hide struct {
	Question string `json:"question"`
	Yes      bool   `json:"yes"`
}

func (h *Hide) say(v *Voices, _ With) error {
	q, err := v.find(h.Question)
	if err == nil {
		q.Hidden = h.Yes
	}
	return err
}

// Come tells a student who needs help that the teacher is coming; with Been, that
// they were there.
type Come struct {
	Student string `json:"student"`
	Been    bool   `json:"been,omitempty"`
}

func (c *Come) say(v *Voices, _ With) error {
	if c.Been {
		v.noHelp(c.Student)
		return nil
	}
	for i := range v.Help {
		if v.Help[i].Student == c.Student {
			v.Help[i].Coming = true
		}
	}
	return nil // somebody who needs none any more is passed over
}

func (s *Settings) say(v *Voices, _ With) error {
	v.Settings = *s
	return nil
}

func (v *Voices) find(question string) (*Question, error) {
	for i := range v.Questions {
		if v.Questions[i].ID == question {
			return &v.Questions[i], nil
		}
	}
	return nil, refusal.New(refusal.NoSuchQuestion)
}

func (v *Voices) noHelp(student string) {
	v.Help = slices.DeleteFunc(v.Help, func(c Call) bool { return c.Student == student })
}

// without gives a list of its own without one who may be on it.
func without(list []string, one string) []string {
	return slices.DeleteFunc(slices.Clone(list), func(o string) bool { return o == one })
}

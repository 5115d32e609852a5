package voices

import (
	"maps"
	"slices"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// The kinds of words to one student, and back.
const (
	KindTell  Kind = "tell"
	KindHeard Kind = "heard"
)

// MaxTold is how many characters a word to a student has at most, MostTold how many
// of them wait to be heard; the oldest make room.
const (
	MaxTold  = 200
	MostTold = 5
)

// Tell says a word to one student, whom alone it reaches.
type Tell struct {
	Student string `json:"student"`
	Text    string `json:"text"`
	// About is what was written that it is about; empty for nothing.
	About string `json:"about,omitempty"`
}

// Heard says that a student has read what they were told up to a time.
type Heard struct {
	Until int64 `json:"until"`
}

// Told is a word that a student was told and has not put away yet.
type Told struct {
	Text  string `json:"text"`
	About string `json:"about,omitempty"`
	At    int64  `json:"at"`
}

func (w *Tell) say(v *Voices, with With) error {
	text := strings.TrimSpace(w.Text)
	if !slices.Contains(with.Students, w.Student) {
		return refusal.About(refusal.Malformed, "no such student")
	}
	if text == "" {
		return refusal.New(refusal.EmptyNote)
	}
	if err := lesson.CheckText(text, MaxTold); err != nil {
		return err
	}
	if err := lesson.CheckText(w.About, MaxTold); w.About != "" && err != nil {
		return err
	}
	v.Told = maps.Clone(v.Told)
	if v.Told == nil {
		v.Told = map[string][]Told{}
	}
	told := append(slices.Clone(v.Told[w.Student]), Told{text, w.About, with.Now})
	v.Told[w.Student] = told[max(0, len(told)-MostTold):]
	return nil
}

func (w *Heard) say(v *Voices, with With) error {
	v.Told = maps.Clone(v.Told)
	left := slices.DeleteFunc(slices.Clone(v.Told[with.By]), func(t Told) bool { return t.At <= w.Until })
	if len(left) > 0 {
		v.Told[with.By] = left
	} else {
		delete(v.Told, with.By)
	}
	return nil
}

func (*Tell) byStaff() bool                   { return true }
func (w *Tell) about() (question, who string) { return "", w.Student }
func (*Heard) byStaff() bool                  { return false }
func (*Heard) about() (question, who string)  { return "", "" }

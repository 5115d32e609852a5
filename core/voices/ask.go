package voices

import (
	"strings"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindAsk asks a question.
const KindAsk Kind = "ask"

// Bounds of questions: characters of one, how many of a student's wait at the same
// time, and how many there are in a session.
const (
	MaxText      = 200
	MaxOfOne     = 5
	MaxQuestions = 400
)

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

func (*Ask) byStaff() bool                 { return false }
func (*Ask) about() (question, who string) { return "", "" }

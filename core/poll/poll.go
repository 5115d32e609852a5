// Package poll answers: what is asked, what counts as an answer, and how do
// the answers stand?
package poll

import (
	"unicode/utf8"

	"alpenglow/core/id"
	"alpenglow/core/refusal"
)

// MaxChoices is how many answers a choice question may offer.
const MaxChoices = 12

// How many characters a question and each of its answers may have.
const (
	MaxQuestion = 600
	MaxChoice   = 300
)

// Choice is one answer that a question offers.
type Choice struct {
	ID   string `json:"id"`
	Text string `json:"text"`
	// Picture is the id of a picture that is shown with the text, or instead
	// of one; the text then says what is on it.
	Picture string `json:"picture,omitempty"`
	// Right marks a right answer. It is removed before a class sees the
	// question, until the teacher reveals it.
	Right bool `json:"right,omitempty"`
}

// Question is a choice question: one of its choices is an answer.
type Question struct {
	Text    string   `json:"text"`
	Choices []Choice `json:"choices"`
	// Objectives are the ids of the learning objectives that it asks about;
	// a class does not see them.
	Objectives []string `json:"objectives,omitempty"`
}

// Phase says what may happen to a poll now.
type Phase string

// A poll takes answers while open; closed it stands still; revealed it shows
// its right answer to the class and cannot be opened again.
const (
	Open     Phase = "open"
	Closed   Phase = "closed"
	Revealed Phase = "revealed"
)

// Next says whether a poll in phase p may be put into phase next.
func (p Phase) Next(next Phase) error {
	switch {
	case next != Open && next != Closed && next != Revealed:
		return refusal.About(refusal.Malformed, "poll phase")
	case p == Revealed && next != Revealed:
		return refusal.New(refusal.PollRevealed)
	}
	return nil
}

// Check reports what is wrong with a prepared question.
func (q Question) Check() error {
	if len(q.Choices) < 2 || len(q.Choices) > MaxChoices {
		return refusal.About(refusal.BoardIncorrect, "a poll needs 2 to %d answers", MaxChoices)
	}
	if utf8.RuneCountInString(q.Text) > MaxQuestion {
		return refusal.About(refusal.TextTooLong, "a question has at most %d characters", MaxQuestion)
	}
	seen := map[string]bool{}
	for _, c := range q.Choices {
		if utf8.RuneCountInString(c.Text) > MaxChoice {
			return refusal.About(refusal.TextTooLong, "an answer has at most %d characters", MaxChoice)
		}
		if !id.IsPlain(c.ID) || seen[c.ID] {
			return refusal.About(refusal.BoardIncorrect, "each answer of a poll needs an id of its own")
		}
		seen[c.ID] = true
	}
	return nil
}

// Choice finds a choice by its id.
func (q Question) Choice(id string) (Choice, error) {
	for _, c := range q.Choices {
		if c.ID == id {
			return c, nil
		}
	}
	return Choice{}, refusal.New(refusal.NoSuchChoice)
}

// HasRight reports whether the question marks any answer as right. A question
// of opinion marks none.
func (q Question) HasRight() bool {
	for _, c := range q.Choices {
		if c.Right {
			return true
		}
	}
	return false
}

// ForClass returns the question as a class may see it in the given phase:
// which answer is right only once that is revealed.
func (q Question) ForClass(p Phase) Question {
	q.Objectives = nil
	if p == Revealed {
		return q
	}
	bare := Question{Text: q.Text, Choices: make([]Choice, len(q.Choices))}
	for i, c := range q.Choices {
		bare.Choices[i] = Choice{ID: c.ID, Text: c.Text, Picture: c.Picture}
	}
	return bare
}

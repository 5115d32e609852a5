// Package poll answers: what is asked, what counts as an answer, and how do
// the answers stand?
package poll

import (
	"unicode/utf8"

	"alpenglow/core/id"
	"alpenglow/core/oneof"
	"alpenglow/core/refusal"
)

// MaxQuestion is how many characters a question may have.
const MaxQuestion = 600

// Question is what is asked: its words, and a body by its kind.
type Question struct {
	Text string `json:"text"`
	// Objectives are the ids of the learning objectives that it asks about;
	// a class does not see them.
	Objectives []string `json:"objectives,omitempty"`
	Body
}

// Kind tells questions apart, and with them the answers.
type Kind string

// Body is what a question is made of besides its words: exactly the field that
// its Kind names is set. It is the registry of the kinds of questions; each has
// a file of its own, with its shape, what answers it takes, which are right, and
// what a class sees of it. Value has the same kinds.
type Body struct {
	Kind   Kind    `json:"kind" oneof:"questions"`
	Choice *Choice `json:"choice,omitempty"`
	Rank   *Rank   `json:"rank,omitempty"`
}

// Value is an answer: exactly the field that its Kind names is set.
type Value struct {
	Kind   Kind    `json:"kind" oneof:"values"`
	Choice *Chosen `json:"choice,omitempty"`
	Rank   *Ranked `json:"rank,omitempty"`
}

// kind is what every kind of question has.
type kind interface {
	// check reports what is wrong with the question.
	check() error
	// words are all that can be read on it, pictures the ids of what it shows.
	words() []string
	pictures() []string
	// shown gives the question with other names for its pictures.
	shown(rename func(string) string) Body
	// takes reports why a value is no answer, judge whether it is right, says
	// what a list says of it, and counts its place in a tally: all of them of
	// its own kind.
	takes(v Value) error
	judge(v Value) Verdict
	says(v Value) string
	tally(values []Value) []int
	// bare gives the question without what is right.
	bare() Body
}

func (b *Body) kind() (kind, bool) {
	body, ok := oneof.Body(b)
	k, is := body.(kind)
	return k, ok && is
}

// Check reports what is wrong with a prepared question.
func (q Question) Check() error {
	k, ok := q.kind()
	if !ok {
		return refusal.About(refusal.Malformed, "kind and body of a question differ")
	}
	if utf8.RuneCountInString(q.Text) > MaxQuestion {
		return refusal.About(refusal.TextTooLong, "a question has at most %d characters", MaxQuestion)
	}
	for _, p := range k.pictures() {
		if !id.IsPlain(p) {
			return refusal.New(refusal.NoSuchPicture)
		}
	}
	return k.check()
}

// Words are all that can be read on the question, its own words first.
func (q Question) Words() []string {
	words := []string{q.Text}
	if k, ok := q.kind(); ok {
		words = append(words, k.words()...)
	}
	return words
}

// Pictures are the ids of the pictures that the question shows.
func (q Question) Pictures() []string {
	if k, ok := q.kind(); ok {
		return k.pictures()
	}
	return nil
}

// WithPictures gives the question with its pictures named anew.
func (q Question) WithPictures(rename func(string) string) Question {
	if k, ok := q.kind(); ok {
		q.Body = k.shown(rename)
	}
	return q
}

// Takes reports why a value is no answer to the question; nil when it is one.
func (q Question) Takes(v Value) error {
	k, ok := q.kind()
	if _, whole := oneof.Body(&v); !ok || !whole || v.Kind != q.Kind {
		return refusal.About(refusal.Malformed, "an answer of another kind than the question")
	}
	return k.takes(v)
}

// Judge says whether an answer is right. What is no answer to the question has
// no verdict.
func (q Question) Judge(v Value) Verdict {
	if q.Takes(v) != nil {
		return NoVerdict
	}
	k, _ := q.kind()
	return k.judge(v)
}

// Says is what a list says of an answer.
func (q Question) Says(v Value) string {
	if q.Takes(v) != nil {
		return ""
	}
	k, _ := q.kind()
	return k.says(v)
}

// HasRight reports whether any answer is right. A question of opinion has none.
func (q Question) HasRight() bool {
	k, ok := q.kind()
	r, is := k.(interface{ hasRight() bool })
	return ok && is && r.hasRight()
}

// Tally counts answers: how many there are, and how many of each in the order of
// the question. What is no answer is not counted.
func (q Question) Tally(values []Value) Tally {
	var t Tally
	var answers []Value
	for _, v := range values {
		if q.Takes(v) == nil {
			answers = append(answers, v)
		}
	}
	t.Answered = len(answers)
	if k, ok := q.kind(); ok {
		t.Counts = k.tally(answers)
	}
	return t
}

// Tally is how the answers to a question stand.
type Tally struct {
	Answered int   `json:"answered"`
	Counts   []int `json:"counts"`
}

// Verdict says whether an answer is right.
type Verdict string

// A question that has no right answer gives no verdict.
const (
	Right     Verdict = "right"
	Partly    Verdict = "partly"
	Wrong     Verdict = "wrong"
	NoVerdict Verdict = ""
)

// Verdicts lists all verdicts.
var Verdicts = []Verdict{Right, Partly, Wrong, NoVerdict}

// ForClass returns the question as a class may see it in the given phase:
// what is right only once that is revealed.
func (q Question) ForClass(p Phase) Question {
	q.Objectives = nil
	if p == Revealed {
		return q
	}
	if k, ok := q.kind(); ok {
		q.Body = k.bare()
	}
	return q
}

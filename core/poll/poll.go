// Package poll answers: what is asked, what counts as an answer, and how do
// the answers stand?
package poll

import (
	"cmp"

	"alpenglow/core/id"
	"alpenglow/core/oneof"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
	"alpenglow/core/weblink"
)

// Bounds of what is said in a question: its words, why something is right, the name of
// a mistake, a label.
const (
	MaxQuestion = 600
	MaxWhy      = 1000
	MaxMistake  = 80
	MaxLabel    = 60
)

// MaxSeconds is the longest time limit of a question.
const MaxSeconds = 3600

// Question is what is asked: its words, and a body by its kind.
type Question struct {
	Text string `json:"text"`
	// Picture is the id of a picture that is shown with the words; they then say what
	// is on it.
	Picture string `json:"picture,omitempty"`
	// Sound is the id of a recording that is heard with the words, kept as pictures are;
	// Link an address of the web to look at.
	Sound string `json:"sound,omitempty"`
	Link  string `json:"link,omitempty"`
	// Objectives are the ids of the learning objectives that it asks about;
	// a class does not see them.
	Objectives []string `json:"objectives,omitempty"`
	// Why says why what is right is right; a class sees it with that.
	Why string `json:"why,omitempty"`
	// Sure asks with each answer whether the student is sure.
	Sure bool `json:"sure,omitempty"`
	// Shuffle offers answers to each student in another order.
	Shuffle bool `json:"shuffle,omitempty"`
	// InsteadOf is the id of another question that it stands in for, asking the same in
	// another way: it waits until it is asked as that one's next round.
	InsteadOf string `json:"insteadOf,omitempty"`
	// Seconds is how long it takes answers once it is asked; 0 until it is closed.
	Seconds int `json:"seconds,omitempty"`
	// Was is how it was asked in rounds before it was written anew; nobody sets it.
	Was []Was `json:"was,omitempty"`
	Body
}

// Kind tells questions apart, and with them the answers.
type Kind string

// Body is what a question is made of besides its words: exactly the field that
// its Kind names is set. It is the registry of the kinds of questions; each has
// a file of its own, with its shape, what answers it takes, which are right, and
// what a class sees of it. Value has the same kinds.
type Body struct {
	Kind    Kind     `json:"kind"              oneof:"questions"`
	Choice  *Choice  `json:"choice,omitempty"`
	Several *Several `json:"several,omitempty"`
	Truth   *Truth   `json:"truth,omitempty"`
	Number  *Number  `json:"number,omitempty"`
	Short   *Short   `json:"short,omitempty"`
	Open    *Free    `json:"open,omitempty"`
	Scale   *Scale   `json:"scale,omitempty"`
	Rank    *Rank    `json:"rank,omitempty"`
	Order   *Order   `json:"order,omitempty"`
	Match   *Match   `json:"match,omitempty"`
	Blanks  *Blanks  `json:"blanks,omitempty"`
	Boxes   *Boxes   `json:"boxes,omitempty"`
	Places  *Places  `json:"places,omitempty"`
	Draw    *Draw    `json:"draw,omitempty"`
	Memory  *Memory  `json:"memory,omitempty"`
}

// Value is an answer: exactly the field that its Kind names is set.
type Value struct {
	Kind    Kind     `json:"kind"              oneof:"values"`
	Choice  *Chosen  `json:"choice,omitempty"`
	Several *Picked  `json:"several,omitempty"`
	Truth   *Held    `json:"truth,omitempty"`
	Number  *Written `json:"number,omitempty"`
	Short   *Written `json:"short,omitempty"`
	Open    *Written `json:"open,omitempty"`
	Scale   *Stepped `json:"scale,omitempty"`
	Rank    *Ranked  `json:"rank,omitempty"`
	Order   *Ranked  `json:"order,omitempty"`
	Match   *Matched `json:"match,omitempty"`
	Blanks  *Filled  `json:"blanks,omitempty"`
	Boxes   *Sorted  `json:"boxes,omitempty"`
	Places  *Pointed `json:"places,omitempty"`
	Draw    *Drawn   `json:"draw,omitempty"`
	Memory  *Turned  `json:"memory,omitempty"`
}

// kind is what every kind of question has.
type kind interface {
	// check reports what is wrong with the question.
	check() error
	// words are all that a class can read on it, pictures the ids of what it shows.
	words() []string
	pictures() []string
	// shown gives the question with other names for its pictures.
	shown(rename func(string) string) Body
	// bare gives the question without what is right, and without an order or place that
	// would tell it.
	bare() Body
	// right says in words what is right; nothing of a question that has no right answer.
	right() string
	// takes reports why a value is no answer, judge whether it is right, says what a list
	// says of it, and chart how answers stand, with what is thought of each: all of them of
	// its own kind.
	takes(v Value) error
	judge(v Value) Judgement
	says(v Value) string
	chart(values []Value, judged []Judgement) Chart
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
	if err := cmp.Or(prose.Check(q.Text, MaxQuestion), prose.Check(q.Why, MaxWhy)); err != nil {
		return err
	}
	if q.Seconds < 0 || q.Seconds > MaxSeconds {
		return refusal.About(refusal.Malformed, "a time limit is at most %d seconds", MaxSeconds)
	}
	if q.Link != "" && !weblink.Is(q.Link) {
		return refusal.New(refusal.BadLink)
	}
	if q.InsteadOf != "" && !id.IsPlain(q.InsteadOf) {
		return refusal.New(refusal.BadID)
	}
	for _, p := range q.Pictures() {
		if !id.IsPlain(p) {
			return refusal.New(refusal.NoSuchPicture)
		}
	}
	if err := q.checkWas(); err != nil {
		return err
	}
	return k.check()
}

// Words are all that a class can read on the question, its own words first.
func (q Question) Words() []string {
	words := []string{q.Text}
	if k, ok := q.kind(); ok {
		words = append(words, k.words()...)
	}
	return words
}

// Pictures are the ids of the pictures that the question shows, and of what is heard.
func (q Question) Pictures() []string {
	var all []string
	for _, one := range []string{q.Picture, q.Sound} {
		if one != "" {
			all = append(all, one)
		}
	}
	if k, ok := q.kind(); ok {
		all = append(all, k.pictures()...)
	}
	for _, w := range q.Was {
		all = append(all, w.Asked.Pictures()...)
	}
	return all
}

// WithPictures gives the question with its pictures named anew.
func (q Question) WithPictures(rename func(string) string) Question {
	if q.Picture != "" {
		q.Picture = rename(q.Picture)
	}
	if q.Sound != "" {
		q.Sound = rename(q.Sound)
	}
	if k, ok := q.kind(); ok {
		q.Body = k.shown(rename)
	}
	was := q.Was
	q.Was = nil
	for _, w := range was {
		q.Was = append(q.Was, Was{w.Through, w.Asked.WithPictures(rename)})
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

// Assessed is an answer with what is thought of it, and what a list says of it.
type Assessed struct {
	Value Value
	Judgement
	Says string
}

// Assess judges an answer and says it; false of what is no answer to the question.
func (q Question) Assess(v Value) (Assessed, bool) {
	if q.Takes(v) != nil {
		return Assessed{}, false
	}
	k, _ := q.kind()
	return Assessed{v, k.judge(v), k.says(v)}, true
}

// Judge says whether an answer is right. What is no answer to the question has
// no verdict.
func (q Question) Judge(v Value) Judgement {
	if q.Takes(v) != nil {
		return Judgement{}
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

// Read says how an answer was read, where that is not as it was written: of a number.
func (q Question) Read(v Value) string {
	if q.Takes(v) != nil || q.Number == nil {
		return ""
	}
	return q.Number.says(v)
}

// Right says in words what is right; nothing of a question that has no right answer,
// such as one of opinion.
func (q Question) Right() string {
	if k, ok := q.kind(); ok {
		return k.right()
	}
	return ""
}

// Offers lists what the question offers to read, whatever is done with it; nothing where there is nothing to
// choose from, order or sort.
func (q Question) Offers() []Option {
	body, _ := oneof.Body(&q.Body)
	if k, is := body.(interface{ of() options }); is {
		return k.of()
	}
	return nil
}

// HasRight reports whether any answer is right.
func (q Question) HasRight() bool { return q.Right() != "" }

// ForClass returns the question as a class may see it in the given phase:
// what is right, and why, only once that is revealed. Names of mistakes are never told.
func (q Question) ForClass(p Phase) Question {
	q.Objectives, q.InsteadOf, q.Was = nil, "", nil
	k, ok := q.kind()
	if !ok {
		return q
	}
	if p != Revealed {
		q.Why = ""
		q.Body = k.bare()
	} else if m, is := k.(interface{ nameless() Body }); is {
		q.Body = m.nameless()
	}
	return q
}

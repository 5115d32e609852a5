// Package voices answers: what does a class say beside its work? Questions, who
// agrees with them, who is done with a frame, who needs help.
package voices

import (
	"cmp"
	"maps"
	"slices"

	"alpenglow/core/homework"
	"alpenglow/core/oneof"
	"alpenglow/core/refusal"
)

// Voices is all that a class has said in a session. Rev counts the changes.
type Voices struct {
	Rev int64 `json:"rev"`
	Settings
	// Questions are in the order in which they were asked, Help in that in which
	// it was asked for.
	Questions []Question `json:"questions,omitempty"`
	Help      []Call     `json:"help,omitempty"`
	// Done lists for each frame the students who have said that they are done.
	Done map[string][]string `json:"done,omitempty"`
	// Looked says when the teacher looked at each student's work last, Picked who
	// was drawn, in order.
	Looked map[string]int64 `json:"looked,omitempty"`
	Picked []Picked         `json:"picked,omitempty"`
	// Told are the words to single students that they have not put away yet.
	Told map[string][]Told `json:"told,omitempty"`
	// Handed says when each student has handed their homework in.
	Handed map[string]int64 `json:"handed,omitempty"`
}

// Settings say how a class may ask: not at all, seen by all or by the teacher
// alone, and for the class with the name of who asks or without.
type Settings struct {
	Off    bool `json:"off,omitempty"`
	ForAll bool `json:"forAll,omitempty"`
	Named  bool `json:"named,omitempty"`
}

// Question is one from the class, by a student's id. At is in milliseconds since
// 1970. Agreed lists who would have asked the same.
type Question struct {
	ID     string   `json:"id"`
	By     string   `json:"by"`
	Text   string   `json:"text"`
	At     int64    `json:"at"`
	Agreed []string `json:"agreed,omitempty"`
	Ticked bool     `json:"ticked,omitempty"`
	Hidden bool     `json:"hidden,omitempty"`
}

// Call is a student who needs help, since At. Coming says that the teacher has said
// "I am coming".
type Call struct {
	Student string `json:"student"`
	At      int64  `json:"at"`
	Coming  bool   `json:"coming,omitempty"`
}

// Word is one thing that somebody says: exactly the field that its Kind names is
// set. It is the registry of the kinds of words; each has a file of its own, with its
// shape and its rule.
type Word struct {
	Kind  Kind      `json:"kind"            oneof:"words"`
	Ask   *Ask      `json:"ask,omitempty"`
	Agree *Agree    `json:"agree,omitempty"`
	Help  *Help     `json:"help,omitempty"`
	Done  *Done     `json:"done,omitempty"`
	Tick  *Tick     `json:"tick,omitempty"`
	Hide  *Hide     `json:"hide,omitempty"`
	Come  *Come     `json:"come,omitempty"`
	Let   *Settings `json:"let,omitempty"`
	Look  *Look     `json:"look,omitempty"`
	Pick  *Pick     `json:"pick,omitempty"`
	Tell  *Tell     `json:"tell,omitempty"`
	Heard *Heard    `json:"heard,omitempty"`
	Hand  *Hand     `json:"hand,omitempty"`
}

// Kind tells words apart.
type Kind string

// With is with what a word comes: whose it is, a student's id or the staff's; when
// (milliseconds since 1970); who has joined; which frames are open; who is here; how
// often each of them was picked in lessons before; and where chance comes from:
// Random(n) gives a number in 0..n-1.
type With struct {
	By       string
	Staff    bool
	Now      int64
	Students []string
	Open     []string
	Here     []string
	Before   map[string]int
	Random   func(n int) int
	// Home is the homework that the lesson is, if it is one.
	Home *homework.Homework
}

// word is what every kind of word has: whose it may be, its rule, and whose question
// or which student it is about, if any.
type word interface {
	byStaff() bool
	say(v *Voices, with With) error
	about() (question, who string)
}

// Say returns the voices after a word. Those given stay as they were; a word that
// changes nothing returns them.
func (v Voices) Say(w Word, with With) (Voices, error) {
	body, ok := oneof.Body(&w)
	said, is := body.(word)
	if !ok || !is {
		return v, refusal.New(refusal.UnknownOp)
	}
	if said.byStaff() != with.Staff {
		return v, refusal.New(refusal.NotYours)
	}
	next := v
	next.Questions, next.Help, next.Done = slices.Clone(v.Questions), slices.Clone(v.Help), maps.Clone(v.Done)
	if err := said.say(&next, with); err != nil {
		return v, err
	}
	if next.same(v) {
		return v, nil
	}
	next.Rev++
	return next, nil
}

// Concerned lists the students for whom something of their own may be another after
// a word of somebody: they themselves, who is meant, and whose question it is about.
func (v Voices) Concerned(w Word, by string) []string {
	body, _ := oneof.Body(&w)
	said, ok := body.(word)
	if !ok {
		return nil
	}
	question, who := said.about()
	students := []string{by, who}
	for _, q := range v.Questions {
		if q.ID == question {
			students = append(students, q.By)
		}
	}
	return students
}

// Ordered gives the voices with their questions in the order in which a teacher looks
// at them: those that wait first, those with which most agree before the others, and
// what was asked before what came later.
func (v Voices) Ordered() Voices {
	v.Questions = slices.Clone(v.Questions)
	slices.SortStableFunc(v.Questions, func(a, b Question) int {
		if a.Ticked != b.Ticked {
			return map[bool]int{false: -1, true: 1}[a.Ticked]
		}
		return cmp.Compare(len(b.Agreed), len(a.Agreed))
	})
	return v
}

func (v Voices) same(o Voices) bool {
	return v.Settings == o.Settings && slices.Equal(v.Help, o.Help) &&
		maps.EqualFunc(v.Done, o.Done, slices.Equal) && maps.Equal(v.Looked, o.Looked) &&
		slices.Equal(
			v.Picked,
			o.Picked,
		) && maps.Equal(v.Handed, o.Handed) && maps.EqualFunc(v.Told, o.Told, slices.Equal) &&
		slices.EqualFunc(v.Questions, o.Questions, func(a, b Question) bool {
			return a.ID == b.ID && a.Ticked == b.Ticked && a.Hidden == b.Hidden && slices.Equal(a.Agreed, b.Agreed)
		})
}

// Asked is a question as a class may see it. By is empty where names are not shown.
type Asked struct {
	ID     string `json:"id"`
	By     string `json:"by,omitempty"`
	Text   string `json:"text"`
	Agreed int    `json:"agreed"`
	Ticked bool   `json:"ticked,omitempty"`
}

// Shared is what every student may know: the questions that are seen by all.
type Shared struct {
	Rev       int64   `json:"rev"`
	Off       bool    `json:"off,omitempty"`
	ForAll    bool    `json:"forAll,omitempty"`
	Named     bool    `json:"named,omitempty"`
	Questions []Asked `json:"questions"`
}

// Own is what one student may know besides: their own questions, with which others
// they agree, whether help comes, which frames they are done with, and what the teacher
// told them.
type Own struct {
	Rev       int64    `json:"rev"`
	Questions []Asked  `json:"questions"`
	Agreed    []string `json:"agreed"`
	Help      Wait     `json:"help"`
	Done      []string `json:"done"`
	Told      []Told   `json:"told,omitempty"`
	// Handed is when they handed their homework in; 0 for not yet.
	Handed int64 `json:"handed,omitempty"`
}

// Wait says how it stands with somebody's call for help.
type Wait string

// Nobody was called; the call waits; the teacher has said that they are coming.
const (
	NotCalled Wait = "no"
	Called    Wait = "called"
	Coming    Wait = "coming"
)

func (q Question) asked(named bool) Asked {
	a := Asked{ID: q.ID, Text: q.Text, Agreed: len(q.Agreed), Ticked: q.Ticked}
	if named {
		a.By = q.By
	}
	return a
}

// ForClass gives what every student may know.
func (v Voices) ForClass() Shared {
	s := Shared{Rev: v.Rev, Off: v.Off, ForAll: v.ForAll, Named: v.Named, Questions: []Asked{}}
	for _, q := range v.Ordered().Questions {
		if v.ForAll && !q.Hidden {
			s.Questions = append(s.Questions, q.asked(v.Named))
		}
	}
	return s
}

// Same reports whether a class sees no difference.
func (s Shared) Same(o Shared) bool {
	return s.Off == o.Off && s.ForAll == o.ForAll && s.Named == o.Named && slices.Equal(s.Questions, o.Questions)
}

// ForStudent gives what one student may know besides that.
func (v Voices) ForStudent(student string) Own {
	own := Own{Rev: v.Rev, Questions: []Asked{}, Agreed: []string{}, Done: []string{}, Help: NotCalled}
	for _, q := range v.Ordered().Questions {
		if q.By == student {
			own.Questions = append(own.Questions, q.asked(v.Named))
		} else if slices.Contains(q.Agreed, student) && v.sees(q, student) {
			own.Agreed = append(own.Agreed, q.ID)
		}
	}
	for _, c := range v.Help {
		if c.Student == student {
			own.Help = Called
			if c.Coming {
				own.Help = Coming
			}
		}
	}
	for frame, done := range v.Done {
		if slices.Contains(done, student) {
			own.Done = append(own.Done, frame)
		}
	}
	slices.Sort(own.Done)
	own.Told, own.Handed = v.Told[student], v.Handed[student]
	return own
}

// sees reports whether a student may see a question.
func (v Voices) sees(q Question, student string) bool {
	return q.By == student || v.ForAll && !q.Hidden
}

func (v *Voices) find(question string) (*Question, error) {
	for i := range v.Questions {
		if v.Questions[i].ID == question {
			return &v.Questions[i], nil
		}
	}
	return nil, refusal.New(refusal.NoSuchQuestion)
}

// without gives a list of its own without one who may be on it.
func without(list []string, one string) []string {
	return slices.DeleteFunc(slices.Clone(list), func(o string) bool { return o == one })
}

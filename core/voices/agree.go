package voices

import "alpenglow/core/refusal"

// KindAgree agrees with a question.
const KindAgree Kind = "agree"

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

func (*Agree) byStaff() bool                   { return false }
func (a *Agree) about() (question, who string) { return a.Question, "" }

package voices

import (
	"maps"
	"slices"

	"alpenglow/core/refusal"
)

// KindLook notes that the teacher has looked.
const KindLook Kind = "look"

// Look notes that the teacher has looked at a student's work: who next remembers it.
type Look struct {
	Student string `json:"student"`
}

func (l *Look) say(v *Voices, with With) error {
	if !slices.Contains(with.Students, l.Student) {
		return refusal.About(refusal.Malformed, "no such student")
	}
	v.looked(l.Student, with.Now)
	return nil
}

func (v *Voices) looked(student string, now int64) {
	v.Looked = maps.Clone(v.Looked)
	if v.Looked == nil {
		v.Looked = map[string]int64{}
	}
	v.Looked[student] = now
}

func (*Look) byStaff() bool                   { return true }
func (l *Look) about() (question, who string) { return "", "" }

package voices

import "slices"

// KindCome answers a call for help.
const KindCome Kind = "come"

// Come tells a student who needs help that the teacher is coming; with Been, that
// they were there.
type Come struct {
	Student string `json:"student"`
	Been    bool   `json:"been,omitempty"`
}

func (c *Come) say(v *Voices, with With) error {
	if c.Been {
		if slices.Contains(with.Students, c.Student) {
			v.looked(c.Student, with.Now)
		}
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

func (*Come) byStaff() bool                   { return true }
func (c *Come) about() (question, who string) { return "", c.Student }

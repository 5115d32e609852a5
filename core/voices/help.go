package voices

import "slices"

// KindHelp calls for help.
const KindHelp Kind = "help"

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

func (v *Voices) noHelp(student string) {
	v.Help = slices.DeleteFunc(v.Help, func(c Call) bool { return c.Student == student })
}

func (*Help) byStaff() bool                 { return false }
func (*Help) about() (question, who string) { return "", "" }

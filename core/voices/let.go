package voices

// KindLet says how the class may ask.
const KindLet Kind = "let"

func (s *Settings) say(v *Voices, _ With) error {
	v.Settings = *s
	return nil
}

func (*Settings) byStaff() bool                 { return true }
func (*Settings) about() (question, who string) { return "", "" }

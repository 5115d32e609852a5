package voices

import (
	"maps"

	"alpenglow/core/refusal"
)

// KindHand hands homework in.
const KindHand Kind = "hand"

// Hand says that a student hands their homework in, or takes it back while there is time.
type Hand struct {
	In bool `json:"in"`
}

func (h *Hand) say(v *Voices, with With) error {
	if with.Home == nil {
		return refusal.New(refusal.NoHomework)
	}
	in := with.Home.In(v.Handed[with.By]) > 0
	switch {
	case h.In == in:
		return nil
	case h.In && with.Home.Over(with.By, with.Now), !h.In && with.Now > with.Home.Due(with.By):
		return refusal.New(refusal.HomeworkOver)
	}
	v.Handed = maps.Clone(v.Handed)
	if v.Handed == nil {
		v.Handed = map[string]int64{}
	}
	if h.In {
		v.Handed[with.By] = with.Now
	} else {
		delete(v.Handed, with.By)
	}
	return nil
}

func (*Hand) byStaff() bool                 { return false }
func (*Hand) about() (question, who string) { return "", "" }

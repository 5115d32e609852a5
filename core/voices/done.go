package voices

import (
	"slices"

	"alpenglow/core/refusal"
)

// KindDone says that somebody is done.
const KindDone Kind = "done"

// Done says that somebody is done with a frame, or goes on.
type Done struct {
	Frame string `json:"frame"`
	Yes   bool   `json:"yes"`
}

func (d *Done) say(v *Voices, with With) error {
	if !slices.Contains(with.Open, d.Frame) {
		return refusal.New(refusal.NoSuchFrame)
	}
	done := without(v.Done[d.Frame], with.By)
	if d.Yes {
		if slices.Contains(v.Done[d.Frame], with.By) {
			return nil
		}
		done = append(done, with.By)
	}
	if v.Done == nil {
		v.Done = map[string][]string{}
	}
	v.Done[d.Frame] = done
	return nil
}

func (*Done) byStaff() bool                 { return false }
func (*Done) about() (question, who string) { return "", "" }

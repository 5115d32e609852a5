package voices

import (
	"slices"

	"alpenglow/core/insight"
	"alpenglow/core/refusal"
)

// KindPick draws somebody.
const KindPick Kind = "pick"

// MaxPicked is how many draws of one session are remembered.
const MaxPicked = 400

// Pick draws one of the students who are here, fairly: among those who were picked
// least often, each is as likely as any other. Without are left out this time. With
// Undo, the last draw did not count.
type Pick struct {
	Without []string `json:"without,omitempty"`
	Undo    bool     `json:"undo,omitempty"`
}

// Picked is a draw: who it was, one of how many, at a time.
type Picked struct {
	Student string `json:"student"`
	Of      int    `json:"of"`
	At      int64  `json:"at"`
}

func (p *Pick) say(v *Voices, with With) error {
	if p.Undo {
		if len(v.Picked) > 0 {
			v.Picked = v.Picked[: len(v.Picked)-1 : len(v.Picked)-1]
		}
		return nil
	}
	pool := v.Pool(with.Here, p.Without, with.Before)
	if len(pool) == 0 {
		return refusal.New(refusal.NobodyToPick)
	}
	v.Picked = append(slices.Clone(v.Picked),
		Picked{insight.Pick(pool, with.Random), len(pool), with.Now})
	if len(v.Picked) > MaxPicked {
		v.Picked = v.Picked[1:]
	}
	return nil
}

// Pool lists those of some students who may be drawn next, without some, when each
// was picked so often before this session.
func (v Voices) Pool(here, without []string, before map[string]int) []string {
	var all []insight.Candidate
	for _, id := range here {
		if slices.Contains(without, id) {
			continue
		}
		c := insight.Candidate{ID: id, Times: before[id]}
		for _, p := range v.Picked {
			if p.Student == id {
				c.Times++
			}
		}
		all = append(all, c)
	}
	return insight.Pool(all)
}

func (*Pick) byStaff() bool                 { return true }
func (*Pick) about() (question, who string) { return "", "" }

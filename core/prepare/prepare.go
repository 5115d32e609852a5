// Package prepare answers: what may be changed on a board while it is
// prepared, what changes, and how is it undone?
//
// A board in the making is an outline, which names its frames in order, and the
// frames themselves. Marks on a frame are changed by the steps of package
// sheet, so that preparing and working are one thing.
package prepare

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// keptDropped is how many deleted frames can be brought back.
const keptDropped = 100

// Outline is a board without what is on its frames.
type Outline struct {
	Title      string             `json:"title"`
	Objectives []lesson.Objective `json:"objectives"`
	Criteria   []lesson.Criterion `json:"criteria,omitempty"`
	// Frames are the ids of the frames in order.
	Frames []string `json:"frames"`
	// Dropped are the frames that were deleted, the last one last.
	Dropped []Dropped `json:"dropped"`
}

// Dropped is a deleted frame and the place that it had.
type Dropped struct {
	Frame string `json:"frame"`
	At    int    `json:"at"`
}

// Draft is a board in the making, with those of its frames that an edit needs.
// The marks of a frame include those that were removed.
type Draft struct {
	Outline Outline
	Frames  map[string]lesson.Frame
}

// Changed is what an edit changed, as it is now: the outline, whole frames that
// are new or back, the settings of a frame (without its marks), marks of a
// frame. Rev numbers the changes of a board without holes.
type Changed struct {
	Rev     int64          `json:"rev"`
	Op      string         `json:"op"`
	Outline *Outline       `json:"outline,omitempty"`
	Whole   []lesson.Frame `json:"whole,omitempty"`
	Setting *lesson.Frame  `json:"setting,omitempty"`
	Marks   *ChangedMarks  `json:"marks,omitempty"`
}

// ChangedMarks are marks of a frame.
type ChangedMarks struct {
	Frame string           `json:"frame"`
	Put   []lesson.Element `json:"put"`
}

// New gives the draft of a board. Its frames are settled.
func New(b lesson.Board) Draft {
	d := Draft{Outline: Outline{Title: b.Title, Objectives: b.Objectives, Criteria: b.Criteria, Frames: []string{},
		Dropped: []Dropped{}}, Frames: map[string]lesson.Frame{}}
	if d.Outline.Objectives == nil {
		d.Outline.Objectives = []lesson.Objective{}
	}
	for _, f := range b.Frames {
		d.Outline.Frames = append(d.Outline.Frames, f.ID)
		d.Frames[f.ID] = f.Settled()
	}
	return d
}

// Board gives the board as it would be run now. All frames must be in the draft.
func (d Draft) Board() lesson.Board {
	b := lesson.Board{Title: d.Outline.Title, Objectives: d.Outline.Objectives, Criteria: d.Outline.Criteria,
		Frames: []lesson.Frame{}}
	for _, id := range d.Outline.Frames {
		b.Frames = append(b.Frames, d.Frames[id].Settled())
	}
	return b
}

// Add puts settled frames into the outline, the first of them at a place
// counted from 0, and says what takes this back.
func (d *Draft) Add(at int, frames ...lesson.Frame) (Changed, Step, error) {
	if len(d.Outline.Frames)+len(frames) > lesson.MaxFrames {
		return Changed{}, Step{}, refusal.New(refusal.BoardFull)
	}
	at = max(0, min(at, len(d.Outline.Frames)))
	next := d.Outline.clone()
	var ids []string
	for i, f := range frames {
		f = f.Settled()
		if err := f.Check(); err != nil {
			return Changed{}, Step{}, err
		}
		if slices.Contains(next.Frames, f.ID) ||
			slices.ContainsFunc(next.Dropped, func(o Dropped) bool { return o.Frame == f.ID }) {
			return Changed{}, Step{}, refusal.New(refusal.FrameThere)
		}
		next.Frames = slices.Insert(next.Frames, at+i, f.ID)
		frames[i] = f
		ids = append(ids, f.ID)
	}
	for _, f := range frames {
		d.Frames[f.ID] = f
	}
	d.Outline = next
	return Changed{Outline: &next, Whole: frames}, Step{Kind: KindDrop, Drop: &Frames{ids}}, nil
}

func (o Outline) clone() Outline {
	o.Frames, o.Dropped = slices.Clone(o.Frames), slices.Clone(o.Dropped)
	return o
}

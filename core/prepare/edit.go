package prepare

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/oneof"
	"alpenglow/core/paper"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/core/strict"
)

// Kind tells edits apart.
type Kind string

// The edits.
const (
	KindDrop  Kind = "drop"
	KindBring Kind = "bring"
	KindOrder Kind = "order"
	KindFrame Kind = "frame"
	KindBoard Kind = "board"
	KindMarks Kind = "marks"
)

// Edit is one change of a board as a client sends it. ID is a version 7 UUID
// made by the client; the same ID sent again does nothing again. Back says
// that it takes something back.
type Edit struct {
	ID   string `json:"id"`
	Back bool   `json:"back,omitempty"`
	Step
}

// Step is what an edit does: exactly the field that its Kind names is set.
type Step struct {
	Kind  Kind       `json:"kind"            oneof:"edits"`
	Drop  *Frames    `json:"drop,omitempty"`
	Bring *Frames    `json:"bring,omitempty"`
	Order *Frames    `json:"order,omitempty"`
	Frame *SetFrame  `json:"frame,omitempty"`
	Board *SetBoard  `json:"board,omitempty"`
	Marks *MarksStep `json:"marks,omitempty"`
}

// Frames names frames: those to delete, those to bring back, or all of them
// in their new order.
type Frames struct {
	Frames []string `json:"frames"`
}

// SetFrame changes some settings of a frame; those left out stay.
type SetFrame struct {
	Frame       string              `json:"frame"`
	Title       *string             `json:"title,omitempty"`
	Prompt      *string             `json:"prompt,omitempty"`
	Paper       *paper.Paper        `json:"paper,omitempty"`
	Arrangement *lesson.Arrangement `json:"arrangement,omitempty"`
	Permission  *lesson.Permission  `json:"permission,omitempty"`
	Replies     *bool               `json:"replies,omitempty"`
	Layout      *lesson.Layout      `json:"layout,omitempty"`
	Notes       *string             `json:"notes,omitempty"`
	Seconds     *int                `json:"seconds,omitempty"`
	Objectives  *[]string           `json:"objectives,omitempty"`
	Criteria    *[]lesson.Criterion `json:"criteria,omitempty"`
	Set         *AsSet              `json:"set,omitempty"`
}

// AsSet says how a frame's questions are asked in a row; with nothing, that they are not.
type AsSet struct {
	As *lesson.Set `json:"as,omitempty"`
}

// SetBoard changes the board's title, its learning objectives or what a whole lesson is judged by.
type SetBoard struct {
	Title      *string             `json:"title,omitempty"`
	Objectives *[]lesson.Objective `json:"objectives,omitempty"`
	Criteria   *[]lesson.Criterion `json:"criteria,omitempty"`
}

// MarksStep changes marks of a frame.
type MarksStep struct {
	Frame string     `json:"frame"`
	Step  sheet.Step `json:"step"`
}

// ReadEdit reads an edit from JSON. Fields that do not belong there, an unknown
// kind, and ids that are not version 7 UUIDs are refused.
func ReadEdit(data []byte) (Edit, error) {
	var e Edit
	if err := strict.Read(data, &e); err != nil {
		return e, err
	}
	if _, ok := oneof.Body(&e.Step); !ok {
		return e, refusal.New(refusal.UnknownOp)
	}
	if !id.IsV7(e.ID) {
		return e, refusal.New(refusal.BadID)
	}
	if e.Marks != nil {
		return e, e.Marks.Step.Check()
	}
	return e, nil
}

// Needs lists the frames that a draft must hold for the edit.
func (s Step) Needs() []string {
	switch {
	case s.Bring != nil:
		return s.Bring.Frames
	case s.Frame != nil:
		return []string{s.Frame.Frame}
	case s.Marks != nil:
		return []string{s.Marks.Frame}
	}
	return nil
}

// Apply does an edit at a time in milliseconds since 1970, and says what takes
// it back. A refused edit changes nothing.
func (d *Draft) Apply(e Edit, now int64) (Changed, Step, error) {
	changed, back, err := d.apply(e, now)
	changed.Op = e.ID
	return changed, back, err
}

func (d *Draft) apply(e Edit, now int64) (Changed, Step, error) {
	switch e.Kind {
	case KindDrop:
		return d.drop(e.Drop.Frames)
	case KindBring:
		return d.bring(e.Bring.Frames)
	case KindOrder:
		return d.order(e.Order.Frames)
	case KindFrame:
		return d.setFrame(*e.Frame)
	case KindBoard:
		return d.setBoard(*e.Board)
	case KindMarks:
		return d.marks(e, now)
	}
	return Changed{}, Step{}, refusal.New(refusal.UnknownOp)
}

// drop deletes frames; at least one stays.
func (d *Draft) drop(ids []string) (Changed, Step, error) {
	next := d.Outline.clone()
	for _, id := range ids {
		at := slices.Index(next.Frames, id)
		if at < 0 {
			return Changed{}, Step{}, d.absent(id)
		}
		next.Frames = slices.Delete(next.Frames, at, at+1)
		next.Dropped = append(next.Dropped, Dropped{id, at})
	}
	if len(next.Frames) == 0 {
		return Changed{}, Step{}, refusal.New(refusal.LastFrame)
	}
	next.Dropped = next.Dropped[max(0, len(next.Dropped)-keptDropped):]
	d.Outline = next
	return Changed{Outline: &next}, Step{Kind: KindBring, Bring: &Frames{ids}}, nil
}

// bring brings back deleted frames, each to where it was, the last one first.
func (d *Draft) bring(ids []string) (Changed, Step, error) {
	if len(d.Outline.Frames)+len(ids) > lesson.MaxFrames {
		return Changed{}, Step{}, refusal.New(refusal.BoardFull)
	}
	next := d.Outline.clone()
	whole := []lesson.Frame{}
	for _, id := range slices.Backward(ids) {
		at := slices.IndexFunc(next.Dropped, func(o Dropped) bool { return o.Frame == id })
		frame, ok := d.Frames[id]
		if at < 0 || !ok {
			return Changed{}, Step{}, refusal.New(refusal.NoSuchFrame)
		}
		place := min(next.Dropped[at].At, len(next.Frames))
		next.Dropped = slices.Delete(next.Dropped, at, at+1)
		next.Frames = slices.Insert(next.Frames, place, id)
		whole = append(whole, frame)
	}
	d.Outline = next
	return Changed{Outline: &next, Whole: whole}, Step{Kind: KindDrop, Drop: &Frames{ids}}, nil
}

// order puts the frames into the order given. Frames that it does not name,
// because somebody else has just added them, stay behind those before them.
func (d *Draft) order(ids []string) (Changed, Step, error) {
	next := d.Outline.clone()
	before := d.Outline.Frames
	next.Frames = []string{}
	for _, id := range ids {
		if slices.Contains(before, id) && !slices.Contains(next.Frames, id) {
			next.Frames = append(next.Frames, id)
		}
	}
	for i, id := range before {
		if slices.Contains(next.Frames, id) {
			continue
		}
		at := 0
		if i > 0 {
			at = slices.Index(next.Frames, before[i-1]) + 1
		}
		next.Frames = slices.Insert(next.Frames, at, id)
	}
	d.Outline = next
	return Changed{Outline: &next}, Step{Kind: KindOrder, Order: &Frames{before}}, nil
}

// frame finds a frame that is on the board.
func (d *Draft) frame(id string) (lesson.Frame, error) {
	f, ok := d.Frames[id]
	if !slices.Contains(d.Outline.Frames, id) || !ok {
		return f, d.absent(id)
	}
	return f, nil
}

func (d *Draft) absent(id string) error {
	if slices.ContainsFunc(d.Outline.Dropped, func(o Dropped) bool { return o.Frame == id }) {
		return refusal.New(refusal.FrameDropped)
	}
	return refusal.New(refusal.NoSuchFrame)
}

func (d *Draft) setFrame(set SetFrame) (Changed, Step, error) {
	f, err := d.frame(set.Frame)
	if err != nil {
		return Changed{}, Step{}, err
	}
	back := SetFrame{Frame: set.Frame}
	take(&f.Title, set.Title, &back.Title)
	take(&f.Prompt, set.Prompt, &back.Prompt)
	take(&f.Paper, set.Paper, &back.Paper)
	take(&f.Arrangement, set.Arrangement, &back.Arrangement)
	take(&f.Permission, set.Permission, &back.Permission)
	take(&f.Replies, set.Replies, &back.Replies)
	take(&f.Layout, set.Layout, &back.Layout)
	take(&f.Notes, set.Notes, &back.Notes)
	take(&f.Seconds, set.Seconds, &back.Seconds)
	takeList(&f.Objectives, set.Objectives, &back.Objectives)
	takeList(&f.Criteria, set.Criteria, &back.Criteria)
	if set.Set != nil {
		back.Set = &AsSet{f.Set}
		f.Set = set.Set.As
	}
	bare := f
	bare.Prepared = []lesson.Element{}
	if err := bare.Check(); err != nil {
		return Changed{}, Step{}, err
	}
	d.Frames[f.ID] = f
	return Changed{Setting: &bare}, Step{Kind: KindFrame, Frame: &back}, nil
}

func (d *Draft) setBoard(set SetBoard) (Changed, Step, error) {
	next, back := d.Outline.clone(), SetBoard{}
	take(&next.Title, set.Title, &back.Title)
	takeList(&next.Objectives, set.Objectives, &back.Objectives)
	takeList(&next.Criteria, set.Criteria, &back.Criteria)
	if err := lesson.CheckTitle(next.Title); err != nil {
		return Changed{}, Step{}, err
	}
	if next.Title == "" {
		return Changed{}, Step{}, refusal.New(refusal.NameEmpty)
	}
	if err := lesson.CheckObjectives(next.Objectives); err != nil {
		return Changed{}, Step{}, err
	}
	if err := lesson.CheckCriteria(next.Criteria); err != nil {
		return Changed{}, Step{}, err
	}
	d.Outline = next
	return Changed{Outline: &next}, Step{Kind: KindBoard, Board: &back}, nil
}

// take brings a new value, if there is one, into place, and notes the one before.
func take[T any](value, to *T, before **T) {
	if to != nil {
		old := *value
		*value, *before = *to, &old
	}
}

// takeList is take for a list. One that was not there is noted as one with nothing in it: as nothing at all it would not
// be sent, and not be taken back.
func takeList[T any](value, to *[]T, before **[]T) {
	take(value, to, before)
	if *before != nil && **before == nil {
		**before = []T{}
	}
}

package sheet

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindAdd puts a new mark on the sheet.
const KindAdd Kind = "add"

// Add puts a new mark with an id of the client's making on the sheet. Who it
// belongs to is not the client's to say. With Free set, the place is a wish:
// where it is taken, the nearest free one is used.
type Add struct {
	Mark  string  `json:"mark"`
	X     float64 `json:"x"`
	Y     float64 `json:"y"`
	W     float64 `json:"w"`
	H     float64 `json:"h"`
	Turn  float64 `json:"turn,omitempty"`
	Group string  `json:"group,omitempty"`
	Free  bool    `json:"free,omitempty"`
	// Layer and Tray are for preparing a board alone.
	Layer lesson.Layer `json:"layer,omitempty"`
	Tray  bool         `json:"tray,omitempty"`
	lesson.Body
}

func (a *Add) right() right { return right{one: true, visiting: a.Remark != nil} }

func (a *Add) check() error {
	if !id.IsV7(a.Mark) || a.Group != "" && !id.IsV7(a.Group) {
		return refusal.New(refusal.BadID)
	}
	return nil
}

func (a *Add) do(e *edit) error {
	add := *a
	if err := e.mayAdd(&add); err != nil {
		return err
	}
	if err := e.vacant(add.Mark); err != nil {
		return err
	}
	m := lesson.Element{ID: add.Mark, Author: e.actor.author(), Z: e.top + 1, At: e.terms.Now,
		X: add.X, Y: add.Y, W: add.W, H: add.H, Turn: add.Turn, Group: add.Group, Layer: add.Layer, Tray: add.Tray,
		Body: add.Body}
	if err := m.Fit(); err != nil {
		return err
	}
	if err := m.Check(); err != nil {
		return err
	}
	e.awaits(&m)
	if err := e.room(m, of(m)); err != nil {
		return err
	}
	if add.Free && !m.IsNowhere() {
		if err := e.free(&m); err != nil {
			return err
		}
	}
	e.put(m, Step{Kind: KindRemove, Remove: &Remove{Mark: m.ID}})
	return nil
}

// mayReply refuses replies where there are none, and to what is no note that the
// actor may know of.
func (e *edit) mayReply(r *lesson.Reply) error {
	if !e.terms.Frame.Replies || e.terms.Preparing {
		return refusal.New(refusal.NoReplies)
	}
	m, err := e.find(r.To)
	if err == nil && (!m.OnFrame() || m.Note == nil) {
		err = refusal.New(refusal.NoSuchMark)
	}
	return err
}

// MaxRemarks is how many remarks one student may have on a sheet, allRemarks how many all
// of them have, so that room is left for whose sheet it is.
const (
	MaxRemarks = 10
	allRemarks = shareMarks
)

// mayRemark refuses remarks where the class is not on its walk, and too many of one student.
func (e *edit) mayRemark() error {
	if !e.visited(e.terms) || e.terms.Preparing {
		return refusal.New(refusal.NoReplies)
	}
	said, err := e.each(func(m lesson.Element) bool { return m.Remark != nil })
	if err != nil {
		return err
	}
	own := slices.DeleteFunc(slices.Clone(said), func(m lesson.Element) bool { return m.Author != e.actor.author() })
	if len(said) >= allRemarks || !e.actor.Staff && len(own) >= MaxRemarks {
		return refusal.About(refusal.TooMany, "at most %d by one student", MaxRemarks)
	}
	return nil
}

// mayAdd refuses kinds of marks that cannot be added here, and gives copies of
// pieces the size that these have.
func (e *edit) mayAdd(add *Add) error {
	switch {
	case add.Kind == lesson.KindPlaced:
		return e.copyOf(add)
	case add.Reply != nil:
		return e.mayReply(add.Reply)
	case add.Remark != nil:
		return e.mayRemark()
	case add.IsAnswer() || !add.InClass() && !e.terms.Preparing:
		return refusal.About(refusal.Malformed, "this kind of mark cannot be added here")
	case add.Note != nil && add.Note.Stack != "":
		return refusal.About(refusal.Malformed, "a new note lies in no stack")
	case e.terms.Preparing && add.Note != nil && add.Note.Margin:
		return refusal.About(refusal.Malformed, "what is prepared does not lie beside the frame")
	case !e.terms.Preparing && (add.Layer != lesson.Fixed || add.Tray):
		return refusal.About(refusal.Malformed, "pieces are laid out when a board is prepared")
	case add.Picture != nil && !id.IsUUID(add.Picture.Picture):
		return refusal.New(refusal.NoSuchPicture)
	}
	return nil
}

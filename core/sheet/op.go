package sheet

import (
	"bytes"
	"encoding/json"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"

	"github.com/google/uuid"
)

// Kind tells operations apart.
type Kind string

// The operations.
const (
	KindAdd     Kind = "add"
	KindSet     Kind = "set"
	KindRemove  Kind = "remove"
	KindRestore Kind = "restore"
	KindErase   Kind = "erase"
	KindAgree   Kind = "agree"
	KindMany    Kind = "many"
	KindHide    Kind = "hide"
	KindShow    Kind = "show"
	KindClear   Kind = "clear"
	KindAnswer  Kind = "answer"
)

// Op is one operation on a sheet, as a client sends it. ID is a version 7 UUID
// made by the client; the same ID sent again does nothing again.
type Op struct {
	ID    string `json:"id"`
	Sheet string `json:"sheet"`
	// Back says that the operation takes something back: it is refused where
	// somebody else has changed a mark since.
	Back bool `json:"back,omitempty"`
	Step
}

// Step is what an operation does: exactly the field that its Kind names is set.
type Step struct {
	Kind    Kind       `json:"kind" oneof:"Add Set Remove Restore Erase Agree Many Hide Show Clear Answer"`
	Add     *Add       `json:"add,omitempty"`
	Set     *Set       `json:"set,omitempty"`
	Remove  *Target    `json:"remove,omitempty"`
	Restore *Restore   `json:"restore,omitempty"`
	Erase   *Erase     `json:"erase,omitempty"`
	Agree   *Agree     `json:"agree,omitempty"`
	Many    *Many      `json:"many,omitempty"`
	Hide    *Target    `json:"hide,omitempty"`
	Show    *Target    `json:"show,omitempty"`
	Clear   *Clear     `json:"clear,omitempty"`
	Answer  *SetAnswer `json:"answer,omitempty"`
}

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

// Set changes some properties of a mark; those left out stay.
type Set struct {
	Mark   string         `json:"mark"`
	X      *float64       `json:"x,omitempty"`
	Y      *float64       `json:"y,omitempty"`
	W      *float64       `json:"w,omitempty"`
	H      *float64       `json:"h,omitempty"`
	Turn   *float64       `json:"turn,omitempty"`
	Z      *int64         `json:"z,omitempty"`
	Group  *string        `json:"group,omitempty"`
	Text   *string        `json:"text,omitempty"`
	Tint   *lesson.Tint   `json:"tint,omitempty"`
	Fill   *lesson.Fill   `json:"fill,omitempty"`
	Ink    *lesson.Ink    `json:"ink,omitempty"`
	Width  *float64       `json:"width,omitempty"`
	Dash   *bool          `json:"dash,omitempty"`
	Size   *float64       `json:"size,omitempty"`
	Bold   *bool          `json:"bold,omitempty"`
	Align  *lesson.Align  `json:"align,omitempty"`
	List   *lesson.List   `json:"list,omitempty"`
	Form   *lesson.Form   `json:"form,omitempty"`
	From   *lesson.Anchor `json:"from,omitempty"`
	To     *lesson.Anchor `json:"to,omitempty"`
	Heads  *lesson.Heads  `json:"heads,omitempty"`
	Alt    *string        `json:"alt,omitempty"`
	URL    *string        `json:"url,omitempty"`
	Stroke *lesson.Stroke `json:"stroke,omitempty"`
	Layer  *lesson.Layer  `json:"layer,omitempty"`
	Tray   *bool          `json:"tray,omitempty"`
	Rows   *[][]string    `json:"rows,omitempty"`
	Poll   *poll.Question `json:"poll,omitempty"`
}

// Target names the mark that an operation is about.
type Target struct {
	Mark string `json:"mark"`
}

// Restore brings back a removed mark, or with In all that one operation removed.
type Restore struct {
	Mark string `json:"mark,omitempty"`
	In   string `json:"in,omitempty"`
}

// Erase takes away the ink under a round eraser that was moved along a path
// x0, y0, x1, y1, ... of frame units: whole strokes that it touched, or with
// Part set the part of each that lay under it.
type Erase struct {
	Path   []float64 `json:"path"`
	Radius float64   `json:"radius"`
	Part   bool      `json:"part,omitempty"`
}

// Agree agrees with somebody's note, or takes that back.
type Agree struct {
	Mark string `json:"mark"`
	Yes  bool   `json:"yes"`
}

// Many does several steps as one: all of them or none. They may be add, set,
// remove and restore.
type Many struct {
	Steps []Step `json:"steps"`
}

// Clear removes the work of one author, or of everybody if Author is empty.
type Clear struct {
	Author string `json:"author,omitempty"`
}

// SetAnswer answers a poll; an empty choice takes the answer back.
type SetAnswer struct {
	Poll   string `json:"poll"`
	Choice string `json:"choice"`
}

// ReadOp reads an operation from JSON. Fields that do not belong there, an
// unknown kind, a kind without its body, and ids that are not version 7 UUIDs
// are refused.
func ReadOp(data []byte) (Op, error) {
	var head struct {
		Kind Kind `json:"kind"`
	}
	if err := json.Unmarshal(data, &head); err != nil {
		return Op{}, refusal.New(refusal.Malformed)
	}
	switch head.Kind {
	case KindAdd, KindSet, KindRemove, KindRestore, KindErase, KindAgree, KindMany, KindHide, KindShow, KindClear, KindAnswer:
	default:
		return Op{}, refusal.New(refusal.UnknownOp)
	}
	var op Op
	reader := json.NewDecoder(bytes.NewReader(data))
	reader.DisallowUnknownFields()
	if err := reader.Decode(&op); err != nil {
		return Op{}, refusal.About(refusal.Malformed, "a field of the operation")
	}
	if !isV7(op.ID) {
		return op, refusal.New(refusal.BadID)
	}
	return op, op.Step.Check()
}

// MaxSteps is how many steps one operation may have.
const MaxSteps = 500

// Check refuses a step whose kind and body differ, and ids that are not version 7 UUIDs.
func (s Step) Check() error {
	for _, k := range [...]struct {
		kind Kind
		set  bool
	}{
		{KindAdd, s.Add != nil}, {KindSet, s.Set != nil}, {KindRemove, s.Remove != nil}, {KindRestore, s.Restore != nil},
		{KindErase, s.Erase != nil}, {KindAgree, s.Agree != nil}, {KindMany, s.Many != nil}, {KindHide, s.Hide != nil},
		{KindShow, s.Show != nil}, {KindClear, s.Clear != nil}, {KindAnswer, s.Answer != nil},
	} {
		if k.set != (k.kind == s.Kind) {
			return refusal.About(refusal.Malformed, "kind and body of the operation differ")
		}
	}
	switch {
	case s.Add != nil && (!isV7(s.Add.Mark) || s.Add.Group != "" && !isV7(s.Add.Group)),
		s.Set != nil && s.Set.Group != nil && *s.Set.Group != "" && !isV7(*s.Set.Group):
		return refusal.New(refusal.BadID)
	case s.Many == nil:
		return nil
	case len(s.Many.Steps) == 0 || len(s.Many.Steps) > MaxSteps:
		return refusal.About(refusal.TooMany, "%d steps, at most %d", len(s.Many.Steps), MaxSteps)
	}
	for _, one := range s.Many.Steps {
		switch one.Kind {
		case KindAdd, KindSet, KindRemove, KindRestore:
		default:
			return refusal.About(refusal.Malformed, "this cannot be one of many steps")
		}
		if err := one.Check(); err != nil {
			return err
		}
	}
	return nil
}

// Cost is how much of a student's rate an operation takes: 1, and 1 more for
// every ten steps or every twenty points of an eraser's way.
func (op Op) Cost() int {
	switch {
	case op.Many != nil:
		return 1 + len(op.Many.Steps)/10
	case op.Erase != nil:
		return 1 + len(op.Erase.Path)/40
	}
	return 1
}

// isV7 accepts a version 7 UUID (RFC 9562) in its canonical small letters, so
// that one id has one spelling.
func isV7(id string) bool {
	u, err := uuid.Parse(id)
	return err == nil && u.Version() == 7 && u.String() == id
}

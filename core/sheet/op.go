package sheet

import (
	"bytes"
	"encoding/json"

	"alpenglow/core/lesson"
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
	KindHide    Kind = "hide"
	KindShow    Kind = "show"
	KindAnswer  Kind = "answer"
)

// Op is one operation on a sheet, as a client sends it: exactly the field that
// its Kind names is set. ID is a version 7 UUID made by the client; the same
// ID sent again does nothing again.
type Op struct {
	ID      string     `json:"id"`
	Sheet   string     `json:"sheet"`
	Kind    Kind       `json:"kind" oneof:"Add Set Remove Restore Hide Show Answer"`
	Add     *Add       `json:"add,omitempty"`
	Set     *Set       `json:"set,omitempty"`
	Remove  *Target    `json:"remove,omitempty"`
	Restore *Target    `json:"restore,omitempty"`
	Hide    *Target    `json:"hide,omitempty"`
	Show    *Target    `json:"show,omitempty"`
	Answer  *SetAnswer `json:"answer,omitempty"`
}

// Add puts a new mark with an id of the client's making on the sheet. Who it
// belongs to is not the client's to say.
type Add struct {
	Mark string  `json:"mark"`
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
	W    float64 `json:"w"`
	H    float64 `json:"h"`
	lesson.Body
}

// Set changes some properties of a mark; those left out stay.
type Set struct {
	Mark  string       `json:"mark"`
	X     *float64     `json:"x,omitempty"`
	Y     *float64     `json:"y,omitempty"`
	W     *float64     `json:"w,omitempty"`
	H     *float64     `json:"h,omitempty"`
	Text  *string      `json:"text,omitempty"`
	Tint  *lesson.Tint `json:"tint,omitempty"`
	Ink   *lesson.Ink  `json:"ink,omitempty"`
	Width *float64     `json:"width,omitempty"`
	Size  *float64     `json:"size,omitempty"`
}

// Target names the mark that an operation is about.
type Target struct {
	Mark string `json:"mark"`
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
	case KindAdd, KindSet, KindRemove, KindRestore, KindHide, KindShow, KindAnswer:
	default:
		return Op{}, refusal.New(refusal.UnknownOp)
	}
	var op Op
	reader := json.NewDecoder(bytes.NewReader(data))
	reader.DisallowUnknownFields()
	if err := reader.Decode(&op); err != nil {
		return Op{}, refusal.About(refusal.Malformed, "a field of the operation")
	}
	return op, op.check()
}

func (op Op) check() error {
	if !isV7(op.ID) || op.Add != nil && !isV7(op.Add.Mark) {
		return refusal.New(refusal.BadID)
	}
	bodies := map[Kind]bool{
		KindAdd: op.Add != nil, KindSet: op.Set != nil, KindRemove: op.Remove != nil, KindRestore: op.Restore != nil,
		KindHide: op.Hide != nil, KindShow: op.Show != nil, KindAnswer: op.Answer != nil,
	}
	for kind, set := range bodies {
		if set != (kind == op.Kind) {
			return refusal.About(refusal.Malformed, "kind and body of the operation differ")
		}
	}
	return nil
}

// isV7 accepts a version 7 UUID (RFC 9562) in its canonical small letters, so
// that one id has one spelling.
func isV7(id string) bool {
	u, err := uuid.Parse(id)
	return err == nil && u.Version() == 7 && u.String() == id
}

package sheet

import (
	"encoding/json"

	"alpenglow/core/id"
	"alpenglow/core/oneof"
	"alpenglow/core/refusal"
	"alpenglow/core/strict"
)

// Kind tells operations apart.
type Kind string

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
// It is the registry of the operations. Each has a file of its own, with its
// shape, its check, who may do it, its rule and what takes it back; to add one
// is to write that file and to name it here.
type Step struct {
	Kind    Kind       `json:"kind" oneof:"operations"`
	Add     *Add       `json:"add,omitempty"`
	Set     *Set       `json:"set,omitempty"`
	Remove  *Remove    `json:"remove,omitempty"`
	Restore *Restore   `json:"restore,omitempty"`
	Erase   *Erase     `json:"erase,omitempty"`
	Agree   *Agree     `json:"agree,omitempty"`
	Many    *Many      `json:"many,omitempty"`
	Hide    *Hide      `json:"hide,omitempty"`
	Hold    *Hold      `json:"hold,omitempty"`
	Show    *Show      `json:"show,omitempty"`
	Clear   *Clear     `json:"clear,omitempty"`
	Spread  *Spread    `json:"spread,omitempty"`
	Stack   *Stack     `json:"stack,omitempty"`
	SetBack *SetBack   `json:"setBack,omitempty"`
	Answer  *SetAnswer `json:"answer,omitempty"`
	HandIn  *HandIn    `json:"handIn,omitempty"`
}

// deed is what every kind of operation has.
type deed interface {
	// check reports what is wrong with its shape, before any sheet is looked at.
	check() error
	// right says who may do it and where.
	right() right
	// do decides what changes.
	do(e *edit) error
}

// right says who may do an operation and where.
type right struct {
	staff    bool // the staff alone
	students bool // students alone
	inClass  bool // not while a board is prepared
	looking  bool // also where students may only look
	visiting bool // also on others' sheets while the class walks along them
	one      bool // may be one of many steps
}

// deed gives a step as the operation that it is.
func (s *Step) deed() (deed, error) {
	body, ok := oneof.Body(s)
	if d, is := body.(deed); ok && is {
		return d, nil
	}
	return nil, refusal.About(refusal.Malformed, "kind and body of the operation differ")
}

// Check refuses a step whose kind and body differ, and what is wrong with its shape.
func (s *Step) Check() error {
	d, err := s.deed()
	if err != nil {
		return err
	}
	return d.check()
}

// ReadOp reads an operation from JSON. Fields that do not belong there, an
// unknown kind, a kind without its body, and ids in another spelling than
// their one are refused.
func ReadOp(data []byte) (Op, error) {
	var op Op
	if err := strict.Read(data, &op); err != nil {
		var head struct {
			Kind Kind `json:"kind"`
		}
		if json.Unmarshal(data, &head) == nil && !kinds[head.Kind] {
			return Op{}, refusal.New(refusal.UnknownOp)
		}
		return Op{}, err
	}
	if !kinds[op.Kind] {
		return Op{}, refusal.New(refusal.UnknownOp)
	}
	d, err := op.Step.deed()
	if err != nil {
		return op, err
	}
	if !id.IsV7(op.ID) || !id.IsUUID(op.Sheet) {
		return op, refusal.New(refusal.BadID)
	}
	return op, d.check()
}

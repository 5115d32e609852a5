package lesson

import (
	"alpenglow/core/oneof"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// Kind tells marks apart.
type Kind string

// Body is what a mark is made of: exactly the field that its Kind names is set.
// It is the registry of the kinds of marks. Each has a file of its own, with
// its shape, its check, what can be set on it and its words; to add one is to
// write that file and to name it here.
type Body struct {
	Kind      Kind           `json:"kind" oneof:"marks"`
	Note      *Note          `json:"note,omitempty"`
	Text      *Text          `json:"text,omitempty"`
	Stroke    *Stroke        `json:"stroke,omitempty"`
	Shape     *Shape         `json:"shape,omitempty"`
	Connector *Connector     `json:"connector,omitempty"`
	Stamp     *Stamp         `json:"stamp,omitempty"`
	Picture   *Picture       `json:"picture,omitempty"`
	Link      *Link          `json:"link,omitempty"`
	Table     *Table         `json:"table,omitempty"`
	Poll      *poll.Question `json:"poll,omitempty"`
	Answer    *Answer        `json:"answer,omitempty"`
	Handed    *Handed        `json:"handed,omitempty"`
	Reply     *Reply         `json:"reply,omitempty"`
	Remark    *Remark        `json:"remark,omitempty"`
	Cover     *Cover         `json:"cover,omitempty"`
	Placed    *Placed        `json:"placed,omitempty"`
}

// kind is what every kind of mark has.
type kind interface {
	// check reports what is wrong with the body.
	check() error
	// with gives the body with those properties that it has taken from p, and
	// notes in before what they were. The body itself is never written to:
	// other copies of the mark share it.
	with(p, before *Properties) Body
	// words are what can be read on it, says what a list or a table of the
	// record says of it.
	words() string
	says() string
	manner() manner
}

// manner is how a kind of mark behaves.
type manner struct {
	// inClass says that it can be added in class, else only in preparing;
	// piece that it can be prepared as one; answer that it is an answer to a
	// poll or that a set was handed in, which nobody moves, hides or clears; nowhere that it has no place on the
	// frame; straight that it is not turned.
	inClass, piece, answer, nowhere, straight bool
	// least is the shortest side of its box, in units.
	least float64
	// counted is the name under which the record counts such marks instead of
	// listing them.
	counted string
}

// kind gives the body as the kind of mark that it is.
func (b *Body) kind() (kind, bool) {
	body, ok := oneof.Body(b)
	if q, is := body.(*poll.Question); is {
		return (*asked)(q), ok
	}
	k, is := body.(kind)
	return k, ok && is
}

// Sound reports what is wrong with a body: one that does not fit its kind,
// unknown styles, text over its limit.
func (b *Body) Sound() error {
	k, ok := b.kind()
	if !ok {
		return refusal.About(refusal.Malformed, "kind and body of a mark differ")
	}
	return k.check()
}

// InClass reports whether such a mark can be added in class, and not only while
// a board is prepared.
func (b Body) InClass() bool { return b.manner().inClass }

// IsAnswer reports whether the mark is an answer to a poll, or that a set was handed in.
func (b Body) IsAnswer() bool { return b.manner().answer }

// IsNowhere reports whether the mark has no place on the frame: an answer, a reply, a remark.
func (b Body) IsNowhere() bool { m := b.manner(); return m.nowhere || m.answer }

// Counted is the name under which the record counts such marks instead of
// listing them; mostly empty.
func (b Body) Counted() string { return b.manner().counted }

// Words are what can be read on a mark; empty for one without words.
func (b Body) Words() string {
	if k, ok := b.kind(); ok {
		return k.words()
	}
	return ""
}

// Says is what a list says of a mark: its words, or what it shows.
func (b Body) Says() string {
	if k, ok := b.kind(); ok {
		return k.says()
	}
	return ""
}

func (b *Body) manner() manner {
	if k, ok := b.kind(); ok {
		return k.manner()
	}
	return manner{}
}

func letterSize(size float64) bool { return size >= 16 && size <= 120 }

func checkLine(i Ink, width float64) error {
	if !i.known() || !(width >= 1 && width <= 60) {
		return refusal.About(refusal.BadStyle, "ink or width")
	}
	return nil
}

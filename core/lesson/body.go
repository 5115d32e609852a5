package lesson

import (
	"math"
	"net/url"
	"slices"

	"alpenglow/core/ink"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// Kind tells marks apart.
type Kind string

// The kinds of marks.
const (
	KindNote      Kind = "note"
	KindText      Kind = "text"
	KindStroke    Kind = "stroke"
	KindShape     Kind = "shape"
	KindConnector Kind = "connector"
	KindStamp     Kind = "stamp"
	KindPicture   Kind = "picture"
	KindLink      Kind = "link"
	KindTable     Kind = "table"
	KindPoll      Kind = "poll"
	KindAnswer    Kind = "answer"
	KindCover     Kind = "cover"
	KindPlaced    Kind = "placed"
)

// Note is a sticky note: a card that grows with its text. Size is the height of
// its letters in frame units, 0 for the usual one.
type Note struct {
	Text string  `json:"text"`
	Tint Tint    `json:"tint"`
	Size float64 `json:"size,omitempty"`
}

// Text is words without a card. Size is the height of its letters in frame units.
type Text struct {
	Text  string  `json:"text"`
	Size  float64 `json:"size"`
	Ink   Ink     `json:"ink"`
	Bold  bool    `json:"bold,omitempty"`
	Align Align   `json:"align,omitempty"`
	List  List    `json:"list,omitempty"`
}

// Align is where the lines of a text stand; empty for at the start.
type Align string

// The other alignments.
const (
	AlignStart  Align = ""
	AlignCentre Align = "centre"
	AlignEnd    Align = "end"
)

// List says how the lines of a text are counted off; empty for not at all.
type List string

// The kinds of lists.
const (
	ListNone    List = ""
	ListBullets List = "bullets"
	ListNumbers List = "numbers"
)

// Nib is what a stroke was drawn with; empty for the pen.
type Nib string

// The nibs: the highlighter lets what is under it shine through, the brush
// follows the pressure more than the pen, the marker not at all.
const (
	NibPen         Nib = ""
	NibMarker      Nib = "marker"
	NibHighlighter Nib = "highlighter"
	NibBrush       Nib = "brush"
)

// Stroke is a drawn line; see package ink for its points. Width in frame units.
type Stroke struct {
	Points []float64 `json:"points"`
	Ink    Ink       `json:"ink"`
	Width  float64   `json:"width"`
	Nib    Nib       `json:"nib,omitempty"`
}

// Form is the outline of a shape.
type Form string

// The forms. A line, which only prepared frames have, runs from the top left
// to the bottom right of its box; lines drawn in class are connectors.
const (
	FormRect     Form = "rect"
	FormRounded  Form = "rounded"
	FormEllipse  Form = "ellipse"
	FormTriangle Form = "triangle"
	FormDiamond  Form = "diamond"
	FormBubble   Form = "bubble"
	FormStar     Form = "star"
	FormLine     Form = "line"
)

// Forms lists the forms.
var Forms = []Form{FormRect, FormRounded, FormEllipse, FormTriangle, FormDiamond, FormBubble, FormStar, FormLine}

// Fill is what a shape is filled with: a tint, or empty for nothing.
type Fill string

// Fills lists nothing and the tints.
var Fills = append([]Fill{""}, tintsAsFills()...)

func tintsAsFills() []Fill {
	fills := make([]Fill, len(Tints))
	for i, t := range Tints {
		fills[i] = Fill(t)
	}
	return fills
}

// Shape is a figure with an outline, a fill and words in it. Lean is how far
// the tip of a triangle stands beside the middle of its base, in parts of the
// base: -0.5 above its left end, 0.5 above its right.
type Shape struct {
	Form  Form    `json:"form"`
	Ink   Ink     `json:"ink"`
	Fill  Fill    `json:"fill,omitempty"`
	Width float64 `json:"width"`
	Dash  bool    `json:"dash,omitempty"`
	Text  string  `json:"text,omitempty"`
	Lean  float64 `json:"lean,omitempty"`
}

// Anchor is one end of a connector: attached to a mark, or free at a point of the
// frame. An attached end has the point where it was drawn, for when its mark is
// not there.
type Anchor struct {
	Mark string  `json:"mark,omitempty"`
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
}

// Heads says at which ends a connector has arrow heads; empty for none.
type Heads string

// Where the heads are.
const (
	HeadsNone Heads = ""
	HeadsTo   Heads = "to"
	HeadsBoth Heads = "both"
)

// Connector is a straight line or an arrow from one end to the other.
type Connector struct {
	From  Anchor  `json:"from"`
	To    Anchor  `json:"to"`
	Ink   Ink     `json:"ink"`
	Width float64 `json:"width"`
	Dash  bool    `json:"dash,omitempty"`
	Heads Heads   `json:"heads,omitempty"`
}

func (c Connector) box() (x, y, w, h float64) {
	x, y = min(c.From.X, c.To.X), min(c.From.Y, c.To.Y)
	return x, y, math.Abs(c.To.X - c.From.X), math.Abs(c.To.Y - c.From.Y)
}

// Sign is what a stamp shows.
type Sign string

// Signs are the stamps for quick answers.
var Signs = []Sign{"right", "unsure", "question", "idea", "star", "heart", "pin", "alert"}

// Stamp is a small picture for a quick answer.
type Stamp struct {
	Sign Sign `json:"sign"`
}

// Picture shows an uploaded picture; Alt says in words what is on it.
type Picture struct {
	Picture string `json:"picture"`
	Alt     string `json:"alt,omitempty"`
}

// Link leads to a page on the web.
type Link struct {
	URL   string `json:"url"`
	Title string `json:"title,omitempty"`
}

// Table is prepared text in rows; its first row is the heading.
type Table struct {
	Rows [][]string `json:"rows"`
}

// Answer is one student's answer to the poll with the id Poll.
type Answer struct {
	Poll   string `json:"poll"`
	Choice string `json:"choice"`
}

// Cover hides what lies under it until the teacher lifts it. Text is what is
// written on it.
type Cover struct {
	Tint Tint   `json:"tint"`
	Text string `json:"text,omitempty"`
}

// Placed is a piece where people have put it: the prepared piece with the id
// Piece, or a copy of it if the mark has another id. Its size and looks are
// the piece's.
type Placed struct {
	Piece string `json:"piece"`
}

// Body is what a mark is made of: exactly the field that its Kind names is set.
type Body struct {
	Kind      Kind           `json:"kind" oneof:"Note Text Stroke Shape Connector Stamp Picture Link Table Poll Answer Cover Placed"`
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
	Cover     *Cover         `json:"cover,omitempty"`
	Placed    *Placed        `json:"placed,omitempty"`
}

// Sound reports what is wrong with a body: one that does not fit its kind,
// unknown styles, text over its limit.
func (b *Body) Sound() error {
	for _, k := range [...]struct {
		kind Kind
		set  bool
	}{
		{KindNote, b.Note != nil}, {KindText, b.Text != nil}, {KindStroke, b.Stroke != nil}, {KindShape, b.Shape != nil},
		{KindConnector, b.Connector != nil}, {KindStamp, b.Stamp != nil}, {KindPicture, b.Picture != nil}, {KindLink, b.Link != nil},
		{KindTable, b.Table != nil}, {KindPoll, b.Poll != nil}, {KindAnswer, b.Answer != nil},
		{KindCover, b.Cover != nil}, {KindPlaced, b.Placed != nil},
	} {
		if k.set != (k.kind == b.Kind) {
			return refusal.About(refusal.Malformed, "kind and body of a mark differ")
		}
	}
	switch b.Kind {
	case KindNote:
		if !b.Note.Tint.known() || b.Note.Size != 0 && !letters(b.Note.Size) {
			return refusal.About(refusal.BadStyle, "tint or size")
		}
		return checkText(b.Note.Text, MaxNote)
	case KindText:
		t := b.Text
		if !t.Ink.known() || !letters(t.Size) || !slices.Contains([]Align{AlignStart, AlignCentre, AlignEnd}, t.Align) ||
			!slices.Contains([]List{ListNone, ListBullets, ListNumbers}, t.List) {
			return refusal.About(refusal.BadStyle, "ink, size, alignment or list")
		}
		return checkText(t.Text, MaxText)
	case KindStroke:
		if !slices.Contains([]Nib{NibPen, NibMarker, NibHighlighter, NibBrush}, b.Stroke.Nib) {
			return refusal.About(refusal.BadStyle, "nib")
		}
		if _, _, err := ink.Bounds(b.Stroke.Points); err != nil {
			return err
		}
		return checkLine(b.Stroke.Ink, b.Stroke.Width)
	case KindShape:
		if !slices.Contains(Forms, b.Shape.Form) {
			return refusal.About(refusal.BadStyle, "form")
		}
		if !slices.Contains(Fills, b.Shape.Fill) || !(b.Shape.Lean >= -0.5 && b.Shape.Lean <= 0.5) {
			return refusal.About(refusal.BadStyle, "fill or lean")
		}
		if err := checkWords(b.Shape.Text, MaxNote); err != nil {
			return err
		}
		return checkLine(b.Shape.Ink, b.Shape.Width)
	case KindConnector:
		return b.Connector.check()
	case KindStamp:
		if !slices.Contains(Signs, b.Stamp.Sign) {
			return refusal.About(refusal.BadStyle, "stamp")
		}
	case KindPicture:
		if b.Picture.Picture == "" || len(b.Picture.Picture) > 64 {
			return refusal.New(refusal.NoSuchPicture)
		}
		return checkWords(b.Picture.Alt, MaxNote)
	case KindLink:
		return b.Link.check()
	case KindTable:
		return b.Table.check()
	case KindPoll:
		for _, c := range append([]poll.Choice{{Text: b.Poll.Text}}, b.Poll.Choices...) {
			if err := checkWords(c.Text, poll.MaxQuestion); err != nil {
				return err
			}
		}
		return b.Poll.Check()
	case KindCover:
		if !b.Cover.Tint.known() {
			return refusal.About(refusal.BadStyle, "tint")
		}
		return checkWords(b.Cover.Text, MaxNote)
	case KindPlaced:
		if b.Placed.Piece == "" || len(b.Placed.Piece) > 64 {
			return refusal.New(refusal.NoSuchMark)
		}
	case KindAnswer:
	default:
		return refusal.About(refusal.Malformed, "unknown kind of mark")
	}
	return nil
}

// How many rows and columns a table may have.
const (
	MaxRows    = 30
	MaxColumns = 12
)

// check wants rows of one length; a cell may be empty.
func (t Table) check() error {
	if len(t.Rows) == 0 || len(t.Rows) > MaxRows || len(t.Rows[0]) == 0 || len(t.Rows[0]) > MaxColumns {
		return refusal.About(refusal.BadSize, "a table has 1 to %d rows and 1 to %d columns", MaxRows, MaxColumns)
	}
	for _, row := range t.Rows {
		if len(row) != len(t.Rows[0]) {
			return refusal.About(refusal.BadSize, "the rows of a table are of one length")
		}
		for _, cell := range row {
			if err := checkWords(cell, MaxNote); err != nil {
				return err
			}
		}
	}
	return nil
}

func (c Connector) check() error {
	if !slices.Contains([]Heads{HeadsNone, HeadsTo, HeadsBoth}, c.Heads) {
		return refusal.About(refusal.BadStyle, "heads")
	}
	if len(c.From.Mark) > 64 || len(c.To.Mark) > 64 || c.From.Mark != "" && c.From.Mark == c.To.Mark {
		return refusal.About(refusal.Malformed, "ends of a connector")
	}
	return checkLine(c.Ink, c.Width)
}

// check lets through addresses of the web alone, without a name or password in
// them, so that what is shown of it is where it leads.
func (l Link) check() error {
	u, err := url.Parse(l.URL)
	if err != nil || len(l.URL) > 2000 || u.Scheme != "https" && u.Scheme != "http" || u.Hostname() == "" || u.User != nil {
		return refusal.New(refusal.BadLink)
	}
	if err := checkWords(l.URL, 2000); err != nil {
		return refusal.New(refusal.BadLink)
	}
	return checkWords(l.Title, MaxNote)
}

func letters(size float64) bool { return size >= 16 && size <= 120 }

func checkLine(i Ink, width float64) error {
	if !i.known() || !(width >= 1 && width <= 60) {
		return refusal.About(refusal.BadStyle, "ink or width")
	}
	return nil
}

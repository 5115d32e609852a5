package lesson

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// Layout is how notes lie on a frame: free, where people put them, or by
// themselves in columns, from left to right.
type Layout struct {
	Columns []Column `json:"columns,omitempty"` // none: notes lie free
	Order   Order    `json:"order,omitempty"`
}

// Column is a column of notes, with a heading and, if wished, a prompt of its own.
type Column struct {
	ID     string `json:"id"`
	Title  string `json:"title,omitempty"`
	Prompt string `json:"prompt,omitempty"`
}

// Order says in which order notes stand in a column.
type Order string

// As they came; most agreed with; by their authors' names; by tint; as people
// have put them by hand.
const (
	OrderCame   Order = ""
	OrderAgreed Order = "agreed"
	OrderName   Order = "name"
	OrderTint   Order = "tint"
	OrderHand   Order = "hand"
)

// Orders lists the orders.
var Orders = []Order{OrderCame, OrderAgreed, OrderName, OrderTint, OrderHand}

// Bounds of a layout: columns, and characters of a heading and of its prompt.
const (
	MaxNoteColumns  = 6
	MaxColumnTitle  = 60
	MaxColumnPrompt = 200
)

// InColumns says that notes lie in columns.
func (l Layout) InColumns() bool { return len(l.Columns) > 0 }

// Equal says whether two layouts are the same.
func (l Layout) Equal(o Layout) bool { return l.Order == o.Order && slices.Equal(l.Columns, o.Columns) }

// Of says in which column a note stands, from 0: in the first where its own is
// not there any more.
func (l Layout) Of(note Element) int {
	at := slices.IndexFunc(l.Columns, func(c Column) bool { return note.Note != nil && c.ID == note.Note.Column })
	return max(0, at)
}

// Check reports what is wrong with a layout.
func (l Layout) Check() error {
	if len(l.Columns) > MaxNoteColumns || !slices.Contains(Orders, l.Order) {
		return refusal.About(refusal.BoardIncorrect, "notes lie in 1 to %d columns", MaxNoteColumns)
	}
	seen := map[string]bool{}
	for _, c := range l.Columns {
		if !id.IsPlain(c.ID) || seen[c.ID] {
			return refusal.About(refusal.BoardIncorrect, "each column needs an id of its own")
		}
		seen[c.ID] = true
		if err := prose.Check(c.Title, MaxColumnTitle); err != nil {
			return err
		}
		if err := prose.Check(c.Prompt, MaxColumnPrompt); err != nil {
			return err
		}
	}
	return nil
}

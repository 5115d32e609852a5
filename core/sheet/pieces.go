package sheet

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// original says that a mark is a piece that was moved, and not a copy of one.
// Everybody who may work on the frame may move it.
func original(m lesson.Element) bool {
	return m.Kind == lesson.KindPlaced && m.ID == m.Placed.Piece
}

// piece finds a piece of the frame that the actor may know of.
func (e *edit) piece(id string) (lesson.Element, bool) {
	if e.terms.Preparing {
		return lesson.Element{}, false
	}
	p, ok := e.terms.Frame.Piece(id)
	if ok && !e.actor.Staff {
		p, ok = e.terms.Frame.ForClass(e.terms.Lifted).Piece(id)
	}
	return p, ok
}

// unmoved finds a piece that lies where it was prepared.
func (e *edit) unmoved(id string) (lesson.Element, bool) {
	if m, ok := e.mark(id); ok && m.OnFrame() {
		return m, false
	}
	p, ok := e.piece(id)
	return p, ok && p.Layer == lesson.Piece
}

// move takes a piece from where it was prepared. The mark on the sheet holds
// its place alone; putting it back removes that mark.
func (e *edit) move(piece lesson.Element, set Set) error {
	m := lesson.Element{ID: piece.ID, Author: e.actor.author(), Z: e.top + 1, At: e.terms.Now,
		X: piece.X, Y: piece.Y, W: piece.W, H: piece.H, Turn: piece.Turn,
		Body: lesson.Body{Kind: lesson.KindPlaced, Placed: &lesson.Placed{Piece: piece.ID}}}
	if err := e.maySet(m, set); err != nil {
		return err
	}
	set.Z = nil // it comes to lie on top
	m, _, err := m.Set(set.Properties)
	if err == nil {
		err = m.Check()
	}
	if err == nil {
		err = e.room(m, of(m))
	}
	if err != nil {
		return err
	}
	e.put(m, Step{Kind: KindRemove, Remove: &Remove{Mark: m.ID}})
	return nil
}

// copyOf makes what is added a copy of a piece of which there is an endless supply.
func (e *edit) copyOf(add *Add) error {
	if add.Placed == nil {
		return refusal.About(refusal.Malformed, "kind and body of a mark differ")
	}
	piece, ok := e.piece(add.Placed.Piece)
	if !ok || piece.Layer != lesson.Supply || add.Layer != lesson.Fixed || add.Tray {
		return refusal.New(refusal.NoSuchPiece)
	}
	add.W, add.H = piece.W, piece.H
	return nil
}

// maySet refuses to change what is not to be changed on this kind of mark: of
// a piece only where it lies, and layers only while a board is prepared.
func (e *edit) maySet(m lesson.Element, set Set) error {
	if !e.terms.Preparing && (set.Layer != nil || set.Tray != nil) {
		return refusal.About(refusal.Malformed, "pieces are laid out when a board is prepared")
	}
	if e.terms.Preparing && set.Margin != nil {
		return refusal.About(refusal.Malformed, "what is prepared does not lie beside the frame")
	}
	if m.Kind == lesson.KindPlaced && (set.W != nil || set.H != nil || set.Group != nil) {
		return refusal.About(refusal.BadStyle, "a piece can be moved and turned")
	}
	return nil
}

// asked finds a poll of the frame that the actor may see.
func (e *edit) asked(id string) (lesson.Element, error) {
	p, err := e.terms.Frame.Poll(id)
	if err != nil || e.actor.Staff || !slices.ContainsFunc(e.terms.Frame.Prepared,
		func(m lesson.Element) bool { return m.Kind == lesson.KindCover }) {
		return p, err
	}
	return e.terms.Frame.ForClass(e.terms.Lifted).Poll(id)
}

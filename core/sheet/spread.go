package sheet

import (
	"cmp"
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/place"
	"alpenglow/core/refusal"
)

// KindSpread lays notes anew.
const KindSpread Kind = "spread"

// MaxSpread is how many notes are laid anew at once.
const MaxSpread = 400

// Spread lays all notes of the sheet anew, so that none covers another or
// anything else, each as near as possible to where it lay; also those in the
// margin, as far as there is room. Where it is needed, all become smaller. Notes
// that are grouped stay where they are.
//
// With To it lays notes where they are said to lie; those that are not there any
// more are left out. That takes it back.
type Spread struct {
	To []Spot `json:"to,omitempty"`
}

// Spot is where a note lies, and in which size.
type Spot struct {
	Mark   string  `json:"mark"`
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	W      float64 `json:"w"`
	H      float64 `json:"h"`
	Size   float64 `json:"size,omitempty"`
	Margin bool    `json:"margin,omitempty"`
}

func (s *Spread) right() right { return right{staff: true, inClass: true} }

func (s *Spread) check() error {
	if len(s.To) > MaxSpread {
		return refusal.About(refusal.TooMany, "%d notes, at most %d", len(s.To), MaxSpread)
	}
	for _, spot := range s.To {
		if err := id.Plain(spot.Mark); err != nil {
			return err
		}
	}
	return nil
}

func (s *Spread) do(e *edit) error {
	to := s.To
	if len(to) == 0 {
		var err error
		if to, err = e.spread(); err != nil {
			return err
		}
	}
	var before []Spot
	for _, spot := range to {
		m, ok := e.mark(spot.Mark)
		if !ok || !m.OnFrame() || m.Note == nil || spotOf(m) == spot {
			continue
		}
		before = append(before, spotOf(m))
		n := *m.Note
		n.Size, n.Margin = spot.Size, spot.Margin
		m.X, m.Y, m.W, m.H, m.Note = spot.X, spot.Y, spot.W, spot.H, &n
		if err := m.Check(); err != nil {
			return err
		}
		// Who owns a note may still take back what they did to it.
		e.put(m, Step{})
	}
	if len(before) == 0 {
		return refusal.New(refusal.NoSuchMark)
	}
	e.back = []Step{{Kind: KindSpread, Spread: &Spread{To: before}}}
	return nil
}

func spotOf(m lesson.Element) Spot {
	return Spot{m.ID, m.X, m.Y, m.W, m.H, m.Note.Size, m.Note.Margin}
}

// spread finds a place for every note: in the size that it has, or else all in
// the largest at which they find room, or else as many as find room in the
// smallest, the oldest first; the others lie in the margin.
func (e *edit) spread() ([]Spot, error) {
	loose := func(m lesson.Element) bool { return m.Note != nil && m.Group == "" }
	notes, err := e.each(loose)
	if err != nil {
		return nil, err
	}
	beneath := lesson.Beneath(notes)
	notes = slices.DeleteFunc(notes, func(m lesson.Element) bool { return beneath[m.ID] })
	if len(notes) > MaxSpread {
		return nil, refusal.About(refusal.TooMany, "%d notes, at most %d", len(notes), MaxSpread)
	}
	g, ok, err := e.lying(func(m lesson.Element) bool { return !loose(m) })
	if err != nil {
		return nil, err
	}
	if !ok {
		return nil, refusal.About(refusal.TooMany, "too much lies here to spread it out")
	}
	slices.SortStableFunc(notes, func(a, b lesson.Element) int { return cmp.Compare(a.At, b.At) })
	from := 0
	for _, m := range notes {
		from = max(from, m.SizeOf())
	}
	laid, ok, err := e.layAll(g, notes)
	for i := from; err == nil && !ok && i < len(lesson.NoteSizes); i++ {
		laid, ok, err = e.layAll(g, atSize(notes, lesson.NoteSizes[i]))
	}
	if err != nil || ok {
		return laid, err
	}
	small := atSize(notes, lesson.NoteSizes[len(lesson.NoteSizes)-1])
	fit := 0
	for over := len(notes); over-fit > 1; {
		n := (fit + over) / 2
		some, ok, err := e.layAll(g, small[:n])
		if err != nil {
			return nil, err
		}
		if ok {
			laid, fit = some, n
		} else {
			over = n
		}
	}
	laid = laid[:min(fit, len(laid))]
	for _, m := range small[fit:] {
		aside(&m)
		laid = append(laid, spotOf(m))
	}
	return laid, nil
}

func atSize(notes []lesson.Element, size lesson.NoteSize) []lesson.Element {
	all := make([]lesson.Element, len(notes))
	for i, m := range notes {
		all[i] = m.AtSize(size)
	}
	return all
}

// layAll finds a place for each of notes, if there is one for all.
func (e *edit) layAll(g ground, notes []lesson.Element) ([]Spot, bool, error) {
	boxes := make([]place.Box, len(notes))
	area := 0.0
	for i, m := range notes {
		if err := e.spend(len(m.Words())/6 + 1); err != nil {
			return nil, false, err
		}
		boxes[i] = g.lies(m)
		area += boxes[i].W * boxes[i].H
	}
	if area > place.Open(room, g.taken) {
		return nil, false, nil
	}
	// Laying one looks at what lies, some twenty rows of cells for each.
	if err := e.spend(2 * len(boxes) * (len(boxes) + len(g.taken))); err != nil {
		return nil, false, err
	}
	laid, ok := place.Spread(room, g.taken, boxes)
	if !ok {
		return nil, false, nil
	}
	spots := make([]Spot, len(notes))
	for i, m := range notes {
		spots[i] = spotOf(m)
		spots[i].X, spots[i].Y, spots[i].Margin = laid[i].X+m.X-boxes[i].X, laid[i].Y+m.Y-boxes[i].Y, false
	}
	return spots, true, nil
}

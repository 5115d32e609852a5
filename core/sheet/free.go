package sheet

import (
	"alpenglow/core/lesson"
	"alpenglow/core/place"
)

const (
	promptTall = 140 // units that a prompt takes, about
	// packed is from how many marks on a sheet, wordy from how many bytes of words
	// on a frame, no place is looked for: there is none, and looking would hold up
	// others. Up to exact bytes, heights are those that the class sees.
	packed = 400
	wordy  = 200_000
	exact  = 10_000
	// inParts is up to how many boxes, and points of ink, lines and tables are looked
	// at in parts; what comes after takes all of its box. Up to few boxes the place
	// that is found is exact, and covers least where none is clear.
	inParts     = 2_000
	inkInParts  = 60_000
	few         = 100
	workOfPlace = 400 // units, besides two for each box
	// filled is how much of what is open notes can cover, gaps between them left out.
	filled = 0.75
)

// room is where notes may lie.
var room = place.Box{X: 10, Y: 10, W: lesson.FrameWidth - 20, H: lesson.FrameHeight - 20}

// free moves a new mark to the nearest free place to where it was wished. A note
// takes the largest size at which it and those of everybody who has none yet find
// room; where there is none at any size, it lies beside the frame.
func (e *edit) free(m *lesson.Element) error {
	if e.terms.Frame.Layout.InColumns() {
		return nil
	}
	g, ok, err := e.lying(func(lesson.Element) bool { return true })
	if err != nil {
		return err
	}
	if m.Note == nil || m.Note.Size != 0 {
		clear := false
		if ok {
			clear, err = e.lay(m, g)
		}
		if err == nil && !clear && m.Note != nil {
			aside(m)
		}
		return err
	}
	for i := e.sizeFrom(g); ok && i < len(lesson.NoteSizes); i++ {
		try := m.AtSize(lesson.NoteSizes[i])
		clear, err := e.lay(&try, g)
		if err != nil {
			return err
		}
		if clear {
			*m = try
			return nil
		}
	}
	aside(m)
	return nil
}

// aside lays a note beside the frame.
func aside(m *lesson.Element) {
	n := *m.Note
	n.Margin = true
	m.Note = &n
}

// ground is what lies on a frame, and what of it something new keeps clear of.
type ground struct {
	marks []lesson.Element // on the sheet
	taken []place.Box
	about bool // heights are about those that the class sees
}

// lies is the box that a mark takes.
func (g ground) lies(m lesson.Element) place.Box {
	if g.about {
		return m.LiesAbout()
	}
	return m.Covers()
}

// lying gives what lies on the frame, those marks of the sheet taken for which
// stays says so, and all that was prepared; false where that is too much to look at.
func (e *edit) lying(stays func(lesson.Element) bool) (g ground, ok bool, err error) {
	if e.count.marks > packed {
		return g, false, nil
	}
	g.marks, err = e.each(func(o lesson.Element) bool { return !o.IsNowhere() && !o.InMargin() })
	if err != nil {
		return g, false, err
	}
	var all []lesson.Element
	words := 0
	for _, o := range e.terms.Frame.Prepared {
		if o.OnFrame() && !o.Tray {
			all = append(all, o)
			words += len(o.Words())
		}
	}
	beneath := lesson.Beneath(g.marks)
	for _, o := range g.marks {
		if beneath[o.ID] {
			continue
		}
		words += len(o.Words())
		if stays(o) {
			all = append(all, o)
		}
	}
	if words > wordy {
		return g, false, nil
	}
	g.about = words > exact
	if e.terms.Frame.Prompt != "" {
		g.taken = append(g.taken, place.Box{W: lesson.FrameWidth, H: promptTall})
	}
	ink := 0
	for _, o := range all {
		if ink += pointsOf(o); len(g.taken) > inParts || ink > inkInParts {
			g.taken = append(g.taken, g.lies(o))
			continue
		}
		g.taken = append(g.taken, o.Taken(g.about)...)
	}
	// Six bytes of words are a unit of work, and so is a point of ink.
	return g, true, e.spend(len(all) + words/6 + min(ink, inkInParts))
}

// sizeFrom says with which of lesson.NoteSizes a new note begins: the largest at
// which those who share the sheet and have no note on it find room for one each,
// and none larger than notes that have become smaller already.
func (e *edit) sizeFrom(g ground) int {
	has, from := map[string]bool{}, 0
	for _, m := range g.marks {
		if m.Note != nil {
			has[m.Author] = true
			from = max(from, m.SizeOf())
		}
	}
	open := filled * place.Open(room, g.taken)
	come := float64(max(1, e.terms.Sharing-len(has)))
	for from < len(lesson.NoteSizes)-1 && come*lesson.NoteSizes[from].Room() > open {
		from++
	}
	return from
}

// lay moves a mark to the free place nearest to where it is, and says whether there
// is one. Notes of several people stand in columns, so that more find room.
func (e *edit) lay(m *lesson.Element, g ground) (clear bool, err error) {
	if err := e.spend(workOfPlace + 2*len(g.taken)); err != nil {
		return false, err
	}
	own := g.lies(*m)
	across, down := own.X+own.W/2, own.Y+own.H/2
	var x, y float64
	if m.Note != nil && e.terms.Sharing > 1 {
		x, y, clear = place.InColumns(room, g.taken, own.W, own.H, across, down)
	}
	if !clear && len(g.taken) <= few {
		// The grid has some hundred places for each unit of work.
		if err := e.spend(100 * len(g.taken)); err != nil {
			return false, err
		}
		x, y, clear = place.Free(room, g.taken, own.W, own.H, across, down)
	} else if !clear {
		if x, y, clear = place.Nearest(room, g.taken, own.W, own.H, across, down); !clear {
			return false, nil
		}
	}
	m.X, m.Y = x+m.X-own.X, y+m.Y-own.Y
	return clear, nil
}

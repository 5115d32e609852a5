package live

import (
	"encoding/json"
	"math"
	"slices"
	"time"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
)

const (
	passEvery  = 33 * time.Millisecond // how often passing things of a sheet are told
	passPoints = 600                   // numbers of a growing stroke in one message
	passMany   = 64                    // things gathered for one sheet at a time
	// In a class larger than this nobody sees what passes of students on a shared
	// frame but of the one at the board: deliveries grow with the square, and no
	// screen shows three hundred lines while they grow.
	passClass = 60
)

// pass takes something that need not last and tells it, gathered with what
// else passes on the sheet. What may not be, or is too much, is dropped.
func (h *Hub) pass(s seat, data []byte) {
	var p Pass
	if len(data) > 16<<10 || !s.mayPass() || json.Unmarshal(data, &p) != nil || !p.sound() {
		return
	}
	h.mu.Lock()
	at, ok := h.sheets[p.Sheet]
	h.mu.Unlock()
	if !ok || at.key.Session != s.session.kept.ID || !s.worksOn(at.key.Frame, at.key.Owner) {
		return
	}
	p.By = s.actor.ID
	if s.actor.Staff {
		p.By = lesson.Staff
	}
	h.passMu.Lock()
	defer h.passMu.Unlock()
	waiting := h.passing[p.Sheet]
	if len(waiting) >= passMany {
		return
	}
	h.passing[p.Sheet] = append(waiting, p)
	if len(waiting) == 0 {
		time.AfterFunc(passEvery, func() { h.guard("passing", func() { h.tellPassing(s.session, at) }) })
	}
}

// mayPass counts one passing thing against a student's rate.
func (s seat) mayPass() bool {
	if s.actor.Staff {
		return true
	}
	p := s.session.person(s.actor.ID)
	return p != nil && p.passes.Allow()
}

// worksOn says whether somebody works on a sheet now, and so may show passing
// things there.
func (s seat) worksOn(frame, owner string) bool {
	if s.actor.Staff {
		return true
	}
	state, board := s.session.snapshot()
	terms, err := termsFor(state, board, frame)
	free := terms.Frame.Permission != lesson.Look && !terms.Locked && !slices.Contains(terms.LockedOut, s.actor.ID)
	return err == nil && terms.Open && !state.Ended && state.Seated(s.actor.ID) &&
		(free || terms.AtBoard == s.actor.ID && owner == sheet.ClassOwner) &&
		owner != "" && owner == in(state, s.actor).Owner(terms.Frame.Arrangement)
}

func (h *Hub) tellPassing(r *running, at *held) {
	h.passMu.Lock()
	all := h.passing[at.key.ID]
	delete(h.passing, at.key.ID)
	h.passMu.Unlock()
	news := func(all []Pass) News {
		return News{Kind: NewsPassing, Passing: &Passing{Sheet: at.key.ID, Passes: all}}
	}
	r.mu.RLock()
	crowd, open, readers := r.connections() > passClass, r.state.IsOpen(at.key.Frame), r.readers(at.key.Owner)
	atBoard := r.state.WhoIsAtBoard(at.key.Frame, now())
	_, front := r.onFront(at.key)
	r.mu.RUnlock()
	if at.key.Owner == sheet.ClassOwner && crowd {
		all = slices.DeleteFunc(all, func(p Pass) bool { return p.By != lesson.Staff && p.By != atBoard })
	}
	if len(all) == 0 {
		return
	}
	told := []telling{{[]string{staffChannel(r.kept.ID)}, news(all)}}
	if front {
		told = append(told, telling{[]string{frontChannel(r.kept.ID)}, news(all)})
	}
	if audience.Sharing(at.key.Owner).Sheet(at.key.Owner, open) {
		told = append(told, telling{readers, news(all)})
	}
	h.tell(r, told...)
}

// sound checks what a client sent: only numbers on the frame, only known styles.
func (p Pass) sound() bool {
	onFrame := func(x, y float64) bool {
		return x >= 0 && x <= lesson.FrameWidth && y >= 0 && y <= lesson.FrameHeight
	}
	switch p.Kind {
	case PassDraw:
		if p.Draw == nil || len(p.Draw.Points) > passPoints || len(p.Draw.Points)%3 != 0 || len(p.Draw.Stroke) > 64 {
			return false
		}
		for i := 0; i < len(p.Draw.Points); i += 3 {
			if !onFrame(p.Draw.Points[i], p.Draw.Points[i+1]) || math.IsNaN(p.Draw.Points[i+2]) {
				return false
			}
		}
		style := lesson.Body{Kind: lesson.KindStroke,
			Stroke: &lesson.Stroke{Points: []float64{0, 0, 0}, Ink: p.Draw.Ink, Width: p.Draw.Width, Nib: p.Draw.Nib}}
		return style.Sound() == nil
	case PassPoint:
		return p.Point != nil && onFrame(p.Point.X, p.Point.Y)
	case PassEdit:
		return p.Edit != nil && len(p.Edit.Mark) <= 64
	}
	return false
}

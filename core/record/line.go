package record

import (
	"cmp"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/session"
)

// Line is a lesson as a line of time: where the class was, how much was done when on
// which frame, and what its teachers told it and did to others' work. Times are in
// milliseconds since 1970; Cells count the changes of each Step from From on.
type Line struct {
	From   int64       `json:"from"`
	To     int64       `json:"to"`
	Step   int64       `json:"step"`
	Frames []FrameLine `json:"frames"`
	Spans  []Span      `json:"spans"`
	Events []Event     `json:"events"`
}

// FrameLine is how much was done on a frame, in each step of the line.
type FrameLine struct {
	Frame string `json:"frame"`
	Cells []int  `json:"cells"`
}

// Span is how long something was so: the class was led to a Frame, moved along the
// frames at its own pace, or rested.
type Span struct {
	Kind  SpanKind `json:"kind"`
	Frame string   `json:"frame,omitempty"`
	From  int64    `json:"from"`
	To    int64    `json:"to"`
}

// SpanKind tells spans apart.
type SpanKind string

// What was so for a while.
const (
	SpanLed    SpanKind = "led"
	SpanOwn    SpanKind = "own"
	SpanPaused SpanKind = "paused"
)

// Event is something at one moment: what a teacher told the lesson, or did to others' work.
type Event struct {
	At      int64            `json:"at"`
	By      string           `json:"by,omitempty"`
	Command *session.Command `json:"command,omitempty"`
	Deed    *Deed            `json:"deed,omitempty"`
}

// Deed is what a teacher did to others' work with one operation, on the sheet of an
// owner: how many marks they hid, let wait, removed, showed again, changed; and whose.
type Deed struct {
	Frame   string   `json:"frame"`
	Owner   string   `json:"owner"`
	Hidden  int      `json:"hidden,omitempty"`
	Held    int      `json:"held,omitempty"`
	Removed int      `json:"removed,omitempty"`
	Shown   int      `json:"shown,omitempty"`
	Changed int      `json:"changed,omitempty"`
	Authors []string `json:"authors"`
}

// Done is how many changes there were on a frame about a time.
type Done struct {
	Frame string `db:"frame_id"`
	At    int64  `db:"at"`
	N     int    `db:"n"`
}

// Told are the marks that a teacher's change left, as the log has them.
type Told struct {
	Frame, Owner string
	At           int64
	Put          []ToldMark
	Come         []string
}

// ToldMark is a mark by its id, whose it is, and how it stands since.
type ToldMark struct {
	ID       string           `json:"id"`
	Author   string           `json:"author"`
	Standing *lesson.Standing `json:"standing"`
}

// steps are the lengths of a step of a line, in milliseconds; the shortest is DoneStep.
var steps = []int64{DoneStep, 30_000, 60_000, 120_000, 300_000, 900_000, 3_600_000, 6 * 3_600_000, 24 * 3_600_000}

const (
	// DoneStep is within how many milliseconds changes are counted together.
	DoneStep = 15_000
	maxCells = 120
)

// LineOf puts a line together from what happened up to a time, in whatever order.
// First is the board's first frame, on which a lesson begins.
func LineOf(board lesson.Board, from, to int64, happened []session.Happening, done []Done, told []Told) Line {
	for _, d := range done {
		from = min(from, d.At)
	}
	to = max(to, from)
	l := Line{From: from, To: to, Step: steps[len(steps)-1], Frames: []FrameLine{}, Spans: []Span{}, Events: []Event{}}
	for _, s := range slices.Backward(steps) {
		if (to-from)/s < maxCells {
			l.Step = s
		}
	}
	l.count(board, done)
	slices.SortStableFunc(happened, func(a, b session.Happening) int { return cmp.Compare(a.At, b.At) })
	l.span(board, happened)
	for _, h := range happened {
		l.Events = append(l.Events, Event{At: h.At, By: h.By, Command: &h.Command})
	}
	for _, t := range told {
		if deed := t.deed(); deed != nil {
			l.Events = append(l.Events, Event{At: t.At, Deed: deed})
		}
	}
	slices.SortStableFunc(l.Events, func(a, b Event) int { return cmp.Compare(a.At, b.At) })
	return l
}

// LineOfDay puts a line together of one day of a lesson that was taken up again: where the class stood
// before is where it begins.
func LineOfDay(board lesson.Board, day session.Day, happened []session.Happening, done []Done, told []Told) Line {
	within := func(at int64) bool { return at >= day.From-DoneStep && at <= day.Until }
	done = slices.DeleteFunc(slices.Clone(done), func(d Done) bool { return !within(d.At) })
	told = slices.DeleteFunc(slices.Clone(told), func(t Told) bool { return !within(t.At) })
	happened = slices.DeleteFunc(slices.Clone(happened), func(h session.Happening) bool { return h.At > day.Until })
	l := LineOf(board, day.From, day.Until, happened, done, told)
	l.Events = slices.DeleteFunc(l.Events, func(e Event) bool { return !within(e.At) })
	return l
}

func (l *Line) count(board lesson.Board, done []Done) {
	cells := min((l.To-l.From)/l.Step+1, maxCells)
	for _, f := range board.Frames {
		line := FrameLine{Frame: f.ID, Cells: make([]int, cells)}
		for _, d := range done {
			if d.Frame == f.ID {
				line.Cells[min(max(d.At-l.From, 0)/l.Step, cells-1)] += d.N
			}
		}
		l.Frames = append(l.Frames, line)
	}
}

func (l *Line) span(board lesson.Board, happened []session.Happening) {
	if len(board.Frames) == 0 {
		return
	}
	on, pace, since, paused := board.Frames[0].ID, session.Led, l.From, int64(0)
	end := func(at int64) {
		s := Span{Kind: SpanOwn, From: since, To: at}
		if pace == session.Led {
			s.Kind, s.Frame = SpanLed, on
		}
		if s.To > s.From {
			l.Spans = append(l.Spans, s)
		}
		since = at
	}
	rest := func(at int64) {
		if paused > 0 && at > paused {
			l.Spans = append(l.Spans, Span{Kind: SpanPaused, From: paused, To: at})
		}
		paused = 0
	}
	for _, h := range happened {
		at := max(h.At, l.From)
		switch c := h.Command; {
		case c.Go != nil:
			if pace == session.Led && c.Go.Frame != on {
				end(at)
			}
			on = c.Go.Frame
		case c.Pace != nil && c.Pace.Pace != pace:
			end(at)
			pace = c.Pace.Pace
		case c.Pause != nil && !c.Pause.On:
			rest(at)
		case c.Pause != nil && paused == 0:
			paused = at
		}
	}
	end(l.To)
	rest(l.To)
}

// deed says what was done to others' work; nil for nothing.
func (t Told) deed() *Deed {
	d := Deed{Frame: t.Frame, Owner: t.Owner, Authors: []string{}}
	for _, m := range t.Put {
		if m.Author == "" || m.Author == lesson.Staff {
			continue
		}
		switch is := m.Standing; {
		case is == nil && slices.Contains(t.Come, m.ID):
			d.Shown++
		case is == nil:
			d.Changed++
		case is.Is == lesson.Hidden:
			d.Hidden++
		case is.Is == lesson.Held:
			d.Held++
		default:
			d.Removed++
		}
		if !slices.Contains(d.Authors, m.Author) {
			d.Authors = append(d.Authors, m.Author)
		}
	}
	if len(d.Authors) == 0 {
		return nil
	}
	return &d
}

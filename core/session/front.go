package session

import (
	"maps"
	"slices"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/poll"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

// KindFront chooses what the front screen shows.
const KindFront CommandKind = "front"

// FrontKind tells apart what a front screen shows.
type FrontKind string

// What a front screen shows: how to join, who is in and the first task; the frame
// that the class is on, with the class's work; one to six sheets of a frame; one sheet
// as it was, beside how it is; a poll; some words in large letters; nothing.
const (
	FrontGathering FrontKind = "gathering"
	FrontFrame     FrontKind = "frame"
	FrontSheets    FrontKind = "sheets"
	FrontPoll      FrontKind = "poll"
	FrontPast      FrontKind = "past"
	FrontWords     FrontKind = "words"
	FrontNothing   FrontKind = "nothing"
)

// Bounds of what is shown side by side, and of words.
const (
	MaxSideBySide = 6
	MaxFrontWords = 200
)

// Front is what the front screen shows. Frame and Owners say whose sheets of which
// frame, Poll which poll, Result that its answers are counted for all to see. From says from
// which note on each column of the class's frame is shown, by the column's id, where
// there is not room for all.
type Front struct {
	Kind   FrontKind `json:"kind"`
	Frame  string    `json:"frame,omitempty"`
	Owners []string  `json:"owners,omitempty"`
	// To is up to which of its changes a sheet of the past is shown.
	To     int64  `json:"to,omitempty"`
	Poll   string `json:"poll,omitempty"`
	Result bool   `json:"result,omitempty"`
	// Groups are texts that answer the poll, taken together and named by the teacher, in place of
	// the answers; nobody's names are with them.
	Groups []SaidGroup    `json:"groups,omitempty"`
	Words  string         `json:"words,omitempty"`
	From   map[string]int `json:"from,omitempty"`
}

// SaidGroup is what some have said alike: what the teacher calls it, how many did, and a few of
// their texts.
type SaidGroup struct {
	Name  string   `json:"name"`
	Count int      `json:"count"`
	Texts []string `json:"texts,omitempty"`
}

// Bounds of groups in front.
const (
	maxSaidGroups = 24
	maxSaidTexts  = 4
)

func checkGroups(groups []SaidGroup) error {
	if len(groups) > maxSaidGroups {
		return refusal.About(refusal.Malformed, "at most %d groups", maxSaidGroups)
	}
	for _, g := range groups {
		if g.Count < 1 || g.Count > MaxParticipants || len(g.Texts) > maxSaidTexts {
			return refusal.About(refusal.Malformed, "how many said so")
		}
		for _, text := range append([]string{g.Name}, g.Texts...) {
			if err := prose.Check(text, MaxFrontWords); err != nil {
				return err
			}
		}
	}
	return nil
}

func (f *Front) do(s *State, board lesson.Board, with With) error {
	next := Front{Kind: f.Kind}
	switch f.Kind {
	case FrontGathering, FrontNothing:
	case FrontFrame:
		on, _, err := board.Frame(s.Frame)
		if err != nil {
			return err
		}
		for column, first := range f.From {
			known := slices.ContainsFunc(on.Layout.Columns, func(c lesson.Column) bool { return c.ID == column })
			if !known || first < 0 || first > lesson.MaxPrepared {
				return refusal.About(refusal.Malformed, "no such column")
			}
		}
		next.From = maps.Clone(f.From)
	case FrontWords:
		next.Words = strings.TrimSpace(f.Words)
		if err := lesson.CheckText(next.Words, MaxFrontWords); err != nil {
			return err
		}
	case FrontPoll:
		frame, _, err := pollOf(board, f.Poll)
		if _, reached := s.Polls[f.Poll]; err != nil || !reached || !s.IsOpen(frame.ID) {
			return refusal.New(refusal.NoSuchPoll)
		}
		if err := checkGroups(f.Groups); err != nil {
			return err
		}
		next.Frame, next.Poll, next.Result, next.Groups = frame.ID, f.Poll, f.Result, f.Groups
	case FrontSheets, FrontPast:
		if !s.IsOpen(f.Frame) {
			return refusal.New(refusal.NoSuchFrame)
		}
		if f.Kind == FrontPast && (len(f.Owners) != 1 || f.To < 1) {
			return refusal.About(refusal.Malformed, "whose, and when")
		}
		if n := len(f.Owners); n == 0 || n > MaxSideBySide {
			return refusal.About(refusal.Malformed, "1 to %d side by side", MaxSideBySide)
		}
		for _, o := range f.Owners {
			if slices.Contains(next.Owners, o) || !s.mayOwn(o, with.Students) {
				return refusal.New(refusal.NoSuchSheet)
			}
			next.Owners = append(next.Owners, o)
		}
		next.Frame = f.Frame
		if f.Kind == FrontPast {
			next.To = f.To
		}
	default:
		return refusal.New(refusal.Malformed)
	}
	s.Front = next
	return nil
}

// mayOwn reports whether sheets may have this owner.
func (s State) mayOwn(owner string, students []string) bool {
	if n := sheet.GroupNumber(owner); n > 0 {
		return n <= len(s.Groups)
	}
	return owner == sheet.ClassOwner || slices.Contains(students, owner)
}

// OnFront gives the frame that the front screen shows, and whose sheets of it;
// no frame where it shows none, or one that is not open any more.
func (s State) OnFront(board lesson.Board) (frame string, owners []string) {
	switch s.Front.Kind {
	case FrontFrame:
		frame = s.Frame
		if on, _, err := board.Frame(frame); err == nil && on.Arrangement == lesson.WholeClass {
			owners = []string{sheet.ClassOwner}
		}
	case FrontGathering, "":
		frame = s.Frame // the first task is read from it, and nobody's work
	case FrontSheets, FrontPast:
		frame, owners = s.Front.Frame, s.Front.Owners
	case FrontPoll:
		frame = s.Front.Frame
	}
	if s.Ended || !s.IsOpen(frame) {
		return "", nil
	}
	return frame, owners
}

// FrontStage is what a front screen may know of a session: what it shows, the
// frame for that as every student may see it, and the join code as long as people
// may join.
type FrontStage struct {
	Stage
	Show Front  `json:"show"`
	Code string `json:"code,omitempty"`
	// Seats counts those who are in, whose seats were not taken away.
	Seats int `json:"seats"`
	// Tally is how the answers to the poll stand; without counts, where those are
	// not shown.
	Tally *poll.Tally `json:"tally,omitempty"`
	// Set is how far the class has come with the set of the frame that is shown.
	Set *outcome.Set `json:"set,omitempty"`
}

// OfFront gives the stage of a front screen, with the view of the frame that it
// shows; an empty view where it shows none.
func (s State) OfFront(board lesson.Board, v View, code string, students []string) FrontStage {
	f := FrontStage{Show: s.Front, Seats: len(s.seated(students))}
	if v.Frame.ID != "" {
		f.Stage = s.Stage(board, Student{}, v)
		f.Stage.Trail, f.Stage.Group = nil, nil
	} else {
		f.Stage = Stage{Rev: s.Rev, Title: board.Title, Of: len(board.Frames), Polls: map[string]poll.State{},
			Pace:  s.Pace,
			Frame: lesson.Frame{Prepared: []lesson.Element{}}, Timer: s.Timer, Paused: s.Paused, Ended: s.Ended}
	}
	if f.Show.Kind == "" { // the lesson began before there were front screens
		f.Show.Kind = FrontGathering
	}
	if s.Ended {
		f.Show = Front{Kind: FrontNothing}
	} else if !s.Closed {
		f.Code = code
	}
	return f
}

// Package session answers: in what state is a live session, and what may its
// teacher change about it?
package session

import (
	"maps"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// MaxParticipants is how many students one session may have.
const MaxParticipants = 400

// State is what changes about a session while it runs. Rev counts the changes.
type State struct {
	Rev int64 `json:"rev"`
	// Frame is the id of the frame that everybody is on.
	Frame string `json:"frame"`
	// Reached lists the frames that the class has been on; students may work
	// on these alone.
	Reached []string `json:"reached"`
	// Polls gives the phase of each poll that the class has reached.
	Polls map[string]poll.Phase `json:"polls"`
	// Lifted lists the covers that are lifted.
	Lifted []string `json:"lifted,omitempty"`
	// Set says how frames are used now where that is not as prepared.
	Set   map[string]Setting `json:"set,omitempty"`
	Ended bool               `json:"ended"`
}

// Setting is how a frame is used: who shares it and what students may do there.
type Setting struct {
	Arrangement lesson.Arrangement `json:"arrangement"`
	Permission  lesson.Permission  `json:"permission"`
}

// Start gives the state of a new session: everybody on the board's first frame.
func Start(board lesson.Board) (State, error) {
	if err := board.Check(); err != nil {
		return State{}, err
	}
	s := State{Polls: map[string]poll.Phase{}}
	s.reach(board.Frames[0])
	return s, nil
}

// Command is one thing that the teacher tells a session.
type Command struct {
	Kind CommandKind `json:"kind" oneof:"Go Poll Lift Use End"`
	Go   *Go         `json:"go,omitempty"`
	Poll *SetPoll    `json:"poll,omitempty"`
	Lift *Lift       `json:"lift,omitempty"`
	Use  *Use        `json:"use,omitempty"`
	End  *End        `json:"end,omitempty"`
}

// CommandKind tells commands apart.
type CommandKind string

// The commands.
const (
	KindGo   CommandKind = "go"
	KindPoll CommandKind = "poll"
	KindLift CommandKind = "lift"
	KindUse  CommandKind = "use"
	KindEnd  CommandKind = "end"
)

// Go leads everybody to a frame.
type Go struct {
	Frame string `json:"frame"`
}

// SetPoll puts a poll of the current frame into a phase.
type SetPoll struct {
	Poll  string     `json:"poll"`
	Phase poll.Phase `json:"phase"`
}

// Lift lifts a cover of the current frame, or with Down lays it back.
type Lift struct {
	Cover string `json:"cover"`
	Down  bool   `json:"down,omitempty"`
}

// Use changes how a frame is used from now on. All work is kept.
type Use struct {
	Frame string `json:"frame"`
	Setting
}

// End ends the session for good.
type End struct{}

// Apply returns the state after a command. The given state stays as it was.
func (s State) Apply(board lesson.Board, c Command) (State, error) {
	if s.Ended {
		return s, refusal.New(refusal.Ended)
	}
	next := s.clone()
	next.Rev++
	switch {
	case c.Kind == KindGo && c.Go != nil:
		frame, _, err := board.Frame(c.Go.Frame)
		if err != nil {
			return s, err
		}
		next.reach(frame)
	case c.Kind == KindPoll && c.Poll != nil:
		now, reached := s.Polls[c.Poll.Poll]
		if !reached {
			return s, refusal.New(refusal.NoSuchPoll)
		}
		if err := now.Next(c.Poll.Phase); err != nil {
			return s, err
		}
		next.Polls[c.Poll.Poll] = c.Poll.Phase
	case c.Kind == KindLift && c.Lift != nil:
		if err := next.lift(board, *c.Lift); err != nil {
			return s, err
		}
	case c.Kind == KindUse && c.Use != nil:
		frame, _, err := board.Frame(c.Use.Frame)
		if err != nil {
			return s, err
		}
		frame.Arrangement, frame.Permission = c.Use.Arrangement, c.Use.Permission
		if err := frame.Check(); err != nil {
			return s, err
		}
		next.Set[frame.ID] = c.Use.Setting
	case c.Kind == KindEnd && c.End != nil:
		next.Ended = true
		for id, phase := range next.Polls {
			if phase == poll.Open {
				next.Polls[id] = poll.Closed
			}
		}
	default:
		return s, refusal.New(refusal.UnknownOp)
	}
	return next, nil
}

// reach puts everybody on a frame; a poll is open from when its frame is first reached.
func (s *State) reach(frame lesson.Frame) {
	s.Frame = frame.ID
	if slices.Contains(s.Reached, frame.ID) {
		return
	}
	s.Reached = append(s.Reached, frame.ID)
	for _, p := range frame.Polls() {
		s.Polls[p.ID] = poll.Open
	}
}

// lift notes that a cover is lifted or not.
func (s *State) lift(board lesson.Board, l Lift) error {
	frame, _, err := board.Frame(s.Frame)
	if err != nil {
		return err
	}
	if !slices.ContainsFunc(frame.Prepared, func(e lesson.Element) bool { return e.ID == l.Cover && e.Kind == lesson.KindCover }) {
		return refusal.New(refusal.NoSuchCover)
	}
	s.Lifted = slices.DeleteFunc(s.Lifted, func(id string) bool { return id == l.Cover })
	if !l.Down {
		s.Lifted = append(s.Lifted, l.Cover)
	}
	return nil
}

// On gives a frame of the board as it is used now.
func (s State) On(board lesson.Board, frame string) (lesson.Frame, error) {
	f, _, err := board.Frame(frame)
	if now, ok := s.Set[frame]; ok {
		f.Arrangement, f.Permission = now.Arrangement, now.Permission
	}
	return f, err
}

func (s State) clone() State {
	next := s
	next.Lifted = slices.Clone(s.Lifted)
	next.Set = maps.Clone(s.Set)
	if next.Set == nil {
		next.Set = map[string]Setting{}
	}
	next.Reached = slices.Clone(s.Reached)
	next.Polls = make(map[string]poll.Phase, len(s.Polls))
	for id, phase := range s.Polls {
		next.Polls[id] = phase
	}
	return next
}

// Stage is what a class may know of a session: the frame it is on, without
// what is not yet revealed, and never the frames to come.
type Stage struct {
	Rev    int64                 `json:"rev"`
	Title  string                `json:"title"`
	Frame  lesson.Frame          `json:"frame"`
	Number int                   `json:"number"` // from 1
	Of     int                   `json:"of"`
	Polls  map[string]poll.Phase `json:"polls"`
	Ended  bool                  `json:"ended"`
}

// ForClass gives the stage of a session as its class may see it.
func (s State) ForClass(board lesson.Board) (Stage, error) {
	_, at, err := board.Frame(s.Frame)
	if err != nil {
		return Stage{}, err
	}
	now, err := s.On(board, s.Frame)
	if err != nil {
		return Stage{}, err
	}
	bare := now.ForClass(s.Lifted)
	polls := map[string]poll.Phase{}
	for i, e := range bare.Prepared {
		if e.Kind == lesson.KindPoll {
			question := e.Poll.ForClass(s.Polls[e.ID])
			bare.Prepared[i].Poll = &question
			polls[e.ID] = s.Polls[e.ID]
		}
	}
	return Stage{Rev: s.Rev, Title: board.Title, Frame: bare, Number: at + 1, Of: len(board.Frames), Polls: polls, Ended: s.Ended}, nil
}

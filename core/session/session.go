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
	Rev  int64 `json:"rev"`
	Pace Pace  `json:"pace"`
	// Frame is the id of the frame that the teacher is on, and where the
	// teacher leads, everybody.
	Frame string `json:"frame"`
	// From is where everybody was when own pace began, and Through the last
	// frame that is open then; empty for all.
	From    string `json:"from,omitempty"`
	Through string `json:"through,omitempty"`
	// Reached lists the frames that the class has been on; students may work
	// on these alone.
	Reached []string `json:"reached"`
	// Polls gives the phase of each poll that the class has reached.
	Polls map[string]poll.Phase `json:"polls"`
	// Lifted lists the covers that are lifted.
	Lifted []string `json:"lifted,omitempty"`
	// Set says how frames are used now where that is not as prepared.
	Set map[string]Setting `json:"set,omitempty"`
	// Groups lists the students of each group, GroupSize how many it has at
	// most (0: as many as usual).
	Groups    [][]string `json:"groups,omitempty"`
	GroupSize int        `json:"groupSize,omitempty"`
	Ended     bool       `json:"ended"`
}

// Setting is how a frame is used: who shares it and what students may do there.
type Setting struct {
	Arrangement lesson.Arrangement `json:"arrangement"`
	Permission  lesson.Permission  `json:"permission"`
}

// Start gives the state of a new session at a pace: everybody on the board's
// first frame, and nobody there yet.
func Start(board lesson.Board, pace Pace) (State, error) {
	if err := board.Check(); err != nil {
		return State{}, err
	}
	s := State{Frame: board.Frames[0].ID, Polls: map[string]poll.Phase{}}
	return s, s.setPace(board, SetPace{Pace: pace}, Class{})
}

// Command is one thing that the teacher tells a session.
type Command struct {
	Kind   CommandKind `json:"kind" oneof:"Go Pace Poll Lift Use Groups Assign End"`
	Go     *Go         `json:"go,omitempty"`
	Pace   *SetPace    `json:"pace,omitempty"`
	Poll   *SetPoll    `json:"poll,omitempty"`
	Lift   *Lift       `json:"lift,omitempty"`
	Use    *Use        `json:"use,omitempty"`
	Groups *SetGroups  `json:"groups,omitempty"`
	Assign *Assign     `json:"assign,omitempty"`
	End    *End        `json:"end,omitempty"`
}

// CommandKind tells commands apart.
type CommandKind string

// The commands.
const (
	KindGo     CommandKind = "go"
	KindPace   CommandKind = "pace"
	KindPoll   CommandKind = "poll"
	KindLift   CommandKind = "lift"
	KindUse    CommandKind = "use"
	KindGroups CommandKind = "groups"
	KindAssign CommandKind = "assign"
	KindEnd    CommandKind = "end"
)

// Go takes the teacher to a frame, and where the teacher leads, everybody.
type Go struct {
	Frame string `json:"frame"`
}

// SetPoll puts a poll that the class has reached into a phase.
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
func (s State) Apply(board lesson.Board, c Command, class Class) (State, error) {
	if s.Ended {
		return s, refusal.New(refusal.Ended)
	}
	next := s.clone()
	next.Rev++
	if err := next.do(board, c, class); err != nil {
		return s, err
	}
	return next, nil
}

func (s *State) do(board lesson.Board, c Command, class Class) error {
	switch {
	case c.Kind == KindGo && c.Go != nil:
		return s.goTo(board, c.Go.Frame, class)
	case c.Kind == KindPace && c.Pace != nil:
		return s.setPace(board, *c.Pace, class)
	case c.Kind == KindPoll && c.Poll != nil:
		return s.setPoll(*c.Poll)
	case c.Kind == KindLift && c.Lift != nil:
		return s.lift(board, *c.Lift)
	case c.Kind == KindUse && c.Use != nil:
		return s.use(board, *c.Use, class)
	case c.Kind == KindGroups && c.Groups != nil:
		return s.regroup(*c.Groups, class)
	case c.Kind == KindAssign && c.Assign != nil:
		return s.assign(*c.Assign, class)
	case c.Kind == KindEnd && c.End != nil:
		s.Ended = true
		for id, phase := range s.Polls {
			if phase == poll.Open {
				s.Polls[id] = poll.Closed
			}
		}
		return nil
	}
	return refusal.New(refusal.UnknownOp)
}

func (s *State) goTo(board lesson.Board, id string, class Class) error {
	frame, _, err := board.Frame(id)
	if err != nil {
		return err
	}
	s.Frame = id
	if s.Pace == Led {
		s.reach(frame, class)
	}
	return nil
}

func (s *State) setPoll(p SetPoll) error {
	now, reached := s.Polls[p.Poll]
	if !reached {
		return refusal.New(refusal.NoSuchPoll)
	}
	if err := now.Next(p.Phase); err != nil {
		return err
	}
	s.Polls[p.Poll] = p.Phase
	return nil
}

// use changes how a frame is used.
func (s *State) use(board lesson.Board, u Use, class Class) error {
	frame, _, err := board.Frame(u.Frame)
	if err != nil {
		return err
	}
	frame.Arrangement, frame.Permission = u.Arrangement, u.Permission
	if err := frame.Check(); err != nil {
		return err
	}
	s.Set[frame.ID] = u.Setting
	if slices.Contains(s.Reached, frame.ID) {
		s.group(frame, class)
	}
	return nil
}

// reach opens a frame to the class; its polls are open from when it is first reached.
func (s *State) reach(frame lesson.Frame, class Class) {
	if set, ok := s.Set[frame.ID]; ok {
		frame.Arrangement = set.Arrangement
	}
	s.group(frame, class)
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
	next.Groups = slices.Clone(s.Groups) // a group itself is never written to
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

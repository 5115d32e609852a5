// Package session answers: in what state is a live session, and what may its
// teacher change about it?
package session

import (
	"maps"
	"slices"

	"alpenglow/core/homework"
	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

// MaxParticipants is how many students one session may have.
const MaxParticipants = 400

// State is what changes about a session while it runs. Rev counts the changes,
// Terms those of what operations depend on: which frames are open and how they
// are used, polls, covers, groups, who was removed, the end.
type State struct {
	Rev   int64 `json:"rev"`
	Terms int64 `json:"terms"`
	// Edition counts the changes of the lesson's board.
	Edition int64 `json:"edition,omitempty"`
	Pace    Pace  `json:"pace"`
	// Frame is the id of the frame that the teacher is on, and where the
	// teacher leads, everybody.
	Frame string `json:"frame"`
	// Since is when the teacher came to it, in milliseconds since 1970; 0 for when
	// the session began.
	Since int64 `json:"since,omitempty"`
	// From is where everybody was when own pace began, and Through the last
	// frame that is open then; empty for all.
	From    string `json:"from,omitempty"`
	Through string `json:"through,omitempty"`
	// Reached lists the frames that the class has been on; students may work
	// on these alone.
	Reached []string `json:"reached"`
	// Polls says how each poll stands that the class has reached.
	Polls map[string]poll.State `json:"polls"`
	// Talk is who talks with whom about a question now, Talked who has talked in this lesson.
	Talk   *Talk       `json:"talk,omitempty"`
	Talked [][2]string `json:"talked,omitempty"`
	// Bands say when it is proposed that neighbours discuss; the usual ones without.
	Bands *outcome.Bands `json:"bands,omitempty"`
	// Lifted lists the covers that are lifted.
	Lifted []string `json:"lifted,omitempty"`
	// Groups lists the students of each group, GroupSize how many it has at
	// most (0: as many as usual).
	Groups    [][]string `json:"groups,omitempty"`
	GroupSize int        `json:"groupSize,omitempty"`
	// Front is what the front screen shows.
	Front Front `json:"front"`
	// Walk is a walk along the work of students or groups that is going on.
	Walk *Walk `json:"walk,omitempty"`
	// Timer runs, or is over and not stopped.
	Timer *Timer `json:"timer,omitempty"`
	// AtBoard is who works on the class's frame, seen by all.
	AtBoard *AtBoard `json:"atBoard,omitempty"`
	// Locks say where students may only look.
	Locks Locks `json:"locks"`
	// Holds say where what students write waits for the teacher's yes.
	Holds Holds `json:"holds"`
	// Nameless says that students do not learn each other's names.
	Nameless bool `json:"nameless,omitempty"`
	// Paused says that the students' screens rest.
	Paused bool `json:"paused,omitempty"`
	// Closed says that nobody new comes in without being let in; Removed lists those whose seat was
	// taken away, by id.
	Closed bool `json:"closed,omitempty"`
	// Shut says that nobody may knock either, Entry by which names people come in.
	Shut  bool  `json:"shut,omitempty"`
	Entry Entry `json:"entry,omitempty"`
	// Persons counts what was changed about who somebody is: names, and which student
	// of the class they are.
	Persons int64    `json:"persons,omitempty"`
	Removed []string `json:"removed,omitempty"`
	// Waiting lists those who have knocked at the closed door, in their order,
	// Admitted those who may come in and have not come yet.
	Waiting  []Knock `json:"waiting,omitempty"`
	Admitted []Knock `json:"admitted,omitempty"`
	Ended    bool    `json:"ended"`
	// Home says that the lesson is left open as homework; Days are its parts, where it was taken up
	// again after it had ended.
	Home *homework.Homework `json:"home,omitempty"`
	Days []Day              `json:"days,omitempty"`
	// Code is the join code where the first one was another's when the lesson was taken up again.
	Code string `json:"code,omitempty"`
	// Happened is what has led to this state, to be stored with it.
	Happened *Happening `json:"-"`
}

// Start gives the state of a new session at a pace: everybody on the board's
// first frame, and nobody there yet.
func Start(board lesson.Board, pace Pace) (State, error) {
	if err := board.Check(); err != nil {
		return State{}, err
	}
	s := State{Frame: board.Frames[0].ID, Polls: map[string]poll.State{}, Front: Front{Kind: FrontGathering}}
	return s, s.setPace(board, SetPace{Pace: pace}, With{})
}

// Apply returns the state after a command. The given state stays as it was.
func (s State) Apply(board lesson.Board, c Command, with With) (State, error) {
	if s.Ended {
		return s, refusal.New(refusal.Ended)
	}
	command, err := c.command()
	if err != nil {
		return s, err
	}
	next := s.clone()
	if err := command.do(&next, board, with); err != nil {
		return s, err
	}
	next.Happened = c.happened(s, with)
	return next.after(s), nil
}

// after gives the state its numbers, as the next after another: Terms goes up
// only when what operations depend on has changed, so that showing something
// never makes a group of operations start again.
func (s State) after(before State) State {
	s.Rev = before.Rev + 1
	if !before.sameTerms(s) {
		s.Terms = before.Terms + 1
	}
	return s
}

func (s State) sameTerms(o State) bool {
	return s.Ended == o.Ended && s.Home.Same(o.Home) && slices.Equal(s.Reached, o.Reached) &&
		slices.Equal(s.Lifted, o.Lifted) && maps.Equal(s.Polls, o.Polls) && slices.Equal(s.Removed, o.Removed) &&
		s.Locks.same(o.Locks) && s.Holds.same(o.Holds) && s.Timer.same(o.Timer) && s.AtBoard.same(o.AtBoard) &&
		s.Walk.same(o.Walk) && slices.EqualFunc(s.Groups, o.Groups, slices.Equal)
}

// reach opens a frame to the class; its polls are open from when it is first reached.
func (s *State) reach(frame lesson.Frame, with With) {
	s.group(frame, with)
	if !slices.Contains(s.Reached, frame.ID) {
		s.Reached = append(s.Reached, frame.ID)
	}
	s.openPolls(frame, with)
}

// IsOpen reports whether a frame is open to students: the class has been on it,
// or may move to it.
func (s State) IsOpen(frame string) bool { return slices.Contains(s.Reached, frame) }

func (s State) clone() State {
	next := s
	next.Happened = nil
	next.Lifted = slices.Clone(s.Lifted)
	next.Removed = slices.Clone(s.Removed)
	next.Waiting = slices.Clone(s.Waiting)
	next.Admitted = slices.Clone(s.Admitted)
	next.Groups = slices.Clone(s.Groups) // a group itself is never written to
	next.Reached = slices.Clone(s.Reached)
	next.Polls = make(map[string]poll.State, len(s.Polls))
	for id, phase := range s.Polls {
		next.Polls[id] = phase
	}
	return next
}

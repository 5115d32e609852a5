package session

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
)

// The commands that change what is on the board of the lesson, and not its state:
// each is an edit of the board (see Command.Edit).
const (
	KindUse    CommandKind = "use"
	KindLay    CommandKind = "lay"
	KindReword CommandKind = "reword"
)

// Use changes how a frame is used from now on. All work is kept.
type Use struct {
	Frame       string             `json:"frame"`
	Arrangement lesson.Arrangement `json:"arrangement"`
	Permission  lesson.Permission  `json:"permission"`
	Replies     bool               `json:"replies,omitempty"`
}

// Lay lets the notes of a frame lie free or in columns from now on. No note is
// changed: free again, each lies where it lay.
type Lay struct {
	Frame  string        `json:"frame"`
	Layout lesson.Layout `json:"layout"`
}

// Reword gives a frame another title and task. All work is kept.
type Reword struct {
	Frame  string `json:"frame"`
	Title  string `json:"title"`
	Prompt string `json:"prompt"`
}

// Edit gives the step by which a command changes the board; false for one that
// changes the state.
func (c Command) Edit() (prepare.Step, bool) {
	var set prepare.SetFrame
	switch {
	case c.Kind == KindUse && c.Use != nil:
		set = prepare.SetFrame{Frame: c.Use.Frame, Arrangement: &c.Use.Arrangement, Permission: &c.Use.Permission,
			Replies: &c.Use.Replies}
	case c.Kind == KindLay && c.Lay != nil:
		set = prepare.SetFrame{Frame: c.Lay.Frame, Layout: &c.Lay.Layout}
	case c.Kind == KindReword && c.Reword != nil:
		set = prepare.SetFrame{Frame: c.Reword.Frame, Title: &c.Reword.Title, Prompt: &c.Reword.Prompt}
	default:
		return prepare.Step{}, false
	}
	return prepare.Step{Kind: prepare.KindFrame, Frame: &set}, true
}

// Rework is a change of the board while the lesson runs.
type Rework struct {
	Before, After lesson.Board
	// Answered says up to which round questions of the board before have answers, by the
	// question's id.
	Answered map[string]int
}

// Rework gives the state and the board with which the lesson goes on after a change of its
// board. A change that would take anybody's work away is refused: frames stay that the class has
// been on, and questions that were answered. Of one that is asked in other words the next round
// begins, and its answers keep the question to which they were given.
func (s State) Rework(r Rework, with With) (State, lesson.Board, error) {
	after := r.After
	if s.Ended {
		return s, after, refusal.New(refusal.Ended)
	}
	if err := r.After.Check(); err != nil {
		return s, after, err
	}
	next := s.clone()
	after.Frames = slices.Clone(after.Frames)
	for _, frame := range append(slices.Clone(s.Reached), s.Frame) {
		before, _, _ := r.Before.Frame(frame)
		_, at, err := after.Frame(frame)
		if err != nil {
			return s, after, refusal.New(refusal.FrameInUse)
		}
		f := &after.Frames[at]
		f.Prepared = slices.Clone(f.Prepared)
		for _, p := range before.Polls() {
			answered := r.Answered[p.ID]
			now := slices.IndexFunc(
				f.Prepared,
				func(e lesson.Element) bool { return e.ID == p.ID && e.Kind == lesson.KindPoll },
			)
			switch {
			case answered == 0:
				continue
			case now < 0 || !f.Prepared[now].OnFrame():
				return s, after, refusal.New(refusal.PollAnswered)
			case p.Poll.Same(*f.Prepared[now].Poll):
				continue
			}
			if answered >= s.Polls[p.ID].Round {
				again, err := s.Polls[p.ID].Anew(with.Now)
				if err != nil {
					return s, after, err
				}
				next.Polls[p.ID] = again
			}
			question := p.Poll.Rewritten(*f.Prepared[now].Poll, answered)
			f.Prepared[now].Poll = &question
		}
	}
	for _, f := range next.open(after) {
		next.reach(f, with)
	}
	for _, frame := range s.Reached {
		f, _, _ := after.Frame(frame)
		next.openPolls(f, with)
		next.group(f, with)
	}
	if next.Front.Kind == FrontPoll {
		if _, _, err := pollOf(after, next.Front.Poll); err != nil {
			next.Front = Front{Kind: FrontFrame}
		}
	}
	next.Rev, next.Terms, next.Edition = s.Rev+1, s.Terms+1, s.Edition+1
	return next, after, nil
}

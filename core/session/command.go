package session

import (
	"alpenglow/core/lesson"
	"alpenglow/core/oneof"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
)

// Command is one thing that somebody tells a session: exactly the field that its
// Kind names is set. It is the registry of the commands; each has a file of its
// own, with its shape and its rule.
type Command struct {
	Kind   CommandKind `json:"kind"             oneof:"commands"`
	Go     *Go         `json:"go,omitempty"`
	Pace   *SetPace    `json:"pace,omitempty"`
	Poll   *SetPoll    `json:"poll,omitempty"`
	Ask    *Ask        `json:"ask,omitempty"`
	Set    *TellSet    `json:"set,omitempty"`
	Talk   *SetTalk    `json:"talk,omitempty"`
	Bands  *SetBands   `json:"bands,omitempty"`
	Lift   *Lift       `json:"lift,omitempty"`
	Use    *Use        `json:"use,omitempty"`
	Lay    *Lay        `json:"lay,omitempty"`
	Reword *Reword     `json:"reword,omitempty"`
	Groups *SetGroups  `json:"groups,omitempty"`
	Assign *Assign     `json:"assign,omitempty"`
	Front  *Front      `json:"front,omitempty"`
	Timer  *SetTimer   `json:"timer,omitempty"`
	Lock   *Lock       `json:"lock,omitempty"`
	Hold   *Hold       `json:"hold,omitempty"`
	Names  *Names      `json:"names,omitempty"`
	Board  *ToBoard    `json:"board,omitempty"`
	Pause  *Pause      `json:"pause,omitempty"`
	Walk   *SetWalk    `json:"walk,omitempty"`
	Door   *Door       `json:"door,omitempty"`
	Admit  *Admit      `json:"admit,omitempty"`
	Seat   *SetSeat    `json:"seat,omitempty"`
	Home   *SetHome    `json:"home,omitempty"`
	End    *End        `json:"end,omitempty"`
}

// CommandKind tells commands apart.
type CommandKind string

// With is with what a command is given: who gives it and when (milliseconds
// since 1970), who has joined, by id, where chance comes from: Random(n) gives a
// number in 0..n-1, and what is kept about the class, by the same ids.
type With struct {
	By       string
	Now      int64
	Students []string
	Random   func(n int) int
	Plan     roster.Plan
	// Listed says that there is a list of the class.
	Listed bool
	// Said gives for the students who are here what they answered to the question that a
	// command is about, as something to compare by; "" of who has not.
	Said map[string]string
}

// command is what every kind of command has: its rule.
type command interface {
	do(s *State, board lesson.Board, with With) error
}

func (c *Command) command() (command, error) {
	body, ok := oneof.Body(c)
	if d, is := body.(command); ok && is {
		return d, nil
	}
	return nil, refusal.New(refusal.UnknownOp)
}

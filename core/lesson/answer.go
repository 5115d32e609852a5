package lesson

import "alpenglow/core/poll"

// KindAnswer is one student's answer to a poll.
const KindAnswer Kind = "answer"

// Answer is one student's answer to the poll with the id Poll, in a round.
type Answer struct {
	Poll  string     `json:"poll"`
	Round int        `json:"round"`
	Value poll.Value `json:"value"`
	// Before are the answers given before this one where each is judged at once, the first first.
	Before []poll.Value `json:"before,omitempty"`
	// Sure is whether the student is sure, where that was asked.
	Sure poll.Sureness `json:"sure,omitempty"`
	// Read is how the answer was read, where that is not as it was written.
	Read string `json:"read,omitempty"`
	// Late: it came after the question was closed, and counts nowhere. Offline: it was given
	// without network.
	Late    bool `json:"late,omitempty"`
	Offline bool `json:"offline,omitempty"`
}

func (a *Answer) check() error                    { return nil }
func (a *Answer) with(p, before *Properties) Body { return Body{Kind: KindAnswer, Answer: a} }
func (a *Answer) words() string                   { return "" }
func (a *Answer) says() string                    { return "" }
func (a *Answer) manner() manner                  { return manner{answer: true} }

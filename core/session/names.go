package session

import "alpenglow/core/lesson"

// KindNames says whether the class sees names.
const KindNames CommandKind = "names"

// Names lets the class and the front screen see no names from now on, or see them
// again. The staff always does.
type Names struct {
	Off bool `json:"off"`
}

func (n *Names) do(s *State, _ lesson.Board, _ With) error {
	s.Nameless = n.Off
	return nil
}

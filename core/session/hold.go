package session

import (
	"slices"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/words"
)

// KindHold lets what students add wait for a yes.
const KindHold CommandKind = "hold"

// Holds say where what students write waits for the teacher's yes before others see
// it: on every frame, on some, or of some students; and wherever it is, of which words.
type Holds struct {
	Locks
	// Words says that what holds a word of the lists waits: those of some languages,
	// and the teacher's own.
	Words     bool     `json:"words,omitempty"`
	Languages []string `json:"languages,omitempty"`
	Own       []string `json:"own,omitempty"`
}

// Hold lets what is written from now on wait, or no more: on a frame, of a student,
// or with neither everywhere. With Words it says which words wait instead. What waits
// already goes on waiting.
type Hold struct {
	Frame   string     `json:"frame,omitempty"`
	Student string     `json:"student,omitempty"`
	On      bool       `json:"on"`
	Words   *HoldWords `json:"words,omitempty"`
}

// HoldWords says of which words it waits.
type HoldWords struct {
	Languages []string `json:"languages"`
	Own       []string `json:"own"`
}

func (h *Hold) do(s *State, board lesson.Board, with With) error {
	if h.Words == nil {
		// The same rule as for who may only look.
		of := State{Locks: s.Holds.Locks}
		if err := (&Lock{Frame: h.Frame, Student: h.Student, On: h.On}).do(&of, board, with); err != nil {
			return err
		}
		s.Holds.Locks = of.Locks
		return nil
	}
	if h.Frame != "" || h.Student != "" {
		return refusal.New(refusal.Malformed)
	}
	if err := h.Words.Check(); err != nil {
		return err
	}
	s.Holds.Words, s.Holds.Languages, s.Holds.Own = h.On, slices.Clone(h.Words.Languages), nil
	for _, w := range h.Words.Own {
		if w = strings.TrimSpace(w); w != "" && !slices.Contains(s.Holds.Own, w) {
			s.Holds.Own = append(s.Holds.Own, w)
		}
	}
	return nil
}

// Check reports what is wrong.
func (h *HoldWords) Check() error {
	if len(h.Own) > words.MaxOwn || len(h.Languages) > len(words.Languages) {
		return refusal.About(refusal.TooMany, "at most %d words", words.MaxOwn)
	}
	for _, l := range h.Languages {
		if !slices.Contains(words.Languages, l) {
			return refusal.About(refusal.Malformed, "no words are known in this language")
		}
	}
	for _, w := range h.Own {
		if err := lesson.CheckText(w, words.MaxWord); err != nil {
			return err
		}
	}
	return nil
}

// Watch is which words wait in this session.
func (h Holds) Watch() words.Watch {
	if !h.Words {
		return words.Watch{}
	}
	return words.Watch{Languages: h.Languages, Own: h.Own}
}

func (h Holds) same(o Holds) bool {
	return h.Locks.same(o.Locks) && h.Words == o.Words && slices.Equal(h.Languages, o.Languages) &&
		slices.Equal(h.Own, o.Own)
}

// HoldsOn reports whether what every student writes on a frame waits.
func (s State) HoldsOn(frame string) bool {
	return s.Holds.All || slices.Contains(s.Holds.Frames, frame)
}

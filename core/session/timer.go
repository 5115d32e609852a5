package session

import (
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// KindTimer starts, lengthens, shortens or stops the timer.
const KindTimer CommandKind = "timer"

// How long a timer runs: from a few seconds to most of a school day.
const (
	MinTimer = 5
	MaxTimer = 4 * 60 * 60
)

// Timer runs on every screen, by the server's time.
type Timer struct {
	// EndsAt is when it is over, in milliseconds since 1970; Length how long it
	// runs in all, in milliseconds.
	EndsAt int64 `json:"endsAt"`
	Length int64 `json:"length"`
	// Sound and Light say how its end is told; Look that students may only look
	// from then on, until it is stopped.
	Sound bool `json:"sound,omitempty"`
	Light bool `json:"light,omitempty"`
	Look  bool `json:"look,omitempty"`
}

// SetTimer starts the timer for so many Seconds, or with More lets the one that
// runs go on for longer, or shorter; with neither it stops.
type SetTimer struct {
	Seconds int  `json:"seconds,omitempty"`
	More    int  `json:"more,omitempty"`
	Sound   bool `json:"sound,omitempty"`
	Light   bool `json:"light,omitempty"`
	Look    bool `json:"look,omitempty"`
}

func (c *SetTimer) do(s *State, _ lesson.Board, with With) error {
	switch {
	case c.Seconds == 0 && c.More == 0:
		s.Timer = nil
		return nil
	case c.Seconds != 0:
		if c.Seconds < MinTimer || c.Seconds > MaxTimer {
			return refusal.About(refusal.Malformed, "a timer runs %d to %d seconds", MinTimer, MaxTimer)
		}
		length := int64(c.Seconds) * 1000
		s.Timer = &Timer{with.Now + length, length, c.Sound, c.Light, c.Look}
		return nil
	case s.Timer == nil:
		return refusal.New(refusal.NoTimer)
	case c.More < -MaxTimer || c.More > MaxTimer:
		return refusal.New(refusal.Malformed)
	}
	// One that is over begins anew with what is added; none ends in the past.
	now, more := *s.Timer, int64(c.More)*1000
	left := max(0, now.EndsAt-with.Now)
	next := min(max(0, left+more), MaxTimer*1000)
	now.EndsAt, now.Length = with.Now+next, max(now.Length-left+next, 1000)
	s.Timer = &now
	return nil
}

// over reports whether a timer has run out that lets students only look then.
func (t *Timer) over(now int64) bool { return t != nil && t.Look && now >= t.EndsAt }

func (t *Timer) same(o *Timer) bool { return t == o || t != nil && o != nil && *t == *o }

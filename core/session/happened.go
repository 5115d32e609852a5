package session

// Happening is what somebody told a session, for the line of what happened: By is a
// teacher's id, At in milliseconds since 1970.
type Happening struct {
	At      int64   `json:"at"      db:"at"`
	By      string  `json:"by"      db:"by"`
	Command Command `json:"command"`
}

// happened gives a command as what happened to a state; nothing for those that change
// what is seen for a moment and nothing else, as a step of a walk that goes on.
func (c Command) happened(before State, with With) *Happening {
	switch {
	case c.Kind == KindFront, c.Kind == KindAdmit:
		return nil
	case c.Kind == KindWalk && len(c.Walk.Stops) > 0:
		if w := before.Walk; w != nil && w.Own == c.Walk.Own && w.Frame == c.Walk.Frame {
			return nil
		}
		brief := *c.Walk
		brief.Stops = brief.Stops[:1] // that there was one is what is told of it
		brief.At = 0
		c.Walk = &brief
	}
	return &Happening{At: with.Now, By: with.By, Command: c}
}

package session

// Happening is what somebody told a session, for the line of what happened: By is a
// teacher's id, At in milliseconds since 1970.
type Happening struct {
	At      int64   `json:"at" db:"at"`
	By      string  `json:"by" db:"by"`
	Command Command `json:"command"`
}

// happened gives a command as what happened; nothing for those that change what is
// seen for a moment and nothing else.
func (c Command) happened(with With) *Happening {
	if c.Kind == KindFront || c.Kind == KindAdmit {
		return nil
	}
	return &Happening{At: with.Now, By: with.By, Command: c}
}

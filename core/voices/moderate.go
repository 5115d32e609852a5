package voices

// The words by which the staff ticks questions off, and hides them.
const (
	KindTick Kind = "tick"
	KindHide Kind = "hide"
)

// Tick says that a question was answered, or waits again.
type Tick struct {
	Question string `json:"question"`
	Yes      bool   `json:"yes"`
}

func (t *Tick) say(v *Voices, _ With) error {
	q, err := v.find(t.Question)
	if err == nil {
		q.Ticked = t.Yes
	}
	return err
}

// Hide takes a question out of the class's sight, or brings it back.
type Hide struct {
	Question string `json:"question"`
	Yes      bool   `json:"yes"`
}

func (h *Hide) say(v *Voices, _ With) error {
	q, err := v.find(h.Question)
	if err == nil {
		q.Hidden = h.Yes
	}
	return err
}

func (*Tick) byStaff() bool                   { return true }
func (t *Tick) about() (question, who string) { return t.Question, "" }
func (*Hide) byStaff() bool                   { return true }
func (h *Hide) about() (question, who string) { return h.Question, "" }

package poll

// KindOpen asks for a text in one's own words.
const KindOpen Kind = "open"

// MaxOpen is how many characters such a text may have.
const MaxOpen = 2000

// Free is a question for a text in one's own words; people read it, nothing judges it.
type Free struct{}

func (f *Free) check() error                   { return nil }
func (f *Free) words() []string                { return nil }
func (f *Free) pictures() []string             { return nil }
func (f *Free) shown(func(string) string) Body { return f.bare() }
func (f *Free) bare() Body                     { return Body{Kind: KindOpen, Open: f} }
func (f *Free) right() string                  { return "" }
func (f *Free) takes(v Value) error            { return checkWritten(v.Open.Text, MaxOpen) }
func (f *Free) judge(Value) Judgement          { return Judgement{} }
func (f *Free) says(v Value) string            { return v.Open.Text }

func (f *Free) chart(values []Value, _ []Judgement) Chart {
	written := make([]string, len(values))
	for i, v := range values {
		written[i] = v.Open.Text
	}
	return textsChart(written, func(string) Judgement { return Judgement{} })
}

// Text gives what an answer says in words of its student's own; nothing of other kinds.
func (v Value) Text() string {
	switch {
	case v.Open != nil:
		return v.Open.Text
	case v.Short != nil:
		return v.Short.Text
	}
	return ""
}

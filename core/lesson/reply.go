package lesson

import (
	"alpenglow/core/id"
	"alpenglow/core/refusal"
)

// KindReply is a short answer under a note.
const KindReply Kind = "reply"

// MaxReply is how many characters a reply may have.
const MaxReply = 300

// Reply is a short answer under the note with the id To. It lies nowhere on the
// frame: it is read beside the note.
type Reply struct {
	To   string `json:"to"`
	Text string `json:"text"`
}

func (r *Reply) check() error {
	if !id.IsPlain(r.To) || r.Text == "" {
		return refusal.About(refusal.Malformed, "to what, or no words")
	}
	return checkText(r.Text, MaxReply)
}

func (r *Reply) with(p, before *Properties) Body {
	c := *r
	take(&c.Text, &p.Text, &before.Text)
	return Body{Kind: KindReply, Reply: &c}
}

func (r *Reply) words() string  { return r.Text }
func (r *Reply) says() string   { return r.Text }
func (r *Reply) manner() manner { return manner{inClass: true, nowhere: true} }

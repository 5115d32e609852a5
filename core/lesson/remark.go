package lesson

import "alpenglow/core/refusal"

// KindRemark is what somebody says about the work on a sheet as a whole.
const KindRemark Kind = "remark"

// MaxRemark is how many characters a remark may have.
const MaxRemark = 300

// Remark is what somebody says about the work on a sheet as a whole. It lies nowhere on
// the frame: it is read beside it.
type Remark struct {
	Text string `json:"text"`
}

func (r *Remark) check() error {
	if r.Text == "" {
		return refusal.New(refusal.EmptyNote)
	}
	return checkText(r.Text, MaxRemark)
}

func (r *Remark) with(p, before *Properties) Body {
	c := *r
	take(&c.Text, &p.Text, &before.Text)
	return Body{Kind: KindRemark, Remark: &c}
}

func (r *Remark) words() string  { return r.Text }
func (r *Remark) says() string   { return r.Text }
func (r *Remark) manner() manner { return manner{inClass: true, nowhere: true} }

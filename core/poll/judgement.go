package poll

// Verdict says whether an answer is right.
type Verdict string

// A question that has no right answer gives no verdict.
const (
	Right     Verdict = "right"
	Partly    Verdict = "partly"
	Wrong     Verdict = "wrong"
	NoVerdict Verdict = ""
)

// Verdicts lists all verdicts.
var Verdicts = []Verdict{Right, Partly, Wrong, NoVerdict}

// Reason says why an answer has its verdict, where that is not plain.
type Reason string

// The unit measures something else; it is right but for slips of spelling.
const (
	NoReason  Reason = ""
	OtherUnit Reason = "unit"
	Slips     Reason = "slips"
)

// Reasons lists them.
var Reasons = []Reason{OtherUnit, Slips, NoReason}

// Judgement is what is thought of an answer: its verdict, how much of it is right from 0
// to 1, why, and the name of the known mistake that it is.
type Judgement struct {
	Verdict Verdict `json:"verdict"`
	Share   float64 `json:"share"`
	Reason  Reason  `json:"reason,omitempty"`
	Mistake string  `json:"mistake,omitempty"`
}

// part gives the judgement of an answer of which so much is right.
func part(right, of int, mistake string) Judgement {
	switch {
	case right == of:
		return Judgement{Verdict: Right, Share: 1}
	case right <= 0:
		return Judgement{Verdict: Wrong, Mistake: mistake}
	}
	return Judgement{Verdict: Partly, Share: float64(right) / float64(of), Mistake: mistake}
}

// whole gives the judgement of an answer that is right or not.
func whole(right bool, mistake string) Judgement {
	if right {
		return part(1, 1, "")
	}
	return part(0, 1, mistake)
}

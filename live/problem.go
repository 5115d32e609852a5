package live

import (
	"net/http"

	"alpenglow/core/refusal"
)

// statuses gives the HTTP status of refusals that are not plain bad requests.
var statuses = map[refusal.Code]int{
	refusal.NoSuchPicture: http.StatusNotFound,
	refusal.PictureHuge:   http.StatusRequestEntityTooLarge,
	refusal.ChangedSince:  http.StatusConflict,
	refusal.FileHuge:      http.StatusRequestEntityTooLarge,
	refusal.FrameDropped:  http.StatusConflict, refusal.FrameThere: http.StatusConflict,
	refusal.LastFrame: http.StatusConflict, refusal.BoardFull: http.StatusConflict,
	refusal.NoSuchPiece: http.StatusNotFound, refusal.NoSuchCover: http.StatusNotFound,
	refusal.NotYours: http.StatusForbidden, refusal.NoSuchSheet: http.StatusForbidden,
	refusal.DoorClosed: http.StatusForbidden, refusal.NotLetIn: http.StatusForbidden,
	refusal.NoSuchQuestion: http.StatusNotFound, refusal.QuestionsOff: http.StatusConflict,
	refusal.QuestionsWait: http.StatusConflict,
	refusal.FrontUnknown:  http.StatusNotFound, refusal.FrontGone: http.StatusUnauthorized,
	refusal.TooManyFronts: http.StatusConflict,
	refusal.Locked:        http.StatusForbidden, refusal.NoTimer: http.StatusConflict,
	refusal.NoReplies: http.StatusForbidden, refusal.NotShared: http.StatusConflict,
	refusal.PutAway:  http.StatusForbidden,
	refusal.LookOnly: http.StatusForbidden, refusal.WrongOrigin: http.StatusForbidden,
	refusal.SignInNeeded: http.StatusUnauthorized, refusal.SignInWrong: http.StatusUnauthorized,
	refusal.JoinNeeded: http.StatusUnauthorized, refusal.SecondNeeded: http.StatusUnauthorized,
	refusal.SecondWrong: http.StatusUnauthorized, refusal.SecondMissing: http.StatusForbidden,
	refusal.NotForGuests: http.StatusForbidden, refusal.NoGuests: http.StatusForbidden,
	refusal.NotForYou:  http.StatusForbidden,
	refusal.NoSuchMark: http.StatusNotFound, refusal.NoSuchFrame: http.StatusNotFound,
	refusal.NoSuchPoll:  http.StatusNotFound,
	refusal.NoSuchClass: http.StatusNotFound, refusal.CodeUnknown: http.StatusNotFound,
	refusal.NotFound:   http.StatusNotFound,
	refusal.RoundOver:  http.StatusConflict,
	refusal.PollClosed: http.StatusConflict, refusal.PollRevealed: http.StatusConflict,
	refusal.PollOpen: http.StatusConflict, refusal.TooManyRounds: http.StatusConflict,
	refusal.Ended:      http.StatusConflict,
	refusal.MarkExists: http.StatusConflict, refusal.SheetFull: http.StatusConflict,
	refusal.SessionFull: http.StatusConflict,
	refusal.TooMany:     http.StatusTooManyRequests, refusal.TooLarge: http.StatusRequestEntityTooLarge,
	refusal.Unavailable: http.StatusServiceUnavailable,
}

// ProblemOf turns an error into what is told to the client. Anything but a
// refusal is told as a passing failure of the server, without its cause.
func ProblemOf(err error) *Problem {
	r := refusal.Of(err)
	if r == nil {
		r = refusal.New(refusal.Unavailable)
	}
	status := statuses[r.Code]
	if status == 0 {
		status = http.StatusBadRequest
	}
	return &Problem{Type: "urn:alpenglow:" + string(r.Code), Title: r.Sentence(), Status: status, Detail: r.About,
		Code: r.Code}
}

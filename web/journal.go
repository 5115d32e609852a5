package web

import (
	"net/http"
	"strconv"

	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// Did is what somebody did, as the journal has it.
type Did string

// What is noted.
const (
	DidInvite    Did = "invited"
	DidWithdraw  Did = "withdrew"
	DidAccept    Did = "accepted"
	DidRole      Did = "role"
	DidLeave     Did = "left"
	DidComeBack  Did = "came-back"
	DidLink      Did = "password-link"
	DidPassword  Did = "password"
	DidSecondOn  Did = "second-on"
	DidSecondOff Did = "second-off"
	DidHandOver  Did = "handed-over"
	DidHouse     Did = "house"
	DidClass     Did = "class-made"
	DidClassSet  Did = "class-changed"
	DidTeach     Did = "teachers"
	DidStudent   Did = "student-changed"
	DidMove      Did = "student-moved"
	DidMerge     Did = "students-merged"
	DidCards     Did = "cards"
	DidCard      Did = "card-stopped"
	DidRegister  Did = "register"
	DidExport    Did = "exported"
	DidErase     Did = "erased"
	DidKeep      Did = "kept-for"
	DidExpire    Did = "record-went"
	DidGone      Did = "account-erased"
)

// Dids lists them.
var Dids = []Did{DidInvite, DidWithdraw, DidAccept, DidRole, DidLeave, DidComeBack, DidLink, DidPassword, DidSecondOn,
	DidSecondOff, DidHandOver, DidHouse, DidClass, DidClassSet, DidTeach, DidStudent, DidMove, DidMerge, DidCards,
	DidCard,
	DidRegister, DidExport, DidErase, DidKeep, DidExpire, DidGone}

// note writes into the journal what was just done. What it is about is the id of an
// account, a class or a lesson, never of a student.
func (s *server) note(c *gin.Context, what Did, about, detail string) {
	s.noteBy(c, visitor(c).Account, what, about, detail)
}

func (s *server) noteBy(c *gin.Context, by string, what Did, about, detail string) {
	if err := s.Store.Note(c.Request.Context(), by, string(what), about, detail); err != nil {
		s.Log.Error("journal", "what", what, "error", store.Bare(err))
	}
}

// journalPage is how many lines are read at once.
const journalPage = 100

// journal gives the lines before one that the address names.
func (s *server) journal(c *gin.Context) {
	before, err := strconv.ParseInt(c.DefaultQuery("before", "0"), 10, 64)
	if err != nil || before < 0 {
		refuse(c, refusal.New(refusal.Malformed))
		return
	}
	entries, err := s.Store.Journal(c.Request.Context(), before, journalPage)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Journal{Entries: []JournalEntry{}}
	for _, e := range entries {
		reply.Entries = append(
			reply.Entries,
			JournalEntry{ID: e.ID, At: e.At, By: e.ByName, What: Did(e.What), About: e.About,
				Detail: e.Detail},
		)
	}
	c.JSON(http.StatusOK, reply)
}

package web

import (
	"net/http"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/live"

	"github.com/gin-gonic/gin"
)

// trialStudent is the id that the interface goes by when a teacher tries a frame.
const trialStudent = "trial"

// tryFrame gives the stage of a frame as a class would get it, with its covers
// lifted or not. No session is made.
func (s *server) tryFrame(c *gin.Context) {
	kept, err := s.ownBoard(c)
	if err != nil {
		refuse(c, err)
		return
	}
	board := kept.Board()
	frame, _, err := board.Frame(c.Query("frame"))
	if err != nil {
		refuse(c, err)
		return
	}
	state := session.State{Pace: session.Led, Frame: frame.ID, Polls: map[string]poll.State{},
		Groups: [][]string{{trialStudent}}}
	for _, e := range frame.Prepared {
		switch {
		case e.Kind == lesson.KindPoll:
			state.Polls[e.ID] = poll.State{Phase: poll.Open, Round: 1}
		case e.Kind == lesson.KindCover && c.Query("lifted") == "true":
			state.Lifted = append(state.Lifted, e.ID)
		}
	}
	stage, err := state.For(board, session.Student{ID: trialStudent})
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, stage)
}

// tidyBoard offers what may take the place of a stroke on a prepared frame.
func (s *server) tidyBoard(c *gin.Context) {
	var ask live.Tidy
	kept, err := s.ownBoard(c)
	if err == nil {
		err = readBody(c, &ask)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	marks := kept.Frames[ask.Sheet].Prepared
	at := slices.IndexFunc(marks, func(e lesson.Element) bool { return e.ID == ask.Mark && e.OnFrame() })
	if at < 0 {
		refuse(c, refusal.New(refusal.NoSuchMark))
		return
	}
	tidied, err := live.TidiedOf(marks[at])
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, tidied)
}

// maxRehearsed is how many simulated students a rehearsal may have.
const maxRehearsed = 40

// rehearse starts a practice session with a simulated class.
func (s *server) rehearse(c *gin.Context) {
	var ask Rehearse
	err := readBody(c, &ask)
	switch {
	case err != nil:
	case s.Rehearsal == nil:
		err = refusal.New(refusal.NoRehearsal)
	case ask.Students < 1 || ask.Students > maxRehearsed:
		err = refusal.About(refusal.Malformed, "1 to %d students", maxRehearsed)
	}
	done := func() {}
	if err == nil {
		done, err = s.rehearsals.reserve(visitor(c).Teacher)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	defer done()
	n, board, err := s.prepared(c, StartSession{Pace: session.Led})
	if err == nil {
		n.Practice = true
		err = s.begin(c.Request.Context(), &n, c.Param("id"), board)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.rehearsals.add(n.ID, n.TeacherID, s.Rehearsal(n.Code, ask.Students, board))
	c.JSON(http.StatusCreated, Started{n.ID})
}

// rehearsing pauses the simulated class of a practice session, or lets it go on.
func (s *server) rehearsing(c *gin.Context) {
	var ask Rehearsing
	n, err := s.ownSession(c)
	if err == nil {
		err = readBody(c, &ask)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	class := s.rehearsals.find(n.ID)
	if class == nil {
		refuse(c, refusal.New(refusal.NotFound))
		return
	}
	class.Pause(ask.Paused)
	c.Status(http.StatusNoContent)
}

// endRehearsal throws a practice session away.
func (s *server) endRehearsal(c *gin.Context) {
	n, err := s.ownSession(c)
	if err == nil && !n.Practice {
		err = refusal.New(refusal.NotFound)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	if err := s.end(c.Request.Context(), n.ID); err != nil {
		refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

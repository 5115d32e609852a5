package web

import (
	"crypto/rand"
	"net/http"
	"time"

	"alpenglow/core/assess"
	"alpenglow/core/output"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/report"
	"alpenglow/core/roster"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// GiveBack gives students of a lesson what their teacher thinks of their work, or takes it back.
type GiveBack struct {
	Students []string `json:"students"`
	Undo     bool     `json:"undo,omitempty"`
}

// Letters are what goes back to each student of a lesson.
type Letters struct {
	Letters []assess.Back `json:"letters"`
}

// GivenLessons are the lessons of which somebody was given something back.
type GivenLessons struct {
	Lessons []GivenLesson `json:"lessons"`
}

// GivenLesson is one of them.
type GivenLesson struct {
	Session string    `json:"session"`
	Title   string    `json:"title"`
	At      time.Time `json:"at"`
}

// giveBack is for whose lesson it is: only their words go back, and not before it is over, for what is
// right goes with them.
func (s *server) giveBack(c *gin.Context) {
	var ask GiveBack
	err := readBody(c, &ask)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	if err == nil && n.TeacherID != visitor(c).Teacher {
		err = refusal.New(refusal.NotYours)
	}
	if err == nil && n.EndedAt == nil && !ask.Undo {
		err = refusal.New(refusal.LessonRunning)
	}
	if err == nil {
		err = s.Store.GiveBack(c.Request.Context(), n.ID, ask.Students, ask.Undo)
	}
	done(c, err)
}

// given is what goes back to whoever has a seat in the lesson in the path.
func (s *server) given(c *gin.Context) {
	ctx := c.Request.Context()
	p := visitor(c).Participant
	if p == nil || p.SessionID != c.Param("id") || p.GivenAt == nil {
		refuse(c, refusal.New(refusal.NotGiven))
		return
	}
	if !s.mayRead(p.ID) {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	n, err := s.Store.Session(ctx, p.SessionID)
	if err == nil && n.EndedAt == nil { // it was taken up again, and says what is right
		err = refusal.New(refusal.NotGiven)
	}
	var people []store.Participant
	if err == nil {
		people, err = s.Store.Participants(ctx, n.ID)
	}
	var kept record.Record
	if err == nil {
		kept, err = s.recordOfOne(ctx, n, people, p.ID)
	}
	var all []assess.Judged
	if err == nil {
		all, err = s.Store.Judgements(ctx, n.ID)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.JSON(http.StatusOK, backTo(n, kept, all, p.ID))
}

func backTo(n store.Session, kept record.Record, all []assess.Judged, student string) assess.Back {
	back, _ := assess.BackTo(kept, n.State.V, all, student, n.TeacherID)
	back.At, back.Language = n.StartedAt.UnixMilli(), n.Language
	return back
}

// letters are what goes back to each student of a lesson, to be printed: for whose lesson it is,
// for they hold what a second marker may not know yet.
func (s *server) letters(c *gin.Context) {
	_, _, letters, err := s.lettersOf(c, "")
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, Letters{Letters: letters})
}

// lettersOf composes what goes back to each student of the lesson in the path, or to one.
func (s *server) lettersOf(c *gin.Context, to string) (store.Session, record.Record, []assess.Back, error) {
	n, kept, people, err := s.read(c)
	if err == nil && n.TeacherID != visitor(c).Teacher {
		err = refusal.New(refusal.NotYours)
	}
	var all []assess.Judged
	if err == nil {
		all, err = s.Store.Judgements(c.Request.Context(), n.ID)
	}
	letters := []assess.Back{}
	for _, p := range people {
		if err == nil && (to == "" || to == p.ID) {
			letters = append(letters, backTo(n, kept, all, p.ID))
		}
	}
	if err == nil && to != "" && len(letters) == 0 {
		err = refusal.New(refusal.NoSuchWork)
	}
	return n, kept, letters, err
}

// lettersFile writes them as pages; to one student alone where one is named.
func (s *server) lettersFile(c *gin.Context) {
	ctx := c.Request.Context()
	n, kept, letters, err := s.lettersOf(c, c.Query("student"))
	name := n.Title
	if err == nil && len(letters) == 0 {
		err = refusal.New(refusal.NothingToTakeOut)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	if c.Query("student") != "" {
		name += " " + letters[0].Name
	}
	zone, err := time.LoadLocation(c.Query("zone"))
	if err != nil {
		zone = time.UTC
	}
	c.Header("Content-Type", "application/pdf")
	c.Header("Content-Disposition", attachment(output.Plain(name)+".pdf"))
	if err := report.Letters(c.Writer, letters, n.Language, zone, s.painted(ctx, kept.Board)); err != nil {
		s.Log.Error("write letters", "error", store.Bare(err))
	}
}

// givenByCard lists what somebody was given back, by their name card; with a session it gives
// the device a seat there, so that it may read it.
func (s *server) givenByCard(c *gin.Context) {
	var ask ByCard
	err := readBody(c, &ask)
	var code string
	if err == nil {
		code, err = roster.ReadCard(ask.Card)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	count, ok := s.codes.try(c.ClientIP(), time.Now())
	if !ok {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	lessons, known, err := s.Store.GivenByCard(c.Request.Context(), code)
	count(err == nil && !known)
	if err == nil && !known {
		err = refusal.New(refusal.CardUnknown)
	}
	reply := GivenLessons{Lessons: []GivenLesson{}}
	for _, l := range lessons {
		if ask.Session == "" || ask.Session == l.Session {
			reply.Lessons = append(reply.Lessons, GivenLesson{l.Session, l.Title, l.At})
		}
		if ask.Session == l.Session && err == nil {
			err = s.seatAgain(c, l.Participant)
		}
	}
	if err == nil && ask.Session != "" && len(reply.Lessons) == 0 {
		err = refusal.New(refusal.NotGiven)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, reply)
}

// mayRead counts that what goes back to a participant is read, or that a device gets their seat
// for it: it is composed anew each time.
func (s *server) mayRead(participant string) bool {
	count, ok := s.backs.try(participant, time.Now())
	if ok {
		count(true)
	}
	return ok
}

// seatAgain gives the device the seat of a participant.
func (s *server) seatAgain(c *gin.Context, participant string) error {
	if !s.mayRead(participant) {
		return refusal.New(refusal.TooMany)
	}
	token := rand.Text() + rand.Text()
	if _, err := s.Store.Return(c.Request.Context(), participant, hashed(token)); err != nil {
		return err
	}
	s.setSeat(c, token, seatLasts)
	return nil
}

package web

import (
	"context"
	"crypto/rand"
	"errors"
	"maps"
	"net/http"
	"slices"
	"time"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/settings"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// mostPhrases is how many of one's own comments are offered again.
const mostPhrases = 200

// Judgements are what teachers think of the work of a lesson, as far as the one who asks may see
// it: by the school's scale as it is now.
type Judgements struct {
	Scale  []settings.Level  `json:"scale"`
	Judged []assess.Judged   `json:"judged"`
	Names  map[string]string `json:"names"` // of teachers, by their ids
	// Me is who asks, Owner whose lesson it is; only their words go back to students.
	Me    string `json:"me"`
	Owner string `json:"owner"`
	Blind bool   `json:"blind"`
	// Given says when students were given theirs back, in milliseconds since 1970.
	Given map[string]int64 `json:"given"`
	// Phrases are comments of one's own, those used most often first.
	Phrases []string `json:"phrases"`
	// Agreements compare the one who asks with each other teacher who judged.
	Agreements []assess.Agreement `json:"agreements"`
}

// JudgedNow is what is noted of a piece now; left out where nothing is.
type JudgedNow struct {
	Judged *assess.Judged `json:"judged,omitempty"`
}

// SetBlind says whether teachers judge a lesson without seeing what others think.
type SetBlind struct {
	Blind bool `json:"blind"`
}

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

func (s *server) judgements(c *gin.Context) {
	n, err := s.ownSession(c)
	var reply Judgements
	if err == nil {
		reply, err = s.judgementsOf(c.Request.Context(), n, visitor(c).Teacher)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, reply)
}

func (s *server) judgementsOf(ctx context.Context, n store.Session, me string) (Judgements, error) {
	reply := Judgements{
		Me:         me,
		Owner:      n.TeacherID,
		Blind:      n.Blind,
		Names:      map[string]string{},
		Given:      map[string]int64{},
		Agreements: []assess.Agreement{},
	}
	house, err := s.Store.House(ctx)
	if err != nil {
		return reply, err
	}
	reply.Scale = house.Scale
	all, err := s.Store.Judgements(ctx, n.ID)
	if err != nil {
		return reply, err
	}
	reply.Judged = assess.Seen(all, me, n.Blind)
	others := map[string]bool{}
	for _, j := range reply.Judged {
		others[j.By] = true
	}
	for _, by := range slices.Sorted(maps.Keys(others)) {
		teacher, err := s.Store.TeacherByID(ctx, by)
		if err != nil {
			return reply, err
		}
		reply.Names[by] = teacher.Name
		if by != me {
			reply.Agreements = append(reply.Agreements, assess.Agree(reply.Judged, me, by))
		}
	}
	people, err := s.Store.Participants(ctx, n.ID)
	if err != nil {
		return reply, err
	}
	for _, p := range people {
		if p.GivenAt != nil {
			reply.Given[p.ID] = p.GivenAt.UnixMilli()
		}
	}
	reply.Phrases, err = s.Store.Comments(ctx, me, mostPhrases)
	return reply, err
}

// judge notes what a teacher thinks of a piece of somebody's work.
func (s *server) judge(c *gin.Context) {
	var ask assess.Said
	err := readBody(c, &ask)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	var board lesson.Board
	if err == nil {
		board, err = s.onBoard(c.Request.Context(), n, ask.Piece)
	}
	var house settings.House
	if err == nil {
		house, err = s.Store.House(c.Request.Context())
	}
	var now assess.Judged
	if err == nil {
		me := visitor(c).Teacher
		now, err = s.Store.Judge(c.Request.Context(), n.ID, ask.Piece, me,
			func(before *assess.Judged) (assess.Judged, error) {
				return assess.Judge(ask, board, house.Scale, before, me, time.Now().UnixMilli())
			})
	}
	if errors.Is(err, store.ErrNotFound) {
		err = refusal.New(refusal.NoSuchWork)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := JudgedNow{}
	if !now.Empty() {
		reply.Judged = &now
	}
	c.JSON(http.StatusOK, reply)
}

// onBoard gives the board of the lesson if it has that piece.
func (s *server) onBoard(ctx context.Context, n store.Session, p assess.Piece) (lesson.Board, error) {
	people, err := s.Store.Participants(ctx, n.ID)
	if err != nil {
		return lesson.Board{}, err
	}
	kept, err := s.recordOfOne(ctx, n, people, p.Student)
	if err != nil {
		return lesson.Board{}, err
	}
	return kept.Board, p.In(kept)
}

// recordOfOne gives the record of a session for one who took part.
func (s *server) recordOfOne(ctx context.Context, n store.Session, people []store.Participant,
	id string) (record.Record, error) {
	at := slices.IndexFunc(people, func(p store.Participant) bool { return p.ID == id })
	if at < 0 {
		return record.Record{}, refusal.New(refusal.NoSuchWork)
	}
	var board lesson.Board
	board, err := s.Store.Lesson(ctx, n.ID)
	if err != nil {
		return record.Record{}, err
	}
	marks, err := s.Store.MarksOf(ctx, n.ID, id)
	if err != nil {
		return record.Record{}, err
	}
	return record.Build(board, []record.Student{{ID: id, Name: n.Calls(people[at])}}, marks), nil
}

// setBlind is for whose lesson it is: they choose how a second one judges.
func (s *server) setBlind(c *gin.Context) {
	var ask SetBlind
	err := readBody(c, &ask)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	if err == nil && n.TeacherID != visitor(c).Teacher {
		err = refusal.New(refusal.NotYours)
	}
	if err == nil {
		err = s.Store.SetBlind(c.Request.Context(), n.ID, ask.Blind)
	}
	done(c, err)
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
	n, kept, people, err := s.read(c)
	if err == nil && n.TeacherID != visitor(c).Teacher {
		err = refusal.New(refusal.NotYours)
	}
	var all []assess.Judged
	if err == nil {
		all, err = s.Store.Judgements(c.Request.Context(), n.ID)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Letters{Letters: []assess.Back{}}
	for _, p := range people {
		reply.Letters = append(reply.Letters, backTo(n, kept, all, p.ID))
	}
	c.JSON(http.StatusOK, reply)
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

// levelsFile writes students by frames with levels and comments of the lesson in the path, as
// far as the one who asks may see them.
func (s *server) levelsFile(c *gin.Context) {
	n, kept, _, err := s.read(c)
	var all []assess.Judged
	if err == nil {
		all, err = s.Store.Judgements(c.Request.Context(), n.ID)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.tableFile(c, n, assess.Levels(kept, all, visitor(c).Teacher))
}

package web

import (
	"context"
	"errors"
	"maps"
	"net/http"
	"slices"
	"time"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
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

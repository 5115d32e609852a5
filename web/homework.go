package web

import (
	"context"
	"errors"
	"net/http"
	"time"

	"alpenglow/core/homework"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// Resume takes a lesson up again that has ended; with Until, in milliseconds since 1970, as homework.
type Resume struct {
	Until  int64 `json:"until,omitempty"`
	Closes bool  `json:"closes,omitempty"`
}

// HomeworkOf says how each student of a lesson stands with its homework; without homework there is none.
type HomeworkOf struct {
	Home     *homework.Homework     `json:"home,omitempty"`
	Students []HomeworkStands       `json:"students"`
	Counts   map[homework.Stand]int `json:"counts"`
}

// HomeworkStands is how one of them stands: on how many frames something of theirs is, when they handed in and until
// when they have time, in milliseconds since 1970.
type HomeworkStands struct {
	Student string         `json:"student"`
	Name    string         `json:"name"`
	Stand   homework.Stand `json:"stand"`
	Frames  int            `json:"frames"`
	Handed  int64          `json:"handed,omitempty"`
	Due     int64          `json:"due"`
}

// resume takes a lesson up again, under its code or, where that is another's by now, under a new one.
func (s *server) resume(c *gin.Context) {
	var ask Resume
	err := readBody(c, &ask)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	switch {
	case err != nil:
	case n.EndedAt == nil:
		err = refusal.New(refusal.LessonRuns)
	case n.Practice:
		err = refusal.New(refusal.NotFound)
	case ask.Until != 0:
		err = homework.Check(ask.Until, time.Now().UnixMilli())
	}
	code := ""
	for tries := 0; err == nil; tries++ {
		_, err = s.Hub.Resume(c.Request.Context(), n.ID, visitor(c).Teacher, code, session.SetHome{Until: ask.Until,
			Closes: ask.Closes})
		const most = 20
		if !errors.Is(err, store.ErrTaken) || tries == most {
			break
		}
		code, err = roster.Code(randomBelow), nil
	}
	done(c, err)
}

// homework says who has handed in and who has not.
func (s *server) homework(c *gin.Context) {
	n, err := s.ownSession(c)
	reply := HomeworkOf{Home: n.State.V.Home, Students: []HomeworkStands{}, Counts: map[homework.Stand]int{}}
	if err == nil && reply.Home != nil {
		err = s.stand(c.Request.Context(), n, &reply)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, reply)
}

// stand adds how each student stands.
func (s *server) stand(ctx context.Context, n store.Session, reply *HomeworkOf) error {
	people, err := s.Store.Participants(ctx, n.ID)
	if err != nil {
		return err
	}
	said, err := s.Store.Voices(ctx, n.ID)
	if err != nil {
		return err
	}
	done, err := s.Store.Activities(ctx, n.ID)
	if err != nil {
		return err
	}
	worked := map[string]map[string]bool{} // frames by student
	for _, a := range done {
		if a.Marks > 0 {
			if worked[a.Author] == nil {
				worked[a.Author] = map[string]bool{}
			}
			worked[a.Author][a.Frame] = true
		}
	}
	now := time.Now().UnixMilli()
	for _, p := range people {
		h := HomeworkStands{Student: p.ID, Name: n.Calls(p), Frames: len(worked[p.ID]), Due: reply.Home.Due(p.ID),
			Handed: reply.Home.In(said.Handed[p.ID])}
		h.Stand = reply.Home.Stand(p.ID, h.Handed, h.Frames > 0, now)
		reply.Counts[h.Stand]++
		reply.Students = append(reply.Students, h)
	}
	return nil
}

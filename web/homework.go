package web

import (
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
		code = roster.Code(randomBelow)
		err = s.Store.Recode(c.Request.Context(), n.ID, code)
	}
	done(c, err)
}

// homework says who has handed in and who has not.
func (s *server) homework(c *gin.Context) {
	n, kept, _, err := s.read(c)
	if err != nil {
		refuse(c, err)
		return
	}
	said, err := s.Store.Voices(c.Request.Context(), n.ID)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := HomeworkOf{Home: n.State.V.Home, Students: []HomeworkStands{}, Counts: map[homework.Stand]int{}}
	if reply.Home != nil {
		now := time.Now().UnixMilli()
		for _, k := range kept.Students {
			h := HomeworkStands{Student: k.ID, Name: k.Name, Frames: k.Worked(), Handed: said.Handed[k.ID],
				Due: reply.Home.Due(k.ID)}
			h.Stand = reply.Home.Stand(k.ID, h.Handed, h.Frames > 0, now)
			reply.Counts[h.Stand]++
			reply.Students = append(reply.Students, h)
		}
	}
	c.JSON(http.StatusOK, reply)
}

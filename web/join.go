package web

import (
	"context"
	"crypto/rand"
	"errors"
	"net/http"
	"slices"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// byCode finds the lesson of a code as typed, and counts wrong codes.
func (s *server) byCode(c *gin.Context, typed string) (store.Session, error) {
	code, err := roster.ReadCode(typed)
	if err != nil {
		return store.Session{}, err
	}
	if !s.codes.mayTry(c.ClientIP(), time.Now()) {
		return store.Session{}, refusal.New(refusal.TooMany)
	}
	found, err := s.Store.SessionByCode(c.Request.Context(), code)
	if errors.Is(err, store.ErrNotFound) {
		s.codes.failed(c.ClientIP(), time.Now())
		return store.Session{}, refusal.New(refusal.CodeUnknown)
	}
	return found, err
}

func (s *server) joinCheck(c *gin.Context) {
	var ask JoinCode
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	found, err := s.byCode(c, ask.Code)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := JoinFound{Title: found.Content.V.Title, ClassName: found.ClassName}
	if found.Listed {
		reply.Names = found.Students.V
	}
	c.JSON(http.StatusOK, reply)
}

// join makes a participant of whoever knows the code, and remembers them by a
// token of their own. Who has a seat in this lesson already keeps it.
func (s *server) join(c *gin.Context) {
	var ask Join
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	found, err := s.byCode(c, ask.Code)
	if err != nil {
		refuse(c, err)
		return
	}
	if p := visitor(c).Participant; p != nil && p.SessionID == found.ID {
		c.JSON(http.StatusOK, seatIn(found, p.Name))
		return
	}
	name, err := roster.ReadName(ask.Name)
	if err == nil && found.Listed && !slices.Contains(found.Students.V, name) {
		err = refusal.New(refusal.NameNotListed)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	ctx, token := c.Request.Context(), rand.Text()+rand.Text()
	p, err := s.Store.Join(ctx, found.ID, session.MaxParticipants, hashed(token), func(taken []string) string { return roster.Apart(name, taken) })
	if errors.Is(err, store.ErrTaken) {
		err = refusal.New(refusal.SessionFull)
	}
	if err == nil {
		err = s.Hub.Joined(ctx, p)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.setSeat(c, token, seatLasts)
	c.JSON(http.StatusOK, seatIn(found, p.Name))
}

// leave gives up the seat on this device, for the next one who uses it.
func (s *server) leave(c *gin.Context) {
	s.setSeat(c, "", -time.Second)
	c.Status(http.StatusNoContent)
}

func (s *server) setSeat(c *gin.Context, token string, lasts time.Duration) {
	http.SetCookie(c.Writer, &http.Cookie{Name: seatCookie, Value: token, Path: "/", MaxAge: int(lasts.Seconds()),
		HttpOnly: true, SameSite: http.SameSiteLaxMode, Secure: s.secure()})
}

func (s *server) seat(ctx context.Context, p store.Participant) (Seat, error) {
	found, err := s.Store.Session(ctx, p.SessionID)
	return seatIn(found, p.Name), err
}

func seatIn(s store.Session, name string) Seat {
	return Seat{Session: s.ID, Name: name, Title: s.Content.V.Title, Ended: s.State.V.Ended}
}

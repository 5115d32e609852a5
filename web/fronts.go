package web

import (
	"crypto/rand"
	"errors"
	random "math/rand/v2"
	"net/http"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

const (
	frontCookie = "alpenglow_front"
	frontLasts  = 24 * time.Hour
	// frontTries is how many codes are tried until one is free.
	frontTries = 5
)

// newFront makes this device a front screen that waits with a code, unless it is
// one already.
func (s *server) newFront(c *gin.Context) {
	if f := visitor(c).Front; f != nil && (f.SessionID == nil || s.runs(c, *f.SessionID)) {
		c.JSON(http.StatusOK, frontOf(*f))
		return
	}
	done, ok := s.fronting.try(c.ClientIP(), time.Now())
	if !ok {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	done(true)
	token := rand.Text() + rand.Text()
	for range frontTries {
		f, err := s.Store.NewFront(c.Request.Context(), roster.FrontCode(random.IntN), hashed(token))
		switch {
		case err == nil:
			s.setCookie(c, frontCookie, token, frontLasts)
			c.JSON(http.StatusOK, frontOf(f))
			return
		case !errors.Is(err, store.ErrTaken):
			refuse(c, err)
			return
		}
	}
	refuse(c, refusal.New(refusal.TooMany))
}

// runs reports whether a session is there and has not ended.
func (s *server) runs(c *gin.Context, session string) bool {
	n, err := s.Store.Session(c.Request.Context(), session)
	return err == nil && n.EndedAt == nil
}

// frontStands says how it stands with this device as a front screen.
func (s *server) frontStands(c *gin.Context) {
	f := visitor(c).Front
	if f == nil {
		refuse(c, refusal.New(refusal.FrontGone))
		return
	}
	c.JSON(http.StatusOK, frontOf(*f))
}

// showOn lets the front screen that waits with a code show a lesson of the teacher's.
func (s *server) showOn(c *gin.Context) {
	var ask FrontCode
	n, err := s.ownSession(c)
	if err == nil {
		err = readBody(c, &ask)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	code, err := roster.ReadFrontCode(ask.Code)
	if err != nil {
		refuse(c, err)
		return
	}
	done, ok := s.codes.try(c.ClientIP(), time.Now())
	if !ok {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	err = s.Store.ShowOn(c.Request.Context(), code, n.ID)
	done(errors.Is(err, store.ErrNotFound))
	switch {
	case errors.Is(err, store.ErrNotFound):
		err = refusal.New(refusal.FrontUnknown)
	case errors.Is(err, store.ErrTaken):
		err = refusal.New(refusal.TooManyFronts)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// dropFronts takes a lesson off the front screens that show it by a code.
func (s *server) dropFronts(c *gin.Context) {
	n, err := s.ownSession(c)
	if err != nil {
		refuse(c, err)
		return
	}
	devices, err := s.Store.DropFronts(c.Request.Context(), n.ID)
	if err != nil {
		refuse(c, err)
		return
	}
	for _, d := range devices {
		s.Hub.CloseFront(d)
	}
	c.Status(http.StatusNoContent)
}

func frontOf(f store.Front) FrontStands {
	if f.SessionID != nil {
		return FrontStands{Session: *f.SessionID}
	}
	return FrontStands{Code: f.Code}
}

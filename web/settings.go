package web

import (
	"errors"
	"net/http"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// setOwn saves how a teacher likes to work; it is told with who is signed in.
func (s *server) setOwn(c *gin.Context) {
	var ask settings.Own
	err := readBody(c, &ask)
	if err == nil {
		err = ask.Check()
	}
	if err == nil {
		err = s.Store.SetOwn(c.Request.Context(), visitor(c).Account, ask)
	}
	done(c, err)
}

// house gives what administrators decide for all; every teacher may read it.
func (s *server) house(c *gin.Context) {
	house, err := s.Store.House(c.Request.Context())
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, HouseReply{House: house, Signs: settings.Signs})
}

// setHouse saves it.
func (s *server) setHouse(c *gin.Context) {
	var ask settings.House
	err := readBody(c, &ask)
	if err == nil {
		ask, err = ask.Check()
	}
	if err == nil {
		err = s.Store.SetHouse(c.Request.Context(), ask)
	}
	if err == nil {
		s.note(c, DidHouse, "", "")
	}
	done(c, err)
}

// maxGuests is how many may be there at once.
const maxGuests = 400

// beGuest lets somebody begin without an account, if the school does.
func (s *server) beGuest(c *gin.Context) {
	ctx := c.Request.Context()
	if visitor(c).Account != "" {
		c.Status(http.StatusNoContent)
		return
	}
	house, err := s.Store.House(ctx)
	if err == nil && !house.Guests {
		err = refusal.New(refusal.NoGuests)
	}
	if err == nil {
		// Each one counts as a failure does: so many from one address.
		counted, ok := s.guests.try(c.ClientIP(), time.Now())
		if ok {
			counted(true)
		} else {
			err = refusal.New(refusal.TooMany)
		}
	}
	var guest store.Teacher
	if err == nil {
		guest, err = s.Store.AddGuest(ctx, "Guest", time.Now().Add(account.GuestLasts), maxGuests)
	}
	if errors.Is(err, store.ErrFull) {
		err = refusal.New(refusal.TooMany)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.begins(c, guest)
}

// mailbox gives what has come into the made-up mailbox of a demo.
func (s *server) mailbox(c *gin.Context) {
	if s.Mailbox == nil {
		refuse(c, refusal.New(refusal.NotFound))
		return
	}
	c.JSON(http.StatusOK, Mails{s.Mailbox()})
}

package web

import (
	"context"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"net/http"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

const (
	knockCookie = "alpenglow_knock"
	knockLasts  = 4 * time.Hour
)

// knock puts somebody in line at the closed door, until the teacher answers.
func (s *server) knock(c *gin.Context) {
	var ask Join
	found, ok := s.asked(c, &ask, &ask.Code)
	if !ok {
		return
	}
	name, err := nameIn(found, ask.Name)
	if err == nil {
		err = found.State.V.MayKnock(entrant(c, found, name))
	}
	var doubt roster.Doubt
	if err == nil {
		doubt, err = s.doubt(c.Request.Context(), found, name)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	// Who waits already goes on waiting, and who was let through comes in.
	if k, ok := knockOf(c); ok && found.State.V.Knocked(k.id) {
		c.JSON(http.StatusOK, AtDoor{Waiting: true})
		return
	}
	if !s.mayTake(c, found) {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	token := rand.Text() + rand.Text()
	if err := s.Hub.Knock(c.Request.Context(), found.ID, session.Knock{ID: knockID(token), Name: name,
		Doubt: doubt}); err != nil {
		refuse(c, err)
		return
	}
	s.setCookie(c, knockCookie, token, knockLasts)
	c.JSON(http.StatusOK, AtDoor{Waiting: true})
}

// doubt says what speaks against a name of somebody who knocks, for the teacher to see.
func (s *server) doubt(ctx context.Context, found store.Session, name string) (roster.Doubt, error) {
	teacher, err := s.Store.TeacherByID(ctx, found.TeacherID)
	if err != nil {
		return "", err
	}
	people, err := s.Store.Participants(ctx, found.ID)
	if err != nil {
		return "", err
	}
	var taken []string
	for _, p := range people {
		taken = append(taken, p.Name)
	}
	return roster.Doubtful(name, found.Students.V, taken, teacher.Name), nil
}

// wait says what has become of a knock. Who was let through has a seat with it,
// once; their token stays the one they knocked with.
func (s *server) wait(c *gin.Context) {
	var ask JoinCode
	found, ok := s.asked(c, &ask, &ask.Code)
	if !ok {
		return
	}
	k, ok := knockOf(c)
	switch {
	case !ok:
		refuse(c, refusal.New(refusal.NotLetIn))
		return
	case found.State.V.Waits(k.id):
		c.JSON(http.StatusOK, AtDoor{Waiting: true})
		return
	}
	p, err := s.through(c, found, k)
	if err != nil {
		refuse(c, err)
		return
	}
	s.setSeat(c, k.token, seatLasts)
	s.setCookie(c, knockCookie, "", -time.Second)
	seat := seatIn(found, p.Name)
	c.JSON(http.StatusOK, AtDoor{Seat: &seat})
}

// through gives the seat of somebody who was let through. Who asks again, because
// the first answer was lost, has it already.
func (s *server) through(c *gin.Context, found store.Session, k knocked) (store.Participant, error) {
	ctx := c.Request.Context()
	p, err := s.Store.ParticipantByToken(ctx, hashed(k.token))
	switch {
	case err == nil && p.SessionID == found.ID && found.State.V.Seated(p.ID):
		return p, nil
	case err != nil && !errors.Is(err, store.ErrNotFound):
		return p, err
	}
	let, err := s.Hub.Enter(ctx, found.ID, k.id)
	if err != nil {
		return p, err
	}
	return s.enter(ctx, found, entering{name: let.Name, token: k.token, through: true,
		out: wasOut(c, found)})
}

// knocked is a device at the door: its secret, and by what it is known inside.
type knocked struct{ token, id string }

func knockID(token string) string { return hex.EncodeToString(hashed(token)) }

func knockOf(c *gin.Context) (knocked, bool) {
	cookie, err := c.Request.Cookie(knockCookie)
	if err != nil || cookie.Value == "" {
		return knocked{}, false
	}
	return knocked{cookie.Value, knockID(cookie.Value)}, true
}

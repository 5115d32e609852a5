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
	done, ok := s.codes.try(c.ClientIP(), time.Now())
	if !ok {
		return store.Session{}, refusal.New(refusal.TooMany)
	}
	found, err := s.Store.SessionByCode(c.Request.Context(), code)
	done(errors.Is(err, store.ErrNotFound))
	if errors.Is(err, store.ErrNotFound) {
		return store.Session{}, refusal.New(refusal.CodeUnknown)
	}
	return found, err
}

// asked reads a message and finds the lesson of the code in it. Where there is none
// it has refused.
func (s *server) asked(c *gin.Context, ask any, code *string) (store.Session, bool) {
	err := readBody(c, ask)
	var found store.Session
	if err == nil {
		found, err = s.byCode(c, *code)
	}
	if err != nil {
		refuse(c, err)
	}
	return found, err == nil
}

func (s *server) joinCheck(c *gin.Context) {
	var ask JoinCode
	found, ok := s.asked(c, &ask, &ask.Code)
	if !ok {
		return
	}
	reply := JoinFound{Title: found.Title, ClassName: found.ClassName, Language: found.Language}
	if found.State.V.Entry == session.EntryList {
		for _, l := range found.Students.V {
			reply.Names = append(reply.Names, l.Name)
		}
	}
	c.JSON(http.StatusOK, reply)
}

// join makes a participant of whoever knows the code, and remembers them by a
// token of their own. Who has a seat in this lesson already keeps it.
func (s *server) join(c *gin.Context) {
	var ask Join
	found, ok := s.asked(c, &ask, &ask.Code)
	if !ok {
		return
	}
	if p := visitor(c).Participant; p != nil && p.SessionID == found.ID && found.State.V.Seated(p.ID) {
		c.JSON(http.StatusOK, seatIn(found, p.Name))
		return
	}
	name, err := nameIn(found, ask.Name)
	if err == nil {
		err = found.State.V.MayKnock(entrant(c, found, name))
	}
	if err != nil {
		refuse(c, err)
		return
	}
	if !s.mayTake(c, found) {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	token := rand.Text() + rand.Text()
	p, err := s.enter(c.Request.Context(), found, entering{name: name, token: token, out: wasOut(c, found)})
	if err != nil {
		refuse(c, err)
		return
	}
	s.setSeat(c, token, seatLasts)
	c.JSON(http.StatusOK, seatIn(found, p.Name))
}

// nameIn reads the name that somebody gives for a lesson.
func nameIn(found store.Session, typed string) (string, error) {
	name, err := roster.ReadName(typed)
	if err != nil {
		return "", err
	}
	if listed, ok := roster.Find(found.Students.V, name); ok {
		return listed.Name, nil
	}
	return name, nil
}

// wasOut reports whether the device has a seat in the lesson that was taken away.
func wasOut(c *gin.Context, found store.Session) bool {
	p := visitor(c).Participant
	return p != nil && p.SessionID == found.ID && !found.State.V.Seated(p.ID)
}

// entrant says who somebody at the door is, as far as that is known without looking at
// who is in.
func entrant(c *gin.Context, found store.Session, name string) session.Entrant {
	_, listed := roster.Find(found.Students.V, name)
	return session.Entrant{Listed: listed, Out: wasOut(c, found)}
}

// mayTake counts a seat, or a knock: they are given out no faster than a hall comes in.
func (s *server) mayTake(c *gin.Context, found store.Session) bool {
	done, ok := s.seating.try(c.ClientIP()+" "+found.ID, time.Now())
	if ok {
		done(true)
	}
	return ok
}

// entering is who comes into a lesson: by what name, with what their device will hold,
// let through a closed door, with their card, or where a seat was taken away.
type entering struct {
	name, token        string
	student            string // who they are, where that is known by their card
	through, card, out bool
}

// enter makes a participant. Who comes under a name of the list is that student.
func (s *server) enter(ctx context.Context, found store.Session, e entering) (store.Participant, error) {
	teacher, err := s.Store.TeacherByID(ctx, found.TeacherID)
	if err != nil {
		return store.Participant{}, err
	}
	listed, isListed := roster.Find(found.Students.V, e.name)
	if isListed && e.student == "" {
		e.student = listed.ID
	}
	p, err := s.Store.Join(ctx, found.ID, store.Joining{Limit: session.MaxParticipants, Token: hashed(e.token),
		Card: e.card, Student: e.student,
		Decide: func(state session.State, there, taken []string) (string, error) {
			out := e.out || slices.ContainsFunc(there, func(id string) bool { return !state.Seated(id) })
			return roster.Apart(e.name, append(taken, teacher.Name)), state.MayEnter(session.Entrant{
				Listed: isListed, Card: e.card, Through: e.through, Out: out,
				Doubt: roster.Doubtful(e.name, found.Students.V, taken, teacher.Name)})
		}})
	switch {
	case errors.Is(err, store.ErrTaken):
		err = refusal.New(refusal.SessionFull)
	case errors.Is(err, store.ErrNotFound):
		err = refusal.New(refusal.CodeUnknown)
	}
	if err == nil {
		err = s.Hub.Joined(ctx, p)
	}
	return p, err
}

// leave gives up the seat on this device, for the next one who uses it: its
// token opens nothing any more, and what was shown is not kept.
func (s *server) leave(c *gin.Context) {
	if p := visitor(c).Participant; p != nil {
		// Who was sent out cannot come in by another name from the same device.
		if found, err := s.Store.Session(c.Request.Context(), p.SessionID); err == nil && wasOut(c, found) &&
			!found.State.V.Ended {
			refuse(c, refusal.New(refusal.SentOut))
			return
		}
		cookie, err := c.Request.Cookie(seatCookie)
		if err == nil {
			err = s.Store.Leave(c.Request.Context(), hashed(cookie.Value))
		}
		if err != nil {
			refuse(c, err)
			return
		}
		s.Hub.CloseSeat(p.ID)
	}
	c.Header("Clear-Site-Data", `"cache"`)
	s.setSeat(c, "", -time.Second)
	c.Status(http.StatusNoContent)
}

func (s *server) setSeat(c *gin.Context, token string, lasts time.Duration) {
	s.setCookie(c, seatCookie, token, lasts)
}

func (s *server) setCookie(c *gin.Context, name, value string, lasts time.Duration) {
	http.SetCookie(c.Writer, &http.Cookie{Name: name, Value: value, Path: "/", MaxAge: int(lasts.Seconds()),
		HttpOnly: true, SameSite: http.SameSiteLaxMode, Secure: s.secure()})
}

func (s *server) seat(ctx context.Context, p store.Participant) (Seat, error) {
	found, err := s.Store.Session(ctx, p.SessionID)
	return seatIn(found, p.Name), err
}

func seatIn(s store.Session, name string) Seat {
	return Seat{Session: s.ID, Name: name, Title: s.Title, Ended: s.State.V.Ended, Language: s.Language}
}

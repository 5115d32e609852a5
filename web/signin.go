package web

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/alexedwards/argon2id"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"
	"github.com/mileusna/useragent"
)

func newLogins(c Config) *scs.SessionManager {
	m := scs.New()
	m.Store = store.Logins{Store: c.Store}
	m.HashTokenInStore = true
	m.Lifetime = 12 * time.Hour
	m.Cookie.Name = "alpenglow_teacher"
	m.Cookie.HttpOnly = true
	m.Cookie.SameSite = http.SameSiteLaxMode
	m.Cookie.Secure = c.secure()
	return m
}

// secure says whether cookies are for HTTPS alone.
func (c Config) secure() bool { return c.PublicURL != nil && c.PublicURL.Scheme == "https" }

// HashPassword hashes a password with argon2id.
func HashPassword(password string) (string, error) {
	return argon2id.CreateHash(password, argon2id.DefaultParams)
}

// hashWithin is how long a sign-in waits at most for its turn to be hashed.
const hashWithin = 5 * time.Second

// nobody is compared against when there is no such account, so that both take as long.
const nobody = "$argon2id$v=19$m=65536,t=1,p=2$c29tZXNhbHRzb21lc2FsdA$8oBvCRjBUZQTnwfRuzfr2wTJd4PEo4x3Vh1M7Fv1ZbU"

func (s *server) signIn(c *gin.Context) {
	var ask SignIn
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	account, ok := s.signIns.try(c.ClientIP()+" "+strings.ToLower(ask.Email), time.Now())
	if !ok {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	wrong := false
	defer func() { account(wrong) }()
	address, ok := s.signing.try(c.ClientIP(), time.Now())
	if !ok {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	defer func() { address(wrong) }()
	ctx := c.Request.Context()
	teacher, err := s.Store.TeacherByEmail(ctx, ask.Email)
	if errors.Is(err, store.ErrNotFound) {
		teacher.Password = nobody
	} else if err != nil {
		refuse(c, err)
		return
	}
	select {
	case s.hashing <- struct{}{}:
	case <-time.After(hashWithin):
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	match, err := argon2id.ComparePasswordAndHash(ask.Password, teacher.Password)
	<-s.hashing
	if err != nil {
		refuse(c, err)
		return
	}
	if !match || teacher.ID == "" || teacher.LeftAt != nil {
		wrong = true
		refuse(c, refusal.New(refusal.SignInWrong))
		return
	}
	if teacher.Second != nil {
		if err := s.checkSecond(ctx, teacher, ask.Code); err != nil {
			r := refusal.Of(err)
			wrong = r != nil && r.Code == refusal.SecondWrong
			refuse(c, err)
			return
		}
	}
	s.begins(c, teacher)
}

// begins signs somebody in on this device and answers with who they are. What they have
// begun here as a guest is theirs.
func (s *server) begins(c *gin.Context, teacher store.Teacher) {
	ctx := c.Request.Context()
	if v := visitor(c); v.Guest && teacher.GoesAt == nil {
		if err := s.Store.HandOver(ctx, v.Account, teacher.ID); err != nil {
			refuse(c, err)
			return
		}
		s.Hub.CloseLogin(v.Login)
	}
	if err := s.logins.RenewToken(ctx); err != nil {
		refuse(c, err)
		return
	}
	s.logins.Put(ctx, teacherKey, teacher.ID)
	token, expiry, err := s.logins.Commit(ctx)
	if err == nil {
		err = s.Store.NoteLogin(ctx, loginName(token), teacher.ID, deviceOf(c.Request.UserAgent()))
		if errors.Is(err, store.ErrNotFound) { // they were made to leave meanwhile
			err = errors.Join(s.logins.Destroy(ctx), refusal.New(refusal.SignInWrong))
		}
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.logins.WriteSessionCookie(ctx, c.Writer, token, expiry)
	me, err := s.meOf(ctx, teacher)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, me)
}

// meOf gives who is signed in, if anybody is, and what they may know about the house.
func (s *server) meOf(ctx context.Context, t store.Teacher) (Me, error) {
	house, err := s.Store.House(ctx)
	me := Me{House: HouseMe{School: house.School, Guests: house.Guests, Mail: s.Mail != nil, Mailbox: s.Mailbox != nil}}
	if t.ID != "" {
		me.Teacher = &TeacherMe{Name: t.Name, Role: t.Role, GoesAt: t.GoesAt, Settings: t.Own(), Scale: house.Scale,
			Held: house.SecondFactor && t.Second == nil && t.GoesAt == nil}
	}
	return me, err
}

// deviceOf says in a few words what somebody signs in with.
func deviceOf(agent string) string {
	ua := useragent.Parse(agent)
	words := strings.Join(
		slices.DeleteFunc([]string{ua.Name, ua.OS, ua.Device}, func(w string) bool { return w == "" }),
		", ",
	)
	return string([]rune(strings.ToValidUTF8(words, ""))[:min(80, len([]rune(strings.ToValidUTF8(words, ""))))])
}

// hash hashes a new password, in turn.
func (s *server) hash(ctx context.Context, password string) (string, error) {
	select {
	case s.hashing <- struct{}{}:
		defer func() { <-s.hashing }()
		return HashPassword(password)
	case <-time.After(hashWithin):
		return "", refusal.New(refusal.TooMany)
	case <-ctx.Done():
		return "", ctx.Err()
	}
}

func (s *server) signOut(c *gin.Context) {
	ctx := c.Request.Context()
	if err := s.logins.Destroy(ctx); err != nil {
		refuse(c, err)
		return
	}
	s.Hub.CloseLogin(visitor(c).Login)
	s.logins.WriteSessionCookie(ctx, c.Writer, "", time.Time{})
	c.Status(http.StatusNoContent)
}

func (s *server) me(c *gin.Context) {
	ctx, v := c.Request.Context(), visitor(c)
	var teacher store.Teacher
	var err error
	if v.Account != "" {
		teacher, err = s.Store.TeacherByID(ctx, v.Account)
		if errors.Is(err, store.ErrNotFound) {
			err = nil
		}
	}
	var me Me
	if err == nil {
		me, err = s.meOf(ctx, teacher)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	if v.Participant != nil {
		seated, err := s.Hub.Seated(ctx, v.Participant.SessionID, v.Participant.ID)
		if err != nil {
			refuse(c, err)
			return
		}
		if !seated {
			c.JSON(http.StatusOK, me)
			return
		}
		seat, err := s.seat(ctx, *v.Participant)
		if err != nil {
			refuse(c, err)
			return
		}
		me.Seat = &seat
	}
	c.JSON(http.StatusOK, me)
}

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
	s.begins(c, teacher)
}

// begins signs somebody in on this device and answers with who they are.
func (s *server) begins(c *gin.Context, teacher store.Teacher) {
	ctx := c.Request.Context()
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
	c.JSON(http.StatusOK, Me{Teacher: meOf(teacher)})
}

func meOf(t store.Teacher) *TeacherMe { return &TeacherMe{Name: t.Name, Role: t.Role} }

// deviceOf says in a few words what somebody signs in with.
func deviceOf(agent string) string {
	ua := useragent.Parse(agent)
	words := strings.Join(slices.DeleteFunc([]string{ua.Name, ua.OS, ua.Device}, func(w string) bool { return w == "" }), ", ")
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
	ctx, v, me := c.Request.Context(), visitor(c), Me{}
	if v.Teacher != "" {
		teacher, err := s.Store.TeacherByID(ctx, v.Teacher)
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			refuse(c, err)
			return
		}
		if err == nil {
			me.Teacher = meOf(teacher)
		}
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

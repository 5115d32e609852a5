package web

import (
	"context"
	"net/http"
	"strings"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/refusal"
	"alpenglow/mail"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// Mailer lets a message be sent soon, and sets its id.
type Mailer interface {
	Add(ctx context.Context, m *store.Mail) error
}

// words gives what a message says about a link.
func (s *server) words(ctx context.Context, link string) (mail.Words, error) {
	house, err := s.Store.House(ctx)
	return mail.Words{School: house.School, Link: link}, err
}

// resetPassword sends a link to a new password to an address, if it is somebody's. It
// answers the same, and as soon, if it is not.
func (s *server) resetPassword(c *gin.Context) {
	var ask ResetPassword
	err := readBody(c, &ask)
	if err == nil && s.Mail == nil {
		err = refusal.New(refusal.NoMail)
	}
	if err == nil {
		ask.Email, err = account.CheckEmail(ask.Email)
	}
	for _, who := range []string{c.ClientIP(), "to " + strings.ToLower(ask.Email)} {
		if err != nil {
			break
		}
		counted, ok := s.resets.try(who, time.Now())
		if !ok {
			err = refusal.New(refusal.TooMany)
			break
		}
		counted(true)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	address := s.publicURL(c)
	// Whether there is an account shows in nothing, not in how long it takes either.
	s.later(func(ctx context.Context) error {
		t, err := s.Store.TeacherByEmail(ctx, ask.Email)
		if err != nil || t.LeftAt != nil {
			return ignoreMissing(err)
		}
		_, err = s.mailed(ctx, address, store.Invitation{Role: t.Role, Teacher: &t.ID, Email: t.Email,
			Expires: time.Now().Add(account.PasswordLasts)})
		return err
	})
	c.Status(http.StatusNoContent)
}

// later does something after the answer, within a minute.
func (s *server) later(work func(ctx context.Context) error) {
	go func() {
		defer func() {
			if r := recover(); r != nil {
				s.panics.Inc()
				s.Log.Error("panic after an answer")
			}
		}()
		ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
		defer cancel()
		if err := work(ctx); err != nil {
			s.Log.Error("after an answer", "error", store.Bare(err))
		}
	}()
}

// mailed stores an invitation and sends its link to its address, if there is mail; it
// gives the link.
func (s *server) mailed(ctx context.Context, address string, i store.Invitation) (string, error) {
	token := newToken()
	link := address + "/invitation#" + token
	if s.Mail != nil && i.Email != "" {
		words, err := s.words(ctx, link)
		if err != nil {
			return "", err
		}
		m, err := s.letterFor(ctx, i, words)
		if err == nil {
			err = s.Mail.Add(ctx, &m)
		}
		if err != nil {
			return "", err
		}
		i.Mail = &m.ID
	}
	return link, s.Store.AddInvitation(ctx, hashed(token), i)
}

// letterFor writes the message, in the language of whom it is for, or of whom it is from.
func (s *server) letterFor(ctx context.Context, i store.Invitation, words mail.Words) (store.Mail, error) {
	of, write := i.MadeBy, mail.Invitation
	if i.Teacher != nil {
		of, write = i.Teacher, mail.NewPassword
	}
	var reader store.Teacher
	if of != nil {
		var err error
		if reader, err = s.Store.TeacherByID(ctx, *of); ignoreMissing(err) != nil {
			return store.Mail{}, err
		}
	}
	return write(i.Email, reader.Own().Language, words), nil
}

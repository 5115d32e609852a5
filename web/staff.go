package web

import (
	"context"
	"crypto/rand"
	"errors"
	"net/http"
	"strings"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/id"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// InvitationPath stores an invitation and gives the path of its link. What the link holds
// stands behind a #: it reaches no server's or proxy's log.
func InvitationPath(ctx context.Context, s *store.Store, i store.Invitation) (string, error) {
	token := rand.Text()
	return "/invitation#" + token, s.AddInvitation(ctx, hashed(token), i)
}

// checkInvitation says what a link is good for.
func (s *server) checkInvitation(c *gin.Context) {
	var ask InvitationToken
	err := readBody(c, &ask)
	var i store.Invitation
	if err == nil {
		i, err = s.invitationOf(c, ask.Token)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	said := Invited{Role: i.Role, Email: i.Email, NewPassword: i.Teacher != nil}
	if i.Name != nil {
		said.Name = *i.Name
	}
	c.JSON(http.StatusOK, said)
}

// invitationOf finds the invitation that a link holds, if it is still good.
func (s *server) invitationOf(c *gin.Context, token string) (store.Invitation, error) {
	done, ok := s.signing.try(c.ClientIP(), time.Now())
	if !ok {
		return store.Invitation{}, refusal.New(refusal.TooMany)
	}
	i, err := s.Store.Invitation(c.Request.Context(), hashed(token))
	done(errors.Is(err, store.ErrNotFound))
	if errors.Is(err, store.ErrNotFound) {
		err = refusal.New(refusal.InvitationGone)
	}
	return i, err
}

// acceptInvitation makes an account, or sets a new password, and signs in.
func (s *server) acceptInvitation(c *gin.Context) {
	var ask Accept
	err := readBody(c, &ask)
	var i store.Invitation
	if err == nil {
		i, err = s.invitationOf(c, ask.Token)
	}
	var t store.Teacher
	if err == nil {
		t, err = s.invited(c.Request.Context(), i, ask)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	ctx := c.Request.Context()
	out, err := s.Store.Accept(ctx, hashed(ask.Token), &t)
	switch {
	case errors.Is(err, store.ErrNotFound): // somebody else was quicker
		err = refusal.New(refusal.InvitationGone)
	case errors.Is(err, store.ErrTaken):
		err = refusal.New(refusal.EmailTaken)
	case err == nil:
		s.closeAll(out)
		t, err = s.Store.TeacherByID(ctx, t.ID)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.begins(c, t)
}

// invited gives the account that an invitation makes of what somebody has typed.
func (s *server) invited(ctx context.Context, i store.Invitation, ask Accept) (store.Teacher, error) {
	t := store.Teacher{Email: i.Email, Name: ask.Name}
	var err error
	if i.Teacher == nil {
		if t.Name, err = account.CheckName(ask.Name); err != nil {
			return t, err
		}
		if i.Email == "" {
			if t.Email, err = account.CheckEmail(ask.Email); err != nil {
				return t, err
			}
		}
	} else {
		t.Name = *i.Name
	}
	if err := account.CheckPassword(false, ask.Password, t.Name, t.Email); err != nil {
		return t, err
	}
	t.Password, err = s.hash(ctx, ask.Password)
	return t, err
}

// closeAll ends the connections of sign-ins that are over.
func (s *server) closeAll(logins []string) {
	for _, login := range logins {
		s.Hub.CloseLogin(login)
	}
}

func (s *server) staff(c *gin.Context) {
	all, err := s.Store.Staff(c.Request.Context())
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Staff{People: []StaffPerson{}}
	for _, t := range all {
		reply.People = append(reply.People, StaffPerson{ID: t.ID, Name: t.Name, Email: t.Email, Role: t.Role,
			Left: t.LeftAt != nil, Me: t.ID == visitor(c).Teacher})
	}
	c.JSON(http.StatusOK, reply)
}

// invite makes a link to an account.
func (s *server) invite(c *gin.Context) {
	var ask Invite
	err := readBody(c, &ask)
	if err == nil {
		err = account.CheckRole(ask.Role)
	}
	if err == nil && strings.TrimSpace(ask.Email) != "" {
		ask.Email, err = account.CheckEmail(ask.Email)
		if err == nil {
			if _, there := s.Store.TeacherByEmail(c.Request.Context(), ask.Email); there == nil {
				err = refusal.New(refusal.EmailTaken)
			}
		}
	}
	if err != nil {
		refuse(c, err)
		return
	}
	me := visitor(c).Teacher
	s.linkFor(c, store.Invitation{Role: ask.Role, Email: strings.TrimSpace(ask.Email), MadeBy: &me,
		Expires: time.Now().Add(account.InviteLasts)})
}

func (s *server) linkFor(c *gin.Context, i store.Invitation) {
	path, err := InvitationPath(c.Request.Context(), s.Store, i)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, InviteLink{Link: s.publicURL(c) + path, Expires: i.Expires})
}

// newPassword makes a link by which somebody of the staff chooses a new password.
func (s *server) newPassword(c *gin.Context) {
	t, err := s.person(c)
	if err != nil {
		refuse(c, err)
		return
	}
	me := visitor(c).Teacher
	s.linkFor(c, store.Invitation{Role: t.Role, Teacher: &t.ID, MadeBy: &me, Expires: time.Now().Add(account.PasswordLasts)})
}

// person finds the account in the path.
func (s *server) person(c *gin.Context) (store.Teacher, error) {
	if !id.IsUUID(c.Param("id")) {
		return store.Teacher{}, refusal.New(refusal.NotFound)
	}
	t, err := s.Store.TeacherByID(c.Request.Context(), c.Param("id"))
	return t, missing(err)
}

// setStanding changes somebody's role, or lets them leave or come back.
func (s *server) setStanding(c *gin.Context) {
	var ask SetStanding
	t, err := s.person(c)
	if err == nil {
		err = readBody(c, &ask)
	}
	if err == nil && ask.Role != nil {
		err = account.CheckRole(*ask.Role)
	}
	var out []string
	if err == nil {
		out, err = s.Store.SetStanding(c.Request.Context(), t.ID, store.Standing{Role: ask.Role, Left: ask.Left})
	}
	if errors.Is(err, store.ErrLast) {
		err = refusal.New(refusal.LastOfAdmins)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	s.closeAll(out)
	c.Status(http.StatusNoContent)
}

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
	token := newToken()
	return "/invitation#" + token, s.AddInvitation(ctx, hashed(token), i)
}

// newToken makes what a link holds: 130 bits that nobody can foresee.
func newToken() string { return rand.Text() }

// ignoreMissing takes that there is no such row for no error.
func ignoreMissing(err error) error {
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	return err
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
		did := DidAccept
		if i.Teacher != nil {
			did = DidPassword
		}
		s.noteBy(c, t.ID, did, t.ID, "")
	}
	if err == nil && t.Second != nil { // a link alone does not do
		err = refusal.New(refusal.SecondNeeded)
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
	second := false
	if i.Teacher != nil {
		there, err := s.Store.TeacherByID(ctx, *i.Teacher)
		if err != nil {
			return t, missing(err)
		}
		second = there.Second != nil
	}
	if err := account.CheckPassword(second, ask.Password, t.Name, t.Email); err != nil {
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
	var invited []store.Invited
	if err == nil {
		invited, err = s.Store.Invitations(c.Request.Context())
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Staff{People: []StaffPerson{}, Invitations: []InvitedItem{}}
	for _, t := range all {
		reply.People = append(reply.People, StaffPerson{ID: t.ID, Name: t.Name, Email: t.Email, Role: t.Role,
			Left: t.LeftAt != nil, Me: t.ID == visitor(c).Teacher, Second: t.Second != nil})
	}
	for _, i := range invited {
		item := InvitedItem{ID: i.ID, Email: i.Email, Role: i.Role, Expires: i.Expires, Mailed: i.Mail != nil,
			Sent: i.SentAt != nil, Again: i.NextAt}
		if i.Problem != nil {
			item.Problem = *i.Problem
		}
		reply.Invitations = append(reply.Invitations, item)
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
	s.linkFor(c, DidInvite, "", store.Invitation{Role: ask.Role, Email: strings.TrimSpace(ask.Email), MadeBy: &me,
		Expires: time.Now().Add(account.InviteLasts)})
}

// linkFor makes a link, sends it if it has an address and there is mail, and notes it.
func (s *server) linkFor(c *gin.Context, did Did, about string, i store.Invitation) {
	link, err := s.mailed(c.Request.Context(), s.publicURL(c), i)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := InviteLink{Link: link, Expires: i.Expires}
	if s.Mail != nil {
		reply.Mailed = i.Email
	}
	s.note(c, did, about, "")
	c.JSON(http.StatusCreated, reply)
}

// withdraw makes an invitation good no more.
func (s *server) withdraw(c *gin.Context) {
	err := about(c, nil)
	if err == nil {
		err = s.Store.Withdraw(c.Request.Context(), c.Param("id"))
	}
	if err == nil {
		s.note(c, DidWithdraw, "", "")
	}
	done(c, err)
}

// handOver gives all that somebody who has left has made to a colleague.
func (s *server) handOver(c *gin.Context) {
	var ask HandOver
	from, err := s.person(c)
	if err == nil {
		err = readBody(c, &ask)
	}
	switch {
	case err != nil:
	case !id.IsUUID(ask.To) || ask.To == from.ID:
		err = refusal.New(refusal.NotFound)
	case from.LeftAt == nil:
		err = refusal.New(refusal.StillThere)
	}
	ctx := c.Request.Context()
	var to store.Teacher
	if err == nil {
		to, err = s.Store.TeacherByID(ctx, ask.To)
	}
	if err == nil && (to.LeftAt != nil || to.GoesAt != nil) {
		err = refusal.New(refusal.NotFound)
	}
	if err == nil {
		err = s.Store.HandOver(ctx, from.ID, to.ID)
	}
	if err == nil {
		s.note(c, DidHandOver, from.ID, "")
	}
	done(c, err)
}

// newPassword makes a link by which somebody of the staff chooses a new password.
func (s *server) newPassword(c *gin.Context) {
	t, err := s.person(c)
	if err != nil {
		refuse(c, err)
		return
	}
	me := visitor(c).Teacher
	s.linkFor(c, DidLink, t.ID, store.Invitation{Role: t.Role, Teacher: &t.ID, Email: t.Email, MadeBy: &me,
		Expires: time.Now().Add(account.PasswordLasts)})
}

// person finds the account in the path.
func (s *server) person(c *gin.Context) (store.Teacher, error) {
	if !id.IsUUID(c.Param("id")) {
		return store.Teacher{}, refusal.New(refusal.NotFound)
	}
	t, err := s.Store.TeacherByID(c.Request.Context(), c.Param("id"))
	if err == nil && t.GoesAt != nil { // a guest is nobody of the staff
		err = store.ErrNotFound
	}
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
	if err == nil {
		s.closeAll(out)
		if ask.Role != nil {
			s.note(c, DidRole, t.ID, string(*ask.Role))
		}
		if ask.Left != nil {
			s.note(c, map[bool]Did{true: DidLeave, false: DidComeBack}[*ask.Left], t.ID, "")
		}
	}
	done(c, err)
}

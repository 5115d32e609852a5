package web

import (
	"net/http"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/id"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/alexedwards/argon2id"
	"github.com/gin-gonic/gin"
)

// account gives one's own account with its sign-ins.
func (s *server) account(c *gin.Context) {
	ctx, v := c.Request.Context(), visitor(c)
	me, err := s.Store.TeacherByID(ctx, v.Account)
	if err != nil {
		refuse(c, missing(err))
		return
	}
	logins, err := s.Store.SignIns(ctx, v.Account)
	if err != nil {
		refuse(c, err)
		return
	}
	left, err := s.Store.RecoveryLeft(ctx, v.Account)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Account{Name: me.Name, Email: me.Email, Role: me.Role, SignIns: []SignedIn{}, Second: me.Second != nil,
		RecoveryLeft: left}
	for _, l := range logins {
		reply.SignIns = append(
			reply.SignIns,
			SignedIn{ID: l.ID, Device: l.Device, MadeAt: l.MadeAt, Here: l.Token == v.Login},
		)
	}
	c.JSON(http.StatusOK, reply)
}

// setAccount changes one's name.
func (s *server) setAccount(c *gin.Context) {
	var ask SetAccount
	err := readBody(c, &ask)
	if err == nil {
		ask.Name, err = account.CheckName(ask.Name)
	}
	if err == nil {
		err = s.Store.SetName(c.Request.Context(), visitor(c).Account, ask.Name)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// setPassword changes one's password, and ends all other sign-ins.
func (s *server) setPassword(c *gin.Context) {
	var ask SetPassword
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	ctx, v := c.Request.Context(), visitor(c)
	me, err := s.itIsMe(c, ask.Now)
	if err == nil {
		err = account.CheckPassword(me.Second != nil, ask.Next, me.Name, me.Email)
	}
	hash := ""
	if err == nil {
		hash, err = s.hash(ctx, ask.Next)
	}
	var out []string
	if err == nil {
		out, err = s.Store.SetPassword(ctx, v.Account, hash, v.Login)
	}
	if err == nil {
		s.closeAll(out)
		s.note(c, DidPassword, v.Account, "")
	}
	done(c, err)
}

// itIsMe gives one's own account to whoever knows its password now: before something is
// changed by which one signs in. It is guessed as little as at the door.
func (s *server) itIsMe(c *gin.Context, password string) (store.Teacher, error) {
	id := visitor(c).Account
	me, err := s.Store.TeacherByID(c.Request.Context(), id)
	if err != nil {
		return me, missing(err)
	}
	tried, ok := s.signIns.try("account "+id, time.Now())
	if !ok {
		return me, refusal.New(refusal.TooMany)
	}
	var match bool
	select {
	case s.hashing <- struct{}{}:
		match, err = argon2id.ComparePasswordAndHash(password, me.Password)
		<-s.hashing
	case <-time.After(hashWithin):
		err = refusal.New(refusal.TooMany)
	}
	tried(err == nil && !match)
	if err == nil && !match {
		err = refusal.New(refusal.PasswordWrong)
	}
	return me, err
}

// endSignIn signs out elsewhere.
func (s *server) endSignIn(c *gin.Context) {
	if !id.IsUUID(c.Param("id")) {
		refuse(c, refusal.New(refusal.NotFound))
		return
	}
	login, err := s.Store.EndSignIn(c.Request.Context(), visitor(c).Account, c.Param("id"))
	if err != nil {
		refuse(c, missing(err))
		return
	}
	s.Hub.CloseLogin(login)
	c.Status(http.StatusNoContent)
}

// endOtherSignIns signs out everywhere else.
func (s *server) endOtherSignIns(c *gin.Context) {
	v := visitor(c)
	out, err := s.Store.SignOutOthers(c.Request.Context(), v.Account, v.Login)
	if err != nil {
		refuse(c, err)
		return
	}
	s.closeAll(out)
	c.Status(http.StatusNoContent)
}

package web

import (
	"net/http"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/id"
	"alpenglow/core/refusal"

	"github.com/alexedwards/argon2id"
	"github.com/gin-gonic/gin"
)

// account gives one's own account with its sign-ins.
func (s *server) account(c *gin.Context) {
	ctx, v := c.Request.Context(), visitor(c)
	me, err := s.Store.TeacherByID(ctx, v.Teacher)
	if err != nil {
		refuse(c, missing(err))
		return
	}
	logins, err := s.Store.SignIns(ctx, v.Teacher)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Account{Name: me.Name, Email: me.Email, Role: me.Role, SignIns: []SignedIn{}}
	for _, l := range logins {
		reply.SignIns = append(reply.SignIns, SignedIn{ID: l.ID, Device: l.Device, MadeAt: l.MadeAt, Here: l.Token == v.Login})
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
		err = s.Store.SetName(c.Request.Context(), visitor(c).Teacher, ask.Name)
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
	me, err := s.Store.TeacherByID(ctx, v.Teacher)
	if err != nil {
		refuse(c, missing(err))
		return
	}
	// Guessed here as little as at the door.
	done, ok := s.signIns.try("account "+v.Teacher, time.Now())
	if !ok {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	var match bool
	select {
	case s.hashing <- struct{}{}:
		match, err = argon2id.ComparePasswordAndHash(ask.Now, me.Password)
		<-s.hashing
	case <-time.After(hashWithin):
		err = refusal.New(refusal.TooMany)
	}
	done(err == nil && !match)
	if err == nil && !match {
		err = refusal.New(refusal.PasswordWrong)
	}
	if err == nil {
		err = account.CheckPassword(false, ask.Next, me.Name, me.Email)
	}
	hash := ""
	if err == nil {
		hash, err = s.hash(ctx, ask.Next)
	}
	var out []string
	if err == nil {
		out, err = s.Store.SetPassword(ctx, v.Teacher, hash, v.Login)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.closeAll(out)
	c.Status(http.StatusNoContent)
}

// endSignIn signs out elsewhere.
func (s *server) endSignIn(c *gin.Context) {
	if !id.IsUUID(c.Param("id")) {
		refuse(c, refusal.New(refusal.NotFound))
		return
	}
	login, err := s.Store.EndSignIn(c.Request.Context(), visitor(c).Teacher, c.Param("id"))
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
	out, err := s.Store.SignOutOthers(c.Request.Context(), v.Teacher, v.Login)
	if err != nil {
		refuse(c, err)
		return
	}
	s.closeAll(out)
	c.Status(http.StatusNoContent)
}

package web

import (
	"context"
	"crypto/rand"
	"encoding/base32"
	"fmt"
	"net/http"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
	"rsc.io/qr"
)

// checkSecond reports what is wrong with a code that is typed beside the password: a
// time code, or one of the recovery codes, which is used up.
func (s *server) checkSecond(ctx context.Context, t store.Teacher, typed string) error {
	if typed == "" {
		return refusal.New(refusal.SecondNeeded)
	}
	counted, ok := s.seconds.try(t.ID, time.Now())
	if !ok {
		return refusal.New(refusal.TooMany)
	}
	right := false
	var err error
	defer func() { counted(err == nil && !right) }()
	if step, ok := account.CheckCode(*t.Second, typed, time.Now(), t.SecondStep); ok {
		right, err = s.Store.TakeStep(ctx, t.ID, step)
	} else if code := account.ReadRecovery(typed); code != "" {
		right, err = s.Store.TakeRecovery(ctx, t.ID, hashed(code))
	}
	if err == nil && !right {
		return refusal.New(refusal.SecondWrong)
	}
	return err
}

// newSecond makes a secret; it counts once it was confirmed.
func (s *server) newSecond(c *gin.Context) {
	ctx := c.Request.Context()
	me, err := s.Store.TeacherByID(ctx, visitor(c).Account)
	house := ""
	if err == nil {
		h, failed := s.Store.House(ctx)
		house, err = h.School, failed
	}
	if house == "" {
		house = "Alpenglow"
	}
	secret, address := "", ""
	if err == nil {
		secret, address, err = account.NewSecret(house, me.Email, rand.Reader)
	}
	var code *qr.Code
	if err == nil {
		code, err = qr.Encode(address, qr.M)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	path, units := qrPath(code)
	c.JSON(http.StatusOK, NewSecond{Secret: secret, Address: address, QR: path, Units: units})
}

// setSecond confirms a secret, and answers with the recovery codes, or takes the second
// factor away. All other sign-ins end.
func (s *server) setSecond(c *gin.Context) {
	var ask SetSecond
	err := readBody(c, &ask)
	var me store.Teacher
	if err == nil {
		me, err = s.itIsMe(c, ask.Now)
	}
	if err == nil && ask.Secret == "" {
		err = s.dropSecond(c, me, ask.Code)
		done(c, err)
		return
	}
	var step int64
	if err == nil {
		step, err = confirmed(ask)
	}
	reply, hashes := Recovery{}, [][]byte{}
	for range account.RecoveryCodes {
		code := account.Recovery(randomBelow)
		reply.Codes, hashes = append(reply.Codes, code[:5]+"-"+code[5:]), append(hashes, hashed(code))
	}
	if err == nil {
		err = s.changeSecond(c, me.ID, &ask.Secret, step, hashes)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, reply)
}

// confirmed reports whether a secret is one, and the code made with it.
func confirmed(ask SetSecond) (step int64, err error) {
	const least = 20 // bytes
	secret, bad := base32.StdEncoding.WithPadding(base32.NoPadding).DecodeString(ask.Secret)
	if bad != nil || len(secret) < least || len(secret) > 2*least {
		return 0, refusal.About(refusal.Malformed, "secret")
	}
	step, ok := account.CheckCode(ask.Secret, ask.Code, time.Now(), 0)
	if !ok {
		return 0, refusal.New(refusal.SecondWrong)
	}
	return step, nil
}

// dropSecond takes one's second factor away, unless the school asks for one.
func (s *server) dropSecond(c *gin.Context, me store.Teacher, code string) error {
	ctx := c.Request.Context()
	house, err := s.Store.House(ctx)
	if err == nil && house.SecondFactor {
		err = refusal.New(refusal.SecondMissing)
	}
	if err == nil && me.Second != nil {
		done, ok := s.signIns.try("account "+me.ID, time.Now())
		if !ok {
			return refusal.New(refusal.TooMany)
		}
		err = s.checkSecond(ctx, me, code)
		done(err != nil)
	}
	if err != nil {
		return err
	}
	return s.changeSecond(c, me.ID, nil, 0, nil)
}

// changeSecond stores it, ends the other sign-ins, and notes it.
func (s *server) changeSecond(c *gin.Context, teacher string, secret *string, step int64, recovery [][]byte) error {
	out, err := s.Store.SetSecond(c.Request.Context(), teacher, secret, step, recovery, visitor(c).Login)
	if err != nil {
		return fmt.Errorf("second factor: %w", err)
	}
	s.closeAll(out)
	if secret != nil {
		s.note(c, DidSecondOn, teacher, "")
	} else {
		s.note(c, DidSecondOff, teacher, "")
	}
	return nil
}

// takeSecond lets an administrator take a second factor away that somebody has lost.
func (s *server) takeSecond(c *gin.Context) {
	t, err := s.person(c)
	if err == nil {
		err = s.changeSecond(c, t.ID, nil, 0, nil)
	}
	done(c, err)
}

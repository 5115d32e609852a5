package web

import (
	"fmt"
	"net"
	"net/http"
	"os"
	"strings"

	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
	"rsc.io/qr"
)

// link gives the address that brings a student straight to a lesson.
func (s *server) link(c *gin.Context, code string) string { return s.publicURL(c) + "/join/" + code }

// publicURL is the address of the house as people type it. Without a setting it
// is the one by which it was asked, if that is this machine's, and else the one
// that the request came to: anybody can send any name.
func (s *server) publicURL(c *gin.Context) string {
	if s.PublicURL != nil {
		return s.PublicURL.String()
	}
	host := c.Request.Host
	if !ownHost(host) {
		if to, ok := c.Request.Context().Value(http.LocalAddrContextKey).(net.Addr); ok {
			host = to.String()
		}
	}
	return "http://" + host
}

// ownHost reports whether a host, with or without a port, is this machine.
func ownHost(host string) bool {
	name := host
	if bare, _, err := net.SplitHostPort(host); err == nil {
		name = bare
	}
	if name == "localhost" {
		return true
	}
	if own, err := os.Hostname(); err == nil &&
		(strings.EqualFold(name, own) || strings.EqualFold(name, own+".local")) {
		return true
	}
	addresses, err := net.InterfaceAddrs()
	if err != nil {
		return false
	}
	ip := net.ParseIP(name)
	for _, a := range addresses {
		if network, ok := a.(*net.IPNet); ok && ip != nil && network.IP.Equal(ip) {
			return true
		}
	}
	return false
}

// inviting gives the session in the path to its teacher, and to a front screen that
// shows it, as long as people may join.
func (s *server) inviting(c *gin.Context) (store.Session, error) {
	v := visitor(c)
	if v.Front == nil || v.Front.SessionID == nil || *v.Front.SessionID != c.Param("id") {
		switch {
		case v.Account == "":
			return store.Session{}, refusal.New(refusal.SignInNeeded)
		case v.Teacher == "":
			return store.Session{}, refusal.New(refusal.SecondMissing)
		}
		return s.ownSession(c)
	}
	n, err := s.Store.Session(c.Request.Context(), *v.Front.SessionID)
	if err == nil && (n.State.V.Closed || n.State.V.Ended) {
		err = refusal.New(refusal.DoorClosed)
	}
	return n, err
}

func (s *server) invitation(c *gin.Context) {
	n, err := s.inviting(c)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, Invitation{Code: n.Code, Link: s.link(c, n.Code)})
}

// qr draws the link as a QR code, dark on light.
func (s *server) qr(c *gin.Context) {
	n, err := s.inviting(c)
	if err != nil {
		refuse(c, err)
		return
	}
	code, err := qr.Encode(s.link(c, n.Code), qr.M)
	if err != nil {
		refuse(c, fmt.Errorf("draw QR code: %w", err))
		return
	}
	path, side := qrPath(code)
	c.Data(http.StatusOK, "image/svg+xml", fmt.Appendf(nil,
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" shape-rendering="crispEdges">`+
			`<path fill="#fff" d="M0 0h%dv%dH0z"/><path d="%s"/></svg>`,
		side, side, side, side, path))
}

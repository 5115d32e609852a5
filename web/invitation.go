package web

import (
	"fmt"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"
	"rsc.io/qr"
)

// link gives the address that brings a student straight to a lesson.
func (s *server) link(c *gin.Context, code string) string { return s.publicURL(c) + "/join/" + code }

// publicURL is the address of the house as people type it.
func (s *server) publicURL(c *gin.Context) string {
	if s.PublicURL != nil {
		return s.PublicURL.String()
	}
	return "http://" + c.Request.Host
}

func (s *server) invitation(c *gin.Context) {
	n, err := s.ownSession(c)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, Invitation{Code: n.Code, Link: s.link(c, n.Code)})
}

// qr draws the link as a QR code, dark on light with the quiet zone of four
// modules that ISO/IEC 18004 asks for (from memory).
func (s *server) qr(c *gin.Context) {
	n, err := s.ownSession(c)
	if err != nil {
		refuse(c, err)
		return
	}
	code, err := qr.Encode(s.link(c, n.Code), qr.M)
	if err != nil {
		refuse(c, fmt.Errorf("draw QR code: %w", err))
		return
	}
	const quiet = 4
	var path strings.Builder
	for y := range code.Size {
		for x := range code.Size {
			if code.Black(x, y) {
				fmt.Fprintf(&path, "M%d %dh1v1h-1z", x+quiet, y+quiet)
			}
		}
	}
	side := code.Size + 2*quiet
	c.Data(http.StatusOK, "image/svg+xml", fmt.Appendf(nil,
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" shape-rendering="crispEdges"><path fill="#fff" d="M0 0h%dv%dH0z"/><path d="%s"/></svg>`,
		side, side, side, side, path.String()))
}

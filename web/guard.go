package web

import (
	"crypto/sha256"
	"encoding/base64"
	"encoding/json"
	"errors"
	"io"
	"log/slog"
	"net/http"
	"net/url"
	"runtime/debug"
	"strings"
	"time"
	"unicode/utf8"

	"alpenglow/core/account"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/strict"
	"alpenglow/live"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// refuse answers with a problem (RFC 9457) and ends the request.
func refuse(c *gin.Context, err error) {
	if refusal.Of(err) == nil {
		slog.Error("request failed", "route", c.FullPath(), "error", err)
	}
	p := live.ProblemOf(err)
	text, _ := json.Marshal(p)
	c.Abort()
	c.Data(p.Status, "application/problem+json", text)
}

// logged writes one line for each request: route and outcome, never what
// somebody wrote, nor the path, which may hold a join code.
func (s *server) logged(c *gin.Context) {
	start := time.Now()
	c.Next()
	route := c.FullPath()
	if route == "" {
		route = "interface"
	}
	s.Log.Info("request", "method", c.Request.Method, "route", route, "status", c.Writer.Status(), "ms",
		time.Since(start).Milliseconds())
}

// recovered keeps a bug in one request from ending the server.
func (s *server) recovered(c *gin.Context) {
	defer func() {
		if r := recover(); r != nil {
			if r == http.ErrAbortHandler {
				panic(r)
			}
			s.panics.Inc()
			s.Log.Error("panic", "route", c.FullPath(), "cause", live.Cause(r), "stack", string(debug.Stack()))
			refuse(c, refusal.New(refusal.Failed))
		}
	}()
	c.Next()
}

// securityHeaders keep everything that is not ours out of the page. Styles may
// stand inline, since accessible dialogs set them; scripts may not.
func (s *server) securityHeaders(c *gin.Context) {
	h := c.Writer.Header()
	if s.secure() {
		h.Set("Strict-Transport-Security", "max-age=31536000; includeSubDomains")
	}
	h.Set("X-Content-Type-Options", "nosniff")
	// What a page brings along answers to the page's policy, and is many small files.
	if strings.HasPrefix(c.Request.URL.Path, "/assets/") {
		c.Next()
		return
	}
	// Trying a board shows the student's page inside our own, and nowhere else.
	framed := "'none'"
	switch at := c.Request.URL.Path; {
	case strings.HasPrefix(at, "/try/"):
		framed = "'self'"
	case strings.HasPrefix(at, "/look/"):
		// What a link shows may be a piece of a page of those sites that the administrators name.
		if house, err := s.Store.House(c.Request.Context()); err == nil && len(house.Hosts) > 0 {
			framed = strings.Join(house.Hosts, " ")
		}
	}
	h.Set(
		"Content-Security-Policy",
		"default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "+
			"media-src 'self' blob:; font-src 'self'; connect-src 'self'; frame-src 'self'; "+
			"base-uri 'none'; form-action 'self'; frame-ancestors "+framed,
	)
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Permissions-Policy", "geolocation=(), microphone=(self), camera=(self)")
	c.Next()
}

func noStore(c *gin.Context) {
	c.Header("Cache-Control", "no-store")
	c.Next()
}

// sameOrigin says whether a request comes from our own pages: from the public
// address exactly, where there is one. The simulated class of a rehearsal comes
// from this machine with that origin.
func (s *server) sameOrigin(r *http.Request) bool {
	origin, err := url.Parse(r.Header.Get("Origin"))
	if err != nil || origin.Host == "" {
		return false
	}
	if s.PublicURL != nil {
		return origin.Scheme == s.PublicURL.Scheme && origin.Host == s.PublicURL.Host
	}
	return origin.Host == r.Host
}

// keepable refuses addresses with characters that nothing here has, before
// anything is looked up by them.
func keepable(c *gin.Context) {
	address, err := url.PathUnescape(c.Request.URL.Path + "?" + c.Request.URL.RawQuery)
	query, bad := url.ParseQuery(c.Request.URL.RawQuery)
	if err != nil || bad != nil || !utf8.ValidString(address) || strings.ContainsRune(address, 0) {
		refuse(c, refusal.New(refusal.Malformed))
		return
	}
	for _, values := range query {
		for _, v := range values {
			if !utf8.ValidString(v) || strings.ContainsRune(v, 0) {
				refuse(c, refusal.New(refusal.Malformed))
				return
			}
		}
	}
	c.Next()
}

// fromHere refuses what changes something, and realtime connections, unless
// it comes from our own pages.
func (s *server) fromHere(c *gin.Context) {
	reads := c.Request.Method == http.MethodGet || c.Request.Method == http.MethodHead
	if !reads && !s.sameOrigin(c.Request) {
		refuse(c, refusal.New(refusal.WrongOrigin))
		return
	}
	c.Next()
}

func limitBody(c *gin.Context) {
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, live.MaxMessage)
	c.Next()
}

// forGuests is how large a file may be that a guest brings in.
const forGuests = 2 << 20

func littleForGuests(c *gin.Context) {
	if !visitor(c).Guest {
		return
	}
	if c.Request.ContentLength < 0 || c.Request.ContentLength > forGuests {
		refuse(c, refusal.About(refusal.FileHuge, "at most %d bytes without an account", forGuests))
		return
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, forGuests)
}

// fewForGuests bounds how much a guest makes: what they leave goes after a day, but until
// then it takes room.
func (s *server) fewForGuests(c *gin.Context) {
	v := visitor(c)
	if !v.Guest {
		return
	}
	made, ok := s.makes.try(v.Account, time.Now())
	if !ok {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	made(true)
}

// lists is how many spreadsheets and registers are read at once.
const lists = 2

// inTurn lets a few at once go on; the others wait for as long as they like.
func (s *server) inTurn(c *gin.Context) {
	select {
	case s.reading <- struct{}{}:
		defer func() { <-s.reading }()
		c.Next()
	case <-c.Request.Context().Done():
		c.Abort()
	}
}

// limitList lets a list of names be larger than other messages.
func limitList(c *gin.Context) {
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 2*roster.MaxListed)
	c.Next()
}

// readBody reads a JSON body; fields that do not belong there are refused.
func readBody(c *gin.Context, into any) error {
	text, err := io.ReadAll(c.Request.Body)
	if tooLarge := new(http.MaxBytesError); errors.As(err, &tooLarge) {
		return refusal.About(refusal.TooLarge, "at most %d bytes", tooLarge.Limit)
	}
	if err != nil {
		return refusal.New(refusal.Malformed)
	}
	return strict.Read(text, into)
}

const (
	seatCookie = "alpenglow_seat"
	seatLasts  = 30 * 24 * time.Hour
	teacherKey = "teacher"
)

// whoIsCalling reads the cookies and notes whose they are.
func (s *server) whoIsCalling(c *gin.Context) {
	ctx := c.Request.Context()
	token := ""
	if cookie, err := c.Request.Cookie(s.logins.Cookie.Name); err == nil {
		token = cookie.Value
	}
	ctx, err := s.logins.Load(ctx, token)
	if err != nil {
		refuse(c, err)
		return
	}
	v := live.Visitor{Address: c.ClientIP()}
	if id := s.logins.GetString(ctx, teacherKey); id != "" {
		may, err := s.Store.SignInOf(ctx, id)
		switch {
		case err == nil:
			v.Account, v.Guest, v.Login, v.LoginEnds = id, may.Guest, loginName(token), s.logins.Deadline(ctx)
			if !may.Held {
				v.Teacher = id
			}
		case !errors.Is(err, store.ErrNotFound):
			refuse(c, err)
			return
		}
	}
	if cookie, err := c.Request.Cookie(seatCookie); err == nil {
		p, err := s.Store.ParticipantByToken(ctx, hashed(cookie.Value))
		if err == nil {
			v.Participant = &p
		} else if !errors.Is(err, store.ErrNotFound) {
			refuse(c, err)
			return
		}
	}
	if cookie, err := c.Request.Cookie(frontCookie); err == nil {
		f, err := s.Store.FrontByToken(ctx, hashed(cookie.Value))
		if err == nil {
			v.Front = &f
		} else if !errors.Is(err, store.ErrNotFound) {
			refuse(c, err)
			return
		}
	}
	c.Set(visitorKey, v)
	c.Request = c.Request.WithContext(live.WithVisitor(ctx, v))
	c.Next()
}

const visitorKey = "visitor"

func visitor(c *gin.Context) live.Visitor {
	v, _ := c.MustGet(visitorKey).(live.Visitor)
	return v
}

// needAdministrator lets those go on who look after the accounts.
func (s *server) needAdministrator(c *gin.Context) {
	me, err := s.Store.TeacherByID(c.Request.Context(), visitor(c).Teacher)
	if err == nil && (me.Role != account.Administrator || me.LeftAt != nil) {
		err = refusal.New(refusal.NotForYou)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.Next()
}

// needAccount lets those go on who are signed in, needTeacher those who may teach,
// and needMember those who have an account of the school.
func needAccount(c *gin.Context) {
	switch v := visitor(c); {
	case v.Account == "":
		refuse(c, refusal.New(refusal.SignInNeeded))
	case v.Guest:
		refuse(c, refusal.New(refusal.NotForGuests))
	}
}

func needTeacher(c *gin.Context) {
	switch v := visitor(c); {
	case v.Account == "":
		refuse(c, refusal.New(refusal.SignInNeeded))
	case v.Teacher == "":
		refuse(c, refusal.New(refusal.SecondMissing))
	}
}

func needMember(c *gin.Context) {
	if needTeacher(c); !c.IsAborted() && visitor(c).Guest {
		refuse(c, refusal.New(refusal.NotForGuests))
	}
}

// loginName is by what a teacher's sign-in is known inside the house: the hash of its
// token, as scs stores it.
func loginName(token string) string { return base64.RawURLEncoding.EncodeToString(hashed(token)) }

// hashed is how tokens are stored: whoever reads the database cannot use them.
func hashed(token string) []byte {
	sum := sha256.Sum256([]byte(token))
	return sum[:]
}

package web

import (
	"errors"
	"io"
	"net/http"
	"sync"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/picture"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
	"golang.org/x/time/rate"
)

const (
	picturesPerSession = 1000
	pictureEvery       = 3 // seconds, for one person
	picturesAtOnce     = 10
	// readingAtOnce is how many pictures the server holds in memory while they
	// come in, and readWithin how long one may take.
	readingAtOnce = 16
	readWithin    = time.Minute
)

// uploads holds back what would take too much memory or room.
type uploads struct {
	// decoding is held while a picture is decoded: one of 40 megapixels takes
	// 160 MB.
	decoding chan struct{}
	reading  chan struct{}
	mu       sync.Mutex
	limits   map[string]*rate.Limiter // by author
}

func newUploads() *uploads {
	return &uploads{decoding: make(chan struct{}, 1), reading: make(chan struct{}, readingAtOnce), limits: map[string]*rate.Limiter{}}
}

func (u *uploads) allow(author string) bool {
	u.mu.Lock()
	defer u.mu.Unlock()
	limit, ok := u.limits[author]
	if !ok {
		if len(u.limits) > 10_000 {
			clear(u.limits)
		}
		limit = rate.NewLimiter(1.0/pictureEvery, picturesAtOnce)
		u.limits[author] = limit
	}
	return limit.Allow()
}

// mayBring says who brings a picture into a session: its teacher, or one of
// its students while it runs.
func (s *server) mayBring(c *gin.Context) (session, author string, err error) {
	v, id := visitor(c), c.Param("id")
	if v.Participant != nil && v.Participant.SessionID == id {
		kept, err := s.Store.Session(c.Request.Context(), id)
		if err == nil && kept.EndedAt != nil {
			err = refusal.New(refusal.Ended)
		}
		return id, v.Participant.ID, err
	}
	if v.Teacher == "" {
		return "", "", refusal.New(refusal.JoinNeeded)
	}
	kept, err := s.ownSession(c)
	return kept.ID, lesson.Staff, err
}

// addPicture takes a picture as the body of the request, whatever it calls itself.
func (s *server) addPicture(c *gin.Context) {
	session, author, err := s.mayBring(c)
	if err != nil {
		refuse(c, err)
		return
	}
	if !s.uploads.allow(session + " " + author) {
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	select {
	case s.uploads.reading <- struct{}{}:
		defer func() { <-s.uploads.reading }()
	default:
		refuse(c, refusal.New(refusal.TooMany))
		return
	}
	if err := http.NewResponseController(c.Writer).SetReadDeadline(time.Now().Add(readWithin)); err != nil {
		refuse(c, err)
		return
	}
	data, err := io.ReadAll(http.MaxBytesReader(c.Writer, c.Request.Body, picture.MaxBytes))
	if tooLarge := new(http.MaxBytesError); errors.As(err, &tooLarge) {
		refuse(c, refusal.New(refusal.PictureHuge))
		return
	}
	if err != nil {
		refuse(c, refusal.New(refusal.Malformed)) // stopped on the way
		return
	}
	select {
	case s.uploads.decoding <- struct{}{}:
	case <-c.Request.Context().Done():
		return
	}
	read, err := picture.Read(data)
	<-s.uploads.decoding
	if err != nil {
		refuse(c, err)
		return
	}
	id, full, err := s.Store.AddPicture(c.Request.Context(), session, author, read, picturesPerSession)
	if full {
		err = refusal.New(refusal.SheetFull)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, Uploaded{Picture: id, Width: read.Width, Height: read.Height})
}

// picture gives a picture to those who are in its session.
func (s *server) picture(c *gin.Context) {
	id := c.Param("id")
	if uuid.Validate(id) != nil {
		refuse(c, refusal.New(refusal.NoSuchPicture))
		return
	}
	kept, err := s.Store.Picture(c.Request.Context(), id)
	v := visitor(c)
	student := v.Participant != nil && v.Participant.SessionID == kept.Session
	teacher := v.Teacher != "" && v.Teacher == kept.TeacherID
	if errors.Is(err, store.ErrNotFound) || err == nil && !student && !teacher {
		err = refusal.New(refusal.NoSuchPicture)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	// A picture never changes; its id is as good as its content.
	c.Header("Cache-Control", "private, max-age=31536000, immutable")
	c.Data(http.StatusOK, kept.Type, kept.Data)
}

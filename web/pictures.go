package web

import (
	"bytes"
	"context"
	"errors"
	"net/http"
	"path"
	"strings"
	"sync"
	"time"
	"unicode"

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

// readPicture takes a picture as the body of the request, whatever it calls
// itself. by is whose rate it counts for.
func (s *server) readPicture(c *gin.Context, by string) (picture.Picture, error) {
	if !s.uploads.allow(by) {
		return picture.Picture{}, refusal.New(refusal.TooMany)
	}
	data, err := s.uploads.body(c, picture.MaxBytes, refusal.PictureHuge)
	if err != nil {
		return picture.Picture{}, err
	}
	return s.uploads.decode(c.Request.Context(), data)
}

// body reads what somebody brings, within a limit of bytes and of time.
func (u *uploads) body(c *gin.Context, limit int64, tooLarge refusal.Code) ([]byte, error) {
	select {
	case u.reading <- struct{}{}:
		defer func() { <-u.reading }()
	default:
		return nil, refusal.New(refusal.TooMany)
	}
	if c.Request.ContentLength > limit {
		return nil, refusal.New(tooLarge)
	}
	if err := http.NewResponseController(c.Writer).SetReadDeadline(time.Now().Add(readWithin)); err != nil {
		return nil, err
	}
	var data bytes.Buffer
	data.Grow(int(max(0, c.Request.ContentLength)) + bytes.MinRead) // as announced, so that it is not copied as it grows
	_, err := data.ReadFrom(http.MaxBytesReader(c.Writer, c.Request.Body, limit))
	if over := new(http.MaxBytesError); errors.As(err, &over) {
		return nil, refusal.New(tooLarge)
	}
	if err != nil {
		return nil, refusal.New(refusal.Malformed) // stopped on the way
	}
	return data.Bytes(), nil
}

// decode reads a picture when no other is being read.
func (u *uploads) decode(ctx context.Context, data []byte) (picture.Picture, error) {
	select {
	case u.decoding <- struct{}{}:
		defer func() { <-u.decoding }()
	case <-ctx.Done():
		return picture.Picture{}, ctx.Err()
	}
	return picture.Read(data)
}

// addPicture takes a picture into a session.
func (s *server) addPicture(c *gin.Context) {
	session, author, err := s.mayBring(c)
	if err != nil {
		refuse(c, err)
		return
	}
	read, err := s.readPicture(c, session+" "+author)
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

// keepPicture takes a picture into the school's library, for boards.
func (s *server) keepPicture(c *gin.Context) {
	me := visitor(c).Teacher
	read, err := s.readPicture(c, me)
	if err != nil {
		refuse(c, err)
		return
	}
	id, err := s.Store.KeepPicture(c.Request.Context(), me, pictureName(c.Query("name")), read)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, Uploaded{Picture: id, Width: read.Width, Height: read.Height})
}

// pictureName is by what words a picture is found again: its file's name.
func pictureName(file string) string {
	name := strings.Join(strings.FieldsFunc(strings.TrimSuffix(file, path.Ext(file)), func(r rune) bool {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r)
	}), " ")
	if letters := []rune(name); len(letters) > 80 {
		name = string(letters[:80])
	}
	return name
}

// picture gives a picture to those who may see it. A name with covers after the
// id is that picture with the covered parts blank; see lesson.Frame.ForClass.
func (s *server) picture(c *gin.Context) {
	name := strings.Split(c.Param("id"), ".")
	if name[0] == "intake" && len(name) == 3 && visitor(c).Teacher != "" {
		s.intakePicture(c, name)
		return
	}
	if uuid.Validate(name[0]) != nil {
		refuse(c, refusal.New(refusal.NoSuchPicture))
		return
	}
	kept, err := s.Store.Picture(c.Request.Context(), name[0])
	if err == nil {
		kept, err = s.seen(c, kept, name)
	}
	if errors.Is(err, store.ErrNotFound) {
		err = refusal.New(refusal.NoSuchPicture)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	// A picture never changes; its name is as good as its content.
	c.Header("Cache-Control", "private, max-age=31536000, immutable")
	c.Data(http.StatusOK, kept.Type, kept.Data)
}

// seen gives a picture as the visitor may see it. Teachers see those of their
// own sessions and of the library; students those that people have brought
// into their session, and those that the frames they have been on show.
func (s *server) seen(c *gin.Context, kept store.KeptPicture, name []string) (store.KeptPicture, error) {
	v, none := visitor(c), refusal.New(refusal.NoSuchPicture)
	if v.Teacher != "" && (kept.Session == nil || kept.TeacherID != nil && *kept.TeacherID == v.Teacher) {
		if len(name) == 1 {
			return kept, nil
		}
		// Trying a board shows what a class would see.
		frame, err := s.Store.Frame(c.Request.Context(), v.Teacher, name[1])
		if err != nil {
			return kept, err
		}
		return s.blanked(c.Request.Context(), kept, name, frame)
	}
	if v.Participant == nil {
		return kept, none
	}
	if kept.Session != nil {
		if *kept.Session != v.Participant.SessionID || len(name) > 1 {
			return kept, none
		}
		return kept, nil
	}
	frame, ok, err := s.Hub.ShownPicture(c.Request.Context(), v.Participant.SessionID, strings.Join(name, "."))
	if err != nil || !ok {
		return kept, errors.Join(err, none)
	}
	if len(name) == 1 {
		return kept, nil
	}
	return s.blanked(c.Request.Context(), kept, name, frame)
}

// blanked paints over the parts of a picture that covers hide.
func (s *server) blanked(ctx context.Context, kept store.KeptPicture, name []string, frame lesson.Frame) (store.KeptPicture, error) {
	var parts []picture.Part
	for _, b := range frame.BlankIn(name[0], name[2:], kept.Width, kept.Height) {
		parts = append(parts, picture.Part(b))
	}
	select {
	case s.uploads.decoding <- struct{}{}:
		defer func() { <-s.uploads.decoding }()
	case <-ctx.Done():
		return kept, ctx.Err()
	}
	blank, err := picture.Blank(picture.Picture{Type: kept.Type, Data: kept.Data, Width: kept.Width, Height: kept.Height}, parts)
	kept.Type, kept.Data = blank.Type, blank.Data
	return kept, err
}

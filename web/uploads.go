package web

import (
	"context"
	"errors"
	"io"
	"net/http"
	"os"
	"sync"
	"time"

	"alpenglow/apart"
	"alpenglow/core/picture"
	"alpenglow/core/refusal"

	"github.com/gin-gonic/gin"
	"golang.org/x/time/rate"
)

// Files that come in lie on the disk, never in memory, until they are read. How
// many come in at the same time from one seat, from one lesson or teacher, and
// from all; how
// long one may take: a while, and then as long as it comes at a least speed.
const (
	comingFromSeat = 3
	comingFromOne  = 12
	comingFromAll  = 200
	grace          = 10 * time.Second
	leastSpeed     = 32 << 10 // bytes a second
)

// How many pictures one person may bring, how many are decoded at the same time
// of one lesson or teacher and in all, and how many pictures a second of
// decoding counts for.
const (
	pictureEvery    = 3 // seconds, for one person
	picturesAtOnce  = 10
	decodingOfOne   = 1
	decodingOfAll   = 3
	chargePerSecond = 3
)

// uploads holds back what would take too much time, memory or room.
type uploads struct {
	reader   apart.Reader
	decoding chan struct{}

	mu     sync.Mutex
	coming map[string]int // files, by lesson, teacher or seat; "" for all
	turns  map[string]chan struct{}
	limits map[string]*rate.Limiter // by person
}

func newUploads(reader apart.Reader) *uploads {
	return &uploads{reader: reader, decoding: make(chan struct{}, decodingOfAll), coming: map[string]int{},
		turns:  map[string]chan struct{}{},
		limits: map[string]*rate.Limiter{}}
}

// limit gives the rate of a person.
func (u *uploads) limit(author string) *rate.Limiter {
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
	return limit
}

// enter takes a place for a file of a lesson or teacher.
func (u *uploads) enter(whose, by string) (leave func(), ok bool) {
	u.mu.Lock()
	defer u.mu.Unlock()
	seat := by != whose
	if u.coming[whose] >= comingFromOne || u.coming[""] >= comingFromAll || seat && u.coming[by] >= comingFromSeat {
		return nil, false
	}
	of := []string{"", whose}
	if seat {
		of = append(of, by)
	}
	for _, who := range of {
		u.coming[who]++
	}
	return func() {
		u.mu.Lock()
		defer u.mu.Unlock()
		for _, who := range of {
			if u.coming[who]--; u.coming[who] == 0 {
				delete(u.coming, who)
			}
		}
	}, true
}

// receive takes what somebody brings, as a file that is gone when it is closed,
// within a limit of bytes and of time. An empty one is refused.
func (u *uploads) receive(c *gin.Context, whose, by string, limit int64, tooLarge refusal.Code) (*os.File, error) {
	leave, ok := u.enter(whose, by)
	if !ok {
		return nil, refusal.New(refusal.TooMany)
	}
	defer leave()
	if c.Request.ContentLength > limit {
		return nil, refusal.New(tooLarge)
	}
	file, err := os.CreateTemp("", "alpenglow-upload-")
	if err != nil {
		return nil, err
	}
	os.Remove(file.Name()) // it lives as long as it is open
	n, err := io.Copy(file, &steady{body: http.MaxBytesReader(c.Writer, c.Request.Body, limit),
		control: http.NewResponseController(c.Writer), began: time.Now()})
	if err == nil {
		_, err = file.Seek(0, io.SeekStart)
	}
	over := new(http.MaxBytesError)
	switch {
	case errors.As(err, &over):
		err = refusal.New(tooLarge)
	case err != nil:
		err = refusal.New(refusal.Malformed) // stopped on the way
	case n == 0:
		err = refusal.New(refusal.FileEmpty)
	default:
		return file, nil
	}
	file.Close()
	return nil, err
}

// steady reads a body that has to come at a least speed.
type steady struct {
	body    io.Reader
	control *http.ResponseController
	began   time.Time
	read    int64
}

func (s *steady) Read(p []byte) (int, error) {
	until := s.began.Add(grace + time.Duration(s.read)*time.Second/leastSpeed)
	if err := s.control.SetReadDeadline(until); err != nil {
		return 0, err
	}
	n, err := s.body.Read(p[:min(len(p), leastSpeed)])
	s.read += int64(n)
	return n, err
}

// turn waits until no other picture of the same lesson or teacher is decoded, and
// not too many in all.
func (u *uploads) turn(ctx context.Context, whose string) (done func(), err error) {
	u.mu.Lock()
	mine, ok := u.turns[whose]
	if !ok {
		if len(u.turns) > 10_000 {
			clear(u.turns)
		}
		mine = make(chan struct{}, decodingOfOne)
		u.turns[whose] = mine
	}
	u.mu.Unlock()
	select {
	case mine <- struct{}{}:
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	select {
	case u.decoding <- struct{}{}:
	case <-ctx.Done():
		<-mine
		return nil, ctx.Err()
	}
	return func() { <-u.decoding; <-mine }, nil
}

// decode reads a picture of a lesson or teacher in a process of its own. by is
// whose rate it counts for, if anybody's: more, the longer it takes.
func (u *uploads) decode(ctx context.Context, whose, by string, data io.Reader) (picture.Picture, error) {
	done, err := u.turn(ctx, whose)
	if err != nil {
		return picture.Picture{}, err
	}
	defer done()
	began := time.Now()
	read, err := u.reader.Read(ctx, data)
	if took := int(time.Since(began).Seconds() * chargePerSecond); by != "" && took > 0 {
		u.limit(by).ReserveN(time.Now(), min(took, picturesAtOnce))
	}
	return read, err
}

package web

import (
	"bytes"
	"context"
	"crypto/rand"
	"errors"
	"net/http"
	"strconv"
	"strings"
	"sync"
	"time"

	"alpenglow/core/output"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
	"golang.org/x/sync/singleflight"
)

// mostShown is how many pictures a link shows.
const mostShown = 400

// LookLink is a link by which anybody looks at chosen work.
type LookLink struct {
	Word string      `json:"word"`
	Link string      `json:"link"`
	At   time.Time   `json:"at"`
	Wish output.Wish `json:"wish"`
}

// LookLinks are those of a lesson or a board.
type LookLinks struct {
	Looks []LookLink `json:"looks"`
	// Hosts are the sites on whose pages they may be shown.
	Hosts []string `json:"hosts"`
}

// Looked is what a link leads to: a title, and for each picture what it is called.
type Looked struct {
	Title    string   `json:"title"`
	Pictures []string `json:"pictures"`
}

// looksOf lists the teacher's links of the lesson or board in the path.
func (s *server) looksOf(c *gin.Context) {
	var all []store.Look
	err := s.ownOf(c)
	if err == nil {
		all, err = s.Store.Looks(c.Request.Context(), visitor(c).Teacher, c.Param("id"))
	}
	var house settings.House
	if err == nil {
		house, err = s.Store.House(c.Request.Context())
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := LookLinks{Looks: []LookLink{}, Hosts: append([]string{}, house.Hosts...)}
	for _, l := range all {
		reply.Looks = append(reply.Looks, s.lookLink(c, l))
	}
	c.JSON(http.StatusOK, reply)
}

func (s *server) lookLink(c *gin.Context, l store.Look) LookLink {
	return LookLink{Word: l.Word, Link: s.publicURL(c) + "/look/" + l.Word, At: l.At, Wish: l.Wish.V}
}

// ownOf reports whether the lesson or the board in the path is the teacher's.
func (s *server) ownOf(c *gin.Context) error {
	if strings.HasPrefix(c.FullPath(), "/api/boards/") {
		_, err := s.ownBoard(c)
		return err
	}
	_, err := s.ownSession(c)
	return err
}

// addLook makes a link to chosen work, as the class may see it: what is hidden, held or covered does not leave the
// house by a link, nor does what the teacher thinks of the work.
func (s *server) addLook(c *gin.Context) {
	wish, err := readWish(c)
	wish.Form, wish.Judged, wish.AsClass = output.SVG, false, true
	of := c.Param("id")
	l := store.Look{Word: rand.Text(), Teacher: visitor(c).Teacher, At: time.Now()}
	board := strings.HasPrefix(c.FullPath(), "/api/boards/")
	switch {
	case err != nil:
	case wish.What == output.Notes, board && wish.What != output.Board:
		err = refusal.About(refusal.Malformed, "a link shows frames")
	default:
		err = s.ownOf(c)
	}
	if l.Session = &of; board {
		l.Session, l.Board = nil, &of
	}
	l.Wish.V = wish
	if err == nil {
		err = s.Store.AddLook(c.Request.Context(), l)
	}
	if errors.Is(err, store.ErrTaken) {
		err = refusal.About(refusal.TooMany, "at most %d links", store.MaxLooks)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, s.lookLink(c, l))
}

// dropLook takes a link back: from then on it leads nowhere.
func (s *server) dropLook(c *gin.Context) {
	done(c, missing(s.Store.DropLook(c.Request.Context(), visitor(c).Teacher, c.Param("word"))))
}

// looked reads what a link leads to. Its word has 130 bits and is not guessed.
func (s *server) looked(c *gin.Context) (string, output.Source, []output.Leaf, error) {
	ctx := c.Request.Context()
	l, err := s.Store.Look(ctx, c.Param("word"))
	if err != nil {
		return "", output.Source{}, nil, missing(err)
	}
	at, err := s.looking.get(l.Word, func() (lookedAt, error) {
		title, source, err := s.lookedAt(context.WithoutCancel(ctx), l)
		leaves := l.Wish.V.Leaves(source)
		return lookedAt{title, source, leaves[:min(len(leaves), mostShown)], time.Now()}, err
	})
	return at.title, at.source, at.leaves, err
}

// lookedAt is what a link leads to, as it was read at a time.
type lookedAt struct {
	title  string
	source output.Source
	leaves []output.Leaf
	at     time.Time
}

// looking keeps what some links lead to for a moment: a page asks for it picture by picture, and it is read once.
type looking struct {
	reading singleflight.Group
	mu      sync.Mutex
	kept    map[string]lookedAt
}

// How many are kept, and for how long.
const (
	looksKept = 8
	lookLasts = 20 * time.Second
)

func (k *looking) get(word string, read func() (lookedAt, error)) (lookedAt, error) {
	k.mu.Lock()
	known, ok := k.kept[word]
	k.mu.Unlock()
	if ok && time.Since(known.at) < lookLasts {
		return known, nil
	}
	got, err, _ := k.reading.Do(word, func() (any, error) {
		now, err := read()
		if err == nil {
			k.keep(word, now)
		}
		return now, err
	})
	return got.(lookedAt), err
}

// keep takes what was read, in the place of the oldest where there are many.
func (k *looking) keep(word string, now lookedAt) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.kept == nil {
		k.kept = map[string]lookedAt{}
	}
	k.kept[word] = now
	for len(k.kept) > looksKept {
		oldest := word
		for other, l := range k.kept {
			if l.at.Before(k.kept[oldest].at) {
				oldest = other
			}
		}
		delete(k.kept, oldest)
	}
}

func (s *server) lookedAt(ctx context.Context, l store.Look) (string, output.Source, error) {
	if l.Board != nil {
		kept, err := s.Store.Board(ctx, l.Teacher, *l.Board)
		return kept.Outline.Title, output.Source{Board: kept.Board()}, missing(err)
	}
	n, err := s.Store.Session(ctx, *l.Session)
	if err != nil {
		return "", output.Source{}, missing(err)
	}
	source, err := s.sourceOf(ctx, n, l.Teacher, l.Wish.V)
	return n.Title, source, err
}

func (s *server) look(c *gin.Context) {
	title, _, leaves, err := s.looked(c)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Looked{Title: title, Pictures: make([]string, len(leaves))}
	for i, leaf := range leaves {
		reply.Pictures[i] = leaf.Title()
	}
	c.JSON(http.StatusOK, reply)
}

// lookPicture is one of the pictures that a link shows, by its place from 0.
func (s *server) lookPicture(c *gin.Context) {
	_, source, leaves, err := s.looked(c)
	n, wrong := strconv.Atoi(c.Param("n"))
	if err == nil && (wrong != nil || n < 0 || n >= len(leaves)) {
		err = refusal.New(refusal.NotFound)
	}
	var drawn bytes.Buffer
	if err == nil {
		// So many are drawn at once for all who look, however many there are.
		select {
		case s.painting <- struct{}{}:
			defer func() { <-s.painting }()
		case <-c.Request.Context().Done():
			err = c.Request.Context().Err()
		}
	}
	if err == nil {
		err = leaves[n].Painting().SVG(&drawn, s.painted(c.Request.Context(), source.Board))
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox")
	c.Header("Cache-Control", "private, max-age=60")
	c.Data(http.StatusOK, "image/svg+xml", drawn.Bytes())
}

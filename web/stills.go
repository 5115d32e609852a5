package web

import (
	"cmp"
	"errors"
	"net/http"
	"slices"
	"strconv"
	"time"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// sheetsPerPage is how many sheets of a frame are compared at once.
const sheetsPerPage = 12

// Stills are the moments of a lesson that have a name.
type Stills struct {
	Stills []record.Still `json:"stills"`
}

// KeepStill names the moment that it is now.
type KeepStill struct {
	Name string `json:"name"`
}

// TwoMoments is a frame at two moments of a lesson, sheet by sheet; More says that others follow.
type TwoMoments struct {
	Sheets []SheetThen `json:"sheets"`
	More   bool        `json:"more"`
}

// SheetThen is a sheet at both, and what changed between them.
type SheetThen struct {
	Owner   string           `json:"owner"`
	Before  []lesson.Element `json:"before"`
	After   []lesson.Element `json:"after"`
	Between record.Between   `json:"between"`
}

func (s *server) stills(c *gin.Context) {
	n, err := s.ownSession(c)
	reply := Stills{}
	if err == nil {
		reply.Stills, err = s.Store.Stills(c.Request.Context(), n.ID)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, reply)
}

func (s *server) keepStill(c *gin.Context) {
	var ask KeepStill
	err := readBody(c, &ask)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	still := record.Still{At: time.Now().UnixMilli()}
	if err == nil && n.EndedAt != nil {
		err = refusal.New(refusal.Ended)
	}
	if err == nil {
		still.Name, err = lesson.ReadCalled(ask.Name, record.MaxStillName)
	}
	var made uuid.UUID
	if err == nil {
		made, err = uuid.NewV7()
	}
	if err == nil {
		still.ID = made.String()
		err = s.Store.KeepStill(c.Request.Context(), n.ID, still)
	}
	if errors.Is(err, store.ErrTaken) {
		err = refusal.About(refusal.TooMany, "at most %d", record.MaxStills)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, still)
}

func (s *server) dropStill(c *gin.Context) {
	n, err := s.ownSession(c)
	if err == nil && !id.IsUUID(c.Param("still")) {
		err = refusal.New(refusal.NotFound)
	}
	if err == nil {
		err = s.Store.DropStill(c.Request.Context(), n.ID, c.Param("still"))
	}
	done(c, err)
}

// between gives a frame of the lesson in the path at two moments, those sheets first whose owner
// comes first; sheets with nothing at either are left out.
func (s *server) between(c *gin.Context) {
	n, err := s.ownSession(c)
	one, wrong := strconv.ParseInt(c.Query("one"), 10, 64)
	other, wrongToo := strconv.ParseInt(c.Query("other"), 10, 64)
	from, wrongFrom := strconv.Atoi(cmp.Or(c.Query("from"), "0"))
	if err == nil && (wrong != nil || wrongToo != nil || wrongFrom != nil || from < 0) {
		err = refusal.About(refusal.Malformed, "two moments")
	}
	var keys []store.SheetKey
	if err == nil {
		keys, err = s.Store.SheetKeys(c.Request.Context(), n.ID, c.Query("frame"))
	}
	if err == nil && c.Query("frame") == "" {
		err = refusal.New(refusal.NoSuchFrame)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	slices.SortFunc(keys, func(a, b store.SheetKey) int { return cmp.Compare(a.Owner, b.Owner) })
	keys = keys[min(from, len(keys)):]
	reply := TwoMoments{Sheets: []SheetThen{}, More: len(keys) > sheetsPerPage}
	for _, key := range keys[:min(sheetsPerPage, len(keys))] {
		then := SheetThen{Owner: key.Owner}
		then.Before, then.After, err = s.Hub.TwoMoments(c.Request.Context(), n.ID, key.ID, one, other)
		if err != nil {
			refuse(c, err)
			return
		}
		if then.Between = record.Compare(then.Before, then.After); len(then.Before)+len(then.After) > 0 {
			reply.Sheets = append(reply.Sheets, then)
		}
	}
	c.JSON(http.StatusOK, reply)
}

package web

import (
	"bytes"
	"net/http"
	"strings"

	"alpenglow/core/refusal"

	"github.com/gin-gonic/gin"
)

// libraryMost is how many pictures a search shows.
const libraryMost = 60

// library finds pictures that were used before, and drawn illustrations, by
// their words.
func (s *server) library(c *gin.Context) {
	words := strings.Fields(strings.ToLower(c.Query("q")))
	if len(words) > 10 {
		words = words[:10]
	}
	kept, err := s.Store.Library(c.Request.Context(), words, libraryMost)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Library{Pictures: []LibraryItem{}, Found: []LibraryItem{}}
	for _, p := range kept {
		reply.Pictures = append(reply.Pictures, LibraryItem(p))
	}
	if s.Illustrations != nil {
		reply.Found = s.Illustrations.Search(words)
	}
	c.JSON(http.StatusOK, reply)
}

// illustration shows a drawing of the picture search.
func (s *server) illustration(c *gin.Context) {
	drawing, err := s.drawing(c.Param("id"))
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Cache-Control", "private, max-age=86400")
	c.Data(http.StatusOK, "image/svg+xml", drawing)
}

func (s *server) drawing(id string) ([]byte, error) {
	if s.Illustrations != nil {
		if drawing, ok := s.Illustrations.Drawing(id); ok {
			return drawing, nil
		}
	}
	return nil, refusal.New(refusal.NoSuchPicture)
}

// takeIllustration puts a drawing into the library, as a picture like any other.
func (s *server) takeIllustration(c *gin.Context) {
	var ask TakeIllustration
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	drawing, err := s.drawing(ask.ID)
	if err != nil {
		refuse(c, err)
		return
	}
	read, err := s.uploads.decode(c.Request.Context(), visitor(c).Teacher, "", bytes.NewReader(drawing))
	if err != nil {
		refuse(c, err)
		return
	}
	name := pictureName(ask.ID)
	id, err := s.Store.KeepPicture(c.Request.Context(), visitor(c).Teacher, name, read)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, LibraryItem{ID: id, Name: name, Width: read.Width, Height: read.Height})
}

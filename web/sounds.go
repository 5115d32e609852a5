package web

import (
	"io"
	"net/http"

	"alpenglow/core/lesson"
	"alpenglow/core/picture"
	"alpenglow/core/refusal"
	recorded "alpenglow/core/sound"

	"github.com/gin-gonic/gin"
)

// Recorded is a recording that was taken: the id by which a question has it, and how long it is.
type Recorded struct {
	Sound   string  `json:"sound"`
	Seconds float64 `json:"seconds"`
}

// keepSound takes a recording for questions. It is kept with the pictures, and heard by whom a
// picture in its place would be seen.
func (s *server) keepSound(c *gin.Context) {
	me := visitor(c).Teacher
	file, err := s.uploads.receive(c, me, me, recorded.MaxBytes, refusal.SoundLong)
	if err != nil {
		refuse(c, err)
		return
	}
	defer file.Close()
	read, err := recording(file)
	var id string
	if err == nil {
		id, err = s.Store.KeepPicture(
			c.Request.Context(),
			me,
			"",
			picture.Picture{Type: recorded.Type, Data: read.Data},
		)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, Recorded{id, read.Seconds})
}

func recording(file io.Reader) (recorded.Recording, error) {
	data, err := io.ReadAll(file)
	if err != nil {
		return recorded.Recording{}, err
	}
	return recorded.Read(data)
}

// keepVoice takes a recording about somebody's work in the lesson in the path. It is kept with the lesson, and
// heard by its teachers, and by whom it is given back to.
func (s *server) keepVoice(c *gin.Context) {
	n, err := s.ownSession(c)
	if err != nil {
		refuse(c, err)
		return
	}
	file, err := s.uploads.receive(c, n.ID, visitor(c).Teacher, recorded.MaxBytes, refusal.SoundLong)
	if err != nil {
		refuse(c, err)
		return
	}
	defer file.Close()
	read, err := recording(file)
	var id string
	var full bool
	if err == nil {
		kept := picture.Picture{Type: recorded.Type, Data: read.Data}
		id, full, err = s.Store.AddPicture(c.Request.Context(), n.ID, lesson.Staff, kept, picturesPerSession)
	}
	if full {
		err = refusal.New(refusal.SheetFull)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, Recorded{id, read.Seconds})
}

package web

import (
	"io"
	"net/http"

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
	data, err := io.ReadAll(file)
	var read recorded.Recording
	if err == nil {
		read, err = recorded.Read(data)
	}
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

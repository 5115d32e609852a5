package web

import (
	"context"
	"encoding/json"
	"net/http"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/refusal"
	"alpenglow/core/template"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// templates lists the house's templates and the teacher's own.
func (s *server) templates(c *gin.Context) {
	ready, err := s.readyTemplates(c.Request.Context(), visitor(c).Teacher)
	if err != nil {
		refuse(c, err)
		return
	}
	own, err := s.Store.Templates(c.Request.Context(), visitor(c).Teacher)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Templates{Ready: ready, Own: []OwnTemplate{}}
	for _, t := range own {
		reply.Own = append(reply.Own, OwnTemplate{ID: t.ID, Name: t.Name, Frame: t.Frame.V})
	}
	c.JSON(http.StatusOK, reply)
}

// readyTemplates lists the house's templates in the language of the teacher's classes.
func (s *server) readyTemplates(ctx context.Context, me string) ([]template.Template, error) {
	t, err := s.Store.TeacherByID(ctx, me)
	if err != nil {
		return nil, missing(err)
	}
	return template.All(string(t.Own().ForClass()))
}

// addTemplate saves a frame of a board as a template of the teacher's own.
func (s *server) addTemplate(c *gin.Context) {
	var ask NewTemplate
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	name := strings.TrimSpace(ask.Name)
	if name == "" {
		refuse(c, refusal.New(refusal.NameEmpty))
		return
	}
	if err := lesson.CheckTitle(name); err != nil {
		refuse(c, err)
		return
	}
	kept, err := s.ownBoard(c)
	if err != nil {
		refuse(c, err)
		return
	}
	frame, ok := kept.Frames[ask.Frame]
	if !ok {
		refuse(c, refusal.New(refusal.NoSuchFrame))
		return
	}
	id, err := s.Store.AddTemplate(c.Request.Context(), visitor(c).Teacher, name, frame.Settled())
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, OwnTemplate{ID: id, Name: name, Frame: frame.Settled()})
}

func (s *server) removeTemplate(c *gin.Context) {
	err := error(refusal.New(refusal.NotFound))
	if uuid.Validate(c.Param("id")) == nil {
		err = missing(s.Store.RemoveTemplate(c.Request.Context(), visitor(c).Teacher, c.Param("id")))
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// paper draws the paper in the query. A drawing follows from it alone, so
// browsers may keep it.
func (s *server) paper(c *gin.Context) {
	var p paper.Paper
	err := json.Unmarshal([]byte(c.Query("of")), &p)
	if err != nil {
		err = refusal.New(refusal.Malformed)
	} else {
		err = p.Check()
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Cache-Control", "public, max-age=86400")
	c.JSON(http.StatusOK, p.Draw())
}

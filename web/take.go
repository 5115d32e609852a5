package web

import (
	"context"
	"net/http"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/prepare"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// differences lists what was changed in the lesson in the path and is not on the
// board that it began with.
func (s *server) differences(c *gin.Context) {
	n, err := s.ownSession(c)
	if err != nil {
		refuse(c, err)
		return
	}
	ctx := c.Request.Context()
	id, run, err := s.beganWith(ctx, n)
	if err != nil {
		refuse(c, missing(err))
		return
	}
	kept, err := s.Store.Board(ctx, visitor(c).Teacher, id)
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.JSON(http.StatusOK, Differences{Board: id, Differences: prepare.Differences(kept.Board(), run)})
}

// beganWith gives the id of the board that a lesson began with, and the lesson's own.
func (s *server) beganWith(ctx context.Context, n store.Session) (string, lesson.Board, error) {
	id, err := s.Store.BoardOf(ctx, n.ID)
	if err != nil {
		return "", lesson.Board{}, err
	}
	run, err := s.Store.Lesson(ctx, n.ID)
	return id, run, err
}

// takeIntoBoard takes one such difference into that board, as an edit of it.
func (s *server) takeIntoBoard(c *gin.Context) {
	var ask prepare.Difference
	n, err := s.ownSession(c)
	if err == nil {
		err = readBody(c, &ask)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	ctx := c.Request.Context()
	id, run, err := s.beganWith(ctx, n)
	if err == nil {
		err = s.Store.ChangeBoard(ctx, visitor(c).Teacher, id, func(d *store.Draft) error {
			if err := d.Load(ctx, ask.Frame); err != nil {
				return err
			}
			changed, back, err := d.Take(ask, run, prepare.Edit{ID: store.NewID()}, time.Now().UnixMilli())
			if err != nil {
				return err
			}
			return d.Save(ctx, &changed, back)
		})
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.Status(http.StatusNoContent)
}

package web

import (
	"context"
	"errors"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/prepare"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// SetCriteria says by what work on a frame of a lesson is judged, or without a frame the whole lesson.
type SetCriteria struct {
	Frame    string             `json:"frame,omitempty"`
	Criteria []lesson.Criterion `json:"criteria"`
}

// setCriteria changes the grid of a lesson, while it runs or afterwards. What was judged by another one
// keeps its criteria.
func (s *server) setCriteria(c *gin.Context) {
	var ask SetCriteria
	err := readBody(c, &ask)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	if err == nil {
		ctx := c.Request.Context()
		work := func(d *store.Draft) error { return ask.apply(ctx, d) }
		err = s.Store.ChangeLesson(ctx, n.ID, work)
		if errors.Is(err, store.ErrNotFound) {
			_, err = s.Hub.Rework(ctx, n.ID, visitor(c).Teacher, work)
		}
	}
	done(c, missing(err))
}

func (ask SetCriteria) apply(ctx context.Context, d *store.Draft) error {
	edit := prepare.Edit{ID: store.NewID(), Step: prepare.Step{Kind: prepare.KindBoard,
		Board: &prepare.SetBoard{Criteria: &ask.Criteria}}}
	if ask.Frame != "" {
		edit.Step = prepare.Step{Kind: prepare.KindFrame,
			Frame: &prepare.SetFrame{Frame: ask.Frame, Criteria: &ask.Criteria}}
	}
	if err := d.Load(ctx, edit.Needs()...); err != nil {
		return err
	}
	changed, back, err := d.Apply(edit, time.Now().UnixMilli())
	if err != nil {
		return err
	}
	return d.Save(ctx, &changed, back)
}

package web

import (
	"encoding/json"
	"net/http"

	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// takeIntoBoard takes what was changed about a frame in a lesson into the board that
// the lesson was started from, as an edit of it.
func (s *server) takeIntoBoard(c *gin.Context) {
	var ask Take
	n, err := s.ownSession(c)
	if err == nil {
		err = readBody(c, &ask)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	on, err := n.State.V.On(n.Content.V, ask.Frame)
	if err != nil {
		refuse(c, err)
		return
	}
	set := prepare.SetFrame{Frame: on.ID}
	switch ask.What {
	case TakeWords:
		set.Title, set.Prompt = &on.Title, &on.Prompt
	case TakeLayout:
		set.Layout = &on.Layout
	case TakeUse:
		set.Arrangement, set.Permission, set.Replies = &on.Arrangement, &on.Permission, &on.Replies
	default:
		refuse(c, refusal.New(refusal.Malformed))
		return
	}
	ctx := c.Request.Context()
	board, err := s.Store.BoardOf(ctx, n.ID)
	if err != nil {
		refuse(c, missing(err))
		return
	}
	text, err := json.Marshal(prepare.Edit{ID: store.NewID(), Step: prepare.Step{Kind: prepare.KindFrame, Frame: &set}})
	if err == nil {
		err = s.Store.ChangeBoard(ctx, n.TeacherID, board, func(d *store.Draft) error {
			_, err := applyEdit(ctx, d, text)
			return err
		})
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.Status(http.StatusNoContent)
}

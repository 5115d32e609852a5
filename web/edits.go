package web

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"time"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/template"
	"alpenglow/live"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// editBoard takes edits of the board in the path, in order: each is saved or
// refused by itself. The answer brings what others have changed meanwhile, too.
func (s *server) editBoard(c *gin.Context) {
	var ask Edits
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	if len(ask.Edits) > live.MaxOps {
		refuse(c, refusal.About(refusal.TooMany, "%d edits at once, at most %d", len(ask.Edits), live.MaxOps))
		return
	}
	ctx := c.Request.Context()
	var results []EditResult
	s.change(c, ask.Since, func(d *store.Draft) error {
		results = []EditResult{}
		for _, text := range ask.Edits {
			result, err := applyEdit(ctx, d, text)
			if refusal.Of(err) != nil {
				result = EditResult{Problem: live.ProblemOf(err)}
			} else if err != nil {
				return err
			}
			results = append(results, result)
		}
		return nil
	}, func(reply *EditsReply) { reply.Results = results })
}

// change lets work change the board in the path and answers with all changes
// since a number.
func (s *server) change(c *gin.Context, since int64, work func(d *store.Draft) error, add func(reply *EditsReply)) {
	ctx, me, board := c.Request.Context(), visitor(c).Teacher, c.Param("id")
	if !id.IsUUID(board) {
		refuse(c, refusal.New(refusal.NotFound))
		return
	}
	if work != nil {
		err := s.Store.ChangeBoard(ctx, me, board, work)
		if errors.Is(err, store.ErrNotFound) { // it may be that of a lesson, with the lesson's id
			if _, err = s.ownSession(c); err == nil {
				_, err = s.Hub.Rework(ctx, board, me, work)
			}
		}
		if err != nil {
			refuse(c, missing(err))
			return
		}
	}
	changes, err := s.Store.BoardChanges(ctx, me, board, since)
	if err != nil {
		refuse(c, missing(err))
		return
	}
	reply := EditsReply{Results: []EditResult{}, Changes: changes}
	add(&reply)
	c.JSON(http.StatusOK, reply)
}

func applyEdit(ctx context.Context, d *store.Draft, text json.RawMessage) (EditResult, error) {
	edit, err := prepare.ReadEdit(text)
	if err != nil {
		return EditResult{}, err
	}
	rev, back, done, err := d.Done(ctx, edit.ID)
	if err != nil || done {
		return EditResult{Rev: rev, Back: &back}, err
	}
	if err := d.Load(ctx, edit.Needs()...); err != nil {
		return EditResult{}, err
	}
	changed, back, err := d.Apply(edit, time.Now().UnixMilli())
	if err != nil {
		return EditResult{}, err
	}
	err = d.Save(ctx, &changed, back)
	return EditResult{Rev: changed.Rev, Back: &back}, err
}

// boardChanges gives what others have changed on a board since a number.
func (s *server) boardChanges(c *gin.Context) {
	var ask struct {
		Since int64 `form:"since"`
	}
	if err := c.ShouldBindQuery(&ask); err != nil {
		refuse(c, refusal.New(refusal.Malformed))
		return
	}
	s.change(c, ask.Since, nil, func(*EditsReply) {})
}

// addFrames puts new frames on the board in the path: blank ones, copies of
// others, or what is in a template or was brought in.
func (s *server) addFrames(c *gin.Context) {
	var ask AddFrames
	err := readBody(c, &ask)
	if err == nil && !id.IsV7(ask.ID) {
		err = refusal.New(refusal.BadID)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	ctx := c.Request.Context()
	// What comes from elsewhere is read before the board is held.
	frames, err := s.framesFrom(c, ask.From)
	if err != nil {
		refuse(c, err)
		return
	}
	var result EditResult
	s.change(c, ask.Since, func(d *store.Draft) error {
		rev, back, done, err := d.Done(ctx, ask.ID)
		if err != nil || done {
			result = EditResult{Rev: rev, Back: &back}
			return err
		}
		if ask.From.Double != nil {
			if frames, err = doubled(ctx, d, ask.From.Double.Frames); err != nil {
				return err
			}
		}
		changed, back, err := d.Add(ask.At, frames...)
		if err != nil {
			return err
		}
		changed.Op = ask.ID
		err = d.Save(ctx, &changed, back)
		result = EditResult{Rev: changed.Rev, Back: &back}
		return err
	}, func(reply *EditsReply) { reply.Results = []EditResult{result} })
}

// doubled gives copies of frames of the board itself.
func doubled(ctx context.Context, d *store.Draft, ids []string) ([]lesson.Frame, error) {
	same := map[string]string{}
	for _, o := range d.Outline.Objectives {
		same[o.ID] = o.ID
	}
	if err := d.Load(ctx, ids...); err != nil {
		return nil, err
	}
	var frames []lesson.Frame
	for _, id := range ids {
		f, ok := d.Frames[id]
		if !ok {
			return nil, refusal.New(refusal.NoSuchFrame)
		}
		frames = append(frames, f.Copy(store.NewID, same))
	}
	return frames, nil
}

// framesFrom gives new frames, with ids of their own, from where they are asked
// for; of the board itself, which is not held yet, none.
func (s *server) framesFrom(c *gin.Context, from FrameSource) ([]lesson.Frame, error) {
	ctx, me := c.Request.Context(), visitor(c).Teacher
	var frames []lesson.Frame
	switch {
	case from.Kind == "blank" && from.Blank != nil:
		return []lesson.Frame{blank()}, nil
	case from.Kind == "question" && from.Question != nil:
		return []lesson.Frame{
			template.Question(from.Question.Asked, store.NewID),
		}, nil
	case from.Kind == "double" && from.Double != nil:
		return nil, nil
	case from.Kind == "template" && from.Template != nil:
		f, err := s.template(ctx, me, from.Template.Template)
		if err != nil {
			return nil, err
		}
		return []lesson.Frame{f.Copy(store.NewID, nil)}, nil
	case from.Kind == "board" && from.Board != nil:
		if !id.IsUUID(from.Board.Board) {
			return nil, refusal.New(refusal.NotFound)
		}
		other, err := s.Store.Board(ctx, me, from.Board.Board)
		if err != nil {
			return nil, missing(err)
		}
		for _, id := range from.Board.Frames {
			f, ok := other.Frames[id]
			if !ok {
				return nil, refusal.New(refusal.NoSuchFrame)
			}
			frames = append(frames, f.Copy(store.NewID, nil))
		}
		return frames, nil
	case from.Kind == "intake" && from.Intake != nil:
		return s.fromIntake(ctx, me, *from.Intake)
	}
	return nil, refusal.New(refusal.Malformed)
}

// template finds one of the house's templates or one of the teacher's own.
func (s *server) template(ctx context.Context, me, id string) (lesson.Frame, error) {
	ready, err := s.readyTemplates(ctx, me)
	if err != nil {
		return lesson.Frame{}, err
	}
	for _, t := range ready {
		if t.ID == id {
			return t.Frame, nil
		}
	}
	own, err := s.Store.Templates(ctx, me)
	if err != nil {
		return lesson.Frame{}, err
	}
	for _, t := range own {
		if t.ID == id {
			return t.Frame.V, nil
		}
	}
	return lesson.Frame{}, refusal.New(refusal.NotFound)
}

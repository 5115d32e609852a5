package web

import (
	"context"
	"net/http"

	"alpenglow/core/id"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// mostOver is over how many lessons of a class mistakes are told, the latest ones.
const mostOver = 30

// MistakesOver are the known mistakes of a class's lessons.
type MistakesOver struct {
	Lessons  int               `json:"lessons"`
	Mistakes []record.Mistaken `json:"mistakes"`
}

// compareLessons compares the questions of the lesson in the path with those of another, which the
// teacher leads as well.
func (s *server) compareLessons(c *gin.Context) {
	ctx, other := c.Request.Context(), c.Query("with")
	n, err := s.ownSession(c)
	var there store.Session
	switch {
	case err != nil:
	case !id.IsUUID(other) || other == n.ID:
		err = refusal.New(refusal.NotFound)
	default:
		there, err = s.led(ctx, visitor(c).Teacher, other)
	}
	var here, then record.Record
	if err == nil {
		here, _, err = s.recordOf(ctx, n)
	}
	if err == nil {
		then, _, err = s.recordOf(ctx, there)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, here.Compare(then))
}

// classMistakes lists the known mistakes over the lessons of the class in the path, as far as the
// teacher leads them.
func (s *server) classMistakes(c *gin.Context) {
	lessons, _, err := s.heldLessons(c)
	if err != nil {
		refuse(c, err)
		return
	}
	held := make([]record.Held, len(lessons))
	for i, l := range lessons {
		held[i] = record.Held{ID: l.Session, Title: l.Title, At: l.At, Record: l.Kept}
	}
	c.JSON(http.StatusOK, MistakesOver{len(held), record.MistakesOver(held)})
}

// led gives a session that a teacher leads.
func (s *server) led(ctx context.Context, teacher, session string) (store.Session, error) {
	n, err := s.Store.Session(ctx, session)
	if err == nil && n.TeacherID != teacher {
		var leads bool
		if leads, err = s.Store.Leads(ctx, n.ID, teacher); err == nil && !leads {
			err = store.ErrNotFound
		}
	}
	return n, missing(err)
}

// recordOf gives the record of a session, with who took part.
func (s *server) recordOf(ctx context.Context, n store.Session) (record.Record, []store.Participant, error) {
	return s.recordWith(ctx, n, s.Store.SessionMarks)
}

// recordWith gives the record of a session with some of its marks alone.
func (s *server) recordWith(ctx context.Context, n store.Session,
	read func(ctx context.Context, session string) ([]record.Mark, error)) (record.Record, []store.Participant, error) {
	participants, err := s.Store.Participants(ctx, n.ID)
	if err != nil {
		return record.Record{}, nil, err
	}
	board, err := s.Store.Lesson(ctx, n.ID)
	if err != nil {
		return record.Record{}, nil, err
	}
	marks, err := read(ctx, n.ID)
	if err != nil {
		return record.Record{}, nil, err
	}
	students := make([]record.Student, len(participants))
	for i, p := range participants {
		students[i] = record.Student{ID: p.ID, Name: n.Calls(p)}
	}
	return record.Build(board, students, marks), participants, nil
}

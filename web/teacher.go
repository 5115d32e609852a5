package web

import (
	"context"
	"crypto/rand"
	"errors"
	"math/big"
	"net/http"
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// startSession copies the board into a new session with a code that no other
// live session has.
func (s *server) startSession(c *gin.Context) {
	var ask StartSession
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	n, board, err := s.prepared(c, ask)
	if err == nil {
		err = s.begin(c.Request.Context(), &n, c.Param("id"), board)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, Started{n.ID})
}

// begin stores a new session under a code that no other live one has.
func (s *server) begin(ctx context.Context, n *store.Session, of string, board lesson.Board) error {
	for {
		n.Code = roster.Code(randomBelow)
		if err := s.Store.StartSession(ctx, n, of, board); !errors.Is(err, store.ErrTaken) {
			return err
		}
	}
}

// prepared gives a session of the board in the path, not yet stored, and the board.
func (s *server) prepared(c *gin.Context, ask StartSession) (store.Session, lesson.Board, error) {
	ctx, me := c.Request.Context(), visitor(c).Teacher
	kept, err := s.ownBoard(c)
	if err == nil && kept.Session != nil {
		err = refusal.New(refusal.NotFound) // a lesson is not started from a lesson
	}
	if err != nil {
		return store.Session{}, lesson.Board{}, err
	}
	board := kept.Board()
	n := store.Session{TeacherID: me, Students: store.JSON[[]roster.Listed]{V: []roster.Listed{}}}
	if ask.Class != "" {
		classes, err := s.Store.Classes(ctx, me)
		if err != nil {
			return n, board, err
		}
		at := slices.IndexFunc(classes, func(k store.Class) bool { return k.ID == ask.Class && !k.Archived })
		if at < 0 {
			return n, board, refusal.New(refusal.NoSuchClass)
		}
		n.ClassID, n.ClassName, n.Students.V = &classes[at].ID, classes[at].Name, classes[at].List()
		n.Plan = classes[at].Plan
	}
	teacher, err := s.Store.TeacherByID(ctx, me)
	if err != nil {
		return n, board, missing(err)
	}
	own := teacher.Own()
	n.Language, n.Voices, n.Dark = own.ForClass(), own.Questions, own.DarkFront
	n.State.V, err = session.Start(board, ask.Pace)
	n.State.V.Nameless, n.State.V.Bands = ask.Nameless, &own.Bands
	if w := own.Words; w != nil {
		n.State.V.Holds.Words, n.State.V.Holds.Languages, n.State.V.Holds.Own = true, w.Languages, w.Own
	}
	if ask.Listed && n.ClassID != nil {
		n.State.V.Entry = session.EntryList
	}
	return n, board, err
}

// randomBelow gives a number in 0..n-1 that nobody can foresee.
func randomBelow(n int) int {
	r, err := rand.Int(rand.Reader, big.NewInt(int64(n)))
	if err != nil {
		panic(err) // the system's randomness does not fail
	}
	return int(r.Int64())
}

// endSession ends a lesson from outside, as one that was left open.
func (s *server) endSession(c *gin.Context) {
	n, err := s.ownSession(c)
	if err == nil && n.Practice {
		err = s.end(c.Request.Context(), n.ID)
	} else if err == nil {
		err = s.finish(c.Request.Context(), n.ID)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// finish ends a session; one that has ended is left as it is.
func (s *server) finish(ctx context.Context, sessionID string) error {
	_, err := s.Hub.Command(ctx, sessionID, "", session.Command{Kind: session.KindEnd, End: &session.End{}})
	if r := refusal.Of(err); err != nil && (r == nil || r.Code != refusal.Ended) {
		return err
	}
	return nil
}

// ownSession finds the session in the path if the teacher may lead it.
func (s *server) ownSession(c *gin.Context) (store.Session, error) {
	if !id.IsUUID(c.Param("id")) {
		return store.Session{}, refusal.New(refusal.NotFound)
	}
	return s.led(c.Request.Context(), visitor(c).Teacher, c.Param("id"))
}

// read gives the record of the session in the path, with the session and who took part.
func (s *server) read(c *gin.Context) (store.Session, record.Record, []store.Participant, error) {
	n, err := s.ownSession(c)
	if err != nil {
		return n, record.Record{}, nil, err
	}
	kept, participants, err := s.recordOf(c.Request.Context(), n)
	return n, kept, participants, err
}

// record gives the record of the session in the path; light, without what each student left, which is asked for one by
// one.
func (s *server) record(c *gin.Context) {
	read, light := s.Store.SessionMarks, c.Query("light") != ""
	if light {
		read = s.Store.SessionAnswers
	}
	var kept record.Record
	var people []store.Participant
	n, err := s.ownSession(c)
	if err == nil {
		kept, people, err = s.recordWith(c.Request.Context(), n, read)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	var tied map[string]string
	if len(n.Students.V) > 0 {
		tied = map[string]string{}
		for _, p := range people {
			if p.StudentID != nil {
				tied[p.ID] = *p.StudentID
			}
		}
	}
	for i := range kept.Students {
		if light {
			kept.Students[i].Frames = []record.OnFrame{}
		}
	}
	c.JSON(http.StatusOK, RecordReply{Record: kept, Tied: tied, Days: n.State.V.Days,
		Session: SessionItem{ID: n.ID, Title: n.Title, ClassName: n.ClassName,
			Students: len(kept.Students), StartedAt: n.StartedAt, EndedAt: n.EndedAt}})
}

// recordOfStudent gives what one student left in the session in the path.
func (s *server) recordOfStudent(c *gin.Context) {
	n, err := s.ownSession(c)
	var people []store.Participant
	if err == nil {
		people, err = s.Store.Participants(c.Request.Context(), n.ID)
	}
	var kept record.Record
	if err == nil {
		kept, err = s.recordOfOne(c.Request.Context(), n, people, c.Param("participant"))
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.JSON(http.StatusOK, kept.Students[0])
}

// recordOfFrame gives what each student left on one frame of the session in the path.
func (s *server) recordOfFrame(c *gin.Context) {
	n, err := s.ownSession(c)
	var kept record.Record
	if err == nil {
		kept, _, err = s.recordWith(
			c.Request.Context(),
			n,
			func(ctx context.Context, id string) ([]record.Mark, error) {
				return s.Store.MarksOn(ctx, id, c.Param("frame"))
			},
		)
	}
	at := 0
	if err == nil {
		_, at, err = kept.Board.Frame(c.Param("frame"))
	}
	if err != nil {
		refuse(c, err)
		return
	}
	for i, k := range kept.Students {
		kept.Students[i].Frames = k.Frames[at : at+1]
	}
	c.JSON(http.StatusOK, FrameRecord{kept.Students})
}

func (s *server) recordCSV(c *gin.Context) {
	n, kept, _, err := s.read(c)
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Content-Type", "text/csv; charset=utf-8")
	c.Header("Content-Disposition", `attachment; filename="record-`+n.StartedAt.UTC().Format("2006-01-02")+`.csv"`)
	if err := kept.CSV(c.Writer); err != nil {
		s.Log.Error("write record", "error", err)
	}
}

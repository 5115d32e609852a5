package web

import (
	"cmp"
	"net/http"
	"slices"
	"strconv"
	"time"

	"alpenglow/core/alike"
	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/live"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// covered says who has done how much on which frame of the lesson in the path.
func (s *server) covered(c *gin.Context) (record.Coverage, error) {
	n, kept, _, err := s.read(c)
	if err != nil {
		return record.Coverage{}, err
	}
	said, err := s.Store.Voices(c.Request.Context(), n.ID)
	if err != nil {
		return record.Coverage{}, err
	}
	return kept.Coverage(said.Done), nil
}

func (s *server) coverage(c *gin.Context) {
	covered, err := s.covered(c)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, covered)
}

func (s *server) coverageCSV(c *gin.Context) {
	covered, err := s.covered(c)
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Content-Type", "text/csv; charset=utf-8")
	c.Header("Content-Disposition", `attachment; filename="coverage.csv"`)
	if err := covered.CSV(c.Writer); err != nil {
		s.Log.Error("write coverage", "error", err)
	}
}

// line gives the lesson in the path as a line of time.
func (s *server) line(c *gin.Context) {
	n, err := s.ownSession(c)
	var board lesson.Board
	if err == nil {
		board, err = s.Store.Lesson(c.Request.Context(), n.ID)
	}
	var l record.Line
	day, wrong := strconv.Atoi(cmp.Or(c.Query("day"), "0"))
	if err == nil && wrong != nil {
		err = refusal.About(refusal.Malformed, "a day")
	}
	if err == nil {
		l, err = s.Store.Line(c.Request.Context(), n, board, time.Now().UnixMilli(), day)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, l)
}

// Alike says which notes of a frame say the same, with their words.
type Alike struct {
	Groups []alike.Group `json:"groups"`
	// Agreed and Times are the notes by how many agree with them, and by when they came.
	Agreed []alike.Band `json:"agreed"`
	Times  []alike.Band `json:"times"`
	// Notes are all the notes of students on the frame, in the order in which they came.
	Notes []AlikeNote `json:"notes"`
}

// AlikeNote is a note by a student.
type AlikeNote struct {
	ID     string      `json:"id"`
	Author string      `json:"author"`
	Text   string      `json:"text"`
	Tint   lesson.Tint `json:"tint"`
	Column string      `json:"column,omitempty"`
}

func (s *server) alike(c *gin.Context) {
	_, _, reply, err := s.compared(c)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, reply)
}

// compared compares the notes of a frame of the lesson in the path.
func (s *server) compared(c *gin.Context) (store.Session, lesson.Board, Alike, error) {
	reply := Alike{Groups: []alike.Group{}, Notes: []AlikeNote{}}
	n, err := s.ownSession(c)
	if err != nil {
		return n, lesson.Board{}, reply, err
	}
	board, err := s.Store.Lesson(c.Request.Context(), n.ID)
	if err != nil {
		return n, board, reply, err
	}
	marks, err := s.Store.SessionMarks(c.Request.Context(), n.ID)
	if err != nil {
		return n, board, reply, err
	}
	var texts []alike.Text
	var counted []alike.Counted
	slices.SortStableFunc(marks, func(a, b record.Mark) int { return cmp.Compare(a.At, b.At) })
	for _, m := range marks {
		if m.Frame != c.Query("frame") || m.Note == nil || !m.OnFrame() || m.Author == lesson.Staff {
			continue
		}
		reply.Notes = append(reply.Notes, AlikeNote{m.ID, m.Author, m.Note.Text, m.Note.Tint, m.Note.Column})
		counted = append(counted, alike.Counted{ID: m.ID, Agreed: len(m.Agreed), At: m.At})
		texts = append(texts, alike.Text{ID: m.ID, Words: m.Note.Text})
	}
	if len(texts) > mostAlike {
		return n, board, reply, refusal.About(refusal.TooMany, "at most %d notes are compared", mostAlike)
	}
	if groups := alike.Groups(texts, string(n.Language)); groups != nil {
		reply.Groups = groups
	}
	reply.Agreed, reply.Times = alike.ByAgreement(counted), alike.ByTime(counted)
	return n, board, reply, nil
}

// Varied lists whose work to go through so that each kind of idea is seen once.
type Varied struct {
	Owners []string `json:"owners"`
}

// mostVaried is how many stops are offered so.
const mostVaried = 12

func (s *server) varied(c *gin.Context) {
	n, board, reply, err := s.compared(c)
	var frame lesson.Frame
	if err == nil {
		frame, _, err = board.Frame(c.Query("frame"))
	}
	if err != nil {
		refuse(c, err)
		return
	}
	texts, owners := []string{}, map[string]string{}
	for _, note := range reply.Notes {
		owner := sheet.Actor{ID: note.Author, Group: n.State.V.GroupOf(note.Author)}.Owner(frame.Arrangement)
		if owner != "" && owner != sheet.ClassOwner && n.State.V.Seated(note.Author) {
			texts, owners[note.ID] = append(texts, note.ID), owner
		}
	}
	all := alike.Varied(reply.Groups, texts, owners)
	c.JSON(http.StatusOK, Varied{all[:min(len(all), mostVaried)]})
}

// mostAlike is how many notes are compared at once: their table grows with the square.
const mostAlike = 1200

// timeline gives what happened on a sheet of the lesson in the path, moment how it was.
func (s *server) timeline(c *gin.Context) {
	n, err := s.ownSession(c)
	if err == nil {
		var t live.Timeline
		if t, err = s.Hub.Timeline(c.Request.Context(), n.ID, c.Query("sheet")); err == nil {
			c.JSON(http.StatusOK, t)
			return
		}
	}
	refuse(c, err)
}

func (s *server) moment(c *gin.Context) {
	n, err := s.ownSession(c)
	if err == nil {
		var after int
		if after, err = strconv.Atoi(c.Param("after")); err != nil {
			err = refusal.About(refusal.Malformed, "how many changes")
		}
		var m live.Moment
		if err == nil {
			m, err = s.Hub.Moment(c.Request.Context(), n.ID, c.Query("sheet"), after)
		}
		if err == nil {
			c.JSON(http.StatusOK, m)
			return
		}
	}
	refuse(c, err)
}

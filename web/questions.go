package web

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"alpenglow/core/alike"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// TryQuestion asks how a question would be asked, and with a value what would be thought of
// that answer.
type TryQuestion struct {
	Asked poll.Question `json:"asked"`
	Value *poll.Value   `json:"value,omitempty"`
}

// QuestionTried is the question as a class sees it before it is revealed, and what is thought
// of an answer: why it is none, or how it was read and judged.
type QuestionTried struct {
	Seen    poll.Question   `json:"seen"`
	Refused refusal.Code    `json:"refused,omitempty"`
	Judged  *poll.Judgement `json:"judged,omitempty"`
	Says    string          `json:"says,omitempty"`
}

// tryQuestion judges an answer to a question that is just being written; it keeps nothing.
func (s *server) tryQuestion(c *gin.Context) {
	var ask TryQuestion
	err := readBody(c, &ask)
	if err == nil {
		err = ask.Asked.Check()
	}
	if err != nil {
		refuse(c, err)
		return
	}
	told := QuestionTried{Seen: ask.Asked.ForClass(poll.Open)}
	if ask.Value != nil {
		if err := ask.Asked.Takes(*ask.Value); err != nil {
			told.Refused = refusal.Of(err).Code
		} else {
			j := ask.Asked.Judge(*ask.Value)
			told.Judged, told.Says = &j, ask.Asked.Says(*ask.Value)
		}
	}
	c.JSON(http.StatusOK, told)
}

// questionsOf says how the questions of the lesson in the path did.
func (s *server) questionsOf(c *gin.Context) {
	_, kept, _, err := s.read(c)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, kept.Questions())
}

// answersAlike says which texts that answer a question of the lesson in the path, in a round,
// say the same. They are called by who gave them.
func (s *server) answersAlike(c *gin.Context) {
	n, err := s.ownSession(c)
	var marks []record.Mark
	if err == nil {
		marks, err = s.Store.SessionMarks(c.Request.Context(), n.ID)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Alike{Groups: []alike.Group{}, Agreed: []alike.Band{}, Times: []alike.Band{}, Notes: []AlikeNote{}}
	var texts []alike.Text
	slices.SortStableFunc(marks, func(a, b record.Mark) int { return cmp.Compare(a.At, b.At) })
	for _, m := range marks {
		a := m.Answer
		if a == nil || !m.OnFrame() || a.Late || a.Poll != c.Query("poll") ||
			strconv.Itoa(a.Round) != c.Query("round") {
			continue
		}
		text := a.Value.Text()
		if text == "" {
			continue
		}
		reply.Notes = append(reply.Notes, AlikeNote{ID: m.Author, Author: m.Author, Text: text, Tint: lesson.Tints[0]})
		texts = append(texts, alike.Text{ID: m.Author, Words: text})
	}
	if len(texts) > mostAlike {
		refuse(c, refusal.About(refusal.TooMany, "at most %d texts are compared", mostAlike))
		return
	}
	if groups := alike.Groups(texts, string(n.Language)); groups != nil {
		reply.Groups = groups
	}
	c.JSON(http.StatusOK, reply)
}

// answersFile writes students by questions of the lesson in the path, as CSV or as a spreadsheet.
func (s *server) answersFile(c *gin.Context) {
	n, kept, _, err := s.read(c)
	if err != nil {
		refuse(c, err)
		return
	}
	s.tableFile(c, n, kept.Answers())
}

// tableFile writes a table of a lesson, as CSV or as a spreadsheet, as the path ends.
func (s *server) tableFile(c *gin.Context, n store.Session, t record.Table) {
	end, mime, write := ".xlsx", questionFiles["xlsx"].mime, t.XLSX
	if strings.HasSuffix(c.FullPath(), ".csv") {
		end, mime, write = ".csv", questionFiles["csv"].mime, t.CSV
	}
	c.Header("Content-Type", mime)
	c.Header("Content-Disposition", fmt.Sprintf("attachment; filename=%q", fileName(n.Title)+"-"+t.Name+end))
	if err := write(c.Writer); err != nil {
		s.Log.Error("write "+t.Name, "error", err)
	}
}

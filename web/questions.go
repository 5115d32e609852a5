package web

import (
	"net/http"

	"alpenglow/core/poll"
	"alpenglow/core/refusal"

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

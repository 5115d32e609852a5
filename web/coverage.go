package web

import (
	"net/http"

	"alpenglow/core/record"

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

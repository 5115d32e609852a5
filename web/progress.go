package web

import (
	"cmp"
	"net/http"
	"slices"
	"time"

	"alpenglow/core/id"
	"alpenglow/core/outcome"
	"alpenglow/core/progress"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// ClassYear is what the lessons of a class say: of each student and objective, and which questions failed.
type ClassYear struct {
	Lessons  int               `json:"lessons"`
	Students []StudentProgress `json:"students"`
	Failed   []progress.Failed `json:"failed"`
}

// StudentProgress is what is known of a student and each objective.
type StudentProgress struct {
	record.Student
	Objectives []progress.Objective `json:"objectives"`
}

// heldLessons reads the latest lessons of the class in the path that have ended, as far as the teacher leads them,
// with what the teacher of each thinks of the work; and the class.
func (s *server) heldLessons(c *gin.Context) ([]progress.Lesson, store.Class, error) {
	ctx, me := c.Request.Context(), visitor(c).Teacher
	var class store.Class
	if !id.IsUUID(c.Param("id")) {
		return nil, class, refusal.New(refusal.NotFound)
	}
	class, err := s.Store.Class(ctx, me, c.Param("id"))
	if err != nil {
		return nil, class, missing(err)
	}
	all, err := s.Store.Sessions(ctx, me)
	if err != nil {
		return nil, class, err
	}
	all = slices.DeleteFunc(all, func(n store.SessionSummary) bool {
		return n.EndedAt == nil || n.ClassID == nil || *n.ClassID != class.ID
	})
	slices.SortFunc(all, func(a, b store.SessionSummary) int {
		return cmp.Compare(b.EndedAt.UnixMilli(), a.EndedAt.UnixMilli())
	})
	lessons := []progress.Lesson{}
	for _, one := range all[:min(len(all), mostOver)] {
		n, err := s.Store.Session(ctx, one.ID)
		if err != nil {
			return nil, class, missing(err)
		}
		l := progress.Lesson{Session: n.ID, Title: n.Title, At: n.StartedAt.UnixMilli(), As: map[string]string{}}
		var people []store.Participant
		if l.Kept, people, err = s.recordOf(ctx, n); err != nil {
			return nil, class, err
		}
		for _, p := range people {
			if p.StudentID != nil {
				l.As[p.ID] = *p.StudentID
			}
		}
		judged, err := s.Store.Judgements(ctx, n.ID)
		if err != nil {
			return nil, class, err
		}
		for _, j := range judged {
			if j.By == n.TeacherID && (n.TeacherID == me || !n.Blind) {
				l.Judged = append(l.Judged, j)
			}
		}
		lessons = append(lessons, l)
	}
	return lessons, class, nil
}

// classYear says what the lessons of a class say of each student and objective, and which questions failed.
func (s *server) classYear(c *gin.Context) {
	lessons, class, err := s.heldLessons(c)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := ClassYear{Lessons: len(lessons), Students: []StudentProgress{},
		Failed: progress.FailedOver(lessons, outcome.Bands{})}
	var students []record.Student
	for _, one := range class.List() {
		students = append(students, record.Student{ID: one.ID, Name: one.Name})
	}
	for _, y := range progress.Of(lessons, students, time.Now().UnixMilli()) {
		reply.Students = append(reply.Students, StudentProgress{y.Student, y.Objectives})
	}
	c.JSON(http.StatusOK, reply)
}

// studentYear says what the lessons of a class say of a student.
func (s *server) studentYear(c *gin.Context) {
	lessons, class, err := s.heldLessons(c)
	if err != nil {
		refuse(c, err)
		return
	}
	for _, one := range class.List() {
		if one.ID == c.Param("student") {
			years := progress.Of(lessons, []record.Student{{ID: one.ID, Name: one.Name}}, time.Now().UnixMilli())
			c.JSON(http.StatusOK, years[0])
			return
		}
	}
	refuse(c, refusal.New(refusal.NotFound))
}

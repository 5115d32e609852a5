package web

import (
	"context"
	"errors"
	"net/http"

	"alpenglow/core/id"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// classes gives one's classes with their students.
func (s *server) classes(c *gin.Context) {
	all, err := s.Store.Classes(c.Request.Context(), visitor(c).Teacher)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := ClassBook{Classes: []ClassPage{}}
	for _, k := range all {
		page := ClassPage{ID: k.ID, Name: k.Name, Archived: k.Archived, Students: []ClassStudent{}}
		for _, student := range k.Students.V {
			page.Students = append(page.Students, ClassStudent(student))
		}
		reply.Classes = append(reply.Classes, page)
	}
	c.JSON(http.StatusOK, reply)
}

// readList says what a list of names would be, before it is taken.
func (s *server) readList(c *gin.Context) {
	var ask NameList
	err := readBody(c, &ask)
	var rows []roster.Row
	if err == nil {
		rows, err = s.rowsOf(c.Request.Context(), visitor(c).Teacher, ask)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, NameRows{rows})
}

// rowsOf reads a list of names, held against those of a class if it names one.
func (s *server) rowsOf(ctx context.Context, me string, ask NameList) ([]roster.Row, error) {
	there := []string{}
	if ask.Class != "" {
		class, err := s.Store.Class(ctx, me, ask.Class)
		if err != nil {
			return nil, missing(err)
		}
		there = class.Names()
	}
	return roster.ReadList(ask.List, there)
}

// sound lists the names of those rows that have one. A list without any is refused.
func sound(rows []roster.Row) ([]string, error) {
	names := []string{}
	for _, r := range rows {
		if r.Problem == "" {
			names = append(names, r.Name)
		}
	}
	if len(names) == 0 {
		return nil, refusal.New(refusal.NameEmpty)
	}
	return names, nil
}

// addClass makes a class of a list of names; lines that are no names stay out.
func (s *server) addClass(c *gin.Context) {
	var ask NewClass
	err := readBody(c, &ask)
	if err == nil {
		ask.Name, err = roster.CheckClassName(ask.Name)
	}
	ctx, me := c.Request.Context(), visitor(c).Teacher
	var rows []roster.Row
	if err == nil {
		rows, err = s.rowsOf(ctx, me, NameList{List: ask.List})
	}
	var names []string
	if err == nil {
		names, err = sound(rows)
	}
	class := ""
	if err == nil {
		class, err = s.Store.AddClass(ctx, me, ask.Name, names)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, ClassMade{class})
}

// setClass renames a class, or puts it away or brings it back.
func (s *server) setClass(c *gin.Context) {
	var ask SetClass
	err := readBody(c, &ask)
	if err == nil && !id.IsUUID(c.Param("id")) {
		err = refusal.New(refusal.NotFound)
	}
	if err == nil && ask.Name != nil {
		*ask.Name, err = roster.CheckClassName(*ask.Name)
	}
	if err == nil {
		err = s.Store.SetClass(c.Request.Context(), visitor(c).Teacher, c.Param("id"), ask.Name, ask.Archived)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.Status(http.StatusNoContent)
}

// addStudents puts the names of a list behind those of a class.
func (s *server) addStudents(c *gin.Context) {
	var ask NameList
	err := readBody(c, &ask)
	if err == nil && !id.IsUUID(c.Param("id")) {
		err = refusal.New(refusal.NotFound)
	}
	ctx, me := c.Request.Context(), visitor(c).Teacher
	var names []string
	if err == nil {
		var rows []roster.Row
		if rows, err = roster.ReadList(ask.List, nil); err == nil {
			names, err = sound(rows)
		}
	}
	if err == nil {
		err = s.Store.AddStudents(ctx, me, c.Param("id"), names, roster.MaxClass)
	}
	if errors.Is(err, store.ErrFull) {
		err = refusal.About(refusal.TooMany, "a class has at most %d students", roster.MaxClass)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.Status(http.StatusNoContent)
}

// setStudent renames a student, or lets them leave or come back.
func (s *server) setStudent(c *gin.Context) {
	var ask SetStudent
	err := readBody(c, &ask)
	if err == nil && (!id.IsUUID(c.Param("id")) || !id.IsUUID(c.Param("student"))) {
		err = refusal.New(refusal.NotFound)
	}
	if err == nil && ask.Name != nil {
		*ask.Name, err = roster.ReadName(*ask.Name)
	}
	if err == nil {
		err = s.Store.SetStudent(c.Request.Context(), visitor(c).Teacher, c.Param("id"), c.Param("student"), ask.Name,
			ask.Left)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.Status(http.StatusNoContent)
}

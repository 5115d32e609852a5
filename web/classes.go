package web

import (
	"errors"
	"io"
	"net/http"

	"alpenglow/core/formats"
	"alpenglow/core/id"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// classes gives one's classes with their students.
func (s *server) classes(c *gin.Context) {
	ctx, me := c.Request.Context(), visitor(c).Teacher
	all, err := s.Store.Classes(ctx, me)
	var colleagues []store.Colleague
	if err == nil {
		colleagues, err = s.Store.Colleagues(ctx, me)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := ClassBook{Classes: []ClassPage{}, Colleagues: []Colleague{}}
	for _, k := range colleagues {
		reply.Colleagues = append(reply.Colleagues, Colleague(k))
	}
	for _, k := range all {
		reply.Classes = append(reply.Classes, pageOf(k, me))
	}
	c.JSON(http.StatusOK, reply)
}

func pageOf(k store.Class, me string) ClassPage {
	page := ClassPage{
		ID:       k.ID,
		Name:     k.Name,
		Archived: k.Archived,
		Keep:     k.Keep,
		Students: []ClassStudent{},
		Teachers: []Colleague{},
		Plan:     k.Plan.V.Sound(),
	}
	apart := map[string]string{}
	for _, l := range k.List() {
		apart[l.ID] = l.Name
	}
	for _, t := range k.Students.V {
		student := ClassStudent{ID: t.ID, Name: t.Name, Left: t.Left}
		if apart[t.ID] != t.Name {
			student.Apart = apart[t.ID]
		}
		page.Students = append(page.Students, student)
	}
	for _, t := range k.Teachers.V {
		if t.ID != me {
			page.Teachers = append(page.Teachers, Colleague(t))
		}
	}
	return page
}

// shownRows is how many lines of a list are shown in their columns.
const shownRows = 4

// readList says what a list of names would be, before it is taken.
func (s *server) readList(c *gin.Context) {
	var ask NameList
	err := readBody(c, &ask)
	there := []string{}
	if err == nil && ask.Class != "" && !id.IsUUID(ask.Class) {
		err = refusal.New(refusal.NotFound)
	}
	if err == nil && ask.Class != "" {
		var class store.Class
		class, err = s.Store.Class(c.Request.Context(), visitor(c).Teacher, ask.Class)
		there, err = class.Names(), missing(err)
	}
	var table roster.Table
	if err == nil {
		table, err = roster.ReadTable(ask.List)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := NameRows{Columns: table.Guess(), Head: table.Rows[:min(shownRows, len(table.Rows))]}
	if ask.Columns != nil {
		reply.Columns = *ask.Columns
	}
	if reply.Rows, err = table.Names(reply.Columns, there); err != nil {
		refuse(c, err)
		return
	}
	if reply.Head == nil {
		reply.Head = [][]string{}
	}
	c.JSON(http.StatusOK, reply)
}

// readListFile gives a spreadsheet as a list to look through.
func (s *server) readListFile(c *gin.Context) {
	data, err := wholeBody(c, formats.MaxSpreadsheet)
	var text string
	if err == nil {
		text, err = formats.ReadSpreadsheet(data)
	}
	if err == nil && len(text) > roster.MaxListed {
		err = refusal.About(refusal.FileHuge, "at most %d bytes of names", roster.MaxListed)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, ListText{text})
}

// wholeBody reads a file of at most so many bytes.
func wholeBody(c *gin.Context, most int64) ([]byte, error) {
	data, err := io.ReadAll(http.MaxBytesReader(c.Writer, c.Request.Body, most))
	if tooLarge := new(http.MaxBytesError); errors.As(err, &tooLarge) {
		return nil, refusal.About(refusal.FileHuge, "at most %d bytes", tooLarge.Limit)
	}
	if err != nil {
		return nil, refusal.New(refusal.Malformed)
	}
	return data, nil
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
	var names []string
	if err == nil {
		names, err = namesIn(NameList{List: ask.List, Columns: ask.Columns})
	}
	class := ""
	if err == nil {
		class, err = s.Store.AddClass(c.Request.Context(), visitor(c).Teacher, ask.Name, names)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.note(c, DidClass, class, "")
	c.JSON(http.StatusCreated, ClassMade{class})
}

// namesIn lists the names of a list.
func namesIn(ask NameList) ([]string, error) {
	rows, err := roster.ReadList(ask.List, ask.Columns, nil)
	if err != nil {
		return nil, err
	}
	return sound(rows)
}

// about reads a message about the class in the path, and about the student if there is
// one; without a message into is nil.
func about(c *gin.Context, into any) error {
	for _, name := range []string{"id", "student", "participant"} {
		if value, ok := c.Params.Get(name); ok && !id.IsUUID(value) {
			return refusal.New(refusal.NotFound)
		}
	}
	if into == nil {
		return nil
	}
	return readBody(c, into)
}

// done answers that something was done, or why not.
func done(c *gin.Context, err error) {
	switch {
	case errors.Is(err, store.ErrFull):
		err = refusal.About(refusal.TooMany, "a class has at most %d students", roster.MaxClass)
	case errors.Is(err, store.ErrLast):
		err = refusal.New(refusal.LastTeacher)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.Status(http.StatusNoContent)
}

// did answers as done does, and notes in the journal what was done.
func (s *server) did(c *gin.Context, err error, what Did, about string) {
	if err == nil {
		s.note(c, what, about, "")
	}
	done(c, err)
}

// setClass renames a class, or puts it away or brings it back.
func (s *server) setClass(c *gin.Context) {
	var ask SetClass
	err := about(c, &ask)
	if err == nil && ask.Name != nil {
		*ask.Name, err = roster.CheckClassName(*ask.Name)
	}
	if err == nil {
		err = s.Store.SetClass(c.Request.Context(), visitor(c).Teacher, c.Param("id"), ask.Name, ask.Archived)
	}
	s.did(c, err, DidClassSet, c.Param("id"))
}

// nextYear puts a class away and makes the next one of its list.
func (s *server) nextYear(c *gin.Context) {
	var ask NextYear
	err := about(c, &ask)
	if err == nil {
		ask.Name, err = roster.CheckClassName(ask.Name)
	}
	class := ""
	if err == nil {
		class, err = s.Store.NextYear(c.Request.Context(), visitor(c).Teacher, c.Param("id"), ask.Name)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	s.note(c, DidClass, class, "")
	c.JSON(http.StatusCreated, ClassMade{class})
}

// setPlan notes groups, seats, and who should not be together.
func (s *server) setPlan(c *gin.Context) {
	var ask roster.Plan
	err := about(c, &ask)
	if err == nil {
		err = s.Store.SetPlan(c.Request.Context(), visitor(c).Teacher, c.Param("id"), ask.Check)
	}
	done(c, err)
}

// teachTogether lets a colleague teach the class too, or no more; whoever does not is
// put out of its lessons.
func (s *server) teachTogether(c *gin.Context) {
	var ask TeachTogether
	err := about(c, &ask)
	if err == nil && !id.IsUUID(ask.Teacher) {
		err = refusal.New(refusal.NotFound)
	}
	ctx := c.Request.Context()
	if err == nil {
		err = s.Store.TeachTogether(ctx, visitor(c).Teacher, c.Param("id"), ask.Teacher, ask.Teaches)
	}
	if err == nil && !ask.Teaches {
		var logins []store.SignedIn
		logins, err = s.Store.SignIns(ctx, ask.Teacher)
		for _, l := range logins {
			s.Hub.CloseLogin(l.Token)
		}
	}
	s.did(c, err, DidTeach, c.Param("id"))
}

package web

import (
	"archive/zip"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"time"

	"alpenglow/core/dossier"
	"alpenglow/core/find"
	"alpenglow/core/formats"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// setKeep says how long the records of a class are kept.
func (s *server) setKeep(c *gin.Context) {
	var ask SetKeep
	err := about(c, &ask)
	if err == nil && ask.Months != nil && (*ask.Months < 0 || *ask.Months > settings.MaxMonths) {
		err = refusal.About(refusal.Malformed, "0 to %d months", settings.MaxMonths)
	}
	if err == nil {
		err = s.Store.SetKeep(c.Request.Context(), visitor(c).Teacher, c.Param("id"), ask.Months)
	}
	s.did(c, err, DidKeep, c.Param("id"))
}

// mostPersons is how many are found at once.
const mostPersons = 50

// persons finds students of all classes by their names, for administrators.
func (s *server) persons(c *gin.Context) {
	reply := Persons{Persons: []PersonItem{}}
	words := find.Words(c.Query("name"))
	if len(words) > 0 {
		found, err := s.Store.FindPersons(c.Request.Context(), words, mostPersons)
		if err != nil {
			refuse(c, err)
			return
		}
		for _, p := range found {
			reply.Persons = append(reply.Persons, PersonItem{ID: p.Person, Name: p.Name, Classes: p.Classes.V})
		}
	}
	c.JSON(http.StatusOK, reply)
}

// theirStudent gives the person that the student in the path is: for who teaches all
// classes that they are in.
func (s *server) theirStudent(c *gin.Context) (string, error) {
	if err := about(c, nil); err != nil {
		return "", err
	}
	person, all, err := s.Store.PersonOf(c.Request.Context(), visitor(c).Teacher, c.Param("id"), c.Param("student"))
	if err == nil && !all {
		err = refusal.New(refusal.NotAllTheirs)
	}
	return person, missing(err)
}

func (s *server) studentFile(c *gin.Context) {
	person, err := s.theirStudent(c)
	s.personFile(c, person, c.Param("id"), err)
}

func (s *server) anyonesFile(c *gin.Context) { s.personFile(c, c.Param("id"), "", about(c, nil)) }

// personFile gives everything about a person as a ZIP file: as JSON, as a page, and the
// pictures that they have brought in.
func (s *server) personFile(c *gin.Context, person, class string, err error) {
	ctx := c.Request.Context()
	var d dossier.Dossier
	var pictures []store.TheirPicture
	if err == nil {
		d, pictures, err = s.Store.Dossier(ctx, person)
	}
	if err == nil {
		var house settings.House
		house, err = s.Store.House(ctx)
		d.School, d.Made = house.School, time.Now().UTC()
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	s.note(c, DidExport, class, "")
	out := s.zip(c, "person.zip")
	defer out.Close()
	err = out.json("person.json", d)
	if err == nil {
		err = out.file("index.html", d.WritePage)
	}
	for _, theirs := range pictures {
		if err != nil {
			break
		}
		var p store.KeptPicture
		if p, err = s.Store.Picture(ctx, theirs.ID); err == nil {
			err = out.file("pictures/"+theirs.File(), func(w io.Writer) error { _, err := w.Write(p.Data); return err })
		}
	}
	if err != nil { // the file is on its way: it ends without its index and cannot be opened
		s.Log.Error("write a person's file", "error", store.Bare(err))
		panic(http.ErrAbortHandler)
	}
}

// archive is a ZIP file that is being sent.
type archive struct{ *zip.Writer }

func (s *server) zip(c *gin.Context, name string) archive {
	c.Header("Content-Type", "application/zip")
	c.Header("Content-Disposition", `attachment; filename="`+name+`"`)
	return archive{zip.NewWriter(c.Writer)}
}

func (a archive) file(name string, write func(io.Writer) error) error {
	w, err := a.Create(name)
	if err != nil {
		return err
	}
	return write(w)
}

func (a archive) json(name string, v any) error {
	return a.file(name, func(w io.Writer) error {
		out := json.NewEncoder(w)
		out.SetIndent("", "  ")
		return out.Encode(v)
	})
}

func (s *server) eraseStudent(c *gin.Context) {
	person, err := s.theirStudent(c)
	s.erase(c, person, err)
}

func (s *server) eraseAnyone(c *gin.Context) { s.erase(c, c.Param("id"), about(c, nil)) }

// erase removes a person everywhere, and answers with a receipt.
func (s *server) erase(c *gin.Context, person string, err error) {
	var gone store.Erased
	if err == nil {
		gone, err = s.Store.Erase(c.Request.Context(), person)
	}
	if errors.Is(err, store.ErrRunning) {
		err = refusal.New(refusal.LessonRunning)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	for session, participants := range gone.Participants {
		for _, p := range participants {
			s.Hub.CloseSeat(p)
		}
		s.Hub.Forget(session)
	}
	s.note(c, DidErase, "", "")
	c.JSON(http.StatusOK, Receipt{At: time.Now(), Classes: gone.Classes, Lessons: gone.Lessons, Marks: gone.Marks,
		Changes: gone.Changes, Pictures: gone.Pictures, Mentions: gone.Mentions, Card: gone.Card})
}

// eraseAccount removes the account of somebody who has left, with what was not handed
// over, and answers with a receipt.
func (s *server) eraseAccount(c *gin.Context) {
	t, err := s.person(c)
	if err == nil && t.LeftAt == nil {
		err = refusal.New(refusal.StillThere)
	}
	var gone store.AccountErased
	if err == nil {
		gone, err = s.Store.EraseAccount(c.Request.Context(), t.ID)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	s.note(c, DidGone, "", "")
	c.JSON(
		http.StatusOK,
		AccountReceipt{At: time.Now(), Boards: gone.Boards, Lessons: gone.Lessons, Templates: gone.Templates,
			SignIns: gone.SignIns},
	)
}

// accountFile gives everything about one's own account as a ZIP file.
func (s *server) accountFile(c *gin.Context) {
	ctx, me := c.Request.Context(), visitor(c).Account
	t, err := s.Store.TeacherByID(ctx, me)
	var boards []store.BoardCard
	var lessons []store.SessionSummary
	var templates []store.Template
	var logins []store.SignedIn
	if err == nil {
		boards, err = s.Store.Boards(ctx, me)
	}
	if err == nil {
		lessons, err = s.Store.Sessions(ctx, me)
	}
	if err == nil {
		templates, err = s.Store.Templates(ctx, me)
	}
	if err == nil {
		logins, err = s.Store.SignIns(ctx, me)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	file := AccountFile{
		Format:    "account",
		Version:   1,
		Made:      time.Now().UTC(),
		Name:      t.Name,
		Email:     t.Email,
		Role:      t.Role,
		Settings:  t.Own(),
		Second:    t.Second != nil,
		Lessons:   []FileLesson{},
		SignIns:   []FileSignIn{},
		Templates: []OwnTemplate{},
	}
	for _, n := range lessons {
		if n.By == nil {
			file.Lessons = append(
				file.Lessons,
				FileLesson{Title: n.Title, Class: n.ClassName, Began: n.StartedAt, Ended: n.EndedAt,
					Students: n.Students},
			)
		}
	}
	for _, l := range logins {
		file.SignIns = append(file.SignIns, FileSignIn{Device: l.Device, At: l.MadeAt})
	}
	for _, t := range templates {
		file.Templates = append(file.Templates, OwnTemplate{ID: t.ID, Name: t.Name, Frame: t.Frame.V})
	}
	out := s.zip(c, "account.zip")
	defer out.Close()
	err = out.json("account.json", file)
	for _, b := range boards {
		if err != nil {
			break
		}
		err = s.boardInto(c, out, b.ID)
	}
	if err != nil {
		s.Log.Error("write an account's file", "error", store.Bare(err))
		panic(http.ErrAbortHandler)
	}
}

// boardInto puts a board file into an archive.
func (s *server) boardInto(c *gin.Context, out archive, board string) error {
	kept, err := s.Store.Board(c.Request.Context(), visitor(c).Account, board)
	if err != nil {
		return err
	}
	file, err := s.boardFile(c, formats.File{Board: kept.Board()})
	if err != nil {
		return err
	}
	return out.file("boards/"+fileName(file.Board.Title)+"-"+board[len(board)-6:]+".board", func(w io.Writer) error {
		return formats.WriteBoard(w, file)
	})
}

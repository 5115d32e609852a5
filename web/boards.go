package web

import (
	"crypto/rand"
	"errors"
	"net/http"
	"strings"
	"time"
	"unicode/utf8"

	"alpenglow/core/find"
	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/settings"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// maxFolder is how long the name of a folder may be.
const maxFolder = 60

func (s *server) boards(c *gin.Context) {
	ctx, me := c.Request.Context(), visitor(c).Teacher
	boards, err := s.Store.Boards(ctx, me)
	if err != nil {
		refuse(c, err)
		return
	}
	classes, err := s.Store.Classes(ctx, me)
	if err != nil {
		refuse(c, err)
		return
	}
	sessions, err := s.Store.Sessions(ctx, me)
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Boards{Boards: []BoardItem{}, Classes: []ClassItem{}, Sessions: []SessionItem{}}
	for _, b := range boards {
		reply.Boards = append(reply.Boards, cardOf(b))
	}
	for _, k := range classes {
		if !k.Archived {
			reply.Classes = append(reply.Classes, ClassItem{ID: k.ID, Name: k.Name, Students: len(k.Names())})
		}
	}
	for _, n := range sessions {
		item := SessionItem{
			ID:        n.ID,
			Title:     n.Title,
			ClassName: n.ClassName,
			Students:  n.Students,
			StartedAt: n.StartedAt,
			EndedAt:   n.EndedAt,
			Practice:  n.Practice,
			Away:      n.Away,
			Due:       n.Due,
			LeftOpen:  n.EndedAt == nil && n.Due == nil && session.LeftOpen(n.StartedAt, time.Now()),
		}
		if n.ClassID != nil {
			item.Class = *n.ClassID
		}
		if n.By != nil {
			item.By = *n.By
		}
		if n.EndedAt != nil {
			if at, goes := settings.GoesAt(*n.EndedAt, n.Months); goes && time.Until(at) < settings.Announced {
				item.GoesAt = &at
			}
		}
		reply.Sessions = append(reply.Sessions, item)
	}
	c.JSON(http.StatusOK, reply)
}

// mostSaid is how many of the words of students are listed.
const mostSaid = 30

// search finds the frames on which words occur.
func (s *server) search(c *gin.Context) {
	ctx, me, words := c.Request.Context(), visitor(c).Teacher, find.Words(c.Query("words"))
	found, err := s.Store.Search(ctx, me, words)
	var said []store.FoundSaid
	if err == nil {
		said, err = s.Store.SearchSaid(ctx, me, words, mostSaid)
	}
	var lessons []store.SessionSummary
	if err == nil {
		lessons, err = s.Store.SearchLessons(ctx, me, words, mostSaid)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := Found{Frames: []FoundFrame{}, Said: []FoundSaid{}, Lessons: []SessionItem{}}
	for _, f := range said {
		reply.Said = append(reply.Said,
			FoundSaid{f.Session, f.Lesson, f.ClassName, f.At, f.Frame, f.Author, f.Name, f.Words})
	}
	for _, n := range lessons {
		reply.Lessons = append(reply.Lessons, SessionItem{ID: n.ID, Title: n.Title, ClassName: n.ClassName,
			Students: n.Students, StartedAt: n.StartedAt, EndedAt: n.EndedAt})
	}
	for _, f := range found {
		reply.Frames = append(reply.Frames, FoundFrame(f))
	}
	c.JSON(http.StatusOK, reply)
}

func cardOf(b store.BoardCard) BoardItem {
	o := b.Outline.V
	return BoardItem{ID: b.ID, Title: o.Title, Frames: len(o.Frames), ChangedAt: b.ChangedAt, OpenedAt: b.OpenedAt,
		Archived: b.ArchivedAt != nil, Folder: b.Folder, First: b.First.V.Settled()}
}

// ownBoard reads the board in the path if it is the teacher's.
func (s *server) ownBoard(c *gin.Context) (store.Kept, error) {
	if !id.IsUUID(c.Param("id")) {
		return store.Kept{}, refusal.New(refusal.NotFound)
	}
	kept, err := s.Store.Board(c.Request.Context(), visitor(c).Teacher, c.Param("id"))
	return kept, missing(err)
}

// missing turns a row that is not there into a refusal.
func missing(err error) error {
	if errors.Is(err, store.ErrNotFound) {
		return refusal.New(refusal.NotFound)
	}
	return err
}

// board gives a board that is to be prepared.
func (s *server) board(c *gin.Context) {
	kept, err := s.ownBoard(c)
	if err == nil && kept.Session == nil {
		err = s.Store.SetCard(c.Request.Context(), visitor(c).Teacher, c.Param("id"), store.Card{Opened: true})
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := BoardReply{
		ID:      c.Param("id"),
		Rev:     kept.Rev,
		Lesson:  kept.Session != nil,
		Outline: kept.Outline,
		Frames:  []lesson.Frame{},
	}
	for _, id := range kept.Outline.Frames {
		reply.Frames = append(reply.Frames, kept.Frames[id])
	}
	c.JSON(http.StatusOK, reply)
}

// blank is a new frame with nothing on it.
func blank() lesson.Frame {
	return lesson.Frame{ID: store.NewID(), Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.WholeClass,
		Permission: lesson.Add, Prepared: []lesson.Element{}}
}

// newBoard begins a board with one blank frame.
func (s *server) newBoard(c *gin.Context) {
	var ask NewBoard
	if err := readBody(c, &ask); err != nil {
		refuse(c, err)
		return
	}
	s.keepBoard(c, lesson.Board{Title: strings.TrimSpace(ask.Title), Frames: []lesson.Frame{blank()}})
}

// keepBoard stores a board of the teacher's and answers with its id.
func (s *server) keepBoard(c *gin.Context, b lesson.Board) {
	if b.Title == "" {
		refuse(c, refusal.New(refusal.NameEmpty))
		return
	}
	id, err := s.Store.AddBoard(c.Request.Context(), visitor(c).Teacher, b)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, BoardMade{id})
}

// copyBoard copies what was prepared. Students' contributions lie on sheets of
// sessions, so that none can come along.
func (s *server) copyBoard(c *gin.Context) {
	var ask NewBoard
	kept, err := s.ownBoard(c)
	if err == nil {
		err = readBody(c, &ask)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	copied := kept.Board().Copy(store.NewID)
	copied.Title = strings.TrimSpace(ask.Title)
	s.keepBoard(c, copied)
}

// setCard changes a board's folder, or archives, deletes or brings it back.
func (s *server) setCard(c *gin.Context) {
	var ask SetCard
	err := readBody(c, &ask)
	if err == nil && !id.IsUUID(c.Param("id")) {
		err = refusal.New(refusal.NotFound)
	}
	if err == nil && ask.Folder != nil && (utf8.RuneCountInString(*ask.Folder) > maxFolder ||
		lesson.CheckTitle(*ask.Folder) != nil) {
		err = refusal.New(refusal.NameTooLong)
	}
	if err == nil {
		err = missing(s.Store.SetCard(c.Request.Context(), visitor(c).Teacher, c.Param("id"),
			store.Card{Folder: ask.Folder, Archived: ask.Archived, Deleted: ask.Deleted}))
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// shareBoard gives a link by which colleagues on this installation take a copy.
func (s *server) shareBoard(c *gin.Context) {
	if !id.IsUUID(c.Param("id")) {
		refuse(c, refusal.New(refusal.NotFound))
		return
	}
	word, err := s.Store.ShareBoard(c.Request.Context(), visitor(c).Teacher, c.Param("id"), rand.Text())
	if err != nil {
		refuse(c, missing(err))
		return
	}
	c.JSON(http.StatusOK, Shared{Link: s.publicURL(c) + "/copy/" + word})
}

// shared shows what a link leads to; takeShared makes a copy of it.
func (s *server) shared(c *gin.Context) {
	kept, err := s.Store.SharedBoard(c.Request.Context(), c.Param("word"))
	if err != nil {
		refuse(c, missing(err))
		return
	}
	b := kept.Board()
	c.JSON(http.StatusOK, SharedBoard{Title: b.Title, Frames: len(b.Frames), First: b.Frames[0]})
}

func (s *server) takeShared(c *gin.Context) {
	kept, err := s.Store.SharedBoard(c.Request.Context(), c.Param("word"))
	if err != nil {
		refuse(c, missing(err))
		return
	}
	s.keepBoard(c, kept.Board().Copy(store.NewID))
}

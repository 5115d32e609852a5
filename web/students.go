package web

import (
	"crypto/rand"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"alpenglow/core/formats"
	"alpenglow/core/id"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
	"rsc.io/qr"
)

// addStudents puts the names of a list behind those of a class.
func (s *server) addStudents(c *gin.Context) {
	var ask NameList
	err := about(c, &ask)
	var names []string
	if err == nil {
		names, err = namesIn(ask)
	}
	if err == nil {
		err = s.Store.AddStudents(c.Request.Context(), visitor(c).Teacher, c.Param("id"), names, roster.MaxClass)
	}
	s.did(c, err, DidClassSet, c.Param("id"))
}

// setStudent renames a student, or lets them leave or come back.
func (s *server) setStudent(c *gin.Context) {
	var ask SetStudent
	err := about(c, &ask)
	if err == nil && ask.Name != nil {
		*ask.Name, err = roster.ReadName(*ask.Name)
	}
	if err == nil {
		err = s.Store.SetStudent(c.Request.Context(), visitor(c).Teacher, c.Param("id"), c.Param("student"), ask.Name,
			ask.Left, roster.MaxClass)
	}
	s.did(c, err, DidStudent, c.Param("id"))
}

// moveStudent moves a student to another class.
func (s *server) moveStudent(c *gin.Context) {
	var ask MoveStudent
	err := about(c, &ask)
	if err == nil && (!id.IsUUID(ask.To) || ask.To == c.Param("id")) {
		err = refusal.New(refusal.NotFound)
	}
	if err == nil {
		err = s.Store.MoveStudent(c.Request.Context(), visitor(c).Teacher, c.Param("id"), c.Param("student"), ask.To,
			roster.MaxClass)
	}
	s.did(c, err, DidMove, c.Param("id"))
}

// mergeStudents makes one of two students who are one person.
func (s *server) mergeStudents(c *gin.Context) {
	var ask MergeStudents
	err := about(c, &ask)
	if err == nil && !id.IsUUID(ask.With) {
		err = refusal.New(refusal.NotFound)
	}
	if err == nil {
		err = s.Store.MergeStudents(
			c.Request.Context(),
			visitor(c).Teacher,
			c.Param("id"),
			c.Param("student"),
			ask.With,
		)
	}
	s.did(c, err, DidMerge, c.Param("id"))
}

// readRegister looks into a register, and takes those of its classes that the address
// names.
func (s *server) readRegister(c *gin.Context) {
	data, err := wholeBody(c, formats.MaxRegister)
	var register formats.Register
	if err == nil {
		register, err = formats.ReadRegister(data)
	}
	ctx, me, take := c.Request.Context(), visitor(c).Teacher, c.QueryArray("take")
	var there []string
	if err == nil {
		there, err = s.Store.RegisterIDs(ctx, me)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	look := RegisterLook{
		Classes:  []RegisterItem{},
		Problems: register.Problems[:min(len(register.Problems), maxProblems)],
	}
	var taken []store.Registered
	for _, k := range register.Classes {
		look.Classes = append(look.Classes, RegisterItem{ID: k.ID, Name: k.Name, Students: len(k.Students),
			There: slices.Contains(there, k.ID)})
		if slices.Contains(take, k.ID) {
			class := store.Registered{ID: k.ID, Name: k.Name}
			for _, t := range k.Students {
				class.Students = append(class.Students, store.Registered{ID: t.ID, Name: t.Name})
			}
			taken = append(taken, class)
		}
	}
	if len(take) > 0 {
		s.did(c, s.Store.TakeRegister(ctx, me, taken, roster.MaxClass), DidRegister, "")
		return
	}
	if look.Problems == nil {
		look.Problems = []formats.RegisterProblem{}
	}
	c.JSON(http.StatusOK, look)
}

// maxProblems is how many rows that cannot be used are told.
const maxProblems = 100

// cards gives the name cards of a class, to be printed.
func (s *server) cards(c *gin.Context) {
	err := about(c, nil)
	ctx, me := c.Request.Context(), visitor(c).Teacher
	var class store.Class
	if err == nil {
		class, err = s.Store.Class(ctx, me, c.Param("id"))
	}
	var cards []store.NameCard
	if err == nil {
		cards, err = s.Store.Cards(ctx, me, class.ID, func() string { return roster.Card(randomBelow) })
	}
	names := map[string]string{}
	for _, l := range class.List() {
		names[l.ID] = l.Name
	}
	reply := Cards{Class: class.Name, Cards: []NameCard{}}
	for _, k := range cards {
		// What the card holds stands behind a #: it reaches no server's or proxy's log.
		code, failed := qr.Encode(s.publicURL(c)+"/card#"+k.Code, qr.M)
		if failed != nil {
			err = fmt.Errorf("draw QR code: %w", failed)
			break
		}
		path, units := qrPath(code)
		reply.Cards = append(
			reply.Cards,
			NameCard{Student: k.Student, Name: names[k.Student], Code: roster.ShownCard(k.Code),
				QR: path, Units: units},
		)
	}
	if err != nil {
		refuse(c, missing(err))
		return
	}
	s.note(c, DidCards, class.ID, "")
	c.JSON(http.StatusOK, reply)
}

// dropCard makes a card stop: it was lost. The next page of cards has another one.
func (s *server) dropCard(c *gin.Context) {
	err := about(c, nil)
	var out []string
	if err == nil {
		out, err = s.Store.DropCard(c.Request.Context(), visitor(c).Teacher, c.Param("id"), c.Param("student"))
	}
	for _, participant := range out {
		s.Hub.CloseSeat(participant)
	}
	s.did(c, err, DidCard, c.Param("id"))
}

// byCard brings somebody into a lesson with their name card: they are who they are
// there already, on whatever device.
func (s *server) byCard(c *gin.Context) {
	var ask ByCard
	err := readBody(c, &ask)
	var code string
	if err == nil {
		code, err = roster.ReadCard(ask.Card)
	}
	var lessons []store.CardLesson
	if err == nil {
		lessons, err = s.lessonsOf(c, code)
	}
	if err == nil && ask.Session != "" {
		lessons = slices.DeleteFunc(lessons, func(l store.CardLesson) bool { return l.Session != ask.Session })
	}
	switch {
	case err != nil:
		refuse(c, err)
	case len(lessons) == 0:
		refuse(c, refusal.New(refusal.NoLessonNow))
	case len(lessons) > 1:
		reply := CameIn{}
		for _, l := range lessons {
			reply.Lessons = append(reply.Lessons, CardLesson{l.Session, l.Title})
		}
		c.JSON(http.StatusOK, reply)
	default:
		seat, err := s.comeIn(c, lessons[0])
		if err != nil {
			refuse(c, err)
			return
		}
		c.JSON(http.StatusOK, CameIn{Seat: &seat})
	}
}

// lessonsOf finds the lessons that a card opens, and counts wrong cards as wrong codes.
func (s *server) lessonsOf(c *gin.Context, code string) ([]store.CardLesson, error) {
	done, ok := s.codes.try(c.ClientIP(), time.Now())
	if !ok {
		return nil, refusal.New(refusal.TooMany)
	}
	lessons, known, err := s.Store.ByCard(c.Request.Context(), code)
	done(err == nil && !known)
	if err == nil && !known {
		err = refusal.New(refusal.CardUnknown)
	}
	return lessons, err
}

// comeIn gives the device a seat in a lesson as the student of a card.
func (s *server) comeIn(c *gin.Context, l store.CardLesson) (Seat, error) {
	ctx := c.Request.Context()
	found, err := s.Store.Session(ctx, l.Session)
	if err != nil {
		return Seat{}, err
	}
	if p := visitor(c).Participant; p != nil && l.Participant != nil && p.ID == *l.Participant &&
		found.State.V.Seated(p.ID) {
		return seatIn(found, p.Name), nil // they are there on this device
	}
	if wasOut(c, found) {
		return Seat{}, refusal.New(refusal.SentOut)
	}
	token, name, there := rand.Text()+rand.Text(), "", l.Participant
	if !s.mayTake(c, found) {
		return Seat{}, refusal.New(refusal.TooMany)
	}
	if there == nil {
		var p store.Participant
		p, err = s.enter(ctx, found, entering{name: l.Name, student: l.Student, token: token, card: true})
		name = p.Name
		if errors.Is(err, store.ErrThere) { // another device of theirs was quicker
			there = &p.ID
		}
	}
	if there != nil {
		if !found.State.V.Seated(*there) {
			return Seat{}, refusal.New(refusal.SentOut)
		}
		name, err = s.Store.Return(ctx, *there, hashed(token))
	}
	if err != nil {
		return Seat{}, err
	}
	s.setSeat(c, token, seatLasts)
	return seatIn(found, name), nil
}

// tie notes which student of the class a participant is.
func (s *server) tie(c *gin.Context) {
	var ask TieStudent
	err := about(c, &ask)
	if err == nil && ask.Student != "" && !id.IsUUID(ask.Student) {
		err = refusal.New(refusal.NotFound)
	}
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	if err == nil {
		err = s.Hub.Tie(c.Request.Context(), n.ID, c.Param("participant"), ask.Student)
	}
	done(c, err)
}

// renamePerson gives a participant another name.
func (s *server) renamePerson(c *gin.Context) {
	var ask RenamePerson
	err := about(c, &ask)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	var name string
	if err == nil {
		name, err = roster.ReadName(ask.Name)
	}
	var teacher store.Teacher
	if err == nil {
		teacher, err = s.Store.TeacherByID(c.Request.Context(), n.TeacherID)
	}
	if err == nil {
		err = s.Hub.Rename(c.Request.Context(), n.ID, c.Param("participant"), name, teacher.Name)
	}
	done(c, err)
}

// likely lists which students of the class a participant may be.
func (s *server) likely(c *gin.Context) {
	err := about(c, nil)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	var people []store.Participant
	if err == nil {
		people, err = s.Store.Participants(c.Request.Context(), n.ID)
	}
	at := slices.IndexFunc(people, func(p store.Participant) bool { return p.ID == c.Param("participant") })
	if err == nil && at < 0 {
		err = refusal.New(refusal.NotFound)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	reply := LikelyStudents{Likely: roster.Likely(n.Students.V, people[at].Name), Others: []roster.Listed{}}
	for _, l := range n.Students.V {
		if !slices.Contains(reply.Likely, l) {
			reply.Others = append(reply.Others, l)
		}
	}
	c.JSON(http.StatusOK, reply)
}

// qrPath draws a QR code as the path of an SVG picture of so many units, with the
// quiet zone of four modules that ISO/IEC 18004 asks for (from memory).
func qrPath(code *qr.Code) (path string, units int) {
	const quiet = 4
	var d strings.Builder
	for y := range code.Size {
		for x := range code.Size {
			if code.Black(x, y) {
				fmt.Fprintf(&d, "M%d %dh1v1h-1z", x+quiet, y+quiet)
			}
		}
	}
	return d.String(), code.Size + 2*quiet
}

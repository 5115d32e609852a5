package web

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"path"
	"strings"
	"unicode"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/picture"
	"alpenglow/core/refusal"
	recorded "alpenglow/core/sound"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// picturesPerSession is how many pictures a session keeps.
const picturesPerSession = 1000

// mayBring says who brings a picture into a session: its teacher, or one of
// its students while it runs.
func (s *server) mayBring(c *gin.Context) (session, author string, err error) {
	v, id := visitor(c), c.Param("id")
	if v.Participant != nil && v.Participant.SessionID == id {
		kept, err := s.Store.Session(c.Request.Context(), id)
		switch {
		case err != nil:
		case kept.EndedAt != nil:
			err = refusal.New(refusal.Ended)
		case !kept.State.V.Seated(v.Participant.ID):
			err = refusal.New(refusal.JoinNeeded)
		}
		return id, v.Participant.ID, err
	}
	if v.Teacher == "" {
		return "", "", refusal.New(refusal.JoinNeeded)
	}
	kept, err := s.ownSession(c)
	return kept.ID, lesson.Staff, err
}

// readPicture takes a picture as the body of the request, whatever it calls
// itself. whose lesson or teacher it is for, by is whose rate it counts for.
func (s *server) readPicture(c *gin.Context, whose, by string) (picture.Picture, error) {
	if !s.uploads.limit(by).Allow() {
		return picture.Picture{}, refusal.New(refusal.TooMany)
	}
	file, err := s.uploads.receive(c, whose, by, picture.MaxBytes, refusal.PictureHuge)
	if err != nil {
		return picture.Picture{}, err
	}
	defer file.Close()
	return s.uploads.decode(c.Request.Context(), whose, by, file)
}

// addPicture takes a picture into a session.
func (s *server) addPicture(c *gin.Context) {
	session, author, err := s.mayBring(c)
	if err != nil {
		refuse(c, err)
		return
	}
	read, err := s.readPicture(c, session, session+" "+author)
	if err != nil {
		refuse(c, err)
		return
	}
	id, full, err := s.Store.AddPicture(c.Request.Context(), session, author, read, picturesPerSession)
	if full {
		err = refusal.New(refusal.SheetFull)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, Uploaded{Picture: id, Width: read.Width, Height: read.Height})
}

// keepPicture takes a picture into the school's library, for boards.
func (s *server) keepPicture(c *gin.Context) {
	me := visitor(c).Teacher
	read, err := s.readPicture(c, me, me)
	if err != nil {
		refuse(c, err)
		return
	}
	id, err := s.Store.KeepPicture(c.Request.Context(), me, pictureName(c.Query("name")), read)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, Uploaded{Picture: id, Width: read.Width, Height: read.Height})
}

// pictureName is by what words a picture is found again: its file's name.
func pictureName(file string) string {
	name := strings.Join(strings.FieldsFunc(strings.TrimSuffix(file, path.Ext(file)), func(r rune) bool {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r)
	}), " ")
	if letters := []rune(name); len(letters) > 80 {
		name = string(letters[:80])
	}
	return name
}

// picture gives a picture to those who may see it. A name with covers after the
// id is that picture with the covered parts blank; see lesson.Frame.ForClass.
func (s *server) picture(c *gin.Context) {
	name := strings.Split(c.Param("id"), ".")
	if name[0] == "intake" && len(name) == 3 && visitor(c).Teacher != "" {
		s.intakePicture(c, name)
		return
	}
	if !id.IsUUID(name[0]) {
		refuse(c, refusal.New(refusal.NoSuchPicture))
		return
	}
	kept, err := s.Store.Picture(c.Request.Context(), name[0])
	if err == nil {
		kept, err = s.seen(c, kept, name)
	}
	if errors.Is(err, store.ErrNotFound) {
		err = refusal.New(refusal.NoSuchPicture)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	// A picture never changes; its name is as good as its content. What a teacher says about somebody's work may be
	// taken back.
	c.Header("Cache-Control", "private, max-age=31536000, immutable")
	if kept.Type == recorded.Type && kept.Session != nil {
		c.Header("Cache-Control", "no-store")
	}
	c.Data(http.StatusOK, kept.Type, kept.Data)
}

// staffs reports whether a teacher asks who may see a picture as it is.
func (s *server) staffs(c *gin.Context, kept store.KeptPicture) (bool, error) {
	v := visitor(c)
	if v.Teacher == "" || kept.Session == nil {
		return v.Teacher != "", nil
	}
	return s.Store.Leads(c.Request.Context(), *kept.Session, v.Teacher)
}

// seen gives a picture as the visitor may see it. Teachers see those of their
// own sessions and of the library; students those that people have brought
// into their session, and those that the frames they have been on show.
func (s *server) seen(c *gin.Context, kept store.KeptPicture, name []string) (store.KeptPicture, error) {
	v, none := visitor(c), refusal.New(refusal.NoSuchPicture)
	staffs, err := s.staffs(c, kept)
	if err != nil {
		return kept, err
	}
	if staffs {
		if len(name) == 1 {
			return kept, nil
		}
		// Trying a board shows what a class would see.
		frame, err := s.Store.Frame(c.Request.Context(), v.Teacher, name[1])
		if err != nil {
			return kept, err
		}
		return s.blanked(c.Request.Context(), kept, name, frame)
	}
	if v.Participant == nil {
		return kept, none
	}
	if kept.Session != nil {
		if *kept.Session != v.Participant.SessionID || len(name) > 1 {
			return kept, none
		}
		if kept.Type == recorded.Type { // a teacher's words about somebody's work
			if theirs, err := s.Store.Spoken(c.Request.Context(), name[0], v.Participant.ID); err != nil || !theirs {
				return kept, errors.Join(err, none)
			}
		}
		return kept, nil
	}
	frame, ok, err := s.Hub.ShownPicture(c.Request.Context(), v.Participant.SessionID, strings.Join(name, "."))
	if err != nil || !ok {
		return kept, errors.Join(err, none)
	}
	if len(name) == 1 {
		return kept, nil
	}
	return s.blanked(c.Request.Context(), kept, name, frame)
}

// blanked paints over the parts of a picture that covers hide. A class asks for
// the same one at the same time; it is painted once.
func (s *server) blanked(ctx context.Context, kept store.KeptPicture, name []string,
	frame lesson.Frame) (store.KeptPicture, error) {
	var parts []picture.Part
	for _, b := range frame.BlankIn(name[0], name[2:], kept.Width, kept.Height) {
		parts = append(parts, picture.Part(b))
	}
	key := fmt.Sprint(name[0], parts)
	whole := picture.Picture{Type: kept.Type, Data: kept.Data, Width: kept.Width, Height: kept.Height}
	blank, err := s.blanks.get(key, func() (picture.Picture, error) {
		done, err := s.uploads.turn(context.WithoutCancel(ctx), key)
		if err != nil {
			return whole, err
		}
		defer done()
		return picture.Blank(whole, parts)
	})
	kept.Type, kept.Data = blank.Type, blank.Data
	return kept, err
}

package web

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"time"

	"alpenglow/core/formats"
	"alpenglow/core/lesson"
	"alpenglow/core/picture"
	"alpenglow/core/refusal"
	"alpenglow/live"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
	"golang.org/x/text/language"
)

// Files that are brought in are read beside other work, a few at a time, and
// what they hold waits in a folder until the teacher has chosen from it.
const (
	intakesAtOnce  = 2                // files that are read
	intakesKept    = 60               // read or being read
	intakesOfOne   = 6                // of one teacher
	intakeForgets  = 30 * time.Minute // after which a file that nobody asks for is forgotten
	intakePictures = 400              // of one file
)

// intakes holds what is being brought in on this server.
type intakes struct {
	mu   sync.Mutex
	all  map[string]*intake
	room chan struct{}
}

func newIntakes() *intakes {
	return &intakes{all: map[string]*intake{}, room: make(chan struct{}, intakesAtOnce)}
}

// intake is one file that is being brought in.
type intake struct {
	owner string
	dir   string
	stop  context.CancelFunc
	// language is how numbers are written in it.
	language string

	mu       sync.Mutex
	told     Intake
	pictures []picture.Picture // without their data, which lies in dir
	touched  time.Time
}

// begin makes room for a file of a teacher, forgetting old ones.
func (all *intakes) begin(owner, name, language string) (*intake, context.Context, error) {
	all.mu.Lock()
	defer all.mu.Unlock()
	all.forget(time.Now().Add(-intakeForgets))
	own := 0
	for _, in := range all.all {
		if in.owner == owner {
			own++
		}
	}
	if len(all.all) >= intakesKept || own >= intakesOfOne {
		return nil, nil, refusal.New(refusal.TooMany)
	}
	dir, err := os.MkdirTemp("", "alpenglow-intake-")
	if err != nil {
		return nil, nil, fmt.Errorf("begin intake: %w", err)
	}
	ctx, stop := context.WithCancel(context.Background())
	in := &intake{owner: owner, language: language, dir: dir, stop: stop, touched: time.Now(),
		told: Intake{ID: store.NewID(), Name: name, State: IntakeReading, Pages: []IntakePage{}}}
	all.all[in.told.ID] = in
	return in, ctx, nil
}

// forget drops the files that nobody has asked for since a time; the caller
// holds the lock.
func (all *intakes) forget(before time.Time) {
	for id, in := range all.all {
		in.mu.Lock()
		old := in.touched.Before(before)
		in.mu.Unlock()
		if old {
			all.drop(id)
		}
	}
}

// drop forgets a file; the caller holds the lock.
func (all *intakes) drop(id string) {
	if in, ok := all.all[id]; ok {
		in.stop()
		os.RemoveAll(in.dir)
		delete(all.all, id)
	}
}

// find gives a teacher's file.
func (all *intakes) find(owner, id string) (*intake, error) {
	all.mu.Lock()
	defer all.mu.Unlock()
	in, ok := all.all[id]
	if !ok || in.owner != owner {
		return nil, refusal.New(refusal.NotFound)
	}
	in.mu.Lock()
	in.touched = time.Now()
	in.mu.Unlock()
	return in, nil
}

// close forgets everything; for when the server stops.
func (all *intakes) close() {
	all.mu.Lock()
	defer all.mu.Unlock()
	for id := range all.all {
		all.drop(id)
	}
}

func (in *intake) state() Intake {
	in.mu.Lock()
	defer in.mu.Unlock()
	told := in.told
	told.Pages = append([]IntakePage{}, in.told.Pages...)
	return told
}

func (in *intake) tell(change func(told *Intake)) {
	in.mu.Lock()
	defer in.mu.Unlock()
	change(&in.told)
}

// keep puts a picture into the folder and gives the name by which a page has it.
func (in *intake) keep(p picture.Picture) (string, error) {
	in.mu.Lock()
	n := len(in.pictures)
	in.pictures = append(in.pictures, picture.Picture{Type: p.Type, Width: p.Width, Height: p.Height})
	id := in.told.ID
	in.mu.Unlock()
	if n >= intakePictures {
		return "", refusal.New(refusal.FileHuge)
	}
	if err := os.WriteFile(filepath.Join(in.dir, strconv.Itoa(n)), p.Data, 0o600); err != nil {
		return "", fmt.Errorf("keep a picture of a file: %w", err)
	}
	return "intake." + id + "." + strconv.Itoa(n), nil
}

// picture reads back the n-th picture.
func (in *intake) picture(n int) (picture.Picture, error) {
	in.mu.Lock()
	if n < 0 || n >= len(in.pictures) {
		in.mu.Unlock()
		return picture.Picture{}, refusal.New(refusal.NoSuchPicture)
	}
	p := in.pictures[n]
	in.mu.Unlock()
	data, err := os.ReadFile(filepath.Join(in.dir, strconv.Itoa(n)))
	if err != nil {
		return p, refusal.New(refusal.NoSuchPicture)
	}
	p.Data = data
	return p, nil
}

// bringIn takes a file and begins to read it.
func (s *server) bringIn(c *gin.Context) {
	me := visitor(c).Teacher
	file, err := s.uploads.receive(c, me, me, formats.MaxBoardFile, refusal.FileHuge)
	if err != nil {
		refuse(c, err)
		return
	}
	in, ctx, err := s.intakes.begin(me, pictureName(c.Query("name")), languageOf(c.Query("language")))
	if err != nil {
		file.Close()
		refuse(c, err)
		return
	}
	go s.readIntake(ctx, in, file)
	c.JSON(http.StatusAccepted, in.state())
}

// languageOf gives a language by its tag; English of what is none.
func languageOf(tag string) string {
	if parsed, err := language.Parse(tag); err == nil && len(tag) <= 35 {
		return parsed.String()
	}
	return "en"
}

// readIntake reads a file when it is its turn; until then it lies on the disk.
func (s *server) readIntake(ctx context.Context, in *intake, file *os.File) {
	defer file.Close()
	select {
	case s.intakes.room <- struct{}{}:
		defer func() { <-s.intakes.room }()
	case <-ctx.Done():
		return
	}
	err := error(refusal.New(refusal.Failed))
	s.guarded("intake", func() {
		var data []byte
		if data, err = io.ReadAll(file); err == nil {
			err = s.readInto(ctx, in, data)
		}
	})
	in.tell(func(told *Intake) {
		told.State = IntakeDone
		if err != nil {
			told.State, told.Problem = IntakeFailed, live.ProblemOf(err).Code
		}
	})
	if err != nil && refusal.Of(err) == nil && ctx.Err() == nil {
		s.Log.Error("read a file", "error", store.Bare(err))
	}
}

func (s *server) intake(c *gin.Context) {
	in, err := s.intakes.find(visitor(c).Teacher, c.Param("id"))
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, in.state())
}

// dropIntake stops reading and forgets what was read.
func (s *server) dropIntake(c *gin.Context) {
	in, err := s.intakes.find(visitor(c).Teacher, c.Param("id"))
	if err != nil {
		refuse(c, err)
		return
	}
	s.intakes.mu.Lock()
	s.intakes.drop(in.told.ID)
	s.intakes.mu.Unlock()
	c.Status(http.StatusNoContent)
}

// fromIntake gives the chosen pages as frames with ids of their own, and puts
// their pictures into the library.
func (s *server) fromIntake(ctx context.Context, me string, from FromIntake) ([]lesson.Frame, error) {
	in, err := s.intakes.find(me, from.Intake)
	if err != nil {
		return nil, err
	}
	told := in.state()
	var frames []lesson.Frame
	for _, n := range from.Pages {
		if n < 0 || n >= len(told.Pages) || told.Pages[n].Frame == nil {
			return nil, refusal.New(refusal.NoSuchFrame)
		}
		frame := *told.Pages[n].Frame
		names := map[string]string{}
		for _, name := range frame.Pictures() {
			read, err := in.named(name)
			if err != nil {
				return nil, err
			}
			if names[name], err = s.Store.KeepPicture(ctx, me, told.Name, read); err != nil {
				return nil, err
			}
		}
		frames = append(frames, formats.RenameFrame(frame, names).Copy(store.NewID, nil))
	}
	if from.Row {
		return inRow(frames, told.Title), nil
	}
	return frames, nil
}

// named finds a picture by the name that a page has for it.
func (in *intake) named(name string) (picture.Picture, error) {
	n, err := strconv.Atoi(name[strings.LastIndex(name, ".")+1:])
	if err != nil {
		return picture.Picture{}, refusal.New(refusal.NoSuchPicture)
	}
	return in.picture(n)
}

// intakePicture shows a picture of a file that is being brought in.
func (s *server) intakePicture(c *gin.Context, name []string) {
	in, err := s.intakes.find(visitor(c).Teacher, name[1])
	if err != nil {
		refuse(c, refusal.New(refusal.NoSuchPicture))
		return
	}
	p, err := in.named(strings.Join(name, "."))
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Cache-Control", "private, max-age=3600")
	c.Data(http.StatusOK, p.Type, p.Data)
}

// importBoard makes a board of a board file, whole or not at all.
func (s *server) importBoard(c *gin.Context) {
	ctx, me := c.Request.Context(), visitor(c).Teacher
	body, err := s.uploads.receive(c, me, me, formats.MaxBoardFile, refusal.FileHuge)
	if err != nil {
		refuse(c, err)
		return
	}
	defer body.Close()
	select {
	case s.intakes.room <- struct{}{}:
		defer func() { <-s.intakes.room }()
	case <-ctx.Done():
		return
	}
	file, err := s.readBoard(ctx, me, body)
	if err != nil {
		refuse(c, err)
		return
	}
	made, err := s.takeBoard(ctx, me, file)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, BoardMade{made})
}

// takeBoard makes a board of a file, with the lessons that were held with it, and gives its id.
func (s *server) takeBoard(ctx context.Context, me string, file formats.File) (made string, err error) {
	if file.Board.Title == "" {
		return "", refusal.New(refusal.NameEmpty)
	}
	names := map[string]string{}
	for _, name := range file.Prepared() {
		p, ok := file.Pictures[name]
		if names[name] = store.NewID(); !ok {
			continue
		}
		if names[name], err = s.Store.KeepPicture(ctx, me, file.Board.Title, p); err != nil {
			return "", err
		}
	}
	if made, err = s.Store.AddBoard(ctx, me, formats.Rename(file.Board, names)); err != nil {
		return "", err
	}
	var lessons []string
	for _, h := range file.Held {
		var id string
		if id, err = s.takeHeld(ctx, me, made, h, file, names); err != nil {
			break
		}
		lessons = append(lessons, id)
	}
	if err != nil {
		err = errors.Join(err, s.Store.ForgetBoard(context.WithoutCancel(ctx), made, lessons))
	}
	return made, err
}

// exportBoard writes a board and its pictures as one file.
func (s *server) exportBoard(c *gin.Context) {
	kept, err := s.ownBoard(c)
	if err != nil {
		refuse(c, err)
		return
	}
	var held []formats.Held
	if c.Query("lessons") != "" {
		held, err = s.heldWith(c.Request.Context(), visitor(c).Teacher, c.Param("id"))
	}
	var file formats.File
	if err == nil {
		file, err = s.boardFile(c, formats.File{Board: kept.Board(), Held: held})
	}
	var written bytes.Buffer
	if err == nil {
		err = formats.WriteBoard(&written, file)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Content-Type", "application/zip")
	c.Header("Content-Disposition", fmt.Sprintf("attachment; filename=%q", fileName(file.Board.Title)+".board"))
	c.Data(http.StatusOK, "application/zip", written.Bytes())
}

// boardFile gives a file with its pictures, as far as the teacher may see them and the file has room.
func (s *server) boardFile(c *gin.Context, file formats.File) (formats.File, error) {
	file.Pictures = map[string]picture.Picture{}
	size := 0
	for _, name := range file.Names() {
		p, err := s.Store.Picture(c.Request.Context(), name)
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return file, err
		}
		seen, err := s.staffs(c, p)
		if err != nil {
			return file, err
		}
		if !seen {
			continue // a picture of somebody else's lesson
		}
		if size += len(p.Data); size > formats.MaxBoardFile {
			return file, refusal.New(refusal.FileHuge)
		}
		file.Pictures[name] = picture.Picture{Type: p.Type, Data: p.Data, Width: p.Width, Height: p.Height}
	}
	return file, nil
}

// fileName keeps of a title what every file system takes.
func fileName(title string) string {
	name := strings.Join(strings.FieldsFunc(title, func(r rune) bool {
		return !(r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9')
	}), "-")
	if name == "" {
		return "board"
	}
	return strings.ToLower(name)
}

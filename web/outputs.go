package web

import (
	"bytes"
	"context"
	"image"
	_ "image/jpeg" // pictures are kept as JPEG or PNG
	_ "image/png"
	"io"
	"mime"
	"net/http"
	"os"
	"runtime/debug"
	"slices"
	"strings"
	"sync"
	"time"

	"alpenglow/core/id"
	"alpenglow/core/lesson"
	"alpenglow/core/output"
	"alpenglow/core/paint"
	"alpenglow/core/picture"
	"alpenglow/core/refusal"
	"alpenglow/core/report"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// What is taken out is written beside other work, a few at a time, into a file that is
// forgotten after a while.
const (
	outputsAtOnce = 2
	outputsOfOne  = 3                // of one teacher, being written or waiting to be fetched
	outputsKept   = 60               // of all
	outputForgets = 30 * time.Minute // after which a file is gone
	outputTakes   = 10 * time.Minute // at most
)

// outputs holds what is being taken out on this server.
type outputs struct {
	mu   sync.Mutex
	all  map[string]*making
	room chan struct{}
}

func newOutputs() *outputs {
	return &outputs{all: map[string]*making{}, room: make(chan struct{}, outputsAtOnce)}
}

// making is one file that is being written. Its fields are held by outputs.mu.
type making struct {
	owner      string
	name, mime string
	told       Making
	file       *os.File // nil until it is done
	stop       context.CancelFunc
	began      time.Time
}

// Making says how far a file is that is taken out: Done of All pictures; Ready once it can be fetched,
// Failed where it cannot be written.
type Making struct {
	ID     string       `json:"id"`
	Done   int          `json:"done"`
	All    int          `json:"all"`
	Ready  bool         `json:"ready,omitempty"`
	Failed refusal.Code `json:"failed,omitempty"`
}

// job is what is written of a source that is read beside other work.
type job struct {
	wish   output.Wish
	title  string
	source func(ctx context.Context) (output.Source, error)
}

// putToWork takes a place for a file of a teacher, and writes it beside other work. The oldest of theirs that
// is done goes where there are too many.
func (s *server) putToWork(owner string, j job) (Making, error) {
	made, err := uuid.NewRandom()
	if err != nil {
		return Making{}, err
	}
	ctx, stop := context.WithTimeout(context.Background(), outputTakes)
	m := &making{owner: owner, told: Making{ID: made.String()}, stop: stop, began: time.Now()}
	o := s.outputs
	o.mu.Lock()
	defer o.mu.Unlock()
	mine, oldest := 0, ""
	for key, other := range o.all {
		if other.owner == owner {
			if mine++; (other.told.Ready || other.told.Failed != "") &&
				(oldest == "" || other.began.Before(o.all[oldest].began)) {
				oldest = key
			}
		}
	}
	if mine >= outputsOfOne && oldest != "" {
		o.drop(oldest)
		mine--
	}
	if mine >= outputsOfOne || len(o.all) >= outputsKept {
		stop()
		return Making{}, refusal.New(refusal.TooMany)
	}
	o.all[m.told.ID] = m
	go s.make(ctx, m, j)
	return m.told, nil
}

// drop forgets a file; outputs.mu is held.
func (o *outputs) drop(key string) {
	if m := o.all[key]; m != nil {
		m.stop()
		if m.file != nil {
			m.file.Close()
		}
		delete(o.all, key)
	}
}

// forget forgets what nobody has fetched for long.
func (o *outputs) forget(now time.Time) {
	o.mu.Lock()
	defer o.mu.Unlock()
	for key, m := range o.all {
		if now.Sub(m.began) > outputForgets {
			o.drop(key)
		}
	}
}

func (o *outputs) close() { o.forget(time.Now().Add(2 * outputForgets)) }

// make writes a file, and says what came of it.
func (s *server) make(ctx context.Context, m *making, j job) {
	defer m.stop()
	o := s.outputs
	file, err := s.written(ctx, m, j)
	o.mu.Lock()
	defer o.mu.Unlock()
	if o.all[m.told.ID] != m { // it was given up
		if file != nil {
			file.Close()
		}
		return
	}
	if err != nil {
		m.told.Failed = refusal.Failed
		if known := refusal.Of(err); known != nil {
			m.told.Failed = known.Code
		} else {
			s.Log.Error("write what is taken out", "error", store.Bare(err))
		}
		return
	}
	m.file, m.told.Ready, m.told.Done = file, true, m.told.All
}

// written waits for its turn and writes the file. A bug costs this file alone.
func (s *server) written(ctx context.Context, m *making, j job) (file *os.File, err error) {
	select {
	case s.outputs.room <- struct{}{}:
		defer func() { <-s.outputs.room }()
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	defer func() {
		if p := recover(); p != nil {
			s.panics.Inc()
			s.Log.Error("a bug while something was taken out", "stack", string(debug.Stack()))
			err = refusal.New(refusal.Failed)
		}
		if err != nil && file != nil {
			file.Close()
			file = nil
		}
	}()
	source, err := j.source(ctx)
	if err != nil {
		return nil, err
	}
	if file, err = os.CreateTemp("", "alpenglow-output-*"); err != nil {
		return nil, err
	}
	os.Remove(file.Name()) // it lives as long as it is open
	leaves := j.wish.Leaves(source)
	end, kind := j.wish.End(len(leaves))
	s.outputs.mu.Lock()
	m.name, m.mime, m.told.All = output.Plain(j.title)+end, kind, max(1, len(leaves))
	s.outputs.mu.Unlock()
	if j.wish.What == output.Notes {
		return file, j.wish.WriteList(file, source.Board, j.wish.List(source))
	}
	if len(leaves) == 0 {
		return file, refusal.New(refusal.NothingToTakeOut)
	}
	return file, j.wish.Write(ctx, file, leaves, j.title, s.painted(ctx, source.Board), func(done int) {
		s.outputs.mu.Lock()
		defer s.outputs.mu.Unlock()
		m.told.Done = done
	})
}

// painted gives pictures as they are painted: each is decoded once it is needed, and not kept.
func (s *server) painted(ctx context.Context, board lesson.Board) paint.Pictures {
	return func(name string) *paint.Uploaded {
		parts := strings.Split(name, ".")
		if !id.IsUUID(parts[0]) {
			return nil
		}
		kept, err := s.Store.Picture(ctx, parts[0])
		if err == nil && len(parts) > 2 { // what covers hide is blank
			var frame lesson.Frame
			if frame, _, err = board.Frame(parts[1]); err == nil {
				kept, err = s.blanked(ctx, kept, parts, frame)
			}
		}
		if err != nil {
			return nil // it is painted as an empty box
		}
		return &paint.Uploaded{Type: kept.Type, Data: kept.Data, Width: kept.Width, Height: kept.Height,
			Pixels: func() (image.Image, error) {
				img, _, err := image.Decode(bytes.NewReader(kept.Data))
				if err == nil && max(img.Bounds().Dx(), img.Bounds().Dy()) > picture.Side {
					err = refusal.New(refusal.PictureHuge)
				}
				return img, err
			}}
	}
}

// takeOutBoard begins a file of a board as it was prepared.
func (s *server) takeOutBoard(c *gin.Context) {
	wish, err := readWish(c)
	var kept store.Kept
	if err == nil {
		kept, err = s.ownBoard(c)
	}
	if err == nil && (wish.What != output.Board || wish.Judged || len(wish.Students) > 0) {
		err = refusal.About(refusal.Malformed, "a board has no work of students")
	}
	if err != nil {
		refuse(c, err)
		return
	}
	board := kept.Board()
	s.beginFor(c, job{wish, board.Title, func(context.Context) (output.Source, error) {
		return output.Source{Board: board}, nil
	}})
}

// takeOut begins a file of a lesson.
func (s *server) takeOut(c *gin.Context) {
	wish, err := readWish(c)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	me := visitor(c).Teacher
	s.beginFor(c, job{wish: wish, title: n.Title, source: func(ctx context.Context) (output.Source, error) {
		return s.sourceOf(ctx, n, me, wish)
	}})
}

func readWish(c *gin.Context) (output.Wish, error) {
	var wish output.Wish
	err := readBody(c, &wish)
	if err == nil {
		err = wish.Check()
	}
	return wish, err
}

func (s *server) beginFor(c *gin.Context, j job) {
	told, err := s.putToWork(visitor(c).Teacher, j)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusAccepted, told)
}

// sourceOf reads what is taken out of a lesson.
func (s *server) sourceOf(ctx context.Context, n store.Session, me string, wish output.Wish) (output.Source, error) {
	kept, _, err := s.recordOf(ctx, n)
	source := output.Source{Board: kept.Board, Kept: kept,
		GroupName: func(number int) string { return report.Group(n.Language, number) }}
	if err != nil {
		return source, err
	}
	state, err := s.Store.State(ctx, n.ID)
	if err != nil {
		return source, err
	}
	source.Lifted = state.Lifted
	if wish.Judged {
		all, err := s.Store.Judgements(ctx, n.ID)
		if err != nil {
			return source, err
		}
		for _, j := range all {
			if j.By == me {
				source.Judged = append(source.Judged, j)
			}
		}
	}
	if wish.What == output.Students || wish.What == output.Board {
		return source, nil
	}
	for _, f := range kept.Board.Frames {
		if len(wish.Frames) > 0 && !slices.Contains(wish.Frames, f.ID) {
			continue
		}
		keys, err := s.Store.SheetKeys(ctx, n.ID, f.ID)
		if err != nil {
			return source, err
		}
		loaded, err := s.Store.LoadSheets(ctx, keys)
		if err != nil {
			return source, err
		}
		for _, key := range keys {
			source.On = append(source.On, output.Sheet{Frame: f.ID, Owner: key.Owner, Marks: loaded[key.ID].Marks()})
		}
	}
	return source, nil
}

// ownOutput finds a file that the teacher takes out, and does something with it while it is held.
func (s *server) ownOutput(c *gin.Context, do func(*making)) error {
	o := s.outputs
	o.mu.Lock()
	defer o.mu.Unlock()
	m := o.all[c.Param("output")]
	if m == nil || m.owner != visitor(c).Teacher {
		return refusal.New(refusal.NotFound)
	}
	do(m)
	return nil
}

// output says how far a file is.
func (s *server) output(c *gin.Context) {
	var told Making
	if err := s.ownOutput(c, func(m *making) { told = m.told }); err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, told)
}

// dropOutput gives a file up, whether it is done or not.
func (s *server) dropOutput(c *gin.Context) {
	done(c, s.ownOutput(c, func(m *making) { s.outputs.drop(m.told.ID) }))
}

// outputFile sends a file that is done; it may be fetched again until it is forgotten.
func (s *server) outputFile(c *gin.Context) {
	var content io.ReadSeeker
	var name, kind string
	err := s.ownOutput(c, func(m *making) {
		if m.file == nil {
			return
		}
		if size, err := m.file.Seek(0, io.SeekEnd); err == nil {
			content = io.NewSectionReader(m.file, 0, size)
		}
		name, kind = m.name, m.mime
	})
	if err == nil && content == nil {
		err = refusal.New(refusal.NotFound)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Content-Type", kind)
	c.Header("Content-Disposition", attachment(name))
	http.ServeContent(c.Writer, c.Request, "", time.Time{}, content)
}

// attachment says under which name a file is to be kept.
func attachment(name string) string {
	return mime.FormatMediaType("attachment", map[string]string{"filename": name})
}

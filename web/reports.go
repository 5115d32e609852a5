package web

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/output"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/report"
	"alpenglow/core/sheet"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// LessonReport is how a lesson went, what could be asked again in the next one, and which frames were left unfinished.
type LessonReport struct {
	Report     report.Report  `json:"report"`
	Again      []report.Again `json:"again"`
	Unfinished []string       `json:"unfinished"`
}

// reportOf reads a report of the session in the path.
func (s *server) reportOf(c *gin.Context) (store.Session, record.Record, report.Report, error) {
	n, kept, _, err := s.read(c)
	if err != nil {
		return n, kept, report.Report{}, err
	}
	var bands outcome.Bands
	if b := n.State.V.Bands; b != nil {
		bands = *b
	}
	r := report.Of(kept, bands)
	r.Title, r.Class, r.Began, r.Listed = n.Title, n.ClassName, n.StartedAt.UnixMilli(), len(n.Students.V)
	if n.EndedAt != nil {
		r.Ended = n.EndedAt.UnixMilli()
	}
	return n, kept, r, nil
}

func (s *server) report(c *gin.Context) {
	_, kept, r, err := s.reportOf(c)
	if err != nil {
		refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, LessonReport{r, r.Again(), r.Unfinished(kept.Board)})
}

// reportFile writes a report as pages, as a spreadsheet, or as tidy CSV of its questions or students.
func (s *server) reportFile(c *gin.Context) {
	n, _, r, err := s.reportOf(c)
	if err != nil {
		refuse(c, err)
		return
	}
	zone, err := time.LoadLocation(c.Query("zone"))
	if err != nil {
		zone = time.UTC
	}
	file := c.FullPath()[strings.LastIndexByte(c.FullPath(), '/')+1:]
	end := file[strings.IndexByte(file, '.'):]
	mimes := map[string]string{".pdf": "application/pdf", ".csv": "text/csv; charset=utf-8",
		".xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"}
	c.Header("Content-Type", mimes[end])
	c.Header("Content-Disposition", attachment(output.Plain(n.Title+" report")+end))
	switch end {
	case ".pdf":
		err = r.PDF(c.Writer, n.Language, zone)
	case ".xlsx":
		err = r.XLSX(c.Writer)
	default:
		tables := r.Tables()
		table := tables[0]
		if c.Query("by") == "student" {
			table = tables[2]
		}
		err = table.CSV(c.Writer)
	}
	if err != nil {
		s.Log.Error("write report", "error", store.Bare(err))
	}
}

// nextLesson makes a board for the next lesson of what is chosen of this one.
func (s *server) nextLesson(c *gin.Context) {
	var ask report.Wish
	err := readBody(c, &ask)
	var n store.Session
	if err == nil {
		n, err = s.ownSession(c)
	}
	if err == nil && len(ask.Polls)+len(ask.Frames) > lesson.MaxFrames {
		err = refusal.About(refusal.BoardIncorrect, "a board has 1 to %d frames", lesson.MaxFrames)
	}
	var board lesson.Board
	if err == nil {
		board, err = s.Store.Lesson(c.Request.Context(), n.ID)
	}
	added := map[string][]lesson.Element{}
	if err == nil && ask.Additions {
		added, err = s.addedBy(c, n, ask.Frames)
	}
	var next lesson.Board
	if err == nil {
		next, err = ask.Next(board, added, store.NewID)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	s.keepBoard(c, next)
}

// stays reports a picture that was brought into a lesson: it is that class's, and no other class sees it.
func (s *server) stays(ctx context.Context, e lesson.Element) (bool, error) {
	if e.Picture == nil {
		return false, nil
	}
	kept, err := s.Store.Picture(ctx, e.Picture.Picture)
	if errors.Is(err, store.ErrNotFound) {
		return true, nil
	}
	return kept.Session != nil, err
}

// addedBy gives what is on the class's sheets of some frames, but for pictures that stay with the lesson.
func (s *server) addedBy(c *gin.Context, n store.Session, frames []string) (map[string][]lesson.Element, error) {
	ctx, added := c.Request.Context(), map[string][]lesson.Element{}
	for _, f := range frames {
		keys, err := s.Store.SheetKeys(ctx, n.ID, f)
		if err != nil {
			return nil, err
		}
		for _, key := range keys {
			if key.Owner != sheet.ClassOwner {
				continue
			}
			on, err := s.Store.LoadSheet(ctx, key)
			if err != nil {
				return nil, err
			}
			for _, e := range on.Marks() {
				stays, err := s.stays(ctx, e)
				if err != nil {
					return nil, err
				}
				if !stays {
					added[f] = append(added[f], e)
				}
			}
		}
	}
	return added, nil
}

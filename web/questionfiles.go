package web

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"net/http"

	"alpenglow/core/formats"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/questions"
	"alpenglow/core/questions/grid"
	"alpenglow/core/questions/qti"
	"alpenglow/core/questions/script"
	"alpenglow/core/refusal"
	"alpenglow/core/template"
	"alpenglow/store"

	"github.com/gin-gonic/gin"
)

// Questions of a board as a file, each under its name in the address.
var questionFiles = map[string]struct {
	end, mime string
	write     func(to io.Writer, s questions.Sheet, f formats.File) ([]questions.Item, error)
}{
	"text": {".txt", "text/plain; charset=utf-8",
		func(to io.Writer, s questions.Sheet, _ formats.File) ([]questions.Item, error) {
			return script.Write(to, s)
		}},
	"csv": {".csv", "text/csv; charset=utf-8",
		func(to io.Writer, s questions.Sheet, _ formats.File) ([]questions.Item, error) {
			return grid.WriteCSV(to, s)
		}},
	"xlsx": {".xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
		func(to io.Writer, s questions.Sheet, _ formats.File) ([]questions.Item, error) {
			return grid.WriteXLSX(to, s)
		}},
	"qti3": {"-qti3.zip", "application/zip",
		func(to io.Writer, s questions.Sheet, f formats.File) ([]questions.Item, error) {
			return qti.Write(to, s, qti.V3, f.Pictures)
		}},
	"qti2": {"-qti2.zip", "application/zip",
		func(to io.Writer, s questions.Sheet, f formats.File) ([]questions.Item, error) {
			return qti.Write(to, s, qti.V21, f.Pictures)
		}},
}

// QuestionFile says what a file of a board's questions does not hold, question by question; those of which
// it holds everything are not listed.
type QuestionFile struct {
	Questions int            `json:"questions"`
	Lost      []QuestionLoss `json:"lost"`
}

// QuestionLoss is what of a question is lost; all of it where that is its kind.
type QuestionLoss struct {
	At   int              `json:"at"`
	Text string           `json:"text"`
	Lost []questions.Loss `json:"lost"`
}

// sheetOf lists the questions of a board in the order of its frames.
func sheetOf(b lesson.Board) questions.Sheet {
	s := questions.Sheet{Title: b.Title}
	for _, f := range b.Frames {
		for _, p := range f.Polls() {
			s.Items = append(s.Items, questions.Item{Asked: *p.Poll})
		}
	}
	return s
}

// asking gives of a board the questions alone, so that no other pictures are read with it.
func asking(b lesson.Board) lesson.Board {
	frames := []lesson.Frame{}
	for _, f := range b.Frames {
		frames = append(frames, lesson.Frame{ID: f.ID, Prepared: f.Polls()})
	}
	b.Frames = frames
	return b
}

// exportQuestions writes the questions of the board in the path as a file, or with "lost" says what that would
// not hold.
func (s *server) exportQuestions(c *gin.Context) {
	kept, err := s.ownBoard(c)
	format, known := questionFiles[c.Query("as")]
	if err == nil && !known {
		err = refusal.New(refusal.NotFound)
	}
	var file formats.File
	if err == nil {
		file, err = s.boardFile(c, formats.File{Board: asking(kept.Board())})
	}
	if err != nil {
		refuse(c, err)
		return
	}
	if c.Query("lost") != "" {
		told, err := format.write(io.Discard, sheetOf(file.Board), file)
		if err != nil {
			refuse(c, err)
			return
		}
		c.JSON(http.StatusOK, lostOf(told))
		return
	}
	c.Header("Content-Type", format.mime)
	c.Header("Content-Disposition", fmt.Sprintf("attachment; filename=%q", fileName(file.Board.Title)+format.end))
	if _, err := format.write(c.Writer, sheetOf(file.Board), file); err != nil {
		s.Log.Error("write questions", "error", err)
	}
}

func lostOf(items []questions.Item) QuestionFile {
	told := QuestionFile{Questions: len(items), Lost: []QuestionLoss{}}
	for _, i := range items {
		if len(i.Lost) > 0 {
			told.Lost = append(told.Lost, QuestionLoss{i.At, i.Asked.Text, i.Lost})
		}
	}
	return told
}

// readQuestions reads a file of questions, each a page; false of a file that is none.
func (s *server) readQuestions(ctx context.Context, in *intake, data []byte) (bool, error) {
	switch {
	case qti.Is(data):
		p, err := qti.Read(data, in.language, store.NewID)
		if err != nil {
			return true, err
		}
		return true, s.questionPages(ctx, in, p.Sheet, p.Pictures)
	case bytes.HasPrefix(data, []byte("PK\x03\x04")) && bytes.Contains(data, []byte("xl/workbook.xml")):
		sheet, is, err := grid.ReadXLSX(data, in.language, store.NewID)
		if err == nil && is {
			err = s.questionPages(ctx, in, sheet, nil)
		}
		return is || err != nil, err
	case len(data) > questions.MaxFile:
		return false, nil
	case grid.Is(string(data)):
		sheet, err := grid.ReadCSV(string(data), in.language, store.NewID)
		if err == nil {
			err = s.questionPages(ctx, in, sheet, nil)
		}
		return true, err
	case script.Is(data):
		sheet, err := script.Read(data, in.language, store.NewID)
		if err == nil {
			err = s.questionPages(ctx, in, sheet, nil)
		}
		return true, err
	}
	return false, nil
}

// questionPages makes a page of each question, with its pictures.
func (s *server) questionPages(
	ctx context.Context,
	in *intake,
	sheet questions.Sheet,
	pictures map[string][]byte,
) error {
	in.tell(func(told *Intake) { told.Kind, told.Of, told.Title = "questions", len(sheet.Items), sheet.Title })
	for _, item := range sheet.Items {
		if err := ctx.Err(); err != nil {
			return err
		}
		if item.Failed != nil {
			if refusal.Of(item.Failed) == nil {
				return item.Failed
			}
			in.tell(func(told *Intake) {
				told.Pages = append(told.Pages, IntakePage{Problem: refusal.Of(item.Failed).Code, At: item.At})
				told.Done = len(told.Pages)
			})
			continue
		}
		asked, err := s.withPictures(ctx, in, &item, pictures)
		if err != nil {
			return err
		}
		left := []string{}
		for _, l := range item.Lost {
			left = append(left, string(l))
		}
		frame := template.Question(asked, store.NewID)
		if err := in.page(&frame, left, nil); err != nil {
			return err
		}
	}
	return nil
}

// withPictures keeps the pictures of a question, each decoded anew; what is no picture is lost.
func (s *server) withPictures(
	ctx context.Context,
	in *intake,
	item *questions.Item,
	pictures map[string][]byte,
) (poll.Question,
	error) {
	var failed error
	asked := item.Asked.WithPictures(func(name string) string {
		read, err := s.uploads.decode(ctx, in.owner, "", bytes.NewReader(pictures[name]))
		if err == nil {
			name, err = in.keep(read)
		}
		if err == nil {
			return name
		}
		if refusal.Of(err) == nil || refusal.Of(err).Code == refusal.FileHuge {
			failed = err
		}
		item.Lose(questions.LossPicture)
		return ""
	})
	return asked, failed
}

// inRow makes one frame of frames with a question each: they are asked in a row.
func inRow(frames []lesson.Frame, title string) []lesson.Frame {
	if len(frames) < 2 {
		return frames
	}
	row := frames[0]
	row.Title, row.Set = title, &lesson.Set{OwnPace: true, Feedback: lesson.FeedbackAtEnd}
	row.Prepared = nil
	for _, f := range frames {
		for _, p := range f.Polls() {
			p.Z = int64(len(row.Prepared) + 1)
			row.Prepared = append(row.Prepared, p)
		}
	}
	return []lesson.Frame{row}
}

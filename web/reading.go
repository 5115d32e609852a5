package web

import (
	"bytes"
	"context"
	"io"
	"strings"

	"alpenglow/core/formats"
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/picture"
	"alpenglow/core/refusal"
	"alpenglow/core/template"
	"alpenglow/pdf"
	"alpenglow/store"
)

// titleLetters is how much of a page's first line becomes its title.
const titleLetters = 60

// readInto reads a file by what it is, whatever it is called, page by page.
func (s *server) readInto(ctx context.Context, in *intake, data []byte) error {
	zipped := bytes.HasPrefix(data, []byte("PK\x03\x04"))
	switch {
	case len(data) == 0:
		return refusal.New(refusal.FileEmpty)
	case bytes.HasPrefix(bytes.TrimLeft(data[:min(len(data), 1024)], "\x00\t\r\n "), []byte("%PDF-")):
		return s.readPDF(ctx, in, data)
	case zipped && bytes.Contains(data, []byte("ppt/presentation.xml")):
		return s.readSlides(ctx, in, data)
	case zipped && bytes.Contains(data, []byte("board.json")):
		return s.readBoardFile(ctx, in, data)
	case bytes.HasPrefix(data, []byte("\xd0\xcf\x11\xe0")) &&
		bytes.Contains(data, []byte("E\x00n\x00c\x00r\x00y\x00p\x00t\x00e\x00d")):
		return refusal.New(refusal.FileLocked)
	}
	if is, err := s.readQuestions(ctx, in, data); is || err != nil {
		return err
	}
	read, err := s.uploads.decode(ctx, in.owner, "", bytes.NewReader(data))
	switch r := refusal.Of(err); {
	case err == nil:
		frame, err := pictureFrame(in, read, "")
		return in.page(frame, nil, err)
	case r == nil || r.Code == refusal.PictureHuge:
		return err
	}
	if zipped || len(data) > 4<<20 {
		return refusal.New(refusal.FileKind)
	}
	return readLines(in, data)
}

// page adds a page, with what could not be brought along; one that is refused
// is there as such, and costs no other.
func (in *intake) page(frame *lesson.Frame, left []string, err error) error {
	p := IntakePage{Frame: frame, Left: left}
	if err != nil {
		if refusal.Of(err) == nil || refusal.Of(err).Code == refusal.FileHuge {
			return err
		}
		p = IntakePage{Problem: refusal.PageFailed}
	}
	in.tell(func(told *Intake) {
		told.Pages = append(told.Pages, p)
		told.Done = len(told.Pages)
		told.Of = max(told.Of, told.Done)
	})
	return nil
}

// pictureFrame is a frame that a picture fills, with the words that are on it.
func pictureFrame(in *intake, p picture.Picture, words string) (*lesson.Frame, error) {
	name, err := in.keep(p)
	if err != nil {
		return nil, err
	}
	f := blank()
	f.Paper = paper.Paper{Kind: paper.Picture, Picture: name, Alt: words}
	f.Arrangement = lesson.Individual
	first, _, _ := strings.Cut(words, "\n")
	if letters := []rune(first); len(letters) > titleLetters {
		first = string(letters[:titleLetters])
	}
	f.Title = first
	return &f, nil
}

func (s *server) readPDF(ctx context.Context, in *intake, data []byte) error {
	if len(s.PDF.Command) == 0 {
		return refusal.New(refusal.FileKind)
	}
	in.tell(func(told *Intake) { told.Kind = "pdf" })
	return s.PDF.Read(ctx, data, func(pages int) {
		in.tell(func(told *Intake) { told.Of, told.More = min(pages, pdf.MaxPages), max(0, pages-pdf.MaxPages) })
	}, func(p pdf.Page) error {
		if p.Failed {
			return in.page(nil, nil, refusal.New(refusal.PageFailed))
		}
		frame, err := pictureFrame(in, picture.Picture{Type: "image/jpeg", Data: p.JPEG, Width: p.Width,
			Height: p.Height}, p.Text)
		return in.page(frame, nil, err)
	})
}

func (s *server) readSlides(ctx context.Context, in *intake, data []byte) error {
	deck, err := formats.OpenDeck(data)
	if err != nil {
		return err
	}
	in.tell(func(told *Intake) { told.Kind, told.Of, told.More = "slides", deck.Len(), deck.More() })
	for n := range deck.Len() {
		slide, err := deck.Slide(n, store.NewID)
		if err == nil {
			err = ctx.Err()
		}
		if err != nil {
			return err
		}
		if slide.Failed {
			err = in.page(nil, nil, refusal.New(refusal.PageFailed))
		} else {
			frame, left, failed := s.slideFrame(ctx, in, deck, slide)
			err = in.page(frame, left, failed)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// slideFrame gives a slide as a frame with its pictures, and says what of it
// could not be brought along.
func (s *server) slideFrame(ctx context.Context, in *intake, deck *formats.Deck, slide formats.Slide) (*lesson.Frame,
	[]string, error) {
	left, names := slide.Left, map[string]string{}
	for _, part := range slide.Frame.Pictures() {
		packed, err := deck.Picture(part)
		if err != nil {
			return nil, nil, err
		}
		read, err := s.uploads.decode(ctx, in.owner, "", bytes.NewReader(packed))
		if refusal.Of(err) != nil {
			left = append(left, "picture")
			continue
		}
		if err != nil {
			return nil, nil, err
		}
		if names[part], err = in.keep(read); err != nil {
			return nil, nil, err
		}
	}
	f := formats.RenameFrame(slide.Frame, names)
	f.Prepared = withRead(f.Prepared, names)
	return &f, left, nil
}

// withRead leaves out those pictures that could not be read.
func withRead(marks []lesson.Element, names map[string]string) []lesson.Element {
	read := map[string]bool{}
	for _, name := range names {
		read[name] = true
	}
	there := []lesson.Element{}
	for _, e := range marks {
		if e.Picture == nil || read[e.Picture.Picture] {
			there = append(there, e)
		}
	}
	return there
}

// readBoard reads a board file, its pictures each in a process of its own.
func (s *server) readBoard(ctx context.Context, whose string, from io.Reader) (formats.File, error) {
	data, err := io.ReadAll(from)
	if err != nil {
		return formats.File{}, err
	}
	return formats.ReadBoard(data, func(packed []byte) (picture.Picture, error) {
		return s.uploads.decode(ctx, whose, "", bytes.NewReader(packed))
	})
}

func (s *server) readBoardFile(ctx context.Context, in *intake, data []byte) error {
	file, err := s.readBoard(ctx, in.owner, bytes.NewReader(data))
	if err != nil {
		return err
	}
	in.tell(func(told *Intake) { told.Kind, told.Of = "board", len(file.Board.Frames) })
	names := map[string]string{}
	for name, p := range file.Pictures {
		if names[name], err = in.keep(p); err != nil {
			return err
		}
	}
	for _, f := range file.Board.Frames {
		f = formats.RenameFrame(f, names)
		if err := in.page(&f, nil, nil); err != nil {
			return err
		}
	}
	return nil
}

// readLines makes of a text two frames to choose from: its lines as notes, and
// as cards to sort in the tray.
func readLines(in *intake, data []byte) error {
	listed, err := formats.Lines(data)
	if err != nil {
		return err
	}
	in.tell(func(told *Intake) { told.Kind, told.More = "lines", listed.More })
	for _, pieces := range []bool{false, true} {
		f := template.Cards(listed.Lines, pieces, store.NewID)
		f.Title = listed.Heading
		if err := in.page(&f, nil, nil); err != nil {
			return err
		}
	}
	return nil
}

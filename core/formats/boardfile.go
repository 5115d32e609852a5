package formats

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/picture"
	"alpenglow/core/refusal"
	"alpenglow/core/sound"
)

// BoardVersion is the version of the board file that is written. A file of a
// newer one is refused, because something on it would be lost; older ones are
// read.
const BoardVersion = 3

// Limits of a board file.
const (
	MaxBoardFile = 100 << 20 // bytes
	maxBoardJSON = 20 << 20
	maxPictures  = 1000
	maxObjects   = 300_000 // of a board's JSON: of 60 frames with 2,000 marks, each with its body
	maxAllJSON   = 60 << 20
	maxAll       = 600_000 // objects of all lessons together
)

// File is what a board file holds.
type File struct {
	Board lesson.Board
	// Held are lessons that were held with it.
	Held []Held
	// Pictures are by the names that the board and the lessons have for them.
	Pictures map[string]picture.Picture
}

// Prepared lists the pictures of what was prepared, on the board and in the lessons.
func (f File) Prepared() []string {
	names := picturesOf(f.Board)
	for _, h := range f.Held {
		names = append(names, picturesOf(h.Board)...)
	}
	return once(names)
}

// Names lists all pictures and recordings that belong in the file.
func (f File) Names() []string {
	names := f.Prepared()
	for _, h := range f.Held {
		names = append(names, h.Pictures()...)
	}
	return once(names)
}

func once(names []string) []string {
	var all []string
	seen := map[string]bool{}
	for _, name := range names {
		if !seen[name] {
			seen[name], all = true, append(all, name)
		}
	}
	return all
}

// header is board.json in the file; see docs/formats/board-file.md.
type header struct {
	Format  string          `json:"format"`
	Version int             `json:"version"`
	Board   json.RawMessage `json:"board"`
	// Lessons is how many files there are in the folder of that name.
	Lessons int `json:"lessons,omitempty"`
}

const formatName = "alpenglow-board"

// WriteBoard writes a board, its lessons and its pictures as one file: a zip of board.json,
// and folders of lessons and of pictures. What could not be read again is refused before
// anything is written.
func WriteBoard(to io.Writer, f File) error {
	text, err := json.Marshal(f.Board)
	if err != nil {
		return fmt.Errorf("write board file: %w", err)
	}
	text, err = json.Marshal(header{Format: formatName, Version: BoardVersion, Board: text, Lessons: len(f.Held)})
	if err != nil {
		return fmt.Errorf("write board file: %w", err)
	}
	held := make([][]byte, len(f.Held))
	var all scale
	for i, h := range f.Held {
		if held[i], err = json.Marshal(h); err != nil {
			return fmt.Errorf("write board file: %w", err)
		}
		var one scale
		one.Write(held[i])
		all.Write(held[i])
		if one.bytes > maxBoardJSON || one.objects > maxObjects || all.bytes > maxAllJSON || all.objects > maxAll {
			return refusal.About(refusal.FileHuge, "too much in the lessons")
		}
	}
	size := len(text) + all.bytes
	names := f.Names()
	for _, name := range names {
		size += len(f.Pictures[name].Data)
	}
	if len(f.Held) > MaxHeld || len(names) > maxPictures || size > MaxBoardFile {
		return refusal.About(refusal.FileHuge, "a file holds %d lessons, %d pictures and %d MiB", MaxHeld, maxPictures,
			MaxBoardFile>>20)
	}
	archive := zip.NewWriter(to)
	put := func(name string, method uint16, data []byte) error {
		w, err := archive.CreateHeader(&zip.FileHeader{Name: name, Method: method})
		if err == nil {
			_, err = w.Write(data)
		}
		return err
	}
	if err := put("board.json", zip.Deflate, text); err != nil {
		return fmt.Errorf("write board file: %w", err)
	}
	for i, text := range held {
		if err := put(lessonName(i), zip.Deflate, text); err != nil {
			return fmt.Errorf("write board file: %w", err)
		}
	}
	for _, name := range names {
		p, ok := f.Pictures[name]
		if !ok {
			continue
		}
		if err := put("pictures/"+name+ending(p.Type), zip.Store, p.Data); err != nil {
			return fmt.Errorf("write board file: %w", err)
		}
	}
	return archive.Close()
}

func lessonName(i int) string { return fmt.Sprintf("lessons/%d.json", i+1) }

func ending(mediaType string) string {
	switch mediaType {
	case "image/jpeg":
		return ".jpg"
	case sound.Type:
		return ".wav"
	}
	return ".png"
}

func picturesOf(b lesson.Board) []string {
	var names []string
	for _, f := range b.Frames {
		for _, name := range f.Pictures() {
			if !slices.Contains(names, name) {
				names = append(names, name)
			}
		}
	}
	return names
}

// ReadBoard reads a board file. Only board.json and the pictures that the board
// names are looked at, whatever else is in the zip and whatever it is called;
// each is unpacked within its limit, and pictures are decoded anew by read.
func ReadBoard(data []byte, read func(packed []byte) (picture.Picture, error)) (File, error) {
	if len(data) > MaxBoardFile {
		return File{}, refusal.New(refusal.FileHuge)
	}
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return File{}, refusal.New(refusal.FileUnreadable)
	}
	text, err := unpack(archive, "board.json", maxBoardJSON)
	if err != nil {
		return File{}, err
	}
	var head header
	if err := json.Unmarshal(text, &head); err != nil || head.Format != formatName || head.Version < 1 {
		return File{}, refusal.New(refusal.FileUnreadable)
	}
	if head.Version > BoardVersion {
		return File{}, refusal.About(refusal.FileNewer, "version %d, this program reads %d", head.Version, BoardVersion)
	}
	if head.Version == 1 {
		if head.Board, err = renewed(head.Board); err != nil {
			return File{}, refusal.New(refusal.FileUnreadable)
		}
	}
	f := File{Pictures: map[string]picture.Picture{}}
	reader := json.NewDecoder(bytes.NewReader(head.Board))
	reader.DisallowUnknownFields()
	if err := reader.Decode(&f.Board); err != nil {
		return File{}, refusal.New(refusal.FileUnreadable)
	}
	if err := f.Board.Check(); err != nil {
		return File{}, err
	}
	if head.Lessons < 0 || head.Lessons > MaxHeld {
		return File{}, refusal.New(refusal.FileHuge)
	}
	var all scale
	for i := range head.Lessons {
		text, err := unpack(archive, lessonName(i), maxBoardJSON)
		if err != nil {
			return File{}, err
		}
		if all.Write(text); all.bytes > maxAllJSON || all.objects > maxAll {
			return File{}, refusal.New(refusal.FileHuge)
		}
		h, err := readHeld(text)
		if err != nil {
			return File{}, err
		}
		f.Held = append(f.Held, h)
	}
	names := f.Names()
	if len(names) > maxPictures {
		return File{}, refusal.New(refusal.FileHuge)
	}
	gone := f.mayBeGone()
	for _, name := range names {
		for _, end := range []string{".png", ".jpg"} {
			packed, err := unpack(archive, "pictures/"+name+end, picture.MaxBytes)
			if err != nil && refusal.Of(err).Code == refusal.FileUnreadable {
				continue
			}
			if err != nil {
				return File{}, err
			}
			if f.Pictures[name], err = read(packed); err != nil {
				return File{}, err
			}
		}
		if packed, err := unpack(archive, "pictures/"+name+".wav", sound.MaxBytes); err == nil {
			heard, err := sound.Read(packed)
			if err != nil {
				return File{}, err
			}
			f.Pictures[name] = picture.Picture{Type: sound.Type, Data: heard.Data}
		}
		if _, ok := f.Pictures[name]; !ok && !gone[name] {
			return File{}, refusal.About(refusal.FileUnreadable, "a picture is missing")
		}
	}
	return f, nil
}

// mayBeGone names the pictures that are nowhere but in lessons: one may be gone from a lesson, and the lesson is kept.
func (f File) mayBeGone() map[string]bool {
	gone := map[string]bool{}
	for _, h := range f.Held {
		for _, name := range append(picturesOf(h.Board), h.Pictures()...) {
			gone[name] = true
		}
	}
	for _, name := range picturesOf(f.Board) {
		delete(gone, name)
	}
	return gone
}

// unpack reads one file of a zip by its exact name, up to a limit of bytes
// whatever the zip says of its size.
func unpack(archive *zip.Reader, name string, limit int64) ([]byte, error) {
	for _, f := range archive.File {
		if f.Name != name {
			continue
		}
		if f.UncompressedSize64 > uint64(limit) {
			return nil, refusal.New(refusal.FileHuge)
		}
		// What it comes to is known before any of it is kept.
		var weight scale
		if err := unpackTo(&weight, f, limit); err != nil {
			return nil, err
		}
		if strings.HasSuffix(name, ".json") && weight.objects > maxObjects {
			return nil, refusal.New(refusal.FileHuge)
		}
		var data bytes.Buffer
		data.Grow(weight.bytes + bytes.MinRead)
		err := unpackTo(&data, f, limit)
		return data.Bytes(), err
	}
	return nil, refusal.About(refusal.FileUnreadable, "%s is missing", strings.ToLower(name))
}

func unpackTo(to io.Writer, f *zip.File, limit int64) error {
	r, err := f.Open()
	if err != nil {
		return refusal.New(refusal.FileUnreadable)
	}
	defer r.Close()
	n, err := io.Copy(to, io.LimitReader(r, limit+1))
	switch {
	case err != nil:
		return refusal.New(refusal.FileUnreadable)
	case n > limit:
		return refusal.New(refusal.FileHuge)
	}
	return nil
}

// scale weighs what is written to it: an empty object of two bytes of JSON
// becomes a mark of some hundred.
type scale struct{ bytes, objects int }

func (s *scale) Write(p []byte) (int, error) {
	s.bytes += len(p)
	s.objects += bytes.Count(p, []byte("{"))
	return len(p), nil
}

// Rename gives a board whose pictures have other names.
func Rename(b lesson.Board, names map[string]string) lesson.Board {
	b.Frames = slices.Clone(b.Frames)
	for i, f := range b.Frames {
		b.Frames[i] = RenameFrame(f, names)
	}
	return b
}

// RenameFrame gives a frame whose pictures have other names.
func RenameFrame(f lesson.Frame, names map[string]string) lesson.Frame {
	other := func(name string) string {
		if to, ok := names[name]; ok {
			return to
		}
		return name
	}
	if f.Paper.Kind == paper.Picture {
		f.Paper.Picture = other(f.Paper.Picture)
	} else {
		f.Paper.Picture = ""
	}
	f.Prepared = slices.Clone(f.Prepared)
	for i, e := range f.Prepared {
		if e.Picture != nil {
			p := *e.Picture
			p.Picture = other(p.Picture)
			f.Prepared[i].Picture = &p
		}
		if e.Poll != nil {
			q := e.Poll.WithPictures(other)
			f.Prepared[i].Poll = &q
		}
	}
	return f
}

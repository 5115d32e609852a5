// Package pdf answers: which pages does a PDF file have, as pictures and as
// text?
//
// PDF files come from anywhere. They are read by PDFium compiled to
// WebAssembly, in a process of its own with limits of memory and time, which
// sees no file and no network. A page that breaks it costs that page alone.
package pdf

import (
	"bytes"
	"context"
	"encoding/gob"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"strconv"
	"time"

	"alpenglow/core/refusal"
)

// The limits of a file.
const (
	MaxBytes = 100 << 20
	MaxPages = 200 // read; what comes after is left out
)

// How long the file may take to open, with the compiling of PDFium the first time, a page to be read, and all of it.
var (
	OpenWithin = 90 * time.Second
	PageWithin = 20 * time.Second
	AllWithin  = 5 * time.Minute
)

// restarts is how many pages may break the reader before it gives up.
const restarts = 3

// Page is one page: a JPEG picture and its text, or Failed.
type Page struct {
	N             int // from 0
	JPEG          []byte
	Width, Height int
	Text          string
	Failed        bool
}

// Head is what the reading process says first; a Page for each page follows, with encoding/gob.
type Head struct {
	Pages   int
	Refused refusal.Code
}

// Reader reads PDF files with a program, this one, that runs pdf/child.
type Reader struct {
	// Command starts the reading process; the number of the first page is added to it.
	Command []string
}

// Read reads a file. count is called once with the number of pages in all,
// and each for each of the first MaxPages in order, while it goes on. What
// cannot be read at all is a refusal; ctx stops it.
func (r Reader) Read(ctx context.Context, data []byte, count func(pages int), each func(Page) error) error {
	if len(data) > MaxBytes {
		return refusal.New(refusal.FileHuge)
	}
	ctx, cancel := context.WithTimeoutCause(ctx, AllWithin, refusal.New(refusal.TooSlow))
	defer cancel()
	next, pages := 0, -1
	for broken := 0; ; broken++ {
		err := r.from(ctx, data, next, func(n int) {
			if pages < 0 {
				pages = n
				count(n)
			}
		}, func(p Page) error {
			next = p.N + 1
			return each(p)
		})
		switch {
		case err == nil || refusal.Of(err) != nil:
			return err
		case ctx.Err() != nil:
			return context.Cause(ctx)
		case !errors.Is(err, errBroken):
			return err
		case pages < 0:
			return refusal.New(refusal.FileUnreadable)
		}
		if err := each(Page{N: next, Failed: true}); err != nil {
			return err
		}
		next++
		if next >= min(pages, MaxPages) {
			return nil
		}
		if broken == restarts {
			return refusal.New(refusal.FileUnreadable)
		}
	}
}

// Warm gets the reader ready, which takes seconds the first time on a machine,
// so that no file has to wait for it.
func (r Reader) Warm(ctx context.Context) error {
	err := r.Read(ctx, []byte("%PDF-"), func(int) {}, func(Page) error { return nil })
	if refusal.Of(err) != nil {
		return nil // it is no file, and that the reader has found out
	}
	return err
}

var errBroken = errors.New("the reader broke")

// from runs one reader from a page on.
func (r Reader) from(ctx context.Context, data []byte, first int, count func(int), each func(Page) error) error {
	ctx, kill := context.WithCancel(ctx)
	defer kill()
	command := exec.CommandContext(ctx, r.Command[0], append(r.Command[1:], strconv.Itoa(first))...)
	command.Env = []string{"HOME=/nonexistent", "TMPDIR=" + os.TempDir()}
	command.Stdin = bytes.NewReader(data)
	command.WaitDelay = time.Second
	command.Stderr = os.Stderr
	out, err := command.StdoutPipe()
	if err != nil {
		return err
	}
	if err := command.Start(); err != nil {
		return fmt.Errorf("start the PDF reader: %w", err)
	}
	defer command.Wait()
	defer kill()
	watch := time.AfterFunc(OpenWithin, kill)
	defer watch.Stop()
	from := gob.NewDecoder(out)
	var h Head
	if err := from.Decode(&h); err != nil {
		return errBroken
	}
	if h.Refused != "" {
		return refusal.New(h.Refused)
	}
	count(h.Pages)
	for n := first; n < min(h.Pages, MaxPages); n++ {
		watch.Reset(PageWithin)
		var p Page
		if err := from.Decode(&p); err != nil {
			return errBroken
		}
		watch.Stop()
		if err := each(p); err != nil {
			return err
		}
	}
	return nil
}

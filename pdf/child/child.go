// Package child is the process that reads a PDF file for package pdf: PDFium, which is compiled to WebAssembly, within
// limits. It is apart so that only the program that is started has to hold it.
package child

import (
	"bytes"
	"context"
	"encoding/gob"
	"errors"
	"fmt"
	"image/jpeg"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"runtime/debug"
	"strings"
	"syscall"
	"unicode"

	"alpenglow/core/refusal"
	"alpenglow/pdf"

	pdfium "github.com/klippa-app/go-pdfium"
	pdferrors "github.com/klippa-app/go-pdfium/errors"
	"github.com/klippa-app/go-pdfium/references"
	"github.com/klippa-app/go-pdfium/requests"
	"github.com/klippa-app/go-pdfium/webassembly"
	"github.com/tetratelabs/wazero"
	"github.com/tetratelabs/wazero/api"
	"github.com/tetratelabs/wazero/experimental"
)

// What the reading process may use.
const (
	memory  = 512 << 20 // bytes that PDFium may use
	address = 8 << 30   // bytes of address space, which includes the compiled program
	seconds = 300       // of processor time
)

// What is made of a page.
const (
	side    = 1600 // pixels, the longer side of its picture
	maxText = 20_000
)

// Run reads the PDF on in from a page on and writes what it finds to out: a pdf.Head, and each pdf.Page. It is the
// whole work of the reading process.
func Run(in io.Reader, out io.Writer, first int) error {
	limit := func(what int, most uint64) error {
		return syscall.Setrlimit(what, &syscall.Rlimit{Cur: most, Max: most})
	}
	if err := errors.Join(limit(syscall.RLIMIT_AS, address), limit(syscall.RLIMIT_CPU, seconds),
		limit(syscall.RLIMIT_CORE, 0)); err != nil {
		return fmt.Errorf("set limits: %w", err)
	}
	debug.SetMemoryLimit(2 * memory)
	debug.SetGCPercent(25) // most of the memory is PDFium's, which does not grow with each page
	data, err := io.ReadAll(io.LimitReader(in, pdf.MaxBytes+1))
	if err != nil {
		return err
	}
	to := gob.NewEncoder(out)
	instance, err := start()
	if err != nil {
		return err
	}
	document, err := instance.OpenDocument(&requests.OpenDocument{File: &data})
	if err != nil {
		code := refusal.FileUnreadable
		if errors.Is(err, pdferrors.ErrPassword) {
			code = refusal.FileLocked
		}
		return to.Encode(pdf.Head{Refused: code})
	}
	count, err := instance.FPDF_GetPageCount(&requests.FPDF_GetPageCount{Document: document.Document})
	if err != nil || count.PageCount == 0 {
		return to.Encode(pdf.Head{Refused: refusal.FileUnreadable})
	}
	if err := to.Encode(pdf.Head{Pages: count.PageCount}); err != nil {
		return err
	}
	for n := first; n < min(count.PageCount, pdf.MaxPages); n++ {
		p, err := read(instance, document.Document, n)
		if err != nil {
			p = pdf.Page{N: n, Failed: true}
		}
		if err := to.Encode(p); err != nil {
			return err
		}
	}
	return nil
}

// start starts PDFium with an empty file system. What it was compiled to is
// kept in the user's cache folder, since compiling takes seconds.
func start() (pdfium.Pdfium, error) {
	config := wazero.NewRuntimeConfig().WithMemoryLimitPages(memory / 65536).
		WithCoreFeatures(api.CoreFeaturesV2 | experimental.CoreFeaturesExceptionHandling)
	if cache, err := wazero.NewCompilationCacheWithDir(filepath.Join(os.TempDir(),
		fmt.Sprintf("alpenglow-pdf-%d", os.Getuid()))); err == nil {
		config = config.WithCompilationCache(cache)
	}
	pool, err := webassembly.Init(webassembly.Config{Context: context.Background(), MinIdle: 1, MaxIdle: 1, MaxTotal: 1,
		FSConfig: wazero.NewFSConfig().WithFSMount(empty{}, "/"), RuntimeConfig: config, Stdout: io.Discard,
		Stderr: io.Discard})
	if err != nil {
		return nil, fmt.Errorf("start PDFium: %w", err)
	}
	return pool.GetInstance(0)
}

// empty is a file system without files.
type empty struct{}

func (empty) Open(name string) (fs.File, error) {
	return nil, &fs.PathError{Op: "open", Path: name, Err: fs.ErrNotExist}
}

// read draws a page and takes its text.
func read(instance pdfium.Pdfium, document references.FPDF_DOCUMENT, n int) (pdf.Page, error) {
	at := requests.Page{ByIndex: &requests.PageByIndex{Document: document, Index: n}}
	drawn, err := instance.RenderPageInPixels(&requests.RenderPageInPixels{Page: at, Width: side, Height: side})
	if err != nil {
		return pdf.Page{}, err
	}
	defer drawn.Cleanup()
	var picture bytes.Buffer
	if err := jpeg.Encode(&picture, drawn.Result.RenderedImage, &jpeg.Options{Quality: 85}); err != nil {
		return pdf.Page{}, err
	}
	p := pdf.Page{N: n, JPEG: picture.Bytes(), Width: drawn.Result.Width, Height: drawn.Result.Height}
	if text, err := instance.GetPageText(&requests.GetPageText{Page: at}); err == nil {
		p.Text = tidied(text.Text)
	}
	return p, nil
}

// tidied leaves words and line ends of a page's text.
func tidied(text string) string {
	var lines []string
	for line := range strings.Lines(strings.ReplaceAll(text, "\r", "\n")) {
		if words := strings.Fields(strings.Map(func(r rune) rune {
			if unicode.IsControl(r) || r == unicode.ReplacementChar || r == 0xFFFE || r == 0xFFFF {
				return ' '
			}
			return r
		}, line)); len(words) > 0 {
			lines = append(lines, strings.Join(words, " "))
		}
	}
	all := []rune(strings.Join(lines, "\n"))
	return string(all[:min(len(all), maxText)])
}

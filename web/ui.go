package web

import (
	"bytes"
	"compress/gzip"
	"fmt"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"

	"alpenglow/core/refusal"

	"github.com/gin-gonic/gin"
)

// file is one file of the interface, ready to send.
type file struct {
	kind    string
	plain   []byte
	zipped  []byte // nil when zipping does not help
	packed  []byte // with Brotli, when it was built; nil for others
	forever bool   // its name changes with its content
}

type ui struct{ files map[string]file }

// newUI reads the built interface into memory, compressed once.
func newUI(built fs.FS) (*ui, error) {
	u := &ui{map[string]file{}}
	err := fs.WalkDir(built, ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || path.Ext(name) == ".br" {
			return err
		}
		plain, err := fs.ReadFile(built, name)
		if err != nil {
			return err
		}
		f := file{kind: mime.TypeByExtension(path.Ext(name)), plain: plain, forever: strings.HasPrefix(name, "assets/")}
		var zipped bytes.Buffer
		w, _ := gzip.NewWriterLevel(&zipped, gzip.BestCompression)
		w.Write(plain)
		w.Close()
		if zipped.Len() < len(plain)*9/10 {
			f.zipped = zipped.Bytes()
		}
		if f.packed, err = fs.ReadFile(built, name+".br"); err != nil {
			f.packed = nil
		}
		u.files["/"+name] = f
		return nil
	})
	if err != nil {
		return nil, fmt.Errorf("read the interface: %w", err)
	}
	return u, nil
}

// serve sends a file of the interface; every address that is no file is a page
// of the interface, which finds its way by itself.
func (u *ui) serve(c *gin.Context) {
	at := c.Request.URL.Path
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead || strings.HasPrefix(at, "/api/") ||
		strings.HasPrefix(at, "/realtime") {
		refuse(c, refusal.New(refusal.NotFound))
		return
	}
	f, ok := u.files[at]
	if !ok && path.Ext(at) != "" {
		refuse(c, refusal.New(refusal.NotFound))
		return
	}
	if !ok {
		if f, ok = u.files["/index.html"]; !ok {
			c.String(http.StatusNotFound, "The interface has not been built: run make build.\n")
			return
		}
	}
	h := c.Writer.Header()
	h.Set("Vary", "Accept-Encoding")
	h.Set("Cache-Control", "no-cache")
	if f.forever {
		h.Set("Cache-Control", "public, max-age=31536000, immutable")
	}
	body, takes := f.plain, c.GetHeader("Accept-Encoding")
	switch {
	case f.packed != nil && strings.Contains(takes, "br"):
		h.Set("Content-Encoding", "br")
		body = f.packed
	case f.zipped != nil && strings.Contains(takes, "gzip"):
		h.Set("Content-Encoding", "gzip")
		body = f.zipped
	}
	c.Data(http.StatusOK, f.kind, body)
}

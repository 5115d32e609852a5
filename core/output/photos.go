package output

import (
	"archive/zip"
	"context"
	"fmt"
	"io"
	"strings"

	"alpenglow/core/paint"
	"alpenglow/core/refusal"
)

// photos writes the pictures that lie on leaves as they are kept, in full size: what was prepared of a board, and of
// a lesson what was added. What is gone is left out; where there is none, it says so.
func photos(ctx context.Context, to io.Writer, leaves []Leaf, prepared bool, pictures paint.Pictures,
	done func(int)) error {
	z, n := zip.NewWriter(to), 0
	for i, l := range leaves {
		if err := ctx.Err(); err != nil {
			return err
		}
		for _, name := range l.photos(prepared) {
			p := pictures(name)
			if p == nil || !strings.HasPrefix(p.Type, "image/") {
				continue
			}
			n++
			end, _, _ := strings.Cut(strings.TrimPrefix(p.Type, "image/"), "+")
			file, err := z.CreateHeader(&zip.FileHeader{Name: fmt.Sprintf("%03d-%s.%s", n, Plain(l.Title()), end)})
			if err == nil {
				_, err = file.Write(p.Data)
			}
			if err != nil {
				return err
			}
		}
		done(i + 1)
	}
	if n == 0 {
		return refusal.New(refusal.NothingToTakeOut)
	}
	return z.Close()
}

// photos lists the pictures on a leaf by their names.
func (l Leaf) photos(prepared bool) []string {
	if prepared {
		return l.Frame.Pictures()
	}
	var names []string
	for _, m := range l.Marks {
		if m.Picture != nil && m.OnFrame() {
			names = append(names, m.Picture.Picture)
		}
	}
	return names
}

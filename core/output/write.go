package output

import (
	"archive/zip"
	"context"
	"image/png"
	"io"

	"alpenglow/core/paint"
)

// Write writes what was wished for of leaves, under a title, and tells after each how many are
// done. It stops with the context's error where that ends, with what was written until then.
func (w Wish) Write(ctx context.Context, to io.Writer, leaves []Leaf, title string, pictures paint.Pictures,
	done func(int)) error {
	switch {
	case w.Form == PDF:
		p := paint.NewPDF(to, pictures)
		for n, page := range w.pages(leaves, title) {
			if err := ctx.Err(); err != nil {
				return err
			}
			p.Add(page)
			done(n)
		}
		return p.Close(title)
	case w.Form == Photos:
		return photos(ctx, to, leaves, w.What == Board, pictures, done)
	case len(leaves) == 1:
		err := w.one(to, leaves[0], pictures)
		done(1)
		return err
	}
	z := zip.NewWriter(to)
	for i, l := range leaves {
		if err := ctx.Err(); err != nil {
			return err
		}
		file, err := z.Create(l.File(i) + forms[w.Form].end)
		if err == nil {
			err = w.one(file, l, pictures)
		}
		if err != nil {
			return err
		}
		done(i + 1)
	}
	return z.Close()
}

// one writes a leaf as a file of its own.
func (w Wish) one(to io.Writer, l Leaf, pictures paint.Pictures) error {
	switch w.Form {
	case SVG:
		return l.Painting().SVG(to, pictures)
	case InkML:
		return l.inkML(to)
	}
	return (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(to, l.Painting().Pixels(w.Width, pictures))
}

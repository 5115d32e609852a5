package output

import (
	"iter"

	"alpenglow/core/lesson"
	"alpenglow/core/letters"
	"alpenglow/core/paint"
)

// How a page is laid out, in points.
const (
	margin   = 34
	between  = 16 // between two frames
	captions = 10 // the size of a caption's letters
	footers  = 8
)

// grid is how many frames lie beside and below each other, and whether the page lies on its longer side.
type grid struct {
	across, down int
	wide         bool
}

var grids = map[int]grid{1: {1, 1, true}, 2: {1, 2, false}, 4: {2, 2, true}, 6: {2, 3, false}}

// pages lays leaves on pages, so many on each, with a caption above each and what is thought of it below.
func (w Wish) pages(leaves []Leaf, title string) iter.Seq2[int, paint.Page] {
	g, size := grids[w.PerPage], papers[w.Paper]
	page := [2]float64{size[0], size[1]}
	if g.wide {
		page = [2]float64{size[1], size[0]}
	}
	wide := (page[0] - 2*margin - float64(g.across-1)*between) / float64(g.across)
	tall := (page[1] - 2*margin - footers*2 - float64(g.down-1)*between) / float64(g.down)
	return func(yield func(int, paint.Page) bool) {
		for from := 0; from < len(leaves); from += w.PerPage {
			part := leaves[from:min(len(leaves), from+w.PerPage)]
			p := paint.Page{W: page[0], H: page[1], Title: part[0].Title()}
			words := paint.NewCanvas(page[0], page[1])
			var frames []paint.Cell
			for i, l := range part {
				x := margin + float64(i%g.across)*(wide+between)
				y := margin + float64(i/g.across)*(tall+between)
				frames = append(frames, l.lay(words, x, y, wide, tall))
			}
			small := letters.Style{Size: footers, Weight: letters.Regular}
			words.Words(title, margin, page[1]-margin, page[0]-2*margin, small, "slate", paint.AtStart, 1)
			p.Cells = append([]paint.Cell{{K: 1, Painting: words.Painting()}}, frames...)
			if !yield(from+len(part), p) {
				return
			}
		}
	}
}

// lay puts a leaf into a part of the page: its caption, the frame as large as fits, a rim round it, and below what
// is thought of it.
func (l Leaf) lay(words *paint.Canvas, x, y, wide, tall float64) paint.Cell {
	plain := letters.Style{Size: captions, Weight: letters.Regular}
	strong := letters.Style{Size: captions, Weight: letters.SemiBold}
	top := words.Words(l.Title(), x, y, wide, strong, "night", paint.AtStart, 1) + 3
	below := 0.0
	const most = 6 // lines of a comment beside a small frame
	if l.Level != "" {
		below += paint.Tall(l.Level, wide, strong)
	}
	if l.Says != "" {
		below += min(most*captions*1.3, paint.Tall(l.Says, wide, plain))
	}
	if below > 0 {
		below += 4
	}
	k := min(wide/lesson.FrameWidth, (tall-top-below)/lesson.FrameHeight)
	w, h := k*lesson.FrameWidth, k*lesson.FrameHeight
	words.Box(x-0.8, y+top-0.8, w+1.6, h+1.6, 0, "line")
	at := y + top + h + 4
	if l.Level != "" {
		at += words.Words(l.Level, x, at, wide, strong, "dusk", paint.AtStart, 1)
	}
	if l.Says != "" {
		words.Words(l.Says, x, at, wide, plain, "night", paint.AtStart, most)
	}
	return paint.Cell{X: x, Y: y + top, K: k, Painting: l.Painting()}
}

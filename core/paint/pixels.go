package paint

import (
	"image"
	"image/color"
	"image/draw"
	"math"

	"alpenglow/core/lesson"

	scale "golang.org/x/image/draw"
	"golang.org/x/image/math/f64"
	"golang.org/x/image/vector"
)

// MaxPixels is how wide a picture is made at most: 4K.
const MaxPixels = 3840

// Pixels gives a painting as a picture that is so many pixels wide, at most MaxPixels.
func (p Painting) Pixels(width int, pictures Pictures) *image.RGBA {
	width = max(1, min(width, MaxPixels))
	k := float64(width) / p.W
	r := &raster{to: image.NewRGBA(image.Rect(0, 0, width, int(math.Round(p.H*k)))), mask: &image.Alpha{}}
	draw.Draw(r.to, r.to.Rect, image.White, image.Point{}, draw.Src)
	for _, i := range p.Items {
		r.item(i, i.At.then(scaled(k)), pictures)
	}
	return r.to
}

type raster struct {
	to   *image.RGBA
	mask *image.Alpha
	scan vector.Rasterizer
}

// near is how far pixels may be from a curve, in pixels.
const near = 0.1

func (r *raster) item(i Item, m Matrix, pictures Pictures) {
	if i.Fill != nil {
		r.fill(i.Path.flat(m, near), *i.Fill, i.Alpha, i.Mix)
	}
	if i.Line != nil {
		r.fill(drawn(i.Path.flat(m, near), *i.Line, m.size()), i.Line.Colour, i.Alpha, i.Mix)
	}
	if i.Words != nil {
		for _, row := range i.Words.Rows {
			for _, c := range row.Clusters {
				for _, g := range c.Glyphs {
					at := scaled(g.Size).then(moved(row.X+c.X+g.X, row.Y+g.Y)).then(m)
					r.fill(Path(g.Face.Outline(g.ID)).flat(at, near), i.Words.Colour, i.Alpha, i.Mix)
				}
			}
		}
	}
	if i.Picture != nil {
		r.picture(*i.Picture, m, i.Alpha, pictures)
	}
}

// fill paints what lies within some lines; where they run round it the same way twice, it is within, too.
func (r *raster) fill(lines []line, c lesson.Colour, alpha float64, mix Mix) {
	x0, y0, x1, y1 := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, l := range lines {
		for _, p := range l.at {
			x0, y0, x1, y1 = min(x0, p[0]), min(y0, p[1]), max(x1, p[0]), max(y1, p[1])
		}
	}
	if !(x0 < x1 && y0 < y1) {
		return
	}
	whole := image.Rect(int(math.Floor(x0)), int(math.Floor(y0)), int(math.Ceil(x1)), int(math.Ceil(y1)))
	on := whole.Intersect(r.to.Rect)
	if on.Empty() {
		return
	}
	r.scan.Reset(on.Dx(), on.Dy())
	for _, l := range lines {
		for i, p := range l.at {
			x, y := float32(p[0]-float64(on.Min.X)), float32(p[1]-float64(on.Min.Y))
			if i == 0 {
				r.scan.MoveTo(x, y)
			} else {
				r.scan.LineTo(x, y)
			}
		}
		r.scan.ClosePath()
	}
	rgb := c.RGB()
	dense := color.NRGBA{uint8(rgb[0]), uint8(rgb[1]), uint8(rgb[2]), uint8(math.Round(255 * alpha))}
	if mix == Over {
		r.scan.Draw(r.to, on, image.NewUniform(dense), image.Point{})
		return
	}
	r.mask = image.NewAlpha(image.Rect(0, 0, on.Dx(), on.Dy()))
	r.scan.Draw(r.mask, r.mask.Rect, image.Opaque, image.Point{})
	r.blend(on, rgb, alpha, mix)
}

// blend lays a colour on a part of the picture as ink or as chalk, where the mask says (W3C Compositing, 5.1).
func (r *raster) blend(on image.Rectangle, rgb [3]float64, alpha float64, mix Mix) {
	for y := range on.Dy() {
		for x := range on.Dx() {
			cover := float64(r.mask.AlphaAt(x, y).A) / 255 * alpha
			if cover == 0 {
				continue
			}
			at := r.to.PixOffset(on.Min.X+x, on.Min.Y+y)
			for k := range 3 {
				below, above := float64(r.to.Pix[at+k])/255, rgb[k]/255
				both := below * above
				if mix == Screen {
					both = below + above - both
				}
				r.to.Pix[at+k] = uint8(math.Round(255 * (below + cover*(both-below))))
			}
		}
	}
}

func (r *raster) picture(p Picture, m Matrix, alpha float64, pictures Pictures) {
	up := pictures.get(p.Name)
	var img image.Image
	if up != nil {
		img, _ = up.Pixels() // one that cannot be read is as good as none
	}
	if img == nil {
		mist := colours["mist"]
		r.fill(box(0, 0, p.W, p.H, even(0)).flat(m, near), mist, alpha, Over)
		return
	}
	b := img.Bounds()
	x, y, w, h := p.place(b.Dx(), b.Dy())
	at := Matrix{w / float64(b.Dx()), 0, 0, h / float64(b.Dy()), x, y}.then(m)
	at = moved(-float64(b.Min.X), -float64(b.Min.Y)).then(at)
	var dense *scale.Options
	if alpha < 1 {
		dense = &scale.Options{SrcMask: image.NewUniform(color.Alpha{uint8(math.Round(255 * alpha))})}
	}
	scale.CatmullRom.Transform(r.to, f64.Aff3{at.A, at.C, at.E, at.B, at.D, at.F}, img, b, scale.Over, dense)
}

// drawn gives what a line covers that is drawn along some ways, which a matrix has made so much larger: a four-cornered
// piece for each straight part and a disc for each corner, all of which run round the same way.
func drawn(ways []line, l Line, larger float64) []line {
	half := l.Width * larger / 2
	var all []line
	for _, way := range ways {
		at := way.at
		if way.closed {
			at = append(at[:len(at):len(at)], at[0])
		}
		for _, piece := range dashed(at, l.Dash, larger) {
			all = append(all, thick(piece, half, l.Round, way.closed && len(l.Dash) == 0)...)
		}
	}
	return all
}

// thick gives what a line through some places covers.
func thick(at [][2]float64, half float64, round, closed bool) []line {
	var all []line
	for i := range at {
		first, last := i == 0, i == len(at)-1
		if ends := (first || last) && !closed; !ends || round {
			all = append(all, disc(at[i], half))
		}
		if last {
			break
		}
		a, b := at[i], at[i+1]
		long := math.Hypot(b[0]-a[0], b[1]-a[1])
		if long == 0 {
			continue
		}
		x, y := -(b[1]-a[1])/long*half, (b[0]-a[0])/long*half
		all = append(all, line{[][2]float64{{a[0] - x, a[1] - y}, {b[0] - x, b[1] - y}, {b[0] + x, b[1] + y},
			{a[0] + x, a[1] + y}}, true})
	}
	return all
}

// disc is a circle that runs round as the pieces of a line do.
func disc(at [2]float64, half float64) line {
	n := int(max(8, min(64, math.Ceil(math.Pi*math.Sqrt(half/near)))))
	d := line{closed: true}
	for i := range n {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		d.at = append(d.at, [2]float64{at[0] + half*cos, at[1] + half*sin})
	}
	return d
}

// dashed parts a way into its dashes.
func dashed(at [][2]float64, dash []float64, larger float64) [][][2]float64 {
	if len(dash) < 2 || len(at) < 2 {
		return [][][2]float64{at}
	}
	var all [][][2]float64
	now, on, left, which := [][2]float64{at[0]}, true, dash[0]*larger, 0
	for i := 1; i < len(at); i++ {
		a, b := at[i-1], at[i]
		long := math.Hypot(b[0]-a[0], b[1]-a[1])
		for gone := 0.0; gone < long; {
			if step := long - gone; step < left {
				left -= step
				break
			}
			gone += left
			p := [2]float64{a[0] + (b[0]-a[0])*gone/long, a[1] + (b[1]-a[1])*gone/long}
			if on {
				all = append(all, append(now, p))
			}
			now, on, which = [][2]float64{p}, !on, 1-which
			left = dash[which] * larger
		}
		if on {
			now = append(now, b)
		}
	}
	if on && len(now) > 1 {
		all = append(all, now)
	}
	return all
}

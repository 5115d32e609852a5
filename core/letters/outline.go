package letters

import (
	"sync"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
)

// Family tells the fonts apart that ship: for everything that people read, for
// headings, and for letters that devices show in fonts of their own.
type Family int

// The families.
const (
	Reading Family = iota
	Display
	Own
)

// Face is a font of a family at a weight.
type Face struct {
	Family Family
	Font   int
	Weight int
}

// Segment is a piece of an outline: M, L, Q or C, to its last point, in letter
// sizes, Y downwards from the base line.
type Segment struct {
	Op     byte
	Points [3][2]float64
}

// Outline gives the closed paths of a glyph; none for one without ink. It must not be changed.
func (f Face) Outline(id uint32) []Segment {
	key := outlined{f, id}
	if known, ok := outlines.Load(key); ok {
		return known.([]Segment)
	}
	faces.mu.Lock()
	face := faces.of[f]
	if face == nil {
		face = f.face()
		faces.of[f] = face
	}
	drawn, _ := face.GlyphData(font.GID(id)).(font.GlyphOutline)
	faces.mu.Unlock()
	path := make([]Segment, len(drawn.Segments))
	up := float64(face.Upem())
	for i, s := range drawn.Segments {
		path[i].Op = map[opentype.SegmentOp]byte{opentype.SegmentOpMoveTo: 'M', opentype.SegmentOpLineTo: 'L',
			opentype.SegmentOpQuadTo: 'Q', opentype.SegmentOpCubeTo: 'C'}[s.Op]
		for k, p := range s.ArgsSlice() {
			path[i].Points[k] = [2]float64{float64(p.X) / up, -float64(p.Y) / up}
		}
	}
	outlines.Store(key, path)
	return path
}

type outlined struct {
	face Face
	id   uint32
}

// Outlines that were made, of glyphs in use; a face at work is not safe for many at once.
var (
	outlines sync.Map
	faces    = struct {
		mu sync.Mutex
		of map[Face]*font.Face
	}{of: map[Face]*font.Face{}}
)

func (f Face) face() *font.Face {
	of := map[Family]func() []*font.Font{Reading: fonts, Display: displayFonts, Own: ownFonts}[f.Family]()
	face := font.NewFace(of[f.Font])
	face.SetVariations([]font.Variation{{Tag: opentype.MustNewTag("wght"), Value: float32(f.Weight)}})
	return face
}

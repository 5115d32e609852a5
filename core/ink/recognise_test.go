package ink

import (
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"
)

var forms = []Form{Line, Arrow, Ellipsoid, Triangle, Rectangle, Diamond, Star}

const (
	each     = 150  // drawings of each form
	scribble = 1000 // drawings that mean none
)

// What is recognised of a hand's drawings, and what is offered on scribbles
// and writing, stands in docs/recognition.md; this test writes the table anew
// with UPDATE=1 and fails when the one there is not true.
func TestRecognise(t *testing.T) {
	h := newHand()
	table := map[Form]map[Form]int{}
	count := func(meant Form, points []Point) {
		if table[meant] == nil {
			table[meant] = map[Form]int{}
		}
		table[meant][Recognise(points).Form]++
	}
	for _, f := range forms {
		for range each {
			count(f, h.draws(f))
		}
	}
	for i := range scribble {
		count(NoForm, h.nonsense(i))
	}
	for _, f := range forms {
		offered, right := each-table[f][NoForm], table[f][f]
		if float64(right) < 0.95*float64(offered) {
			t.Errorf("%s: %d right of %d offered", f, right, offered)
		}
		if offered < each*6/10 {
			t.Errorf("%s: only %d of %d offered", f, offered, each)
		}
	}
	if offered := scribble - table[NoForm][NoForm]; offered > scribble*2/100 {
		t.Errorf("%d offers on %d scribbles", offered, scribble)
	}

	var b strings.Builder
	columns := append(slices.Clone(forms), NoForm)
	name := func(f Form) string {
		if f == NoForm {
			return "nothing"
		}
		return string(f)
	}
	b.WriteString("| meant \\ offered |")
	for _, c := range columns {
		fmt.Fprintf(&b, " %s |", name(c))
	}
	b.WriteString("\n|" + strings.Repeat(" --- |", len(columns)+1) + "\n")
	for _, row := range columns {
		label := name(row)
		if row == NoForm {
			label = "scribbles and writing"
		}
		fmt.Fprintf(&b, "| %s |", label)
		for _, c := range columns {
			fmt.Fprintf(&b, " %d |", table[row][c])
		}
		b.WriteString("\n")
	}
	const doc, begin, end = "../../docs/recognition.md", "<!-- table -->\n", "<!-- end -->"
	text, err := os.ReadFile(doc)
	if err != nil {
		t.Fatal(err)
	}
	head, rest, _ := strings.Cut(string(text), begin)
	old, tail, ok := strings.Cut(rest, end)
	if !ok {
		t.Fatalf("%s has no place for the table", doc)
	}
	if old != b.String() {
		if os.Getenv("UPDATE") != "" {
			err = os.WriteFile(doc, []byte(head+begin+b.String()+end+tail), 0o644)
		} else {
			err = fmt.Errorf("the table in %s is not true any more: run UPDATE=1 go test ./core/ink\n%s", doc,
				b.String())
		}
	}
	if err != nil {
		t.Error(err)
	}
}

// The clean shape lies where the drawing was.
func TestGuessLiesWhereItWasDrawn(t *testing.T) {
	h := newHand()
	for _, f := range forms {
		for range 40 {
			points := h.draws(f)
			g := Recognise(points)
			if g.Form != f {
				continue
			}
			low, high := bounds(points)
			size := low.to(high)
			if f == Line || f == Arrow {
				if g.From.to(points[0]) > 0.05*size {
					t.Errorf("%s begins %g away", f, g.From.to(points[0]))
				}
				continue
			}
			// What was drawn lies in its box, and the box is hardly larger.
			u, v := Point{math.Cos(g.Box.Turn), math.Sin(g.Box.Turn)},
				Point{-math.Sin(g.Box.Turn), math.Cos(g.Box.Turn)}
			var along, wide [2]float64
			for _, p := range points {
				d := p.sub(g.Box.Centre)
				along = [2]float64{min(along[0], d.dot(u)), max(along[1], d.dot(u))}
				wide = [2]float64{min(wide[0], d.dot(v)), max(wide[1], d.dot(v))}
			}
			for _, off := range []float64{along[0] + g.Box.Along, along[1] - g.Box.Along, wide[0] + g.Box.Wide,
				wide[1] - g.Box.Wide} {
				if math.Abs(off) > 0.12*size {
					t.Errorf("%s: an edge lies %.0f away, of %.0f", f, off, size)
				}
			}
		}
	}
}

func TestSmallThingsAreWriting(t *testing.T) {
	var o []Point
	for i := range 40 {
		a := 2 * math.Pi * float64(i) / 39
		o = append(o, Point{18 * math.Cos(a), 18 * math.Sin(a)})
	}
	if g := Recognise(o); g.Form != NoForm {
		t.Errorf("an o was taken for a %s", g.Form)
	}
}

func BenchmarkRecognise(b *testing.B) {
	h := newHand()
	drawings := make([][]Point, 64)
	for i := range drawings {
		drawings[i] = h.draws(forms[i%len(forms)])
	}
	for i := 0; b.Loop(); i++ {
		Recognise(drawings[i%len(drawings)])
	}
}

func BenchmarkLasso(b *testing.B) {
	h := newHand()
	strokes := make([][]Point, 2000)
	for i := range strokes {
		strokes[i] = resample(h.nonsense(i), 80)
	}
	lasso := resample(h.draws(Ellipsoid), 60)
	for b.Loop() {
		for _, s := range strokes {
			Caught(s, lasso)
		}
	}
}

func BenchmarkErase(b *testing.B) {
	h := newHand()
	strokes := make([][]float64, 2000)
	for i := range strokes {
		for _, p := range resample(h.nonsense(i), 80) {
			strokes[i] = append(strokes[i], p.X, p.Y, 0.5)
		}
	}
	e := eraser(resample(h.draws(Line), 20), 20)
	for b.Loop() {
		for _, s := range strokes {
			e.Cut(s)
		}
	}
}

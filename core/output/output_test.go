package output_test

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"reflect"
	"runtime"
	"slices"
	"strings"
	"testing"
	"unicode"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/output"
	"alpenglow/core/paint"
	"alpenglow/core/paper"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
)

func note(id, author, text string, x float64) lesson.Element {
	return lesson.Element{ID: id, Author: author, At: 1, X: x, Y: 200, W: 300, H: 120,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "moss"}}}
}

// source is a lesson of some students on some frames, each with a note and a line on their own sheet; the first
// frame has a cover with words below it, and on the class's sheet a note that is held and one that is hidden.
func source(students, frames int) output.Source {
	s := output.Source{Board: lesson.Board{Title: "Moon and tides"},
		GroupName: func(n int) string { return fmt.Sprint("Group ", n) }}
	for i := range frames {
		f := lesson.Frame{ID: fmt.Sprint("f", i), Title: fmt.Sprint("Tides ", i), Prompt: "What do you see?",
			Paper: paper.Paper{Kind: paper.Squared}, Arrangement: lesson.Individual, Permission: lesson.Add}
		if i == 0 {
			secret := note("secret", "", "under the cover", 60)
			cover := lesson.Element{ID: "cover", X: 40, Y: 150, W: 400, H: 300,
				Body: lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "rose"}}}
			f.Prepared = []lesson.Element{secret, cover}
			held, hidden := note("held", "s0", "held back", 500), note("hidden", "s0", "put away", 900)
			held.Standing = &lesson.Standing{Is: lesson.Held}
			hidden.Standing = &lesson.Standing{Is: lesson.Hidden}
			s.On = append(s.On, output.Sheet{Frame: f.ID, Owner: "class", Marks: []lesson.Element{held, hidden}})
		}
		s.Board.Frames = append(s.Board.Frames, f)
	}
	var marks []record.Mark
	var people []record.Student
	for n := range students {
		who := fmt.Sprint("s", n)
		people = append(people, record.Student{ID: who, Name: fmt.Sprintf("Amara %d/..\\", n)})
		for i, f := range s.Board.Frames {
			line := lesson.Element{ID: fmt.Sprint("l", n, i), Author: who, X: 400, Y: 500, W: 300, H: 100,
				Body: lesson.Body{Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Ink: "ember", Width: 6,
					Points: []float64{0, 0, .5, 100, 100, .7, 300, 20, .5}}}}
			on := []lesson.Element{
				note(fmt.Sprint("n", n, i), who, fmt.Sprintf("=seen by %d # on *%d*", n, i), 500),
				line,
			}
			s.On = append(s.On, output.Sheet{Frame: f.ID, Owner: who, Marks: on})
			for _, e := range on {
				marks = append(marks, record.Mark{Frame: f.ID, Element: e})
			}
		}
	}
	s.Kept = record.Build(s.Board, people, marks)
	return s
}

func TestWish(t *testing.T) {
	for _, c := range []struct {
		wish output.Wish
		ok   bool
	}{
		{output.Wish{What: output.Students, Form: output.PDF}, true},
		{output.Wish{What: output.Notes, Form: output.CSV}, true},
		{output.Wish{What: output.Notes, Form: output.PDF}, false},
		{output.Wish{What: output.Sheets, Form: output.Markdown}, false},
		{output.Wish{What: "all", Form: output.PDF}, false},
		{output.Wish{What: output.Board, Form: "docx"}, false},
		{output.Wish{What: output.Board, Form: output.PDF, PerPage: 3}, false},
		{output.Wish{What: output.Board, Form: output.PNG, Width: 100000}, false},
		{output.Wish{What: output.Board, Form: output.PDF, Frames: []string{"../x"}}, false},
		{output.Wish{What: output.Board, Form: output.PDF, Paper: "letter", PerPage: 6}, true},
	} {
		if err := c.wish.Check(); (err == nil) != c.ok {
			t.Errorf("%+v: %v", c.wish, err)
		}
	}
}

// What is for the class has nothing on it that the class may not see, and no names unless they are wished for, in
// any form.
func TestNothingForTheClassThatItMayNotSee(t *testing.T) {
	s := source(3, 2)
	for _, what := range output.Whats {
		for _, names := range []bool{false, true} {
			w := output.Wish{What: what, Form: output.SVG, AsClass: true, Names: names}
			if what == output.Notes {
				w.Form = output.Markdown
			}
			if err := w.Check(); err != nil {
				t.Fatal(err)
			}
			var all bytes.Buffer
			if what == output.Notes {
				if err := w.WriteList(&all, s.Board, w.List(s)); err != nil {
					t.Fatal(err)
				}
			}
			for _, l := range w.Leaves(s) {
				if err := w.Write(context.Background(), &all, []output.Leaf{l}, "x", nil, func(int) {}); err != nil {
					t.Fatal(err)
				}
			}
			for _, not := range []string{"under the cover", "held back", "put away"} {
				if strings.Contains(all.String(), not) {
					t.Errorf("%s: the class is shown %q", what, not)
				}
			}
			if got := strings.Contains(all.String(), "Amara"); got != (names && what != output.Board) {
				t.Errorf("%s: names %v, wished for %v", what, got, names)
			}
		}
	}
	// The teacher sees all of it, what is hidden faintly.
	w := output.Wish{What: output.Sheets, Form: output.SVG}
	var all bytes.Buffer
	for _, l := range w.Leaves(s) {
		if err := w.Write(context.Background(), &all, []output.Leaf{l}, "x", nil, func(int) {}); err != nil {
			t.Fatal(err)
		}
	}
	for _, want := range []string{"under the cover", "held back", "put away"} {
		if !strings.Contains(all.String(), want) {
			t.Errorf("the teacher is not shown %q", want)
		}
	}
}

// Every form holds each leaf once, and is read by readers of others.
func TestForms(t *testing.T) {
	s := source(4, 3)
	level := assess.Level{At: 1, Scale: []settings.Level{{Name: "not yet"}, {Name: "well on the way"}}}
	by := level
	by.By = &lesson.Criterion{ID: "why", Name: "Says why"}
	drawn := lesson.Element{ID: "ink", X: 10, Y: 10, W: 50, H: 1, Body: lesson.Body{Kind: lesson.KindStroke,
		Stroke: &lesson.Stroke{Points: []float64{0, 0, .5, 50, 1, .5}, Ink: "plum", Width: 5}}}
	s.Judged = []assess.Judged{
		{Piece: assess.Piece{Student: "s1", Frame: "f1"}, Level: &level,
			Word: assess.Word{Comment: "Look at the neap tide", Ink: []lesson.Element{drawn}}},
		{Piece: assess.Piece{Student: "s1", Frame: "f1", Criterion: "why"}, Level: &by},
	}
	for _, form := range []output.Form{output.PDF, output.PNG, output.SVG, output.InkML} {
		w := output.Wish{What: output.Students, Form: form, Names: true, Judged: true, PerPage: 4}
		if err := w.Check(); err != nil {
			t.Fatal(err)
		}
		leaves := w.Leaves(s)
		inked := slices.ContainsFunc(leaves, func(l output.Leaf) bool {
			return slices.ContainsFunc(l.Marks, func(m lesson.Element) bool { return m.ID == "ink" })
		})
		if inked != (form != output.InkML) {
			t.Errorf("%s: what the teacher drew is on it: %t", form, inked)
		}
		if len(leaves) != 12 {
			t.Fatalf("%d leaves", len(leaves))
		}
		var file bytes.Buffer
		last := 0
		if err := w.Write(context.Background(), &file, leaves, "Moon and tides", nil,
			func(n int) { last = n }); err != nil {
			t.Fatal(err)
		}
		if last != 12 {
			t.Errorf("%s: told of %d", form, last)
		}
		if form == output.PDF {
			name := filepath.Join(t.TempDir(), "a.pdf")
			if err := os.WriteFile(name, file.Bytes(), 0o644); err != nil {
				t.Fatal(err)
			}
			text, err := exec.Command("pdftotext", name, "-").Output()
			if err != nil {
				t.Fatal(err)
			}
			for _, want := range []string{"well on the way", "Look at the neap tide", "Says why: well on the way",
				"Moon and tides", "2. Tides 1"} {
				if !strings.Contains(string(text), want) {
					t.Errorf("the pages do not say %q", want)
				}
			}
			continue
		}
		z, err := zip.NewReader(bytes.NewReader(file.Bytes()), int64(file.Len()))
		if err != nil {
			t.Fatal(err)
		}
		names := map[string]bool{}
		for _, f := range z.File {
			names[f.Name] = true
			if strings.ContainsAny(f.Name, `/\:*?"<>|`) || strings.Contains(f.Name, "..") {
				t.Errorf("a file is called %q", f.Name)
			}
			if form == output.InkML {
				r, err := f.Open()
				if err != nil {
					t.Fatal(err)
				}
				var ink struct {
					Traces []string `xml:"trace"`
				}
				if err := xml.NewDecoder(r).Decode(&ink); err != nil || !slices.Equal(ink.Traces,
					[]string{"400 500 0.5, 500 600 0.7, 700 520 0.5"}) {
					t.Errorf("%q, %v", ink.Traces, err)
				}
			}
		}
		if len(names) != 12 {
			t.Errorf("%s: %d files", form, len(names))
		}
	}
}

// Lists hold what was written, once each, and nothing in them is taken for a sign of their form.
func TestLists(t *testing.T) {
	s := source(2, 2)
	w := output.Wish{What: output.Notes, Form: output.CSV, Names: true, Frames: []string{"f1"}}
	list := w.List(s)
	var file bytes.Buffer
	if err := w.WriteList(&file, s.Board, list); err != nil {
		t.Fatal(err)
	}
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(file.String(), "\ufeff"))).ReadAll()
	if err != nil || len(rows) != 3 || rows[1][0] != "2" || strings.HasPrefix(rows[1][4], "=") {
		t.Errorf("%q, %v", rows, err)
	}
	file.Reset()
	w.Form = output.Markdown
	if err := w.WriteList(&file, s.Board, list); err != nil ||
		!strings.Contains(file.String(), `seen by 0 \# on \*1\*`) ||
		!strings.Contains(file.String(), "\n## 2\\. Tides 1\n") {
		t.Errorf("%s, %v", file.String(), err)
	}
	file.Reset()
	w.Form = output.OPML
	var outline struct {
		Outlines []struct {
			Text     string `xml:"text,attr"`
			Outlines []struct {
				Text string `xml:"text,attr"`
			} `xml:"outline"`
		} `xml:"body>outline"`
	}
	err = w.WriteList(&file, s.Board, list)
	if err == nil {
		err = xml.Unmarshal(file.Bytes(), &outline)
	}
	if err != nil || len(outline.Outlines) != 1 || len(outline.Outlines[0].Outlines) != 2 {
		t.Errorf("%+v, %v", outline, err)
	}
}

// A file that is given up stops at once.
func TestGivenUp(t *testing.T) {
	ctx, stop := context.WithCancel(context.Background())
	w := output.Wish{What: output.Students, Form: output.PDF, PerPage: 1, Paper: output.A4}
	s := source(3, 3)
	err := w.Write(ctx, io.Discard, w.Leaves(s), "x", nil, func(n int) {
		if n == 2 {
			stop()
		}
		if n > 2 {
			t.Errorf("it went on to %d", n)
		}
	})
	if !errors.Is(err, context.Canceled) {
		t.Error(err)
	}
}

// Whatever a title is, the name of its file has letters, digits, signs above letters and hyphens alone.
func TestPlain(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 3000 {
		title := make([]rune, r.IntN(80))
		for i := range title {
			title[i] = rune(r.IntN(0x3000))
		}
		name := output.Plain(string(title))
		if name == "" || len([]rune(name)) > 60 || strings.ContainsFunc(name, func(c rune) bool {
			return c != '-' && !unicode.IsLetter(c) && !unicode.IsDigit(c) && !unicode.IsMark(c)
		}) {
			t.Fatalf("%q becomes %q", string(title), name)
		}
	}
}

// Photos come as they are kept, whatever they are called; where there is none, that is said and no empty file is made.
func TestPhotos(t *testing.T) {
	s := source(2, 2)
	photo := lesson.Element{ID: "p", Author: "s1", X: 10, Y: 10, W: 100, H: 100,
		Body: lesson.Body{Kind: lesson.KindPicture, Picture: &lesson.Picture{Picture: "moon"}}}
	gone := photo
	gone.ID, gone.Picture = "g", &lesson.Picture{Picture: "gone"}
	on := &s.Kept.Students[1].Frames[1]
	on.Marks = append(on.Marks, photo, gone)
	data := []byte("as it is kept")
	pictures := func(name string) *paint.Uploaded {
		if name != "moon" {
			return nil
		}
		return &paint.Uploaded{Type: "image/jpeg", Data: data}
	}
	w := output.Wish{What: output.Students, Form: output.Photos, Names: true}
	var file bytes.Buffer
	if err := w.Write(context.Background(), &file, w.Leaves(s), "x", pictures, func(int) {}); err != nil {
		t.Fatal(err)
	}
	z, err := zip.NewReader(bytes.NewReader(file.Bytes()), int64(file.Len()))
	if err != nil || len(z.File) != 1 || !strings.HasSuffix(z.File[0].Name, ".jpeg") ||
		strings.ContainsAny(z.File[0].Name, `/\`) {
		t.Fatalf("%+v, %v", z, err)
	}
	r, err := z.File[0].Open()
	if err != nil {
		t.Fatal(err)
	}
	if got, err := io.ReadAll(r); err != nil || !bytes.Equal(got, data) {
		t.Errorf("%q, %v", got, err)
	}
	w.Students = []string{"s0"}
	if err := w.Write(context.Background(), io.Discard, w.Leaves(s), "x", pictures, func(int) {}); !errors.Is(err,
		refusal.New(refusal.NothingToTakeOut)) {
		t.Errorf("none: %v", err)
	}
}

// Another language's standard library reads the same of CSV, SVG and InkML, where it is on the machine.
func TestReadElsewhere(t *testing.T) {
	python, err := exec.LookPath("python3")
	if err != nil {
		t.Skip("python3 is not on this machine")
	}
	s, folder := source(3, 2), t.TempDir()
	put := func(name string, write func(to io.Writer) error) string {
		t.Helper()
		var file bytes.Buffer
		if err := write(&file); err != nil {
			t.Fatal(err)
		}
		at := filepath.Join(folder, name)
		if err := os.WriteFile(at, file.Bytes(), 0o644); err != nil {
			t.Fatal(err)
		}
		return at
	}
	notes := output.Wish{What: output.Notes, Form: output.CSV, Names: true}
	lists := put("notes.csv", func(to io.Writer) error { return notes.WriteList(to, s.Board, notes.List(s)) })
	read := func(script string, args ...string) string {
		t.Helper()
		out, err := exec.Command(python, append([]string{"-c", script}, args...)...).CombinedOutput()
		if err != nil {
			t.Fatalf("%v: %s", err, out)
		}
		return strings.TrimSpace(string(out))
	}
	ours, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(read("import sys;sys.stdout.write(open(sys.argv[1],"+
		"encoding='utf-8-sig',newline='').read())", lists), "\ufeff"))).
		ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	theirs := read(
		"import csv,json,sys;print(json.dumps(list(csv.reader(open(sys.argv[1],encoding='utf-8-sig',newline='')))))",
		lists,
	)
	var rows [][]string
	if err := json.Unmarshal([]byte(theirs), &rows); err != nil || len(rows) < 4 || !reflect.DeepEqual(rows, ours) {
		t.Errorf("%q and %q, %v", rows, ours, err)
	}
	for form, want := range map[output.Form]string{output.SVG: "{http://www.w3.org/2000/svg}svg",
		output.InkML: "{http://www.w3.org/2003/InkML}ink"} {
		w := output.Wish{What: output.Students, Form: form, Students: []string{"s0"}, Frames: []string{"f1"}}
		file := put("one."+string(form), func(to io.Writer) error {
			return w.Write(context.Background(), to, w.Leaves(s), "x", nil, func(int) {})
		})
		got := read("import sys,xml.etree.ElementTree as t;print(t.parse(sys.argv[1]).getroot().tag)", file)
		if got != want {
			t.Errorf("%s begins with %s", form, got)
		}
	}
}

// BenchmarkClass is a class's work as a PDF, and that of a hall; what the process has taken of memory is reported beside.
func BenchmarkClass(b *testing.B) {
	for _, c := range [][2]int{{30, 6}, {300, 60}} {
		b.Run(fmt.Sprintf("%dx%d", c[0], c[1]), func(b *testing.B) {
			s := source(c[0], c[1])
			w := output.Wish{What: output.Students, Form: output.PDF, PerPage: 1, Paper: output.A4, Names: true}
			var size counted
			for b.Loop() {
				size = 0
				if err := w.Write(context.Background(), &size, w.Leaves(s), "x", nil, func(int) {}); err != nil {
					b.Fatal(err)
				}
			}
			var m runtime.MemStats
			runtime.ReadMemStats(&m)
			b.ReportMetric(float64(m.Sys)/(1<<20), "MiB-of-the-process")
			b.ReportMetric(float64(size)/(1<<20), "MiB-of-PDF")
		})
	}
}

// counted counts what is written to it.
type counted int64

func (c *counted) Write(p []byte) (int, error) {
	*c += counted(len(p))
	return len(p), nil
}

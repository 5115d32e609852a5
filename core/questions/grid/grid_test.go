package grid_test

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"alpenglow/core/poll"
	"alpenglow/core/questions"
	"alpenglow/core/questions/grid"
	"alpenglow/core/questions/sample"
	"alpenglow/core/refusal"
)

func ids() func() string {
	n := 0
	return func() string { n++; return fmt.Sprint("new", n) }
}

// What is written as CSV and as XLSX is read back as the same questions.
func TestThereAndBack(t *testing.T) {
	m := &sample.Maker{Chance: rand.New(rand.NewPCG(21, 22))}
	var asked []questions.Item
	for n := range 400 {
		if k := sample.Kinds[n%len(sample.Kinds)]; k != poll.KindPlaces {
			asked = append(asked, questions.Item{Asked: m.Question(k)})
		}
	}
	var text, sheet bytes.Buffer
	if _, err := grid.WriteCSV(&text, questions.Sheet{Items: asked}); err != nil {
		t.Fatal(err)
	}
	if _, err := grid.WriteXLSX(&sheet, questions.Sheet{Items: asked}); err != nil {
		t.Fatal(err)
	}
	commas, err := grid.ReadCSV(text.String(), "de", ids())
	if err != nil {
		t.Fatal(err)
	}
	xlsx, is, err := grid.ReadXLSX(sheet.Bytes(), "de", ids())
	if err != nil || !is {
		t.Fatal(is, err)
	}
	for _, back := range []questions.Sheet{commas, xlsx} {
		if len(back.Items) != len(asked) {
			t.Fatalf("%d of %d", len(back.Items), len(asked))
		}
		for i := range asked {
			want := sample.Plain(asked[i].Asked)
			if got := sample.Plain(back.Items[i].Asked); back.Items[i].Failed != nil || got != want {
				t.Fatalf("%v\n%s\n%s", back.Items[i].Failed, want, got)
			}
		}
	}
	cells, err := csv.NewReader(strings.NewReader(text.String())).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	for _, row := range cells {
		for _, cell := range row {
			if strings.HasPrefix(cell, "=") || strings.HasPrefix(cell, "+") || strings.HasPrefix(cell, "-") {
				t.Errorf("a cell that would be computed: %s", cell)
			}
		}
	}
}

func TestTables(t *testing.T) {
	for _, text := range []string{"Kind;Question;Answers\nopen;Why?;\n;;\nchoose;Which?;\"+ a\n- b\"\n",
		"kind\tquestion\tanswers\nopen\tWhy?\nchoose\tWhich?\t\"+ a\n- b\"\n"} {
		s, err := grid.ReadCSV(text, "en", ids())
		if err != nil || len(s.Items) != 2 || s.Items[0].Failed != nil || s.Items[1].Failed != nil {
			t.Errorf("%v: %+v", err, s)
		}
	}
	s, err := grid.ReadCSV("kind,question,answers\nfly,?,\nopen,?,steps: 3\nopen,?,\n", "en", ids())
	if err != nil || len(s.Items) != 3 || s.Items[0].Failed == nil || s.Items[1].Failed == nil ||
		s.Items[2].Failed != nil {
		t.Errorf("%v: %+v", err, s)
	}
	for _, text := range []string{"", "name,mail\n", "kind,question,answers\n\"open", strings.Repeat("x",
		questions.MaxFile+1)} {
		if s, err := grid.ReadCSV(text, "en", ids()); refusal.Of(err) == nil {
			t.Errorf("%.30q: %v", text, s)
		}
	}
	if _, _, err := grid.ReadXLSX([]byte("PK\x03\x04 no"), "en", ids()); refusal.Of(err) == nil {
		t.Error("no spreadsheet")
	}
}

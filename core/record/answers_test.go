package record_test

import (
	"bytes"
	"encoding/csv"
	"strings"
	"testing"

	"github.com/xuri/excelize/v2"
)

// Students by questions, read back by other programs' readers: CSV by the standard library's, the spreadsheet
// with types.
func TestAnswers(t *testing.T) {
	rec := quiz(map[string]string{"=ada": "rw-rx", "bo": "-----"})
	rec.Board.Frames[0].Prepared[0].Poll.Text = "=1+1"
	var text, sheet bytes.Buffer
	if err := rec.Answers().CSV(&text); err != nil {
		t.Fatal(err)
	}
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(text.String(), "\uFEFF"))).ReadAll()
	if err != nil || len(rows) != 3 || len(rows[0]) != 10 {
		t.Fatalf("%v: %v", err, rows)
	}
	// The second round counts, in which all who answered were right; the last question is one of opinion.
	want := []string{"'=ada", "right", "1", "right", "1", "", "", "right", "1", "right"}
	for i, cell := range want {
		if rows[1][i] != cell {
			t.Errorf("column %d: %q, not %q", i, rows[1][i], cell)
		}
	}
	if rows[2][0] != "bo" || strings.Join(rows[2][1:], "") != "" {
		t.Errorf("%v", rows[2])
	}
	if err := rec.Answers().XLSX(&sheet); err != nil {
		t.Fatal(err)
	}
	f, err := excelize.OpenReader(&sheet)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	cell := func(at string) (string, excelize.CellType) {
		value, err := f.GetCellValue("answers", at)
		kind, wrong := f.GetCellType("answers", at)
		if err != nil || wrong != nil {
			t.Fatal(err, wrong)
		}
		return value, kind
	}
	if name, kind := cell("A2"); name != "=ada" ||
		kind != excelize.CellTypeSharedString && kind != excelize.CellTypeInlineString {
		t.Errorf("a name that could be computed: %q, %v", name, kind)
	}
	if formula, _ := f.GetCellFormula("answers", "A2"); formula != "" {
		t.Errorf("computed: %s", formula)
	}
	if share, kind := cell("C2"); share != "1" || kind == excelize.CellTypeSharedString {
		t.Errorf("a share that is no number: %q, %v", share, kind)
	}
}

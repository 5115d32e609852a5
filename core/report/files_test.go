package report_test

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"alpenglow/core/outcome"
	"alpenglow/core/report"
	"alpenglow/core/settings"

	"github.com/xuri/excelize/v2"
)

func lesson26() report.Report {
	answers := make([][]string, 26)
	for i := range answers {
		answers[i] = []string{"r", []string{"r", "w", "w"}[i%3], []string{"w", "r", ""}[i%3], "r"}
	}
	r := report.Of(class(answers), outcome.UsualBands)
	r.Title, r.Class, r.Began, r.Listed = "=Moon & tides (8)", "8 Juniper", 1_764_000_000_000, 28
	return r
}

// The pages of a report hold every figure with its span, in each language; poppler reads them.
func TestReportPages(t *testing.T) {
	r := lesson26()
	for language, want := range map[settings.Language][]string{
		settings.English: {"How the lesson went", "26 students took part of 28 on the list", "9 of 26 right",
			"between 19 and 54 %",
			"Let neighbours discuss it", "instead: a week (17)", "Student by student", "Student 25"},
		"de": {"Wie die Stunde war", "9 von 26 richtig", "zwischen 19 und 54 %"},
	} {
		var pdf bytes.Buffer
		if err := r.PDF(&pdf, language, time.UTC); err != nil {
			t.Fatal(err)
		}
		file := filepath.Join(t.TempDir(), "report.pdf")
		if err := os.WriteFile(file, pdf.Bytes(), 0o644); err != nil {
			t.Fatal(err)
		}
		text, err := exec.Command("pdftotext", "-layout", file, "-").Output()
		if err != nil {
			t.Fatalf("%v; pdftotext is in Debian's package poppler-utils", err)
		}
		got := strings.Join(strings.Fields(string(text)), " ")
		for _, w := range want {
			if !strings.Contains(got, w) {
				t.Errorf("%s: no %q in %s", language, w, got)
			}
		}
		if strings.Contains(got, "{{") {
			t.Errorf("%s: a value is missing: %s", language, got)
		}
	}
}

// A spreadsheet's formulas give what the report says, and no text becomes one.
func TestReportSpreadsheet(t *testing.T) {
	var file bytes.Buffer
	r := lesson26()
	r.Students[0].Name = "=1+1"
	if err := r.XLSX(&file); err != nil {
		t.Fatal(err)
	}
	f, err := excelize.OpenReader(&file)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	if got := f.GetSheetList(); strings.Join(got, " ") != "questions frames students" {
		t.Errorf("%v", got)
	}
	if got, _ := f.GetCellFormula("students", "A2"); got != "" {
		t.Errorf("a name is the formula %q", got)
	}
	right := 0
	for _, q := range r.Questions {
		right += q.Advice.Right
	}
	if got, err := f.CalcCellValue("questions", "C6"); err != nil || got != strconv.Itoa(right) {
		t.Errorf("the sum of right answers is %q, want %d (%v)", got, right, err)
	}
	var csv bytes.Buffer
	if err := r.Tables()[2].CSV(&csv); err != nil || strings.Contains(csv.String(), "\n\"=1") ||
		strings.Contains(csv.String(), "\n=1") {
		t.Errorf("%v: %.80s", err, csv.String())
	}
}

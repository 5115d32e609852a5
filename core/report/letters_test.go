package report_test

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/report"
	"alpenglow/core/settings"
)

// pagesOf gives what poppler reads on each page of a PDF.
func pagesOf(t *testing.T, pdf []byte) []string {
	t.Helper()
	file := filepath.Join(t.TempDir(), "letters.pdf")
	if err := os.WriteFile(file, pdf, 0o644); err != nil {
		t.Fatal(err)
	}
	text, err := exec.Command("pdftotext", file, "-").Output()
	if err != nil {
		t.Fatalf("%v; pdftotext is in Debian's package poppler-utils", err)
	}
	pages := strings.Split(strings.TrimSuffix(string(text), "\f"), "\f")
	for i := range pages {
		pages[i] = strings.Join(strings.Fields(pages[i]), " ")
	}
	return pages
}

// A letter to each student: the own work, what was right and why, the level, the grid and the words; the next one
// begins a page, and nothing of one stands in another's.
func TestLetters(t *testing.T) {
	scale := settings.Usually().Scale
	by := lesson.Criterion{ID: "why", Name: "Says why", Words: map[string]string{"Secure": "Gives a reason."}}
	note := lesson.Element{ID: "n", X: 100, Y: 100, W: 400, H: 200, Body: lesson.Body{Kind: lesson.KindNote,
		Note: &lesson.Note{Text: "Two high tides", Tint: "moss"}}}
	line := lesson.Element{ID: "l", X: 100, Y: 400, W: 90, H: 1, Body: lesson.Body{Kind: lesson.KindStroke,
		Stroke: &lesson.Stroke{Points: []float64{0, 0, .5, 90, 1, .5}, Ink: "ember", Width: 5}}}
	noor := assess.Back{Title: "Moon and tides", Name: "Noor", At: 1_764_000_000_000,
		Whole: &assess.Told{Word: assess.Word{Comment: "A good lesson, Noor."}},
		Frames: []assess.BackFrame{{N: 2, Frame: lesson.Frame{ID: "f", Title: "Where is the Moon?"},
			Marks: []lesson.Element{note},
			Judged: &assess.Told{
				Level: &assess.Level{At: 3, Scale: scale},
				Grid:  []assess.Level{{At: 2, Scale: scale, By: &by}},
				Word:  assess.Word{Ink: []lesson.Element{line}, Voice: "v"},
			},
			Marked: map[string]assess.Told{"n": {Word: assess.Word{Comment: "Where did you see that?"}}},
			Answers: []assess.BackAnswer{{Mark: "q", Poll: "q", Round: 1, Asked: "How long is a month?", Text: "7 days",
				Verdict: poll.Wrong, Right: "29.53 days", Why: "The Earth has gone on."}}}}}
	kenji := assess.Back{Title: "Moon and tides", Name: "賢治 Kenji", At: noor.At}
	for language, want := range map[settings.Language][]string{
		settings.English: {"Noor", "Moon and tides · 2025-11-24", "A good lesson, Noor.", "2. Where is the Moon?",
			"Going further", "Says why: Secure – Gives a reason.", "Two high tides", "About your note “Two high tides”",
			"Where did you see that?", "Your answer: 7 days · not right", "Right is: 29.53 days", "The Earth has gone on.",
			"Your teacher has also spoken"},
		settings.German: {"Deine Antwort: 7 days · nicht richtig", "Richtig ist: 29.53 days", "Zu Seite 2"},
	} {
		var pdf bytes.Buffer
		if err := report.Letters(&pdf, []assess.Back{noor, kenji}, language, time.UTC, nil); err != nil {
			t.Fatal(err)
		}
		pages := pagesOf(t, pdf.Bytes())
		if len(pages) != 2 || !strings.Contains(pages[1], "賢治 Kenji") || strings.Contains(pages[0], "Kenji") ||
			strings.Contains(pages[1], "Noor") {
			t.Fatalf("%d pages: %q", len(pages), pages)
		}
		for _, w := range want {
			if !strings.Contains(pages[0], w) {
				t.Errorf("%s: no %q in %s", language, w, pages[0])
			}
		}
		if strings.Contains(strings.Join(pages, ""), "{{") {
			t.Errorf("%s: a value is missing: %s", language, pages)
		}
	}
}

package web_test

import (
	"bytes"
	"net/http"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/report"
	"alpenglow/web"
)

// A lesson's report is its teachers' alone, in every form; of it the next lesson begins, on a board with ids of its
// own.
func TestReports(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	run, code := ines.started()
	vera, _ := h.student(code, "Vera")
	at := "/api/sessions/" + run
	var told web.LessonReport
	if got := ines.get(at+"/report", &told); got != "" || told.Report.Here != 1 || len(told.Report.Frames) == 0 ||
		len(told.Report.Sought) != 1 || told.Report.Sought[0].Why != report.Nothing {
		t.Fatalf("%q %+v", got, told)
	}
	for path, begins := range map[string]string{"/report.pdf": "%PDF-", "/report.xlsx": "PK", "/report.csv": "\ufeff",
		"/report.csv?by=student": "\ufeff", "/report.pdf?zone=../../etc/passwd": "%PDF-"} {
		if status, _, body := ines.send(http.MethodGet, at+path, "", ""); status != http.StatusOK ||
			!bytes.HasPrefix(body, []byte(begins)) {
			t.Errorf("%s: %d %.40q", path, status, body)
		}
		if got := other.get(at+path, nil); got != refusal.NotFound {
			t.Errorf("a colleague reads %s: %q", path, got)
		}
		if got := vera.get(at+path, nil); got != refusal.SignInNeeded {
			t.Errorf("a student reads %s: %q", path, got)
		}
	}
	frame := told.Report.Frames[0].ID
	many := make([]string, 61)
	for i := range many {
		many[i] = frame
	}
	for _, c := range []struct {
		who  *visitor
		wish report.Wish
		want refusal.Code
	}{
		{ines, report.Wish{Title: "Next", Frames: []string{frame}, Additions: true}, ""},
		{ines, report.Wish{Title: "Next", Frames: []string{"nowhere"}}, refusal.NoSuchFrame},
		{ines, report.Wish{Title: "Next", Polls: []string{frame}}, refusal.NoSuchPoll},
		{ines, report.Wish{Title: "Next"}, refusal.BoardIncorrect},
		{ines, report.Wish{Title: "Next", Frames: many}, refusal.BoardIncorrect},
		{other, report.Wish{Title: "Next", Frames: []string{frame}}, refusal.NotFound},
	} {
		var made web.BoardMade
		if got := c.who.post(at+"/next", c.wish, &made); got != c.want {
			t.Errorf("%+v: %q, want %q", c.wish, got, c.want)
		}
		if c.want != "" {
			continue
		}
		var board web.BoardReply
		if got := ines.get("/api/boards/"+made.Board, &board); got != "" || len(board.Frames) != 1 ||
			board.Frames[0].ID == frame || board.Outline.Title != "Next" {
			t.Errorf("%q %+v", got, board)
		}
	}
}

// A lesson that has ended is taken up again by its teachers alone, and once; what was given back is not read meanwhile.
func TestResume(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	run, code := ines.started()
	vera, _ := h.student(code, "Vera")
	at := "/api/sessions/" + run
	resume := func(v *visitor, until int64) refusal.Code { return v.post(at+"/resume", web.Resume{Until: until}, nil) }
	if got := resume(ines, 0); got != refusal.LessonRuns {
		t.Errorf("while it runs: %q", got)
	}
	ines.post(at+"/end", struct{}{}, nil)
	var kept web.RecordReply
	ines.get(at+"/record", &kept)
	ines.post(at+"/given", web.GiveBack{Students: []string{kept.Record.Students[0].ID}}, nil)
	if got := vera.get(at+"/given", nil); got != "" {
		t.Errorf("given back: %q", got)
	}
	if got := resume(other, 0); got != refusal.NotFound {
		t.Errorf("a colleague: %q", got)
	}
	if got := resume(vera, 0); got != refusal.SignInNeeded {
		t.Errorf("a student: %q", got)
	}
	if got := resume(ines, 1000); got != refusal.DatePast {
		t.Errorf("a date that is past: %q", got)
	}
	if got := resume(ines, 0); got != "" {
		t.Fatal(got)
	}
	if got := vera.get(at+"/given", nil); got != refusal.NotGiven {
		t.Errorf("while it runs again: %q", got)
	}
	if kenji, _ := h.student(code, "Kenji"); kenji == nil {
		t.Error("nobody comes in")
	}
	var home web.HomeworkOf
	if got := ines.get(at+"/homework", &home); got != "" || home.Home != nil || len(home.Students) != 0 {
		t.Errorf("%q %+v", got, home)
	}
	ines.post(at+"/end", struct{}{}, nil)
	if ines.get(at+"/record", &kept); len(kept.Days) != 2 || kept.Days[1].Until == 0 {
		t.Errorf("%+v", kept.Days)
	}
	for day, want := range map[string]refusal.Code{"1": "", "2": "", "9": "", "x": refusal.Malformed} {
		if got := ines.get(at+"/line?day="+day, nil); got != want {
			t.Errorf("day %s: %q", day, got)
		}
	}
	if got := vera.get(at+"/given", nil); got != "" {
		t.Errorf("given back again: %q", got)
	}
}

package web_test

import (
	"bytes"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"alpenglow/core/output"
	"alpenglow/core/refusal"
	"alpenglow/web"
)

// made waits until a file is ready or has failed.
func (v *visitor) made(m web.Making) web.Making {
	for end := time.Now().Add(30 * time.Second); !m.Ready && m.Failed == "" && time.Now().Before(end); {
		if code := v.get("/api/outputs/"+m.ID, &m); code != "" {
			m.Failed = code
		}
	}
	return m
}

// What a teacher takes out is made beside other work, fetched as often as they like, given up at any time, and
// known to nobody else; what cannot be made is refused and leaves nothing.
func TestOutputs(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	run, code := ines.started()
	vera, _ := h.student(code, "Vera")
	at := "/api/sessions/" + run + "/outputs"
	board := "/api/boards/" + boardOf(ines) + "/outputs"
	pdf := output.Wish{What: output.Sheets, Form: output.PDF}
	for _, c := range []struct {
		who  *visitor
		path string
		wish output.Wish
		want refusal.Code
	}{
		{other, at, pdf, refusal.NotFound}, {vera, at, pdf, refusal.SignInNeeded},
		{ines, "/api/sessions/" + strings.ToUpper(run) + "/outputs", pdf, refusal.NotFound},
		{ines, at, output.Wish{What: output.Sheets, Form: output.CSV}, refusal.Malformed},
		{ines, at, output.Wish{What: output.Sheets, Form: output.PDF, Frames: []string{"../x"}}, refusal.BadID},
		{ines, board, pdf, refusal.Malformed}, {other, board, output.Wish{What: output.Board, Form: output.SVG},
			refusal.NotFound},
		{ines, board, output.Wish{What: output.Board, Form: output.PDF, Judged: true}, refusal.Malformed},
	} {
		if got := c.who.post(c.path, c.wish, nil); got != c.want {
			t.Errorf("%s %+v: %q, want %q", c.path, c.wish, got, c.want)
		}
	}
	var m web.Making
	if got := ines.post(at, pdf, &m); got != "" {
		t.Fatal(got)
	}
	if m = ines.made(m); !m.Ready || m.Done != m.All {
		t.Fatalf("%+v", m)
	}
	for range 2 {
		status, header, body := ines.send(http.MethodGet, "/api/outputs/"+m.ID+"/file", "", "")
		if status != http.StatusOK || !bytes.HasPrefix(body, []byte("%PDF-")) ||
			header.Get("Content-Type") != "application/pdf" ||
			!strings.Contains(header.Get("Content-Disposition"), ".pdf") {
			t.Errorf("%d %v", status, header)
		}
	}
	for _, who := range []*visitor{other, vera, h.visitor()} {
		for _, path := range []string{"", "/file"} {
			if got := who.get("/api/outputs/"+m.ID+path, nil); got != refusal.NotFound && got != refusal.SignInNeeded {
				t.Errorf("somebody else: %q", got)
			}
		}
		if got := who.remove("/api/outputs/" + m.ID); got != refusal.NotFound && got != refusal.SignInNeeded {
			t.Errorf("somebody else gives it up: %q", got)
		}
	}
	// Work of students who left nothing, and of a student who is not there.
	for _, wish := range []output.Wish{{What: output.Students, Form: output.PNG},
		{What: output.Students, Form: output.PNG, Students: []string{"nobody"}},
		{What: output.Board, Form: output.SVG, Frames: []string{"none"}}} {
		var none web.Making
		if got := ines.post(at, wish, &none); got != "" {
			t.Fatal(got)
		}
		if none = ines.made(none); none.Failed != refusal.NothingToTakeOut {
			t.Errorf("%+v: %+v", wish, none)
		}
		ines.remove("/api/outputs/" + none.ID)
	}
	// Many at once: some find no place, none is lost, and given up they leave their place.
	var group sync.WaitGroup
	var mu sync.Mutex
	var begun []string
	for range 12 {
		group.Go(func() {
			var one web.Making
			switch got := ines.post(at, pdf, &one); got {
			case "":
				mu.Lock()
				begun = append(begun, one.ID)
				mu.Unlock()
			case refusal.TooMany:
			default:
				t.Error(got)
			}
		})
	}
	group.Wait()
	if len(begun) == 0 {
		t.Error("none was made")
	}
	for _, one := range begun {
		if got := ines.remove("/api/outputs/" + one); got != "" && got != refusal.NotFound {
			t.Error(got) // the oldest may have made place for another
		}
	}
	if got := ines.post(at, output.Wish{What: output.Notes, Form: output.OPML}, &m); got != "" {
		t.Error(got)
	}
	if m = ines.made(m); !m.Ready {
		t.Errorf("%+v", m)
	}
}

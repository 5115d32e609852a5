package web_test

import (
	"bytes"
	"encoding/xml"
	"io"
	"net/http"
	"strings"
	"testing"

	"alpenglow/core/output"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
	"alpenglow/web"
)

// Whoever has a link looks at what was chosen and at nothing else, without an account and without names unless they
// were wished for; it is made and taken back by its teacher alone, and leads nowhere from then on.
func TestLooks(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	run, code := ines.started()
	vera, _ := h.student(code, "Vera")
	at := "/api/sessions/" + run + "/looks"
	board := "/api/boards/" + boardOf(ines) + "/looks"
	sheets := output.Wish{What: output.Sheets, Form: output.SVG, Judged: true}
	for _, c := range []struct {
		who  *visitor
		path string
		wish output.Wish
		want refusal.Code
	}{
		{other, at, sheets, refusal.NotFound}, {vera, at, sheets, refusal.SignInNeeded},
		{other, board, sheets, refusal.Malformed},
		{ines, board, sheets, refusal.Malformed}, {ines, at, output.Wish{What: output.Notes, Form: output.CSV},
			refusal.Malformed},
		{other, board, output.Wish{What: output.Board, Form: output.SVG}, refusal.NotFound},
	} {
		if got := c.who.post(c.path, c.wish, nil); got != c.want {
			t.Errorf("%s %+v: %q, want %q", c.path, c.wish, got, c.want)
		}
	}
	var link, second web.LookLink
	if got := ines.post(at, sheets, &link); got != "" || link.Wish.Judged || !link.Wish.AsClass ||
		!strings.Contains(link.Link, "/look/"+link.Word) {
		t.Fatalf("%q %+v", got, link)
	}
	if got := ines.post(board, output.Wish{What: output.Board, Form: output.PDF}, &second); got != "" {
		t.Fatal(got)
	}
	stranger := h.visitor()
	var shown web.Looked
	if got := stranger.get("/api/looks/"+link.Word, &shown); got != "" || len(shown.Pictures) == 0 {
		t.Fatalf("%q %+v", got, shown)
	}
	status, header, body := stranger.send(http.MethodGet, "/api/looks/"+link.Word+"/0", "", "")
	if status != http.StatusOK || header.Get("Content-Type") != "image/svg+xml" ||
		!strings.Contains(header.Get("Content-Security-Policy"), "sandbox") || bytes.Contains(body, []byte("Vera")) {
		t.Errorf("%d %v", status, header)
	}
	for read := xml.NewDecoder(bytes.NewReader(body)); ; {
		token, err := read.Token()
		if err == io.EOF {
			break
		}
		if err != nil {
			t.Fatal(err)
		}
		if e, ok := token.(xml.StartElement); ok && (e.Name.Local == "script" || e.Name.Local == "foreignObject") {
			t.Errorf("a picture has a %s", e.Name.Local)
		}
	}
	for _, path := range []string{"/api/looks/" + link.Word + "/-1", "/api/looks/" + link.Word + "/400",
		"/api/looks/" + link.Word + "/x",
		"/api/looks/" + strings.ToLower(link.Word), "/api/looks/x", "/api/looks/%00"} {
		if got := stranger.get(path, nil); got != refusal.NotFound && got != refusal.Malformed {
			t.Errorf("%s: %q", path, got)
		}
	}
	// It is a piece of no page but of those sites that are named.
	framed := func(path string) string {
		_, header, _ := stranger.send(http.MethodGet, path, "", "")
		_, allowed, _ := strings.Cut(header.Get("Content-Security-Policy"), "frame-ancestors ")
		return allowed
	}
	if got := framed("/look/" + link.Word); got != "'none'" {
		t.Errorf("framed by %q", got)
	}
	house := settings.Usually()
	house.Hosts = []string{"https://pages.school.example", "http://intranet"}
	if err := h.store.SetHouse(t.Context(), house); err != nil {
		t.Fatal(err)
	}
	if got := framed("/look/" + link.Word); got != "https://pages.school.example http://intranet" {
		t.Errorf("framed by %q", got)
	}
	for _, path := range []string{"/boards", "/lesson/x", "/records/look/x", "/api/looks/" + link.Word} {
		if got := framed(path); got != "'none'" {
			t.Errorf("%s framed by %q", path, got)
		}
	}
	for _, who := range []*visitor{other, vera, stranger} {
		if got := who.remove("/api/looks/" + link.Word); got == "" {
			t.Error("somebody else took it back")
		}
		if got := who.get(at, nil); got == "" {
			t.Error("somebody else lists the links")
		}
	}
	if got := ines.remove("/api/looks/" + link.Word); got != "" {
		t.Fatal(got)
	}
	for _, path := range []string{"", "/0"} {
		if got := stranger.get("/api/looks/"+link.Word+path, nil); got != refusal.NotFound {
			t.Errorf("taken back: %q", got)
		}
	}
	var left web.LookLinks
	if ines.get(board, &left); len(left.Looks) != 1 || left.Looks[0].Word != second.Word {
		t.Errorf("%+v", left)
	}
	// A board that is thrown away is not looked at any more.
	ines.post("/api/boards/"+boardOf(ines)+"/card", map[string]any{"deleted": true}, nil)
	if got := stranger.get("/api/looks/"+second.Word, nil); got != refusal.NotFound {
		t.Errorf("of a deleted board: %q", got)
	}
}

package web_test

import (
	"bytes"
	"image"
	"image/png"
	"net/http"
	"strings"
	"testing"

	"alpenglow/core/picture"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/live"
	"alpenglow/web"
)

// Pictures come in from those who are in the session, are given to those who
// are in it, and to nobody else.
func TestPictures(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	id, code := teacher.started()
	noor, _ := h.student(code, "Noor")
	kenji, _ := h.student(code, "Kenji")
	stranger := h.visitor()
	other := h.teacher("other@ternharbour.example")
	_, otherCode := other.started()
	outside, _ := h.student(otherCode, "Vera")

	var file bytes.Buffer
	if err := png.Encode(&file, image.NewNRGBA(image.Rect(0, 0, 40, 20))); err != nil {
		t.Fatal(err)
	}
	send := func(v *visitor, body string) (web.Uploaded, refusal.Code) {
		var up web.Uploaded
		code := v.read(&up)(v.send(http.MethodPost, "/api/sessions/"+id+"/pictures", body, h.url))
		return up, code
	}
	up, refused := send(noor, file.String())
	if refused != "" || up.Width != 40 || up.Height != 20 {
		t.Fatalf("%+v, %s", up, refused)
	}
	for name, who := range map[string]struct {
		*visitor
		want int
	}{
		"herself": {noor, 200}, "a classmate": {kenji, 200}, "the teacher": {teacher, 200},
		"nobody": {stranger, 404}, "another class": {outside, 404}, "another teacher": {other, 404},
	} {
		status, header, data := who.send(http.MethodGet, "/api/pictures/"+up.Picture, "", "")
		if status != who.want || status == 200 &&
			(header.Get("Content-Type") != "image/png" || !bytes.HasPrefix(data, []byte("\x89PNG"))) {
			t.Errorf("%s: %d, %s", name, status, header.Get("Content-Type"))
		}
	}
	for name, c := range map[string]struct {
		by   *visitor
		body string
		want refusal.Code
	}{
		"from nobody":          {stranger, file.String(), refusal.JoinNeeded},
		"from another class":   {outside, file.String(), refusal.JoinNeeded},
		"from another teacher": {other, file.String(), refusal.NotFound},
		"a text":               {noor, "the Moon", refusal.PictureBad},
		"more than may be":     {noor, strings.Repeat("x", picture.MaxBytes+1), refusal.PictureHuge},
	} {
		if _, got := send(c.by, c.body); got != c.want {
			t.Errorf("%s: %q, want %q", name, got, c.want)
		}
	}
	if status, _, _ := kenji.send(http.MethodPost, "/api/sessions/"+id+"/pictures", file.String(),
		"https://evil.example"); status != http.StatusForbidden {
		t.Errorf("from another page: %d", status)
	}
	for i := range 20 {
		if _, got := send(kenji, "not a picture"); got == refusal.TooMany {
			break
		} else if i == 19 {
			t.Error("nobody stops a flood of pictures")
		}
	}
	teacher.connect(id, live.RoleStaff).command(session.Command{Kind: session.KindEnd, End: &session.End{}})
	if _, got := send(noor, file.String()); got != refusal.Ended {
		t.Errorf("after the end: %q", got)
	}
}

package web_test

import (
	"sync"
	"sync/atomic"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/web"
)

// A screen waits with a code; the teacher who types it shows their lesson there,
// once, and takes it off again. Who guesses, comes late or is nobody gets nothing.
func TestFronts(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	id, _ := teacher.started()
	theirs, _ := other.started()
	screen := h.visitor()
	stands := func(v *visitor) (web.FrontStands, refusal.Code) {
		t.Helper()
		var now web.FrontStands
		code := v.get("/api/front", &now)
		return now, code
	}
	if _, got := stands(screen); got != refusal.FrontGone {
		t.Errorf("a device that is no screen: %q", got)
	}
	var front web.FrontStands
	if got := screen.post("/api/front", struct{}{}, &front); got != "" || len(front.Code) != 4 || front.Session != "" {
		t.Fatalf("%q, %+v", got, front)
	}
	var again web.FrontStands
	if screen.post("/api/front", struct{}{}, &again); again != front {
		t.Errorf("asking twice gave %+v", again)
	}
	at := "/api/sessions/" + id + "/fronts"
	for name, c := range map[string]struct {
		who  *visitor
		path string
		code string
		want refusal.Code
	}{
		"guessed":              {teacher, at, "2222", refusal.FrontUnknown},
		"mistyped":             {teacher, at, "K7M", refusal.CodeMistyped},
		"another's lesson":     {other, at, front.Code, refusal.NotFound},
		"nobody":               {h.visitor(), at, front.Code, refusal.SignInNeeded},
		"no lesson":            {teacher, "/api/sessions/x/fronts", front.Code, refusal.NotFound},
		"the screen by itself": {screen, at, front.Code, refusal.SignInNeeded},
	} {
		if got := c.who.post(c.path, web.FrontCode{Code: c.code}, nil); got != c.want {
			t.Errorf("%s: %q, want %q", name, got, c.want)
		}
	}
	if got := screen.get("/api/sessions/"+id+"/invitation", nil); got != refusal.SignInNeeded {
		t.Errorf("the code of a lesson that it does not show: %q", got)
	}
	// Two teachers type it at once: one has it.
	var shown atomic.Int64
	var all sync.WaitGroup
	for range 5 {
		all.Go(func() {
			if teacher.post(at, web.FrontCode{Code: front.Code}, nil) == "" {
				shown.Add(1)
			}
		})
		all.Go(func() {
			if other.post("/api/sessions/"+theirs+"/fronts", web.FrontCode{Code: front.Code}, nil) == "" {
				shown.Add(1)
			}
		})
	}
	all.Wait()
	now, got := stands(screen)
	if shown.Load() != 1 || got != "" || now.Session == "" {
		t.Fatalf("shown %d times; %+v, %q", shown.Load(), now, got)
	}
	owner := teacher
	if now.Session == theirs {
		owner = other
	}
	var invitation web.Invitation
	if got := screen.get("/api/sessions/"+now.Session+"/invitation", &invitation); got != "" || invitation.Code == "" {
		t.Errorf("the invitation on the screen: %q", got)
	}
	if _, err := h.hub.Command(t.Context(), now.Session, "", session.Command{Kind: session.KindDoor,
		Door: &session.Door{Closed: true}}); err != nil {
		t.Fatal(err)
	}
	if got := screen.get("/api/sessions/"+now.Session+"/qr.svg", nil); got != refusal.DoorClosed {
		t.Errorf("the QR code while the door is closed: %q", got)
	}
	if code, _, _ := owner.send("DELETE", "/api/sessions/"+now.Session+"/fronts", "", h.url); code != 204 {
		t.Errorf("taken off: %d", code)
	}
	if _, got := stands(screen); got != refusal.FrontGone {
		t.Errorf("after it was taken off: %q", got)
	}
	if got := screen.post("/api/front", struct{}{}, &front); got != "" || front.Code == "" {
		t.Errorf("a new code: %q", got)
	}
	if _, err := h.hub.Command(t.Context(), id, "", session.Command{Kind: session.KindEnd,
		End: &session.End{}}); err != nil {
		t.Fatal(err)
	}
	if got := teacher.post(at, web.FrontCode{Code: front.Code}, nil); got != refusal.FrontUnknown {
		t.Errorf("after the end: %q", got)
	}
	var last refusal.Code
	for range 60 {
		last = h.visitor().post("/api/front", struct{}{}, nil)
	}
	if last != refusal.TooMany {
		t.Errorf("screens without number: %q", last)
	}
}

package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"net"
	"net/http"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/live"
	"alpenglow/store"
	"alpenglow/web"
)

func raw(t testing.TB, e prepare.Edit) json.RawMessage {
	t.Helper()
	text, err := json.Marshal(e)
	if err != nil {
		t.Fatal(err)
	}
	return text
}

func onFrame(frame, text string) prepare.Edit {
	return prepare.Edit{ID: store.NewID(), Step: prepare.Step{Kind: prepare.KindMarks,
		Marks: &prepare.MarksStep{Frame: frame, Step: note(frame, text).Step}}}
}

// first gives the teacher's first board.
func (v *visitor) first() (string, web.BoardReply) {
	v.t.Helper()
	var boards web.Boards
	var board web.BoardReply
	v.get("/api/boards", &boards)
	if code := v.get("/api/boards/"+boards.Boards[0].ID, &board); code != "" {
		v.t.Fatal(code)
	}
	return boards.Boards[0].ID, board
}

func (v *visitor) edit(board string, since int64, edits ...prepare.Edit) web.EditsReply {
	v.t.Helper()
	ask := web.Edits{Since: since}
	for _, e := range edits {
		ask.Edits = append(ask.Edits, raw(v.t, e))
	}
	var reply web.EditsReply
	if code := v.post("/api/boards/"+board+"/edits", ask, &reply); code != "" {
		v.t.Fatal(code)
	}
	return reply
}

// Edits from several windows at once: each is taken once, in one order that all
// agree on, however often it is sent; a refused one stops no other.
func TestEditsFromManyWindows(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	id, before := teacher.first()
	var windows sync.WaitGroup
	for range 4 {
		windows.Go(func() {
			for range 5 {
				e := onFrame("shared", "tide")
				teacher.edit(id, before.Rev, e, onFrame("no such frame", "x"))
				if again := teacher.edit(id, before.Rev, e).Results[0]; again.Problem != nil || again.Back == nil {
					t.Errorf("sent again: %+v", again)
				}
			}
		})
	}
	windows.Wait()
	_, after := teacher.first()
	if got := len(after.Frames[0].Prepared); got != 20 || after.Rev != before.Rev+20 {
		t.Errorf("%d notes after %d changes, want 20 and 20", got, after.Rev-before.Rev)
	}
	reply := teacher.edit(id, before.Rev)
	for i, c := range reply.Changes {
		if c.Rev != before.Rev+int64(i)+1 {
			t.Fatalf("change %d has number %d", i, c.Rev)
		}
	}
	if got := teacher.edit(id, 0, onFrame("no such frame", "x")).Results[0].Problem; got == nil ||
		got.Code != refusal.NoSuchFrame {
		t.Errorf("%+v", got)
	}
}

// What belongs to one teacher is nobody else's, and a student sees no board.
func TestBoardsAreTheTeachers(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	_, code := teacher.started()
	noor, _ := h.student(code, "Noor")
	id, _ := teacher.first()
	yes := true
	for path, body := range map[string]any{
		"/edits": web.Edits{Edits: []json.RawMessage{}}, "/card": web.SetCard{Deleted: &yes},
		"/copies": web.NewBoard{Title: "x"}, "/link": struct{}{},
		"/templates": web.NewTemplate{Frame: "shared", Name: "x"}, "/sessions": web.StartSession{Pace: session.Led},
		"/rehearsals": web.Rehearse{Students: 5},
		"/frames":     web.AddFrames{ID: store.NewID(), From: web.FrameSource{Kind: "blank", Blank: &web.Blank{}}},
	} {
		if got := noor.post("/api/boards/"+id+path, body, nil); got != refusal.SignInNeeded {
			t.Errorf("a student at %s: %q", path, got)
		}
		if got := other.post("/api/boards/"+id+path, body, nil); got != refusal.NotFound && got != refusal.NoRehearsal {
			t.Errorf("another teacher at %s: %q", path, got)
		}
	}
	var found web.Found
	if got := noor.get("/api/search?words=days", &found); got != refusal.SignInNeeded {
		t.Errorf("a student searches boards: %q", got)
	}
	if got := teacher.get("/api/search?words=DAYS", &found); got != "" || len(found.Frames) != 1 ||
		found.Frames[0] != (web.FoundFrame{Board: id, Frame: "poll", Title: "Title of poll", Number: 3}) {
		t.Errorf("%+v, %q", found, got)
	}
	for _, path := range []string{"", "/edits?since=0", "/file", "/try?frame=shared"} {
		if got := noor.get("/api/boards/"+id+path, nil); got != refusal.SignInNeeded {
			t.Errorf("a student reads %s: %q", path, got)
		}
	}
	var shared web.Shared
	if got := teacher.post("/api/boards/"+id+"/link", struct{}{}, &shared); got != "" {
		t.Fatal(got)
	}
	var made web.BoardMade
	word := shared.Link[strings.LastIndex(shared.Link, "/")+1:]
	if got := other.post("/api/shared/"+word, struct{}{}, &made); got != "" || made.Board == id {
		t.Errorf("taking a copy: %q, %s", got, made.Board)
	}
	if got := other.post("/api/shared/WRONGWORD", struct{}{}, nil); got != refusal.NotFound {
		t.Errorf("a word that leads nowhere: %q", got)
	}
}

// half is a picture whose left half is red and whose right half is blue.
func half(t *testing.T) string {
	t.Helper()
	img := image.NewNRGBA(image.Rect(0, 0, 80, 50))
	for y := range 50 {
		for x := range 80 {
			img.Set(x, y, map[bool]color.NRGBA{true: {255, 0, 0, 255}, false: {0, 0, 255, 128}}[x < 40])
		}
	}
	var out bytes.Buffer
	if err := png.Encode(&out, img); err != nil {
		t.Fatal(err)
	}
	return out.String()
}

// What lies under a cover never reaches a student before it is lifted: not its
// words, not its pixels, not by any name of the picture.
func TestUnderCovers(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	var up web.Uploaded
	if got := teacher.read(&up)(teacher.send(http.MethodPost, "/api/pictures?name=tide.png", half(t),
		h.url)); got != "" {
		t.Fatal(got)
	}
	id, _ := teacher.first()
	ground := paper.Paper{Kind: paper.Picture, Picture: up.Picture}
	add := func(b lesson.Body, x, y, w, hh float64) prepare.Edit {
		return prepare.Edit{ID: store.NewID(),
			Step: prepare.Step{Kind: prepare.KindMarks, Marks: &prepare.MarksStep{Frame: "shared",
				Step: sheet.Step{Kind: sheet.KindAdd,
					Add: &sheet.Add{Mark: store.NewID(), X: x, Y: y, W: w, H: hh, Body: b}}}}}
	}
	notes := "say nothing yet"
	lid := add(lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "lilac"}}, 0, 0, 800, 1000)
	reply := teacher.edit(id, 0, prepare.Edit{ID: store.NewID(),
		Step: prepare.Step{Kind: prepare.KindFrame,
			Frame: &prepare.SetFrame{Frame: "shared", Paper: &ground, Notes: &notes}}},
		add(lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "the solution", Tint: "moss"}}, 100, 100, 200,
			100), lid)
	for _, r := range reply.Results {
		if r.Problem != nil {
			t.Fatal(r.Problem.Code)
		}
	}
	session1, code := teacher.started()
	seat, _ := h.student(code, "Noor")
	noor, staff := seat.connect(session1, live.RoleStudent), teacher.connect(session1, live.RoleStaff)
	for _, secret := range []string{"the solution", notes} {
		if noor.everHeard(secret) {
			t.Errorf("the student heard %q", secret)
		}
		if !staff.everHeard(secret) {
			t.Errorf("the teacher did not hear %q", secret)
		}
	}
	cover := lid.Marks.Step.Add.Mark
	blank := up.Picture + ".shared." + cover
	if !noor.everHeard(blank) {
		t.Fatal("the picture has no name with the cover")
	}
	for name, want := range map[string]int{up.Picture: 404, blank: 200, up.Picture + ".shared": 404,
		up.Picture + ".own." + cover: 404, up.Picture + ".shared.other": 404} {
		if status, _, _ := seat.send(http.MethodGet, "/api/pictures/"+name, "", ""); status != want {
			t.Errorf("%s: %d, want %d", name, status, want)
		}
	}
	at := func(name string, x int) color.Color {
		_, _, data := seat.send(http.MethodGet, "/api/pictures/"+name, "", "")
		img, _, err := image.Decode(bytes.NewReader(data))
		if err != nil {
			t.Fatal(err)
		}
		return img.At(x, 25)
	}
	if r, _, b, _ := at(blank, 20).RGBA(); r > 0xf0f0 || b < 0xe000 {
		t.Errorf("under the cover: red %x, blue %x", r, b)
	}
	if r, _, b, _ := at(blank, 60).RGBA(); b <= r {
		t.Errorf("beside the cover: red %x, blue %x", r, b)
	}
	staff.command(session.Command{Kind: session.KindLift, Lift: &session.Lift{Cover: cover}})
	if !noor.until("the solution") {
		t.Error("lifting the cover does not show what lies under it")
	}
	if r, _, b, _ := at(up.Picture, 20).RGBA(); r != 0xffff || b != 0 {
		t.Errorf("after lifting: red %x, blue %x", r, b)
	}
	if got := noor.call(live.MethodCommand, session.Command{Kind: session.KindLift,
		Lift: &session.Lift{Cover: cover, Down: true}}, nil); got != refusal.NotYours {
		t.Errorf("a student lays the cover back: %q", got)
	}
}

// A text file becomes two frames to choose from; what is broken, too large, or
// of another kind says so; what one teacher brings in is nobody else's.
func TestBringingIn(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	bring := func(body string) (in web.Intake, code refusal.Code) {
		code = teacher.read(&in)(teacher.send(http.MethodPost, "/api/intakes?name=words.txt", body, h.url))
		for range 200 {
			if code != "" || in.State != web.IntakeReading {
				return in, code
			}
			time.Sleep(20 * time.Millisecond)
			code = teacher.get("/api/intakes/"+in.ID, &in)
		}
		t.Fatal("it is read for ever")
		return in, code
	}
	in, code := bring("high tide\nlow tide\nspring tide")
	if code != "" || in.State != web.IntakeDone || len(in.Pages) != 2 || len(in.Pages[1].Frame.Prepared) != 3 ||
		in.Pages[1].Frame.Prepared[0].Layer != lesson.Piece {
		t.Fatalf("%+v, %s", in, code)
	}
	id, before := teacher.first()
	ask := web.AddFrames{ID: store.NewID(), Since: before.Rev, At: 1,
		From: web.FrameSource{Kind: "intake", Intake: &web.FromIntake{Intake: in.ID, Pages: []int{1}}}}
	for range 2 { // sent twice, it is added once
		if got := teacher.post("/api/boards/"+id+"/frames", ask, nil); got != "" {
			t.Fatal(got)
		}
	}
	if _, after := teacher.first(); len(after.Frames) != 4 || len(after.Frames[1].Prepared) != 3 {
		t.Errorf("%d frames", len(after.Frames))
	}
	ask.ID, ask.From.Intake.Pages = store.NewID(), []int{7}
	if got := teacher.post("/api/boards/"+id+"/frames", ask, nil); got != refusal.NoSuchFrame {
		t.Errorf("a page that is not there: %q", got)
	}
	if got := other.get("/api/intakes/"+in.ID, nil); got != refusal.NotFound {
		t.Errorf("another teacher's file: %q", got)
	}
	for name, c := range map[string]struct {
		body string
		want refusal.Code
	}{
		"another kind of zip": {"PK\x03\x04word/document.xml", refusal.FileKind},
		"a locked presentation": {"\xd0\xcf\x11\xe0....E\x00n\x00c\x00r\x00y\x00p\x00t\x00e\x00d\x00",
			refusal.FileLocked},
		"a PDF, where none is read": {"%PDF-1.7", refusal.FileKind},
		"a broken presentation":     {"PK\x03\x04ppt/presentation.xml", refusal.FileUnreadable},
	} {
		if in, code := bring(c.body); code != "" || in.State != web.IntakeFailed || in.Problem != c.want ||
			len(in.Pages) != 0 {
			t.Errorf("%s: %+v, %s", name, in, code)
		}
	}
	if _, code := bring(""); code != refusal.FileEmpty {
		t.Errorf("nothing at all: %q", code)
	}
	if got := h.visitor().read(nil)(h.visitor().send(http.MethodPost, "/api/intakes", "x",
		h.url)); got != refusal.SignInNeeded {
		t.Errorf("from nobody: %q", got)
	}
	// 200 MB are refused by their announced length, before they are sent.
	request, _ := http.NewRequest(http.MethodPost, h.url+"/api/intakes", strings.NewReader("x"))
	request.ContentLength = 200 << 20
	request.Header.Set("Origin", h.url)
	request.Header.Set("Expect", "100-continue")
	if response, err := teacher.client.Do(request); err == nil {
		defer response.Body.Close()
		if response.StatusCode != http.StatusRequestEntityTooLarge {
			t.Errorf("200 MB: %d", response.StatusCode)
		}
	}
}

// A network that breaks while a file is sent leaves nothing behind, however
// often it does: no board, no file, and room for the next one.
func TestBrokenOffOnTheWay(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	at, _ := url.Parse(h.url)
	cookie := ""
	for _, c := range teacher.client.Jar.Cookies(at) {
		cookie += c.String() + "; "
	}
	for i := range 50 {
		path := []string{"/api/intakes?name=moon.pdf", "/api/boards/file", "/api/pictures"}[i%3]
		conn, err := net.Dial("tcp", at.Host)
		if err != nil {
			t.Fatal(err)
		}
		fmt.Fprintf(
			conn,
			"POST %s HTTP/1.1\r\nHost: %s\r\nOrigin: %s\r\nCookie: %s\r\nContent-Length: 9000000\r\n\r\nPK\x03\x04%s",
			path,
			at.Host,
			h.url,
			cookie,
			strings.Repeat("x", 50_000),
		)
		if i%2 == 0 {
			time.Sleep(5 * time.Millisecond)
		}
		conn.Close()
	}
	var in web.Intake
	for range 100 { // the server learns of the last ones in a moment
		if code := teacher.read(&in)(teacher.send(http.MethodPost, "/api/intakes?name=words.txt", "high tide\nlow tide",
			h.url)); code == "" {
			break
		} else if code != refusal.TooMany {
			t.Fatal(code)
		}
		time.Sleep(20 * time.Millisecond)
	}
	if in.ID == "" {
		t.Fatal("no room for a file after those that broke off")
	}
	var boards web.Boards
	if teacher.get("/api/boards", &boards); len(boards.Boards) != 1 {
		t.Errorf("%d boards", len(boards.Boards))
	}
	if pictures, err := h.store.Library(t.Context(), nil, 10); err != nil || len(pictures) != 0 {
		t.Errorf("%d pictures, %v", len(pictures), err)
	}
}

func TestNamesFromTheList(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	var boards web.Boards
	var started web.Started
	teacher.get("/api/boards", &boards)
	teacher.post("/api/boards/"+boards.Boards[0].ID+"/sessions",
		web.StartSession{Class: boards.Classes[0].ID, Listed: true, Pace: session.Led}, &started)
	code := teacher.code(started.Session)
	var found web.JoinFound
	if got := h.visitor().post("/api/join/check", web.JoinCode{Code: code}, &found); got != "" ||
		strings.Join(found.Names, " ") != "Amara Noor" {
		t.Errorf("%v, %q", found.Names, got)
	}
	if got := h.visitor().post("/api/join", web.Join{Code: code, Name: "Captain Seaweed"},
		nil); got != refusal.NameNotListed {
		t.Errorf("a joke name: %q", got)
	}
	if _, seat := h.student(code, "Noor"); seat.Name != "Noor" {
		t.Error(seat.Name)
	}
}

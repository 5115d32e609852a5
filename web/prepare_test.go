package web_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"math"
	"net/http"
	"net/url"
	"reflect"
	"slices"
	"strings"
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

// bring sends a file and waits until it is read.
func (v *visitor) bring(name, body string) web.Intake {
	v.t.Helper()
	var in web.Intake
	code := v.read(&in)(v.send(http.MethodPost, "/api/intakes?name="+name, body, v.url))
	for range 400 {
		if code != "" {
			v.t.Fatalf("%s: %s", name, code)
		}
		if in.State != web.IntakeReading {
			return in
		}
		time.Sleep(20 * time.Millisecond)
		code = v.get("/api/intakes/"+in.ID, &in)
	}
	v.t.Fatalf("%s is read for ever", name)
	return in
}

// add puts frames at the beginning of the teacher's first board and gives the board.
func (v *visitor) add(from web.FrameSource) (web.BoardReply, refusal.Code) {
	v.t.Helper()
	id, before := v.first()
	code := v.post("/api/boards/"+id+"/frames", web.AddFrames{ID: store.NewID(), Since: before.Rev, At: 0, From: from},
		nil)
	_, after := v.first()
	return after, code
}

// Where new frames come from: each brings what is on it under ids of its own,
// and what is another teacher's or not there is refused.
func TestNewFrames(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	id, before := teacher.first()
	theirs, _ := other.first()
	var templates web.Templates
	if code := teacher.get("/api/templates", &templates); code != "" || len(templates.Ready) < 16 ||
		len(templates.Own) != 0 {
		t.Fatalf("%d templates, %s", len(templates.Ready), code)
	}
	var own web.OwnTemplate
	if code := teacher.post("/api/boards/"+id+"/templates", web.NewTemplate{Frame: "poll", Name: "  Our exit poll "},
		&own); code != "" || own.Name != "Our exit poll" {
		t.Fatalf("%+v, %s", own, code)
	}
	for name, c := range map[string]struct {
		from   web.FrameSource
		titles []string
		marks  int
	}{
		"blank": {web.FrameSource{Kind: "blank", Blank: &web.Blank{}}, []string{""}, 0},
		"two doubled": {web.FrameSource{Kind: "double",
			Double: &web.SomeFrames{Frames: []string{"poll", "own"}}}, []string{"Title of poll", "Title of own"}, 1},
		"a template": {web.FrameSource{Kind: "template",
			Template: &web.FromTemplate{Template: templates.Ready[0].ID}}, []string{templates.Ready[0].Frame.Title},
			len(templates.Ready[0].Frame.Prepared)},
		"a template of one's": {web.FrameSource{Kind: "template", Template: &web.FromTemplate{Template: own.ID}},
			[]string{"Title of poll"}, 1},
		"from one's own boards": {web.FrameSource{Kind: "board",
			Board: &web.FromBoard{Board: id, Frames: []string{"shared"}}}, []string{"Title of shared"}, 0},
	} {
		after, code := teacher.add(c.from)
		if code != "" {
			t.Fatalf("%s: %s", name, code)
		}
		var marks int
		for i, title := range c.titles {
			f := after.Frames[i]
			marks += len(f.Prepared)
			if f.Title != title || slices.ContainsFunc(before.Frames,
				func(old lesson.Frame) bool { return old.ID == f.ID }) {
				t.Errorf("%s: frame %d is %q with id %s", name, i, f.Title, f.ID)
			}
		}
		if marks != c.marks {
			t.Errorf("%s: %d marks, want %d", name, marks, c.marks)
		}
		if err := boardOfReply(after).Check(); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
	for name, c := range map[string]struct {
		from web.FrameSource
		want refusal.Code
	}{
		"a frame that is not there": {web.FrameSource{Kind: "double",
			Double: &web.SomeFrames{Frames: []string{"four"}}}, refusal.NoSuchFrame},
		"no such template": {web.FrameSource{Kind: "template",
			Template: &web.FromTemplate{Template: "none"}}, refusal.NotFound},
		"another teacher's board": {web.FrameSource{Kind: "board",
			Board: &web.FromBoard{Board: theirs, Frames: []string{"shared"}}}, refusal.NotFound},
		"no board at all": {web.FrameSource{Kind: "board", Board: &web.FromBoard{Board: "1 OR 1=1"}},
			refusal.NotFound},
		"no such frame of one's own boards": {web.FrameSource{Kind: "board",
			Board: &web.FromBoard{Board: id, Frames: []string{"four"}}}, refusal.NoSuchFrame},
		"kind without its body": {web.FrameSource{Kind: "board"}, refusal.Malformed},
		"a file that was never brought in": {web.FrameSource{Kind: "intake",
			Intake: &web.FromIntake{Intake: store.NewID(), Pages: []int{0}}}, refusal.NotFound},
	} {
		_, before := teacher.first()
		if after, code := teacher.add(c.from); code != c.want || after.Rev != before.Rev {
			t.Errorf("%s: %q, %d changes", name, code, after.Rev-before.Rev)
		}
	}
	if _, code := other.add(web.FrameSource{Kind: "template",
		Template: &web.FromTemplate{Template: own.ID}}); code != refusal.NotFound {
		t.Errorf("another teacher's template: %q", code)
	}
	remove := func(v *visitor) refusal.Code {
		return v.read(nil)(v.send(http.MethodDelete, "/api/templates/"+own.ID, "", h.url))
	}
	if code := remove(other); code != refusal.NotFound {
		t.Errorf("another teacher removes a template: %q", code)
	}
	if code := remove(teacher); code != "" {
		t.Error(code)
	}
	for name, want := range map[string]refusal.Code{" ": refusal.NameEmpty,
		strings.Repeat("x", 121): refusal.TextTooLong} {
		if code := teacher.post("/api/boards/"+id+"/templates", web.NewTemplate{Frame: "poll", Name: name},
			nil); code != want {
			t.Errorf("a template called %q: %q", name, code)
		}
	}
}

// boardOfReply is the board as a session would get it.
func boardOfReply(r web.BoardReply) lesson.Board {
	b := lesson.Board{Title: r.Outline.Title, Objectives: r.Outline.Objectives}
	for _, f := range r.Frames {
		b.Frames = append(b.Frames, f.Settled())
	}
	return b
}

// A board saved as a file and opened by somebody else is the same board, with
// its picture; what is no board file makes no board.
func TestBoardFiles(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	id, _ := teacher.first()
	var up web.Uploaded
	if code := teacher.read(&up)(teacher.send(http.MethodPost, "/api/pictures?name=half.png", half(t),
		h.url)); code != "" {
		t.Fatal(code)
	}
	teacher.edit(id, 0, onFrame("own", "only on this frame"),
		prepare.Edit{ID: store.NewID(), Step: prepare.Step{Kind: prepare.KindFrame, Frame: &prepare.SetFrame{
			Frame: "shared", Paper: &paper.Paper{Kind: paper.Picture, Picture: up.Picture, Alt: "half red, half blue"},
			Notes: new("not for the class")}}})
	_, before := teacher.first()
	status, header, file := teacher.send(http.MethodGet, "/api/boards/"+id+"/file", "", "")
	if status != http.StatusOK || header.Get("Content-Disposition") != `attachment; filename="moon-and-tides.board"` {
		t.Fatalf("%d, %v", status, header)
	}
	var made web.BoardMade
	if code := other.read(&made)(other.send(http.MethodPost, "/api/boards/file", string(file), h.url)); code != "" {
		t.Fatal(code)
	}
	var after web.BoardReply
	if code := other.get("/api/boards/"+made.Board, &after); code != "" {
		t.Fatal(code)
	}
	// The school keeps the same picture once, so that it has the same name here.
	if !reflect.DeepEqual(boardOfReply(after), boardOfReply(before)) {
		t.Errorf("saved %+v\nopened %+v", boardOfReply(before), boardOfReply(after))
	}
	again := other.bring("colleague.board", string(file))
	if again.Kind != "board" || again.State != web.IntakeDone || len(again.Pages) != 3 ||
		again.Pages[0].Frame.Notes != "not for the class" {
		t.Fatalf("%+v", again)
	}
	if board, code := other.add(web.FrameSource{Kind: "intake",
		Intake: &web.FromIntake{Intake: again.ID, Pages: []int{2, 0}}}); code != "" ||
		board.Frames[0].Title != "Title of poll" || board.Frames[1].Paper.Picture != up.Picture {
		t.Errorf("%+v, %s", board.Frames[1].Paper, code)
	}
	var boards web.Boards
	for name, body := range map[string]string{"nothing": "", "a picture": half(t),
		"half a file": string(file[:len(file)/2]), "a page": "<html>"} {
		if code := other.read(nil)(other.send(http.MethodPost, "/api/boards/file", body,
			h.url)); code != refusal.FileUnreadable && code != refusal.FileEmpty && code != refusal.FileKind {
			t.Errorf("%s: %q", name, code)
		}
	}
	if other.get("/api/boards", &boards); len(boards.Boards) != 2 {
		t.Errorf("%d boards, want the own one and the one that was opened", len(boards.Boards))
	}
}

// A picture and a presentation are brought in: what cannot be brought along is
// said; the pictures are the owner's alone until they are on a board, and gone
// when the file is dropped.
func TestPicturesAndSlidesBroughtIn(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	in := teacher.bring("half.png", half(t))
	if in.State != web.IntakeDone || len(in.Pages) != 1 || in.Pages[0].Frame.Paper.Kind != paper.Picture {
		t.Fatalf("%+v", in)
	}
	name := in.Pages[0].Frame.Paper.Picture
	for who, want := range map[*visitor]int{teacher: 200, other: 404, h.visitor(): 404} {
		if status, _, _ := who.send(http.MethodGet, "/api/pictures/"+name, "", ""); status != want {
			t.Errorf("%s: %d, want %d", name, status, want)
		}
	}
	for _, odd := range []string{name[:strings.LastIndex(name, ".")+1] + "7", name + ".0", "intake.." + name,
		"intake"} {
		if status, _, _ := teacher.send(http.MethodGet, "/api/pictures/"+odd, "", ""); status != 404 {
			t.Errorf("%s: %d", odd, status)
		}
	}
	board, code := teacher.add(web.FrameSource{Kind: "intake", Intake: &web.FromIntake{Intake: in.ID, Pages: []int{0}}})
	if code != "" || board.Frames[0].Paper.Picture == name {
		t.Fatalf("%+v, %s", board.Frames[0].Paper, code)
	}
	if status, _, _ := teacher.send(http.MethodGet, "/api/pictures/"+board.Frames[0].Paper.Picture, "",
		""); status != 200 {
		t.Errorf("the picture on the board: %d", status)
	}
	if code := other.read(nil)(other.send(http.MethodDelete, "/api/intakes/"+in.ID, "",
		h.url)); code != refusal.NotFound {
		t.Errorf("another teacher drops the file: %q", code)
	}
	if code := teacher.read(nil)(teacher.send(http.MethodDelete, "/api/intakes/"+in.ID, "", h.url)); code != "" {
		t.Error(code)
	}
	if status, _, _ := teacher.send(http.MethodGet, "/api/pictures/"+name, "", ""); status != 404 {
		t.Errorf("after the file was dropped: %d", status)
	}

	slides := teacher.bring("tides.pptx", presentation(t))
	if slides.Kind != "slides" || slides.Of != 2 || len(slides.Pages) != 2 {
		t.Fatalf("%+v", slides)
	}
	whole, broken := slides.Pages[0], slides.Pages[1]
	if whole.Frame == nil || len(whole.Frame.Prepared) != 2 || whole.Frame.Prepared[0].Text.Text != "two high tides" ||
		!slices.Equal(whole.Left, []string{"picture"}) {
		t.Errorf("%+v", whole)
	}
	if broken.Frame != nil || broken.Problem != refusal.PageFailed {
		t.Errorf("%+v", broken)
	}
	if _, code := teacher.add(web.FrameSource{Kind: "intake",
		Intake: &web.FromIntake{Intake: slides.ID, Pages: []int{1}}}); code != refusal.NoSuchFrame {
		t.Errorf("a page that failed is added: %q", code)
	}
}

// presentation is a deck of two slides, as small as they can be (ECMA-376,
// part 1, 19.3): one with a text, a picture and a picture that is none; the
// other broken.
func presentation(t *testing.T) string {
	t.Helper()
	const namespaces = `xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"`
	const place = `<a:xfrm><a:off x="1000000" y="2000000"/><a:ext cx="4000000" cy="2000000"/></a:xfrm>`
	const office = `http://schemas.openxmlformats.org/officeDocument/2006/relationships/`
	relations := func(pairs ...string) string {
		text := `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">`
		for i := 0; i < len(pairs); i += 3 {
			text += `<Relationship Id="` + pairs[i] + `" Type="` + office + pairs[i+1] + `" Target="` + pairs[i+2] +
				`"/>`
		}
		return text + `</Relationships>`
	}
	picture := func(id string) string {
		return `<p:pic><p:blipFill><a:blip r:embed="` + id + `"/></p:blipFill><p:spPr>` + place + `</p:spPr></p:pic>`
	}
	var file bytes.Buffer
	w := zip.NewWriter(&file)
	for name, text := range map[string]string{
		"ppt/presentation.xml": `<p:presentation ` + namespaces +
			`><p:sldIdLst><p:sldId id="256" r:id="a"/><p:sldId id="257" r:id="b"/></p:sldIdLst><p:sldSz cx="16000000" cy="10000000"/></p:presentation>`,
		"ppt/_rels/presentation.xml.rels": relations("a", "slide", "slides/slide1.xml", "b", "slide",
			"slides/slide2.xml"),
		"ppt/slides/slide1.xml": `<p:sld ` + namespaces + `><p:cSld><p:spTree><p:sp><p:spPr>` + place +
			`</p:spPr><p:txBody><a:p><a:r><a:t>two high tides</a:t></a:r></a:p></p:txBody></p:sp>` +
			picture("good") + picture("bad") + `</p:spTree></p:cSld></p:sld>`,
		"ppt/slides/_rels/slide1.xml.rels": relations("good", "image", "../media/good.png", "bad", "image",
			"../media/bad.png"),
		"ppt/slides/slide2.xml": `<p:sld ` + namespaces + `><p:cSld><p:spTree><p:sp`,
		"ppt/media/good.png":    half(t),
		"ppt/media/bad.png":     "no picture",
	} {
		part, err := w.Create(name)
		if err == nil {
			_, err = part.Write([]byte(text))
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return file.String()
}

// Trying gives the stage that a class would get, and leaves nothing behind.
func TestTry(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	id, before := teacher.first()
	secret, lid := onFrame("own", "the solution"), onFrame("own", "")
	lid.Marks.Step.Add.Body = lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "lilac"}}
	groups := lesson.Groups
	teacher.edit(id, before.Rev, secret, lid, prepare.Edit{ID: store.NewID(),
		Step: prepare.Step{Kind: prepare.KindFrame,
			Frame: &prepare.SetFrame{Frame: "own", Arrangement: &groups, Notes: new("ask slowly")}}})
	for query, sees := range map[string]bool{"frame=own": false, "frame=own&lifted=true": true} {
		var stage session.Stage
		if code := teacher.get("/api/boards/"+id+"/try?"+query, &stage); code != "" {
			t.Fatal(code)
		}
		text, _ := json.Marshal(stage)
		if strings.Contains(string(text), "the solution") != sees || strings.Contains(string(text), "ask slowly") ||
			stage.Group == nil || stage.Group.Number != 1 {
			t.Errorf("%s: %s", query, text)
		}
	}
	var stage session.Stage
	if code := teacher.get("/api/boards/"+id+"/try?frame=poll", &stage); code != "" ||
		stage.Polls["asked"].Phase != "open" ||
		stage.Frame.Prepared[0].Poll.HasRight() {
		t.Errorf("%+v, %s", stage, code)
	}
	if code := teacher.get("/api/boards/"+id+"/try?frame=four", nil); code != refusal.NoSuchFrame {
		t.Errorf("a frame that is not there: %q", code)
	}
	var boards web.Boards
	if teacher.get("/api/boards", &boards); len(boards.Sessions) != 0 {
		t.Errorf("trying left %d sessions", len(boards.Sessions))
	}
}

// A rehearsal begins, rests, goes on and ends, and is the teacher's alone; only
// a rehearsal can be ended as one.
func TestRehearsal(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	id, _ := teacher.first()
	for _, n := range []int{0, -1, 41} {
		if code := teacher.post("/api/boards/"+id+"/rehearsals", web.Rehearse{Students: n},
			nil); code != refusal.Malformed || h.class != nil {
			t.Errorf("%d students: %q", n, code)
		}
	}
	var started web.Started
	if code := teacher.post("/api/boards/"+id+"/rehearsals", web.Rehearse{Students: 40}, &started); code != "" ||
		h.class.students != 40 {
		t.Fatal(code)
	}
	if code := teacher.code(started.Session); code != h.class.code {
		t.Errorf("the class has the code %q, the session %q", h.class.code, code)
	}
	staff := teacher.connect(started.Session, live.RoleStaff)
	if !staff.until(`"practice":true`) {
		t.Error("the screen does not learn that this is practice")
	}
	at := "/api/sessions/" + started.Session + "/rehearsal"
	end := func(v *visitor, at string) refusal.Code {
		return v.read(nil)(v.send(http.MethodDelete, at, "", h.url))
	}
	for _, paused := range []bool{true, false} {
		if code := other.post(at, web.Rehearsing{Paused: !paused}, nil); code != refusal.NotFound {
			t.Errorf("another teacher pauses: %q", code)
		}
		if code := teacher.post(at, web.Rehearsing{Paused: paused}, nil); code != "" || h.class.paused != paused {
			t.Errorf("paused %v: %q", h.class.paused, code)
		}
	}
	if code := end(other, at); code != refusal.NotFound || h.class.stopped {
		t.Errorf("another teacher ends it: %q", code)
	}
	real, _ := teacher.started()
	if code := end(teacher, "/api/sessions/"+real+"/rehearsal"); code != refusal.NotFound {
		t.Errorf("a real session is thrown away: %q", code)
	}
	if code := teacher.post("/api/sessions/"+real+"/rehearsal", web.Rehearsing{Paused: true},
		nil); code != refusal.NotFound {
		t.Errorf("a real session is paused as a rehearsal: %q", code)
	}
	if code := end(teacher, at); code != "" || !h.class.stopped {
		t.Errorf("%q, stopped %v", code, h.class.stopped)
	}
	var boards web.Boards
	if teacher.get("/api/boards", &boards); len(boards.Sessions) != 1 || boards.Sessions[0].ID != real {
		t.Errorf("%+v", boards.Sessions)
	}
}

// The library finds what was used and what was drawn; a drawing taken is a
// picture like any other.
func TestLibraryOverHTTP(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	var library web.Library
	if code := teacher.get("/api/library?q=half+MOON", &library); code != "" || len(library.Pictures) != 0 ||
		len(library.Found) == 0 {
		t.Fatalf("%+v, %s", library, code)
	}
	drawn := library.Found[0]
	status, header, svg := teacher.send(http.MethodGet, "/api/illustrations/"+drawn.ID, "", "")
	if status != 200 || header.Get("Content-Type") != "image/svg+xml" || !strings.Contains(string(svg), "<svg") {
		t.Errorf("%d, %v", status, header)
	}
	var taken web.LibraryItem
	for range 2 {
		if code := teacher.post("/api/library", web.TakeIllustration{ID: drawn.ID}, &taken); code != "" ||
			taken.Width != drawn.Width {
			t.Fatalf("%+v, %s", taken, code)
		}
	}
	if teacher.get("/api/library?q="+url.QueryEscape(taken.Name), &library); len(library.Pictures) != 1 ||
		library.Pictures[0].ID != taken.ID {
		t.Errorf("%+v", library.Pictures)
	}
	for _, id := range []string{"none", "../words.json", "..%2Fwords.json"} {
		if code := teacher.post("/api/library", web.TakeIllustration{ID: id}, nil); code != refusal.NoSuchPicture {
			t.Errorf("%s: %q", id, code)
		}
	}
	if code := h.visitor().get("/api/library?q=moon", nil); code != refusal.SignInNeeded {
		t.Errorf("from nobody: %q", code)
	}
}

// Papers are drawn for everybody who asks rightly; what is wrong is said.
func TestPaperOverHTTP(t *testing.T) {
	t.Parallel()
	v := newHouse(t).visitor()
	var drawing paper.Drawing
	of := func(text string) string { return "/api/paper?of=" + url.QueryEscape(text) }
	if code := v.get(of(`{"kind":"squared"}`), &drawing); code != "" ||
		!reflect.DeepEqual(drawing, paper.Paper{Kind: paper.Squared}.Draw()) {
		t.Errorf("%+v, %s", drawing, code)
	}
	for _, wrong := range []string{"", "{", `{"kind":"wallpaper"}`, `{"kind":"squared","step":-5}`,
		`{"kind":"axes","x":{"from":0,"to":1e300,"step":1e-300}}`} {
		if code := v.get(of(wrong), nil); code != refusal.Malformed && code != refusal.BadPaper {
			t.Errorf("%s: %q", wrong, code)
		}
	}
}

// A drawn circle is offered as a clean one, in class to those who see it, and
// while a board is prepared.
func TestTidy(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, staff, noor, kenji := h.running()
	staff.command(goTo("own"))
	own := noor.open("own").own()
	draw := sheet.Op{ID: store.NewID(), Sheet: own,
		Step: sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: store.NewID(), X: 300, Y: 300, W: 10, H: 10,
			Body: lesson.Body{Kind: lesson.KindStroke,
				Stroke: &lesson.Stroke{Points: circle(150), Ink: "lake", Width: 8}}}}}
	noor.mustDo(draw)
	noor.mustDo(note(own, "no line"))
	var tidied live.Tidied
	ask := live.Tidy{Sheet: own, Mark: draw.Add.Mark}
	if code := noor.call(live.MethodTidy, ask, &tidied); code != "" || tidied.Clean == nil ||
		tidied.Clean.Shape == nil || tidied.Clean.Shape.Form != lesson.FormEllipse || tidied.Smooth == nil {
		t.Errorf("%+v, %s", tidied, code)
	}
	if code := kenji.call(live.MethodTidy, ask, nil); code != refusal.NoSuchSheet {
		t.Errorf("Kenji asks about Noor's line: %q", code)
	}
	if code := noor.call(live.MethodTidy, live.Tidy{Sheet: own, Mark: store.NewID()}, nil); code != refusal.NoSuchMark {
		t.Errorf("a line that is not there: %q", code)
	}
	board, before := staff.first()
	prepared := onFrame("own", "")
	prepared.Marks.Step.Add.Body = draw.Add.Body
	staff.edit(board, before.Rev, prepared)
	if code := staff.post("/api/boards/"+board+"/tidy", live.Tidy{Sheet: "own", Mark: prepared.Marks.Step.Add.Mark},
		&tidied); code != "" || tidied.Clean == nil {
		t.Errorf("%+v, %s", tidied, code)
	}
}

// circle gives the points of a drawn circle of a radius, with their pressure.
func circle(r float64) []float64 {
	var points []float64
	for i := range 60 {
		s, c := math.Sincos(2 * math.Pi * float64(i) / 59)
		points = append(points, r+r*c, r+r*s, 0.5)
	}
	return points
}

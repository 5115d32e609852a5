package web_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"testing/fstest"

	"alpenglow/apart"
	"alpenglow/apart/aparttest"
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/live"
	"alpenglow/standin"
	"alpenglow/store"
	"alpenglow/store/storetest"
	"alpenglow/web"

	"github.com/prometheus/client_golang/prometheus"
)

func TestMain(m *testing.M) { os.Exit(aparttest.Run(func() int { return storetest.Run(m) })) }

// house is a server with one teacher, one board and one class list.
type house struct {
	t     testing.TB
	url   string
	store *store.Store
	db    string // where the database is
	hub   *live.Hub
	// handler is what answers.
	handler http.Handler
	log     *bytes.Buffer
	class   *pretended // the one that rehearsed last
}

// pretended is a simulated class of which only what it is told is known.
type pretended struct {
	code            string
	students        int
	paused, stopped bool
}

func (p *pretended) Pause(paused bool) { p.paused = paused }
func (p *pretended) Stop()             { p.stopped = true }

func (h *house) rehearsal(code string, students int, _ lesson.Board) web.Class {
	h.class = &pretended{code: code, students: students}
	return h.class
}

func board() lesson.Board {
	asked := lesson.Element{ID: "asked", X: 100, Y: 100, W: 400, H: 300,
		Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{
			Text: "How long?", Body: poll.Offer(poll.Option{ID: "week", Text: "7 days"},
				poll.Option{ID: "month", Text: "29.53 days", Right: true})}}}
	frame := func(id string, a lesson.Arrangement, p lesson.Permission, fixed ...lesson.Element) lesson.Frame {
		return lesson.Frame{ID: id, Title: "Title of " + id, Paper: paper.Paper{Kind: paper.Plain}, Arrangement: a,
			Permission: p, Prepared: append([]lesson.Element{}, fixed...)}
	}
	return lesson.Board{Title: "Moon and tides", Frames: []lesson.Frame{
		frame("shared", lesson.WholeClass, lesson.Add), frame("own", lesson.Individual, lesson.Add),
		frame("poll", lesson.WholeClass, lesson.Look, asked),
	}}
}

// hashed is what "moon-and-tides" is kept as, with little work: how much it is to be is tested by itself.
const hashed = "$argon2id$v=19$m=64,t=1,p=1$jMoRQNUmcbfEIzFSJr80tQ$5EY7nysvfSC3aVjvfB/yQGz5BkkyBOvg8K1o5fJf9Wc"

func newHouse(t testing.TB) *house {
	t.Helper()
	db := storetest.URL(t)
	h := &house{t: t, store: storetest.Open(t, db), db: db, log: &bytes.Buffer{}}
	log := slog.New(slog.NewJSONHandler(&locked{w: h.log}, &slog.HandlerOptions{Level: slog.LevelDebug}))
	registry := prometheus.NewRegistry()
	hub, err := live.New(h.store, log, registry)
	if err != nil {
		t.Fatal(err)
	}
	h.hub = hub
	illustrations, err := standin.NewIllustrations()
	if err != nil {
		t.Fatal(err)
	}
	handler, err := web.New(web.Config{Store: h.store, Hub: hub, Log: log, Registry: registry,
		Illustrations: illustrations, Rehearsal: h.rehearsal, Mail: waiting{h.store},
		Pictures: apart.Reader{Command: []string{aparttest.Program, "picture"}}, UI: fstest.MapFS{
			"index.html":     {Data: []byte("<!doctype html>the interface")},
			"assets/a.js":    {Data: bytes.Repeat([]byte("let a = 1;\n"), 200)},
			"assets/a.js.br": {Data: []byte("packed when it was built")},
		}})
	if err != nil {
		t.Fatal(err)
	}
	h.handler = handler
	server := httptest.NewServer(handler)
	h.url = server.URL
	t.Cleanup(func() { hub.Close(t.Context()); server.Close() })
	for _, email := range []string{"ines@ternharbour.example", "other@ternharbour.example"} {
		teacher := store.Teacher{Email: email, Name: "Ines Aldana", Password: hashed}
		if err := h.store.AddTeacher(t.Context(), &teacher); err != nil {
			t.Fatal(err)
		}
		if _, err := h.store.AddBoard(t.Context(), teacher.ID, board()); err != nil {
			t.Fatal(err)
		}
		if _, err := h.store.AddClass(t.Context(), teacher.ID, "8 Juniper", []string{"Amara", "Noor"}); err != nil {
			t.Fatal(err)
		}
	}
	return h
}

// locked lets the server's goroutines log into one buffer.
type locked struct {
	mu sync.Mutex
	w  io.Writer
}

func (l *locked) Write(p []byte) (int, error) {
	l.mu.Lock()
	defer l.mu.Unlock()
	return l.w.Write(p)
}

// visitor is a browser with its own cookies.
type visitor struct {
	*house
	client *http.Client
}

func (h *house) visitor() *visitor {
	jar, _ := cookiejar.New(nil)
	return &visitor{h, &http.Client{Jar: jar}}
}

// send makes a request from our own pages, or from the origin given, and
// returns the status and the body.
func (v *visitor) send(method, path, body, origin string) (int, http.Header, []byte) {
	v.t.Helper()
	request, err := http.NewRequest(method, v.url+path, strings.NewReader(body))
	if err != nil {
		v.t.Fatal(err)
	}
	if origin != "" {
		request.Header.Set("Origin", origin)
	}
	response, err := v.client.Do(request)
	if err != nil {
		v.t.Fatal(err)
	}
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	if err != nil {
		v.t.Fatal(err)
	}
	return response.StatusCode, response.Header, text
}

// post sends JSON and reads the reply; a refusal gives its code.
func (v *visitor) post(path string, body any, into any) refusal.Code {
	v.t.Helper()
	text, _ := json.Marshal(body)
	return v.read(into)(v.send(http.MethodPost, path, string(text), v.url))
}

func (v *visitor) get(path string, into any) refusal.Code {
	v.t.Helper()
	return v.read(into)(v.send(http.MethodGet, path, "", ""))
}

func (v *visitor) read(into any) func(int, http.Header, []byte) refusal.Code {
	return func(status int, header http.Header, text []byte) refusal.Code {
		v.t.Helper()
		if status >= 300 {
			var p live.Problem
			if err := json.Unmarshal(text, &p); err != nil ||
				header.Get("Content-Type") != "application/problem+json" || p.Status != status || p.Title == "" {
				v.t.Errorf("status %d is no problem document (RFC 9457): %s", status, text)
			}
			return p.Code
		}
		if into != nil {
			if err := json.Unmarshal(text, into); err != nil {
				v.t.Fatalf("%v: %s", err, text)
			}
		}
		return ""
	}
}

func (h *house) teacher(email string) *visitor {
	h.t.Helper()
	v := h.visitor()
	if code := v.post("/api/sign-in", web.SignIn{Email: email, Password: "moon-and-tides"}, nil); code != "" {
		h.t.Fatal(code)
	}
	return v
}

// started starts a session and gives it with its code.
func (v *visitor) started() (string, string) {
	v.t.Helper()
	var boards web.Boards
	var started web.Started
	v.get("/api/boards", &boards)
	if code := v.post("/api/boards/"+boards.Boards[0].ID+"/sessions",
		web.StartSession{Class: boards.Classes[0].ID, Pace: session.Led}, &started); code != "" {
		v.t.Fatal(code)
	}
	return started.Session, v.code(started.Session)
}

// code asks for the join code of a session of the teacher's.
func (v *visitor) code(session string) string {
	v.t.Helper()
	var invitation web.Invitation
	if code := v.get("/api/sessions/"+session+"/invitation", &invitation); code != "" {
		v.t.Fatal(code)
	}
	return invitation.Code
}

func (h *house) student(code, name string) (*visitor, web.Seat) {
	h.t.Helper()
	v := h.visitor()
	var seat web.Seat
	if refused := v.post("/api/join", web.Join{Code: code, Name: name}, &seat); refused != "" {
		h.t.Fatal(refused)
	}
	return v, seat
}

func TestJoining(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	id, code := teacher.started()
	for name, c := range map[string]struct {
		ask  web.Join
		want refusal.Code
	}{
		"unknown code":       {web.Join{Code: "222222", Name: "Noor"}, refusal.CodeUnknown},
		"mistyped code":      {web.Join{Code: "K7M0", Name: "Noor"}, refusal.CodeMistyped},
		"no name":            {web.Join{Code: code, Name: "  "}, refusal.NameEmpty},
		"200 characters":     {web.Join{Code: code, Name: strings.Repeat("n", 200)}, refusal.NameTooLong},
		"control characters": {web.Join{Code: code, Name: "No\u0007or"}, refusal.NameControl},
	} {
		if got := h.visitor().post("/api/join", c.ask, nil); got != c.want {
			t.Errorf("%s: %q, want %q", name, got, c.want)
		}
	}
	noor, seat := h.student(strings.ToLower(code[:3]+" - "+code[3:]), " Noor ")
	if seat.Name != "Noor" || seat.Session != id {
		t.Errorf("seat %+v", seat)
	}
	if _, second := h.student(code, "NOOR"); second.Name != "Noor 2" {
		t.Errorf("the second Noor is %q", second.Name)
	}
	var again web.Seat
	if noor.post("/api/join", web.Join{Code: code, Name: "Somebody else"}, &again); again != seat {
		t.Errorf("joining twice from one device gave %+v", again)
	}
	people, err := h.store.Participants(t.Context(), id)
	if err != nil || len(people) != 2 {
		t.Errorf("%d participants, %v", len(people), err)
	}
	if _, err := h.hub.Command(t.Context(), id, "",
		session.Command{Kind: session.KindEnd, End: &session.End{}}); err != nil {
		t.Fatal(err)
	}
	if got := h.visitor().post("/api/join", web.Join{Code: code, Name: "Late"}, nil); got != refusal.CodeUnknown {
		t.Errorf("the code of an ended session: %q", got)
	}
	var me web.Me
	if noor.get("/api/me", &me); me.Seat == nil || !me.Seat.Ended || me.Teacher != nil {
		t.Errorf("me after the end: %+v", me)
	}
	noor.post("/api/leave", struct{}{}, nil)
	me = web.Me{}
	if noor.get("/api/me", &me); me.Seat != nil {
		t.Errorf("the seat remains after leaving: %+v", me.Seat)
	}
}

// Guessing is stopped for everybody at that address, but forty students who
// know the code come in at once, some after a slip of the finger.
func TestGuessingCodes(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, code := h.teacher("ines@ternharbour.example").started()
	for i := range 40 {
		if i%4 == 0 {
			h.visitor().post("/api/join/check", web.JoinCode{Code: "222222"}, nil)
		}
		h.student(code, fmt.Sprint("Student ", i))
	}
	wrong := 0
	for ; wrong < 100; wrong++ {
		if h.visitor().post("/api/join/check", web.JoinCode{Code: "333333"}, nil) == refusal.TooMany {
			break
		}
	}
	if wrong > 25 {
		t.Errorf("stopped after %d more wrong codes", wrong)
	}
	if got := h.visitor().post("/api/join/check", web.JoinCode{Code: code}, nil); got != refusal.TooMany {
		t.Errorf("a right code from an address that guesses: %q", got)
	}
}

// Ten wrong passwords of one account from one address are enough, also all at
// once; other accounts, and a right one, come in from there all the same.
func TestGuessingPasswords(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	var all sync.WaitGroup
	var tried atomic.Int64
	for range 40 {
		all.Go(func() {
			if h.visitor().post("/api/sign-in", web.SignIn{Email: "ines@ternharbour.example", Password: "wrong"},
				nil) == refusal.SignInWrong {
				tried.Add(1)
			}
		})
	}
	all.Wait()
	if n := tried.Load(); n > 10 {
		t.Errorf("%d passwords were tried", n)
	}
	if got := h.visitor().post("/api/sign-in",
		web.SignIn{Email: "Ines@ternharbour.example", Password: "moon-and-tides"}, nil); got != refusal.TooMany {
		t.Errorf("after ten failures: %q", got)
	}
	if got := h.visitor().post("/api/sign-in",
		web.SignIn{Email: "other@ternharbour.example", Password: "moon-and-tides"}, nil); got != "" {
		t.Errorf("another account: %q", got)
	}
}

// Wrong codes that are under way count, so that many at once are not free.
func TestGuessingCodesAtOnce(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.teacher("ines@ternharbour.example").started()
	var all sync.WaitGroup
	var tried atomic.Int64
	for range 300 {
		all.Go(func() {
			if h.visitor().post("/api/join/check", web.JoinCode{Code: "222222"}, nil) == refusal.CodeUnknown {
				tried.Add(1)
			}
		})
	}
	all.Wait()
	if n := tried.Load(); n > 31 {
		t.Errorf("%d codes were tried at once", n)
	}
}

func TestGuards(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	id, code := teacher.started()
	join, _ := json.Marshal(web.Join{Code: code, Name: "Noor"})
	for name, c := range map[string]struct {
		by                         *visitor
		method, path, body, origin string
		want                       refusal.Code
	}{
		"no origin": {h.visitor(), "POST", "/api/join", string(join), "", refusal.WrongOrigin},
		"another origin": {h.visitor(), "POST", "/api/join", string(join), "https://elsewhere.example",
			refusal.WrongOrigin},
		"an opaque origin": {teacher, "POST", "/api/sign-out", "{}", "null", refusal.WrongOrigin},
		"way back, another origin": {teacher, "POST", "/realtime/back", "{}", "https://elsewhere.example",
			refusal.WrongOrigin},
		"malformed": {h.visitor(), "POST", "/api/join", `{"code":`, h.url, refusal.Malformed},
		"a field too many": {h.visitor(), "POST", "/api/join", `{"code":"x","name":"y","admin":true}`, h.url,
			refusal.Malformed},
		"a megabyte": {h.visitor(), "POST", "/api/join", `{"code":"` + strings.Repeat("K", 1<<20) + `"}`,
			h.url, refusal.TooLarge},
		"boards without sign-in": {h.visitor(), "GET", "/api/boards", "", "", refusal.SignInNeeded},
		"record without sign-in": {h.visitor(), "GET", "/api/sessions/" + id + "/record.csv", "", "",
			refusal.SignInNeeded},
		"another teacher's record": {other, "GET", "/api/sessions/" + id + "/record", "", "", refusal.NotFound},
		"another teacher's lesson ended": {other, "POST", "/api/sessions/" + id + "/end", "{}", h.url,
			refusal.NotFound},
		"another teacher's code":  {other, "GET", "/api/sessions/" + id + "/qr.svg", "", "", refusal.NotFound},
		"a session that is no id": {teacher, "GET", "/api/sessions/x'--/record", "", "", refusal.NotFound},
		"an unknown route":        {teacher, "GET", "/api/nothing", "", "", refusal.NotFound},
		"an unknown file":         {teacher, "GET", "/assets/none.js", "", "", refusal.NotFound},
		"a class list of another's": {teacher, "POST", "/api/boards/" + boardOf(teacher) + "/sessions",
			`{"class":"` + classOf(other) + `"}`, h.url, refusal.NoSuchClass},
		"a board of another's": {other, "POST", "/api/boards/" + boardOf(teacher) + "/sessions", `{"class":""}`,
			h.url, refusal.NotFound},
	} {
		if got := c.by.read(nil)(c.by.send(c.method, c.path, c.body, c.origin)); got != c.want {
			t.Errorf("%s: %q, want %q", name, got, c.want)
		}
	}
	if people, err := h.store.Participants(t.Context(), id); err != nil || len(people) != 0 {
		t.Errorf("a refused join left %d participants, %v", len(people), err)
	}
}

func boardOf(v *visitor) string {
	var b web.Boards
	v.get("/api/boards", &b)
	return b.Boards[0].ID
}

func classOf(v *visitor) string {
	var b web.Boards
	v.get("/api/boards", &b)
	return b.Classes[0].ID
}

func TestHeadersAndCookies(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	v := h.visitor()
	_, header, page := v.send("GET", "/lesson/anything", "", "")
	csp := header.Get("Content-Security-Policy")
	if !strings.Contains(csp, "script-src 'self';") || !strings.Contains(csp, "frame-ancestors 'none'") ||
		!strings.Contains(string(page), "the interface") {
		t.Errorf("policy %q, page %q", csp, page)
	}
	if _, header, _ := v.send("GET", "/assets/a.js", "", ""); header.Get("X-Content-Type-Options") != "nosniff" ||
		header.Get("Content-Security-Policy") != "" {
		t.Errorf("headers of a script: %v", header)
	}
	if status, _, _ := v.send("GET", "/assets/a.js.br", "", ""); status != http.StatusNotFound {
		t.Errorf("what is packed is sent by itself: %d", status)
	}
	for takes, want := range map[string]string{"gzip, deflate, br": "br", "gzip": "gzip", "identity": ""} {
		request, _ := http.NewRequest("GET", h.url+"/assets/a.js", nil)
		request.Header.Set("Accept-Encoding", takes)
		response, err := http.DefaultTransport.RoundTrip(request)
		if err != nil {
			t.Fatal(err)
		}
		response.Body.Close()
		if got := response.Header.Get("Content-Encoding"); got != want {
			t.Errorf("who takes %q gets %q, want %q", takes, got, want)
		}
	}
	if _, header, _ := v.send("GET", "/assets/none", "", ""); header.Get("X-Content-Type-Options") != "nosniff" {
		t.Errorf("headers of what is not there: %v", header)
	}
	_, header, _ = v.send("POST", "/api/sign-in", `{"email":"INES@ternharbour.example","password":"moon-and-tides"}`,
		h.url)
	cookie := header.Get("Set-Cookie")
	_, code := h.teacher("ines@ternharbour.example").started()
	_, header, _ = v.send("POST", "/api/join", `{"code":"`+code+`","name":"Noor"}`, h.url)
	for _, c := range []string{cookie, header.Get("Set-Cookie")} {
		if !strings.Contains(c, "HttpOnly") || !strings.Contains(c, "SameSite=Lax") {
			t.Errorf("cookie %q", c)
		}
	}
	for _, path := range []string{"/healthz", "/readyz", "/metrics", "/assets/a.js"} {
		if status, _, text := v.send("GET", path, "", ""); status != 200 || len(text) == 0 {
			t.Errorf("%s: %d %q", path, status, text)
		}
	}
	if _, _, text := v.send("GET", "/metrics", "", ""); !strings.Contains(string(text),
		"alpenglow_operations_saved_total") {
		t.Error("the metrics do not count operations")
	}
}

// A lesson that was left open is ended from the list, once for all; who is in
// it learns of it.
func TestEndLeftOpen(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	id, code := teacher.started()
	noor, _ := h.student(code, "Noor")
	line := noor.connect(id, live.RoleStudent)
	sheet := line.sheet("shared", "class")
	storetest.DB(t, h.db).MustExec(`UPDATE sessions SET started_at = now() - interval '1 day' WHERE id = $1`, id)
	open := func() (ended, left bool) {
		var boards web.Boards
		teacher.get("/api/boards", &boards)
		for _, s := range boards.Sessions {
			if s.ID == id {
				return s.EndedAt != nil, s.LeftOpen
			}
		}
		t.Fatal("the lesson is not in the list")
		return
	}
	if ended, left := open(); ended || !left {
		t.Errorf("a lesson of yesterday: ended %v, left open %v", ended, left)
	}
	for range 2 {
		if got := teacher.post("/api/sessions/"+id+"/end", struct{}{}, nil); got != "" {
			t.Errorf("ended from the list: %s", got)
		}
	}
	if ended, left := open(); !ended || left {
		t.Errorf("after that: ended %v, left open %v", ended, left)
	}
	if got := line.do(note(sheet, "too late")); got.Problem == nil || got.Problem.Code != refusal.Ended {
		t.Errorf("a note after the end: %+v", got)
	}
}

// What students write goes into the record and never into the log, and
// neither do their names nor the code.
func TestRecordAndLog(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	id, code := teacher.started()
	noor, _ := h.student(code, "Noor Unforgettable")
	line := noor.connect(id, live.RoleStudent)
	line.mustDo(note(line.sheet("shared", "class"), "=cmd|secret thought"))
	staff := teacher.connect(id, live.RoleStaff)
	staff.command(session.Command{Kind: session.KindGo, Go: &session.Go{Frame: "poll"}})
	line.mustDo(answer(line.open("poll").own(), "month"))
	var reply web.RecordReply
	teacher.get("/api/sessions/"+id+"/record", &reply)
	if a := reply.Record.Students[0].Frames[2].Answers; len(a) != 1 || a[0].Verdict != "right" ||
		reply.Session.Students != 1 {
		t.Errorf("answers in the record: %+v", a)
	}
	_, header, text := teacher.send("GET", "/api/sessions/"+id+"/record.csv", "", "")
	rows, err := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(text, []byte("\uFEFF")))).ReadAll()
	if err != nil || len(rows) != 4 || rows[1][4] != "'=cmd|secret thought" || rows[3][5] != "right" {
		t.Errorf("CSV %q, %v", rows, err)
	}
	if !strings.Contains(header.Get("Content-Disposition"), ".csv") ||
		header.Get("Content-Type") != "text/csv; charset=utf-8" {
		t.Errorf("CSV headers %v", header)
	}
	log := h.log.String()
	if !strings.Contains(log, `"route":"/api/join"`) {
		t.Error("requests are not logged")
	}
	for _, private := range []string{"secret thought", "Unforgettable", code, "29.53"} {
		if strings.Contains(log, private) {
			t.Errorf("the log holds %q", private)
		}
	}
}

// What is known of a password that somebody chose costs much memory to try (OWASP's least for argon2id: 19 MiB).
func TestPasswordsAreDearToTry(t *testing.T) {
	t.Parallel()
	hash, err := web.HashPassword("kettle and otter")
	if err != nil || !strings.HasPrefix(hash, "$argon2id$v=19$m=65536,t=1,") {
		t.Errorf("%s, %v", hash, err)
	}
}

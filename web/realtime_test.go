package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/live"
	"alpenglow/store"

	"github.com/gorilla/websocket"
)

// line is a realtime connection, with everything that came over it.
type line struct {
	*visitor
	conn    *websocket.Conn
	mu      sync.Mutex
	next    int
	replies map[int]chan json.RawMessage
	heard   bytes.Buffer
	closed  chan *websocket.CloseError
	hello   struct {
		live.StudentHello
		State session.State `json:"state"`
	}
}

func (v *visitor) dial(origin string) (*websocket.Conn, error) {
	at, _ := url.Parse(v.url)
	header := http.Header{"Origin": {origin}}
	for _, c := range v.client.Jar.Cookies(at) {
		header.Add("Cookie", c.String())
	}
	conn, response, err := websocket.DefaultDialer.Dial("ws://"+at.Host+"/realtime", header)
	if response != nil {
		response.Body.Close()
	}
	return conn, err
}

// try connects and returns why it was closed, or nil.
func (v *visitor) try(id string, as live.Role) (*line, *websocket.CloseError) {
	v.t.Helper()
	conn, err := v.dial(v.url)
	if err != nil {
		v.t.Fatal(err)
	}
	l := &line{visitor: v, conn: conn, next: 1, replies: map[int]chan json.RawMessage{},
		closed: make(chan *websocket.CloseError, 1)}
	v.t.Cleanup(func() { conn.Close() })
	go l.listen()
	first := l.send("connect", map[string]any{"data": live.Connect{Session: id, As: as}})
	select {
	case <-first:
		return l, nil
	case why := <-l.closed:
		return nil, why
	case <-time.After(10 * time.Second):
		v.t.Fatal("no answer to connect")
		return nil, nil
	}
}

// connect connects and says hello.
func (v *visitor) connect(id string, as live.Role) *line {
	v.t.Helper()
	l, why := v.try(id, as)
	if why != nil {
		v.t.Fatal(why)
	}
	if code := l.call(live.MethodHello, struct{}{}, &l.hello); code != "" {
		v.t.Fatal(code)
	}
	return l
}

// running starts a session with its teacher, Noor and Kenji in it.
func (h *house) running() (id string, staff, noor, kenji *line) {
	h.t.Helper()
	teacher := h.teacher("ines@ternharbour.example")
	id, code := teacher.started()
	noorSeat, _ := h.student(code, "Noor")
	kenjiSeat, _ := h.student(code, "Kenji")
	return id, teacher.connect(id, live.RoleStaff), noorSeat.connect(id, live.RoleStudent),
		kenjiSeat.connect(id, live.RoleStudent)
}

func (l *line) listen() {
	for {
		_, text, err := l.conn.ReadMessage()
		if err != nil {
			why, _ := err.(*websocket.CloseError)
			l.closed <- why
			return
		}
		for part := range bytes.Lines(text) {
			var reply struct {
				ID  int `json:"id"`
				RPC *struct {
					Data json.RawMessage `json:"data"`
				} `json:"rpc"`
				Error json.RawMessage `json:"error"`
			}
			json.Unmarshal(part, &reply)
			l.mu.Lock()
			l.heard.Write(part)
			if waiting, ok := l.replies[reply.ID]; ok && reply.ID > 0 {
				data := json.RawMessage(reply.Error)
				if reply.RPC != nil {
					data = reply.RPC.Data
				}
				waiting <- data
			}
			l.mu.Unlock()
		}
	}
}

func (l *line) send(command string, body any) chan json.RawMessage {
	l.t.Helper()
	answer := make(chan json.RawMessage, 1)
	l.mu.Lock()
	id := l.next
	l.next++
	l.replies[id] = answer
	l.mu.Unlock()
	if err := l.conn.WriteJSON(map[string]any{"id": id, command: body}); err != nil {
		l.t.Fatal(err)
	}
	return answer
}

// call calls a method; a refusal gives its code.
func (l *line) call(method string, data, into any) refusal.Code {
	l.t.Helper()
	select {
	case text := <-l.send("rpc", map[string]any{"method": method, "data": data}):
		var failure live.Failure
		if err := json.Unmarshal(text, &failure); err != nil {
			l.t.Fatalf("%v: %s", err, text)
		}
		if failure.Problem != nil {
			if failure.Problem.Title == "" || failure.Problem.Status < 400 {
				l.t.Errorf("a problem without a sentence: %+v", failure.Problem)
			}
			return failure.Problem.Code
		}
		if into != nil {
			if err := json.Unmarshal(text, into); err != nil {
				l.t.Fatalf("%v: %s", err, text)
			}
		}
		return ""
	case <-time.After(10 * time.Second):
		l.t.Fatalf("no answer to %s", method)
		return ""
	}
}

// do sends one operation, given as anything that becomes JSON.
func (l *line) do(op any) live.OpResult {
	l.t.Helper()
	text, ok := op.(json.RawMessage)
	if !ok {
		text, _ = json.Marshal(op)
	}
	var reply live.OpsReply
	if code := l.call(live.MethodOps, live.Ops{Ops: []json.RawMessage{text}}, &reply); code != "" {
		return live.OpResult{Problem: &live.Problem{Code: code}}
	}
	return reply.Results[0]
}

func (l *line) mustDo(op sheet.Op) live.OpResult {
	l.t.Helper()
	result := l.do(op)
	if result.Problem != nil {
		l.t.Fatalf("%s: %s", op.Kind, result.Problem.Code)
	}
	return result
}

func (l *line) command(c session.Command) {
	l.t.Helper()
	if code := l.call(live.MethodCommand, c, nil); code != "" {
		l.t.Fatal(code)
	}
}

type opened []live.SheetView

func (l *line) open(frame string) opened {
	l.t.Helper()
	var reply live.Opened
	if code := l.call(live.MethodOpen, live.Open{Frame: frame}, &reply); code != "" {
		l.t.Fatal(code)
	}
	return reply.Sheets
}

func (o opened) own() string {
	for _, s := range o {
		if s.Owner != sheet.ClassOwner {
			return s.Sheet
		}
	}
	return ""
}

func (l *line) sheet(frame, owner string) string {
	for _, s := range l.open(frame) {
		if s.Owner == owner {
			return s.Sheet
		}
	}
	l.t.Fatalf("no sheet of %s on %s", owner, frame)
	return ""
}

// until waits until the line has heard something.
func (l *line) until(what string) bool {
	for range 200 {
		l.mu.Lock()
		there := strings.Contains(l.heard.String(), what)
		l.mu.Unlock()
		if there {
			return true
		}
		time.Sleep(10 * time.Millisecond)
	}
	return false
}

func (l *line) everHeard(what string) bool {
	l.mu.Lock()
	defer l.mu.Unlock()
	return strings.Contains(l.heard.String(), what)
}

func note(on, text string) sheet.Op {
	return sheet.Op{ID: store.NewID(), Sheet: on,
		Step: sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: store.NewID(), X: 10, Y: 10, W: 200, H: 100,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "moss"}}}}}
}

func answer(on, choice string) sheet.Op {
	value := poll.Choose(choice)
	return sheet.Op{ID: store.NewID(), Sheet: on, Step: sheet.Step{Kind: sheet.KindAnswer,
		Answer: &sheet.SetAnswer{Poll: "asked", Round: 1, Value: &value}}}
}

func hide(on, mark string) sheet.Op {
	return sheet.Op{ID: store.NewID(), Sheet: on, Step: sheet.Step{Kind: sheet.KindHide, Hide: &sheet.Hide{Mark: mark}}}
}

func goTo(frame string) session.Command {
	return session.Command{Kind: session.KindGo, Go: &session.Go{Frame: frame}}
}

func setPoll(phase poll.Phase) session.Command {
	return session.Command{Kind: session.KindPoll, Poll: &session.SetPoll{Poll: "asked", Phase: phase}}
}

func TestWhoMayConnect(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	id, code := teacher.started()
	elsewhere, _ := other.started()
	noor, _ := h.student(code, "Noor")
	for name, c := range map[string]struct {
		by   *visitor
		id   string
		as   live.Role
		want int
	}{
		"nobody as student":                 {h.visitor(), id, live.RoleStudent, 4502},
		"a student in another session":      {noor, elsewhere, live.RoleStudent, 4502},
		"a student as staff":                {noor, id, live.RoleStaff, 4501},
		"a teacher as student":              {teacher, id, live.RoleStudent, 4502},
		"a teacher in another's session":    {other, id, live.RoleStaff, 4501},
		"a teacher in no session":           {teacher, store.NewID(), live.RoleStaff, 4501},
		"as something else":                 {noor, id, "owner", 4500},
		"a session that is not even an id ": {noor, "x", live.RoleStudent, 4502},
	} {
		if _, why := c.by.try(c.id, c.as); why == nil || why.Code != c.want {
			t.Errorf("%s: %v, want %d", name, why, c.want)
		}
	}
	if conn, err := noor.dial("https://elsewhere.example"); err == nil {
		conn.Close()
		t.Error("a connection from another page's origin was taken")
	}
}

// What students may not do, over the wire: each is refused with its code, and
// the sheets stay as they were.
func TestRefusedOverTheWire(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	id, staff, noor, kenji := h.running()
	class := noor.sheet("shared", sheet.ClassOwner)
	if got := noor.call(live.MethodOpen, live.Open{Frame: "own"}, nil); got != refusal.NoSuchFrame {
		t.Errorf("a frame to come: %q", got)
	}
	first := note(class, "first")
	noor.mustDo(first)
	staff.command(goTo("own"))
	theirs := noor.open("own").own()
	noor.mustDo(note(theirs, "on my own"))
	staff.command(goTo("poll"))
	polls := kenji.open("poll").own()
	kenji.mustDo(answer(polls, "week"))

	hidden := note(class, "not for the class")
	noor.mustDo(hidden)
	staff.mustDo(hide(class, hidden.Add.Mark))
	move := func(mark string) sheet.Op {
		x := 5.0
		return sheet.Op{ID: store.NewID(), Sheet: class,
			Step: sheet.Step{Kind: sheet.KindSet, Set: &sheet.Set{Mark: mark, Properties: lesson.Properties{X: &x}}}}
	}
	raw := func(format string, args ...any) json.RawMessage { return json.RawMessage(fmt.Sprintf(format, args...)) }
	before := h.sheets(id)
	for name, c := range map[string]struct {
		by   *line
		op   any
		want refusal.Code
	}{
		"another's note":        {kenji, move(first.Add.Mark), refusal.NotYours},
		"another's sheet":       {kenji, note(theirs, "in your book"), refusal.NoSuchSheet},
		"a forged sheet":        {kenji, note(store.NewID(), "x"), refusal.NoSuchSheet},
		"a sheet that is no id": {kenji, note("x'; DROP TABLE sheets", "x"), refusal.BadID},
		"a forged mark":         {kenji, move(store.NewID()), refusal.NoSuchMark},
		"a forged author":       {kenji, raw(`{"id":%q,"sheet":%q,"kind":"add","add":{"mark":%q,"author":"staff","x":1,"y":1,"w":99,"h":99,"kind":"note","note":{"text":"x","tint":"moss"}}}`, store.NewID(), class, store.NewID()), refusal.Malformed},
		"a note over the limit": {kenji, note(class, strings.Repeat("x", 601)), refusal.TextTooLong},
		"own hidden note":       {noor, move(hidden.Add.Mark), refusal.PutAway},
		"another's hidden note": {kenji, move(hidden.Add.Mark), refusal.NoSuchMark},
		"showing a hidden note": {noor, sheet.Op{ID: store.NewID(), Sheet: class,
			Step: sheet.Step{Kind: sheet.KindShow, Show: &sheet.Show{Mark: hidden.Add.Mark}}}, refusal.NotYours},
		"no such answer":   {kenji, answer(polls, "decade"), refusal.NoSuchChoice},
		"another's answer": {noor, answer(polls, "month"), refusal.NoSuchSheet},
		"unknown operation": {kenji, raw(`{"id":%q,"sheet":%q,"kind":"explode"}`, store.NewID(), class),
			refusal.UnknownOp},
		"malformed":        {kenji, raw(`{"id":7}`), refusal.UnknownOp},
		"no object at all": {kenji, raw(`[[[]]]`), refusal.Malformed},
	} {
		if got := c.by.do(c.op); got.Problem == nil || got.Problem.Code != c.want {
			t.Errorf("%s: %+v, want %s", name, got.Problem, c.want)
		}
	}
	staff.command(setPoll(poll.Closed))
	if got := kenji.do(answer(polls, "month")); got.Problem == nil || got.Problem.Code != refusal.PollClosed {
		t.Errorf("an answer after closing: %+v", got)
	}
	for name, code := range map[string]refusal.Code{
		"reading another's sheet": kenji.call(live.MethodSince, live.Since{Sheet: theirs}, nil),
		"reading a forged sheet":  kenji.call(live.MethodSince, live.Since{Sheet: store.NewID()}, nil),
	} {
		if code != refusal.NoSuchSheet {
			t.Errorf("%s: %q", name, code)
		}
	}
	if got := kenji.call(live.MethodCommand, goTo("shared"), nil); got != refusal.NotYours {
		t.Errorf("a student leads: %q", got)
	}
	if got := kenji.call("explode", struct{}{}, nil); got != refusal.UnknownOp {
		t.Errorf("unknown method: %q", got)
	}
	if after := h.sheets(id); after != before {
		t.Errorf("refused operations changed the sheets:\n%s\n%s", before, after)
	}
	// A student who asks for the history of the class gets the number of the
	// last change and nothing of the hidden note.
	late, _ := h.student(staff.code(id), "Vera")
	vera := late.connect(id, live.RoleStudent)
	var history sheet.Part
	vera.call(live.MethodSince, live.Since{Sheet: class}, &history)
	if history.To.Seq != 3 || history.More || len(history.Put) != 1 {
		t.Errorf("filled up: %+v", history)
	}
	if vera.everHeard("not for the class") {
		t.Error("the hidden note is in the history that a student reads")
	}
}

// sheets describes all that is stored of a session.
func (h *house) sheets(id string) string {
	h.t.Helper()
	keys, err := h.store.SheetKeys(h.t.Context(), id, "")
	if err != nil {
		h.t.Fatal(err)
	}
	all := map[string]any{}
	for _, key := range keys {
		s, err := h.store.LoadSheet(h.t.Context(), key)
		if err != nil {
			h.t.Fatal(err)
		}
		all[key.ID] = []any{s.Seq, s.Marks()}
	}
	text, _ := json.Marshal(all)
	return string(text)
}

// The students' connections carry nothing that is not for students: not the
// frames to come, not the right answer before it is revealed, not hidden
// notes, not others' own frames or answers, not who is here.
func TestWhatStudentsHear(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, staff, noor, kenji := h.running()
	class := kenji.sheet("shared", sheet.ClassOwner)
	if noor.everHeard("Title of own") || noor.everHeard("How long?") {
		t.Error("students are told of frames to come")
	}
	seen := note(class, "seen by all")
	kenji.mustDo(seen)
	if !noor.until("seen by all") || !staff.until("seen by all") {
		t.Error("a note does not reach the others")
	}
	staff.mustDo(hide(class, seen.Add.Mark))
	text := "written on a hidden note"
	staff.mustDo(sheet.Op{ID: store.NewID(), Sheet: class,
		Step: sheet.Step{Kind: sheet.KindSet, Set: &sheet.Set{Mark: seen.Add.Mark,
			Properties: lesson.Properties{Text: &text}}}})
	staff.command(goTo("own"))
	kenji.mustDo(note(kenji.open("own").own(), "only mine"))
	staff.command(goTo("poll"))
	if !noor.until("How long?") {
		t.Error("going to a frame does not reach the students")
	}
	kenji.mustDo(answer(kenji.open("poll").own(), "month"))
	if !staff.until(`"option":"month"`) {
		t.Error("the teacher does not see the answer")
	}
	staff.command(setPoll(poll.Closed))
	if !noor.until(`"asked":{"phase":"closed","round":1`) {
		t.Error("closing does not reach the students")
	}
	for _, private := range []string{text, "only mine", `"option":"month"`, `"right":true`, `"here":true`, `"work"`} {
		if noor.everHeard(private) {
			t.Errorf("a student heard %s", private)
		}
	}
	if !staff.everHeard(text) || !staff.everHeard("only mine") || !staff.everHeard(`"here":true`) {
		t.Error("the teacher did not hear all")
	}
	staff.command(setPoll(poll.Revealed))
	if !noor.until(`"right":true`) {
		t.Error("revealing does not reach the students")
	}
}

func TestFloodAndSize(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	id, code := h.teacher("ines@ternharbour.example").started()
	seat, _ := h.student(code, "Noor")
	noor := seat.connect(id, live.RoleStudent)
	class := noor.sheet("shared", sheet.ClassOwner)
	// Full messages, one behind the other without waiting: how fast the server
	// saves does not matter, only that they all come in at once.
	var answers []chan json.RawMessage
	for range 10 {
		ops := make([]json.RawMessage, live.MaxOps)
		for i := range ops {
			ops[i], _ = json.Marshal(note(class, "flood"))
		}
		answers = append(answers, noor.send("rpc",
			map[string]any{"method": live.MethodOps, "data": live.Ops{Ops: ops}}))
	}
	saved, refused := 0, 0
	for _, answer := range answers {
		var reply struct {
			live.OpsReply
			live.Failure
		}
		if err := json.Unmarshal(<-answer, &reply); err != nil {
			t.Fatal(err)
		}
		switch {
		case reply.Problem == nil:
			saved++
		case reply.Problem.Code == refusal.TooMany:
			refused++
		default:
			t.Fatal(reply.Problem.Code)
		}
	}
	if saved < 2 || refused == 0 {
		t.Errorf("of 10 full messages at once %d were taken and %d refused", saved, refused)
	}
	if got := noor.call(live.MethodOps, live.Ops{Ops: make([]json.RawMessage, 41)}, nil); got != refusal.TooMany {
		t.Errorf("41 operations at once: %q", got)
	}
	time.Sleep(1100 * time.Millisecond)
	if result := noor.do(note(class, "calm again")); result.Problem != nil {
		t.Errorf("after a second of calm: %+v", result.Problem)
	}
	before := h.sheets(id)
	if err := noor.conn.WriteMessage(websocket.TextMessage, bytes.Repeat([]byte(" "), live.MaxMessage+1)); err != nil {
		t.Fatal(err)
	}
	select {
	case why := <-noor.closed:
		if why == nil || why.Code != websocket.CloseMessageTooBig {
			t.Errorf("a message over the limit: closed with %v", why)
		}
	case <-time.After(5 * time.Second):
		t.Error("a message over the limit was borne")
	}
	if h.sheets(id) != before {
		t.Error("a message over the limit changed something")
	}
}

// What passes is told to those who may see the sheet, under the name of who
// sent it, is never stored, and never from where one may not work.
func TestPassing(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	_, staff, noor, kenji := h.running()
	class := noor.sheet("shared", sheet.ClassOwner)
	pass := func(l *line, p live.Pass) {
		t.Helper()
		if err := l.conn.WriteJSON(map[string]any{"send": map[string]any{"data": p}}); err != nil {
			t.Fatal(err)
		}
	}
	draw := func(on, stroke string, points ...float64) live.Pass {
		return live.Pass{Sheet: on, By: "somebody-else", Kind: live.PassDraw,
			Draw: &live.Draw{Stroke: stroke, Points: points, Ink: "lake", Width: 8}}
	}
	pass(noor, draw(class, "growing", 100, 100, 0.5, 110, 100, 0.5))
	for name, l := range map[string]*line{"staff": staff, "a classmate": kenji} {
		if !l.until(`"growing"`) {
			t.Errorf("%s did not see the line grow", name)
		}
		if l.everHeard("somebody-else") {
			t.Errorf("%s was told a forged author", name)
		}
	}
	// What is wrong or not allowed is dropped.
	staff.command(goTo("own"))
	own := noor.open("own").own()
	pass(noor, draw(own, "in-my-book", 10, 10, 0.5))
	pass(kenji, draw(own, "in-your-book", 10, 10, 0.5))
	pass(kenji, draw(class, "off-the-frame", 5000, 10, 0.5))
	pass(kenji, draw(class, "half-a-point", 50, 10))
	staff.command(goTo("poll"))
	pass(noor, live.Pass{Sheet: noor.sheet("poll", sheet.ClassOwner), Kind: live.PassPoint,
		Point: &live.Point{X: 1234, Y: 4}})
	pass(noor, live.Pass{Sheet: class, Kind: live.PassPoint, Point: &live.Point{X: 77, Y: 4}})
	if !staff.until(`"in-my-book"`) || !kenji.until(`"x":77`) {
		t.Error("what is allowed was dropped")
	}
	for _, never := range []string{"in-your-book", "off-the-frame", "half-a-point", "1234"} {
		if staff.everHeard(never) {
			t.Errorf("staff was told %s", never)
		}
	}
	if kenji.everHeard("in-my-book") {
		t.Error("a student was told what passes on another's sheet")
	}
	for i := range 400 {
		pass(kenji, live.Pass{Sheet: class, Kind: live.PassEdit, Edit: &live.Edit{Mark: fmt.Sprintf("flood-%d-", i)}})
	}
	time.Sleep(200 * time.Millisecond)
	// How many pass depends on how long the sending took; far from all.
	told := 0
	for i := range 400 {
		if staff.everHeard(fmt.Sprintf("flood-%d-", i)) {
			told++
		}
	}
	if told > 300 {
		t.Errorf("of a flood of 400 were told %d", told)
	}
	if got := noor.open("shared")[0].To.Seq; got != 0 {
		t.Errorf("what passes was stored: %d changes", got)
	}
}

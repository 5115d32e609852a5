package live

import (
	"cmp"
	"context"
	"fmt"
	"io"
	"log/slog"
	"reflect"
	"slices"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
	"alpenglow/store/storetest"

	"github.com/prometheus/client_golang/prometheus"
	dto "github.com/prometheus/client_model/go"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var ctx = context.Background()

func board() lesson.Board {
	asked := lesson.Element{ID: "asked", X: 100, Y: 100, W: 400, H: 300,
		Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{
			Text: "How long?", Body: poll.Offer(poll.Option{ID: "a", Text: "A", Right: true}, poll.Option{ID: "b",
				Text: "B"})}}}
	return lesson.Board{Title: "Moon and tides", Frames: []lesson.Frame{
		{ID: "one", Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.WholeClass, Permission: lesson.Add,
			Prepared: []lesson.Element{asked}},
	}}
}

// house is a database with a running session and its class sheet.
type house struct {
	url      string
	session  string
	sheet    store.SheetKey
	students []store.Participant
}

func newHouse(t testing.TB, students int) house {
	t.Helper()
	h := house{url: storetest.URL(t)}
	s := storetest.Open(t, h.url)
	teacher := store.Teacher{Email: "ines@ternharbour.example", Password: "x"}
	if err := s.AddTeacher(ctx, &teacher); err != nil {
		t.Fatal(err)
	}
	id, err := s.AddBoard(ctx, teacher.ID, board())
	if err != nil {
		t.Fatal(err)
	}
	state, _ := session.Start(board(), session.Led)
	n := store.Session{TeacherID: teacher.ID, Code: "K7M2QX", State: store.JSON[session.State]{V: state}}
	if err := s.StartSession(ctx, &n, id, board()); err != nil {
		t.Fatal(err)
	}
	h.session = n.ID
	for i := range students {
		p, err := s.Join(ctx, n.ID, store.Joining{Limit: 400, Token: []byte{byte(i)},
			Decide: store.Anybody(func([]string) string { return fmt.Sprint("Student ", i) })})
		if err != nil {
			t.Fatal(err)
		}
		h.students = append(h.students, p)
	}
	if h.sheet, err = s.EnsureSheet(ctx, n.ID, "one", sheet.ClassOwner); err != nil {
		t.Fatal(err)
	}
	return h
}

// hub starts a server process's worth of hub on the house's database.
func (h house) hub(t testing.TB) *Hub {
	t.Helper()
	hub, err := New(storetest.Open(t, h.url), quiet(), prometheus.NewRegistry())
	if err != nil {
		t.Fatal(err)
	}
	return hub
}

// held gives the session and the sheet as a hub holds them.
func (h house) held(t testing.TB, hub *Hub) (*running, *held) {
	t.Helper()
	r, err := hub.session(ctx, h.session)
	if err != nil {
		t.Fatal(err)
	}
	at, err := hub.hold(ctx, h.sheet.ID)
	if err != nil {
		t.Fatal(err)
	}
	return r, at
}

// do sends an operation through a hub and waits for the answer.
func (h house) do(t testing.TB, hub *Hub, a sheet.Actor, op sheet.Op) (sheet.Result, error) {
	t.Helper()
	r, err := hub.session(ctx, h.session)
	if err != nil {
		t.Fatal(err)
	}
	type answer struct {
		result sheet.Result
		err    error
	}
	answered := make(chan answer, 1)
	at, err := hub.hold(ctx, op.Sheet)
	if err != nil {
		return sheet.Result{}, err
	}
	hub.submit(&request{session: r, at: at, actor: a, op: op, stopped: new(atomic.Bool),
		done: func(res sheet.Result, err error) { answered <- answer{res, err} }})
	select {
	case got := <-answered:
		return got.result, got.err
	case <-time.After(20 * time.Second):
		t.Fatal("no answer")
		return sheet.Result{}, nil
	}
}

func (h house) note(text string) sheet.Op {
	return sheet.Op{ID: store.NewID(), Sheet: h.sheet.ID,
		Step: sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: store.NewID(), X: 10, Y: 10, W: 200, H: 100,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "moss"}}}}}
}

func (h house) check(t *testing.T, want int64) *sheet.Sheet {
	t.Helper()
	s := storetest.Open(t, h.url)
	loaded, err := s.LoadSheet(ctx, h.sheet)
	if err != nil {
		t.Fatal(err)
	}
	changes, err := s.ChangesSince(ctx, h.sheet.ID, 0, 1_000_000)
	if err != nil {
		t.Fatal(err)
	}
	replayed := sheet.New(sheet.ClassOwner)
	for i, c := range changes {
		if c.Seq != int64(i+1) {
			t.Fatalf("number %d at place %d", c.Seq, i+1)
		}
		replayed.Take(c)
	}
	if same := reflect.DeepEqual(loaded.Marks(), replayed.Marks()); loaded.Seq != want || replayed.Seq != want ||
		!same {
		t.Fatalf("stored to %d, want %d; replayed the same: %v", loaded.Seq, want, same)
	}
	return loaded
}

// Three servers' worth of writers on one sheet: nothing is lost, nothing is
// double, every hub ends with the same picture.
func TestSeveralServersOneSheet(t *testing.T) {
	t.Parallel()
	const hubs, each = 3, 60
	h := newHouse(t, hubs*4)
	var servers []*Hub
	for range hubs {
		servers = append(servers, h.hub(t))
	}
	var all sync.WaitGroup
	for i, p := range h.students {
		all.Go(func() {
			for n := range each {
				op := h.note(fmt.Sprint(n))
				// Every operation is also sent again, through another server.
				first, err := h.do(t, servers[i%hubs], sheet.Actor{ID: p.ID}, op)
				if err != nil {
					t.Errorf("first: %v", err)
					return
				}
				again, err := h.do(t, servers[(i+1)%hubs], sheet.Actor{ID: p.ID}, op)
				if err != nil || !again.Again || again.Change.Seq != first.Change.Seq {
					t.Errorf("again: %+v, %v, first was %d", again, err, first.Change.Seq)
					return
				}
			}
		})
	}
	all.Wait()
	total := int64(len(h.students) * each)
	stored := h.check(t, total)
	for _, server := range servers {
		r, _ := server.session(ctx, h.session)
		view, err := server.openAll(ctx, r, "one", nil)
		if err != nil || view[0].To.Seq != total || !sameMarks(view[0].Put, stored.Marks()) {
			t.Errorf("a server's picture differs: to %d, %v", view[0].To.Seq, err)
		}
		if err := server.Close(ctx); err != nil {
			t.Error(err)
		}
	}
}

// A command through one server holds at once for operations through another
// that has not heard of it: the database refuses the old revision.
func TestClosingReachesOtherServers(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	here, there := h.hub(t), h.hub(t)
	defer here.Close(ctx)
	defer there.Close(ctx)
	me := sheet.Actor{ID: h.students[0].ID}
	own, err := here.store.EnsureSheet(ctx, h.session, "one", me.ID)
	if err != nil {
		t.Fatal(err)
	}
	answer := func(choice string) sheet.Op {
		value := poll.Choose(choice)
		return sheet.Op{ID: store.NewID(), Sheet: own.ID, Step: sheet.Step{Kind: sheet.KindAnswer,
			Answer: &sheet.SetAnswer{Poll: "asked", Round: 1, Value: &value}}}
	}
	if _, err := h.do(t, there, me, answer("b")); err != nil {
		t.Fatal(err)
	}
	if _, err := here.Command(ctx, h.session, "ines",
		session.Command{Kind: session.KindPoll,
			Poll: &session.SetPoll{Poll: "asked", Phase: poll.Closed}}); err != nil {
		t.Fatal(err)
	}
	if _, err := h.do(t, there, me, answer("a")); refusal.Of(err) == nil || refusal.Of(err).Code != refusal.PollClosed {
		t.Errorf("an answer after closing, through another server: %v", err)
	}
	if _, err := there.Command(ctx, h.session, "ines",
		session.Command{Kind: session.KindEnd, End: &session.End{}}); err != nil {
		t.Fatalf("a command after another server's: %v", err)
	}
	if _, err := h.do(t, here, me, h.note("late")); refusal.Of(err) == nil || refusal.Of(err).Code != refusal.Ended {
		t.Errorf("a note after the end: %v", err)
	}
}

// Nothing is stored after the end was told, also when the operation was on its way
// to the database before: it was waiting for the sheet's row.
func TestNothingAfterTheEnd(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	hub := h.hub(t)
	defer hub.Close(ctx)
	db := storetest.DB(t, h.url)
	tx := db.MustBegin()
	tx.MustExec(`SELECT 1 FROM sheets WHERE id = $1 FOR UPDATE`, h.sheet.ID)
	stored := make(chan error, 1)
	go func() {
		_, err := h.do(t, hub, sheet.Actor{ID: h.students[0].ID}, h.note("on its way"))
		stored <- err
	}()
	for waiting := 0; waiting == 0; {
		if err := db.Get(&waiting, `SELECT count(*) FROM pg_locks WHERE NOT granted`); err != nil {
			t.Fatal(err)
		}
	}
	ended := make(chan error, 1)
	go func() {
		_, err := hub.Command(ctx, h.session, "ines", session.Command{Kind: session.KindEnd, End: &session.End{}})
		ended <- err
	}()
	told := false
	select {
	case err := <-ended:
		if told = true; err != nil {
			t.Fatal(err)
		}
	case <-time.After(300 * time.Millisecond):
	}
	tx.Rollback()
	if err := <-stored; told && err == nil {
		t.Error("an operation was stored after the end had been told")
	}
	if !told {
		if err := <-ended; err != nil {
			t.Fatal(err)
		}
	}
}

// A session whose row somebody holds keeps no other lesson waiting.
func TestSlowSessionDisturbsNobody(t *testing.T) {
	t.Parallel()
	slow := newHouse(t, 1)
	hub := slow.hub(t)
	defer hub.Close(ctx)
	db := storetest.DB(t, slow.url)
	// A second lesson in the same house.
	twin := slow
	kept, err := hub.store.Session(ctx, slow.session)
	if err != nil {
		t.Fatal(err)
	}
	kept.Code = "K7M2QY"
	boards, err := hub.store.Boards(ctx, kept.TeacherID)
	if err != nil {
		t.Fatal(err)
	}
	if err := hub.store.StartSession(ctx, &kept, boards[0].ID, board()); err != nil {
		t.Fatal(err)
	}
	twin.session = kept.ID
	if twin.sheet, err = hub.store.EnsureSheet(ctx, kept.ID, "one", sheet.ClassOwner); err != nil {
		t.Fatal(err)
	}
	tx := db.MustBegin()
	defer tx.Rollback()
	tx.MustExec(`SELECT 1 FROM sessions WHERE id = $1 FOR UPDATE`, slow.session)
	go hub.Command(ctx, slow.session, "ines", session.Command{Kind: session.KindGo, Go: &session.Go{Frame: "one"}})
	time.Sleep(50 * time.Millisecond)
	began := time.Now()
	for range 20 {
		if _, err := twin.do(t, hub, sheet.Actor{Staff: true}, twin.note("goes on")); err != nil {
			t.Fatal(err)
		}
	}
	if took := time.Since(began); took > 3*time.Second {
		t.Errorf("another lesson waited %v", took)
	}
}

// What was accepted before the server stops is saved and answered.
func TestCloseFinishesCommits(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	hub := h.hub(t)
	r, at := h.held(t, hub)
	const n = 300
	var saved, refused int
	var mu sync.Mutex
	for i := range n {
		hub.submit(&request{session: r, at: at, actor: sheet.Actor{Staff: true}, op: h.note(fmt.Sprint(i)),
			stopped: new(atomic.Bool), done: func(_ sheet.Result, err error) {
				mu.Lock()
				defer mu.Unlock()
				if err == nil {
					saved++
				} else {
					refused++
				}
			}})
	}
	if err := hub.Close(ctx); err != nil {
		t.Fatal(err)
	}
	if saved != n || refused != 0 {
		t.Errorf("%d saved, %d refused of %d", saved, refused, n)
	}
	h.check(t, n)
}

// When the database fails, operations are refused in passing, and what the
// server shows is what is saved.
func TestDatabaseGone(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	hub := h.hub(t)
	me := sheet.Actor{ID: h.students[0].ID}
	if _, err := h.do(t, hub, me, h.note("saved")); err != nil {
		t.Fatal(err)
	}
	hub.store.Close()
	if _, err := h.do(t, hub, me, h.note("not saved")); ProblemOf(err).Code != refusal.Unavailable {
		t.Errorf("without a database: %v", err)
	}
	hub.Close(ctx)
	h.check(t, 1)
}

// What the database refuses for one sheet does not keep the others of the
// same group from being saved.
func TestOneSheetsTroubleStaysItsOwn(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 8)
	hub := h.hub(t)
	defer hub.Close(ctx)
	db := storetest.DB(t, h.url)
	// A number that is taken already, which no working server would leave behind.
	if _, err := db.Exec(`INSERT INTO log (sheet_id, seq, op_id, author, at, change) VALUES ($1, 1, $2, 'nobody', 0, '{}')`, h.sheet.ID, store.NewID()); err != nil {
		t.Fatal(err)
	}
	r, err := hub.session(ctx, h.session)
	if err != nil {
		t.Fatal(err)
	}
	var answers sync.WaitGroup
	var mu sync.Mutex
	errs := map[string]error{}
	send := func(who sheet.Actor, op sheet.Op) {
		answers.Add(1)
		at, err := hub.hold(ctx, op.Sheet)
		if err != nil {
			t.Fatal(err)
		}
		hub.submit(&request{session: r, at: at, actor: who, op: op, stopped: new(atomic.Bool),
			done: func(_ sheet.Result, err error) {
				defer answers.Done()
				mu.Lock()
				defer mu.Unlock()
				errs[op.Sheet] = err
			}})
	}
	for _, p := range h.students {
		own, err := hub.store.EnsureSheet(ctx, h.session, "one", p.ID)
		if err != nil {
			t.Fatal(err)
		}
		value := poll.Choose("a")
		send(sheet.Actor{ID: p.ID}, sheet.Op{ID: store.NewID(), Sheet: own.ID, Step: sheet.Step{Kind: sheet.KindAnswer,
			Answer: &sheet.SetAnswer{Poll: "asked", Round: 1, Value: &value}}})
	}
	send(sheet.Actor{ID: h.students[0].ID}, h.note("in trouble"))
	answers.Wait()
	for id, err := range errs {
		if id == h.sheet.ID && ProblemOf(err).Code != refusal.Unavailable {
			t.Errorf("the sheet in trouble: %v", err)
		}
		if id != h.sheet.ID && err != nil {
			t.Errorf("another sheet: %v", err)
		}
	}
}

// Memory is given back: sheets and sessions nobody uses are forgotten, and
// come back from the database as they were.
func TestForget(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	hub := h.hub(t)
	defer hub.Close(ctx)
	me := sheet.Actor{ID: h.students[0].ID}
	if _, err := h.do(t, hub, me, h.note("kept")); err != nil {
		t.Fatal(err)
	}
	r, _ := hub.session(ctx, h.session)
	hub.presence(r, seat{actor: sheet.Actor{Staff: true}}, 1)
	hub.forget(time.Now().Add(time.Minute), 0, maxInk)
	if again, _ := hub.session(ctx, h.session); again != r {
		t.Fatal("a session with a teacher on it was forgotten")
	}
	hub.presence(r, seat{actor: sheet.Actor{Staff: true}}, -1)
	// The committer may still hold the sheet for a moment.
	for range 100 {
		if hub.forget(time.Now().Add(time.Minute), 0, maxInk); len(hub.sheets) == 0 {
			break
		}
		time.Sleep(10 * time.Millisecond)
	}
	if len(hub.sheets) != 0 || len(hub.sessions) != 0 {
		t.Fatalf("%d sheets and %d sessions remain", len(hub.sheets), len(hub.sessions))
	}
	if _, err := h.do(t, hub, me, h.note("after")); err != nil {
		t.Fatal(err)
	}
	h.check(t, 2)
}

// sameMarks compares marks in whatever order they come.
func sameMarks(a, b []lesson.Element) bool {
	by := func(x, y lesson.Element) int { return cmp.Compare(x.ID, y.ID) }
	return reflect.DeepEqual(slices.SortedFunc(slices.Values(a), by), slices.SortedFunc(slices.Values(b), by))
}

// quiet logs nowhere.
func quiet() *slog.Logger { return slog.New(slog.NewTextHandler(io.Discard, nil)) }

// valueOf reads a counter.
func valueOf(m prometheus.Metric) float64 {
	var out dto.Metric
	if err := m.Write(&out); err != nil {
		return 0
	}
	return out.GetCounter().GetValue()
}

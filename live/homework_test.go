package live

import (
	"encoding/json"
	"math/rand/v2"
	"strings"
	"sync"
	"testing"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/core/voices"
	"alpenglow/store"
)

func noteOp(on, text string) sheet.Op {
	return sheet.Op{
		ID:    store.NewID(),
		Sheet: on,
		Step: sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: store.NewID(),
			X: 100, Y: 100, W: 300, H: 120, Body: lesson.Body{Kind: lesson.KindNote,
				Note: &lesson.Note{Text: text, Tint: "moss"}}}},
	}
}

// Homework over the wire: what was handed in stays as it is, from whatever connection and however often it is tried;
// only while there is time it is taken back; nobody learns who else has handed in or has more time.
func TestHomework(t *testing.T) {
	t.Parallel()
	b := newBattle(t)
	staff, vera := b.connect("staff", RoleStaff), b.connect("Vera", RoleStudent)
	kenji, again := b.connect("Kenji", RoleStudent), b.connect("Kenji", RoleStudent)
	say := func(w *wire, in bool) string {
		return string(w.call(MethodSay, voices.Word{Kind: voices.KindHand, Hand: &voices.Hand{In: in}}))
	}
	give := func(until int64, closes bool, student string) {
		t.Helper()
		home := &session.SetHome{Until: until, Closes: closes, Student: student}
		if _, err := b.hub.Command(ctx, b.id, "ines", session.Command{Kind: session.KindHome, Home: home}); err != nil {
			t.Fatal(err)
		}
	}
	if got := say(kenji, true); !strings.Contains(got, "no-homework") {
		t.Errorf("without homework: %s", got)
	}
	at := now()
	give(at+3_600_000, true, "")
	own := func(w *wire) string {
		for _, s := range w.open(b.board.Frames[0].ID) {
			if s.Owner != "class" {
				return s.Sheet
			}
		}
		return w.open(b.board.Frames[0].ID)[0].Sheet
	}
	on := own(kenji)
	refused := func(w *wire, what string, ops ...sheet.Op) {
		t.Helper()
		for _, a := range w.ops(ops...).Results {
			if a.Problem == nil || string(a.Problem.Code) != what {
				t.Errorf("%+v instead of %s", a.Problem, what)
			}
		}
	}
	if reply := kenji.ops(noteOp(on, "one")); reply.Results[0].Problem != nil {
		t.Fatal(reply.Results[0].Problem)
	}
	vera.listenFor([]string{b.ids[1] + `":1`, `"longer"`, `"handed":{`})
	// Both of his windows, many times at once: in, back, in.
	var all sync.WaitGroup
	for _, w := range []*wire{kenji, again} {
		all.Go(func() {
			for range 10 {
				say(w, rand.IntN(2) == 0)
			}
		})
	}
	all.Wait()
	say(again, true)
	refused(kenji, "homework-in", noteOp(on, "two"), noteOp(on, "three"))
	refused(again, "homework-in", noteOp(own(again), "four"))
	if got := say(staff, true); !strings.Contains(got, "not-yours") {
		t.Errorf("the staff hands in: %s", got)
	}
	say(kenji, false)
	if reply := kenji.ops(noteOp(on, "five")); reply.Results[0].Problem != nil {
		t.Error(reply.Results[0].Problem)
	}
	// The date comes nearer, and is past: it closes but for whom it is later.
	give(now()+150, true, "")
	give(now()+3_600_000, true, b.ids[2])
	time.Sleep(200 * time.Millisecond)
	refused(kenji, "homework-over", noteOp(on, "six"))
	for _, in := range []bool{true, false} {
		if got := say(kenji, in); in && !strings.Contains(got, "homework-over") {
			t.Errorf("handed in after it was closed: %s", got)
		}
	}
	if reply := vera.ops(noteOp(own(vera), "seven")); reply.Results[0].Problem != nil {
		t.Error(reply.Results[0].Problem)
	}
	if got := say(vera, true); !strings.Contains(got, `"handed"`) {
		t.Errorf("who has more time hands in: %s", got)
	}
	// Without closing, what is late may still come, and is final.
	give(now()+100, false, "")
	time.Sleep(150 * time.Millisecond)
	if got := say(kenji, true); !strings.Contains(got, `"handed"`) {
		t.Errorf("late: %s", got)
	}
	if got := say(kenji, false); !strings.Contains(got, "homework-over") {
		t.Errorf("taken back after the date: %s", got)
	}
	time.Sleep(2 * voicesEvery)
	vera.mu.Lock()
	defer vera.mu.Unlock()
	for text, heard := range vera.heard {
		if heard {
			t.Errorf("Vera is told %q", text)
		}
	}
}

// A lesson that has ended is taken up again once, by however many at once, under a code of its own.
func TestResumeAtOnce(t *testing.T) {
	t.Parallel()
	b := newBattle(t)
	kenji := b.connect("Kenji", RoleStudent)
	if _, err := b.hub.Command(ctx, b.id, "ines", session.Command{Kind: session.KindEnd,
		End: &session.End{}}); err != nil {
		t.Fatal(err)
	}
	kept, err := b.hub.store.Session(ctx, b.id)
	if err != nil {
		t.Fatal(err)
	}
	other := store.Session{TeacherID: kept.TeacherID, Code: "K7M2QX"}
	state, err := session.Start(b.board, session.Own)
	if err != nil {
		t.Fatal(err)
	}
	other.State.V = state
	board, err := b.hub.store.BoardOf(ctx, b.id)
	if err == nil {
		err = b.hub.store.StartSession(ctx, &other, board, b.board)
	}
	if err != nil {
		t.Fatal(err)
	}
	if _, err := b.hub.Resume(ctx, b.id, "ines", "", session.SetHome{}); err != store.ErrTaken {
		t.Fatalf("under another's code: %v", err)
	}
	var all sync.WaitGroup
	var mu sync.Mutex
	done := 0
	for range 6 {
		all.Go(func() {
			if _, err := b.hub.Resume(ctx, b.id, "ines", "W3RT8Y", session.SetHome{Until: now() + 60_000}); err == nil {
				mu.Lock()
				done++
				mu.Unlock()
			}
		})
	}
	all.Wait()
	if done != 1 {
		t.Errorf("it was taken up %d times", done)
	}
	var hello StaffHello
	if err := json.Unmarshal(b.connect("staff", RoleStaff).call(MethodHello, Hello{}), &hello); err != nil ||
		hello.Code != "W3RT8Y" ||
		len(hello.State.Days) != 2 ||
		hello.State.Home == nil {
		t.Errorf("%q %+v %+v, %v", hello.Code, hello.State.Days, hello.State.Home, err)
	}
	// Who types the code that is shown comes in.
	if n, err := b.hub.store.SessionByCode(ctx, "W3RT8Y"); err != nil || n.ID != b.id {
		t.Errorf("the code leads to %q, %v", n.ID, err)
	}
	if reply := kenji.ops(noteOp(kenji.open(b.board.Frames[0].ID)[0].Sheet, "again")); reply.Results[0].Problem != nil {
		t.Error(reply.Results[0].Problem)
	}
}

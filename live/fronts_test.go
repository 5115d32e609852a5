package live

import (
	"encoding/json"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/core/voices"
	"alpenglow/store"

	"github.com/prometheus/client_golang/prometheus"
)

// said reports whether something comes over a connection soon.
func (w *wire) said(what string) bool {
	for range 200 {
		w.mu.Lock()
		yes := w.heard[what]
		w.mu.Unlock()
		if yes {
			return true
		}
		time.Sleep(10 * time.Millisecond)
	}
	return false
}

// What a front screen is told: live and when it asks, of what the teacher shows
// and of nothing else; and it can do nothing.
func TestFrontScreen(t *testing.T) {
	t.Parallel()
	b := newBattle(t)
	first, second := b.board.Frames[0].ID, b.board.Frames[1].ID
	staff := b.connect("staff", RoleStaff)
	kenji, vera := b.connect("Kenji", RoleStudent), b.connect("Vera", RoleStudent)
	class := staff.open(first)[0].Sheet
	kenji.call(MethodHello, struct{}{})
	vera.call(MethodMove, Move{Frame: second})
	own := vera.open(second)[0].Sheet
	front := b.connect("screen", RoleFront)
	marks := []string{"on the class's frame", "held back", "hidden away", "on Vera's frame", "29.53 days"}
	front.listenFor(marks)

	round := 0
	// expect writes everywhere, and compares what the front is told of it, live and
	// when it says hello, with what is to be seen.
	expect := func(name string, show session.Front, want string) {
		t.Helper()
		round++
		if text := string(staff.call(MethodCommand, session.Command{Kind: session.KindFront,
			Front: &show})); strings.Contains(
			text,
			"problem",
		) {
			t.Fatalf("%s: %s", name, text)
		}
		front.forget()
		kenji.ops(adding(class, "on the class's frame"))
		held, hidden := adding(class, "held back"), adding(class, "hidden away")
		staff.ops(step(class, sheet.Step{Kind: sheet.KindMany, Many: &sheet.Many{Steps: []sheet.Step{held.Step,
			{Kind: sheet.KindHold, Hold: &sheet.Hold{Mark: held.Add.Mark}}, hidden.Step,
			{Kind: sheet.KindHide, Hide: &sheet.Hide{Mark: hidden.Add.Mark}}}}}))
		vera.ops(adding(own, "on Vera's frame"))
		if strings.Contains(want, "class") && !front.said(marks[0]) ||
			strings.Contains(want, "vera") && !front.said(marks[3]) {
			t.Errorf("%s: the front is not told", name)
		}
		time.Sleep(50 * time.Millisecond) // what comes late
		check := func(how string, has func(string) bool) {
			t.Helper()
			for i, key := range []string{"class", "held", "hidden", "vera"} {
				if got := has(marks[i]); got != strings.Contains(want, key) {
					t.Errorf("%s, %s: %q is told: %v", name, how, marks[i], got)
				}
			}
		}
		check("live", func(what string) bool { front.mu.Lock(); defer front.mu.Unlock(); return front.heard[what] })
		hello := string(front.call(MethodHello, Hello{}))
		check("in hello", func(what string) bool { return strings.Contains(hello, what) })
		for _, on := range []string{class, own} {
			part := string(front.call(MethodSince, Since{Sheet: on}))
			shown := on == class && strings.Contains(want, "class") || on == own && strings.Contains(want, "vera")
			if strings.Contains(part, "problem") == shown || strings.Contains(part, marks[1]) ||
				strings.Contains(part, marks[2]) {
				t.Errorf("%s, filling up: %.300s", name, part)
			}
		}
	}
	expect("gathering", session.Front{Kind: session.FrontGathering}, "")
	expect("the class's frame", session.Front{Kind: session.FrontFrame}, "class")
	expect("words", session.Front{Kind: session.FrontWords, Words: "Ebb"}, "")
	expect("Vera's frame", session.Front{Kind: session.FrontSheets, Frame: second, Owners: []string{b.ids[2]}}, "vera")
	expect("Kenji's frame", session.Front{Kind: session.FrontSheets, Frame: second, Owners: []string{b.ids[1]}}, "")
	question := b.board.Frames[1].Prepared[0]
	expect("a poll", session.Front{Kind: session.FrontPoll, Poll: question.ID}, "")

	// Answers are counted only where that is shown.
	yes := poll.Choose(question.Poll.Choice.Options[1].ID)
	vera.ops(
		step(
			own,
			sheet.Step{Kind: sheet.KindAnswer, Answer: &sheet.SetAnswer{Poll: question.ID, Round: 1, Value: &yes}},
		),
	)
	tally := func(result bool) poll.Tally {
		t.Helper()
		staff.call(MethodCommand, session.Command{Kind: session.KindFront,
			Front: &session.Front{Kind: session.FrontPoll, Poll: question.ID, Result: result}})
		var hello FrontHello
		if err := json.Unmarshal(front.call(MethodHello, Hello{}), &hello); err != nil || hello.Front.Tally == nil {
			t.Fatalf("%v, %+v", err, hello.Front)
		}
		return *hello.Front.Tally
	}
	if got := tally(false); got.Answered != 1 || got.Chart != nil {
		t.Errorf("without the result: %+v", got)
	}
	if got := tally(true); got.Answered != 1 || got.Chart.Bars.Bars[1].Count != 1 {
		t.Errorf("with the result: %+v", got)
	}

	// And they are counted on while the front shows them.
	front.listenFor([]string{`"tally":{"answered":2,"chart":{"kind":"bars"`})
	kenji.call(MethodMove, Move{Frame: second})
	kenjis := kenji.open(second)[0].Sheet
	kenji.ops(step(kenjis, sheet.Step{Kind: sheet.KindAnswer,
		Answer: &sheet.SetAnswer{Poll: question.ID, Round: 1, Value: &yes}}))
	if !front.said(`"tally":{"answered":2,"chart":{"kind":"bars"`) {
		t.Error("an answer does not reach the front")
	}

	// A front can do nothing, and a device that is not the teacher's may not look ahead.
	for method, ask := range map[string]any{
		MethodOps:     Ops{Ops: []json.RawMessage{json.RawMessage(mustJSON(adding(class, "from the front")))}},
		MethodCommand: session.Command{Kind: session.KindEnd, End: &session.End{}},
		MethodOpen:    Open{Frame: first}, MethodMove: Move{Frame: second}, MethodTidy: Tidy{Sheet: class,
			Mark: store.NewID()},
		MethodHello: Hello{Show: &session.Front{Kind: session.FrontSheets, Frame: second, Owners: []string{b.ids[2]}}},
	} {
		if reply := string(front.call(method, ask)); !strings.Contains(reply, "not-yours") {
			t.Errorf("%s: %.200s", method, reply)
		}
	}
	looks := b.dial("staff", RoleFront)
	looks.send("connect", map[string]any{"data": Connect{Session: b.id, As: RoleFront, Looks: true}})
	if ahead := string(looks.call(MethodHello, Hello{Show: &session.Front{Kind: session.FrontSheets, Frame: second,
		Owners: []string{b.ids[2]}}})); !strings.Contains(ahead, marks[3]) {
		t.Errorf("the teacher looks ahead: %.200s", ahead)
	}
	var hello StaffHello
	reply := staff.call(MethodHello, Hello{})
	if err := json.Unmarshal(reply, &hello); err != nil || hello.Fronts != 1 {
		t.Errorf("%v: %d front screens, want 1: %.300s", err, hello.Fronts, reply)
	}
	if front.leaked != "" {
		t.Errorf("the front was told %s", front.leaked)
	}
	last := ""
	for range 3 * frontAtOnce {
		last = string(front.call(MethodHello, Hello{}))
	}
	if !strings.Contains(last, "too-many") {
		t.Errorf("a front that asks without end: %.200s", last)
	}
	for name, as := range map[string]string{"a student's device": "Kenji", "a screen of another lesson": "elsewhere"} {
		w := b.dial(as, RoleFront)
		w.refuse(b.id)
		if code := w.ended(); code != int(closeFront.Code) {
			t.Errorf("%s was let in: %d", name, code)
		}
	}
}

// Locks hold for every device from the answer to the teacher on, whatever it sends,
// and a timer that is over locks by the server's time.
func TestLocksAreInForce(t *testing.T) {
	t.Parallel()
	b := newBattle(t)
	first := b.board.Frames[0].ID
	staff := b.connect("staff", RoleStaff)
	class := staff.open(first)[0].Sheet
	kenji, vera := b.connect("Kenji", RoleStudent), b.connect("Vera", RoleStudent)
	note := adding(class, "before")
	if r := kenji.ops(note).Results[0]; r.Problem != nil {
		t.Fatal(r.Problem.Code)
	}
	x := 500.0
	tries := []sheet.Step{
		adding(class, "late").Step,
		{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: note.Add.Mark}},
		{Kind: sheet.KindSet, Set: &sheet.Set{Mark: note.Add.Mark, Properties: lesson.Properties{X: &x}}},
		{
			Kind: sheet.KindSet,
			Set:  &sheet.Set{Mark: note.Add.Mark, Properties: lesson.Properties{Text: text("rewritten")}},
		},
		{Kind: sheet.KindMany, Many: &sheet.Many{Steps: []sheet.Step{adding(class, "many").Step}}},
	}
	blocked := func(w *wire) (refused int) {
		for i, s := range tries {
			if s.Add != nil {
				s.Add.Mark = store.NewID()
			}
			if s.Many != nil {
				s.Many.Steps[0].Add.Mark = store.NewID()
			}
			r := w.ops(step(class, s)).Results[0]
			if r.Problem != nil && r.Problem.Code == "locked" {
				refused++
			} else if r.Problem != nil && w == kenji {
				t.Errorf("try %d: %s", i, r.Problem.Code)
			}
			if r.Undo != nil { // everything is there again for the next try
				back := *r.Undo
				back.ID, back.Sheet = store.NewID(), class
				if r := w.ops(back).Results[0]; r.Problem != nil {
					t.Errorf("try %d is not taken back: %s", i, r.Problem.Code)
				}
			}
		}
		return refused
	}
	for name, c := range map[string]struct {
		lock        session.Lock
		kenji, vera bool
	}{
		"the frame": {session.Lock{Frame: first, On: true}, true, true}, "all": {session.Lock{On: true}, true, true},
		"Kenji":         {session.Lock{Student: b.ids[1], On: true}, true, false},
		"another frame": {session.Lock{Frame: b.board.Frames[1].ID, On: true}, false, false},
	} {
		staff.call(MethodCommand, session.Command{Kind: session.KindLock, Lock: &c.lock})
		want := map[bool]int{true: len(tries)}
		if k, v := blocked(kenji), blocked(vera); k != want[c.kenji] || v < want[c.vera] {
			t.Errorf("%s: Kenji is refused %d times, Vera %d", name, k, v)
		}
		off := c.lock
		off.On = false
		staff.call(MethodCommand, session.Command{Kind: session.KindLock, Lock: &off})
	}
	if n := blocked(kenji); n != 0 {
		t.Errorf("unlocked, and refused %d times", n)
	}
	// Who is at the board works in spite of the lock, on the class's frame, and may
	// change what others made.
	staff.call(MethodCommand, session.Command{Kind: session.KindLock, Lock: &session.Lock{On: true}})
	staff.call(MethodCommand, session.Command{Kind: session.KindBoard, Board: &session.ToBoard{Student: b.ids[1]}})
	if n := blocked(kenji); n != 0 {
		t.Errorf("at the board, and refused %d times", n)
	}
	if n := blocked(vera); n != len(tries) {
		t.Errorf("not at the board, and refused %d times", n)
	}
	theirs := adding(class, "the teacher's")
	staff.ops(theirs)
	if r := kenji.ops(step(class, sheet.Step{Kind: sheet.KindSet,
		Set: &sheet.Set{Mark: theirs.Add.Mark, Properties: lesson.Properties{X: &x}}})).Results[0]; r.Problem != nil {
		t.Errorf("at the board with what others made: %s", r.Problem.Code)
	}
	staff.call(MethodCommand, session.Command{Kind: session.KindBoard, Board: &session.ToBoard{}})
	if n := blocked(kenji); n != len(tries) {
		t.Errorf("called back, and refused %d times", n)
	}
	staff.call(MethodCommand, session.Command{Kind: session.KindLock, Lock: &session.Lock{}})
	staff.call(
		MethodCommand,
		session.Command{Kind: session.KindTimer, Timer: &session.SetTimer{Seconds: 5, Look: true}},
	)
	staff.call(MethodCommand, session.Command{Kind: session.KindTimer, Timer: &session.SetTimer{More: -60}})
	if n := blocked(kenji); n != len(tries) {
		t.Errorf("after the timer: refused %d times", n)
	}
	staff.call(MethodCommand, session.Command{Kind: session.KindTimer, Timer: &session.SetTimer{}})
	if n := blocked(kenji); n != 0 {
		t.Errorf("the timer was stopped: refused %d times", n)
	}
}

// What a class says reaches whom it concerns and nobody else, in the order in which
// it was said, however many speak at once; and is there after the server was not.
func TestVoices(t *testing.T) {
	t.Parallel()
	b := newBattle(t)
	staff := b.connect("staff", RoleStaff)
	kenji, vera, front := b.connect(
		"Kenji",
		RoleStudent,
	), b.connect(
		"Vera",
		RoleStudent,
	), b.connect(
		"screen",
		RoleFront,
	)
	for _, w := range []*wire{staff, kenji, vera, front} {
		w.listenFor([]string{"Why two high tides", "coming"})
	}
	say := func(w *wire, word voices.Word) Said {
		t.Helper()
		var said Said
		text := w.call(MethodSay, word)
		if err := json.Unmarshal(text, &said); err != nil || strings.Contains(string(text), "problem") {
			t.Fatalf("%s, %v", text, err)
		}
		return said
	}
	question := store.NewID()
	ask := voices.Word{Kind: voices.KindAsk, Ask: &voices.Ask{ID: question, Text: "Why two high tides?"}}
	if said := say(kenji, ask); len(said.Own.Questions) != 1 || len(said.Shared.Questions) != 0 || said.All != nil {
		t.Errorf("Kenji is answered %+v", said)
	}
	if !staff.said("Why two high tides") {
		t.Error("the staff is not told of a question")
	}
	say(kenji, voices.Word{Kind: voices.KindHelp, Help: &voices.Help{Yes: true}})
	say(staff, voices.Word{Kind: voices.KindCome, Come: &voices.Come{Student: b.ids[1]}})
	if !kenji.said("coming") {
		t.Error("Kenji does not learn that help comes")
	}
	time.Sleep(2 * voicesEvery)
	for name, w := range map[string]*wire{"Vera": vera, "the front screen": front} {
		w.mu.Lock()
		if w.heard["Why two high tides"] || w.heard["coming"] {
			t.Errorf("%s is told what is not for them", name)
		}
		w.mu.Unlock()
	}
	say(staff, voices.Word{Kind: voices.KindLet, Let: &voices.Settings{ForAll: true}})
	if !vera.said("Why two high tides") {
		t.Error("Vera is not told of a question that is for all")
	}
	// A class agrees at once: each is counted.
	hall := []*wire{vera}
	for range 3 {
		hall = append(hall, b.connect("Vera", RoleStudent))
	}
	var all sync.WaitGroup
	for _, w := range hall {
		all.Go(func() {
			for range 5 {
				w.call(
					MethodSay,
					voices.Word{Kind: voices.KindAgree, Agree: &voices.Agree{Question: question, Yes: true}},
				)
			}
		})
	}
	all.Go(func() {
		for range 5 {
			kenji.call(
				MethodSay,
				voices.Word{Kind: voices.KindDone, Done: &voices.Done{Frame: b.board.Frames[0].ID, Yes: true}},
			)
		}
	})
	all.Wait()
	stored, err := b.hub.store.Voices(ctx, b.id)
	if err != nil || len(stored.Questions) != 1 || !slices.Equal(stored.Questions[0].Agreed, []string{b.ids[2]}) ||
		!slices.Equal(stored.Done[b.board.Frames[0].ID], []string{b.ids[1]}) || len(stored.Help) != 1 {
		t.Errorf("stored: %+v, %v", stored, err)
	}
	// Another server, or this one after it was started again, knows them.
	again, err := New(b.hub.store, quiet(), prometheus.NewRegistry())
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close(ctx)
	r, err := again.session(ctx, b.id)
	if err != nil || r.voices.Rev != stored.Rev {
		t.Errorf("%v: loaded %+v", err, r.voices)
	}
	for name, w := range map[string]*wire{"a front screen": front, "a student who ticks": kenji} {
		if text := string(w.call(MethodSay, voices.Word{Kind: voices.KindTick,
			Tick: &voices.Tick{Question: question, Yes: true}})); !strings.Contains(text, "not-yours") {
			t.Errorf("%s: %s", name, text)
		}
	}
	staff.call(MethodCommand, session.Command{Kind: session.KindEnd, End: &session.End{}})
	if text := string(kenji.call(MethodSay, ask)); !strings.Contains(text, "session-ended") {
		t.Errorf("after the end: %s", text)
	}
}

package web_test

import (
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/live"
	"alpenglow/store"
	"alpenglow/web"
)

// Who is sent out does not come back by another name from that device, nor as the same
// student from another, whatever they press; and comes back when they may.
func TestSentOut(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	class := ines.class("8 Rowan", "Noor Haddad\nKenji Mori")
	run := ines.teaches(class.ID, false)
	code := ines.code(run)
	noor, _ := h.student(code, "Noor Haddad")
	people, err := h.store.Participants(t.Context(), run)
	if err != nil || len(people) != 1 {
		t.Fatal(people, err)
	}
	seat := func(remove bool) {
		t.Helper()
		c := session.Command{Kind: session.KindSeat, Seat: &session.SetSeat{Student: people[0].ID, Remove: remove}}
		if _, err := h.hub.Command(t.Context(), run, "", c); err != nil {
			t.Fatal(err)
		}
	}
	seat(true)
	other := h.visitor()
	for what, got := range map[string]refusal.Code{
		"by another name":               noor.post("/api/join", web.Join{Code: code, Name: "Zorro"}, nil),
		"by the same name":              noor.post("/api/join", web.Join{Code: code, Name: "Noor Haddad"}, nil),
		"by a knock":                    noor.post("/api/join/knock", web.Join{Code: code, Name: "Zorro"}, nil),
		"as somebody who leaves":        noor.post("/api/leave", struct{}{}, nil),
		"and then by another name":      noor.post("/api/join", web.Join{Code: code, Name: "Zorro"}, nil),
		"as themselves, another device": other.post("/api/join", web.Join{Code: code, Name: "noor haddad"}, nil),
	} {
		if got != refusal.SentOut {
			t.Errorf("%s: %q", what, got)
		}
	}
	// Nor with somebody else's card, on that device.
	var cards web.Cards
	ines.get("/api/classes/"+class.ID+"/cards", &cards)
	for _, k := range cards.Cards {
		if got := noor.post("/api/join/card", web.ByCard{Card: k.Code, Session: run}, nil); got != refusal.SentOut {
			t.Errorf("with the card of %s: %q", k.Name, got)
		}
	}
	if got := other.post("/api/join", web.Join{Code: code, Name: "Kenji Mori"}, nil); got != "" {
		t.Errorf("somebody else: %q", got)
	}
	// In another lesson they are welcome.
	elsewhere := ines.teaches(class.ID, false)
	if got := noor.post("/api/join", web.Join{Code: ines.code(elsewhere), Name: "Noor Haddad"}, nil); got != "" {
		t.Errorf("another lesson: %q", got)
	}
	seat(false)
	if got := h.visitor().post("/api/join", web.Join{Code: code, Name: "Noor Haddad"}, nil); got != "" {
		t.Errorf("let in again: %q", got)
	}
}

// Names that there is a doubt about wait at the open door, and the teacher sees why.
func TestDoubtfulNames(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	class := ines.class("8 Rowan", "Noor Haddad\nKenji Mori")
	run := ines.teaches(class.ID, false)
	code := ines.code(run)
	door := func(d session.Door) session.State {
		t.Helper()
		s, err := h.hub.Command(t.Context(), run, "", session.Command{Kind: session.KindDoor, Door: &d})
		if err != nil {
			t.Fatal(err)
		}
		return s
	}
	door(session.Door{Entry: session.EntryKnown})
	if got := h.visitor().post("/api/join", web.Join{Code: code, Name: "Noor"}, nil); got != "" {
		t.Errorf("a part of a name on the list: %q", got)
	}
	zorro := h.visitor()
	if got := zorro.post("/api/join", web.Join{Code: code, Name: "Zorro"}, nil); got != refusal.NameWaits {
		t.Errorf("a stranger: %q", got)
	}
	if got := zorro.post("/api/join/knock", web.Join{Code: code, Name: "Zorro"}, nil); got != "" {
		t.Errorf("who knocks: %q", got)
	}
	s := door(session.Door{Entry: session.EntryKnown})
	if len(s.Waiting) != 1 || s.Waiting[0].Doubt != "stranger" {
		t.Errorf("the teacher sees %+v", s.Waiting)
	}
	// Of the list only, though the lesson began without.
	door(session.Door{Entry: session.EntryList})
	var found web.JoinFound
	if got := h.visitor().post("/api/join/check", web.JoinCode{Code: code}, &found); got != "" ||
		len(found.Names) != 2 {
		t.Errorf("the list: %q %+v", got, found)
	}
	if got := h.visitor().post("/api/join", web.Join{Code: code, Name: "Zorro"}, nil); got != refusal.NameNotListed {
		t.Errorf("not on the list: %q", got)
	}
	door(session.Door{Closed: true, Shut: true})
	if got := h.visitor().post("/api/join/knock", web.Join{Code: code, Name: "Amara"}, nil); got != refusal.DoorShut {
		t.Errorf("a knock at the shut door: %q", got)
	}
}

// A new name is on every screen, told apart from others', and on other servers too.
func TestRenaming(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	id, staff, noor, kenji := h.running()
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	at := "/api/sessions/" + id + "/people/" + noor.hello.Me.ID + "/name"
	for name, want := range map[string]refusal.Code{"": refusal.NameEmpty, "a\u202eb": refusal.NameControl} {
		if got := ines.post(at, web.RenamePerson{Name: name}, nil); got != want {
			t.Errorf("%q: %q", name, got)
		}
	}
	if got := other.post(at, web.RenamePerson{Name: "Zoe"}, nil); got != refusal.NotFound {
		t.Errorf("another teacher: %q", got)
	}
	if got := ines.post(at, web.RenamePerson{Name: "  kenji "}, nil); got != "" {
		t.Fatal(got)
	}
	people, _ := h.store.Participants(t.Context(), id)
	if people[0].Name != "kenji 2" {
		t.Errorf("told apart: %q", people[0].Name)
	}
	for what, l := range map[string]*line{"the staff": staff, "Kenji": kenji} {
		if !l.until(`"name":"kenji 2"`) {
			t.Errorf("%s has not heard of it", what)
		}
	}
}

// A walk over the wire: everybody sees the work they are led to and says something about
// it; the author is told; what waits is not seen; and when it is over nobody sees anything.
func TestWalking(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	id, staff, noor, kenji := h.running()
	ines := h.teacher("ines@ternharbour.example")
	own := "own" // as house.teacher's board has it
	staff.command(session.Command{Kind: session.KindGo, Go: &session.Go{Frame: own}})
	theirs := noor.sheet(own, noor.hello.Me.ID)
	noor.mustDo(note(theirs, "the Moon pulls"))
	var at live.AtStop
	if got := kenji.call(live.MethodWalk, live.WalkTo{}, &at); got != refusal.NoSuchSheet {
		t.Errorf("without a walk: %q", got)
	}
	if got := kenji.do(remark(theirs, "before")).Problem; got == nil || got.Code != refusal.NoSuchSheet {
		t.Errorf("a word without a walk: %v", got)
	}
	walk := session.SetWalk{Frame: own, Stops: []string{noor.hello.Me.ID}, Replies: true}
	staff.command(session.Command{Kind: session.KindWalk, Walk: &walk})
	if got := kenji.call(live.MethodWalk, live.WalkTo{}, &at); got != "" || at.Owner != noor.hello.Me.ID ||
		len(at.Sheet.Put) != 1 {
		t.Fatalf("led: %q %+v", got, at.Sheet)
	}
	if got := kenji.call(live.MethodWalk, live.WalkTo{Owner: kenji.hello.Me.ID}, nil); got != refusal.NoSuchSheet {
		t.Errorf("to another stop: %q", got)
	}
	if got := kenji.do(note(theirs, "mine on yours")).Problem; got == nil || got.Code != refusal.NotYours {
		t.Errorf("a note on another's: %v", got)
	}
	kenji.mustDo(remark(theirs, "I think so, too"))
	for what, l := range map[string]*line{"the author": noor, "the staff": staff, "who walks": kenji} {
		if !l.until("I think so, too") {
			t.Errorf("%s has not heard what was said", what)
		}
	}
	staff.command(session.Command{Kind: session.KindHold, Hold: &session.Hold{On: true}})
	kenji.mustDo(remark(theirs, "this waits"))
	if !kenji.until("this waits") {
		t.Error("who wrote what waits has not heard of it")
	}
	noor.mustDo(note(theirs, "and the Sun"))
	if noor.everHeard("this waits") {
		t.Error("the author was told what waits")
	}
	// A step further is no happening of its own.
	walk.Replies = false
	staff.command(session.Command{Kind: session.KindWalk, Walk: &walk})
	staff.command(session.Command{Kind: session.KindWalk, Walk: &session.SetWalk{Stops: []string{}}})
	// What waited is refused after the walk, and what goes on there is nothing to who said it.
	before := kenji.heardOf(theirs)
	waits := heldOn(t, staff, own, theirs)
	staff.mustDo(
		sheet.Op{
			ID:    store.NewID(),
			Sheet: theirs,
			Step:  sheet.Step{Kind: sheet.KindHide, Hide: &sheet.Hide{Mark: waits}},
		},
	)
	noor.mustDo(note(theirs, "by herself again"))
	noor.until("by herself again")
	kenji.call(live.MethodTime, struct{}{}, nil)
	if after := kenji.heardOf(theirs); after != before {
		t.Errorf("after the walk Kenji is told of the sheet %d times more", after-before)
	}
	if got := kenji.call(live.MethodWalk, live.WalkTo{}, nil); got != refusal.NoSuchSheet {
		t.Errorf("after the walk: %q", got)
	}
	if got := kenji.call(live.MethodSince, live.Since{Sheet: theirs}, nil); got != refusal.NoSuchSheet {
		t.Errorf("the sheet after the walk: %q", got)
	}
	if got := kenji.do(remark(theirs, "late")).Problem; got == nil || got.Code != refusal.NoSuchSheet {
		t.Errorf("a word after the walk: %v", got)
	}
	// All of it stands on the line of time.
	var l record.Line
	if got := ines.get("/api/sessions/"+id+"/line", &l); got != "" {
		t.Fatal(got)
	}
	kinds := map[session.CommandKind]int{}
	for _, e := range l.Events {
		if e.Command != nil {
			kinds[e.Command.Kind]++
		}
	}
	if kinds[session.KindWalk] != 2 || kinds[session.KindHold] != 1 || kinds[session.KindGo] != 1 ||
		kinds[session.KindPace] != 1 ||
		kinds[session.KindFront] != 0 {
		t.Errorf("what happened: %v", kinds)
	}
	cells := 0
	for _, f := range l.Frames {
		for _, n := range f.Cells {
			cells += n
		}
	}
	if cells != 6 {
		t.Errorf("%d changes counted, want 6", cells)
	}
}

// heardOf counts what the line was told of a sheet.
func (l *line) heardOf(sheet string) int {
	l.mu.Lock()
	defer l.mu.Unlock()
	return strings.Count(l.heard.String(), `"sheet":"`+sheet+`"`)
}

// heldOn gives a mark of a sheet that waits for a yes.
func heldOn(t *testing.T, staff *line, frame, sheet string) string {
	t.Helper()
	for _, v := range staff.open(frame) {
		for _, m := range v.Put {
			if v.Sheet == sheet && m.Stands() == lesson.Held {
				return m.ID
			}
		}
	}
	t.Fatal("nothing waits")
	return ""
}

func remark(on, text string) sheet.Op {
	return sheet.Op{ID: store.NewID(), Sheet: on, Step: sheet.Step{Kind: sheet.KindAdd,
		Add: &sheet.Add{
			Mark: store.NewID(),
			Body: lesson.Body{Kind: lesson.KindRemark, Remark: &lesson.Remark{Text: text}},
		}}}
}

package web_test

import (
	"sync"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/web"
)

// The closed door: who knocks waits, comes in once with a yes, and nobody comes
// in without one, whatever they send.
func TestKnocking(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	id, code := h.teacher("ines@ternharbour.example").started()
	_, other := h.teacher("other@ternharbour.example").started()
	command := func(c session.Command) session.State {
		t.Helper()
		s, err := h.hub.Command(t.Context(), id, "", c)
		if err != nil {
			t.Fatal(err)
		}
		return s
	}
	door := func(closed bool) session.State {
		return command(session.Command{Kind: session.KindDoor, Door: &session.Door{Closed: closed}})
	}
	answer := func(yes bool, knocks ...session.Knock) session.State {
		ids := []string{}
		for _, k := range knocks {
			ids = append(ids, k.ID)
		}
		return command(session.Command{Kind: session.KindAdmit, Admit: &session.Admit{Knocks: ids, Yes: yes}})
	}
	waits := func(v *visitor, code string) (web.AtDoor, refusal.Code) {
		var at web.AtDoor
		got := v.post("/api/join/wait", web.JoinCode{Code: code}, &at)
		return at, got
	}
	noor := h.visitor()
	if _, got := waits(noor, code); got != refusal.NotLetIn {
		t.Errorf("waiting without a knock: %q", got)
	}
	door(true)
	if got := noor.post("/api/join", web.Join{Code: code, Name: "Noor"}, nil); got != refusal.DoorClosed {
		t.Fatalf("joining at the closed door: %q", got)
	}
	if got := noor.post("/api/join/knock", web.Join{Code: code, Name: " "}, nil); got != refusal.NameEmpty {
		t.Errorf("a knock without a name: %q", got)
	}
	for range 3 { // knocking again changes nothing
		if got := noor.post("/api/join/knock", web.Join{Code: code, Name: "Noor"}, nil); got != "" {
			t.Fatal(got)
		}
	}
	kenji := h.visitor()
	kenji.post("/api/join/knock", web.Join{Code: code, Name: "Kenji"}, nil)
	if at, got := waits(noor, code); got != "" || !at.Waiting || at.Seat != nil {
		t.Errorf("before the answer: %+v, %q", at, got)
	}
	if _, got := waits(noor, other); got != refusal.NotLetIn {
		t.Errorf("waiting at another lesson's door: %q", got)
	}
	state := command(session.Command{Kind: session.KindPause, Pause: &session.Pause{}})
	if len(state.Waiting) != 2 || state.Waiting[0].Name != "Noor" {
		t.Fatalf("the staff sees %+v", state.Waiting)
	}
	knocks := state.Waiting
	answer(true, knocks[0], knocks[0])
	answer(false, knocks[1])
	// Who closed the lid meanwhile knocks again, and is let in all the same.
	if got := noor.post("/api/join/knock", web.Join{Code: code, Name: "Noor"}, nil); got != "" {
		t.Fatal(got)
	}
	if s := command(session.Command{Kind: session.KindPause, Pause: &session.Pause{}}); len(s.Waiting) != 0 {
		t.Errorf("let in, and waits again: %+v", s.Waiting)
	}
	if _, got := waits(kenji, code); got != refusal.NotLetIn {
		t.Errorf("sent away: %q", got)
	}
	// The answer is asked for by ten at once: there is one Noor afterwards.
	var all sync.WaitGroup
	for range 10 {
		all.Go(func() { waits(noor, code) })
	}
	all.Wait()
	var me web.Me
	if noor.get("/api/me", &me); me.Seat == nil || me.Seat.Name != "Noor" {
		t.Errorf("let in, and yet: %+v", me)
	}
	// After leaving, the same knock opens nothing.
	noor.post("/api/leave", struct{}{}, nil)
	if _, got := waits(noor, code); got != refusal.NotLetIn {
		t.Errorf("the knock used again: %q", got)
	}
	// An opened door lets in who still waits.
	kenji.post("/api/join/knock", web.Join{Code: code, Name: "Kenji"}, nil)
	door(false)
	if at, got := waits(kenji, code); got != "" || at.Seat == nil || at.Seat.Name != "Kenji" {
		t.Errorf("the door was opened: %+v, %q", at, got)
	}
	people, err := h.store.Participants(t.Context(), id)
	if err != nil || len(people) != 2 {
		t.Errorf("%d participants, %v", len(people), err)
	}
	door(true)
	var last refusal.Code
	for range session.MaxWaiting + 1 {
		last = h.visitor().post("/api/join/knock", web.Join{Code: code, Name: "Crowd"}, nil)
	}
	if last != refusal.DoorClosed {
		t.Errorf("a crowd at the door: %q", last)
	}
	command(session.Command{Kind: session.KindEnd, End: &session.End{}})
	if _, got := waits(kenji, code); got != refusal.CodeUnknown {
		t.Errorf("after the end: %q", got)
	}
}

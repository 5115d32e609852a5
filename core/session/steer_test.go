package session_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
)

func code(err error) refusal.Code {
	if r := refusal.Of(err); r != nil {
		return r.Code
	}
	return ""
}

// Who comes in, who may knock, and why not: the whole table of the door.
func TestMayEnter(t *testing.T) {
	stranger, known := session.Entrant{Doubt: roster.DoubtStranger}, session.Entrant{Listed: true}
	card := session.Entrant{Card: true, Doubt: roster.DoubtTwice}
	through, out := session.Entrant{Through: true, Doubt: roster.DoubtWord}, session.Entrant{Listed: true, Out: true}
	open := session.State{}
	for _, c := range []struct {
		name          string
		state         session.State
		who           session.Entrant
		enters, knock refusal.Code
	}{
		{"open", open, stranger, "", ""},
		{"closed", session.State{Closed: true}, known, refusal.DoorClosed, ""},
		{"closed, with a card", session.State{Closed: true}, card, refusal.DoorClosed, ""},
		{"closed, let through", session.State{Closed: true}, through, "", ""},
		{"shut", session.State{Closed: true, Shut: true}, known, refusal.DoorShut, refusal.DoorShut},
		{"shut, let through before", session.State{Closed: true, Shut: true}, through, "", ""},
		{"the list alone", session.State{Entry: session.EntryList}, stranger, refusal.NameNotListed,
			refusal.NameNotListed},
		{"of the list", session.State{Entry: session.EntryList}, known, "", ""},
		{"the list, with a card", session.State{Entry: session.EntryList}, card, "", ""},
		{"a doubt", session.State{Entry: session.EntryKnown}, stranger, refusal.NameWaits, ""},
		{"a doubt, with a card", session.State{Entry: session.EntryKnown}, card, "", ""},
		{"no doubt", session.State{Entry: session.EntryKnown}, known, "", ""},
		{"sent out", open, out, refusal.SentOut, refusal.SentOut},
		{"sent out, and let through", open, session.Entrant{Out: true, Through: true}, refusal.SentOut,
			refusal.SentOut},
		{"ended", session.State{Ended: true}, through, refusal.Ended, refusal.Ended},
	} {
		if got := code(c.state.MayEnter(c.who)); got != c.enters {
			t.Errorf("%s: enters %q, want %q", c.name, got, c.enters)
		}
		if got := code(c.state.MayKnock(c.who)); got != c.knock {
			t.Errorf("%s: knocks %q, want %q", c.name, got, c.knock)
		}
	}
}

// A doubtful name waits at the open door, and comes in when names are not looked at any more.
func TestDoubtWaits(t *testing.T) {
	door := func(s session.State, d session.Door, listed bool) (session.State, error) {
		return s.Apply(board(), session.Command{Kind: session.KindDoor, Door: &d}, session.With{Listed: listed})
	}
	s, _ := session.Start(board(), session.Led)
	s, err := door(s, session.Door{Entry: session.EntryKnown}, false)
	if err != nil {
		t.Fatal(err)
	}
	s, _ = s.Knock(session.Knock{ID: "a", Name: "Zorro", Doubt: roster.DoubtStranger})
	s, _ = s.Knock(session.Knock{ID: "b", Name: "Noor"})
	if !s.Waits("a") || s.Waits("b") || !s.Knocked("b") {
		t.Errorf("waiting: %+v, let in: %+v", s.Waiting, s.Admitted)
	}
	if s, _ = door(s, session.Door{Closed: true, Entry: session.EntryKnown}, false); !s.Waits("a") {
		t.Error("closing let somebody in")
	}
	if s, _ = door(s, session.Door{Entry: session.EntryKnown}, false); !s.Waits("a") {
		t.Error("opening let a doubtful name in")
	}
	if s, _ = door(s, session.Door{}, false); s.Waits("a") || !s.Knocked("a") {
		t.Error("nothing is waited for any more, and yet they wait")
	}
	for name, d := range map[string]session.Door{"a list where there is none": {Entry: session.EntryList},
		"shut and open": {Shut: true}, "another way": {Entry: "friends"}} {
		if _, err := door(s, d, false); code(err) != refusal.Malformed {
			t.Errorf("%s: %v", name, err)
		}
	}
	if _, err := door(s, session.Door{Entry: session.EntryList}, true); err != nil {
		t.Error(err)
	}
}

// One student only looks for a while; who is looked at by that alone is free again when
// it is over, and who may only look until the teacher says so is not.
func TestLockForAWhile(t *testing.T) {
	with := session.With{Now: 1000, Students: []string{"noor", "kenji"}}
	s, _ := session.Start(board(), session.Led)
	lock := func(l session.Lock) (err error) {
		var next session.State
		if next, err = s.Apply(board(), session.Command{Kind: session.KindLock, Lock: &l}, with); err == nil {
			s = next
		}
		return err
	}
	for name, l := range map[string]session.Lock{
		"a frame": {Frame: "one", On: true, Seconds: 60}, "everybody": {On: true, Seconds: 60},
		"off": {Student: "noor", Seconds: 60}, "before now": {Student: "noor", On: true, Seconds: -1},
		"for ever": {Student: "noor", On: true, Seconds: session.MaxLocked + 1}, "nobody": {Student: "x", On: true,
			Seconds: 9},
	} {
		if err := lock(l); code(err) != refusal.Malformed {
			t.Errorf("%s for a while: %v", name, err)
		}
	}
	if err := lock(session.Lock{Student: "noor", On: true, Seconds: 60}); err != nil {
		t.Fatal(err)
	}
	if err := lock(session.Lock{Student: "kenji", On: true}); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		who  string
		at   int64
		want bool
	}{{"noor", 1000, true}, {"noor", 60_999, true}, {"noor", 61_000, false}, {"kenji", 1e12, true}} {
		if got := s.Locked("one", c.who, c.at); got != c.want {
			t.Errorf("%s at %d: %v", c.who, c.at, got)
		}
	}
	stage, _ := s.For(board(), session.Student{ID: "noor"})
	if stage.Locked || stage.LockedUntil != 61_000 || s.Same(board()) {
		t.Errorf("Noor is told %v, %d", stage.Locked, stage.LockedUntil)
	}
	// Until the teacher says so takes the place of for a while, and is forgotten with it.
	_ = lock(session.Lock{Student: "noor", On: true})
	if len(s.Locks.Until) != 0 || !s.Locked("one", "noor", 1e12) {
		t.Errorf("%+v", s.Locks)
	}
	if _ = lock(session.Lock{Student: "noor"}); s.Locked("one", "noor", 1000) {
		t.Error("let work again, and locked")
	}
}

// A walk: only along the work of some on a frame that is open; all are where the teacher
// is, or each begins at another stop; nobody begins at their own where there are others.
func TestWalk(t *testing.T) {
	b := board()
	b.Frames[0].Arrangement = lesson.Individual
	students := []string{"a", "b", "c", "d", "e"}
	with := session.With{Now: 5000, Students: students}
	s, _ := session.Start(b, session.Led)
	walk := func(w session.SetWalk) (session.State, error) {
		return s.Apply(b, session.Command{Kind: session.KindWalk, Walk: &w}, with)
	}
	for name, c := range map[string]struct {
		walk session.SetWalk
		want refusal.Code
	}{
		"no such frame":      {session.SetWalk{Frame: "x", Stops: []string{"a"}}, refusal.NoSuchFrame},
		"not open":           {session.SetWalk{Frame: "three", Stops: []string{"a"}}, refusal.NoSuchFrame},
		"nobody's":           {session.SetWalk{Frame: "one", Stops: []string{"x"}}, refusal.NoSuchSheet},
		"the class's":        {session.SetWalk{Frame: "one", Stops: []string{"class"}}, refusal.NoSuchSheet},
		"twice":              {session.SetWalk{Frame: "one", Stops: []string{"a", "a"}}, refusal.NoSuchSheet},
		"a group that isn't": {session.SetWalk{Frame: "one", Stops: []string{"group-1"}}, refusal.NoSuchSheet},
		"behind the last":    {session.SetWalk{Frame: "one", Stops: []string{"a"}, At: 1}, refusal.Malformed},
		"led with a sign":    {session.SetWalk{Frame: "one", Stops: []string{"a"}, Each: 60}, refusal.Malformed},
		"too short": {session.SetWalk{Frame: "one", Stops: []string{"a"}, Own: true, Each: 1},
			refusal.Malformed},
	} {
		if _, err := walk(c.walk); code(err) != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
	led, err := walk(session.SetWalk{Frame: "one", Stops: []string{"a", "b", "c"}, At: 1, Replies: true})
	if err != nil || !slices.Equal(led.Walked("one"), []string{"b"}) ||
		!slices.Equal(led.Visited("one"), []string{"b"}) ||
		led.Walked("two") != nil ||
		!slices.Equal(led.Front.Owners, []string{"b"}) ||
		led.Terms == s.Terms {
		t.Errorf("led: %+v, %v", led, err)
	}
	if stage, _ := led.For(b, session.Student{ID: "d"}); fmt.Sprint(
		stage.Walk.Stops,
		stage.Walk.Number,
		stage.Walk.Of,
	) != "[b] 2 3" {
		t.Errorf("Dia is told %+v", stage.Walk)
	}
	before := s
	s = led
	quiet, err := walk(session.SetWalk{Frame: "one", Stops: []string{"a", "b", "c"}, At: 1})
	if err != nil || quiet.Walk.Since != led.Walk.Since || quiet.Visited("one") != nil {
		t.Errorf("nothing more may be said: %+v, %v", quiet.Walk, err)
	}
	if over, err := walk(session.SetWalk{Stops: []string{}}); err != nil || over.Walk != nil ||
		over.Front.Kind != session.FrontFrame {
		t.Errorf("over: %+v, %v", over.Front, err)
	}
	s = before
	own, err := walk(session.SetWalk{Frame: "one", Stops: []string{"c", "a", "e"}, Own: true, Each: 120})
	if err != nil || len(own.Walked("one")) != 3 || own.Visited("one") != nil {
		t.Fatal(own.Walk, err)
	}
	begun := map[int]int{}
	for _, student := range students {
		at := own.Begins(student, students)
		begun[at]++
		if own.Walk.Stops[at] == student {
			t.Errorf("%s begins at their own", student)
		}
	}
	for at := range own.Walk.Stops {
		if begun[at] == 0 || begun[at] > 2 {
			t.Errorf("of %d students begin at each stop: %v", len(students), begun)
		}
	}
	if own.Ended = true; own.Walked("one") != nil {
		t.Error("the walk goes on after the end")
	}
}

// Before and after is one sheet of a frame that is open, up to one of its changes.
func TestPastInFront(t *testing.T) {
	with := session.With{Students: []string{"noor", "kenji"}}
	s, _ := session.Start(board(), session.Led)
	for name, c := range map[string]struct {
		front session.Front
		want  refusal.Code
	}{
		"one":         {session.Front{Kind: session.FrontPast, Frame: "one", Owners: []string{"noor"}, To: 3}, ""},
		"the class's": {session.Front{Kind: session.FrontPast, Frame: "one", Owners: []string{"class"}, To: 1}, ""},
		"two": {session.Front{Kind: session.FrontPast, Frame: "one", Owners: []string{"noor", "kenji"},
			To: 3}, refusal.Malformed},
		"nobody's": {session.Front{Kind: session.FrontPast, Frame: "one", To: 3}, refusal.Malformed},
		"at no time": {session.Front{Kind: session.FrontPast, Frame: "one", Owners: []string{"noor"}},
			refusal.Malformed},
		"not open": {session.Front{Kind: session.FrontPast, Frame: "three", Owners: []string{"noor"}, To: 3},
			refusal.NoSuchFrame},
		"a stranger's": {session.Front{Kind: session.FrontPast, Frame: "one", Owners: []string{"x"}, To: 3},
			refusal.NoSuchSheet},
	} {
		next, err := s.Apply(board(), session.Command{Kind: session.KindFront, Front: &c.front}, with)
		if code(err) != c.want {
			t.Errorf("%s: %v, want %q", name, err, c.want)
		}
		if frame, owners := next.OnFront(board()); err == nil &&
			(frame != "one" || len(owners) != 1 || next.Front.To != c.front.To) {
			t.Errorf("%s: %q %v %d", name, frame, owners, next.Front.To)
		}
	}
}

// Whatever is told a walk and the groups meanwhile: nobody panics, whoever asks where to
// begin gets a stop that there is, and nothing is shown of a frame that is not open.
func TestWalkAtRandom(t *testing.T) {
	b := board()
	b.Frames[0].Arrangement, b.Frames[1].Arrangement = lesson.Individual, lesson.Groups
	students := []string{"a", "b", "c", "d"}
	for seed := range uint64(100) {
		chance := rand.New(rand.NewPCG(seed, 9))
		with := session.With{Students: students, Random: chance.IntN}
		s, _ := session.Start(b, session.Led)
		for range 60 {
			with.Now++
			var c session.Command
			switch chance.IntN(6) {
			case 0:
				c = goTo([]string{"one", "two", "three"}[chance.IntN(3)])
			case 1:
				c = session.Command{Kind: session.KindGroups, Groups: &session.SetGroups{Size: 2 + chance.IntN(3)}}
			case 2:
				c = session.Command{Kind: session.KindSeat,
					Seat: &session.SetSeat{Student: students[chance.IntN(4)], Remove: chance.IntN(2) == 0}}
			default:
				w := session.SetWalk{
					Frame:   []string{"one", "two", "three", "x"}[chance.IntN(4)],
					At:      chance.IntN(4) - 1,
					Own:     chance.IntN(2) == 0,
					Replies: chance.IntN(2) == 0,
					Each:    chance.IntN(2) * 60,
				}
				for range chance.IntN(4) {
					w.Stops = append(
						w.Stops,
						append(students, sheet.GroupOwner(chance.IntN(3)), "class")[chance.IntN(6)],
					)
				}
				c = session.Command{Kind: session.KindWalk, Walk: &w}
			}
			if next, err := s.Apply(b, c, with); err == nil {
				s = next
			}
			for _, f := range b.Frames {
				if len(s.Walked(f.ID)) > 0 && !s.IsOpen(f.ID) {
					t.Fatalf("seed %d: walked along a frame that is not open", seed)
				}
			}
			for _, student := range append(students, "late") {
				if s.Walk != nil {
					if at := s.Begins(student, students); at < 0 || at >= len(s.Walk.Stops) {
						t.Fatalf("seed %d: %s begins at %d", seed, student, at)
					}
				}
				if _, err := s.For(b, session.Student{ID: student}); err != nil {
					t.Fatal(err)
				}
			}
		}
	}
}

package session_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

func show(f session.Front) session.Command {
	return session.Command{Kind: session.KindFront, Front: &f}
}

func TestFront(t *testing.T) {
	two := []session.Command{goTo("two")}
	for _, c := range []struct {
		name   string
		before []session.Command
		show   session.Front
		want   refusal.Code
	}{
		{"gathering", nil, session.Front{Kind: session.FrontGathering}, ""},
		{"the class's frame", nil, session.Front{Kind: session.FrontFrame}, ""},
		{"further down a column", nil, session.Front{Kind: session.FrontFrame, From: map[string]int{"see": 12}}, ""},
		{"no such column", nil, session.Front{Kind: session.FrontFrame, From: map[string]int{"think": 1}},
			refusal.Malformed},
		{"before the first note", nil, session.Front{Kind: session.FrontFrame, From: map[string]int{"see": -1}},
			refusal.Malformed},
		{"words", nil, session.Front{Kind: session.FrontWords, Words: " Ebb "}, ""},
		{"no words", nil, session.Front{Kind: session.FrontWords, Words: " "}, refusal.EmptyNote},
		{"words that turn around", nil, session.Front{Kind: session.FrontWords, Words: "a\u202Eb"},
			refusal.TextControl},
		{"too many words", nil, session.Front{Kind: session.FrontWords, Words: strings.Repeat("é", 201)},
			refusal.TextTooLong},
		{"anything", nil, session.Front{Kind: "anything"}, refusal.Malformed},
		{"a poll not reached", nil, session.Front{Kind: session.FrontPoll, Poll: "asked"}, refusal.NoSuchPoll},
		{"a poll", two, session.Front{Kind: session.FrontPoll, Poll: "asked", Result: true}, ""},
		{"another poll", two, session.Front{Kind: session.FrontPoll, Poll: "one"}, refusal.NoSuchPoll},
		{"six side by side", nil, session.Front{Kind: session.FrontSheets, Frame: "one", Owners: classOf(6).Students},
			""},
		{"seven", nil, session.Front{Kind: session.FrontSheets, Frame: "one", Owners: classOf(7).Students},
			refusal.Malformed},
		{"none", nil, session.Front{Kind: session.FrontSheets, Frame: "one"}, refusal.Malformed},
		{"one twice", nil, session.Front{Kind: session.FrontSheets, Frame: "one", Owners: []string{"student 0",
			"student 0"}},
			refusal.NoSuchSheet},
		{"somebody else", nil, session.Front{Kind: session.FrontSheets, Frame: "one", Owners: []string{"staff"}},
			refusal.NoSuchSheet},
		{"a group that is not there", nil, session.Front{Kind: session.FrontSheets, Frame: "one",
			Owners: []string{"group-1"}},
			refusal.NoSuchSheet},
		{"a frame to come", nil, session.Front{Kind: session.FrontSheets, Frame: "two", Owners: []string{"student 0"}},
			refusal.NoSuchFrame},
		{"a frame that was open", []session.Command{goTo("two"), goTo("one")},
			session.Front{Kind: session.FrontSheets, Frame: "two", Owners: []string{"student 0"}}, ""},
	} {
		on := board()
		on.Frames[0].Layout.Columns = []lesson.Column{{ID: "see"}}
		s, err := session.Start(on, session.Led)
		for _, b := range append([]session.Command{goTo("one")}, c.before...) {
			if err == nil {
				s, err = s.Apply(on, b, classOf(8))
			}
		}
		if err != nil {
			t.Fatal(err)
		}
		next, err := s.Apply(on, show(c.show), classOf(8))
		got := refusal.Code("")
		if r := refusal.Of(err); r != nil {
			got = r.Code
		}
		if got != c.want || err == nil && (next.Front.Kind != c.show.Kind || next.Terms != s.Terms) {
			t.Errorf("%s: %q, shows %+v", c.name, got, next.Front)
		}
		if gone, err := next.Apply(on, goTo("two"), classOf(8)); err != nil || gone.Front.From != nil {
			t.Errorf("%s: on the next frame it begins at %v: %v", c.name, gone.Front.From, err)
		}
	}
}

// Whatever a teacher does, a front screen is never told lesson notes, objectives,
// frames that are not open, what lies under covers, what is right before that is
// shown, counts that are not to be shown, nor the code when nobody may join.
func TestFrontKnowsNothingPrivate(t *testing.T) {
	b := board()
	secret := func(x string) string { return "SECRET " + x }
	for i := range b.Frames {
		f := &b.Frames[i]
		f.Notes, f.Objectives = secret("notes"), []string{"SECRET"}
		f.Prepared = append(f.Prepared,
			lesson.Element{ID: f.ID + "-under", X: 800, Y: 500, W: 100, H: 60,
				Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: secret(f.ID), Tint: "moss"}}},
			lesson.Element{ID: f.ID + "-lid", X: 750, Y: 450, W: 300, H: 200,
				Body: lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "moss"}}})
	}
	class := classOf(8)
	for seed := range uint64(60) {
		chance := rand.New(rand.NewPCG(seed, 3))
		s, err := session.Start(b, session.Led)
		if err != nil {
			t.Fatal(err)
		}
		shown := map[session.FrontKind]bool{}
		for range 60 {
			frame := b.Frames[chance.IntN(3)].ID
			owners := slices.Clone(class.Students[:1+chance.IntN(6)])
			commands := []session.Command{goTo(frame), setPoll(poll.Closed), ask(), setPoll(poll.Open),
				show(session.Front{Kind: session.FrontFrame}), show(session.Front{Kind: session.FrontGathering}),
				show(session.Front{Kind: session.FrontPoll, Poll: "asked", Result: chance.IntN(2) == 0}),
				show(session.Front{Kind: session.FrontSheets, Frame: frame, Owners: owners}),
				{Kind: session.KindDoor, Door: &session.Door{Closed: chance.IntN(2) == 0}}, setPace(session.Own, frame),
				setPace(session.Led, ""), use(frame, []lesson.Arrangement{lesson.WholeClass, lesson.Individual,
					lesson.Groups}[chance.IntN(3)])}
			if next, err := give(s, &b, commands[chance.IntN(len(commands))], class); err == nil {
				s = next
			}
			at, _ := s.OnFront(b)
			view := session.View{}
			if at != "" {
				if !s.IsOpen(at) {
					t.Fatalf("seed %d: the front shows %s, which is not open", seed, at)
				}
				if view, err = s.View(b, at, session.View{}); err != nil {
					t.Fatal(err)
				}
			}
			stage := s.OfFront(b, view, "K7M2QX", class.Students)
			shown[stage.Show.Kind] = true
			text, _ := json.Marshal(stage)
			if strings.Contains(string(text), "SECRET") || strings.Contains(string(text), `"right":true`) {
				t.Fatalf("seed %d: the front is told %s", seed, text)
			}
			if (stage.Code != "") == s.Closed {
				t.Fatalf("seed %d: closed %v, and the code is %q", seed, s.Closed, stage.Code)
			}
		}
		if len(shown) < 2 {
			t.Errorf("seed %d showed nothing", seed)
		}
		s, _ = s.Apply(b, end(), class)
		if at, owners := s.OnFront(b); at != "" || owners != nil {
			t.Errorf("after the end the front shows %s", at)
		}
		if stage := s.OfFront(b, session.View{}, "K7M2QX", nil); stage.Code != "" || !stage.Ended {
			t.Errorf("after the end: %+v", stage)
		}
	}
}

// The timer ends when it is said to, however it is lengthened and shortened, and
// locks what it is to lock then, no earlier and only until it is stopped.
func TestTimer(t *testing.T) {
	chance := rand.New(rand.NewPCG(7, 8))
	s, err := session.Start(board(), session.Led)
	if err != nil {
		t.Fatal(err)
	}
	now := int64(1_700_000_000_000)
	give := func(c session.SetTimer) error {
		next, err := s.Apply(board(), session.Command{Kind: session.KindTimer, Timer: &c}, session.With{Now: now})
		s = next
		return err
	}
	if err := give(session.SetTimer{More: 60}); refusal.Of(err).Code != refusal.NoTimer {
		t.Errorf("more of none: %v", err)
	}
	for _, seconds := range []int{-1, 1, session.MaxTimer + 1} {
		if err := give(session.SetTimer{Seconds: seconds}); refusal.Of(err).Code != refusal.Malformed {
			t.Errorf("%d seconds: %v", seconds, err)
		}
	}
	for range 500 {
		look := chance.IntN(2) == 0
		if err := give(session.SetTimer{Seconds: 5 + chance.IntN(600), Look: look}); err != nil {
			t.Fatal(err)
		}
		left := s.Timer.EndsAt - now
		for range chance.IntN(5) {
			went := int64(chance.IntN(200_000))
			now += went
			left = max(0, left-went)
			more := chance.IntN(1200) - 600
			if more == 0 {
				more = 60
			}
			if err := give(session.SetTimer{More: more}); err != nil {
				t.Fatal(err)
			}
			left = max(0, left+int64(more)*1000)
			if s.Timer.EndsAt != now+left || s.Timer.Length < left || s.Timer.Length < 1000 {
				t.Fatalf("ends in %d of %d, want %d", s.Timer.EndsAt-now, s.Timer.Length, left)
			}
		}
		if s.FrameLocked("one", s.Timer.EndsAt-1) || s.FrameLocked("one", s.Timer.EndsAt) != look {
			t.Fatal("looking only begins at the end, if at all")
		}
	}
	terms := s.Terms
	if err := give(session.SetTimer{}); err != nil || s.Timer != nil || s.FrameLocked("one", now+1e12) {
		t.Errorf("stopped: %v, %+v", err, s.Timer)
	}
	if s.Terms == terms {
		t.Error("what operations depend on has changed unseen")
	}
}

func TestLocks(t *testing.T) {
	lock := func(frame, student string, on bool) session.Command {
		return session.Command{Kind: session.KindLock, Lock: &session.Lock{Frame: frame, Student: student, On: on}}
	}
	s, err := session.Start(board(), session.Led)
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		command session.Command
		want    refusal.Code
		locked  string // which of one/0, one/1, two/0, two/1 are
	}{
		{lock("one", "", true), "", "one/0 one/1"},
		{lock("one", "", true), "", "one/0 one/1"},
		{lock("", "student 1", true), "", "one/0 one/1 two/1"},
		{lock("one", "", false), "", "one/1 two/1"},
		{lock("", "", true), "", "one/0 one/1 two/0 two/1"},
		{lock("", "student 1", false), "", "one/0 one/1 two/0 two/1"},
		{lock("", "", false), "", ""},
		{lock("four", "", true), refusal.NoSuchFrame, ""},
		{lock("", "nobody", true), refusal.Malformed, ""},
		{lock("one", "student 1", true), refusal.Malformed, ""},
	} {
		next, err := s.Apply(board(), c.command, classOf(2))
		got := refusal.Code("")
		if r := refusal.Of(err); r != nil {
			got = r.Code
		}
		var locked []string
		for _, frame := range []string{"one", "two"} {
			for student := range 2 {
				if next.Locked(frame, fmt.Sprint("student ", student), 0) {
					locked = append(locked, fmt.Sprint(frame, "/", student))
				}
			}
		}
		if got != c.want || strings.Join(locked, " ") != c.locked {
			t.Errorf("%+v: %q, locked %v", *c.command.Lock, got, locked)
		}
		s = next
	}
}

func TestToBoard(t *testing.T) {
	to := func(student string, seconds int) session.Command {
		return session.Command{Kind: session.KindBoard, Board: &session.ToBoard{Student: student, Seconds: seconds}}
	}
	class := classOf(2)
	class.Now = 1000
	for _, c := range []struct {
		name  string
		steps []session.Command
		want  refusal.Code // of the last
		now   int64
		there string
	}{
		{"until the teacher says so", []session.Command{to("student 1", 0)}, "", 1 << 50, "student 1"},
		{"for a minute, in it", []session.Command{to("student 1", 60)}, "", 60_999, "student 1"},
		{"for a minute, after it", []session.Command{to("student 1", 60)}, "", 61_000, ""},
		{"the next", []session.Command{to("student 1", 60), to("student 0", 0)}, "", 2000, "student 0"},
		{"the class goes on to another frame", []session.Command{to("student 1", 0), goTo("two")}, "", 2000,
			"student 1"},
		{"called back", []session.Command{to("student 1", 0), to("", 0)}, "", 2000, ""},
		{"nobody is there to call back", []session.Command{to("", 0)}, "", 2000, ""},
		{"somebody else", []session.Command{to("nobody", 0)}, refusal.Malformed, 2000, ""},
		{"too long", []session.Command{to("student 1", 4000)}, refusal.Malformed, 2000, ""},
		{"where each has a frame", []session.Command{use("one", lesson.Individual), to("student 1", 0)},
			refusal.NotShared,
			2000, ""},
		{"whose seat was taken away", []session.Command{to("student 1", 0),
			{Kind: session.KindSeat, Seat: &session.SetSeat{Student: "student 1", Remove: true}}}, "", 2000, ""},
	} {
		b := board()
		s, err := session.Start(b, session.Led)
		for _, step := range c.steps {
			if err == nil {
				s, err = give(s, &b, step, class)
			}
		}
		got := refusal.Code("")
		if r := refusal.Of(err); r != nil {
			got = r.Code
		}
		there := s.WhoIsAtBoard(s.Frame, c.now)
		if got != c.want || there != c.there || s.WhoIsAtBoard("three", c.now) != "" {
			t.Errorf("%s: %q, %q is there", c.name, got, there)
		}
	}
}

// What the class said, taken together by the teacher: bounded, and clean words alone.
func TestSaidInFront(t *testing.T) {
	b := board()
	s, _ := session.Start(b, session.Led)
	s, _ = s.Apply(b, goTo("two"), session.With{})
	said := func(change func(g *session.SaidGroup)) (session.State, error) {
		g := session.SaidGroup{Name: "gravity", Count: 3, Texts: []string{"gravty", "Gravity!"}}
		change(&g)
		return s.Apply(
			b,
			session.Command{Kind: session.KindFront, Front: &session.Front{Kind: session.FrontPoll, Poll: "asked",
				Groups: []session.SaidGroup{g}}},
			session.With{},
		)
	}
	next, err := said(func(*session.SaidGroup) {})
	if err != nil || len(next.Front.Groups) != 1 || next.Front.Groups[0].Count != 3 {
		t.Errorf("%v: %+v", err, next.Front)
	}
	next, err = next.Apply(b, session.Command{Kind: session.KindFront, Front: &session.Front{Kind: session.FrontFrame,
		Groups: []session.SaidGroup{{Name: "x", Count: 1}}}}, session.With{})
	if err != nil || next.Front.Groups != nil {
		t.Errorf("groups stay where no poll is shown: %v, %+v", err, next.Front)
	}
	for name, change := range map[string]func(g *session.SaidGroup){
		"nobody":       func(g *session.SaidGroup) { g.Count = 0 },
		"too many":     func(g *session.SaidGroup) { g.Count = session.MaxParticipants + 1 },
		"a long name":  func(g *session.SaidGroup) { g.Name = strings.Repeat("x", session.MaxFrontWords+1) },
		"many texts":   func(g *session.SaidGroup) { g.Texts = make([]string, 5) },
		"turned signs": func(g *session.SaidGroup) { g.Texts = []string{"a\u202Eb"} },
	} {
		if _, err := said(change); refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

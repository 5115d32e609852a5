package session_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

func setPace(pace session.Pace, through string) session.Command {
	return session.Command{Kind: session.KindPace, Pace: &session.SetPace{Pace: pace, Through: through}}
}

func use(frame string, a lesson.Arrangement) session.Command {
	return session.Command{Kind: session.KindUse,
		Use: &session.Use{Frame: frame, Arrangement: a, Permission: lesson.Add}}
}

func groups(size int) session.Command {
	return session.Command{Kind: session.KindGroups, Groups: &session.SetGroups{Size: size}}
}

func assign(student string, group int) session.Command {
	return session.Command{Kind: session.KindAssign, Assign: &session.Assign{Student: student, Group: group}}
}

func classOf(n int) session.With {
	class := session.With{Random: rand.New(rand.NewPCG(5, 6)).IntN}
	for i := range n {
		class.Students = append(class.Students, fmt.Sprint("student ", i))
	}
	return class
}

// Where a student is after some commands, for one who never moved and for one
// who went to frame three.
func TestPlace(t *testing.T) {
	for _, c := range []struct {
		name        string
		pace        session.Pace
		steps       []session.Command
		stay, moved string
	}{
		{"led", session.Led, nil, "one", "one"},
		{"led on", session.Led, []session.Command{goTo("two")}, "two", "two"},
		{"own from the start", session.Own, nil, "one", "three"},
		{"the teacher looks elsewhere", session.Own, []session.Command{goTo("two")}, "one", "three"},
		{"own from the second frame", session.Led, []session.Command{goTo("two"), setPace(session.Own, "")}, "two",
			"three"},
		{"open as far as two", session.Led, []session.Command{goTo("two"), setPace(session.Own, "two"), goTo("three")},
			"two", "two"},
		{"narrower than where it began", session.Led, []session.Command{goTo("three"), setPace(session.Own, "two")},
			"one", "one"},
		{"led again", session.Own, []session.Command{goTo("two"), setPace(session.Led, "")}, "two", "two"},
		{"wider again", session.Own, []session.Command{setPace(session.Own, "one"), setPace(session.Own, "")}, "one",
			"three"},
	} {
		t.Run(c.name, func(t *testing.T) {
			s, err := session.Start(board(), c.pace)
			for _, step := range c.steps {
				if err == nil {
					s, err = s.Apply(board(), step, session.With{})
				}
			}
			if err != nil {
				t.Fatal(err)
			}
			if got := s.Place(board(), session.Student{ID: "a"}); got != c.stay {
				t.Errorf("who stayed is on %s, want %s", got, c.stay)
			}
			if got := s.Place(board(), session.Student{ID: "a", At: "three"}); got != c.moved {
				t.Errorf("who went to three is on %s, want %s", got, c.moved)
			}
		})
	}
}

// A frame that is open can be worked on, and its poll answered; one that is
// not is not named to anybody.
func TestOwnPaceOpensFrames(t *testing.T) {
	s, err := session.Start(board(), session.Led)
	if err == nil {
		s, err = s.Apply(board(), setPace(session.Own, "two"), session.With{})
	}
	if err != nil || !slices.Equal(s.Reached, []string{"one", "two"}) || s.Polls["asked"].Phase != poll.Open {
		t.Fatalf("%+v, %v", s, err)
	}
	stage, err := s.For(board(), session.Student{ID: "a", At: "two"})
	want := []session.Station{{Frame: "one", Title: "title of one"}, {Frame: "two", Title: "title of two"}}
	if err != nil || stage.Frame.ID != "two" || !reflect.DeepEqual(stage.Trail, want) ||
		stage.Polls["asked"].Phase != poll.Open {
		t.Errorf("%+v, %v", stage, err)
	}
	if text, _ := json.Marshal(stage); strings.Contains(string(text), "title of three") {
		t.Errorf("the stage tells of other frames: %s", text)
	}
	if s.MayMove(board(), "three") || !s.MayMove(board(), "one") {
		t.Error("open frames are one and two")
	}
	for _, c := range []session.Command{setPace("ajar", ""), setPace(session.Own, "four"), {Kind: session.KindPace}} {
		if next, err := s.Apply(board(), c, session.With{}); err == nil || !reflect.DeepEqual(next, s) {
			t.Errorf("%+v was taken", c)
		}
	}
}

func TestGroups(t *testing.T) {
	class := classOf(9)
	s, _ := session.Start(board(), session.Led)
	b := board()
	s, err := give(s, &b, use("two", lesson.Groups), class)
	if err != nil || len(s.Groups) != 0 {
		t.Fatalf("groups before the class gets to their frame: %v, %v", s.Groups, err)
	}
	if s, err = s.Apply(b, goTo("two"), class); err != nil || len(s.Groups) != 3 {
		t.Fatalf("nine students in groups of four: %v, %v", s.Groups, err)
	}
	stage, err := s.For(b, session.Student{ID: "student 0"})
	if n := s.GroupOf("student 0"); err != nil || stage.Group == nil || stage.Group.Number != n ||
		!reflect.DeepEqual(stage.Group.Members, s.Groups[n-1]) {
		t.Fatalf("%+v, %v", stage.Group, err)
	}
	if text, _ := json.Marshal(stage); strings.Contains(string(text), s.Groups[s.GroupOf("student 0")%3][0]) {
		t.Error("a student learns of another group")
	}
	before, _ := json.Marshal(s)
	late, changed := s.Admit("late")
	if again, once := late.Admit("late"); !changed || once || !reflect.DeepEqual(again, late) ||
		late.GroupOf("late") == 0 || len(late.Groups) != 3 {
		t.Errorf("%v, %v", late.Groups, changed)
	}
	for _, c := range []session.Command{groups(2), assign("student 3", 1), assign("student 3", 4)} {
		next, err := s.Apply(board(), c, class)
		if err != nil {
			t.Fatal(err)
		}
		if c.Kind == session.KindAssign && next.GroupOf("student 3") != c.Assign.Group {
			t.Errorf("assigned to %d, is in %d", c.Assign.Group, next.GroupOf("student 3"))
		}
		if c.Kind == session.KindGroups && len(next.Groups) != 5 {
			t.Errorf("nine in groups of two: %v", next.Groups)
		}
	}
	if after, _ := json.Marshal(s); string(before) != string(after) {
		t.Error("a command changed the state it was given")
	}
	for _, c := range []session.Command{groups(1), groups(13), assign("nobody", 1), assign("student 3", 0),
		assign("student 3", 5)} {
		if _, err := s.Apply(board(), c, class); !errors.Is(err, refusal.New(refusal.Malformed)) {
			t.Errorf("%+v: %v", c, err)
		}
	}
}

// Whatever the teacher does and whoever comes: nobody is in two groups, nobody
// is on a frame that is not open to work on, where the teacher leads all are on
// one frame, and the state is the same after being stored.
func TestAnyCommands(t *testing.T) {
	for seed := range uint64(300) {
		frames := []string{"one", "two", "three"}
		rnd := rand.New(rand.NewPCG(seed, 8))
		any := func(list ...string) string { return list[rnd.IntN(len(list))] }
		class := session.With{Random: rnd.IntN}
		b := board()
		s, _ := session.Start(b, session.Pace(any("led", "own")))
		for range 40 {
			var err error
			before := s.Rev
			switch rnd.IntN(9) {
			case 0:
				s, err = s.Apply(b, goTo(any(frames...)), class)
			case 1:
				s, err = s.Apply(b, setPace(session.Pace(any("led", "own")), any(append(slices.Clone(frames), "")...)),
					class)
			case 2:
				s, err = give(s, &b, use(any(frames...), lesson.Arrangement(any("class", "groups", "individual"))),
					class)
			case 3:
				s, err = s.Apply(b, groups(2+rnd.IntN(4)), class)
			case 4:
				class.Students = append(class.Students, fmt.Sprint(len(class.Students)))
				s, _ = s.Admit(class.Students[len(class.Students)-1])
			case 5:
				if len(class.Students) == 0 {
					continue
				}
				s, err = s.Apply(b, assign(any(class.Students...), 1+rnd.IntN(len(s.Groups)+1)), class)
			case 6:
				class.Students = append(class.Students, fmt.Sprint(len(class.Students)))
				continue
			case 7:
				order := slices.Clone(frames)
				rnd.Shuffle(len(order), func(i, j int) { order[i], order[j] = order[j], order[i] })
				s, err = rework(
					s,
					&b,
					prepare.Step{Kind: prepare.KindOrder, Order: &prepare.Frames{Frames: order}},
					class,
				)
			case 8:
				var next session.State
				gone := any(frames...)
				next, err = rework(s, &b, prepare.Step{Kind: prepare.KindDrop,
					Drop: &prepare.Frames{Frames: []string{gone}}}, class)
				used := slices.Contains(append(slices.Clone(s.Reached), s.Frame), gone)
				if refused := errors.Is(err, refusal.New(refusal.FrameInUse)); refused != used && len(frames) > 1 {
					t.Fatalf("seed %d: %s is in use: %v, dropped: %v", seed, gone, used, err)
				}
				if err != nil {
					continue
				}
				s, frames = next, slices.DeleteFunc(slices.Clone(frames), func(id string) bool { return id == gone })
			}
			for _, id := range s.Reached {
				f, _, err := b.Frame(id)
				if err != nil {
					t.Fatalf("seed %d: %s was reached and is gone", seed, id)
				}
				for _, p := range f.Polls() {
					if s.Polls[p.ID].Phase == "" {
						t.Fatalf("seed %d: the poll of %s has no phase", seed, id)
					}
				}
			}
			if err != nil || s.Rev != before+1 {
				t.Fatalf("seed %d: rev %d after %d, %v", seed, s.Rev, before, err)
			}
			seen := map[string]bool{}
			for _, id := range slices.Concat(s.Groups...) {
				if seen[id] || !slices.Contains(class.Students, id) {
					t.Fatalf("seed %d: groups %v", seed, s.Groups)
				}
				seen[id] = true
			}
			for _, student := range []session.Student{{ID: "0"}, {ID: "1", At: any(frames...)}, {ID: "2", At: "gone"}} {
				stage, err := s.For(b, student)
				if err != nil || !slices.Contains(s.Reached, stage.Frame.ID) || s.Pace == session.Led &&
					stage.Frame.ID != s.Frame {
					t.Fatalf("seed %d: on %s, reached %v, %v", seed, stage.Frame.ID, s.Reached, err)
				}
				alike, err := s.For(b, session.Student{})
				if s.Same(b) && (err != nil || !reflect.DeepEqual(alike, stage)) {
					t.Fatalf("seed %d: stages differ", seed)
				}
			}
			text, _ := json.Marshal(s)
			var back session.State
			if err := json.Unmarshal(text, &back); err != nil {
				t.Fatal(err)
			}
			if again, _ := json.Marshal(back); string(again) != string(text) {
				t.Fatalf("seed %d: stored %s, read %s", seed, text, again)
			}
		}
	}
}

package session_test

import (
	"slices"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

// rework makes one change of a running lesson's board.
func rework(s session.State, b *lesson.Board, step prepare.Step, with session.With) (session.State, error) {
	d := prepare.New(*b)
	if _, _, err := d.Apply(prepare.Edit{ID: "01890000-0000-7000-8000-000000000000", Step: step}, 0); err != nil {
		return s, err
	}
	next, err := s.Rework(session.Rework{Before: *b, After: d.Board()}, with)
	if err == nil {
		*b = d.Board()
	}
	return next, err
}

// give gives a command, whether it changes the state or the board.
func give(s session.State, b *lesson.Board, c session.Command, with session.With) (session.State, error) {
	if step, ok := c.Edit(); ok {
		return rework(s, b, step, with)
	}
	return s.Apply(*b, c, with)
}

// Other words for a frame reach students, their trail and the front, and what
// depends on the frame starts again.
func TestReword(t *testing.T) {
	reword := func(frame, title, prompt string) session.Command {
		return session.Command{Kind: session.KindReword,
			Reword: &session.Reword{Frame: frame, Title: title, Prompt: prompt}}
	}
	b := board()
	s, err := session.Start(b, session.Own)
	if err != nil {
		t.Fatal(err)
	}
	before, err := s.View(b, "one", session.View{})
	if err != nil {
		t.Fatal(err)
	}
	next, err := give(s, &b, reword("one", "Ebb", "What goes out?"), session.With{})
	if err != nil || next.Terms != s.Terms+1 || next.Edition != s.Edition+1 {
		t.Fatalf("%v, terms %d after %d", err, next.Terms, s.Terms)
	}
	view, err := next.View(b, "one", before)
	if err != nil || view.Frame.Title != "Ebb" || view.Frame.Prompt != "What goes out?" ||
		view.Content != before.Content {
		t.Errorf("%v: seen %q, %q", err, view.Frame.Title, view.Frame.Prompt)
	}
	stage, err := next.For(b, session.Student{ID: "noor"})
	if err != nil || stage.Trail[0].Title != "Ebb" || stage.Trail[1].Title != "title of two" {
		t.Errorf("%v: the trail %+v", err, stage.Trail)
	}
	for want, c := range map[refusal.Code]session.Command{
		refusal.NoSuchFrame: reword("four", "x", ""),
		refusal.TextTooLong: reword("one", "x", strings.Repeat("x", 601)),
		refusal.TextControl: reword("one", "x", "a\u202Eb"),
	} {
		if got, err := give(next, &b, c, session.With{}); err == nil || refusal.Of(err).Code != want ||
			got.Rev != next.Rev {
			t.Errorf("%v, want %s", err, want)
		}
	}
	if _, err := next.Apply(b, reword("one", "x", ""), session.With{}); err == nil {
		t.Error("the board was changed as if it were the state")
	}
}

// The board of a running lesson changes as far as nobody's work goes with it.
func TestRework(t *testing.T) {
	asked := func(id string, options ...string) lesson.Element {
		offer := []poll.Option{}
		for _, o := range options {
			offer = append(offer, poll.Option{ID: o, Text: "answer " + o})
		}
		return lesson.Element{ID: id, X: 500, Y: 100, W: 500, H: 300, Body: lesson.Body{Kind: lesson.KindPoll,
			Poll: &poll.Question{Text: "which?", Body: poll.Offer(offer...)}}}
	}
	frame := func(id string, marks ...lesson.Element) lesson.Frame {
		f, _, _ := board().Frame("one")
		f.ID, f.Prepared = id, append([]lesson.Element{}, marks...)
		return f
	}
	of := func(frames ...lesson.Frame) lesson.Board { return lesson.Board{Title: "Tides", Frames: frames} }
	before := of(frame("here", asked("q", "a", "b"), asked("p", "a", "b")), frame("there", asked("later", "a", "b")))
	answers := map[string][]poll.Value{"q": {poll.Choose("a")}}
	start, err := session.Start(before, session.Led)
	if err != nil {
		t.Fatal(err)
	}
	here := before.Frames[0]
	for _, c := range []struct {
		name  string
		after lesson.Board
		want  refusal.Code
		polls []string
	}{
		{"nothing", before, "", []string{"p", "q"}},
		{"a new frame between", of(here, frame("new", asked("n", "a", "b")), before.Frames[1]), "", []string{"p", "q"}},
		{"another order", of(before.Frames[1], here), "", []string{"p", "q"}},
		{"a frame less that nobody has seen", of(here), "", []string{"p", "q"}},
		{"the frame that the class is on", of(before.Frames[1]), refusal.FrameInUse, nil},
		{"nothing left", of(), refusal.BoardIncorrect, nil},
		{"a poll that nobody has answered", of(frame("here", asked("q", "a", "b"))), "", []string{"p", "q"}},
		{"a poll that was answered", of(frame("here", asked("p", "a", "b"))), refusal.PollAnswered, nil},
		{"its answer", of(frame("here", asked("q", "b", "c"), asked("p", "a", "b"))), refusal.PollAnswered, nil},
		{"an answer that nobody gave", of(frame("here", asked("q", "a", "c"))), "", []string{"p", "q"}},
		{"it goes to another frame", of(frame("here"), frame("there", asked("q", "a", "b"))), refusal.PollAnswered, nil},
		{"a poll on the spot", of(frame("here", asked("q", "a", "b"), asked("new", "a", "b"))), "",
			[]string{"new", "p", "q"}},
		{"the same id twice", of(here, frame("there", asked("q", "a", "b"))), refusal.BoardIncorrect, nil},
	} {
		next, err := start.Rework(
			session.Rework{Before: before, After: c.after, Answers: answers},
			session.With{Now: 7},
		)
		if got := refusal.Of(err); c.want != "" && (got == nil || got.Code != c.want || next.Rev != start.Rev) ||
			c.want == "" && err != nil {
			t.Errorf("%s: %v, want %q", c.name, err, c.want)
			continue
		}
		if c.want != "" {
			continue
		}
		polls := []string{}
		for id, p := range next.Polls {
			if p.Phase == poll.Open {
				polls = append(polls, id)
			}
		}
		slices.Sort(polls)
		if !slices.Equal(polls, c.polls) || next.Terms != start.Terms+1 || next.Edition != 1 {
			t.Errorf("%s: open %v, terms %d, edition %d", c.name, polls, next.Terms, next.Edition)
		}
	}
	// At own pace a frame that comes before the last open one is open.
	own, err := start.Apply(before, setPace(session.Own, "there"), session.With{})
	if err != nil {
		t.Fatal(err)
	}
	after := of(here, frame("new", asked("n", "a", "b")), before.Frames[1])
	next, err := own.Rework(session.Rework{Before: before, After: after}, session.With{})
	if err != nil || !next.IsOpen("new") || next.Polls["n"].Phase != poll.Open || !next.MayMove(after, "new") {
		t.Errorf("a new frame at own pace: %v, %+v", err, next)
	}
	// What the front shows may go; then it shows the class's frame.
	shown, err := start.Apply(before, show(session.Front{Kind: session.FrontPoll, Poll: "p"}), session.With{})
	if err != nil {
		t.Fatal(err)
	}
	next, err = shown.Rework(session.Rework{Before: before, After: of(frame("here"), before.Frames[1])}, session.With{})
	if err != nil || next.Front.Kind != session.FrontFrame {
		t.Errorf("the poll on the front is gone: %v, %+v", err, next.Front)
	}
	ended, _ := start.Apply(before, end(), session.With{})
	if _, err := ended.Rework(session.Rework{Before: before, After: before}, session.With{}); refusal.Of(err) == nil ||
		refusal.Of(err).Code != refusal.Ended {
		t.Errorf("after the end: %v", err)
	}
}

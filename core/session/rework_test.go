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
	next, kept, err := s.Rework(session.Rework{Before: *b, After: d.Board()}, with)
	if err == nil {
		*b = kept
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
	answers := map[string]int{"q": 1}
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
		{"its answer", of(frame("here", asked("q", "b", "c"), asked("p", "a", "b"))), "", []string{"p", "q"}},
		{"an answer that nobody gave", of(frame("here", asked("q", "a", "c"))), "", []string{"p", "q"}},
		{"it goes to another frame", of(frame("here"), frame("there", asked("q", "a", "b"))), refusal.PollAnswered,
			nil},
		{"a poll on the spot", of(frame("here", asked("q", "a", "b"), asked("new", "a", "b"))), "",
			[]string{"new", "p", "q"}},
		{"the same id twice", of(here, frame("there", asked("q", "a", "b"))), refusal.BoardIncorrect, nil},
	} {
		next, _, err := start.Rework(
			session.Rework{Before: before, After: c.after, Answered: answers},
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
	next, _, err := own.Rework(session.Rework{Before: before, After: after}, session.With{})
	if err != nil || !next.IsOpen("new") || next.Polls["n"].Phase != poll.Open || !next.MayMove(after, "new") {
		t.Errorf("a new frame at own pace: %v, %+v", err, next)
	}
	// What the front shows may go; then it shows the class's frame.
	shown, err := start.Apply(before, show(session.Front{Kind: session.FrontPoll, Poll: "p"}), session.With{})
	if err != nil {
		t.Fatal(err)
	}
	next, _, err = shown.Rework(
		session.Rework{Before: before, After: of(frame("here"), before.Frames[1])},
		session.With{},
	)
	if err != nil || next.Front.Kind != session.FrontFrame {
		t.Errorf("the poll on the front is gone: %v, %+v", err, next.Front)
	}
	ended, _ := start.Apply(before, end(), session.With{})
	if _, _, err := ended.Rework(session.Rework{Before: before, After: before}, session.With{}); refusal.Of(
		err,
	) == nil ||
		refusal.Of(err).Code != refusal.Ended {
		t.Errorf("after the end: %v", err)
	}
}

// A question that was answered and is asked in other words begins its next round, open where it
// was open; its answers keep the question to which they were given. One that nobody has answered,
// and what changes nothing for who answers, begins none.
func TestWrittenAnew(t *testing.T) {
	write := func(b lesson.Board, change func(q *poll.Question)) lesson.Board {
		f, at, _ := b.Frame("two")
		q := *f.Prepared[0].Poll
		q.Choice = &poll.Choice{Options: slices.Clone(q.Choice.Options)}
		change(&q)
		f.Prepared = slices.Clone(f.Prepared)
		f.Prepared[0].Poll = &q
		b.Frames = slices.Clone(b.Frames)
		b.Frames[at] = f
		return b
	}
	words := func(q *poll.Question) { q.Text = "How long, really?" }
	for name, c := range map[string]struct {
		phase    poll.Phase
		answered int
		change   func(q *poll.Question)
		want     poll.State
		was      int
	}{
		"open and answered": {poll.Open, 1, words, poll.State{Phase: poll.Open, Round: 2, OpenedAt: 7}, 1},
		"closed and answered": {poll.Closed, 1, words, poll.State{Phase: poll.Closed, Round: 2, OpenedAt: 7,
			ClosedAt: 7}, 1},
		"shown and answered": {poll.Revealed, 1, words, poll.State{Phase: poll.Closed, Round: 2, OpenedAt: 7,
			ClosedAt: 7}, 1},
		"nobody has answered": {poll.Open, 0, words, poll.State{Phase: poll.Open, Round: 1}, 0},
		"an option more": {poll.Open, 1, func(q *poll.Question) {
			q.Choice.Options = append(q.Choice.Options,
				poll.Option{ID: "c", Text: "C"})
		},
			poll.State{Phase: poll.Open, Round: 2, OpenedAt: 7}, 1},
		"another is right": {poll.Open, 1, func(q *poll.Question) {
			q.Choice.Options[0].Right,
				q.Choice.Options[1].Right = false, true
		},
			poll.State{Phase: poll.Open, Round: 1}, 0},
		"a mistake has a name": {poll.Open, 1, func(q *poll.Question) { q.Choice.Options[1].Mistake = "guessed" },
			poll.State{Phase: poll.Open, Round: 1}, 0},
	} {
		b := board()
		s, _ := session.Start(b, session.Led)
		s, _ = s.Apply(b, goTo("two"), session.With{})
		if c.phase != poll.Open {
			s, _ = s.Apply(b, setPoll(c.phase), session.With{})
		}
		next, kept, err := s.Rework(
			session.Rework{Before: b, After: write(b, c.change), Answered: map[string]int{"asked": c.answered}},
			session.With{Now: 7},
		)
		if err != nil || next.Polls["asked"] != c.want {
			t.Errorf("%s: %v, %+v", name, err, next.Polls)
		}
		p, _ := kept.Frames[1].Poll("asked")
		if len(p.Poll.Was) != c.was ||
			c.was > 0 && (p.Poll.In(1).Text != "How long?" || p.Poll.In(2).Text == "" || p.Poll.In(2).Was != nil) {
			t.Errorf("%s: %+v", name, p.Poll)
		}
		view, _ := next.View(kept, "two", session.View{})
		if len(view.Frame.Prepared[0].Poll.Was) > 0 {
			t.Errorf("%s: the class sees how it was", name)
		}
		// What was kept is not lost by the next change, nor set by anybody.
		last, again, err := next.Rework(
			session.Rework{Before: kept, After: write(kept, func(q *poll.Question) { q.Text = "Once more?" }),
				Answered: map[string]int{"asked": c.want.Round}},
			session.With{Now: 9},
		)
		p, _ = again.Frames[1].Poll("asked")
		if err != nil || last.Polls["asked"].Round != c.want.Round+1 || len(p.Poll.Was) != c.was+1 ||
			p.Poll.Check() != nil {
			t.Errorf("%s, and again: %v, %+v", name, err, p.Poll)
		}
	}
}

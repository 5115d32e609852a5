package session_test

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

func board() lesson.Board {
	asked := lesson.Element{ID: "asked", X: 100, Y: 100, W: 400, H: 300,
		Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{
			Text: "How long?", Body: poll.Offer(poll.Option{ID: "a", Text: "A", Right: true}, poll.Option{ID: "b",
				Text: "B"})}}}
	frame := func(id string, fixed ...lesson.Element) lesson.Frame {
		return lesson.Frame{ID: id, Title: "title of " + id, Paper: paper.Paper{Kind: paper.Plain},
			Arrangement: lesson.WholeClass, Permission: lesson.Add, Prepared: fixed}
	}
	return lesson.Board{Title: "Moon and tides",
		Frames: []lesson.Frame{frame("one"), frame("two", asked), frame("three")}}
}

func goTo(frame string) session.Command {
	return session.Command{Kind: session.KindGo, Go: &session.Go{Frame: frame}}
}

func setPoll(phase poll.Phase) session.Command {
	return session.Command{Kind: session.KindPoll, Poll: &session.SetPoll{Poll: "asked", Phase: phase}}
}

func ask() session.Command {
	return session.Command{Kind: session.KindAsk, Ask: &session.Ask{Poll: "asked"}}
}

func end() session.Command { return session.Command{Kind: session.KindEnd, End: &session.End{}} }

func TestCommands(t *testing.T) {
	cases := []struct {
		name  string
		steps []session.Command
		want  refusal.Code // of the last step
	}{
		{"forth and back", []session.Command{goTo("two"), goTo("one"), goTo("two")}, ""},
		{"open, close, open, close, reveal", []session.Command{goTo("two"), setPoll(poll.Closed), setPoll(poll.Open),
			setPoll(poll.Closed), setPoll(poll.Revealed)}, ""},
		{"cover the right answer again", []session.Command{goTo("two"), setPoll(poll.Revealed), setPoll(poll.Closed)},
			refusal.PollRevealed},
		{"a frame that is not there", []session.Command{goTo("four")}, refusal.NoSuchFrame},
		{"a poll not reached", []session.Command{setPoll(poll.Closed)}, refusal.NoSuchPoll},
		{"open after the right answer was shown",
			[]session.Command{goTo("two"), setPoll(poll.Revealed), setPoll(poll.Open)}, refusal.PollRevealed},
		{"a phase that is not there", []session.Command{goTo("two"), setPoll("ajar")}, refusal.Malformed},
		{"after the end", []session.Command{end(), goTo("two")}, refusal.Ended},
		{"nothing at all", []session.Command{{}}, refusal.UnknownOp},
		{"kind without its body", []session.Command{{Kind: session.KindGo}}, refusal.UnknownOp},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			s, err := session.Start(board(), session.Led)
			if err != nil {
				t.Fatal(err)
			}
			for i, step := range c.steps {
				before, _ := json.Marshal(s)
				next, err := s.Apply(board(), step, session.With{})
				if after, _ := json.Marshal(s); string(before) != string(after) {
					t.Fatal("a command changed the state it was given")
				}
				if i == len(c.steps)-1 && c.want != "" {
					if !errors.Is(err, refusal.New(c.want)) || next.Rev != s.Rev {
						t.Fatalf("got %v, want %s", err, c.want)
					}
					return
				}
				if err != nil || next.Rev != s.Rev+1 {
					t.Fatalf("step %d: rev %d, %v", i, next.Rev, err)
				}
				s = next
			}
		})
	}
}

// A question that is asked again is a round of its own, which changes what
// operations depend on; what is right is not seen again until it is revealed again.
func TestAskAgain(t *testing.T) {
	s, _ := session.Start(board(), session.Led)
	for i, c := range []struct {
		command session.Command
		want    poll.State
		refused refusal.Code
	}{
		{ask(), poll.State{}, refusal.NoSuchPoll},
		{goTo("two"), poll.State{Phase: poll.Open, Round: 1, OpenedAt: 2}, ""},
		{ask(), poll.State{Phase: poll.Open, Round: 1, OpenedAt: 2}, refusal.PollOpen},
		{setPoll(poll.Closed), poll.State{Phase: poll.Closed, Round: 1, OpenedAt: 2, ClosedAt: 4}, ""},
		{ask(), poll.State{Phase: poll.Open, Round: 2, OpenedAt: 5}, ""},
		{setPoll(poll.Revealed), poll.State{Phase: poll.Revealed, Round: 2, OpenedAt: 5, ClosedAt: 6}, ""},
		{ask(), poll.State{Phase: poll.Open, Round: 3, OpenedAt: 7}, ""},
	} {
		next, err := s.Apply(board(), c.command, session.With{Now: int64(i + 1)})
		if r := refusal.Of(err); (r != nil || c.refused != "") && (r == nil || r.Code != c.refused) {
			t.Fatalf("step %d: %v, want %s", i, err, c.refused)
		}
		if err == nil && next.Terms != s.Terms+1 {
			t.Errorf("step %d: terms from %d to %d", i, s.Terms, next.Terms)
		}
		if s = next; s.Polls["asked"] != c.want {
			t.Fatalf("step %d: %+v", i, s.Polls["asked"])
		}
	}
	stage, err := s.For(board(), session.Student{})
	if text, _ := json.Marshal(stage); err != nil || strings.Contains(string(text), `"right":true`) {
		t.Errorf("in the third round: %s, %v", text, err)
	}
}

func TestEndClosesPolls(t *testing.T) {
	s, _ := session.Start(board(), session.Led)
	s, _ = s.Apply(board(), goTo("two"), session.With{})
	s, err := s.Apply(board(), end(), session.With{})
	if err != nil || !s.Ended || s.Polls["asked"].Phase != poll.Closed {
		t.Errorf("%+v, %v", s, err)
	}
}

// The class gets its frame and nothing of the others, and learns the right
// answer when it is revealed and not before.
func TestForClass(t *testing.T) {
	s, _ := session.Start(board(), session.Led)
	for _, c := range []struct {
		command     session.Command
		frame       string
		seesRight   bool
		mayNotKnows string
	}{
		{goTo("one"), "one", false, "title of two"},
		{goTo("two"), "two", false, "title of three"},
		{setPoll(poll.Closed), "two", false, "title of three"},
		{setPoll(poll.Revealed), "two", true, "title of three"},
		{goTo("three"), "three", false, "How long?"},
	} {
		var err error
		if s, err = s.Apply(board(), c.command, session.With{}); err != nil {
			t.Fatal(err)
		}
		stage, err := s.For(board(), session.Student{})
		if err != nil || stage.Frame.ID != c.frame || stage.Of != 3 {
			t.Fatalf("%+v, %v", stage, err)
		}
		text, _ := json.Marshal(stage)
		if got := strings.Contains(string(text), `"right":true`); got != c.seesRight {
			t.Errorf("after %s to %s: right answer sent is %v", c.command.Kind, c.frame, got)
		}
		if strings.Contains(string(text), c.mayNotKnows) {
			t.Errorf("on %s the class is sent %q", c.frame, c.mayNotKnows)
		}
	}
	if !board().Frames[1].Prepared[0].Poll.Choice.Options[0].Right {
		t.Error("the board itself lost its right answer")
	}
}

// A pause is seen by every student, and no operation depends on it.
func TestPause(t *testing.T) {
	b := board()
	s, err := session.Start(b, session.Led)
	if err != nil {
		t.Fatal(err)
	}
	for _, on := range []bool{true, false} {
		next, err := s.Apply(b, session.Command{Kind: session.KindPause, Pause: &session.Pause{On: on}}, session.With{})
		if err != nil {
			t.Fatal(err)
		}
		stage, err := next.For(b, session.Student{ID: "noor"})
		if err != nil || stage.Paused != on || next.Terms != s.Terms || next.Rev != s.Rev+1 {
			t.Errorf("paused %v: %+v, %v", on, stage, err)
		}
		s = next
	}
}

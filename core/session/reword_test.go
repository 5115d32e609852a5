package session_test

import (
	"strings"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

// Other words for a frame reach students, their trail and the record, and what
// depends on the frame starts again; the board itself stays as it was.
func TestReword(t *testing.T) {
	reword := func(frame, title, prompt string) session.Command {
		return session.Command{Kind: session.KindReword,
			Reword: &session.Reword{Frame: frame, Wording: session.Wording{Title: title, Prompt: prompt}}}
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
	next, err := s.Apply(b, reword("one", "Ebb", "What goes out?"), session.With{})
	if err != nil || next.Terms != s.Terms+1 {
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
	if used := next.Used(b); used.Frames[0].Prompt != "What goes out?" || b.Frames[0].Prompt != "" {
		t.Errorf("the record has %q, the board %q", used.Frames[0].Prompt, b.Frames[0].Prompt)
	}
	for want, c := range map[refusal.Code]session.Command{
		refusal.NoSuchFrame: reword("four", "x", ""),
		refusal.TextTooLong: reword("one", "x", strings.Repeat("x", 601)),
		refusal.TextControl: reword("one", "x", "a\u202Eb"),
	} {
		if got, err := next.Apply(b, c, session.With{}); err == nil || refusal.Of(err).Code != want ||
			got.Rev != next.Rev {
			t.Errorf("%v, want %s", err, want)
		}
	}
}

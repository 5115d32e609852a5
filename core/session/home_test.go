package session_test

import (
	"testing"

	"alpenglow/core/homework"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
)

func home(until int64, student string) session.Command {
	return session.Command{Kind: session.KindHome, Home: &session.SetHome{Until: until, Student: student}}
}

// Left open as homework, everybody goes at their own pace and questions are open that were closed without their
// answers being shown; a date that is past, or for nobody, is refused and changes nothing.
func TestHomework(t *testing.T) {
	with := session.With{Now: 1000, Students: []string{"noor"}}
	s, err := session.Start(board(), session.Led)
	if err != nil {
		t.Fatal(err)
	}
	for id := range s.Polls {
		s.Polls[id] = poll.State{Phase: poll.Closed, Round: 1}
	}
	for _, c := range []struct {
		command session.Command
		want    refusal.Code
	}{
		{home(1000, ""), refusal.DatePast}, {home(5000, "noor"), refusal.Malformed}, {home(-5, ""), refusal.DatePast},
		{home(5000, ""), ""}, {home(9000, "noor"), ""}, {home(9000, "nobody"), refusal.Malformed},
		{home(500, "noor"), refusal.DatePast},
	} {
		next, err := s.Apply(board(), c.command, with)
		if r := refusal.Of(err); (r == nil) != (c.want == "") || r != nil && r.Code != c.want {
			t.Fatalf("%+v: %v", c.command.Home, err)
		}
		if err == nil {
			s = next
		}
	}
	if s.Pace != session.Own || s.Home.Due("noor") != 9000 || s.Home.Due("kenji") != 5000 {
		t.Errorf("%+v %+v", s.Pace, s.Home)
	}
	for id, p := range s.Polls {
		if p.Phase != poll.Open {
			t.Errorf("%s is %s", id, p.Phase)
		}
	}
	stage, err := s.For(board(), session.Student{ID: "kenji"})
	if err != nil || stage.Home == nil || stage.Home.Until != 5000 || stage.Home.Longer != nil {
		t.Errorf("%+v, %v", stage.Home, err)
	}
	if s, err = s.Apply(board(), home(0, ""), with); err != nil || s.Home != nil {
		t.Errorf("%+v, %v", s.Home, err)
	}
}

// A lesson that has ended is taken up again, each time as another day, and what was open before is as it was.
func TestResume(t *testing.T) {
	s, err := session.Start(board(), session.Own)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Resume("", 0, 0, 10); refusal.Of(err) == nil {
		t.Error("a lesson that runs was taken up")
	}
	// Homework that has closed does not lock the lesson that goes on.
	closed := s
	closed.Home, closed.Ended = &homework.Homework{Until: 1, Closes: true}, true
	if next, err := closed.Resume("", 0, 5, 10); err != nil || next.Home != nil {
		t.Errorf("%+v, %v", next.Home, err)
	}
	at := int64(100)
	for day := range session.MaxDays + 1 {
		ended, err := s.Apply(board(), session.Command{Kind: session.KindEnd, End: &session.End{}},
			session.With{Now: at})
		if err != nil {
			t.Fatal(err)
		}
		next, err := ended.Resume("", 50, at, at+10)
		if day > session.MaxDays-2 {
			if refusal.Of(err) == nil {
				t.Errorf("day %d: %v", day, err)
			}
			break
		}
		if err != nil || next.Ended || len(next.Days) != day+2 || next.Rev != ended.Rev+1 || next.Terms == ended.Terms {
			t.Fatalf("day %d: %+v, %v", day, next, err)
		}
		for i, d := range next.Days {
			if last := i == len(next.Days)-1; (d.Until == 0) != last || !last && d.Until < d.From {
				t.Fatalf("day %d is %+v", i, d)
			}
		}
		s, at = next, at+100
	}
}

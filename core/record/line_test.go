package record_test

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/session"
)

func told(at int64, c session.Command) session.Happening {
	return session.Happening{At: at, By: "ines", Command: c}
}

func goes(frame string) session.Command {
	return session.Command{Kind: session.KindGo, Go: &session.Go{Frame: frame}}
}

func pace(p session.Pace) session.Command {
	return session.Command{Kind: session.KindPace, Pace: &session.SetPace{Pace: p}}
}

func pause(on bool) session.Command {
	return session.Command{Kind: session.KindPause, Pause: &session.Pause{On: on}}
}

// A lesson of 20 minutes, written out: where the class was, a pause, what was done when,
// and what the teacher did to others' work; in whatever order it is read.
func TestLine(t *testing.T) {
	const minute = 60_000
	board := lesson.Board{Frames: []lesson.Frame{{ID: "one"}, {ID: "two"}, {ID: "three"}}}
	happened := []session.Happening{
		told(0, pace(session.Led)),
		told(5*minute, goes("two")),
		told(6*minute, goes("two")),
		told(8*minute, pause(true)),
		told(8*minute+1000, pause(true)),
		told(9*minute, pause(false)),
		told(10*minute, pace(session.Own)),
		told(12*minute, goes("three")),
		told(15*minute, pace(session.Led)),
		told(19*minute, pause(true)),
	}
	done := []record.Done{
		{Frame: "one", At: 0, N: 3},
		{Frame: "one", At: minute, N: 2},
		{Frame: "two", At: 19 * minute, N: 9},
		{Frame: "deleted", At: minute, N: 7},
	}
	deeds := []record.Told{{Frame: "one", Owner: "class", At: 2 * minute, Come: []string{"e"},
		Put: []record.ToldMark{{ID: "a", Author: "noor", Standing: &lesson.Standing{Is: lesson.Hidden}},
			{ID: "b", Author: "noor", Standing: &lesson.Standing{Is: lesson.Held}},
			{ID: "c", Author: "kenji", Standing: &lesson.Standing{Is: lesson.Removed}},
			{ID: "d", Author: "kenji"}, {ID: "e", Author: "noor"}, {ID: "f", Author: lesson.Staff}}},
		{Frame: "one", Owner: "class", At: 3 * minute, Put: []record.ToldMark{{ID: "g", Author: lesson.Staff}}}}
	line := record.LineOf(board, 0, 20*minute, happened, done, deeds)
	want := "[{led one 0 300000} {led two 300000 600000} {own  600000 900000} {led three 900000 1200000} " +
		"{paused  480000 540000} {paused  1140000 1200000}]"
	spans := append([]record.Span{}, line.Spans...)
	var sorted []record.Span
	for _, kind := range []bool{false, true} {
		for _, s := range spans {
			if (s.Kind == record.SpanPaused) == kind {
				sorted = append(sorted, s)
			}
		}
	}
	if got := fmt.Sprint(sorted); got != want {
		t.Errorf("spans\n%s, want\n%s", got, want)
	}
	if line.Step != record.DoneStep || len(line.Frames) != 3 || line.Frames[0].Cells[0] != 3 ||
		line.Frames[0].Cells[4] != 2 ||
		line.Frames[1].Cells[76] != 9 {
		t.Errorf("steps of %d: %v", line.Step, line.Frames)
	}
	if len(line.Events) != 11 || line.Events[1].Deed == nil {
		t.Fatalf("%d events: %+v", len(line.Events), line.Events)
	}
	if got := fmt.Sprintf("%+v", *line.Events[1].Deed); got !=
		"{Frame:one Owner:class Hidden:1 Held:1 Removed:1 Shown:1 Changed:1 Authors:[noor kenji]}" {
		t.Error(got)
	}
	random := rand.New(rand.NewPCG(1, 1))
	for range 20 {
		random.Shuffle(len(done), func(i, j int) { done[i], done[j] = done[j], done[i] })
		if again := record.LineOf(board, 0, 20*minute, happened, done, deeds); !reflect.DeepEqual(again, line) {
			t.Fatal("it depends on the order in which it is read")
		}
	}
}

// However long a lesson was and however wrong the times: no change is lost, there are not
// too many cells, and every span lies in the lesson.
func TestLineOfAnything(t *testing.T) {
	board := lesson.Board{Frames: []lesson.Frame{{ID: "one"}, {ID: "two"}}}
	for seed := range uint64(300) {
		random := rand.New(rand.NewPCG(seed, 2))
		length := int64(1) << random.IntN(32)
		var done []record.Done
		sum := 0
		for range random.IntN(50) {
			d := record.Done{
				Frame: []string{"one", "two"}[random.IntN(2)],
				At:    random.Int64N(2*length+1) - length/2,
				N:     1 + random.IntN(9),
			}
			done, sum = append(done, d), sum+d.N
		}
		var happened []session.Happening
		for range random.IntN(30) {
			c := []session.Command{
				goes("one"),
				goes("two"),
				pace(session.Led),
				pace(session.Own),
				pause(true),
				pause(false),
			}
			happened = append(happened, told(random.Int64N(2*length+1)-length/2, c[random.IntN(len(c))]))
		}
		line := record.LineOf(board, 0, length, happened, done, nil)
		for _, f := range line.Frames {
			if len(f.Cells) > 121 {
				t.Fatalf("seed %d: %d cells", seed, len(f.Cells))
			}
			for _, n := range f.Cells {
				sum -= n
			}
		}
		if sum != 0 {
			t.Fatalf("seed %d: %d changes lost", seed, sum)
		}
		for _, s := range line.Spans {
			if s.From < line.From || s.To <= s.From {
				t.Fatalf("seed %d: %+v in %d to %d", seed, s, line.From, line.To)
			}
		}
	}
	if empty := record.LineOf(lesson.Board{}, 5, 5, nil, nil, nil); len(
		empty.Events,
	)+len(
		empty.Spans,
	)+len(
		empty.Frames,
	) != 0 {
		t.Errorf("of nothing: %+v", empty)
	}
}

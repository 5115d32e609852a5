package standin_test

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"log/slog"
	"net/http/httptest"
	"os"
	"slices"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"alpenglow/apart"
	"alpenglow/apart/aparttest"
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/live"
	"alpenglow/standin"
	"alpenglow/store"
	"alpenglow/store/storetest"
	"alpenglow/web"

	"github.com/prometheus/client_golang/prometheus"
)

func TestMain(m *testing.M) {
	os.Exit(aparttest.Run(func() int { return storetest.Run(m) }))
}

// rehearsing starts a server with a practice session of a board.
func rehearsing(t *testing.T, board lesson.Board, pace session.Pace) (*store.Store, store.Session, standin.Options) {
	t.Helper()
	s := storetest.Open(t, storetest.URL(t))
	log := slog.New(slog.NewTextHandler(io.Discard, nil))
	registry := prometheus.NewRegistry()
	hub, err := live.New(s, log, registry)
	if err != nil {
		t.Fatal(err)
	}
	handler, err := web.New(web.Config{Store: s, Hub: hub, Log: log, Registry: registry,
		UI: fstest.MapFS{"index.html": {Data: []byte("x")}}})
	if err != nil {
		t.Fatal(err)
	}
	server := httptest.NewServer(handler)
	t.Cleanup(func() { hub.Close(context.Background()); server.Close() })

	teacher := store.Teacher{Email: "ines@ternharbour.example", Name: "Ines Aldana", Password: "x"}
	if err := s.AddTeacher(t.Context(), &teacher); err != nil {
		t.Fatal(err)
	}
	id, err := s.AddBoard(t.Context(), teacher.ID, board)
	if err != nil {
		t.Fatal(err)
	}
	state, err := session.Start(board, pace)
	if err != nil {
		t.Fatal(err)
	}
	n := store.Session{
		TeacherID: teacher.ID,
		Code:      "K7M2QX",
		Students:  store.JSON[[]roster.Listed]{V: []roster.Listed{}},
		State:     store.JSON[session.State]{V: state},
		Practice:  true,
	}
	if err := s.StartSession(t.Context(), &n, id, board); err != nil {
		t.Fatal(err)
	}
	return s, n, standin.Options{URL: server.URL, Code: n.Code, Pace: 0.01, Seed: 7, Log: log}
}

// At own pace the students answer and contribute, go on when they have done
// enough, look at what is only to look at, and share their groups' frames.
func TestAtOwnPace(t *testing.T) {
	t.Parallel()
	frame := func(id string, a lesson.Arrangement, p lesson.Permission) lesson.Frame {
		return lesson.Frame{ID: id, Prompt: "What about the tide?", Paper: paper.Paper{Kind: paper.Plain},
			Arrangement: a, Permission: p, Prepared: []lesson.Element{}}
	}
	s, n, o := rehearsing(t, lesson.Board{Title: "Tides", Frames: []lesson.Frame{
		frame("look", lesson.WholeClass, lesson.Look), frame("groups", lesson.Groups, lesson.Add),
		frame("own", lesson.Individual, lesson.Add)}}, session.Own)
	o.Students = 8
	class := standin.Start(t.Context(), o)
	defer class.Stop()
	var arrived, together int
	for range 600 {
		time.Sleep(100 * time.Millisecond)
		people, err := s.Participants(t.Context(), n.ID)
		if err != nil {
			t.Fatal(err)
		}
		arrived, together = 0, 0
		for _, p := range people {
			if p.Frame != nil && *p.Frame == "own" {
				arrived++
			}
		}
		keys, err := s.SheetKeys(t.Context(), n.ID, "")
		if err != nil {
			t.Fatal(err)
		}
		for _, key := range keys {
			on, err := s.LoadSheet(t.Context(), key)
			if err != nil {
				t.Fatal(err)
			}
			authors := map[string]bool{}
			for _, m := range on.Marks() {
				authors[m.Author] = true
			}
			switch {
			case key.Frame == "look" && len(authors) > 0, key.Frame == "groups" &&
				sheet.GroupNumber(key.Owner) == 0, key.Frame == "own" && len(authors) > 1:
				t.Fatalf("%d students on the sheet of %s on %s", len(authors), key.Owner, key.Frame)
			case key.Frame == "groups" && len(authors) > 1:
				together++
			}
		}
		if arrived >= 4 && together >= 2 {
			return
		}
	}
	t.Errorf("%d students went on to the last frame, on %d groups' frames more than one worked", arrived, together)
}

// A class of 20 joins through the public interface, writes what fits, answers
// partly right, moves pieces, does nothing where it may only look, rests when
// it is told to, and leaves nothing behind when the rehearsal is thrown away.
func TestClass(t *testing.T) {
	t.Parallel()
	asked := lesson.Element{ID: "asked", X: 100, Y: 100, W: 400, H: 300,
		Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{
			Text: "How long?", Body: poll.Offer(poll.Option{ID: "week", Text: "7 days"},
				poll.Option{ID: "month", Text: "29.53 days", Right: true}, poll.Option{ID: "year", Text: "365 days"})}}}
	card := lesson.Element{ID: "card", X: 100, Y: 300, W: 200, H: 80, Layer: lesson.Piece,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "ebb", Tint: "moss"}}}
	board := lesson.Board{Title: "Tides", Frames: []lesson.Frame{{ID: "one",
		Prompt: "What do you notice about the tide?", Paper: paper.Paper{Kind: paper.Plain},
		Arrangement: lesson.WholeClass, Permission: lesson.Add, Prepared: []lesson.Element{asked, card}}}}
	s, n, o := rehearsing(t, board, session.Led)
	o.Students, o.Asked = 20, standin.Questions(board)
	class := standin.Start(t.Context(), o)

	var answers, notes, fitting, right, moved int
	people := []store.Participant{}
	deadline := time.Now().Add(60 * time.Second)
	for time.Now().Before(deadline) && (len(people) < 20 || answers < 12 || notes < 20 || moved < 1) {
		time.Sleep(100 * time.Millisecond)
		marks, err := s.SessionMarks(t.Context(), n.ID)
		if err != nil {
			t.Fatal(err)
		}
		answers, notes, fitting, right, moved = 0, 0, 0, 0, 0
		for _, m := range marks {
			switch m.Kind {
			case lesson.KindAnswer:
				answers++
				if m.Answer.Value.Choice.Option == "month" {
					right++
				}
			case lesson.KindNote:
				notes++
				if strings.Contains(strings.ToLower(m.Note.Text), "tide") {
					fitting++
				}
			case lesson.KindPlaced:
				moved++
			}
		}
		if people, err = s.Participants(t.Context(), n.ID); err != nil {
			t.Fatal(err)
		}
	}
	if len(people) != 20 || answers < 12 || moved < 1 {
		t.Fatalf("%d students, %d answers, %d pieces moved", len(people), answers, moved)
	}
	if right == 0 || right == answers {
		t.Errorf("%d of %d answers are right", right, answers)
	}
	if fitting*4 < notes {
		t.Errorf("%d of %d notes are about the tide", fitting, notes)
	}
	class.Pause(true)
	last := func() int64 {
		all, err := s.Activities(t.Context(), n.ID)
		if err != nil {
			t.Fatal(err)
		}
		return slices.MaxFunc(all, func(a, b store.Activity) int { return int(a.At - b.At) }).At
	}
	// What was begun is finished, however long that takes; then nothing more comes.
	before, quiet := last(), 0
	for range 400 {
		time.Sleep(50 * time.Millisecond)
		if now := last(); now != before {
			before, quiet = now, 0
		} else if quiet++; quiet == 14 {
			break
		}
	}
	if quiet < 14 {
		t.Error("paused, the class works on")
	}
	class.Pause(false)
	for range 400 {
		if last() != before {
			break
		}
		time.Sleep(50 * time.Millisecond)
	}
	if last() == before {
		t.Error("let go on, the class does not")
	}
	class.Stop()
	if err := s.ForgetPractice(t.Context(), n.ID); err != nil {
		t.Fatal(err)
	}
	if marks, err := s.SessionMarks(t.Context(), n.ID); err != nil || len(marks) != 0 {
		t.Errorf("%d marks are left, %v", len(marks), err)
	}
	if list, err := s.Sessions(t.Context(), n.TeacherID); err != nil || len(list) != 0 {
		t.Errorf("%d sessions are left, %v", len(list), err)
	}
}

// Every illustration is one that the library can take in, and is found by its name.
func TestIllustrations(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("takes long")
	}
	all, err := standin.NewIllustrations()
	if err != nil {
		t.Fatal(err)
	}
	// As the server reads them, in the program as it is delivered.
	reader := apart.Reader{Command: []string{aparttest.Program, "picture"}}
	list := all.Search(nil)
	if len(list) < 30 {
		t.Errorf("%d illustrations", len(list))
	}
	for _, item := range list {
		drawing, ok := all.Drawing(item.ID)
		if !ok {
			t.Fatalf("%s has no drawing", item.ID)
		}
		if p, err := reader.Read(t.Context(), bytes.NewReader(drawing)); err != nil || p.Width != item.Width ||
			p.Height != item.Height {
			t.Errorf("%s: %d x %d, %v", item.ID, p.Width, p.Height, err)
		}
		if found, _ := json.Marshal(all.Search(strings.Fields(item.Name))); !strings.Contains(string(found),
			`"`+item.ID+`"`) {
			t.Errorf("%s is not found by its name", item.ID)
		}
	}
	if got := all.Search([]string{"moon"}); len(got) != 3 {
		t.Errorf("%d moons", len(got))
	}
	if _, ok := all.Drawing("../words.json"); ok {
		t.Error("a file that is no drawing is given")
	}
}

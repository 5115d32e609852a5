package store_test

import (
	"errors"
	"fmt"
	"reflect"
	"strings"
	"sync"
	"testing"
	"time"

	"alpenglow/core/find"
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/picture"
	"alpenglow/core/poll"
	"alpenglow/core/prepare"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
	"alpenglow/store/storetest"
)

func teacher(t testing.TB, s *store.Store, email string) string {
	t.Helper()
	one := store.Teacher{Email: email, Name: "Ines Aldana", Password: "x"}
	if err := s.AddTeacher(ctx, &one); err != nil {
		t.Fatal(err)
	}
	return one.ID
}

// retitle changes the title of a frame of a board.
func retitle(t testing.TB, s *store.Store, teacher, board, frame, title string) {
	t.Helper()
	err := s.ChangeBoard(ctx, teacher, board, func(d *store.Draft) error {
		if err := d.Load(ctx, frame); err != nil {
			return err
		}
		f := d.Frames[frame]
		f.Title = title
		d.Frames[frame] = f
		return d.Save(ctx, &prepare.Changed{Op: store.NewID(), Setting: &f}, prepare.Step{})
	})
	if err != nil {
		t.Fatal(err)
	}
}

// What stands on a frame is found, its page's text too; what has changed is
// found as it is now; what is deleted or another's is not found.
func TestSearch(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	ines, other := teacher(t, s, "ines@ternharbour.example"), teacher(t, s, "other@ternharbour.example")
	mark := func(id string, b lesson.Body) lesson.Element {
		return lesson.Element{ID: id, X: 10, Y: 10, W: 300, H: 200, Body: b}
	}
	frame := func(id, title string, marks ...lesson.Element) lesson.Frame {
		return lesson.Frame{ID: id, Title: title, Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.WholeClass,
			Permission: lesson.Add, Prepared: marks}
	}
	gone := mark("gone", lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "eclipse", Tint: "moss"}})
	gone.Remove(lesson.Staff, 1, "")
	page := frame("page", "")
	page.Paper = paper.Paper{Kind: paper.Picture, Picture: "p",
		Alt: "Springtide and neap tide: 100% of the MARÉES_VIVES"}
	page.Notes = "Ask for the barycentre."
	tides := lesson.Board{Title: "Moon and tides", Frames: []lesson.Frame{
		frame("table", "Tide table", mark("t",
			lesson.Body{Kind: lesson.KindTable,
				Table: &lesson.Table{Rows: [][]string{{"Tern Harbour", "high"}, {"Monday", "07:24"}}}}), gone),
		page,
		frame("month", "How long?", mark("q", lesson.Body{Kind: lesson.KindPoll,
			Poll: &poll.Question{Text: "From new moon to new moon?",
				Body: poll.Offer(poll.Option{ID: "a", Text: "29.53 days"}, poll.Option{ID: "b", Text: "a week"})}})),
	}}
	id, err := s.AddBoard(ctx, ines, tides)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.AddBoard(ctx, other, tides); err != nil {
		t.Fatal(err)
	}
	search := func(typed string) string {
		t.Helper()
		found, err := s.Search(ctx, ines, find.Words(typed))
		if err != nil {
			t.Fatal(err)
		}
		var list []string
		for _, f := range found {
			if f.Board != id {
				t.Errorf("%q found on board %s", typed, f.Board)
			}
			list = append(list, fmt.Sprint(f.Number, " ", f.Frame))
		}
		return strings.Join(list, ", ")
	}
	for typed, want := range map[string]string{
		"tide": "1 table, 2 page", "marees_vives": "2 page", "100%": "2 page", "1%": "", "TERN monday": "1 table",
		"29.53": "3 month", "week new": "3 month",
		"barycentre": "2 page", "eclipse": "", "monday week": "", "": "", "  ": "",
	} {
		if got := search(typed); got != want {
			t.Errorf("%q: found on %q, want %q", typed, got, want)
		}
	}
	retitle(t, s, ines, id, "table", "Ebb and flood")
	if got := search("flood"); got != "1 table" {
		t.Errorf("the new title is found on %q", got)
	}
	if got := search("tide table"); got != "" {
		t.Errorf("the old title is found on %q", got)
	}
	// Frames are read some at a time; all of them are found.
	long := lesson.Board{Title: "A long one"}
	for i := range lesson.MaxFrames {
		long.Frames = append(long.Frames, frame(fmt.Sprint("f", i), "perigee"))
	}
	for range 4 {
		if _, err := s.AddBoard(ctx, ines, long); err != nil {
			t.Fatal(err)
		}
	}
	if found, err := s.Search(ctx, ines, find.Words("Perigee")); err != nil || len(found) != 4*lesson.MaxFrames {
		t.Errorf("found on %d frames, %v", len(found), err)
	}
	yes := true
	if err := s.SetCard(ctx, ines, id, store.Card{Deleted: &yes}); err != nil {
		t.Fatal(err)
	}
	if got := search("flood"); got != "" {
		t.Errorf("a deleted board is found: %q", got)
	}
}

// A board's card: what is not named stays; only the owner changes it; deleted
// ones are forgotten after a time and not before.
func TestCards(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	ines, other := teacher(t, s, "ines@ternharbour.example"), teacher(t, s, "other@ternharbour.example")
	id, err := s.AddBoard(ctx, ines, board())
	if err != nil {
		t.Fatal(err)
	}
	yes, no, folder := true, false, "Year 8"
	for _, c := range []store.Card{{Folder: &folder}, {Archived: &yes}, {Opened: true}} {
		if err := s.SetCard(ctx, ines, id, c); err != nil {
			t.Fatal(err)
		}
		if err := s.SetCard(ctx, other, id, c); !errors.Is(err, store.ErrNotFound) {
			t.Errorf("another teacher changed a card: %v", err)
		}
	}
	cards, err := s.Boards(ctx, ines)
	if err != nil || len(cards) != 1 || cards[0].Folder != folder || cards[0].ArchivedAt == nil ||
		cards[0].OpenedAt == nil {
		t.Fatalf("%+v, %v", cards, err)
	}
	first, err := s.ShareBoard(ctx, ines, id, "one-word")
	again, err2 := s.ShareBoard(ctx, ines, id, "another-word")
	if err != nil || err2 != nil || first != "one-word" || again != first {
		t.Errorf("shared as %q, then as %q: %v, %v", first, again, err, err2)
	}
	for _, c := range []struct {
		deleted *bool
		before  time.Duration
		left    int
		shared  bool
	}{{&yes, -time.Hour, 0, false}, {&no, time.Hour, 1, true}, {&yes, time.Hour, 0, false}} {
		if err := s.SetCard(ctx, ines, id, store.Card{Deleted: c.deleted}); err != nil {
			t.Fatal(err)
		}
		if err := s.ForgetBoards(ctx, time.Now().Add(c.before)); err != nil {
			t.Fatal(err)
		}
		if cards, err := s.Boards(ctx, ines); err != nil || len(cards) != c.left {
			t.Errorf("%d boards left, want %d: %v", len(cards), c.left, err)
		}
		if _, err := s.SharedBoard(ctx, first); (err == nil) != c.shared {
			t.Errorf("the link of a deleted board: %v", err)
		}
	}
	if err := s.SetCard(ctx, ines, id, store.Card{Deleted: &no}); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a board that was forgotten came back: %v", err)
	}
}

// Changes of one board wait for each other; one that fails leaves nothing.
func TestChangeBoard(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	ines, other := teacher(t, s, "ines@ternharbour.example"), teacher(t, s, "other@ternharbour.example")
	id, err := s.AddBoard(ctx, ines, board())
	if err != nil {
		t.Fatal(err)
	}
	var all sync.WaitGroup
	for i := range 8 {
		all.Go(func() { retitle(t, s, ines, id, "one", fmt.Sprint("title ", i)) })
	}
	all.Wait()
	broken := errors.New("broken off")
	err = s.ChangeBoard(ctx, ines, id, func(d *store.Draft) error {
		f := lesson.Frame{ID: "two", Title: "never"}
		d.Frames["two"] = f
		return errors.Join(d.Save(ctx, &prepare.Changed{Op: store.NewID(), Whole: []lesson.Frame{f}}, prepare.Step{}),
			broken)
	})
	if !errors.Is(err, broken) {
		t.Fatal(err)
	}
	if err := s.ChangeBoard(ctx, other, id, func(*store.Draft) error { return nil }); !errors.Is(err,
		store.ErrNotFound) {
		t.Errorf("another teacher's board was opened for changes: %v", err)
	}
	kept, err := s.Board(ctx, ines, id)
	if err != nil || kept.Rev != 8 || len(kept.Frames) != 1 || !strings.HasPrefix(kept.Frames["one"].Title, "title ") {
		t.Errorf("%+v, %v", kept, err)
	}
	changes, err := s.BoardChanges(ctx, ines, id, 3)
	if err != nil || len(changes) != 5 || changes[0].Rev != 4 || changes[4].Setting.Title != kept.Frames["one"].Title {
		t.Errorf("%+v, %v", changes, err)
	}
}

// Where students have gone lasts as long as own pace does.
func TestPlaces(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	n := started(t, s, "K7M2QX")
	p, err := s.Join(ctx, n.ID, store.Joining{Limit: 10, Token: []byte("token"),
		Decide: store.Anybody(func([]string) string { return "Noor" })})
	if err != nil {
		t.Fatal(err)
	}
	state := n.State.V
	for _, c := range []struct {
		pace session.Pace
		want *string
	}{{session.Own, new("one")}, {session.Own, new("one")}, {session.Led, nil}} {
		next, err := state.Apply(board(), session.Command{Kind: session.KindPace, Pace: &session.SetPace{Pace: c.pace}},
			session.With{})
		if err != nil {
			t.Fatal(err)
		}
		if saved, err := s.SetState(ctx, n.ID, next); err != nil || !saved {
			t.Fatalf("%v, %v", saved, err)
		}
		if next.Pace == session.Own && state.Pace == session.Led {
			if err := s.SetPlace(ctx, p.ID, "one"); err != nil {
				t.Fatal(err)
			}
		}
		if next.Pace == session.Led {
			if err := s.SetPlace(ctx, p.ID, "one"); err != nil {
				t.Fatal(err)
			}
		}
		// A state that comes too late moves nobody.
		if saved, err := s.SetState(ctx, n.ID, state); err != nil || saved {
			t.Fatalf("an old state was stored: %v, %v", saved, err)
		}
		state = next
		list, err := s.Participants(ctx, n.ID)
		if err != nil || !reflect.DeepEqual(list[0].Frame, c.want) {
			t.Errorf("at %s pace: %v, %v", c.pace, list[0].Frame, err)
		}
	}
}

// A rehearsal leaves nothing behind, and nothing but a rehearsal is thrown away.
func TestForgetPractice(t *testing.T) {
	t.Parallel()
	url := storetest.URL(t)
	s := storetest.Open(t, url)
	real := started(t, s, "K7M2QX")
	practice := real
	practice.Code, practice.Practice = "PRACT2", true
	if err := s.StartSession(ctx, &practice, "", board()); err == nil {
		t.Fatal("a session of no board was stored")
	}
	boards, err := s.Boards(ctx, real.TeacherID)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.StartSession(ctx, &practice, boards[0].ID, board()); err != nil {
		t.Fatal(err)
	}
	for i, n := range []store.Session{real, practice} {
		if _, err := s.Join(ctx, n.ID, store.Joining{Limit: 10, Token: []byte{byte(i)},
			Decide: store.Anybody(func([]string) string { return "Noor" })}); err != nil {
			t.Fatal(err)
		}
		key, err := s.EnsureSheet(ctx, n.ID, "one", "class")
		if err != nil {
			t.Fatal(err)
		}
		if _, err := s.Commit(ctx, []store.Batch{{Sheet: key.ID, Session: n.ID,
			Changes: []sheet.Change{note(1, "m", "kept?")},
			Marks:   touched([]sheet.Change{note(1, "m", "kept?")})}}); err != nil {
			t.Fatal(err)
		}
		if _, _, err := s.AddPicture(ctx, n.ID, "noor",
			picture.Picture{Type: "image/png", Width: 1, Height: 1, Data: []byte{1}}, 10); err != nil {
			t.Fatal(err)
		}
	}
	if stale, err := s.StalePractice(ctx, time.Now().Add(time.Hour)); err != nil ||
		!reflect.DeepEqual(stale, []string{practice.ID}) {
		t.Errorf("%v, %v", stale, err)
	}
	for _, id := range []string{practice.ID, real.ID} {
		if err := s.ForgetPractice(ctx, id); err != nil {
			t.Fatal(err)
		}
	}
	db := storetest.DB(t, url)
	for table, want := range map[string]int{"sessions": 1, "participants": 1, "sheets": 1, "log": 1, "marks": 1,
		"pictures": 1, "boards": 2, "frames": 2} { // the board, and the real session's own
		var rows int
		if err := db.QueryRowContext(ctx, `SELECT count(*) FROM `+table).Scan(&rows); err != nil || rows != want {
			t.Errorf("%d rows in %s, want %d, those of the real session: %v", rows, table, want, err)
		}
	}
}

// The same picture is kept once, whatever its file was called, and found by
// words of the first name it had.
func TestLibrary(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	ines := teacher(t, s, "ines@ternharbour.example")
	keep := func(name string, data byte) string {
		t.Helper()
		id, err := s.KeepPicture(ctx, ines, name,
			picture.Picture{Type: "image/png", Width: 4, Height: 3, Data: []byte{data}})
		if err != nil {
			t.Fatal(err)
		}
		return id
	}
	half := keep("half_moon 100%", 1)
	full := keep("full moon", 2)
	if again := keep("another name", 1); again != half {
		t.Error("the same picture was kept twice")
	}
	for words, want := range map[string][]string{"moon": {half, full}, "MOON half": {half}, "half_": {half}, "l_m": nil,
		"another": nil, "0%": {half}} {
		list, err := s.Library(ctx, strings.Fields(words), 10)
		if err != nil {
			t.Fatal(err)
		}
		var got []string
		for _, p := range list {
			got = append(got, p.ID)
		}
		if !reflect.DeepEqual(got, want) {
			t.Errorf("%q: %v, want %v, the last used first", words, got, want)
		}
	}
}

// Templates are the teacher's own, by name.
func TestTemplates(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	ines, other := teacher(t, s, "ines@ternharbour.example"), teacher(t, s, "other@ternharbour.example")
	var ids []string
	for _, name := range []string{"tide log", "Exit ticket"} {
		id, err := s.AddTemplate(ctx, ines, name, board().Frames[0])
		if err != nil {
			t.Fatal(err)
		}
		ids = append(ids, id)
	}
	list, err := s.Templates(ctx, ines)
	if err != nil || len(list) != 2 || list[0].Name != "Exit ticket" ||
		!reflect.DeepEqual(list[1].Frame.V, board().Frames[0]) {
		t.Errorf("%+v, %v", list, err)
	}
	if theirs, err := s.Templates(ctx, other); err != nil || len(theirs) != 0 {
		t.Errorf("%+v, %v", theirs, err)
	}
	if err := s.RemoveTemplate(ctx, other, ids[0]); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("another teacher removed a template: %v", err)
	}
	if err := s.RemoveTemplate(ctx, ines, ids[0]); err != nil {
		t.Fatal(err)
	}
	if list, err := s.Templates(ctx, ines); err != nil || len(list) != 1 || list[0].ID != ids[1] {
		t.Errorf("%+v, %v", list, err)
	}
}

package store_test

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"sync"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
	"alpenglow/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var ctx = context.Background()

func board() lesson.Board {
	return lesson.Board{Title: "Moon and tides",
		Frames: []lesson.Frame{{ID: "one", Paper: paper.Paper{Kind: paper.Plain}, Arrangement: lesson.WholeClass,
			Permission: lesson.Add}}}
}

// started stores a teacher, a board and a session with a code.
func started(t testing.TB, s *store.Store, code string) store.Session {
	t.Helper()
	teacher := store.Teacher{Email: code + "@ternharbour.example", Name: "Ines Aldana", Password: "x"}
	if err := s.AddTeacher(ctx, &teacher); err != nil {
		t.Fatal(err)
	}
	id, err := s.AddBoard(ctx, teacher.ID, board())
	if err != nil {
		t.Fatal(err)
	}
	state, err := session.Start(board(), session.Led)
	if err != nil {
		t.Fatal(err)
	}
	n := store.Session{TeacherID: teacher.ID, Code: code, State: store.JSON[session.State]{V: state}}
	if err := s.StartSession(ctx, &n, id, board()); err != nil {
		t.Fatal(err)
	}
	return n
}

func note(seq int64, mark, text string) sheet.Change {
	return sheet.Change{Seq: seq, Op: store.NewID(), By: "noor", At: seq,
		Put: []lesson.Element{{ID: mark, Author: "noor", Z: seq, At: 1, X: 1.5, Y: 2, W: 200, H: 100,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "moss"}}}}}
}

// touched gives the marks of changes as they are after all of them.
func touched(changes []sheet.Change) []sheet.Touched {
	last := map[string]sheet.Touched{}
	for _, c := range changes {
		for _, e := range c.Put {
			last[e.ID] = sheet.Touched{Element: e, Seq: c.Seq}
		}
	}
	return slices.Collect(maps.Values(last))
}

func TestMigrateFromSeveralProcessesAtOnce(t *testing.T) {
	t.Parallel()
	url := storetest.Bare(t)
	var all sync.WaitGroup
	for range 4 {
		all.Go(func() { storetest.Open(t, url) })
	}
	all.Wait()
}

func TestCommit(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	n := started(t, s, "K7M2QX")
	a, err := s.EnsureSheet(ctx, n.ID, "one", "class")
	if err != nil {
		t.Fatal(err)
	}
	if again, err := s.EnsureSheet(ctx, n.ID, "one", "class"); err != nil || again != a {
		t.Fatalf("a second sheet for the same owner: %v, %v", again, err)
	}
	b, err := s.EnsureSheet(ctx, n.ID, "one", "noor")
	if err != nil {
		t.Fatal(err)
	}
	batch := func(key store.SheetKey, expected, rev int64, changes ...sheet.Change) store.Batch {
		return store.Batch{Sheet: key.ID, Session: n.ID, Expected: expected, Terms: rev, Changes: changes,
			Marks: touched(changes)}
	}
	steps := []struct {
		name    string
		batches []store.Batch
		stored  []store.SheetKey
	}{
		{"two sheets, a mark written twice", []store.Batch{batch(b, 0, 0, note(1, "m", "mine")),
			batch(a, 0, 0, note(1, "m", "first"), note(2, "m", "second"))}, []store.SheetKey{a, b}},
		{"one that has moved on, one that has not",
			[]store.Batch{batch(a, 1, 0, note(2, "m", "late")), batch(b, 1, 0, note(2, "n", "more"))},
			[]store.SheetKey{b}},
		{"a session that has moved on", []store.Batch{batch(a, 2, 7, note(3, "m", "late"))}, nil},
	}
	for _, step := range steps {
		stored, err := s.Commit(ctx, step.batches)
		if err != nil || len(stored) != len(step.stored) {
			t.Fatalf("%s: stored %v, %v", step.name, stored, err)
		}
		for _, key := range step.stored {
			if !stored[key.ID] {
				t.Errorf("%s: sheet of %s left out", step.name, key.Owner)
			}
		}
	}
	for _, want := range []struct {
		key  store.SheetKey
		seq  int64
		text string
	}{{a, 2, "second"}, {b, 2, "mine"}} {
		loaded, err := s.LoadSheet(ctx, want.key)
		if err != nil || loaded.Seq != want.seq || loaded.Marks()[0].Note.Text != want.text {
			t.Errorf("sheet of %s: %+v, %v", want.key.Owner, loaded, err)
		}
		changes, err := s.ChangesSince(ctx, want.key.ID, 0, 100)
		if err != nil {
			t.Fatal(err)
		}
		replayed := sheet.New(want.key.Owner)
		for _, c := range changes {
			replayed.Take(c)
		}
		if !reflect.DeepEqual(replayed.Marks(), loaded.Marks()) || replayed.Seq != loaded.Seq {
			t.Errorf("sheet of %s: the replayed log and the stored marks differ", want.key.Owner)
		}
	}
}

// Many writers on the same two sheets, each with its own idea of the next
// number: exactly one wins each number, and nobody waits for ever.
func TestCommitFromManyWriters(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	n := started(t, s, "K7M2QX")
	var keys []store.SheetKey
	for _, owner := range []string{"class", "noor"} {
		key, err := s.EnsureSheet(ctx, n.ID, "one", owner)
		if err != nil {
			t.Fatal(err)
		}
		keys = append(keys, key)
	}
	const writers, each = 8, 20
	var all sync.WaitGroup
	for w := range writers {
		all.Go(func() {
			for wrote := 0; wrote < each; {
				var batches []store.Batch
				for i := range keys {
					key := keys[(i+w)%len(keys)]
					seq, err := s.SheetSeq(ctx, key.ID)
					if err != nil {
						t.Error(err)
						return
					}
					changes := []sheet.Change{note(seq+1, fmt.Sprint(w, "-", wrote), "x")}
					batches = append(batches, store.Batch{Sheet: key.ID, Session: n.ID, Expected: seq, Changes: changes,
						Marks: touched(changes)})
				}
				stored, err := s.Commit(ctx, batches)
				if err != nil {
					t.Error(err)
					return
				}
				if stored[keys[0].ID] {
					wrote++
				}
			}
		})
	}
	all.Wait()
	changes, err := s.ChangesSince(ctx, keys[0].ID, 0, 1000)
	if err != nil || len(changes) != writers*each {
		t.Fatalf("%d changes, %v", len(changes), err)
	}
	for i, c := range changes {
		if c.Seq != int64(i+1) {
			t.Fatalf("number %d at place %d", c.Seq, i+1)
		}
	}
}

func TestSessionCodeAndState(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	n := started(t, s, "K7M2QX")
	twin := n
	if err := s.StartSession(ctx, &twin, mustBoard(t, s, n.TeacherID), board()); !errors.Is(err, store.ErrTaken) {
		t.Fatalf("a live code twice: %v", err)
	}
	end := session.Command{Kind: session.KindEnd, End: &session.End{}}
	ended, err := n.State.V.Apply(board(), end, session.With{})
	if err != nil {
		t.Fatal(err)
	}
	if ok, err := s.SetState(ctx, n.ID, ended); err != nil || !ok {
		t.Fatalf("end: %v, %v", ok, err)
	}
	if ok, err := s.SetState(ctx, n.ID, ended); err != nil || ok {
		t.Fatalf("the same revision twice: %v, %v", ok, err)
	}
	if _, err := s.SessionByCode(ctx, "K7M2QX"); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("the code of an ended session: %v", err)
	}
	if err := s.StartSession(ctx, &twin, mustBoard(t, s, n.TeacherID), board()); err != nil {
		t.Errorf("the code is not free after the end: %v", err)
	}
}

func mustBoard(t *testing.T, s *store.Store, teacher string) string {
	t.Helper()
	boards, err := s.Boards(ctx, teacher)
	if err != nil || len(boards) == 0 {
		t.Fatal(err)
	}
	return boards[0].ID
}

// Forty of the same name join at once and are all told apart; the limit holds.
func TestJoinAtOnce(t *testing.T) {
	t.Parallel()
	s := storetest.Open(t, storetest.URL(t))
	n := started(t, s, "K7M2QX")
	const limit = 35
	var all sync.WaitGroup
	var mu sync.Mutex
	refused := 0
	for i := range 40 {
		all.Go(func() {
			_, err := s.Join(ctx, n.ID, store.Joining{Limit: limit, Token: []byte{byte(i)},
				Decide: store.Anybody(func(taken []string) string { return roster.Apart("Noor", taken) })})
			if errors.Is(err, store.ErrTaken) {
				mu.Lock()
				refused++
				mu.Unlock()
			} else if err != nil {
				t.Error(err)
			}
		})
	}
	all.Wait()
	list, err := s.Participants(ctx, n.ID)
	names := map[string]bool{}
	for _, p := range list {
		names[p.Name] = true
	}
	if err != nil || len(list) != limit || len(names) != limit || refused != 40-limit {
		t.Errorf("%d in, %d names, %d refused, %v", len(list), len(names), refused, err)
	}
}

func BenchmarkCommit(b *testing.B) {
	s := storetest.Open(b, storetest.URL(b))
	n := started(b, s, "K7M2QX")
	batches := make([]store.Batch, 50)
	for i := range batches {
		key, err := s.EnsureSheet(ctx, n.ID, "one", fmt.Sprint(i))
		if err != nil {
			b.Fatal(err)
		}
		batches[i] = store.Batch{Sheet: key.ID, Session: n.ID}
	}
	seq := int64(0)
	for b.Loop() {
		for i := range batches {
			batches[i].Expected, batches[i].Changes = seq,
				[]sheet.Change{note(seq+1, store.NewID(), "tide"), note(seq+2, store.NewID(), "moon")}
			batches[i].Marks, batches[i].Amounts = touched(batches[i].Changes), map[string]int{"noor": int(seq)}
		}
		stored, err := s.Commit(ctx, batches)
		if err != nil || len(stored) != len(batches) {
			b.Fatal(len(stored), err)
		}
		seq += 2
	}
	b.ReportMetric(float64(100*b.N)/b.Elapsed().Seconds(), "ops/s")
}

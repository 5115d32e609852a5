package live

import (
	"context"
	"fmt"
	"testing"

	"alpenglow/core/sheet"
	"alpenglow/store"
	"alpenglow/store/storetest"

	"github.com/prometheus/client_golang/prometheus"
)

// fill puts a thousand sessions of a year beside the one that runs.
func fill(t *testing.T, url, session string) {
	t.Helper()
	db := storetest.DB(t, url)
	for _, q := range []string{
		`INSERT INTO sessions (id, teacher_id, board_id, code, state, rev, ended_at, title)
		 SELECT gen_random_uuid(), teacher_id, board_id, 'OLD', state, 0, now(), title
		 FROM sessions, generate_series(1, 1000) WHERE id = '` + session + `'`,
		`INSERT INTO boards (id, teacher_id, session_id, outline)
		 SELECT s.id, s.teacher_id, s.id, b.outline
		 FROM sessions s JOIN boards b ON b.session_id = '` + session + `' WHERE s.code = 'OLD'`,
		`INSERT INTO frames (board_id, id, content)
		 SELECT s.id, f.id, f.content
		 FROM sessions s JOIN frames f ON f.board_id = '` + session + `' WHERE s.code = 'OLD'`,
		`INSERT INTO participants (id, session_id, name)
		 SELECT gen_random_uuid(), s.id, 'Student ' || n
		 FROM sessions s, generate_series(1, 28) n WHERE code = 'OLD'`,
		`INSERT INTO sheets (id, session_id, frame_id, owner, seq)
		 SELECT gen_random_uuid(), p.session_id, 'one', p.id::text, 5
		 FROM participants p JOIN sessions s ON s.id = p.session_id WHERE s.code = 'OLD'`,
		`INSERT INTO log (sheet_id, seq, op_id, author, at, change)
		 SELECT h.id, n, gen_random_uuid(), owner, 0, '{}' FROM sheets h, generate_series(1, 5) n WHERE h.seq = 5`,
		`INSERT INTO marks (sheet_id, id, mark, seq)
		 SELECT h.id, n::text, '{}', n FROM sheets h, generate_series(1, 5) n WHERE h.seq = 5`,
		`INSERT INTO activity (sheet_id, author, marks, at) SELECT id, owner, 5, 1 FROM sheets WHERE seq = 5`,
		`ANALYZE`,
	} {
		if _, err := db.Exec(q); err != nil {
			t.Fatal(err)
		}
	}
}

// How often the database is asked for what happens all the time does not depend
// on how many students or sheets there are, and no answer reads a large table
// from end to end.
func TestQueriesAreFew(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("takes long")
	}
	const students = 60
	h := newHouse(t, students)
	fill(t, h.url, h.session)
	traced, trace := storetest.Traced(t, h.url)
	hub, err := New(traced, quiet(), prometheus.NewRegistry())
	if err != nil {
		t.Fatal(err)
	}
	defer hub.Close(context.Background())
	r, err := hub.session(ctx, h.session)
	if err != nil {
		t.Fatal(err)
	}
	for i, p := range h.students {
		if _, err := traced.EnsureSheet(ctx, h.session, "one", p.ID); err != nil || i > 40 {
			break
		}
	}
	trace.Take()
	count := func(what string, most int, do func() error) {
		t.Helper()
		if err := do(); err != nil {
			t.Fatalf("%s: %v", what, err)
		}
		plans := trace.Take()
		t.Logf("%s: %d statements", what, len(plans))
		if len(plans) > most || len(plans) == 0 {
			t.Errorf("%s: %d statements, at most %d", what, len(plans), most)
		}
		if plan := storetest.EndToEnd(plans); plan != "" {
			t.Errorf("%s reads a table from end to end:\n%s", what, plan)
		}
	}
	student := seat{session: r, actor: sheet.Actor{ID: h.students[0].ID}}
	count("a student's first hello", 8, func() error { _, err := hub.hello(ctx, student, Hello{}); return err })
	count("a student's hello", 5, func() error { _, err := hub.hello(ctx, student, Hello{}); return err })
	count(
		"a teacher's hello with 42 sheets to load",
		8,
		func() error { _, err := hub.helloStaff(ctx, r, Hello{}); return err },
	)
	count("a frame with 42 sheets opened", 3, func() error { _, err := hub.openAll(ctx, r, "one", nil); return err })
	count("filling a hole", 1, func() error {
		_, err := hub.since(ctx, r, student.actor, Since{Sheet: h.sheet.ID})
		return err
	})
	count("an operation", 1, func() error { _, err := h.do(t, hub, student.actor, h.note("tide")); return err })
	count("a class that joins: one of them", 4, func() error {
		_, err := traced.Join(ctx, h.session, store.Joining{Limit: 400, Token: []byte("token"),
			Decide: store.Anybody(func(taken []string) string { return fmt.Sprint("Student ", len(taken)) })})
		return err
	})
	teacher := r.kept.TeacherID
	count("the boards page", 3, func() error {
		_, err := traced.Boards(ctx, teacher)
		if err == nil {
			_, err = traced.Classes(ctx, teacher)
		}
		if err == nil {
			var list []store.SessionSummary
			if list, err = traced.Sessions(ctx, teacher); len(list) != 200 {
				t.Errorf("%d sessions", len(list))
			}
		}
		return err
	})
}

// A whole hall that comes back at the same moment is told, and nobody waits long:
// what all of them ask is asked once.
func TestHallReturns(t *testing.T) {
	t.Parallel()
	const students = 200
	h := newHouse(t, students)
	traced, trace := storetest.Traced(t, h.url)
	hub, err := New(traced, quiet(), prometheus.NewRegistry())
	if err != nil {
		t.Fatal(err)
	}
	defer hub.Close(context.Background())
	r, err := hub.session(ctx, h.session)
	if err != nil {
		t.Fatal(err)
	}
	trace.Take()
	errs := make(chan error, students)
	for _, p := range h.students {
		go func() {
			_, err := hub.hello(ctx, seat{session: r, actor: sheet.Actor{ID: p.ID}}, Hello{})
			errs <- err
		}()
	}
	for range students {
		if err := <-errs; err != nil {
			t.Fatal(err)
		}
	}
	if n := len(trace.Take()); n > 8*students {
		t.Errorf("%d statements for %d students", n, students)
	}
}

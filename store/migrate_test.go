package store_test

import (
	"os"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/store"
	"alpenglow/store/storetest"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
)

// upTo gives a database with the tables of an earlier version.
func upTo(t *testing.T, url string, version int64) (*sqlx.DB, *goose.Provider) {
	t.Helper()
	db := storetest.DB(t, url)
	steps, err := goose.NewProvider(goose.DialectPostgres, db.DB, os.DirFS("migrations"))
	if err == nil {
		_, err = steps.UpTo(ctx, version)
	}
	if err != nil {
		t.Fatal(err)
	}
	return db, steps
}

// Boards and sessions from before boards were prepared are there afterwards,
// with all that was on them, and go back again.
func TestOldBoardsAreKept(t *testing.T) {
	t.Parallel()
	url := storetest.Bare(t)
	db, steps := upTo(t, url, 2)
	const content = `{"title":"Moon","frames":[{"id":"one","title":"A","prompt":"say \"fixed\":","paper":"squared","arrangement":"class","permission":"add","fixed":[
		{"id":"n","z":0,"at":0,"x":10,"y":10,"w":200,"h":100,"kind":"note","note":{"text":"the \"fixed\": word","tint":"moss"}}]},
		{"id":"two","title":"B","prompt":"","paper":"plain","arrangement":"individual","permission":"look","fixed":[]}]}`
	teacher, board := store.NewID(), store.NewID()
	for _, do := range []struct {
		query string
		args  []any
	}{
		{`INSERT INTO teachers VALUES ($1, 'ines@ternharbour.example', 'Ines Aldana', 'x')`, []any{teacher}},
		{`INSERT INTO boards (id, teacher_id, content) VALUES ($1, $2, $3)`, []any{board, teacher, content}},
		{`INSERT INTO sessions (id, teacher_id, board_id, code, content, state, rev)
			VALUES ($1, $2, $3, 'K7M2QX', $4, '{}', 0)`, []any{store.NewID(), teacher, board, content}},
	} {
		if _, err := db.ExecContext(ctx, do.query, do.args...); err != nil {
			t.Fatal(err)
		}
	}
	s := storetest.Open(t, url) // brings the tables up to date
	kept, err := s.Board(ctx, teacher, board)
	if err != nil {
		t.Fatal(err)
	}
	run, err := s.SessionByCode(ctx, "K7M2QX")
	if err != nil {
		t.Fatal(err)
	}
	own, err := s.Lesson(ctx, run.ID)
	if err != nil {
		t.Fatal(err)
	}
	for name, b := range map[string]lesson.Board{"the board": kept.Board(), "the lesson's own": own} {
		if err := b.Check(); err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		f := b.Frames[0]
		if len(b.Frames) != 2 || b.Title != "Moon" || f.Paper.Kind != paper.Squared || len(f.Prepared) != 1 ||
			f.Prepared[0].Note.Text != `the "fixed": word` || f.Prompt != `say "fixed":` {
			t.Errorf("%s: %+v", name, b)
		}
	}
	if cards, err := s.Boards(ctx, teacher); err != nil || len(cards) != 1 || cards[0].First.V.ID != "one" {
		t.Errorf("%+v, %v", cards, err)
	}
	if _, err := steps.DownTo(ctx, 2); err != nil {
		t.Fatal(err)
	}
	var frames int
	if err := db.QueryRowContext(ctx, `SELECT json_array_length(content->'frames') FROM boards WHERE id = $1`,
		board).Scan(&frames); err != nil || frames != 2 {
		t.Errorf("going back: %d frames, %v", frames, err)
	}
}

// What was written before marks had one standing, students rows of their own, and
// activity was counted, is there afterwards; NUL in what people wrote is gone.
func TestOldLessonsAreKept(t *testing.T) {
	t.Parallel()
	url := storetest.Bare(t)
	db, steps := upTo(t, url, 4)
	teacher, board, run, class, noor, on := store.NewID(), store.NewID(), store.NewID(), store.NewID(), store.NewID(),
		store.NewID()
	const content = `{"title":"Moon","frames":[{"id":"one","title":"A","prompt":"","paper":{"kind":"plain"},"arrangement":"class","permission":"add","prepared":[]}]}`
	const frame = `{"id":"one","title":"A","prompt":"","paper":{"kind":"plain"},"arrangement":"class","permission":"add","prepared":[
		{"id":"gone","author":"staff","z":1,"at":5,"x":1,"y":1,"w":99,"h":99,"removedBy":"staff","removedIn":"op","kind":"note","note":{"text":"hidden \"hidden\" words","tint":"moss"}}]}`
	mark := func(id, more string) string {
		return `{"id":"` + id + `","author":"` + noor + `","z":2,"at":7,"x":1,"y":1,"w":99,"h":99,` + more +
			`"kind":"note","note":{"text":"removedBy","tint":"moss"}}`
	}
	for _, do := range []struct {
		query string
		args  []any
	}{
		{`INSERT INTO teachers VALUES ($1, 'ines@ternharbour.example', 'Ines Aldana', 'x')`, []any{teacher}},
		{`INSERT INTO classes (id, teacher_id, name, students) VALUES ($1, $2, '8 Juniper', '["Noor","Kenji"]')`,
			[]any{class, teacher}},
		{`INSERT INTO boards (id, teacher_id, outline) VALUES ($1, $2,
			'{"title":"Moon","objectives":[{"id":"\u0000","text":"say \\u0000"}],"frames":["one"],"dropped":[]}')`, []any{board, teacher}},
		{`INSERT INTO frames (board_id, id, content) VALUES ($1, 'one', $2)`, []any{board, frame}},
		{`INSERT INTO sessions (id, teacher_id, board_id, class_name, students, code, content, state, rev)
			VALUES ($1, $2, $3, '8 Juniper', '["Noor"]', 'K7M2QX', $4,
			'{"rev":3,"pace":"led","frame":"one","reached":["one"],"polls":{}}',
			3)`, []any{run, teacher, board, content}},
		{`INSERT INTO participants (id, session_id, name, token) VALUES ($1, $2, 'Noor', 'x')`, []any{noor, run}},
		{`INSERT INTO sheets (id, session_id, frame_id, owner, seq) VALUES ($1, $2, 'one', 'class', 3)`,
			[]any{on, run}},
		{`INSERT INTO marks (sheet_id, id, mark) VALUES ($1, 'a', $2), ($1, 'b', $3), ($1, 'c', $4)`,
			[]any{on, mark("a", ""), mark("b", `"hidden":true,`),
				mark("c", `"hidden":true,"removedBy":"staff","removedIn":"op",`)}},
		{`INSERT INTO log (sheet_id, seq, op_id, author, at, change) VALUES ($1, 1, $2, $3, 42, $4)`,
			[]any{on, store.NewID(), noor, `{"seq":1,"put":[` + mark("b", `"hidden":true,`) + `]}`}},
	} {
		if _, err := db.ExecContext(ctx, do.query, do.args...); err != nil {
			t.Fatal(do.query, err)
		}
	}
	s := storetest.Open(t, url)
	cards, err := s.Boards(ctx, teacher)
	if err != nil || len(cards) != 1 || cards[0].Outline.V.Objectives[0].Text != `say \u0000` {
		t.Fatalf("the boards page: %+v, %v", cards, err)
	}
	if m := cards[0].First.V.Prepared[0]; m.OnFrame() || m.Standing.In != "op" ||
		m.Note.Text != `hidden "hidden" words` {
		t.Errorf("a removed prepared mark: %+v", m)
	}
	key, err := s.SheetKeys(ctx, run, "one")
	if err != nil {
		t.Fatal(err)
	}
	loaded, err := s.LoadSheet(ctx, key[0])
	if err != nil || loaded.Seq != 3 || loaded.Amount(noor) != 2 {
		t.Fatalf("the sheet at %d with %d of Noor's: %v", loaded.Seq, loaded.Amount(noor), err)
	}
	for id, want := range map[string]lesson.Stand{"a": lesson.Shown, "b": lesson.Hidden, "c": lesson.Removed} {
		if m, ok := loaded.Mark(id); !ok || m.Stands() != want || m.Note.Text != "removedBy" {
			t.Errorf("%s: %+v", id, m)
		}
	}
	if m, _ := loaded.Mark("c"); m.Standing.Was == nil || m.Standing.Was.Is != lesson.Hidden ||
		m.Standing.By != lesson.Staff {
		t.Errorf("removed when it was hidden: %+v", m.Standing)
	}
	changes, err := s.ChangesSince(ctx, on, 0, 10)
	if err != nil || changes[0].Put[0].Stands() != lesson.Hidden {
		t.Errorf("the log: %+v, %v", changes, err)
	}
	if active, err := s.Activities(ctx, run); err != nil || len(active) != 1 || active[0].Marks != 2 ||
		active[0].At != 42 {
		t.Errorf("activity: %+v, %v", active, err)
	}
	classes, err := s.Classes(ctx, teacher)
	if err != nil || len(classes) != 1 || len(classes[0].Students.V) != 2 || classes[0].Students.V[0].Name != "Noor" {
		t.Fatalf("the class: %+v, %v", classes, err)
	}
	people, err := s.Participants(ctx, run)
	if err != nil || people[0].StudentID == nil || *people[0].StudentID != classes[0].Students.V[0].ID {
		t.Errorf("Noor is who she was: %+v, %v", people, err)
	}
	found, err := s.Session(ctx, run)
	if err != nil || found.ClassID == nil || *found.ClassID != class || found.State.V.Terms != 3 {
		t.Errorf("the session: %+v, %v", found, err)
	}
	// Who joins now is the student of the list, once.
	for i, want := range []bool{true, false} {
		p, err := s.Join(
			ctx,
			run,
			store.Joining{Limit: 400, Token: []byte{byte(i)}, Student: classes[0].Students.V[1].ID,
				Decide: store.Anybody(func([]string) string { return "Kenji" })},
		)
		if err != nil || (p.StudentID != nil) != want {
			t.Errorf("Kenji, time %d: %+v, %v", i+1, p, err)
		}
	}
	if _, err := steps.DownTo(ctx, 4); err != nil {
		t.Fatal(err)
	}
}

// Polls and answers from before questions had kinds and rounds are there
// afterwards, on boards, in lessons, on sheets and in their log, and go back again.
func TestOldAnswersAreKept(t *testing.T) {
	t.Parallel()
	url := storetest.Bare(t)
	db, steps := upTo(t, url, 5)
	teacher, board, run, noor, on := store.NewID(), store.NewID(), store.NewID(), store.NewID(), store.NewID()
	const frame = `{"id":"one","title":"A","prompt":"","paper":{"kind":"plain"},"arrangement":"class","permission":"add","prepared":[
		{"id":"asked","z":1,"at":5,"x":1,"y":1,"w":99,"h":99,"kind":"poll","poll":{"text":"\"choices\"?","objectives":["o"],"choices":[
			{"id":"a","text":"7 days"},{"id":"b","text":"29.53 days","right":true,"picture":"p"}]}},
		{"id":"n","z":2,"at":5,"x":1,"y":1,"w":99,"h":99,"kind":"note","note":{"text":"\"choice\":\"a\"","tint":"moss"}}]}`
	const content = `{"title":"Moon","objectives":[{"id":"o","text":"phases"}],"frames":[` + frame + `]}`
	answer := `{"id":"asked","author":"` + noor + `","z":2,"at":7,"x":0,"y":0,"w":0,"h":0,"kind":"answer","answer":{"poll":"asked","choice":"b"}}`
	for _, do := range []struct {
		query string
		args  []any
	}{
		{`INSERT INTO teachers VALUES ($1, 'ines@ternharbour.example', 'Ines Aldana', 'x')`, []any{teacher}},
		{`INSERT INTO boards (id, teacher_id, outline) VALUES ($1, $2,
			'{"title":"Moon","objectives":[],"frames":["one"],"dropped":[]}')`, []any{board, teacher}},
		{`INSERT INTO frames (board_id, id, content) VALUES ($1, 'one', $2)`, []any{board, frame}},
		{`INSERT INTO templates (id, teacher_id, name, frame) VALUES ($1, $2, 'mine', $3)`,
			[]any{store.NewID(), teacher, frame}},
		{`INSERT INTO sessions (id, teacher_id, board_id, class_name, code, content, state, rev)
			VALUES ($1, $2, $3, '', 'K7M2QX', $4,
			'{"rev":3,"pace":"led","frame":"one","reached":["one"],"polls":{"asked":"closed"}}', 3)`,
			[]any{run, teacher, board, content}},
		{`INSERT INTO participants (id, session_id, name, token) VALUES ($1, $2, 'Noor', 'x')`, []any{noor, run}},
		{`INSERT INTO sheets (id, session_id, frame_id, owner, seq) VALUES ($1, $2, 'one', $3, 1)`, []any{on, run,
			noor}},
		{`INSERT INTO marks (sheet_id, id, mark) VALUES ($1, 'asked', $2)`, []any{on, answer}},
		{`INSERT INTO log (sheet_id, seq, op_id, author, at, change) VALUES ($1, 1, $2, $3, 42, $4)`,
			[]any{on, store.NewID(), noor, `{"seq":1,"put":[` + answer + `]}`}},
	} {
		if _, err := db.ExecContext(ctx, do.query, do.args...); err != nil {
			t.Fatal(do.query, err)
		}
	}
	s := storetest.Open(t, url)
	kept, err := s.Board(ctx, teacher, board)
	if err != nil {
		t.Fatal(err)
	}
	found, err := s.Session(ctx, run)
	if err != nil || found.State.V.Polls["asked"] != (poll.State{Phase: poll.Closed, Round: 1}) {
		t.Fatalf("the session: %+v, %v", found.State.V, err)
	}
	lessons, err := s.Lesson(ctx, run)
	if err != nil {
		t.Fatal(err)
	}
	own, err := s.Templates(ctx, teacher)
	if err != nil || len(own) != 1 {
		t.Fatal(own, err)
	}
	for name, f := range map[string]lesson.Frame{"the board": kept.Board().Frames[0], "the template": own[0].Frame.V,
		"the lesson's own": lessons.Frames[0]} {
		p, err := f.Poll("asked")
		if err != nil || p.Sound() != nil || p.Poll.Text != `"choices"?` || len(p.Poll.Objectives) != 1 {
			t.Errorf("%s: %+v, %v", name, p.Poll, err)
			continue
		}
		if p.Poll.Judge(poll.Choose("b")).Verdict != poll.Right ||
			p.Poll.Judge(poll.Choose("a")).Verdict != poll.Wrong ||
			!slices.Equal(p.Poll.Pictures(), []string{"p"}) {
			t.Errorf("%s: %+v", name, p.Poll)
		}
		if n := f.Prepared[1]; n.Note == nil || n.Note.Text != `"choice":"a"` {
			t.Errorf("%s: the words of a note: %+v", name, n)
		}
	}
	key, err := s.SheetKeys(ctx, run, "one")
	if err != nil {
		t.Fatal(err)
	}
	loaded, err := s.LoadSheet(ctx, key[0])
	if err != nil {
		t.Fatal(err)
	}
	changes, err := s.ChangesSince(ctx, on, 0, 10)
	if err != nil {
		t.Fatal(err)
	}
	m, _ := loaded.Mark("asked")
	for name, m := range map[string]lesson.Element{"the sheet": m, "the log": changes[0].Put[0]} {
		if m.Answer == nil || m.Answer.Round != 1 || m.Answer.Value.Choice.Option != "b" || m.Sound() != nil {
			t.Errorf("%s: %+v", name, m)
		}
	}
	if _, err := steps.DownTo(ctx, 5); err != nil {
		t.Fatal(err)
	}
	for _, was := range []struct{ query, want string }{
		{`SELECT content->'prepared'->0->'poll' FROM frames`, `"choices": [{"id": "a"`},
		{`SELECT content->'frames'->0->'prepared'->0->'poll' FROM sessions`, `"choices": [{"id": "a"`},
		{`SELECT frame->'prepared'->0->'poll' FROM templates`, `"choices": [{"id": "a"`},
		{`SELECT state->'polls' FROM sessions`, `{"asked": "closed"}`},
		{`SELECT mark->'answer' FROM marks`, `{"poll": "asked", "choice": "b"}`},
		{`SELECT change->'put'->0->'answer' FROM log`, `{"poll": "asked", "choice": "b"}`},
	} {
		var got string
		if err := db.GetContext(ctx, &got, was.query); err != nil || !strings.Contains(got, was.want) {
			t.Errorf("going back, %s: %s, %v", was.query, got, err)
		}
	}
}

// A lesson from before lessons had boards of their own has one afterwards, with what
// was used otherwise than prepared, and goes back again.
func TestOldLessonsHaveBoards(t *testing.T) {
	t.Parallel()
	url := storetest.Bare(t)
	db, steps := upTo(t, url, 8)
	teacher, board, run := store.NewID(), store.NewID(), store.NewID()
	frame := func(id string) string {
		return `{"id":"` + id + `","title":"A","prompt":"say","paper":{"kind":"plain"},"arrangement":"class","permission":"add",
			"layout":{},"replies":true,"prepared":[]}`
	}
	for _, do := range []struct {
		query string
		args  []any
	}{
		{`INSERT INTO teachers VALUES ($1, 'ines@ternharbour.example', 'Ines Aldana', 'x')`, []any{teacher}},
		{`INSERT INTO boards (id, teacher_id, outline) VALUES ($1, $2,
			'{"title":"Moon","objectives":[],"frames":["one"],"dropped":[]}')`, []any{board, teacher}},
		{`INSERT INTO frames (board_id, id, content) VALUES ($1, 'one', $2)`, []any{board, frame("one")}},
		{`INSERT INTO sessions (id, teacher_id, board_id, class_name, code, content, state, rev, terms, title)
			VALUES ($1, $2, $3, '', 'K7M2QX', $4, $5, 3, 2, 'Moon')`,
			[]any{run, teacher, board, `{"title":"Moon","frames":[` + frame("one") + `,` + frame("two") + `]}`,
				`{"rev":3,"terms":2,"pace":"led","frame":"one","reached":["one"],"polls":{},
				"set":{"one":{"arrangement":"individual","permission":"look"}},
				"words":{"one":{"title":"Ebb","prompt":"What?"}},
				"laid":{"two":{"columns":[{"id":"a","title":"see"}],"order":""}}}`}},
	} {
		if _, err := db.ExecContext(ctx, do.query, do.args...); err != nil {
			t.Fatal(do.query, err)
		}
	}
	s := storetest.Open(t, url)
	own, err := s.Lesson(ctx, run)
	if err != nil || own.Check() != nil || own.Title != "Moon" || len(own.Frames) != 2 {
		t.Fatalf("%+v, %v, %v", own, err, own.Check())
	}
	one, two := own.Frames[0], own.Frames[1]
	if one.Arrangement != lesson.Individual || one.Permission != lesson.Look || one.Replies || one.Title != "Ebb" ||
		one.Prompt != "What?" || one.Layout.InColumns() {
		t.Errorf("the first frame: %+v", one)
	}
	if two.Arrangement != lesson.WholeClass || !two.Replies || two.Title != "A" || len(two.Layout.Columns) != 1 {
		t.Errorf("the second frame: %+v", two)
	}
	if cards, err := s.Boards(ctx, teacher); err != nil || len(cards) != 1 || cards[0].ID != board {
		t.Errorf("the boards page: %+v, %v", cards, err)
	}
	if kept, err := s.Board(ctx, teacher, board); err != nil || kept.Board().Frames[0].Title != "A" {
		t.Errorf("the board itself has changed: %+v, %v", kept, err)
	}
	if _, err := steps.DownTo(ctx, 8); err != nil {
		t.Fatal(err)
	}
	var title string
	if err := db.GetContext(ctx, &title, `SELECT content->'frames'->0->>'title' FROM sessions`); err != nil ||
		title != "Ebb" {
		t.Errorf("going back: %q, %v", title, err)
	}
}

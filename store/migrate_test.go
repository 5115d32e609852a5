package store_test

import (
	"database/sql"
	"os"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/store"
	"alpenglow/store/storetest"

	"github.com/pressly/goose/v3"
)

// Boards and sessions from before boards were prepared are there afterwards,
// with all that was on them, and go back again.
func TestOldBoardsAreKept(t *testing.T) {
	url := storetest.URL(t)
	db, err := sql.Open("pgx", url)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	steps, err := goose.NewProvider(goose.DialectPostgres, db, os.DirFS("migrations"))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := steps.UpTo(ctx, 2); err != nil {
		t.Fatal(err)
	}
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
		{`INSERT INTO sessions (id, teacher_id, board_id, code, content, state, rev) VALUES ($1, $2, $3, 'K7M2QX', $4, '{}', 0)`, []any{store.NewID(), teacher, board, content}},
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
	for name, b := range map[string]lesson.Board{"the board": kept.Board(), "the session's copy": run.Content.V} {
		if err := b.Check(); err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		f := b.Frames[0]
		if len(b.Frames) != 2 || b.Title != "Moon" || f.Paper.Kind != paper.Squared || len(f.Prepared) != 1 || f.Prepared[0].Note.Text != `the "fixed": word` || f.Prompt != `say "fixed":` {
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
	if err := db.QueryRowContext(ctx, `SELECT json_array_length(content->'frames') FROM boards WHERE id = $1`, board).Scan(&frames); err != nil || frames != 2 {
		t.Errorf("going back: %d frames, %v", frames, err)
	}
}

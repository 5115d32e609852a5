package store

import (
	"context"
	"database/sql"
	"fmt"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
)

// SheetKey says which sheet a row is.
type SheetKey struct {
	ID      string `db:"id"`
	Session string `db:"session_id"`
	Frame   string `db:"frame_id"`
	Owner   string `db:"owner"`
}

// EnsureSheet finds the sheet of an owner on a session's frame and makes it
// when it is first needed.
func (s *Store) EnsureSheet(ctx context.Context, session, frame, owner string) (SheetKey, error) {
	key := SheetKey{Session: session, Frame: frame, Owner: owner}
	const find = `SELECT id FROM sheets WHERE session_id = $1 AND frame_id = $2 AND owner = $3`
	if err := s.get(ctx, &key.ID, find, session, frame, owner); err != ErrNotFound {
		return key, err
	}
	if _, err := s.db.ExecContext(ctx, `INSERT INTO sheets (id, session_id, frame_id, owner) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`, NewID(), session, frame, owner); err != nil {
		return key, fmt.Errorf("make sheet: %w", err)
	}
	return key, s.get(ctx, &key.ID, find, session, frame, owner)
}

// SheetKeys lists the sheets that a session has.
func (s *Store) SheetKeys(ctx context.Context, session string) ([]SheetKey, error) {
	keys := []SheetKey{}
	return keys, s.db.SelectContext(ctx, &keys, `SELECT id, session_id, frame_id, owner FROM sheets WHERE session_id = $1`, session)
}

// SheetKey finds a sheet by its id.
func (s *Store) SheetKey(ctx context.Context, id string) (SheetKey, error) {
	var key SheetKey
	return key, s.get(ctx, &key, `SELECT id, session_id, frame_id, owner FROM sheets WHERE id = $1`, id)
}

// LoadSheet reads a sheet as it stands.
func (s *Store) LoadSheet(ctx context.Context, key SheetKey) (*sheet.Sheet, error) {
	// One snapshot, so that number, marks and history belong together.
	tx, err := s.db.BeginTxx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return nil, fmt.Errorf("load sheet: %w", err)
	}
	defer tx.Rollback()
	loaded := sheet.New(key.Owner)
	if err := tx.GetContext(ctx, &loaded.Seq, `SELECT seq FROM sheets WHERE id = $1`, key.ID); err != nil {
		return nil, fmt.Errorf("load sheet: %w", err)
	}
	var marks []JSON[lesson.Element]
	if err := tx.SelectContext(ctx, &marks, `SELECT mark FROM marks WHERE sheet_id = $1`, key.ID); err != nil {
		return nil, fmt.Errorf("load sheet: %w", err)
	}
	for _, m := range marks {
		loaded.Load(m.V)
	}
	var done []struct {
		Op     string `db:"op_id"`
		Seq    int64  `db:"seq"`
		Author string `db:"author"`
	}
	if err := tx.SelectContext(ctx, &done, `SELECT op_id, seq, author FROM log WHERE sheet_id = $1`, key.ID); err != nil {
		return nil, fmt.Errorf("load sheet: %w", err)
	}
	for _, d := range done {
		loaded.LoadDone(d.Op, d.Seq, d.Author)
	}
	return loaded, nil
}

// SheetSeq reads the number of a sheet's last change.
func (s *Store) SheetSeq(ctx context.Context, id string) (int64, error) {
	var seq int64
	return seq, s.get(ctx, &seq, `SELECT seq FROM sheets WHERE id = $1`, id)
}

// ChangesSince reads the changes of a sheet after a number, in order.
func (s *Store) ChangesSince(ctx context.Context, id string, seq int64) ([]sheet.Change, error) {
	var rows []JSON[sheet.Change]
	if err := s.db.SelectContext(ctx, &rows, `SELECT change FROM log WHERE sheet_id = $1 AND seq > $2 ORDER BY seq`, id, seq); err != nil {
		return nil, fmt.Errorf("read changes: %w", err)
	}
	changes := make([]sheet.Change, len(rows))
	for i, r := range rows {
		changes[i] = r.V
	}
	return changes, nil
}

// Worked lists the frames of a session on which somebody has done something.
func (s *Store) Worked(ctx context.Context, session, author string) ([]string, error) {
	frames := []string{}
	return frames, s.db.SelectContext(ctx, &frames, `
		SELECT DISTINCT s.frame_id FROM log l JOIN sheets s ON s.id = l.sheet_id WHERE s.session_id = $1 AND l.author = $2`, session, author)
}

// Activity is what an author did last on a frame of a session.
type Activity struct {
	Frame  string `db:"frame_id"`
	Author string `db:"author"`
	At     int64  `db:"at"` // milliseconds since 1970
}

// Activities lists for each author and frame of a session when they last did something.
func (s *Store) Activities(ctx context.Context, session string) ([]Activity, error) {
	list := []Activity{}
	return list, s.db.SelectContext(ctx, &list, `
		SELECT s.frame_id, l.author, max(l.at) AS at FROM log l JOIN sheets s ON s.id = l.sheet_id
		WHERE s.session_id = $1 GROUP BY s.frame_id, l.author`, session)
}

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
	// Seq is the number of its last change when the row was read.
	Seq int64 `db:"seq"`
}

// EnsureSheet finds the sheet of an owner on a session's frame and makes it
// when it is first needed.
func (s *Store) EnsureSheet(ctx context.Context, session, frame, owner string) (SheetKey, error) {
	keys, err := s.EnsureSheets(ctx, session, frame, []string{owner})
	if err == nil && len(keys) != 1 {
		err = ErrNotFound
	}
	if err != nil {
		return SheetKey{}, err
	}
	return keys[0], nil
}

// SheetKeys lists the sheets that a session has of a frame, or of all when it is empty.
func (s *Store) SheetKeys(ctx context.Context, session, frame string) ([]SheetKey, error) {
	return list[SheetKey](ctx, s, `SELECT id, session_id, frame_id, owner, seq FROM sheets WHERE session_id = $1
		AND ($2 = '' OR frame_id = $2)`, session, frame)
}

// SheetKey finds a sheet by its id.
func (s *Store) SheetKey(ctx context.Context, id string) (SheetKey, error) {
	return one[SheetKey](ctx, s, `SELECT id, session_id, frame_id, owner, seq FROM sheets WHERE id = $1`, id)
}

// LoadSheet reads a sheet as it stands.
func (s *Store) LoadSheet(ctx context.Context, key SheetKey) (*sheet.Sheet, error) {
	sheets, err := s.LoadSheets(ctx, []SheetKey{key})
	if err != nil {
		return nil, err
	}
	return sheets[key.ID], nil
}

// LoadSheets reads sheets as they stand, by their ids.
func (s *Store) LoadSheets(ctx context.Context, keys []SheetKey) (map[string]*sheet.Sheet, error) {
	loaded, err := s.loadSheets(ctx, keys)
	if err != nil {
		return nil, fmt.Errorf("load sheets: %w", err)
	}
	return loaded, nil
}

func (s *Store) loadSheets(ctx context.Context, keys []SheetKey) (map[string]*sheet.Sheet, error) {
	// One snapshot, so that number, marks and history belong together.
	tx, err := s.db.BeginTxx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return nil, err
	}
	defer tx.Rollback()
	ids, loaded := make([]string, len(keys)), map[string]*sheet.Sheet{}
	for i, k := range keys {
		ids[i], loaded[k.ID] = k.ID, sheet.New(k.Owner)
	}
	var seqs []struct {
		ID  string `db:"id"`
		Seq int64  `db:"seq"`
	}
	if err := tx.SelectContext(ctx, &seqs, `SELECT id, seq FROM sheets WHERE id = ANY($1::uuid[])`, ids); err != nil {
		return nil, err
	}
	if len(seqs) != len(loaded) {
		return nil, ErrNotFound
	}
	for _, q := range seqs {
		loaded[q.ID].Seq = q.Seq
	}
	var marks []struct {
		Sheet string               `db:"sheet_id"`
		Mark  JSON[lesson.Element] `db:"mark"`
		Seq   int64                `db:"seq"`
	}
	// What was removed long ago is in the log alone.
	if err := tx.SelectContext(ctx, &marks, `
		SELECT sheet_id, mark, seq FROM marks WHERE sheet_id = ANY($1::uuid[]) AND NOT removed UNION ALL
		SELECT m.sheet_id, m.mark, m.seq FROM unnest($1::uuid[]) AS k(id),
		LATERAL (SELECT sheet_id, mark, seq FROM marks WHERE sheet_id = k.id AND removed ORDER BY seq DESC LIMIT $2) m
		ORDER BY seq`, ids, sheet.MaxRemoved); err != nil {
		return nil, err
	}
	removed, first := map[string]int{}, map[string]int64{}
	for _, m := range marks {
		loaded[m.Sheet].Load(m.Mark.V, m.Seq)
		if !m.Mark.V.OnFrame() {
			if removed[m.Sheet]++; removed[m.Sheet] == 1 {
				first[m.Sheet] = m.Seq
			}
		}
	}
	for id, n := range removed {
		if n == sheet.MaxRemoved {
			loaded[id].Lose(first[id])
		}
	}
	var done []struct {
		Sheet  string `db:"sheet_id"`
		Op     string `db:"op_id"`
		Seq    int64  `db:"seq"`
		Author string `db:"author"`
	}
	if err := tx.SelectContext(ctx, &done, `SELECT l.sheet_id, l.op_id, l.seq, l.author FROM sheets s
		JOIN log l ON l.sheet_id = s.id AND l.seq > s.seq - $2
		WHERE s.id = ANY($1::uuid[]) ORDER BY l.seq`, ids, sheet.MaxLoaded); err != nil {
		return nil, err
	}
	for _, d := range done {
		loaded[d.Sheet].LoadDone(d.Op, d.Seq, d.Author)
	}
	return loaded, nil
}

// SheetSeq reads the number of a sheet's last change.
func (s *Store) SheetSeq(ctx context.Context, id string) (int64, error) {
	return one[int64](ctx, s, `SELECT seq FROM sheets WHERE id = $1`, id)
}

// ChangesSince reads the changes of a sheet after a number, in order, at most so many.
func (s *Store) ChangesSince(ctx context.Context, id string, seq int64, most int) ([]sheet.Change, error) {
	rows, err := list[JSON[sheet.Change]](ctx, s,
		`SELECT change FROM log WHERE sheet_id = $1 AND seq > $2 ORDER BY seq LIMIT $3`, id, seq, most)
	if err != nil {
		return nil, fmt.Errorf("read changes: %w", err)
	}
	changes := make([]sheet.Change, len(rows))
	for i, r := range rows {
		changes[i] = r.V
	}
	return changes, nil
}

// ChangeOf finds the change that an operation made on a sheet.
func (s *Store) ChangeOf(ctx context.Context, id, op string) (sheet.Change, error) {
	c, err := one[JSON[sheet.Change]](ctx, s, `SELECT change FROM log WHERE sheet_id = $1 AND op_id = $2`, id, op)
	return c.V, err
}

// Taken is an operation that a sheet took at any time.
type Taken struct {
	Op     string `db:"op_id"`
	Seq    int64  `db:"seq"`
	Author string `db:"author"`
}

// Taken finds those of some operations that a sheet took at any time.
func (s *Store) Taken(ctx context.Context, id string, ops []string) ([]Taken, error) {
	return list[Taken](
		ctx,
		s,
		`SELECT op_id, seq, author FROM log WHERE sheet_id = $1 AND op_id = ANY($2::uuid[])`,
		id,
		ops,
	)
}

// EnsureSheets finds the sheets of several owners on a session's frame, and
// makes those that are first needed.
func (s *Store) EnsureSheets(ctx context.Context, session, frame string, owners []string) ([]SheetKey, error) {
	const find = `SELECT id, session_id, frame_id, owner, seq FROM sheets WHERE session_id = $1 AND frame_id = $2
		AND owner = ANY($3)`
	keys, err := list[SheetKey](ctx, s, find, session, frame, owners)
	if err != nil || len(keys) == len(owners) {
		return keys, err
	}
	ids := make([]string, len(owners))
	for i := range ids {
		ids[i] = NewID()
	}
	if _, err := s.db.ExecContext(ctx, `INSERT INTO sheets (id, session_id, frame_id, owner)
		SELECT n.id, $1, $2, n.owner FROM unnest($3::uuid[], $4::text[]) AS n(id, owner)
		ON CONFLICT DO NOTHING`, session, frame, ids, owners); err != nil {
		return nil, fmt.Errorf("make sheets: %w", err)
	}
	return list[SheetKey](ctx, s, find, session, frame, owners)
}

// Worked lists the frames of a session on which somebody has done something.
func (s *Store) Worked(ctx context.Context, session, author string) ([]string, error) {
	return list[string](ctx, s, `
		SELECT DISTINCT s.frame_id FROM sheets s JOIN activity a ON a.sheet_id = s.id
		WHERE s.session_id = $1 AND a.author = $2 AND a.at > 0`, session, author)
}

// Activity is what an author has on a frame of a session, and when they last
// did something there.
type Activity struct {
	Sheet  string `db:"sheet_id"`
	Frame  string `db:"frame_id"`
	Author string `db:"author"`
	Marks  int    `db:"marks"`
	At     int64  `db:"at"` // milliseconds since 1970
	// Pause is the longest time between two changes of theirs on one sheet.
	Pause int64 `db:"pause"`
}

// Activities lists what each author has on each sheet of a session.
func (s *Store) Activities(ctx context.Context, session string) ([]Activity, error) {
	return list[Activity](ctx, s, `
		SELECT s.id AS sheet_id, s.frame_id, a.author, a.marks, a.at, a.pause
		FROM sheets s
		JOIN activity a ON a.sheet_id = s.id
		WHERE s.session_id = $1`, session)
}

// SheetMark is a mark with the sheet that it lies on.
type SheetMark struct {
	Sheet string               `db:"sheet_id"`
	Frame string               `db:"frame_id"`
	Mark  JSON[lesson.Element] `db:"mark"`
}

// Telling lists those marks of a session by which its teacher is told how it stands:
// the answers, and what waits for a yes.
func (s *Store) Telling(ctx context.Context, session string) ([]SheetMark, error) {
	return list[SheetMark](ctx, s, `
		SELECT m.sheet_id, s.frame_id, m.mark FROM sheets s JOIN marks m ON m.sheet_id = s.id AND NOT m.removed
		WHERE s.session_id = $1
			AND (m.mark->>'kind' IN ('answer', 'handed') OR m.mark->'standing'->>'is' = 'held')`, session)
}

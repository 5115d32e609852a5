package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"maps"

	"alpenglow/core/lesson"
	"alpenglow/core/prepare"

	"github.com/jmoiron/sqlx"
)

// Draft is a board that is being changed in a transaction. Nobody else changes
// it meanwhile.
type Draft struct {
	prepare.Draft
	// Rev is the number of its last change.
	Rev int64
	// May is asked before each change is saved, if it is there; what it refuses is
	// not saved, and the draft is as it was before.
	May func() error
	id  string
	tx  *sqlx.Tx
	was prepare.Draft // as it was saved last
}

// ChangeBoard lets work change a teacher's board; what it saves is kept when it
// succeeds. ErrNotFound says that there is no such board; that of a lesson is
// changed by Rework.
func (s *Store) ChangeBoard(ctx context.Context, teacher, id string, work func(d *Draft) error) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		d, err := holdBoard(ctx, tx, `teacher_id = $1 AND id = $2 AND session_id IS NULL AND deleted_at IS NULL`,
			teacher, id)
		if err != nil {
			return err
		}
		return work(d)
	})
}

// ChangeLesson lets work change the board of a lesson that is over, while it is held so that nobody takes it up again.
// It says ErrNotFound where the lesson runs, whose board is changed by Rework.
func (s *Store) ChangeLesson(ctx context.Context, session string, work func(d *Draft) error) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		// The board first, as Rework does: in another order the two would wait for each other.
		d, err := holdBoard(ctx, tx, `session_id = $1`, session)
		if err != nil {
			return err
		}
		var over string
		err = tx.GetContext(
			ctx,
			&over,
			`SELECT id FROM sessions WHERE id = $1 AND ended_at IS NOT NULL FOR SHARE`,
			session,
		)
		if err != nil {
			return none(err)
		}
		return work(d)
	})
}

func holdBoard(ctx context.Context, tx *sqlx.Tx, where string, args ...any) (*Draft, error) {
	var row struct {
		ID      string                `db:"id"`
		Rev     int64                 `db:"rev"`
		Outline JSON[prepare.Outline] `db:"outline"`
	}
	err := tx.GetContext(ctx, &row, `SELECT id, rev, outline FROM boards WHERE `+where+` FOR NO KEY UPDATE`, args...)
	if err != nil {
		return nil, none(err)
	}
	d := &Draft{Draft: prepare.Draft{Outline: row.Outline.V, Frames: map[string]lesson.Frame{}}, Rev: row.Rev,
		id: row.ID, tx: tx}
	d.keep()
	return d, nil
}

func (d *Draft) keep() { d.was = prepare.Draft{Outline: d.Outline, Frames: maps.Clone(d.Frames)} }

// Load brings frames into the draft; those that do not exist are left out.
func (d *Draft) Load(ctx context.Context, ids ...string) error {
	missing := []string{}
	for _, id := range ids {
		if _, ok := d.Frames[id]; !ok {
			missing = append(missing, id)
		}
	}
	if len(missing) == 0 {
		return nil
	}
	var rows []JSON[lesson.Frame]
	if err := d.tx.SelectContext(ctx, &rows, `SELECT content FROM frames WHERE board_id = $1 AND id = ANY($2)`, d.id,
		missing); err != nil {
		return fmt.Errorf("load frames: %w", err)
	}
	for _, r := range rows {
		d.Frames[r.V.ID] = r.V
		d.was.Frames[r.V.ID] = r.V
	}
	return nil
}

// Done says whether an edit was taken before, under which number, and what
// takes it back.
func (d *Draft) Done(ctx context.Context, op string) (rev int64, back prepare.Step, done bool, err error) {
	var row struct {
		Rev  int64              `db:"rev"`
		Back JSON[prepare.Step] `db:"back"`
	}
	err = d.tx.GetContext(ctx, &row, `SELECT rev, back FROM edits WHERE board_id = $1 AND op_id = $2`, d.id, op)
	if errors.Is(err, sql.ErrNoRows) {
		return 0, prepare.Step{}, false, nil
	}
	return row.Rev, row.Back.V, err == nil, err
}

// Save stores a change that was made to the draft, under the next number, with
// what takes it back.
func (d *Draft) Save(ctx context.Context, change *prepare.Changed, back prepare.Step) error {
	if d.May != nil {
		if err := d.May(); err != nil {
			d.Outline, d.Frames = d.was.Outline, maps.Clone(d.was.Frames)
			return err
		}
	}
	d.keep()
	d.Rev++
	change.Rev = d.Rev
	outline, err := asJSON(d.Outline)
	if err != nil {
		return fmt.Errorf("save edit: %w", err)
	}
	changed, err := asJSON(change)
	if err != nil {
		return fmt.Errorf("save edit: %w", err)
	}
	undo, err := asJSON(back)
	if err != nil {
		return fmt.Errorf("save edit: %w", err)
	}
	ids, frames := []string{}, []string{}
	touched := func(id string) error {
		text, err := asJSON(d.Frames[id])
		ids, frames = append(ids, id), append(frames, text)
		return err
	}
	for _, f := range change.Whole {
		err = errors.Join(err, touched(f.ID))
	}
	if change.Setting != nil {
		err = errors.Join(err, touched(change.Setting.ID))
	}
	if change.Marks != nil {
		err = errors.Join(err, touched(change.Marks.Frame))
	}
	if err != nil {
		return fmt.Errorf("save edit: %w", err)
	}
	_, err = d.tx.ExecContext(ctx, `
WITH board AS (
    UPDATE boards SET rev = $2, outline = $3, changed_at = now() WHERE id = $1
), logged AS (
    INSERT INTO edits (board_id, rev, op_id, change, back) VALUES ($1, $2, $4, $5, $6)
)
INSERT INTO frames (board_id, id, content) SELECT $1, f.id, f.content
FROM unnest($7::text[], $8::json[]) AS f(id, content)
ON CONFLICT (board_id, id) DO UPDATE SET content = excluded.content,
words = NULL`, d.id, d.Rev, outline, change.Op, changed, undo, ids, frames)
	if err != nil {
		return fmt.Errorf("save edit: %w", err)
	}
	return nil
}

package store

import (
	"context"
	"fmt"

	"alpenglow/core/session"

	"github.com/jmoiron/sqlx"
)

// Rework lets work change the board of a running lesson; what it saves is stored
// together with the state that it gives, or neither. It reports false when the
// state has another revision than expected. Nothing is stored on the lesson's
// sheets meanwhile.
func (s *Store) Rework(ctx context.Context, id string, rev int64,
	work func(d *Draft) (session.State, error)) (bool, error) {
	stored := false
	err := within(ctx, s.lesson, func(tx *sqlx.Tx) error {
		d, err := holdBoard(ctx, tx, `session_id = $1`, id)
		if err != nil {
			return err
		}
		var now int64
		if err := tx.GetContext(ctx, &now, `SELECT rev FROM sessions WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
			return fmt.Errorf("rework: %w", none(err))
		}
		if now != rev {
			return nil
		}
		next, err := work(d)
		if err != nil {
			return err
		}
		text, err := asJSON(next)
		if err == nil && next.Rev != rev {
			_, err = tx.ExecContext(
				ctx,
				`UPDATE sessions SET state = $2, rev = $3, terms = $4, title = $5 WHERE id = $1`,
				id,
				text,
				next.Rev,
				next.Terms,
				d.Outline.Title,
			)
		}
		if err != nil {
			return fmt.Errorf("rework: %w", err)
		}
		stored = true
		return nil
	})
	return stored, err
}

// Marked reports whether a mark on a sheet of the lesson has one of these ids; one
// that belongs to what is prepared under this id, as its place or its answer, may.
func (d *Draft) Marked(ctx context.Context, ids []string) (bool, error) {
	if len(ids) == 0 {
		return false, nil
	}
	var found bool
	err := d.tx.GetContext(ctx, &found, `SELECT EXISTS (SELECT 1 FROM sheets s JOIN marks m ON m.sheet_id = s.id
		WHERE s.session_id = $1 AND m.id = ANY($2)
		AND coalesce(m.mark->'placed'->>'piece', m.mark->'answer'->>'poll', '') <> m.id)`, d.id, ids)
	return found, err
}

// Answered reads up to which round polls have answers on sheets of the lesson.
func (d *Draft) Answered(ctx context.Context, polls []string) (map[string]int, error) {
	answered := map[string]int{}
	if len(polls) == 0 {
		return answered, nil
	}
	var rows []struct {
		Poll  string `db:"poll"`
		Round int    `db:"round"`
	}
	err := d.tx.SelectContext(ctx, &rows,
		`SELECT m.mark->'answer'->>'poll' AS poll, max((m.mark->'answer'->>'round')::int) AS round
		FROM sheets s JOIN marks m ON m.sheet_id = s.id
		WHERE s.session_id = $1 AND m.mark->'answer'->>'poll' = ANY($2) AND NOT m.removed GROUP BY 1`, d.id, polls)
	for _, r := range rows {
		answered[r.Poll] = r.Round
	}
	return answered, err
}

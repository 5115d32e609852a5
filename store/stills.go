package store

import (
	"context"
	"fmt"

	"alpenglow/core/record"
)

// Stills lists the moments of a session that have a name, in their order.
func (s *Store) Stills(ctx context.Context, session string) ([]record.Still, error) {
	return list[record.Still](ctx, s, `SELECT id, name, at FROM stills WHERE session_id = $1 ORDER BY at, id`, session)
}

// KeepStill names a moment of a session; it says ErrTaken where there are as many as may be.
func (s *Store) KeepStill(ctx context.Context, session string, still record.Still) error {
	// The session's row is held, so that no two see room for one.
	done, err := s.db.ExecContext(ctx, `WITH held AS (SELECT id FROM sessions WHERE id = $1 FOR NO KEY UPDATE)
		INSERT INTO stills (id, session_id, name, at) SELECT $2, held.id, $3, $4 FROM held
		WHERE (SELECT count(*) FROM stills WHERE session_id = $1) < $5`,
		session, still.ID, still.Name, still.At, record.MaxStills)
	if err != nil {
		return fmt.Errorf("keep still: %w", err)
	}
	if n, err := done.RowsAffected(); err != nil || n == 0 {
		return ErrTaken
	}
	return nil
}

// DropStill forgets that a moment had a name; nothing of the lesson changes.
func (s *Store) DropStill(ctx context.Context, session, still string) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM stills WHERE session_id = $1 AND id = $2`, session, still)
	if err != nil {
		return fmt.Errorf("drop still: %w", err)
	}
	return nil
}

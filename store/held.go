package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
)

// HeldWith lists the lessons that a teacher held with a board and that are over, the first one first.
func (s *Store) HeldWith(ctx context.Context, teacher, board string, most int) ([]Session, error) {
	return list[Session](ctx, s, `SELECT `+sessionColumns+` FROM sessions WHERE teacher_id = $1 AND board_id = $2
		AND ended_at IS NOT NULL AND NOT practice ORDER BY started_at, id LIMIT $3`, teacher, board, most)
}

// WasHeld makes a lesson of a file, which was put in as a rehearsal so that nothing half done is kept, one that was
// held: then, on no device, and with nothing that happened but what lies on its sheets.
func (s *Store) WasHeld(ctx context.Context, id string, began, ended time.Time) error {
	_, err := s.db.ExecContext(ctx, `WITH people AS (UPDATE participants SET joined_at = $2 WHERE session_id = $1),
		devices AS (DELETE FROM passes WHERE participant_id IN (SELECT id FROM participants WHERE session_id = $1)),
		happened AS (DELETE FROM happenings WHERE session_id = $1)
		UPDATE sessions SET practice = false, started_at = $2, ended_at = $3 WHERE id = $1`, id, began, ended)
	if err != nil {
		return fmt.Errorf("was held: %w", err)
	}
	return nil
}

// ForgetBoard takes back a board that was made a moment ago, with lessons of it.
func (s *Store) ForgetBoard(ctx context.Context, board string, lessons []string) error {
	err := s.within(ctx, func(tx *sqlx.Tx) error {
		if err := forgetSessions(ctx, tx, `id = ANY($1)`, lessons); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM boards WHERE id = $1`, board)
		return err
	})
	if err != nil {
		return fmt.Errorf("forget board: %w", err)
	}
	return nil
}

package store

import (
	"context"
	"fmt"
	"time"

	"alpenglow/core/output"
)

// Look is a link by which anybody looks at chosen work of a session or a board.
type Look struct {
	Word    string            `db:"word"`
	Teacher string            `db:"teacher_id"`
	Session *string           `db:"session_id"`
	Board   *string           `db:"board_id"`
	Wish    JSON[output.Wish] `db:"wish"`
	At      time.Time         `db:"made_at"`
}

// MaxLooks is how many links a teacher may have at once.
const MaxLooks = 100

const lookColumns = `word, teacher_id, session_id, board_id, wish, made_at`

// AddLook keeps a link; it says ErrTaken where the teacher has as many as may be.
func (s *Store) AddLook(ctx context.Context, l Look) error {
	wish, err := asJSON(l.Wish.V)
	if err != nil {
		return fmt.Errorf("add look: %w", err)
	}
	// The teacher's row is held, so that no two see room for one.
	done, err := s.db.ExecContext(ctx, `WITH held AS (SELECT id FROM teachers WHERE id = $2 FOR NO KEY UPDATE)
		INSERT INTO looks (word, teacher_id, session_id, board_id, wish) SELECT $1, held.id, $3, $4, $5 FROM held
		WHERE (SELECT count(*) FROM looks WHERE teacher_id = $2) < $6`,
		l.Word, l.Teacher, l.Session, l.Board, wish, MaxLooks)
	if err != nil {
		return fmt.Errorf("add look: %w", err)
	}
	if n, err := done.RowsAffected(); err != nil || n == 0 {
		return ErrTaken
	}
	return nil
}

// Looks lists a teacher's links of a session or a board, the latest first.
func (s *Store) Looks(ctx context.Context, teacher, of string) ([]Look, error) {
	return list[Look](
		ctx,
		s,
		`SELECT `+lookColumns+` FROM looks WHERE teacher_id = $1 AND (session_id = $2 OR board_id = $2)
		ORDER BY made_at DESC, word`,
		teacher,
		of,
	)
}

// Look finds a link by its word, as long as whoever made it may still see what it leads to.
func (s *Store) Look(ctx context.Context, word string) (Look, error) {
	return one[Look](ctx, s, `SELECT `+lookColumns+` FROM looks k WHERE word = $1 AND (
		EXISTS (SELECT FROM leads l WHERE l.session_id = k.session_id AND l.teacher_id = k.teacher_id) OR
		EXISTS (SELECT FROM boards b WHERE b.id = k.board_id AND b.teacher_id = k.teacher_id AND b.deleted_at IS NULL))`, word)
}

// DropLook takes a teacher's link back; ErrNotFound where there is none.
func (s *Store) DropLook(ctx context.Context, teacher, word string) error {
	_, err := one[string](ctx, s, `DELETE FROM looks WHERE teacher_id = $1 AND word = $2 RETURNING word`, teacher, word)
	return err
}

package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/prepare"
)

// BoardCard is a board in a list, with its first frame.
type BoardCard struct {
	ID         string                `db:"id"`
	Outline    JSON[prepare.Outline] `db:"outline"`
	First      JSON[lesson.Frame]    `db:"first"`
	Folder     string                `db:"folder"`
	ChangedAt  time.Time             `db:"changed_at"`
	OpenedAt   *time.Time            `db:"opened_at"`
	ArchivedAt *time.Time            `db:"archived_at"`
}

// stored is a new board as it is stored: its outline, and the ids of its frames
// with their content.
type stored struct {
	outline     string
	ids, frames []string
}

func boardRow(content lesson.Board) (stored, error) {
	draft := prepare.New(content)
	outline, err := asJSON(draft.Outline)
	row := stored{outline, draft.Outline.Frames, make([]string, len(content.Frames))}
	for i, id := range row.ids {
		var failed error
		row.frames[i], failed = asJSON(draft.Frames[id])
		err = errors.Join(err, failed)
	}
	return row, err
}

// AddBoard stores a new board of a teacher and returns its id.
func (s *Store) AddBoard(ctx context.Context, teacher string, content lesson.Board) (string, error) {
	if err := content.Check(); err != nil {
		return "", fmt.Errorf("add board: %w", err)
	}
	row, err := boardRow(content)
	if err != nil {
		return "", fmt.Errorf("add board: %w", err)
	}
	id := NewID()
	_, err = s.db.ExecContext(ctx, `
WITH board AS (INSERT INTO boards (id, teacher_id, outline) VALUES ($1, $2, $3) RETURNING id)
INSERT INTO frames (board_id, id, content) SELECT board.id, f.id, f.content
FROM board, unnest($4::text[], $5::json[]) AS f(id, content)`, id, teacher, row.outline, row.ids, row.frames)
	if err != nil {
		return "", fmt.Errorf("add board: %w", err)
	}
	return id, nil
}

// Boards lists a teacher's boards that are not deleted, the last changed first;
// those of lessons are not among them.
func (s *Store) Boards(ctx context.Context, teacher string) ([]BoardCard, error) {
	return list[BoardCard](ctx, s, `
		SELECT b.id, b.outline, b.folder, b.changed_at, b.opened_at, b.archived_at, f.content AS first
		FROM boards b JOIN frames f ON f.board_id = b.id AND f.id = b.outline->'frames'->>0
		WHERE b.teacher_id = $1 AND b.session_id IS NULL AND b.deleted_at IS NULL ORDER BY b.changed_at DESC, b.id`, teacher)
}

// Kept is a whole board as it is now, with the number of its last change, and the
// session whose own it is, if it is one's.
type Kept struct {
	prepare.Draft
	Rev     int64
	Session *string
}

// ownBoard is the condition that a board is the teacher's in $1, or that of a lesson
// which they may lead.
const ownBoard = `(b.teacher_id = $1 AND b.session_id IS NULL
	OR b.session_id IN (SELECT l.session_id FROM leads l WHERE l.teacher_id = $1))`

// Board reads a teacher's board as it is now, deleted or not.
func (s *Store) Board(ctx context.Context, teacher, id string) (Kept, error) {
	return s.board(ctx, ownBoard+` AND b.id = $2`, teacher, id)
}

// SharedBoard reads the board that a link leads to.
func (s *Store) SharedBoard(ctx context.Context, share string) (Kept, error) {
	return s.board(ctx, `share = $1 AND deleted_at IS NULL`, share)
}

func (s *Store) board(ctx context.Context, where string, args ...any) (Kept, error) {
	var row struct {
		Rev     int64                 `db:"rev"`
		Session *string               `db:"session_id"`
		Outline JSON[prepare.Outline] `db:"outline"`
		Frames  JSON[[]lesson.Frame]  `db:"frames"`
	}
	err := s.get(
		ctx,
		&row,
		`SELECT b.rev, b.session_id, b.outline, (SELECT coalesce(json_agg(f.content), '[]') FROM frames f
		WHERE f.board_id = b.id AND f.id IN (SELECT json_array_elements_text(b.outline->'frames'))) AS frames
		FROM boards b WHERE `+where,
		args...)
	kept := Kept{Draft: prepare.Draft{Outline: row.Outline.V, Frames: map[string]lesson.Frame{}}, Rev: row.Rev,
		Session: row.Session}
	for _, f := range row.Frames.V {
		kept.Frames[f.ID] = f
	}
	return kept, err
}

// Frame reads a frame of one of a teacher's boards, of that which was changed last
// if several have it, as a lesson has.
func (s *Store) Frame(ctx context.Context, teacher, id string) (lesson.Frame, error) {
	var frame JSON[lesson.Frame]
	err := s.get(ctx, &frame, `SELECT f.content FROM frames f JOIN boards b ON b.id = f.board_id WHERE `+ownBoard+`
		AND f.id = $2 ORDER BY b.changed_at DESC LIMIT 1`, teacher, id)
	return frame.V, err
}

// BoardChanges reads the changes of a teacher's board after a number, in order. It says
// ErrNotFound where there is no such board.
func (s *Store) BoardChanges(ctx context.Context, teacher, id string, since int64) ([]prepare.Changed, error) {
	var rows []struct {
		Change *string `db:"change"` // nil: the board is there, and nothing has changed
	}
	err := s.db.SelectContext(
		ctx,
		&rows,
		`SELECT e.change FROM boards b LEFT JOIN edits e ON e.board_id = b.id AND e.rev > $3
		WHERE `+ownBoard+` AND b.id = $2 ORDER BY e.rev`,
		teacher,
		id,
		since,
	)
	if err != nil {
		return nil, fmt.Errorf("read edits: %w", err)
	}
	if len(rows) == 0 {
		return nil, ErrNotFound
	}
	changes := []prepare.Changed{}
	for _, r := range rows {
		if r.Change == nil {
			continue
		}
		var change JSON[prepare.Changed]
		if err := change.Scan(*r.Change); err != nil {
			return nil, fmt.Errorf("read edits: %w", err)
		}
		changes = append(changes, change.V)
	}
	return changes, nil
}

// Card is what a teacher may change about a board besides what is on it; what
// is nil stays.
type Card struct {
	Folder   *string
	Archived *bool
	Deleted  *bool
	Opened   bool
}

// SetCard changes a board's card; that of a lesson has none.
func (s *Store) SetCard(ctx context.Context, teacher, id string, c Card) error {
	result, err := s.db.ExecContext(ctx, `UPDATE boards SET folder = coalesce($3, folder),
		archived_at = CASE WHEN $4::bool IS NULL THEN archived_at WHEN $4 THEN now() END,
		deleted_at = CASE WHEN $5::bool IS NULL THEN deleted_at WHEN $5 THEN now() END,
		opened_at = CASE WHEN $6 THEN now() ELSE opened_at END
		WHERE teacher_id = $1 AND id = $2 AND session_id IS NULL`, teacher, id, c.Folder, c.Archived, c.Deleted, c.Opened)
	if err != nil {
		return fmt.Errorf("set card: %w", err)
	}
	if n, err := result.RowsAffected(); err != nil || n == 0 {
		return ErrNotFound
	}
	return nil
}

// ShareBoard gives the word that a link to a copy of a board holds, the one
// given if there is none yet.
func (s *Store) ShareBoard(ctx context.Context, teacher, id, word string) (string, error) {
	return one[string](ctx, s, `UPDATE boards SET share = coalesce(share, $3) WHERE teacher_id = $1 AND id = $2
		AND session_id IS NULL RETURNING share`, teacher, id, word)
}

// ForgetBoards removes boards for good that were deleted before a time.
func (s *Store) ForgetBoards(ctx context.Context, before time.Time) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM boards WHERE deleted_at < $1`, before)
	return err
}

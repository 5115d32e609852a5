package store

import (
	"context"
	"fmt"

	"alpenglow/core/lesson"
)

// Template is a frame that a teacher has saved for use again.
type Template struct {
	ID    string             `db:"id"`
	Name  string             `db:"name"`
	Frame JSON[lesson.Frame] `db:"frame"`
}

// AddTemplate stores a template of a teacher and returns its id.
func (s *Store) AddTemplate(ctx context.Context, teacher, name string, frame lesson.Frame) (string, error) {
	text, err := asJSON(frame)
	if err != nil {
		return "", fmt.Errorf("add template: %w", err)
	}
	id := NewID()
	if _, err := s.db.ExecContext(ctx, `INSERT INTO templates (id, teacher_id, name, frame) VALUES ($1, $2, $3, $4)`,
		id, teacher, name, text); err != nil {
		return "", fmt.Errorf("add template: %w", err)
	}
	return id, nil
}

// Templates lists a teacher's templates by name.
func (s *Store) Templates(ctx context.Context, teacher string) ([]Template, error) {
	return list[Template](ctx, s, `SELECT id, name, frame FROM templates WHERE teacher_id = $1
		ORDER BY lower(name), id`, teacher)
}

// RemoveTemplate removes a template of a teacher; ErrNotFound when there is none.
func (s *Store) RemoveTemplate(ctx context.Context, teacher, id string) error {
	result, err := s.db.ExecContext(ctx, `DELETE FROM templates WHERE teacher_id = $1 AND id = $2`, teacher, id)
	if err != nil {
		return fmt.Errorf("remove template: %w", err)
	}
	if n, err := result.RowsAffected(); err != nil || n == 0 {
		return ErrNotFound
	}
	return nil
}

package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

	"alpenglow/core/picture"
)

// AddPicture keeps a picture of a session and returns its id. Where the
// session has as many as it may, nothing is kept and full is true.
func (s *Store) AddPicture(ctx context.Context, session, author string, p picture.Picture, most int) (id string, full bool, err error) {
	id = NewID()
	result, err := s.db.ExecContext(ctx, `
INSERT INTO pictures (id, session_id, author, type, width, height, data)
SELECT $1, $2, $3, $4, $5, $6, $7 WHERE (SELECT count(*) FROM pictures WHERE session_id = $2) < $8`,
		id, session, author, p.Type, p.Width, p.Height, p.Data, most)
	if err != nil {
		return "", false, fmt.Errorf("add picture: %w", err)
	}
	n, err := result.RowsAffected()
	return id, n == 0, err
}

// KeptPicture is a stored picture with the session it belongs to.
type KeptPicture struct {
	Session   string `db:"session_id"`
	TeacherID string `db:"teacher_id"`
	Type      string `db:"type"`
	Data      []byte `db:"data"`
}

// Picture reads a picture; ErrNotFound when there is none.
func (s *Store) Picture(ctx context.Context, id string) (KeptPicture, error) {
	var p KeptPicture
	err := s.db.GetContext(ctx, &p, `SELECT p.session_id, x.teacher_id, p.type, p.data FROM pictures p JOIN sessions x ON x.id = p.session_id WHERE p.id = $1`, id)
	if errors.Is(err, sql.ErrNoRows) {
		return p, ErrNotFound
	}
	if err != nil {
		return p, fmt.Errorf("picture: %w", err)
	}
	return p, nil
}

package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"

	"alpenglow/core/picture"
)

// AddPicture keeps a picture of a session and returns its id. Where the
// session has as many as it may, nothing is kept and full is true.
func (s *Store) AddPicture(ctx context.Context, session, author string, p picture.Picture, most int) (id string,
	full bool, err error) {
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

// LibraryPicture is a picture of the school's library in a list.
type LibraryPicture struct {
	ID     string `db:"id"`
	Name   string `db:"name"`
	Width  int    `db:"width"`
	Height int    `db:"height"`
}

// KeepPicture puts a picture into the library, where the same one is kept
// once, and returns its id.
func (s *Store) KeepPicture(ctx context.Context, teacher, name string, p picture.Picture) (string, error) {
	hash := sha256.Sum256(p.Data)
	var id string
	err := s.db.GetContext(ctx, &id, `
INSERT INTO pictures (id, teacher_id, author, type, width, height, data, name, hash)
VALUES ($1, $2, 'staff', $3, $4, $5, $6, $7, $8)
ON CONFLICT (hash) WHERE session_id IS NULL DO UPDATE SET used_at = now(),
teacher_id = CASE WHEN pictures.teacher_id IN (SELECT id FROM teachers WHERE goes_at IS NOT NULL)
	THEN excluded.teacher_id ELSE pictures.teacher_id END,
name = CASE WHEN pictures.name = '' THEN excluded.name ELSE pictures.name END
RETURNING id`, NewID(), teacher, p.Type, p.Width, p.Height, p.Data, name, hash[:])
	if err != nil {
		return "", fmt.Errorf("keep picture: %w", err)
	}
	return id, nil
}

// Library lists pictures whose name has all of the words, the last used first.
func (s *Store) Library(ctx context.Context, words []string, most int) ([]LibraryPicture, error) {
	return list[LibraryPicture](ctx, s, `SELECT id, name, width, height FROM pictures
		WHERE session_id IS NULL AND type LIKE 'image/%' AND name ILIKE ALL($1)
		AND NOT EXISTS (SELECT 1 FROM teachers t WHERE t.id = teacher_id AND t.goes_at IS NOT NULL)
		ORDER BY used_at DESC, id LIMIT $2`, anywhere(words), most)
}

// KeptPicture is a stored picture with the session it belongs to.
type KeptPicture struct {
	Session *string `db:"session_id"` // nil for one of the library
	Type    string  `db:"type"`
	Width   int     `db:"width"`
	Height  int     `db:"height"`
	Data    []byte  `db:"data"`
}

// Picture reads a picture; ErrNotFound when there is none.
func (s *Store) Picture(ctx context.Context, id string) (KeptPicture, error) {
	var p KeptPicture
	err := s.db.GetContext(ctx, &p, `SELECT session_id, type, width, height, data FROM pictures WHERE id = $1`, id)
	if errors.Is(err, sql.ErrNoRows) {
		return p, ErrNotFound
	}
	if err != nil {
		return p, fmt.Errorf("picture: %w", err)
	}
	return p, nil
}

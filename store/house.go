package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"alpenglow/core/settings"
)

// House reads what administrators have decided for all; what was never chosen is as
// usual.
func (s *Store) House(ctx context.Context) (settings.House, error) {
	house := settings.Usually()
	text, err := one[[]byte](ctx, s, `SELECT settings FROM house`)
	if err != nil {
		return house, fmt.Errorf("house: %w", err)
	}
	if err := json.Unmarshal(text, &house); err != nil {
		return settings.Usually(), fmt.Errorf("house: %w", err)
	}
	return house, nil
}

// SetHouse saves it.
func (s *Store) SetHouse(ctx context.Context, house settings.House) error {
	text, err := asJSON(house)
	if err == nil {
		_, err = s.db.ExecContext(ctx, `UPDATE house SET settings = $1`, text)
	}
	if err != nil {
		return fmt.Errorf("set house: %w", err)
	}
	return nil
}

// Entry is a line of the journal: who did what, about whom or what, when. Names are
// those of now, "" for who is gone.
type Entry struct {
	ID     int64     `db:"id"`
	At     time.Time `db:"at"`
	By     *string   `db:"by"`
	ByName string    `db:"by_name"`
	What   string    `db:"what"`
	About  string    `db:"about"`
	Detail string    `db:"detail"`
}

// Note writes a line of the journal. By and about are ids, or "".
func (s *Store) Note(ctx context.Context, by, what, about, detail string) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO journal (by, what, about, detail)
		VALUES (nullif($1, '')::uuid, $2, nullif($3, '')::uuid, $4)`, by, what, about, detail); err != nil {
		return fmt.Errorf("note: %w", err)
	}
	return nil
}

// Journal reads the last lines before one, the newest first; 0 for the newest.
func (s *Store) Journal(ctx context.Context, before int64, most int) ([]Entry, error) {
	return list[Entry](ctx, s, `SELECT j.id, j.at, j.by, coalesce(t.name, '') AS by_name, j.what, j.detail,
		coalesce(a.name, c.name, n.title, '') AS about
		FROM journal j LEFT JOIN teachers t ON t.id = j.by LEFT JOIN teachers a ON a.id = j.about
		LEFT JOIN classes c ON c.id = j.about LEFT JOIN sessions n ON n.id = j.about
		WHERE $1 = 0 OR j.id < $1 ORDER BY j.id DESC LIMIT $2`, before, most)
}

package store

import (
	"context"
	"fmt"
	"time"

	"alpenglow/core/settings"

	"github.com/jmoiron/sqlx"
)

// keptFor is how many months the record of a session is kept: as its class c says, or
// the house, or as usual.
func keptFor() string {
	return fmt.Sprintf(`coalesce(c.keep_months, (SELECT (settings->>'keepMonths')::int FROM house), %d)`,
		settings.Usually().KeepMonths)
}

// SetKeep says how long the records of a class are kept, in months; nil as the house
// says.
func (s *Store) SetKeep(ctx context.Context, teacher, class string, months *int) error {
	_, err := one[string](
		ctx,
		s,
		`UPDATE classes c SET keep_months = $3 WHERE `+ownClass+` AND c.id = $2 RETURNING c.id`,
		teacher,
		class,
		months,
	)
	return err
}

// ForgetRecords removes the records whose time is over, and gives their sessions.
func (s *Store) ForgetRecords(ctx context.Context, now time.Time) ([]string, error) {
	ended, err := list[struct {
		ID     string    `db:"id"`
		Ended  time.Time `db:"ended_at"`
		Months int       `db:"months"`
	}](ctx, s, `SELECT n.id, n.ended_at, `+keptFor()+` AS months FROM sessions n LEFT JOIN classes c ON c.id = n.class_id
		WHERE n.ended_at IS NOT NULL AND NOT n.practice`)
	if err != nil {
		return nil, fmt.Errorf("forget records: %w", err)
	}
	gone := []string{}
	for _, n := range ended {
		at, goes := settings.GoesAt(n.Ended, n.Months)
		if !goes || now.Before(at) {
			continue
		}
		forget := func(tx *sqlx.Tx) error { return forgetSessions(ctx, tx, `id = $1`, n.ID) }
		if err := s.within(ctx, forget); err != nil {
			return gone, fmt.Errorf("forget records: %w", err)
		}
		gone = append(gone, n.ID)
	}
	return gone, nil
}

package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jmoiron/sqlx"
)

// How long a front screen waits for a teacher, how long it shows lessons at most,
// how many wait, and how many show one lesson.
const (
	frontWaits  = 15 * time.Minute
	frontLasts  = 24 * time.Hour
	maxFronts   = 2000
	maxShowing  = 8
	frontFields = "id, code, session_id, made_at"
)

// Front is a device that is a front screen: it waits with a code, or shows a session.
type Front struct {
	ID        string    `db:"id"`
	Code      string    `db:"code"`
	SessionID *string   `db:"session_id"`
	MadeAt    time.Time `db:"made_at"`
}

// NewFront notes a front screen that waits with a code, and forgets those whose
// time is over. It says ErrTaken when another one waits with that code, or too
// many wait.
func (s *Store) NewFront(ctx context.Context, code string, token []byte) (Front, error) {
	f := Front{ID: NewID()}
	err := s.within(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM fronts WHERE made_at < now() - make_interval(secs => $1)
			AND (session_id IS NULL OR made_at < now() - make_interval(secs => $2))`, frontWaits.Seconds(), frontLasts.Seconds()); err != nil {
			return err
		}
		return tx.GetContext(ctx, &f, `INSERT INTO fronts (id, code, token)
			SELECT $1, $2, $3 WHERE (SELECT count(*) FROM fronts WHERE session_id IS NULL) < $4 RETURNING `+frontFields,
			f.ID, code, token, maxFronts)
	})
	if twice := new(pgconn.PgError); errors.As(err, &twice) && twice.ConstraintName == "fronts_code" {
		return f, ErrTaken
	}
	if err = none(err); errors.Is(err, ErrNotFound) {
		return f, ErrTaken
	}
	if err != nil {
		return f, fmt.Errorf("new front: %w", err)
	}
	return f, nil
}

// FrontByToken finds a front screen by the hash of its token.
func (s *Store) FrontByToken(ctx context.Context, token []byte) (Front, error) {
	return one[Front](ctx, s, `SELECT `+frontFields+` FROM fronts WHERE token = $1
		AND made_at > now() - CASE WHEN session_id IS NULL THEN make_interval(secs => $2) ELSE make_interval(secs => $3) END`,
		token, frontWaits.Seconds(), frontLasts.Seconds())
}

// ShowOn lets the front screen that waits with a code show a running session. It
// says ErrNotFound when none waits with it, and ErrTaken when the session has as
// many as it may. A code works once.
func (s *Store) ShowOn(ctx context.Context, code, session string) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		// Those who do so at once for one session wait for each other.
		var running bool
		if err := tx.GetContext(ctx, &running, `SELECT ended_at IS NULL FROM sessions WHERE id = $1 FOR NO KEY UPDATE`,
			session); err != nil {
			return none(err)
		}
		var showing int
		if err := tx.GetContext(ctx, &showing, `SELECT count(*) FROM fronts WHERE session_id = $1`,
			session); err != nil {
			return err
		}
		if !running {
			return ErrNotFound
		}
		if showing >= maxShowing {
			return ErrTaken
		}
		var id string
		return none(tx.GetContext(ctx, &id, `UPDATE fronts SET session_id = $2
			WHERE code = $1 AND session_id IS NULL AND made_at > now() - make_interval(secs => $3) RETURNING id`,
			code, session, frontWaits.Seconds()))
	})
}

// DropFronts forgets the front screens of a session, and gives their ids.
func (s *Store) DropFronts(ctx context.Context, session string) ([]string, error) {
	return list[string](ctx, s, `DELETE FROM fronts WHERE session_id = $1 RETURNING id`, session)
}

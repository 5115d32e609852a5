package store

import (
	"context"
	"fmt"
	"time"

	"alpenglow/core/account"

	"github.com/jmoiron/sqlx"
)

// AddGuest lets somebody begin without an account until a time; beyond limit there are
// so many already, and it says ErrFull.
func (s *Store) AddGuest(ctx context.Context, name string, goes time.Time, limit int) (Teacher, error) {
	t := Teacher{ID: NewID(), Name: name, Role: account.Guest, GoesAt: &goes, Settings: "{}"}
	added, err := s.did(ctx, `INSERT INTO teachers (id, name, password, role, goes_at)
		SELECT $1, $2, '', $3, $4 WHERE (SELECT count(*) FROM teachers WHERE goes_at IS NOT NULL) < $5`,
		t.ID, t.Name, t.Role, goes, limit)
	if err == nil && !added {
		err = ErrFull
	}
	if err != nil {
		return t, fmt.Errorf("add guest: %w", err)
	}
	return t, nil
}

// HandOver gives all that somebody has made, and the classes they teach, to another:
// a leaver's to a colleague, a guest's to the account that they sign in to.
func (s *Store) HandOver(ctx context.Context, from, to string) error {
	return s.within(ctx, func(tx *sqlx.Tx) error {
		for _, do := range []string{
			`UPDATE boards SET teacher_id = $2 WHERE teacher_id = $1`,
			`UPDATE sessions SET teacher_id = $2 WHERE teacher_id = $1`,
			`UPDATE templates SET teacher_id = $2 WHERE teacher_id = $1`,
			`UPDATE pictures SET teacher_id = $2 WHERE teacher_id = $1`,
			`INSERT INTO class_teachers (class_id, teacher_id) SELECT class_id, $2 FROM class_teachers WHERE teacher_id = $1
				ON CONFLICT DO NOTHING`,
			`DELETE FROM class_teachers WHERE teacher_id = $1 AND $2::uuid IS NOT NULL`,
		} {
			if _, err := tx.ExecContext(ctx, do, from, to); err != nil {
				return fmt.Errorf("hand over: %w", err)
			}
		}
		return nil
	})
}

// ForgetGuests removes guests whose time is over, with all that they have made.
func (s *Store) ForgetGuests(ctx context.Context, now time.Time) error {
	gone, err := list[string](ctx, s, `SELECT id FROM teachers WHERE goes_at < $1`, now)
	if err != nil {
		return fmt.Errorf("forget guests: %w", err)
	}
	for _, id := range gone {
		if err := s.within(ctx, func(tx *sqlx.Tx) error { return forgetTeacher(ctx, tx, id) }); err != nil {
			return fmt.Errorf("forget guests: %w", err)
		}
	}
	return nil
}

// AccountErased counts what was of an account that was erased.
type AccountErased struct{ Boards, Lessons, Templates, SignIns int }

// EraseAccount removes the account of somebody who has left, with all that is theirs
// still; it says ErrNotFound where there is none.
func (s *Store) EraseAccount(ctx context.Context, id string) (e AccountErased, err error) {
	err = s.within(ctx, func(tx *sqlx.Tx) error {
		if err := tx.GetContext(ctx, &e, `SELECT
				(SELECT count(*) FROM boards WHERE teacher_id = t.id AND session_id IS NULL) AS boards,
				(SELECT count(*) FROM sessions WHERE teacher_id = t.id) AS lessons,
				(SELECT count(*) FROM templates WHERE teacher_id = t.id) AS templates,
				(SELECT count(*) FROM logins WHERE teacher_id = t.id) AS signins
			FROM teachers t WHERE t.id = $1 AND t.left_at IS NOT NULL FOR UPDATE`, id); err != nil {
			return none(err)
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM mails WHERE address = (SELECT email FROM teachers WHERE id = $1)`,
			id); err != nil {
			return err
		}
		return forgetTeacher(ctx, tx, id)
	})
	return e, err
}

// forgetTeacher removes an account with all that is its own.
func forgetTeacher(ctx context.Context, tx *sqlx.Tx, id string) error {
	if err := forgetSessions(ctx, tx, `teacher_id = $1`, id); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `WITH pictures AS (DELETE FROM pictures p USING teachers t WHERE t.id = $1
			AND t.goes_at IS NOT NULL AND p.teacher_id = t.id AND p.session_id IS NULL)
		DELETE FROM teachers WHERE id = $1`, id)
	return err
}

// forgetSessions removes the sessions for which a condition holds, with all that was
// done in them. Log, marks and activity do not refer to sheets by a foreign key; see
// the first migration.
func forgetSessions(ctx context.Context, tx *sqlx.Tx, where string, args ...any) error {
	for _, from := range []string{"marks", "log", "activity"} {
		if _, err := tx.ExecContext(ctx, `DELETE FROM `+from+` WHERE sheet_id IN (SELECT t.id FROM sheets t
			JOIN sessions n ON n.id = t.session_id WHERE n.`+where+`)`, args...); err != nil {
			return err
		}
	}
	_, err := tx.ExecContext(ctx, `DELETE FROM sessions n WHERE n.`+where, args...)
	return err
}
